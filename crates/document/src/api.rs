//! What an API description offers: its operations, and the schemas that it asks for.

use jar_sprout_model::Words;

use crate::fault::Fault;
use crate::flat::pure_reference;
use crate::library::{Library, References};
use crate::names::component_name;
use crate::read::DocumentKind;
use crate::value::{Object, Value};

/// One operation of an API.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Operation {
    /// `GET`
    pub method: String,
    /// `/hives/{id}`
    pub path: String,
    /// What the document calls it.
    pub id: Option<String>,
    /// What is said of it.
    pub summary: Option<String>,
    /// Parameters and bodies.
    pub takes: Vec<Carried>,
    /// Responses.
    pub gives: Vec<Carried>,
}

/// Something that an operation takes or gives.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Carried {
    /// `query limit`, `body`, `200`
    pub what: String,
    /// `[Hive]`
    pub ty: String,
}

/// What is asked of a document.
pub(crate) struct Wanted<'d> {
    pub(crate) roots: Vec<(Words, &'d Value)>,
    pub(crate) title: Option<Words>,
    pub(crate) operations: Vec<Operation>,
    /// The schemas of what is sent.
    pub(crate) sent: Vec<Sent<'d>>,
    /// The part where there is nothing, and why.
    pub(crate) missing: Option<(String, Fault)>,
}

/// A schema of what is sent.
pub(crate) struct Sent<'d> {
    pub(crate) schema: &'d Value,
    /// Whether it changes what is there, so that everything may be left out.
    pub(crate) is_update: bool,
}

const METHODS: &[&str] = &["get", "put", "post", "delete", "options", "head", "patch", "trace", "query"];

/// The schemas that are asked for, the document's own first.
pub(crate) fn wanted<'d>(
    library: &'d Library,
    parts: &[String],
    name: &Words,
    references: &References<'d>,
) -> Wanted<'d> {
    let whole = library.root();
    let asked = Asked { references, kind: library.kind };
    let mut wanted =
        Wanted { roots: Vec::new(), title: None, operations: Vec::new(), sent: Vec::new(), missing: None };
    let parts: Vec<&String> = parts.iter().filter(|part| !part.is_empty()).collect();
    for part in &parts {
        asked.part(whole, part, &mut wanted);
    }
    if !parts.is_empty() {
        // Two parts may be one component.
        let mut seen = Vec::new();
        wanted.roots.retain(|(_, schema)| {
            let is_new = !seen.contains(&std::ptr::from_ref(*schema));
            seen.push(std::ptr::from_ref(*schema));
            is_new
        });
        if parts.len() > 1 {
            wanted.roots.sort_by(|(a, _), (b, _)| a.iter().cmp(b.iter()));
            wanted.title = Some(name.clone());
        }
        return wanted;
    }
    match library.kind {
        DocumentKind::Schema => {
            let title = whole.get("title").and_then(Value::as_str).map(Words::split);
            let name = title.filter(|title| (1..=4).contains(&title.count())).unwrap_or_else(|| name.clone());
            let holders = ["definitions", "$defs"];
            let says_itself = whole.as_object().is_none_or(|object| {
                let telling =
                    ["type", "properties", "items", "$ref", "allOf", "oneOf", "anyOf", "enum", "const"];
                telling.iter().any(|key| object.get(key).is_some())
            });
            if says_itself {
                wanted.roots.push((name, whole));
            } else {
                let held = holders.iter().filter_map(|holder| whole.get(holder)?.as_object()).flatten();
                wanted.roots.extend(held.map(|(name, schema)| (component_name(name), schema)));
                wanted.title = Some(name);
                if wanted.roots.is_empty() {
                    wanted.roots.push((wanted.title.take().unwrap_or_else(|| Words::split("root")), whole));
                }
            }
        }
        DocumentKind::OpenApi | DocumentKind::Swagger => asked.whole_api(whole, name, &mut wanted),
    }
    wanted
}

/// Where the schemas stand that have names.
const COMPONENTS: &[&str] = &["/components/schemas", "/definitions", "/$defs"];

/// The JSON Pointer to a part: to `Hive` by its name, to `/hives/{id}` and `/hives/{id}/get` by their routes, to an
/// operation by its id.
fn pointer_of(whole: &Value, part: &str) -> Option<String> {
    if part.starts_with('/') && whole.pointer(part).is_some() {
        return Some(part.to_owned());
    }
    let escaped = |name: &str| name.replace('~', "~0").replace('/', "~1");
    let named = COMPONENTS.iter().map(|holder| format!("{holder}/{}", escaped(part)));
    let route = format!("/paths/{}", escaped(part));
    let (above, method) = part.rsplit_once('/').unwrap_or_default();
    let of_method = format!("/paths/{}/{method}", escaped(above));
    let mut candidates = named.chain([route, of_method]);
    candidates.find(|pointer| whole.pointer(pointer).is_some()).or_else(|| {
        let paths = whole.get("paths").and_then(Value::as_object)?;
        paths.iter().find_map(|(path, item)| {
            let mut operations = item.as_object()?.iter();
            let is_it =
                |operation: &Value| operation.get("operationId").and_then(Value::as_str) == Some(part);
            let (method, _) = operations.find(|(_, operation)| is_it(operation))?;
            Some(format!("/paths/{}/{method}", escaped(path)))
        })
    })
}

struct Asked<'r, 'd> {
    references: &'r References<'d>,
    kind: DocumentKind,
}

impl<'d> Asked<'_, 'd> {
    fn part(&self, whole: &'d Value, part: &str, wanted: &mut Wanted<'d>) {
        let pointer = pointer_of(whole, part);
        let Some((pointer, value)) = pointer.and_then(|pointer| {
            let value = whole.pointer(&pointer)?;
            Some((pointer, value))
        }) else {
            let fault = Fault::new(format!("nothing stands at `{part}`")).with_way_out(near(whole, part));
            wanted.missing.get_or_insert((part.to_owned(), fault));
            return;
        };
        let pointer = pointer.as_str();
        let known = wanted.roots.len();
        let parts: Vec<String> =
            pointer.split('/').map(|part| part.replace("~1", "/").replace("~0", "~")).collect();
        let is_path = parts.len() >= 3 && parts[1] == "paths";
        if let (true, Some(item)) = (is_path, value.as_object()) {
            match &parts[..] {
                [_, _, path] => self.path(path, item, wanted),
                [_, _, path, method] => {
                    let above = whole.pointer(&pointer[..pointer.rfind('/').unwrap_or(0)]);
                    self.operation(path, method, item, above.and_then(Value::as_object), wanted);
                }
                _ => wanted.roots.push((component_name(parts.last().map_or("", String::as_str)), value)),
            }
            if wanted.roots.len() == known {
                let fault = Fault::new(format!("`{part}` takes and gives no JSON"));
                wanted.missing.get_or_insert((part.to_owned(), fault));
            }
            return;
        }
        let last = parts.iter().rev().find(|part| !part.is_empty() && part.parse::<usize>().is_err());
        wanted.roots.push((component_name(last.map_or("root", String::as_str)), value));
    }

    fn whole_api(&self, whole: &'d Value, name: &Words, wanted: &mut Wanted<'d>) {
        let holder = if self.kind == DocumentKind::Swagger { "/definitions" } else { "/components/schemas" };
        let components = whole.pointer(holder).and_then(Value::as_object);
        wanted
            .roots
            .extend(components.into_iter().flatten().map(|(name, schema)| (component_name(name), schema)));
        let paths = ["paths", "webhooks"].iter().filter_map(|key| whole.get(key)?.as_object()).flatten();
        for (path, item) in paths {
            if let Some(item) = self.follow(item).as_object() {
                let known = wanted.roots.len();
                self.path(path, item, wanted);
                // What has a name of its own is there already.
                let inline: Vec<_> =
                    wanted.roots.drain(known..).filter(|(_, schema)| is_inline(schema)).collect();
                wanted.roots.extend(inline);
            }
        }
        let title = whole.pointer("/info/title").and_then(Value::as_str).map(Words::split);
        wanted.title = title.filter(|title| (1..=5).contains(&title.count())).or_else(|| Some(name.clone()));
        if wanted.roots.is_empty() {
            wanted.missing = Some((String::new(), Fault::new("the document describes no JSON")));
        }
    }

    fn path(&self, path: &str, item: &'d Object, wanted: &mut Wanted<'d>) {
        for (method, operation) in item {
            if METHODS.contains(&method)
                && let Some(operation) = operation.as_object()
            {
                self.operation(path, method, operation, Some(item), wanted);
            }
        }
    }

    fn operation(
        &self,
        path: &str,
        method: &str,
        operation: &'d Object,
        item: Option<&'d Object>,
        wanted: &mut Wanted<'d>,
    ) {
        let text = |key: &str| operation.get(key).and_then(Value::as_str).map(str::to_owned);
        let id = text("operationId");
        let name = id.as_deref().map_or_else(|| name_of_path(method, path), Words::split);
        let mut described = Operation {
            method: method.to_uppercase(),
            path: path.to_owned(),
            id,
            summary: text("summary").or_else(|| text("description")),
            takes: Vec::new(),
            gives: Vec::new(),
        };
        let list = |holder: Option<&'d Object>| holder.and_then(|holder| holder.get("parameters"));
        let parameters = [list(item), list(Some(operation))];
        for parameter in parameters.into_iter().flatten().filter_map(Value::as_array).flatten() {
            self.parameter(self.follow(parameter), &name, &mut described, wanted);
        }
        if let Some(body) = operation.get("requestBody").map(|body| self.follow(body))
            && let Some(schema) = self.content(body)
        {
            described.takes.push(Carried { what: "body".to_owned(), ty: self.type_name(schema) });
            let merges = body.pointer("/content/application~1merge-patch+json").is_some();
            wanted.sent.push(Sent { schema, is_update: method == "patch" || merges });
            wanted.roots.push((name.with_word("request"), schema));
        }
        let responses = operation.get("responses").and_then(Value::as_object);
        for (status, response) in responses.into_iter().flatten() {
            let response = self.follow(response);
            let schema = response.get("schema").or_else(|| self.content(response));
            let ty = schema.map_or_else(|| "nothing".to_owned(), |schema| self.type_name(schema));
            described.gives.push(Carried { what: status.to_owned(), ty });
            if let Some(schema) = schema {
                let is_well = status.starts_with('2');
                let name = name.with_word(if is_well { "response" } else { "error" });
                wanted.roots.push((name, schema));
            }
        }
        wanted.operations.push(described);
    }

    fn parameter(
        &self,
        parameter: &'d Value,
        operation: &Words,
        described: &mut Operation,
        wanted: &mut Wanted<'d>,
    ) {
        let text = |key: &str| parameter.get(key).and_then(Value::as_str).unwrap_or_default();
        let (place, name) = (text("in"), text("name"));
        // Before OpenAPI 3 a parameter is its own schema, but for a body.
        let schema = parameter.get("schema").or_else(|| self.content(parameter)).unwrap_or(parameter);
        let is_body = place == "body";
        let what = if is_body { "body".to_owned() } else { format!("{place} {name}") };
        described.takes.push(Carried { what, ty: self.type_name(schema) });
        let items = schema.get("items").unwrap_or(schema);
        if is_body {
            wanted.sent.push(Sent { schema, is_update: described.method == "PATCH" });
            wanted.roots.push((operation.with_word("request"), schema));
        } else if items.get("enum").is_some() {
            wanted.roots.push((Words::split(name).prefixed(operation), items));
        }
    }

    /// The JSON schema of what is in a request, a response or a parameter.
    fn content(&self, holder: &'d Value) -> Option<&'d Value> {
        let content = holder.get("content")?.as_object()?;
        let is_json = |media: &str| {
            let media = media.split(';').next().unwrap_or_default().trim();
            media == "application/json"
                || media.ends_with("+json")
                || media == "*/*"
                || media.ends_with("/json")
        };
        let (_, media) = content.iter().find(|(media, _)| is_json(media))?;
        media.get("schema").or_else(|| media.get("itemSchema"))
    }

    fn follow(&self, value: &'d Value) -> &'d Value {
        let mut value = value;
        for _ in 0..16 {
            match value.get("$ref").and_then(|_| self.references.follow(value).ok()) {
                Some(target) => value = target,
                None => break,
            }
        }
        value
    }

    /// `[Hive]`, for people.
    fn type_name(&self, schema: &'d Value) -> String {
        if let Some(holder) = pure_reference(schema) {
            let written = holder.get("$ref").and_then(Value::as_str).unwrap_or("?");
            return component_name(written.rsplit('/').next().unwrap_or(written)).in_capitals();
        }
        if let Some(title) = schema.get("title").and_then(Value::as_str) {
            return Words::split(title).in_capitals();
        }
        match schema.get("type") {
            Some(Value::String(ty)) if **ty == *"array" => {
                let items =
                    schema.get("items").map_or_else(|| "any".to_owned(), |items| self.type_name(items));
                format!("[{items}]")
            }
            Some(Value::String(ty)) => match schema.get("enum").and_then(Value::as_array) {
                Some(values) => values.iter().filter_map(Value::as_str).collect::<Vec<_>>().join(" | "),
                None => schema
                    .get("format")
                    .and_then(Value::as_str)
                    .map_or_else(|| ty.to_string(), |f| format!("{} {f}", &**ty)),
            },
            _ => "any".to_owned(),
        }
    }
}

/// Whether a schema has a part that has no name yet: all but references, and lists and scalars of no account.
fn is_inline(schema: &Value) -> bool {
    if pure_reference(schema).is_some() {
        return false;
    }
    match schema.get("type").and_then(Value::as_str) {
        Some("array") => schema.get("items").is_some_and(is_inline),
        Some("string") => schema.get("enum").is_some(),
        Some("integer" | "number" | "boolean" | "file") => false,
        _ => schema.as_object().is_some_and(|object| !object.is_empty()),
    }
}

/// `get hives` of `GET /hives/{id}`
fn name_of_path(method: &str, path: &str) -> Words {
    let parts = path.split('/').filter(|part| !part.is_empty() && !part.starts_with('{'));
    let words: Vec<&str> = [method].into_iter().chain(parts).collect();
    Words::split(&words.join(" "))
}

/// What there is instead of a part that is not there.
fn near(whole: &Value, part: &str) -> Option<String> {
    const MOST: usize = 12;
    let listed = |names: Vec<String>| names.into_iter().take(MOST).collect::<Vec<_>>().join(", ");
    let keys = |value: &Value| -> Vec<String> {
        value.as_object().map(|object| object.keys().map(str::to_owned).collect()).unwrap_or_default()
    };
    let first = part.strip_prefix('/').and_then(|part| part.split('/').next()).unwrap_or_default();
    let mut above = part;
    // A pointer that leads somewhere at first.
    while whole.get(first).is_some() {
        above = &above[..above.rfind('/')?];
        let Some(found) = whole.pointer(above) else { continue };
        let keys = keys(found);
        let at = if above.is_empty() { "#" } else { above };
        return (!keys.is_empty()).then(|| format!("`{at}` has {}", listed(keys)));
    }
    let routes = whole.get("paths").map(keys).unwrap_or_default();
    let components = COMPONENTS.iter().filter_map(|holder| whole.pointer(holder)).flat_map(keys);
    let all: Vec<String> = if part.starts_with('/') { routes } else { components.collect() };
    (!all.is_empty()).then(|| format!("there are {}", listed(all)))
}

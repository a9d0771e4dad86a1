//! What an API description offers: its operations, and the schemas that it asks for.

use std::collections::HashSet;

use indexmap::IndexMap;
use jar_sprout_model::{DraftId, Words};

use crate::definitions::{definitions, says_itself};
use crate::fault::Fault;
use crate::flat::{is_plain, pure_reference};
use crate::library::{Library, References};
use crate::names::component_name;
use crate::parameters::METHODS;
use crate::pointers::escaped;
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
    /// What it is; none where it is nothing that has a type.
    pub node: Option<DraftId>,
}

/// An operation as the document says it.
pub(crate) struct Described<'d> {
    /// All but what is taken and given.
    pub(crate) operation: Operation,
    pub(crate) takes: Vec<CarriedSchema<'d>>,
    pub(crate) gives: Vec<CarriedSchema<'d>>,
}

/// Something that is carried, by its schema.
pub(crate) struct CarriedSchema<'d> {
    pub(crate) what: String,
    pub(crate) schema: Option<&'d Value>,
    /// Whether it is a body that is sent, and whether that changes what is there.
    pub(crate) sent: Option<bool>,
}

/// What is asked of a document.
pub(crate) struct Wanted<'d> {
    pub(crate) roots: Vec<(Words, &'d Value)>,
    pub(crate) title: Option<Words>,
    pub(crate) operations: Vec<Described<'d>>,
    /// The schemas of what is sent.
    pub(crate) sent: Vec<Sent<'d>>,
    /// What responses have in them.
    pub(crate) read: Vec<&'d Value>,
    /// Media types that make no types though schemas say what is in them: how often, and where first.
    pub(crate) unread: IndexMap<&'d str, (usize, String)>,
    /// The part where there is nothing, and why.
    pub(crate) missing: Option<(String, Fault)>,
}

/// A schema of what is sent.
pub(crate) struct Sent<'d> {
    pub(crate) schema: &'d Value,
    /// Whether it changes what is there, so that everything may be left out.
    pub(crate) is_update: bool,
    /// Whether nothing but the request speaks of it.
    pub(crate) is_inline: bool,
}

/// The schemas that are asked for, the document's own first.
pub(crate) fn wanted<'d>(
    library: &'d Library,
    parts: &[String],
    name: &Words,
    references: &References<'d>,
) -> Wanted<'d> {
    let whole = library.root();
    let asked = Asked { references, kind: library.kind, queries: library.queries() };
    let mut wanted = Wanted {
        roots: Vec::new(),
        title: None,
        operations: Vec::new(),
        sent: Vec::new(),
        read: Vec::new(),
        unread: IndexMap::new(),
        missing: None,
    };
    let parts: Vec<&String> = parts.iter().filter(|part| !part.is_empty()).collect();
    for part in &parts {
        asked.part(whole, part, &mut wanted);
    }
    if !parts.is_empty() {
        // Two parts may be one component.
        each_once(&mut wanted.roots);
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
            if says_itself(whole) {
                wanted.roots.push((name, whole));
            } else {
                let held = definitions(whole).map(|(_, name, schema)| (component_name(name), schema));
                wanted.roots.extend(held);
                drop_scalars(&mut wanted.roots, references);
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

/// Keeps each schema where it comes first.
fn each_once(roots: &mut Vec<(Words, &Value)>) {
    let mut seen = HashSet::new();
    roots.retain(|(_, schema)| seen.insert(std::ptr::from_ref(*schema)));
}

/// Leaves out what is a scalar, and a type nowhere: those that refer to it have that scalar.
fn drop_scalars<'d>(roots: &mut Vec<(Words, &'d Value)>, references: &References<'d>) {
    let is_scalar = |schema: &'d Value| is_plain(references.target(schema).unwrap_or(schema));
    if roots.iter().any(|(_, schema)| !is_scalar(schema)) {
        roots.retain(|(_, schema)| !is_scalar(schema));
    }
}

/// Where the schemas stand that have names.
const COMPONENTS: &[&str] = &["/components/schemas", "/definitions", "/$defs"];

/// The JSON Pointer to a part: to `Hive` by its name, to `/hives/{id}` and `/hives/{id}/get` by their routes, to an
/// operation by its id.
fn pointer_of(whole: &Value, part: &str) -> Option<String> {
    if part.starts_with('/') && whole.pointer(part).is_some() {
        return Some(part.to_owned());
    }
    if let Some(operation) = part.strip_suffix(PARAMETERS) {
        return Some(pointer_of(whole, operation)? + PARAMETERS);
    }
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

/// Notes what has parts in a form that nothing here reads, of a holder whose contents are none of those that are read.
fn note_unread<'d>(holder: &'d Value, path: &str, method: &str, wanted: &mut Wanted<'d>) {
    for (media, said) in holder.get("content").and_then(Value::as_object).into_iter().flatten() {
        let has_parts = said
            .get("schema")
            .is_some_and(|schema| !is_plain(schema) && is_inline(schema) || pure_reference(schema).is_some());
        if has_parts {
            let noted = wanted.unread.entry(media);
            noted.or_insert_with(|| (0, format!("/paths/{}/{method}", escaped(path)))).0 += 1;
        }
    }
}

struct Asked<'r, 'd> {
    references: &'r References<'d>,
    kind: DocumentKind,
    /// By the JSON Pointers to operations, the objects of what they take in their queries.
    queries: Option<&'d Object>,
}

/// What follows an operation where its parameters are asked for.
const PARAMETERS: &str = "/parameters";

impl<'d> Asked<'_, 'd> {
    fn part(&self, whole: &'d Value, part: &str, wanted: &mut Wanted<'d>) {
        let pointer = pointer_of(whole, part);
        let operation = pointer.as_deref().and_then(|pointer| pointer.strip_suffix(PARAMETERS));
        if let Some((operation, query)) = operation.and_then(|at| Some((at, self.queries?.get(at)?))) {
            wanted.roots.push((query_name(whole, operation), query));
            return;
        }
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
        drop_scalars(&mut wanted.roots, self.references);
        // One parameter may be referred to by several operations.
        each_once(&mut wanted.roots);
        let title = whole.pointer("/info/title").and_then(Value::as_str).map(Words::split);
        wanted.title = title.filter(|title| (1..=5).contains(&title.count())).or_else(|| Some(name.clone()));
        if components.is_none() && wanted.read.is_empty() && wanted.sent.is_empty() {
            // What is asked is all that it says.
            let queries = self.queries.into_iter().flatten();
            wanted.roots.extend(queries.map(|(operation, query)| (query_name(whole, operation), query)));
        }
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
        let mut described = Described {
            operation: Operation {
                method: method.to_uppercase(),
                path: path.to_owned(),
                id,
                summary: text("summary").or_else(|| text("description")),
                takes: Vec::new(),
                gives: Vec::new(),
            },
            takes: Vec::new(),
            gives: Vec::new(),
        };
        let list = |holder: Option<&'d Object>| holder.and_then(|holder| holder.get("parameters"));
        let parameters = [list(item), list(Some(operation))];
        for parameter in parameters.into_iter().flatten().filter_map(Value::as_array).flatten() {
            self.parameter(self.follow(parameter), &name, &mut described, wanted);
        }
        if let Some(body) = operation.get("requestBody").map(|body| self.follow(body)) {
            let contents = self.contents(body);
            if contents.is_empty() {
                note_unread(body, path, method, wanted);
            }
            let is_merged = body.pointer("/content/application~1merge-patch+json").is_some();
            let is_update = method == "patch" || is_merged;
            let schema = contents.first().map(|(_, schema)| *schema);
            described.takes.push(CarriedSchema { what: "body".to_owned(), schema, sent: Some(is_update) });
            for (media, schema) in contents {
                let is_inline = self.references.target(schema).is_none();
                wanted.sent.push(Sent { schema, is_update, is_inline });
                wanted.roots.push((in_media(&name, media).with_word("request"), schema));
            }
        }
        let responses = operation.get("responses").and_then(Value::as_object);
        let mut has_response = false;
        for (status, response) in responses.into_iter().flatten() {
            let response = self.follow(response);
            let by_media = self.contents(response);
            if by_media.is_empty() {
                note_unread(response, path, method, wanted);
            }
            for (header, said) in response.get("headers").and_then(Value::as_object).into_iter().flatten() {
                self.named_values(self.follow(said), header, &name, wanted);
            }
            let whole = response.get("schema").map(|schema| (None, schema));
            let contents: Vec<_> = whole.into_iter().chain(by_media).collect();
            let schema = contents.first().map(|(_, schema)| *schema);
            described.gives.push(CarriedSchema { what: status.to_owned(), schema, sent: None });
            let is_well = status.starts_with('2');
            let ending = if is_well && !has_response { "response" } else { status_words(status) };
            has_response |= is_well && !contents.is_empty();
            for (media, schema) in contents {
                wanted.read.push(schema);
                let name = ending.split(' ').fold(in_media(&name, media), |name, word| name.with_word(word));
                wanted.roots.push((name, schema));
            }
        }
        let callbacks = operation.get("callbacks").and_then(Value::as_object);
        for (callback, routes) in callbacks.into_iter().flatten() {
            for item in self.follow(routes).as_object().into_iter().flat_map(Object::values) {
                if let Some(item) = self.follow(item).as_object() {
                    self.path(callback, item, wanted);
                }
            }
        }
        wanted.operations.push(described);
    }

    fn parameter(
        &self,
        parameter: &'d Value,
        operation: &Words,
        described: &mut Described<'d>,
        wanted: &mut Wanted<'d>,
    ) {
        let text = |key: &str| parameter.get(key).and_then(Value::as_str).unwrap_or_default();
        let (place, name) = (text("in"), text("name"));
        let schema = self.schema_of(parameter);
        let is_body = place == "body";
        let what = if is_body { "body".to_owned() } else { format!("{place} {name}") };
        let is_update = described.operation.method == "PATCH";
        let sent = is_body.then_some(is_update);
        described.takes.push(CarriedSchema { what, schema: Some(schema), sent });
        if is_body {
            let is_inline = self.references.target(schema).is_none();
            wanted.sent.push(Sent { schema, is_update, is_inline });
            wanted.roots.push((operation.with_word("request"), schema));
        } else {
            self.named_values(parameter, name, operation, wanted);
        }
    }

    /// The schema of a parameter or a header: before OpenAPI 3 it is its own, but for a body.
    fn schema_of(&self, holder: &'d Value) -> &'d Value {
        let content = self.contents(holder).first().map(|(_, schema)| *schema);
        holder.get("schema").or(content).unwrap_or(holder)
    }

    /// Asks for the type of a parameter or a header, if it has one of its own: known values, or fields.
    fn named_values(&self, holder: &'d Value, name: &str, operation: &Words, wanted: &mut Wanted<'d>) {
        let schema = self.schema_of(holder);
        let items = schema.get("items").unwrap_or(schema);
        if items.get("enum").is_some() || items.get("properties").is_some() {
            wanted.roots.push((Words::split(name).prefixed(operation), items));
        }
    }

    /// The schemas of what is in a request, a response or a parameter: of each kind of JSON, else of the first kind that
    /// has fields all the same. A media type is named where it is not the first one.
    fn contents(&self, holder: &'d Value) -> Vec<(Option<&'d str>, &'d Value)> {
        let content = holder.get("content").and_then(Value::as_object);
        let schemas = content.into_iter().flatten().filter_map(|(media, said)| {
            Some((media, said.get("schema").or_else(|| said.get("itemSchema"))?))
        });
        let schemas: Vec<(&'d str, &'d Value)> = schemas.collect();
        let of = |test: fn(&str) -> bool| -> Vec<(&'d str, &'d Value)> {
            let bare = |media: &str| media.split(';').next().unwrap_or_default().trim().to_ascii_lowercase();
            schemas.iter().copied().filter(|(media, _)| test(&bare(media))).collect()
        };
        let mut known = of(is_json);
        if known.is_empty() {
            known = of(has_fields);
            known.truncate(1);
        }
        let mut contents: Vec<(Option<&'d str>, &'d Value)> = Vec::new();
        for (media, schema) in known {
            let is_there = contents.iter().any(|(_, other)| self.is_same(other, schema));
            if !is_there {
                contents.push(((!contents.is_empty()).then_some(media), schema));
            }
        }
        contents
    }

    /// Whether two schemas are one, or say the same.
    fn is_same(&self, a: &'d Value, b: &'d Value) -> bool {
        let target = |schema| self.references.target(schema).unwrap_or(schema);
        std::ptr::eq(target(a), target(b)) || a == b
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

fn is_json(media: &str) -> bool {
    media == "application/json" || media.ends_with("+json") || media == "*/*" || media.ends_with("/json")
}

/// Whether what is of a media type that is no JSON has fields all the same: forms, and streams of JSON.
fn has_fields(media: &str) -> bool {
    const STREAMS: &[&str] =
        &["text/event-stream", "application/x-ndjson", "application/jsonl", "application/json-seq"];
    media == "application/x-www-form-urlencoded"
        || media.starts_with("multipart/")
        || STREAMS.contains(&media)
}

/// The name of an operation in the words of a media type: of `application/vnd.honey.v2+json`, those of `honey.v2`.
fn in_media(name: &Words, media: Option<&str>) -> Words {
    let subtype = media.and_then(|media| media.split(['/', ';']).nth(1));
    let subtype =
        subtype.map(|subtype| subtype.trim_start_matches("vnd.").split('+').next().unwrap_or_default());
    subtype.map_or_else(|| name.clone(), |subtype| Words::split(subtype).prefixed(name))
}

/// A status of HTTP in words (RFC 9110, section 15).
fn status_words(status: &str) -> &'static str {
    match status {
        "202" => "accepted",
        "206" => "part",
        "207" => "multi status",
        "400" => "bad request",
        "401" => "unauthorized",
        "402" => "payment required",
        "403" => "forbidden",
        "404" => "not found",
        "405" => "method not allowed",
        "406" => "not acceptable",
        "408" => "timeout",
        "409" => "conflict",
        "410" => "gone",
        "412" => "precondition failed",
        "413" => "too large",
        "415" => "unsupported media",
        "422" => "unprocessable",
        "423" => "locked",
        "429" => "too many requests",
        "500" => "server error",
        "501" => "not implemented",
        "502" => "bad gateway",
        "503" => "unavailable",
        "504" => "gateway timeout",
        _ if status.starts_with('2') => "response",
        _ if status.starts_with('3') => "redirect",
        _ => "error",
    }
}

/// The name of what the operation at a pointer takes in its query.
fn query_name(whole: &Value, operation: &str) -> Words {
    let id = whole.pointer(operation).and_then(|operation| operation.get("operationId")?.as_str());
    let mut steps = operation.rsplit('/').map(|step| step.replace("~1", "/").replace("~0", "~"));
    let (method, path) = (steps.next().unwrap_or_default(), steps.next().unwrap_or_default());
    id.map_or_else(|| name_of_path(&method, &path), Words::split).with_word("query")
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

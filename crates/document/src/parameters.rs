//! What an operation takes in its query, as one object: a schema that no document writes, made of those of the parameters.

use serde_json::{Map, Value as Json, json};

use crate::pointers::escaped;
use crate::value::{Object, Value};

/// The keys of operations among those of a path.
pub(crate) const METHODS: &[&str] =
    &["get", "put", "post", "delete", "options", "head", "patch", "trace", "query"];

/// The most references that a parameter is behind.
const MOST_REFERENCES: usize = 8;

/// By the JSON Pointer (RFC 6901) to each operation, the object of what stands in its query. `address` is that of the
/// API description, to which the schemas refer. None where no operation has such parameters.
pub(crate) fn query_objects(api: &Value, address: &str) -> Option<Value> {
    let mut objects = Map::new();
    for (path, item) in api.get("paths").and_then(Value::as_object).into_iter().flatten() {
        let Some(item) = item.as_object() else { continue };
        let at_path = format!("/paths/{}", escaped(path));
        for (method, operation) in item.iter().filter(|(method, _)| METHODS.contains(method)) {
            let at = format!("{at_path}/{method}");
            let mut fields = Fields::default();
            let lists = [(Some(item), &at_path), (operation.as_object(), &at)];
            for (holder, at) in lists {
                let list = holder.and_then(|holder| holder.get("parameters")).and_then(Value::as_array);
                for (index, parameter) in list.into_iter().flatten().enumerate() {
                    let pointer = format!("{at}/parameters/{index}");
                    fields.extend(resolved(api, pointer, parameter), address);
                }
            }
            if !fields.properties.is_empty() {
                objects.insert(at, fields.object());
            }
        }
    }
    (!objects.is_empty()).then(|| Json::Object(objects).into())
}

/// A parameter, and where it stands, once no reference leads on; what stands in another file is left alone.
fn resolved<'v>(api: &'v Value, pointer: String, parameter: &'v Value) -> Option<(String, &'v Object)> {
    let (mut pointer, mut parameter) = (pointer, parameter);
    for _ in 0..MOST_REFERENCES {
        let object = parameter.as_object()?;
        let Some(reference) = object.get("$ref").and_then(Value::as_str) else {
            return Some((pointer, object));
        };
        pointer = reference.strip_prefix('#')?.to_owned();
        parameter = api.pointer(&pointer)?;
    }
    None
}

/// The fields of an object that is being made.
#[derive(Default)]
struct Fields {
    properties: Map<String, Json>,
    required: Vec<String>,
}

impl Fields {
    /// Adds a parameter, if it stands in the query; what an operation says counts above what its path says.
    fn extend(&mut self, parameter: Option<(String, &Object)>, address: &str) {
        let Some((pointer, parameter)) = parameter else { return };
        let text = |key: &str| parameter.get(key).and_then(Value::as_str);
        let (Some("query"), Some(name)) = (text("in"), text("name")) else { return };
        let mut property = Map::new();
        let content = parameter.get("content").and_then(Value::as_object);
        let media = content.and_then(|content| content.iter().next()).map(|(media, _)| media);
        if let Some(media) = media {
            let schema = format!("{address}#{pointer}/content/{}/schema", escaped(media));
            property.insert("type".to_owned(), json!("string"));
            property.insert("contentMediaType".to_owned(), json!(media));
            property.insert("contentSchema".to_owned(), json!({"$ref": schema}));
        } else {
            // Before OpenAPI 3 a parameter is its own schema.
            let inside = if parameter.get("schema").is_some() { "/schema" } else { "" };
            property.insert("$ref".to_owned(), json!(format!("{address}#{pointer}{inside}")));
        }
        if let Some(description) = text("description") {
            property.insert("description".to_owned(), json!(description));
        }
        if parameter.get("deprecated").is_some_and(Value::is_true) {
            property.insert("deprecated".to_owned(), json!(true));
        }
        self.required.retain(|known| known != name);
        if parameter.get("required").is_some_and(Value::is_true) {
            self.required.push(name.to_owned());
        }
        self.properties.insert(name.to_owned(), Json::Object(property));
    }

    fn object(self) -> Json {
        json!({"type": "object", "properties": self.properties, "required": self.required})
    }
}

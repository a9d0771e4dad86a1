//! What an API says of itself, as OpenAPI 3.1.

use std::collections::BTreeMap;

use percent_encoding::percent_decode_str;
use serde_json::{Map, Value, json};

use crate::path::Template;
use crate::resource::Resource;

/// The document of an API with these resources; `origin` is where it listens.
pub(crate) fn document(title: &str, origin: &str, resources: &[Resource], has_key: bool) -> Value {
    let mut components = Map::new();
    let mut paths: Map<String, Value> = Map::new();
    for resource in resources {
        let schema = resource
            .schema
            .as_ref()
            .map_or_else(|| json!({}), |schema| lifted(schema, &resource.name, &mut components));
        let path = paths.entry(resource.path.clone()).or_insert_with(|| json!({}));
        path[resource.method.to_lowercase()] = operation(resource, &schema);
    }
    let mut document = json!({
        "openapi": "3.1.0",
        "info": {"title": title, "version": "1"},
        "servers": [{"url": origin}],
        "paths": paths,
        "components": {"schemas": components},
    });
    if has_key {
        document["components"]["securitySchemes"] = json!({"key": {"type": "http", "scheme": "bearer"}});
        document["security"] = json!([{"key": []}]);
    }
    document
}

fn operation(resource: &Resource, schema: &Value) -> Value {
    let variables = Template::of(&resource.path);
    let in_path = variables
        .variables()
        .map(|name| json!({"name": name, "in": "path", "required": true, "schema": {"type": "string"}}));
    let mut parameters: Vec<Value> = in_path.collect();
    if resource.pages.is_some() {
        let counts = ["page", "page_size"].map(
            |name| json!({"name": name, "in": "query", "schema": {"type": "integer", "format": "int32", "minimum": 1}}),
        );
        parameters.extend(counts);
    }
    let kind = resource.held.kind();
    json!({
        "operationId": operation_id(resource),
        "parameters": parameters,
        "responses": {"200": {"description": resource.name, "content": {kind: {"schema": schema}}}},
    })
}

/// `getHives`
fn operation_id(resource: &Resource) -> String {
    let words = resource.name.split(['-', '_', ' ']);
    let capital = |word: &str| {
        let mut chars = word.chars();
        chars.next().into_iter().flat_map(char::to_uppercase).chain(chars).collect::<String>()
    };
    resource.method.to_lowercase() + &words.map(capital).collect::<String>()
}

/// A schema of which the types stand among the components of the document, under names that are free there.
fn lifted(schema: &Value, resource: &str, components: &mut Map<String, Value>) -> Value {
    let mut root = schema.clone();
    let types = root.as_object_mut().and_then(|root| {
        root.remove("$schema");
        root.remove("$defs")
    });
    let Some(Value::Object(types)) = types else { return root };
    let mut names: BTreeMap<String, String> = BTreeMap::new();
    for own in types.keys() {
        // OpenAPI 3.1, section 4.8.7.1: no other signs than these.
        let plain = |c: char| if c.is_ascii_alphanumeric() || "._-".contains(c) { c } else { '_' };
        let [word, resource] =
            [own.as_str(), resource].map(|text| text.chars().map(plain).collect::<String>());
        let of_resource = format!("{word}-{resource}");
        let numbered = (2..).map(|number| format!("{word}-{resource}-{number}"));
        let mut all = [word.clone(), of_resource].into_iter().chain(numbered);
        let is_free =
            |name: &String| !components.contains_key(name) && names.values().all(|taken| taken != name);
        names.insert(own.clone(), all.find(is_free).unwrap_or_default());
    }
    refer(&mut root, &names);
    for (own, mut schema) in types {
        refer(&mut schema, &names);
        components.insert(names[&own].clone(), schema);
    }
    root
}

/// Has references lead to the components.
fn refer(schema: &mut Value, names: &BTreeMap<String, String>) {
    match schema {
        Value::Object(object) => {
            for (key, value) in object {
                match value {
                    Value::String(text) if key == "$ref" => {
                        let own = text.strip_prefix("#/$defs/").unwrap_or_default();
                        let own =
                            percent_decode_str(own).decode_utf8_lossy().replace("~1", "/").replace("~0", "~");
                        if let Some(name) = names.get(&own) {
                            *text = format!("#/components/schemas/{name}");
                        }
                    }
                    other => refer(other, names),
                }
            }
        }
        Value::Array(items) => items.iter_mut().for_each(|item| refer(item, names)),
        Value::Null | Value::Bool(_) | Value::Number(_) | Value::String(_) => {}
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn types_of_one_name_stay_apart() {
        let schema = |kind: &str| {
            json!({
                "$schema": "x", "type": "array", "items": {"$ref": "#/$defs/Hive"},
                "$defs": {"Hive": {"type": kind, "properties": {"next": {"$ref": "#/$defs/Hive"}, "größe": {"$ref": "#/$defs/Gr%C3%B6%C3%9Fe"}}},
                    "Größe": {"type": "number"}},
            })
        };
        let mut components = Map::new();
        let first = lifted(&schema("object"), "hives", &mut components);
        let second = lifted(&schema("string"), "more", &mut components);
        assert_eq!(first, json!({"type": "array", "items": {"$ref": "#/components/schemas/Hive"}}));
        assert_eq!(second["items"], json!({"$ref": "#/components/schemas/Hive-more"}));
        let names: Vec<&String> = components.keys().collect();
        assert_eq!(names, ["Hive", "Gr__e", "Hive-more", "Gr__e-more"]);
        let inner = &components["Hive-more"]["properties"];
        assert_eq!(inner["next"], json!({"$ref": "#/components/schemas/Hive-more"}));
        assert_eq!(inner["größe"], json!({"$ref": "#/components/schemas/Gr__e-more"}));
    }
}

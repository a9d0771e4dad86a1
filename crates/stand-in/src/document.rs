//! What an API says of itself, as OpenAPI 3.1.

use std::collections::BTreeSet;

use jar_sprout_model::{Model, TypeId};
use serde_json::{Map, Value, json};

use crate::path::Template;
use crate::resource::Resource;
use crate::schema::schemas;

/// The document of an API with these resources; `origin` is where it listens.
pub(crate) fn document(title: &str, origin: &str, resources: &[Resource], has_key: bool) -> Value {
    let mut components = Map::new();
    let mut paths: Map<String, Value> = Map::new();
    for resource in resources {
        let schema = resource.model.as_ref().map_or_else(
            || json!({}),
            |model| {
                let names = free_names(&resource.name, model, &components);
                let (types, root) = schemas(model, &|id| names[position(model, id)].clone());
                components.extend(types);
                root
            },
        );
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

fn position(model: &Model, id: TypeId) -> usize {
    model.types().position(|(known, _)| known == id).unwrap_or_default()
}

/// The names of a model's types in the document: their own, but for those that another model has.
fn free_names(resource: &str, model: &Model, known: &Map<String, Value>) -> Vec<String> {
    let mut taken: BTreeSet<String> = known.keys().cloned().collect();
    let mut names = Vec::new();
    for (_, ty) in model.types() {
        let own = ty.name.in_capitals();
        let of_resource = format!("{own}-{resource}");
        let numbered = (2..).map(|number| format!("{own}-{resource}-{number}"));
        let mut all = [own.clone(), of_resource].into_iter().chain(numbered);
        let name = all.find(|name| !taken.contains(name)).unwrap_or(own);
        taken.insert(name.clone());
        names.push(name);
    }
    names
}

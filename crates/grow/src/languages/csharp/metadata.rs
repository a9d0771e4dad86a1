//! Where System.Text.Json has what it knows of types from: reflection, or a context that its generator fills in.

use std::collections::BTreeMap;

use jar_sprout_layout::{Doc, cat, lines, text};
use jar_sprout_model::Slot;

use super::{Sheet, call, result, types};
use crate::plan::{Ident, PlannedDefinition, PlannedField, PlannedRoot, push_capitalised};
use crate::spell::Helper;

/// What asks the options of a type.
pub(super) const METADATA: Helper = Helper { name: "Metadata", text: include_str!("generated/Metadata.cs") };

/// `JsonSerializer.Deserialize<Queen>(ref reader, options)`
pub(super) fn from_reader(sheet: &mut Sheet<'_>, ty: &str) -> Doc {
    let (argument, options) = asked(sheet, ty);
    call(format!("JsonSerializer.Deserialize{argument}"), &["ref reader", &options])
}

/// `element.Deserialize<Queen>(options)`
pub(super) fn from_element(sheet: &mut Sheet<'_>, ty: &str) -> Doc {
    let (argument, options) = asked(sheet, ty);
    call(format!("element.Deserialize{argument}"), &[&options])
}

/// `JsonSerializer.Serialize(writer, held.Value, options);`
pub(super) fn to_writer(sheet: &mut Sheet<'_>, value: &str, ty: &str) -> Doc {
    let (_, options) = asked(sheet, ty);
    cat([call("JsonSerializer.Serialize", &["writer", value, &options]), text(";")])
}

/// The argument of a type, and what is asked of it.
fn asked(sheet: &mut Sheet<'_>, ty: &str) -> (String, String) {
    if sheet.options.has_context {
        sheet.needs.helpers.insert(METADATA);
        (String::new(), format!("options.TypeInfo<{ty}>()"))
    } else {
        (format!("<{ty}>"), "options".to_owned())
    }
}

/// What the context of a model is called: after the namespace, since the generator wants a name that no other one of
/// the assembly has, wherever it stands.
fn context_name(sheet: &Sheet<'_>) -> String {
    let namespace = sheet.options.namespace.rsplit('.').next().unwrap_or_default();
    let mut name = String::new();
    push_capitalised(namespace, &mut name);
    name += "JsonContext";
    while sheet.plan.find(&name).is_some() {
        name.push('s');
    }
    name
}

/// What the context knows of a root: `ModelsJsonContext.Default.HiveList`
pub(super) fn of_root(sheet: &mut Sheet<'_>, root: &Ident) -> String {
    let context = format!("{}.Default", context_name(sheet));
    let plan = sheet.plan;
    let slot = plan.roots.iter().find(|other| plan.root_ident(other) == root).map(PlannedRoot::slot);
    let ty = slot.map(|slot| root_type(sheet, slot)).unwrap_or_default();
    if is_called(sheet, root, &ty) {
        return format!("{context}.{}", property(root.as_str()));
    }
    sheet.needs.helpers.insert(METADATA);
    format!("{context}.Options.TypeInfo<{}>()", result(ty, sheet.options))
}

/// The type that a root is read as; of a value, one that may be null.
fn root_type(sheet: &mut Sheet<'_>, slot: &Slot) -> String {
    let types::Spelled { name, is_value } = types::non_null(sheet, slot);
    if is_value { name + "?" } else { name }
}

/// Whether the context calls a type after this root: not what every program has, which the generator calls by names
/// of its own, nor what an earlier root is called after.
fn is_called(sheet: &mut Sheet<'_>, root: &Ident, ty: &str) -> bool {
    let plan = sheet.plan;
    if plan.find(root.as_str()).is_some() {
        // What may be null is called by the generator, beside what may not.
        return !ty.ends_with('?');
    }
    let is_first = |sheet: &mut Sheet<'_>| {
        let first = plan.roots.iter().find(|other| root_type(sheet, other.slot()) == ty);
        first.is_some_and(|first| plan.root_ident(first) == root)
    };
    ty.ends_with(['>', ']']) && is_first(sheet)
}

/// What the context calls what it knows of a type.
fn property(ident: &str) -> String {
    match ident.trim_start_matches('@') {
        // It has these of its own.
        own @ ("Default" | "GeneratedSerializerOptions" | "Options") => format!("{own}Type"),
        ident => ident.to_owned(),
    }
}

/// The context, where it stands beside this root: the first.
pub(super) fn context(sheet: &mut Sheet<'_>, ident: &Ident) -> Option<Doc> {
    if !sheet.options.has_context || sheet.plan.root_name() != ident.as_str() {
        return None;
    }
    sheet.needs.imports.insert("System.Text.Json.Serialization");
    let plan = sheet.plan;
    let mut attributes = Vec::new();
    if sheet.options.refuses_null {
        attributes.push(text("[JsonSourceGenerationOptions(RespectNullableAnnotations = true)]"));
    }
    // Each type with what it is called, if not as the generator would call it.
    let mut known: BTreeMap<String, Option<String>> = BTreeMap::new();
    for ty in &plan.types {
        match &ty.definition {
            // The generator does not see what a converter asks for.
            PlannedDefinition::Union(union) => {
                known.extend(union.cases.iter().map(|case| (type_of(sheet, case.slot), None)));
            }
            PlannedDefinition::Record(fields) => {
                let is_asked = |field: &&PlannedField<'_>| field.is_json_in_text() || field.fate.tells_null();
                let asked = fields.iter().filter(is_asked);
                known.extend(asked.map(|field| (type_of(sheet, field.slot), None)));
            }
            PlannedDefinition::Enumeration(_) => {}
        }
    }
    let renamed = plan.types.iter().map(|ty| (ty.ident.to_string(), Some(property(ty.ident.as_str()))));
    known.extend(renamed.filter(|(ident, property)| property.as_ref() != Some(ident)));
    for root in &plan.roots {
        let ty = root_type(sheet, root.slot());
        let ident = plan.root_ident(root);
        let property = is_called(sheet, ident, &ty).then(|| property(ident.as_str()));
        let called = property.filter(|property| *property != ty);
        let known = known.entry(ty).or_default();
        *known = known.take().or(called);
    }
    attributes.extend(known.into_iter().map(|(ty, called)| {
        let ty = format!("typeof({ty})");
        let called = called.map(|name| format!("TypeInfoPropertyName = \"{name}\""));
        let arguments: Vec<&str> = [&ty].into_iter().chain(&called).map(String::as_str).collect();
        cat([text("["), call("JsonSerializable", &arguments), text("]")])
    }));
    let class = format!("internal sealed partial class {} : JsonSerializerContext;", context_name(sheet));
    Some(lines(attributes.into_iter().chain([text(class)])))
}

/// The type that a converter asks for; of a reference, null is no other type.
fn type_of(sheet: &mut Sheet<'_>, slot: &Slot) -> String {
    let types::Spelled { name, is_value } = types::inside(sheet, slot);
    if is_value { types::slot(sheet, slot) } else { name }
}

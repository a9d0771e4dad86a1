//! Keys beyond the properties of a class.

use jar_sprout_layout::{Doc, cat, group, last_comma, lines, nest, soft, text};

use super::Sheet;
use super::settings::KotlinOptions;
use super::{Library, types};
use crate::plan::{PlannedExtras, PlannedType};
use crate::spell::Helper;

const SERIALIZER: Helper =
    Helper { name: "OtherKeysSerializer", text: include_str!("kotlinx/OtherKeysSerializer.kt") };

/// Whether it takes a serializer to keep them.
fn has_serializer(ty: &PlannedType<'_>, options: &KotlinOptions) -> bool {
    options.library == Library::Kotlinx && ty.extras.is_some()
}

/// What is said of a class that keeps them, beside what is said of any.
pub(super) fn annotations(sheet: &mut Sheet<'_>, ty: &PlannedType<'_>) -> Option<Vec<String>> {
    if !has_serializer(ty, sheet.options) {
        return None;
    }
    sheet.needs.imports.extend([
        "kotlinx.serialization.ExperimentalSerializationApi",
        "kotlinx.serialization.KeepGeneratedSerializer",
        "kotlinx.serialization.Serializable",
    ]);
    Some(vec![
        "@OptIn(ExperimentalSerializationApi::class)".to_owned(),
        "@KeepGeneratedSerializer".to_owned(),
        format!("@Serializable(with = {}.Serializer::class)", ty.ident),
    ])
}

/// `val additionalProperties: Map<String, Long> = emptyMap(),`
pub(super) fn property(sheet: &mut Sheet<'_>, extras: &PlannedExtras<'_>) -> Doc {
    let PlannedExtras { ident, slot: _, map } = extras;
    let map = types::slot(sheet, map);
    let property = cat([text(format!("{} {ident}: ", sheet.options.property)), map, text(" = emptyMap(),")]);
    if sheet.options.library != Library::Jackson {
        return property;
    }
    sheet.needs.imports.extend([
        "com.fasterxml.jackson.annotation.JsonAnyGetter",
        "com.fasterxml.jackson.annotation.JsonAnySetter",
    ]);
    lines([text("@JsonAnySetter"), text("@get:JsonAnyGetter"), property])
}

/// What reads and writes a class that keeps them, inside the class.
pub(super) fn serializer(sheet: &mut Sheet<'_>, ty: &PlannedType<'_>) -> Option<Doc> {
    let ident = has_serializer(ty, sheet.options).then_some(&ty.ident)?;
    sheet.needs.helpers.insert(SERIALIZER);
    let generated = text(format!("{ident}.generatedSerializer()"));
    let arguments = group(cat([nest(cat([soft(), generated, last_comma()])), soft(), text(")")]));
    Some(cat([text(format!("internal object Serializer : OtherKeysSerializer<{ident}>(")), arguments]))
}

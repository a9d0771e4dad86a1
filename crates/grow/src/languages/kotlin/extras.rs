//! Keys beyond the properties of a class.

use jar_sprout_layout::{Doc, cat, group, if_broken, lines, nest, soft, text};

use super::{Form, Library, types};
use crate::code::{Helper, Needs};
use crate::plan::{Plan, PlannedExtras, PlannedType};

const SERIALIZER: Helper =
    Helper { name: "OtherKeysSerializer", text: include_str!("kotlinx/OtherKeysSerializer.kt") };

/// Whether it takes a serializer to keep them.
fn has_serializer(ty: &PlannedType<'_>, form: Form) -> bool {
    form.library == Library::Kotlinx && ty.extras.is_some()
}

/// What is said of a class that keeps them, beside what is said of any.
pub(super) fn annotations(ty: &PlannedType<'_>, form: Form, needs: &mut Needs) -> Option<Vec<String>> {
    if !has_serializer(ty, form) {
        return None;
    }
    needs.imports.extend([
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
pub(super) fn property(plan: &Plan<'_>, extras: &PlannedExtras<'_>, form: Form, needs: &mut Needs) -> Doc {
    let PlannedExtras { ident, slot: _, map } = extras;
    let map = types::slot(plan, map, form, needs);
    let property = cat([text(format!("{} {ident}: ", form.property)), map, text(" = emptyMap(),")]);
    if form.library != Library::Jackson {
        return property;
    }
    needs.imports.extend([
        "com.fasterxml.jackson.annotation.JsonAnyGetter",
        "com.fasterxml.jackson.annotation.JsonAnySetter",
    ]);
    lines([text("@JsonAnySetter"), text("@get:JsonAnyGetter"), property])
}

/// What reads and writes a class that keeps them, inside the class.
pub(super) fn serializer(ty: &PlannedType<'_>, form: Form, needs: &mut Needs) -> Option<Doc> {
    let ident = has_serializer(ty, form).then_some(&ty.ident)?;
    needs.helpers.insert(SERIALIZER);
    let generated = text(format!("{ident}.generatedSerializer()"));
    let arguments = group(cat([nest(cat([soft(), generated, if_broken(",", "")])), soft(), text(")")]));
    Some(cat([text(format!("internal object Serializer : OtherKeysSerializer<{ident}>(")), arguments]))
}

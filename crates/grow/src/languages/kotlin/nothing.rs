//! Words that stand for nothing: what reads and writes a type, or a word in its place, for each library.

use jar_sprout_layout::{Doc, braces, cat, group, lines, nest, paragraphs, soft, text};
use jar_sprout_model::{Scalar, Slot, Type, Width};

use super::settings::Library;
use super::types::{coded, foreign_of, identifier, of_coded, serializer_of};
use super::{Sheet, last_comma, names, types};
use crate::plan::{PlannedField, PlannedNothing};
use crate::spell::Helper;

const SERIALIZER: Helper =
    Helper { name: "OrNothingSerializer", text: include_str!("kotlinx/OrNothingSerializer.kt") };
const ADAPTER: Helper = Helper { name: "OrNothingAdapter", text: include_str!("gson/OrNothingAdapter.kt") };
const OR_NOTHING: Helper = Helper { name: "OrNothing", text: include_str!("jackson/OrNothing.kt") };

/// A field's own type that is not null, where that is not the same everywhere, with the annotations that it takes.
pub(super) fn annotated(sheet: &mut Sheet<'_>, field: &PlannedField<'_>) -> Option<(Vec<String>, Doc)> {
    if field.nothing_words().is_none() {
        return types::annotated(sheet, field);
    }
    let annotations = annotations(sheet, field);
    Some((annotations, types::value(sheet, field.slot)))
}

/// The annotations of a field in whose place words stand for nothing.
fn annotations(sheet: &mut Sheet<'_>, field: &PlannedField<'_>) -> Vec<String> {
    let Some((index, PlannedNothing { ident, .. })) = sheet.plan.nothing_of(field) else {
        return Vec::new();
    };
    let annotation = match sheet.options.library {
        Library::Kotlinx => format!("@Serializable({ident}::class)"),
        Library::Gson => {
            sheet.needs.imports.insert("com.google.gson.annotations.JsonAdapter");
            // Where the key is always there, it is asked for what is written in place of null.
            let more = if field.fate.is_left_out() { "" } else { ", nullSafe = false" };
            format!("@JsonAdapter({ident}::class{more})")
        }
        // What may be left out is never written as the word.
        Library::Jackson if field.fate.is_left_out() => {
            sheet.needs.imports.insert("com.fasterxml.jackson.databind.annotation.JsonDeserialize");
            sheet.needs.nothings.insert(index);
            let reader = format!("@JsonDeserialize(using = {ident}.Reader::class)");
            let coding = field.coding().and_then(|coding| of_coded(sheet, coding));
            return [reader].into_iter().chain(coding.map(|(annotation, _)| annotation)).collect();
        }
        Library::Jackson => format!("@{ident}"),
        Library::Moshi | Library::None => return Vec::new(),
    };
    sheet.needs.nothings.insert(index);
    vec![annotation]
}

/// What reads and writes one type or its words.
pub(super) fn declaration(sheet: &mut Sheet<'_>, nothing: &PlannedNothing<'_>) -> Option<Doc> {
    let PlannedNothing { ident, slot, words } = nothing;
    let slot = (*slot)?;
    let literals: Vec<String> = words.iter().map(|word| names::LITERAL.of(word.as_str())).collect();
    Some(match sheet.options.library {
        Library::Kotlinx => {
            sheet.needs.helpers.insert(SERIALIZER);
            let ty = types::value(sheet, slot);
            let inside = serializer(sheet, slot);
            let supertype = cat([text(format!("{}<", SERIALIZER.name)), ty, text(">")]);
            extending(&format!("object {ident}"), supertype, [inside].into_iter().chain(literals))
        }
        Library::Gson => {
            sheet.needs.helpers.insert(ADAPTER);
            let inside = if let Type::Scalar(Scalar::Coded(coding)) = slot.ty {
                let adapter = coded(coding).adapter;
                sheet.needs.helpers.insert(adapter);
                format!("{}()", adapter.name)
            } else {
                "null".to_owned()
            };
            let arguments = [inside].into_iter().chain(literals);
            extending(&format!("class {ident}"), text(ADAPTER.name), arguments)
        }
        Library::Jackson => {
            sheet.needs.helpers.insert(OR_NOTHING);
            sheet.needs.imports.extend([
                "com.fasterxml.jackson.annotation.JacksonAnnotationsInside",
                "com.fasterxml.jackson.databind.annotation.JsonDeserialize",
                "com.fasterxml.jackson.databind.annotation.JsonSerialize",
            ]);
            let mut annotations = vec![
                "@Retention(AnnotationRetention.RUNTIME)".to_owned(),
                "@JacksonAnnotationsInside".to_owned(),
                format!("@JsonSerialize(nullsUsing = {ident}.Writer::class)"),
                format!("@JsonDeserialize(using = {ident}.Reader::class)"),
            ];
            if let Type::Scalar(Scalar::Coded(coding)) = slot.ty {
                annotations.extend(of_coded(sheet, coding).map(|(annotation, _)| annotation));
            }
            let first = literals[0].clone();
            let reader = extending("class Reader", text(OR_NOTHING.name), literals);
            let writer = extending("class Writer", text("OrNothing.Word"), [first]);
            let body = braces(format!("annotation class {ident}"), [paragraphs([reader, writer])]);
            lines(annotations.into_iter().map(text).chain([body]))
        }
        Library::Moshi | Library::None => return None,
    })
}

/// `object NumberOrNa : OrNothingSerializer<Double>(Double.serializer(), "N/A")`
fn extending(head: &str, supertype: Doc, arguments: impl IntoIterator<Item = String>) -> Doc {
    let mut call = vec![soft()];
    for (at, argument) in arguments.into_iter().enumerate() {
        if at > 0 {
            call.extend([text(","), jar_sprout_layout::line()]);
        }
        call.push(text(argument));
    }
    call.push(last_comma());
    group(cat([text(format!("{head} : ")), supertype, text("("), nest(cat(call)), soft(), text(")")]))
}

/// What reads and writes a value of a type, for kotlinx: `ListSerializer(Double.serializer())`
fn serializer(sheet: &mut Sheet<'_>, slot: &Slot) -> String {
    let mut builtin = |ty: &str| {
        sheet.needs.imports.insert("kotlinx.serialization.builtins.serializer");
        format!("{ty}.serializer()")
    };
    match &slot.ty {
        Type::Any => {
            sheet.needs.imports.insert("kotlinx.serialization.json.JsonElement");
            "JsonElement.serializer()".to_owned()
        }
        Type::Tuple(_) => {
            sheet.needs.imports.extend([
                "kotlinx.serialization.builtins.ListSerializer",
                "kotlinx.serialization.json.JsonElement",
            ]);
            "ListSerializer(JsonElement.serializer())".to_owned()
        }
        Type::Constant(_) => builtin("String"),
        Type::Scalar(Scalar::Boolean | Scalar::Always(_)) => builtin("Boolean"),
        Type::Scalar(Scalar::Integer(Width::Narrow)) => builtin("Int"),
        Type::Scalar(Scalar::Integer(Width::Wide | Width::Exact)) => builtin("Long"),
        Type::Scalar(Scalar::Float) => builtin("Double"),
        Type::Scalar(scalar @ (Scalar::Uuid | Scalar::Uri)) => match identifier(sheet.options, *scalar) {
            Some(identifier) => {
                let serializer = identifier.serializer_of(None);
                sheet.needs.helpers.insert(serializer);
                serializer.name.to_owned()
            }
            None => builtin("String"),
        },
        Type::Scalar(Scalar::Text) => builtin("String"),
        Type::Scalar(Scalar::Coded(coding)) => {
            let serializer = serializer_of(sheet.options, *coding);
            sheet.needs.helpers.insert(serializer);
            serializer.name.to_owned()
        }
        Type::Scalar(scalar) => {
            let foreign = foreign_of(sheet.options, *scalar).expect("these are the platform's");
            let serializer = foreign.serializer_of(sheet.plan.times.special_form(*scalar));
            sheet.needs.helpers.insert(serializer);
            serializer.name.to_owned()
        }
        Type::List(items) => {
            sheet.needs.imports.insert("kotlinx.serialization.builtins.ListSerializer");
            format!("ListSerializer({})", serializer_or_null(sheet, items))
        }
        Type::Map(values) => {
            let key = builtin("String");
            sheet.needs.imports.insert("kotlinx.serialization.builtins.MapSerializer");
            format!("MapSerializer({key}, {})", serializer_or_null(sheet, values))
        }
        Type::Named(id) => format!("{}.serializer()", sheet.plan.ident(*id)),
    }
}

fn serializer_or_null(sheet: &mut Sheet<'_>, slot: &Slot) -> String {
    let inside = serializer(sheet, slot);
    if !slot.nullable {
        return inside;
    }
    sheet.needs.imports.insert("kotlinx.serialization.builtins.nullable");
    format!("{inside}.nullable")
}

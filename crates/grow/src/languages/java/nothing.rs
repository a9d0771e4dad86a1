//! Words that stand for nothing: what reads and writes a type, or a word in its place, for each library.

use jar_sprout_layout::{Doc, braces, lines, members, text};
use jar_sprout_model::{Scalar, Slot, Type};

use super::settings::Library;
use super::types::{Spelled, boxed, coded_annotation, coded_type, dated_helper, in_code};
use super::unions::annotation;
use super::{Sheet, names, types};
use crate::plan::{Fate, PlannedField, PlannedNothing};
use crate::spell::Helper;

const ADAPTER: Helper = Helper { name: "OrNothingAdapter", text: include_str!("gson/OrNothingAdapter.java") };
const OR_NOTHING: Helper = Helper { name: "OrNothing", text: include_str!("OrNothing.java") };

/// The type of a record's field, with what is said of its being null.
pub(super) fn field(sheet: &mut Sheet<'_>, field: &PlannedField<'_>) -> Spelled {
    let Spelled { annotations, ty } = unmarked(sheet, field);
    let may_be_null = match field.fate {
        // What is absent is null as well.
        Fate::Nullable | Fate::Optional | Fate::Either | Fate::Apart => true,
        Fate::Tag(_) | Fate::Required | Fate::Defaulted(_) => field.nothing_words().is_some(),
    };
    Spelled { annotations, ty: if may_be_null { types::or_null(sheet, ty) } else { ty } }
}

/// The type of a record's field, in whose place words may stand for nothing.
fn unmarked(sheet: &mut Sheet<'_>, field: &PlannedField<'_>) -> Spelled {
    if field.nothing_words().is_none() {
        return types::field(sheet, field);
    }
    let ty = value(sheet, field.slot);
    let Some((index, PlannedNothing { ident, .. })) = sheet.plan.nothing_of(field) else {
        return Spelled { annotations: Vec::new(), ty };
    };
    sheet.needs.nothings.insert(index);
    let is_left_out = field.fate.is_left_out();
    let annotations = match sheet.options.library {
        Library::Gson => {
            sheet.needs.imports.insert("com.google.gson.annotations.JsonAdapter");
            // Where the key is always there, it is asked for what is written in place of null.
            let own = if is_left_out {
                format!("{ident}.class")
            } else {
                format!("value = {ident}.class, nullSafe = false")
            };
            vec![format!("@JsonAdapter({own})")]
        }
        // What may be left out is never written as the word.
        Library::Jackson if is_left_out => {
            sheet.needs.imports.insert("com.fasterxml.jackson.databind.annotation.JsonDeserialize");
            let reader = format!("@JsonDeserialize(using = {ident}.Reader.class)");
            let writer = serializer(sheet, field.slot).map(|using| format!("@JsonSerialize({using})"));
            [reader].into_iter().chain(writer).chain(coded(sheet, field.slot)).collect()
        }
        Library::Jackson => vec![format!("@{ident}")],
    };
    Spelled { annotations, ty }
}

/// What reads and writes one type or its words.
pub(super) fn declaration(sheet: &mut Sheet<'_>, nothing: &PlannedNothing<'_>) -> Option<Doc> {
    let PlannedNothing { ident, slot, words } = nothing;
    let slot = (*slot)?;
    let literals: Vec<String> = words.iter().map(|word| names::LITERAL.of(word.as_str())).collect();
    let inside = inside(sheet, slot);
    let call = |arguments: &str| text(format!("super({arguments});"));
    let all = format!("{inside}, {}", literals.join(", "));
    Some(match sheet.options.library {
        Library::Gson => {
            sheet.needs.helpers.insert(ADAPTER);
            let constructor = braces(format!("{ident}()"), [call(&all)]);
            braces(format!("final class {ident} extends {}", ADAPTER.name), [constructor])
        }
        Library::Jackson => {
            sheet.needs.helpers.insert(OR_NOTHING);
            sheet.needs.imports.extend([
                "com.fasterxml.jackson.annotation.JacksonAnnotationsInside",
                "com.fasterxml.jackson.databind.annotation.JsonDeserialize",
                "com.fasterxml.jackson.databind.annotation.JsonSerialize",
                "java.lang.annotation.Retention",
                "java.lang.annotation.RetentionPolicy",
            ]);
            let nulls = format!("nullsUsing = {ident}.Writer.class");
            let using = serializer(sheet, slot);
            let serialize = annotation("@JsonSerialize", using.into_iter().chain([nulls]).map(text));
            let annotations = [
                text("@Retention(RetentionPolicy.RUNTIME)"),
                text("@JacksonAnnotationsInside"),
                serialize,
                text(format!("@JsonDeserialize(using = {ident}.Reader.class)")),
            ];
            let annotations = annotations.into_iter().chain(coded(sheet, slot).map(text));
            let class = |name: &str, parent: &str, arguments: &str| {
                let constructor = braces(format!("{name}()"), [call(arguments)]);
                braces(format!("final class {name} extends {parent}"), [constructor])
            };
            let classes =
                [class("Reader", OR_NOTHING.name, &all), class("Writer", "OrNothing.Word", &literals[0])];
            lines(annotations.chain([members(format!("@interface {ident}"), classes)]))
        }
    })
}

/// The type of a value that has what reads and writes it.
fn value(sheet: &mut Sheet<'_>, slot: &Slot) -> String {
    match slot.ty {
        Type::Scalar(Scalar::Coded(coding)) => coded_type(sheet, coding).to_owned(),
        Type::Scalar(scalar) => match dated_helper(sheet, scalar) {
            Some((name, import, _)) => {
                sheet.needs.imports.insert(import);
                name.to_owned()
            }
            None => boxed(sheet, slot),
        },
        Type::Any | Type::Constant(_) | Type::List(_) | Type::Map(_) | Type::Tuple(_) | Type::Named(_) => {
            boxed(sheet, slot)
        }
    }
}

/// What reads a value that the library cannot read by itself: `new LocalDateAdapter()`
fn inside(sheet: &mut Sheet<'_>, slot: &Slot) -> String {
    let Type::Scalar(scalar) = slot.ty else { return "null".to_owned() };
    if let Some((_, _, helper)) = dated_helper(sheet, scalar) {
        sheet.needs.helpers.insert(helper);
        return match sheet.options.library {
            Library::Jackson => format!("new {}.Deserializer()", helper.name),
            Library::Gson => format!("new {}()", helper.name),
        };
    }
    match (scalar, sheet.options.library) {
        (Scalar::Coded(coding), Library::Gson) => {
            let adapter = in_code(coding).adapter;
            sheet.needs.helpers.insert(adapter);
            format!("new {}()", adapter.name)
        }
        _ => "null".to_owned(),
    }
}

/// What writes a value that Jackson cannot write by itself: `using = LocalDateJson.Serializer.class`
fn serializer(sheet: &mut Sheet<'_>, slot: &Slot) -> Option<String> {
    let Type::Scalar(scalar) = slot.ty else { return None };
    let (_, _, helper) = dated_helper(sheet, scalar)?;
    sheet.needs.helpers.insert(helper);
    sheet.needs.imports.insert("com.fasterxml.jackson.databind.annotation.JsonSerialize");
    Some(format!("using = {}.Serializer.class", helper.name))
}

/// What tells Jackson that the wire writes a value as something else.
fn coded(sheet: &mut Sheet<'_>, slot: &Slot) -> Option<String> {
    let Type::Scalar(Scalar::Coded(coding)) = slot.ty else { return None };
    Some(coded_annotation(sheet, coding))
}

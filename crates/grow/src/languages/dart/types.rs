//! Model types as Dart types, and the expressions that read and write them.

use jar_sprout_layout::{Doc, cat, group, last_comma, line, nest, soft, text};
use jar_sprout_model::{Coding, Scalar, Slot, Type, Width};

use super::Sheet;
use crate::plan::{Plan, PlannedDefinition};
use crate::spell::{EpochHelpers, Helper};

pub(super) const MAYBE: Helper = Helper { name: "Maybe", text: include_str!("Maybe.dart") };
const ISO_DATE: Helper = Helper { name: "IsoDate", text: include_str!("IsoDate.dart") };
static EPOCHS: EpochHelpers = EpochHelpers::new(
    Helper { name: "EpochSeconds", text: include_str!("EpochSeconds.dart") },
    &[
        ("EpochSeconds", "EpochMilliseconds"),
        ("the seconds", "the milliseconds"),
        ("json * 1000", "json"),
        (" ~/ 1000", ""),
    ],
);

/// The class that a scalar has, where it is none of the language's own.
fn class_of(scalar: Scalar) -> Option<Helper> {
    match scalar {
        Scalar::DateTime(_) | Scalar::LocalDateTime(_) | Scalar::Date => Some(ISO_DATE),
        Scalar::Coded(coding @ (Coding::EpochSeconds | Coding::EpochMilliseconds)) => {
            Some(EPOCHS.get(coding))
        }
        Scalar::Boolean
        | Scalar::Always(_)
        | Scalar::Integer(_)
        | Scalar::Float
        | Scalar::Text
        | Scalar::Time(_)
        | Scalar::Uuid
        | Scalar::Uri
        | Scalar::Decimal
        | Scalar::Coded(_) => None,
    }
}

/// The type of a place for a value: `Queen?`
pub(super) fn slot(sheet: &mut Sheet<'_>, slot: &Slot) -> String {
    let ty = non_null(sheet, &slot.ty);
    if slot.nullable { or_null(&slot.ty, ty) } else { ty }
}

/// `Queen?`; any value may be null as it is.
pub(super) fn or_null(ty: &Type, spelled: String) -> String {
    if *ty == Type::Any { spelled } else { spelled + "?" }
}

/// The type of a value that is not null.
pub(super) fn non_null(sheet: &mut Sheet<'_>, ty: &Type) -> String {
    match ty {
        Type::Any => "Object?".to_owned(),
        Type::Scalar(scalar) => {
            sheet.needs.helpers.extend(class_of(*scalar));
            self::scalar(*scalar).to_owned()
        }
        Type::Constant(_) => "String".to_owned(),
        Type::List(items) => format!("List<{}>", slot(sheet, items)),
        Type::Map(values) => format!("Map<String, {}>", slot(sheet, values)),
        Type::Tuple(_) => "List<Object?>".to_owned(),
        Type::Named(id) => sheet.plan.ident(*id).to_string(),
    }
}

fn scalar(scalar: Scalar) -> &'static str {
    match scalar {
        Scalar::Boolean | Scalar::Always(_) => "bool",
        Scalar::Integer(Width::Narrow | Width::Wide | Width::Exact) => "int",
        // What does not fit 64 bits comes as a double.
        Scalar::Integer(Width::Big) => "num",
        Scalar::Coded(Coding::IntegerText) => "int",
        Scalar::Coded(Coding::BooleanText) => "bool",
        Scalar::Coded(coding @ (Coding::EpochSeconds | Coding::EpochMilliseconds)) => EPOCHS.get(coding).name,
        Scalar::Float | Scalar::Coded(Coding::FloatText) => "double",
        Scalar::Decimal | Scalar::Coded(Coding::DecimalText) => unreachable!("Dart does not hold it"),
        // Dart has no type for a time of day.
        Scalar::Text | Scalar::Uuid | Scalar::Uri | Scalar::Time(_) => "String",
        Scalar::DateTime(_) | Scalar::LocalDateTime(_) | Scalar::Date => ISO_DATE.name,
    }
}

/// How a value is made of what `jsonDecode` gives for it.
enum Reading {
    /// `x as int`
    Cast(String),
    /// `(x as num).toDouble()`
    Number,
    /// `Queen.fromJson(x as Map<String, dynamic>)`
    Call { function: String, cast: Option<&'static str> },
    /// `[for (final item in x as List<dynamic>) …]`
    List,
    /// `{for (final entry in (x as Map<String, dynamic>).entries) …}`
    Map,
    /// `x`
    AsIs,
}

fn reading(plan: &Plan<'_>, ty: &Type) -> Reading {
    let call = |function: String, cast| Reading::Call { function, cast };
    match ty {
        Type::Any => Reading::AsIs,
        Type::Scalar(Scalar::Float) => Reading::Number,
        Type::Scalar(Scalar::DateTime(_) | Scalar::LocalDateTime(_) | Scalar::Date) => {
            call("IsoDate.parse".to_owned(), Some("String"))
        }
        Type::Scalar(epoch @ Scalar::Coded(Coding::EpochSeconds | Coding::EpochMilliseconds)) => {
            call(format!("{}.fromJson", scalar(*epoch)), Some("int"))
        }
        Type::Scalar(number @ Scalar::Coded(_)) => call(format!("{}.parse", scalar(*number)), Some("String")),
        Type::Scalar(one) => Reading::Cast(scalar(*one).to_owned()),
        Type::Constant(_) => Reading::Cast("String".to_owned()),
        Type::Tuple(_) => Reading::Cast("List<dynamic>".to_owned()),
        Type::List(_) => Reading::List,
        Type::Map(_) => Reading::Map,
        Type::Named(id) => {
            let ty = plan.get(*id);
            match &ty.definition {
                PlannedDefinition::Enumeration(_) if ty.is_closed => {
                    call(format!("{}.fromJson", ty.ident), Some("String"))
                }
                PlannedDefinition::Enumeration(_) => call(ty.ident.to_string(), Some("String")),
                PlannedDefinition::Union(union) if union.tag.is_none() => {
                    call(format!("{}.fromJson", ty.ident), None)
                }
                PlannedDefinition::Record(_) | PlannedDefinition::Union(_) => {
                    call(format!("{}.fromJson", ty.ident), Some("Map<String, dynamic>"))
                }
            }
        }
    }
}

/// What is read: an expression, and whether its type is known already.
#[derive(Debug, Clone, Copy)]
pub(super) struct Json<'j> {
    pub(super) text: &'j str,
    pub(super) is_cast: bool,
}

impl<'j> Json<'j> {
    /// An expression of which nothing is known.
    pub(super) fn dynamic(text: &'j str) -> Self {
        Self { text, is_cast: false }
    }

    /// `json as String`
    fn cast(self, ty: &str) -> String {
        if self.is_cast { self.text.to_owned() } else { format!("{} as {ty}", self.text) }
    }

    /// `(json as num)`, to ask something of it.
    fn cast_within(self, ty: &str) -> String {
        if self.is_cast { self.text.to_owned() } else { format!("({} as {ty})", self.text) }
    }
}

/// The expression that makes a value of `json`, which is what `jsonDecode` gave for it.
pub(super) fn read(plan: &Plan<'_>, ty: &Type, may_be_null: bool, json: Json<'_>, depth: usize) -> Doc {
    let reading = reading(plan, ty);
    if may_be_null {
        let json = json.text;
        return match reading {
            Reading::AsIs => text(json.to_owned()),
            Reading::Cast(ty) => text(format!("{json} as {ty}?")),
            Reading::Number => text(format!("({json} as num?)?.toDouble()")),
            Reading::Call { .. } | Reading::List | Reading::Map => {
                let value = read(plan, ty, false, Json::dynamic(json), depth);
                let choice = cat([line(), text("? null"), line(), text(": "), value]);
                group(cat([text(format!("{json} == null")), nest(nest(choice))]))
            }
        };
    }
    match reading {
        Reading::AsIs => text(json.text.to_owned()),
        Reading::Cast(ty) => text(json.cast(&ty)),
        Reading::Number => text(format!("{}.toDouble()", json.cast_within("num"))),
        Reading::Call { function, cast: Some(cast) } => call(function, text(json.cast(cast))),
        Reading::Call { function, cast: None } => call(function, text(json.text.to_owned())),
        Reading::List => {
            let item = numbered("item", depth);
            let value = read_slot(plan, ty, &item, depth);
            collected("[", format!("for (final {item} in {})", json.cast("List<dynamic>")), value, "]")
        }
        Reading::Map => {
            let entry = numbered("entry", depth);
            let value = read_slot(plan, ty, &format!("{entry}.value"), depth);
            let each = format!("for (final {entry} in {}.entries)", json.cast_within("Map<String, dynamic>"));
            collected("{", each, cat([text(format!("{entry}.key: ")), value]), "}")
        }
    }
}

/// The same of what stands as JSON in a text.
pub(super) fn read_text(sheet: &mut Sheet<'_>, ty: &Type, may_be_null: bool, json: &str) -> Doc {
    sheet.needs.imports.insert("dart:convert");
    let inside = format!("jsonDecode({json} as String)");
    let value = read(sheet.plan, ty, false, Json::dynamic(&inside), 0);
    if !may_be_null {
        return value;
    }
    let choice = cat([line(), text("? null"), line(), text(": "), value]);
    group(cat([text(format!("{json} == null")), nest(nest(choice))]))
}

/// The same where nothing stands for a default value, of a type that has one.
pub(super) fn read_or(plan: &Plan<'_>, ty: &Type, json: &str, default: &str) -> Doc {
    match reading(plan, ty) {
        Reading::Call { .. } | Reading::List | Reading::Map => {
            let value = read(plan, ty, false, Json::dynamic(json), 0);
            let choice = cat([line(), text(format!("? {default}")), line(), text(": "), value]);
            group(cat([text(format!("{json} == null")), nest(nest(choice))]))
        }
        Reading::Cast(_) | Reading::Number | Reading::AsIs => {
            let value = read(plan, ty, true, Json::dynamic(json), 0);
            group(cat([value, nest(nest(cat([line(), text(format!("?? {default}"))])))]))
        }
    }
}

/// What a list or a map holds.
pub(super) fn read_slot(plan: &Plan<'_>, ty: &Type, json: &str, depth: usize) -> Doc {
    let slot = held(ty);
    read(plan, &slot.ty, slot.nullable, Json::dynamic(json), depth + 1)
}

fn held(ty: &Type) -> &Slot {
    match ty {
        Type::List(slot) | Type::Map(slot) => slot,
        Type::Any | Type::Scalar(_) | Type::Constant(_) | Type::Tuple(_) | Type::Named(_) => {
            unreachable!("only lists and maps hold")
        }
    }
}

/// The expression that makes of a value what `jsonEncode` writes; none where that is the value itself.
pub(super) fn write(plan: &Plan<'_>, ty: &Type, value: &str, depth: usize) -> Option<Doc> {
    let to_json = || Some(text(format!("{value}.toJson()")));
    match ty {
        Type::Any | Type::Constant(_) | Type::Tuple(_) => None,
        Type::Scalar(Scalar::DateTime(_) | Scalar::LocalDateTime(_) | Scalar::Date) => to_json(),
        Type::Scalar(Scalar::Coded(Coding::EpochSeconds | Coding::EpochMilliseconds)) => to_json(),
        Type::Scalar(Scalar::Coded(_)) => Some(text(format!("{value}.toString()"))),
        Type::Scalar(_) => None,
        Type::Named(id) => {
            let ty = plan.get(*id);
            match &ty.definition {
                // It is a text when the program runs.
                PlannedDefinition::Enumeration(_) if !ty.is_closed => None,
                PlannedDefinition::Enumeration(_)
                | PlannedDefinition::Record(_)
                | PlannedDefinition::Union(_) => to_json(),
            }
        }
        Type::List(_) => {
            let item = numbered("item", depth);
            let written = write_slot(plan, ty, &item, depth)?;
            Some(collected("[", format!("for (final {item} in {value})"), written, "]"))
        }
        Type::Map(_) => {
            let entry = numbered("entry", depth);
            let written = write_slot(plan, ty, &format!("{entry}.value"), depth)?;
            let written = cat([text(format!("{entry}.key: ")), written]);
            Some(collected("{", format!("for (final {entry} in {value}.entries)"), written, "}"))
        }
    }
}

pub(super) fn write_slot(plan: &Plan<'_>, ty: &Type, value: &str, depth: usize) -> Option<Doc> {
    write_held(plan, held(ty), value, depth)
}

/// What stands in a field of another object, or in an entry.
pub(super) fn write_held(plan: &Plan<'_>, slot: &Slot, value: &str, depth: usize) -> Option<Doc> {
    if !slot.nullable {
        return write(plan, &slot.ty, value, depth + 1);
    }
    match &slot.ty {
        // A field of an entry is not known to be the same when it is asked again.
        Type::List(_) | Type::Map(_) => {
            let written = write(plan, &slot.ty, &format!("{value}!"), depth + 1)?;
            let choice = cat([line(), text("? null"), line(), text(": "), written]);
            Some(group(cat([text(format!("{value} == null")), nest(nest(choice))])))
        }
        Type::Any | Type::Scalar(_) | Type::Constant(_) | Type::Tuple(_) | Type::Named(_) => {
            write(plan, &slot.ty, &format!("{value}?"), depth + 1)
        }
    }
}

/// Whether the expression for a type opens with a bracket of its own.
pub(super) fn opens_itself(ty: &Type) -> bool {
    match ty {
        Type::List(_) | Type::Map(_) => true,
        Type::Any | Type::Scalar(_) | Type::Constant(_) | Type::Tuple(_) | Type::Named(_) => false,
    }
}

/// `item`, and further inside `item2`.
pub(super) fn numbered(name: &str, depth: usize) -> String {
    if depth == 0 { name.to_owned() } else { format!("{name}{}", depth + 1) }
}

/// `Queen.fromJson(json)`
pub(super) fn call(function: String, argument: Doc) -> Doc {
    let argument = nest(cat([soft(), argument, last_comma()]));
    group(cat([text(function), text("("), argument, soft(), text(")")]))
}

/// `[for (final item in items) item]`
pub(super) fn collected(open: &'static str, each: String, value: Doc, close: &'static str) -> Doc {
    let element = group(cat([text(each), nest(cat([line(), value]))]));
    group(cat([text(open), nest(cat([soft(), element, last_comma()])), soft(), text(close)]))
}

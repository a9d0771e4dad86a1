//! Converting: the expressions between what `json` gives and takes, and the values of the classes.

use jar_sprout_layout::{Doc, cat, comma_list, group, last_comma, line, nest, soft, text};
use jar_sprout_model::{Coding, NothingWords, Scalar, Slot, Type, WireName};

use super::settings::Level;
use super::{call, names, times, types};
use crate::plan::{Ident, Plan, PlannedDefinition, PlannedField, PlannedType, small_words};
use crate::spell::{EpochHelpers, Helper, Needs};

/// Converts what may be none.
const OPTIONAL: Helper = Helper { name: "optional", text: include_str!("optional.py") };

/// Words that stand for nothing.
const UNLESS: Helper = Helper { name: "unless", text: include_str!("unless.py") };
const OR_WORD: Helper = Helper { name: "or_word", text: include_str!("or_word.py") };

/// What reads times before Python 3.11.
const READ_DATETIME: Helper = Helper { name: "read_datetime", text: include_str!("read_datetime.py") };
const READ_TIME: Helper = Helper { name: "read_time", text: include_str!("read_time.py") };
const SPELLED_OUT: Helper = Helper { name: "spelled_out", text: include_str!("spelled_out.py") };

/// One of the two ways between JSON's own values and those of the classes.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) enum Direction {
    /// From what `json.loads` gives.
    In(Level),
    /// To what `json.dumps` takes.
    Out,
}

/// What converts a value; none where it stays as it is.
pub(super) struct Converter<'p> {
    pub(super) plan: &'p Plan<'p>,
    pub(super) way: Direction,
}

impl Converter<'_> {
    /// What stands in a field, converted; none where it stays as it is.
    pub(super) fn of_field(
        &self,
        field: &PlannedField<'_>,
        slot: &Slot,
        value: Doc,
        needs: &mut Needs,
    ) -> Option<Doc> {
        if let Some(words) = field.nothing_words() {
            return self.or_nothing(slot, words, value, needs);
        }
        if !field.is_json_in_text() {
            return self.of(slot, value, needs);
        }
        needs.imports.insert("import json");
        if !slot.nullable {
            return Some(self.in_text(&slot.ty, value, needs));
        }
        needs.helpers.insert(OPTIONAL);
        let function = match (self.non_null(&slot.ty, text("x"), 0, needs).is_some(), self.way) {
            (true, _) => cat([text("lambda x: "), self.in_text(&slot.ty, text("x"), needs)]),
            (false, Direction::In(_)) => text("json.loads"),
            (false, Direction::Out) => text("json.dumps"),
        };
        Some(call("optional(", [function, value].into_iter(), ")"))
    }

    /// A value in whose place words stand for nothing.
    fn or_nothing(&self, slot: &Slot, words: &NothingWords, value: Doc, needs: &mut Needs) -> Option<Doc> {
        let literal = |word: &WireName| text(names::literal(word.as_str()));
        match self.way {
            Direction::In(_) => {
                needs.helpers.insert(UNLESS);
                let value = call("unless(", [value].into_iter().chain(words.iter().map(literal)), ")");
                Some(self.of(slot, value.clone(), needs).unwrap_or(value))
            }
            // What may be left out was asked whether it is there.
            Direction::Out if !slot.nullable => self.of(slot, value, needs),
            Direction::Out => {
                needs.helpers.insert(OR_WORD);
                let value = self.of(slot, value.clone(), needs).unwrap_or(value);
                Some(call("or_word(", [value, literal(words.first())].into_iter(), ")"))
            }
        }
    }

    /// A value that stands as JSON in a text.
    fn in_text(&self, ty: &Type, value: Doc, needs: &mut Needs) -> Doc {
        match self.way {
            Direction::In(_) => {
                let inside = || cat([text("json.loads("), value.clone(), text(")")]);
                self.non_null(ty, inside(), 0, needs).unwrap_or_else(inside)
            }
            Direction::Out => {
                let inside = self.non_null(ty, value.clone(), 0, needs).unwrap_or(value);
                cat([text("json.dumps("), inside, text(")")])
            }
        }
    }

    /// A value, converted; none where it stays as it is.
    pub(super) fn of(&self, slot: &Slot, value: Doc, needs: &mut Needs) -> Option<Doc> {
        self.at_depth(slot, value, 0, needs)
    }

    fn at_depth(&self, slot: &Slot, value: Doc, depth: usize, needs: &mut Needs) -> Option<Doc> {
        if !slot.nullable {
            return self.non_null(&slot.ty, value, depth, needs);
        }
        let function = self.function(&slot.ty, depth, needs)?;
        needs.helpers.insert(OPTIONAL);
        Some(call("optional(", [function, value].into_iter(), ")"))
    }

    fn non_null(&self, ty: &Type, value: Doc, depth: usize, needs: &mut Needs) -> Option<Doc> {
        let name = |base: &str| if depth == 0 { base.to_owned() } else { format!("{base}_{}", depth + 1) };
        match ty {
            Type::List(items) => {
                let item = name("item");
                let converted = self.at_depth(items, text(item.clone()), depth + 1, needs)?;
                Some(comprehension("[", converted, &item, value, "]"))
            }
            Type::Map(values) => {
                let (key, held) = (name("key"), name("value"));
                let converted = self.at_depth(values, text(held.clone()), depth + 1, needs)?;
                let converted = cat([text(format!("{key}: ")), converted]);
                let items = cat([value, text(".items()")]);
                Some(comprehension("{", converted, &format!("{key}, {held}"), items, "}"))
            }
            Type::Tuple(items) => {
                let parts = items.iter().enumerate().map(|(at, item)| {
                    let part = || cat([value.clone(), text(format!("[{at}]"))]);
                    self.at_depth(item, part(), depth, needs).unwrap_or_else(part)
                });
                let parts: Vec<Doc> = parts.collect();
                match (self.way, &parts[..]) {
                    (Direction::In(_), [one]) => Some(cat([text("("), one.clone(), text(",)")])),
                    (Direction::In(_), _) => Some(listed("(", parts, ")")),
                    (Direction::Out, _) => Some(listed("[", parts, "]")),
                }
            }
            Type::Named(id) if self.way == Direction::Out && is_record(self.plan.get(*id)) => {
                Some(cat([value, text(".to_dict()")]))
            }
            Type::Scalar(scalar) if self.is_own_method(*scalar) => Some(cat([value, text(".isoformat()")])),
            Type::Any | Type::Scalar(_) | Type::Constant(_) | Type::Named(_) => {
                let function = self.function(ty, depth, needs)?;
                Some(group(cat([function, text("("), nest(cat([soft(), value])), soft(), text(")")])))
            }
        }
    }

    /// Whether a value writes itself.
    fn is_own_method(&self, scalar: Scalar) -> bool {
        let is_dated = scalar == Scalar::Date || scalar.time_forms().is_some();
        self.way == Direction::Out && is_dated && times::writer(self.plan, scalar).is_none()
    }

    /// A function that converts a value which may be null.
    pub(super) fn slot_function(&self, slot: &Slot, needs: &mut Needs) -> Option<Doc> {
        if !slot.nullable {
            return self.function(&slot.ty, 0, needs);
        }
        let converted = self.of(slot, text("x"), needs)?;
        Some(cat([text("lambda x: "), converted]))
    }

    /// A function that converts a value which is not null.
    pub(super) fn function(&self, ty: &Type, depth: usize, needs: &mut Needs) -> Option<Doc> {
        match ty {
            Type::Any | Type::Constant(_) => None,
            Type::Scalar(scalar) => self.function_of(*scalar, needs).map(text),
            Type::List(_) | Type::Map(_) | Type::Tuple(_) => {
                let parameter = if depth == 0 { "x".to_owned() } else { format!("x_{}", depth + 1) };
                let converted = self.non_null(ty, text(parameter.clone()), depth, needs)?;
                Some(cat([text(format!("lambda {parameter}: ")), converted]))
            }
            Type::Named(id) => {
                let named = self.plan.get(*id);
                let name = &named.ident;
                Some(text(match (&named.definition, self.way) {
                    (PlannedDefinition::Record(_), Direction::In(_)) => format!("{name}.from_dict"),
                    (PlannedDefinition::Record(_), Direction::Out) => format!("{name}.to_dict"),
                    (PlannedDefinition::Enumeration(_), Direction::In(_)) => name.to_string(),
                    (PlannedDefinition::Enumeration(_), Direction::Out) => "str".to_owned(),
                    (PlannedDefinition::Union(_), Direction::In(_)) => {
                        format!("{}_from_json", function_name(name))
                    }
                    (PlannedDefinition::Union(_), Direction::Out) => {
                        format!("{}_to_json", function_name(name))
                    }
                }))
            }
        }
    }

    fn function_of(&self, scalar: Scalar, needs: &mut Needs) -> Option<String> {
        let class = match scalar {
            Scalar::Coded(coding) if let Some([read, write]) = converters(coding) => {
                let helper = if self.way == Direction::Out { write } else { read };
                needs.helpers.insert(helper);
                return Some(helper.name.to_owned());
            }
            Scalar::Coded(_) => {
                let class = types::platform_scalar(scalar, needs);
                return Some(if self.way == Direction::Out { "str" } else { class }.to_owned());
            }
            Scalar::DateTime(_) | Scalar::LocalDateTime(_) => "dt.datetime",
            Scalar::Date => "dt.date",
            Scalar::Time(_) => "dt.time",
            Scalar::Boolean
            | Scalar::Always(_)
            | Scalar::Integer(_)
            | Scalar::Float
            | Scalar::Text
            | Scalar::Uuid
            | Scalar::Uri
            | Scalar::Decimal => return None,
        };
        needs.imports.insert("import datetime as dt");
        match self.way {
            Direction::In(Level::Ten) if scalar.time_forms().is_some() => {
                let helper = if matches!(scalar, Scalar::Time(_)) { READ_TIME } else { READ_DATETIME };
                needs.helpers.extend([SPELLED_OUT, helper]);
                Some(helper.name.to_owned())
            }
            Direction::In(_) => Some(format!("{class}.fromisoformat")),
            Direction::Out => match times::writer(self.plan, scalar) {
                Some(helper) => {
                    needs.helpers.insert(helper);
                    Some(helper.name.to_owned())
                }
                None => Some(format!("{class}.isoformat")),
            },
        }
    }
}

static READ_EPOCH: EpochHelpers = EpochHelpers::new(
    Helper { name: "read_epoch_seconds", text: include_str!("read_epoch_seconds.py") },
    &[("seconds", "milliseconds")],
);
static WRITE_EPOCH: EpochHelpers = EpochHelpers::new(
    Helper { name: "write_epoch_seconds", text: include_str!("write_epoch_seconds.py") },
    &[("seconds", "milliseconds")],
);
const READ_BOOLEAN: Helper = Helper { name: "read_boolean", text: include_str!("read_boolean.py") };
const WRITE_BOOLEAN: Helper = Helper { name: "write_boolean", text: include_str!("write_boolean.py") };

/// What reads and writes what the wire writes as something else, where no class does so by itself.
fn converters(coding: Coding) -> Option<[Helper; 2]> {
    match coding {
        Coding::IntegerText | Coding::FloatText | Coding::DecimalText => None,
        Coding::BooleanText => Some([READ_BOOLEAN, WRITE_BOOLEAN]),
        Coding::EpochSeconds | Coding::EpochMilliseconds => {
            Some([READ_EPOCH.get(coding), WRITE_EPOCH.get(coding)])
        }
    }
}

/// `[Hive.from_dict(item) for item in data["hives"]]`
fn comprehension(open: &'static str, item: Doc, name: &str, from: Doc, close: &'static str) -> Doc {
    let each = cat([text(format!("for {name} in ")), from]);
    let inside = group(cat([item, line(), each]));
    group(cat([text(open), nest(cat([soft(), inside])), soft(), text(close)]))
}

fn is_record(ty: &PlannedType<'_>) -> bool {
    match ty.definition {
        PlannedDefinition::Record(_) => true,
        PlannedDefinition::Enumeration(_) | PlannedDefinition::Union(_) => false,
    }
}

pub(super) fn function_name(ident: &Ident) -> String {
    small_words(ident.as_str(), "_")
}

/// Contents on one line, or one a line with a comma behind each.
pub(super) fn listed(open: &'static str, items: Vec<Doc>, close: &'static str) -> Doc {
    let items = comma_list(items);
    group(cat([text(open), nest(cat([soft(), items, last_comma()])), soft(), text(close)]))
}

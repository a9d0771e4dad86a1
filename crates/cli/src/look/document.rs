//! A document in the terminal: operations with what they take and give, types with their fields.

use std::io::{self, Write};

use jar_sprout_document::{Carried, Drafted, Operation};
use jar_sprout_model::{
    Coding, Definition, Encoding, Field, Model, NamedType, Presence, Scalar, Slot, Type, Width,
};
use jar_sprout_settle::{Settled, SlotsOf};
use owo_colors::OwoColorize;
use serde_json::{Value, json};

use crate::screen::{cut, visible};
use crate::wording::counted;

/// Writes operations, then types.
pub(crate) fn text(
    drafted: &Drafted,
    settled: &Settled,
    out: &mut impl Write,
    width: usize,
) -> io::Result<()> {
    let model = &settled.model;
    let slots = settled.slots_of(&drafted.draft);
    let carried = |one: &Carried| carried_text(model, &slots, one);
    let types = model.types().count();
    let mut counts = vec![counted(types, "type")];
    if !drafted.operations.is_empty() {
        counts.insert(0, counted(drafted.operations.len(), "operation"));
    }
    writeln!(out, "{}", counts.join(", "))?;
    for operation in &drafted.operations {
        writeln!(out)?;
        self::operation(operation, &carried, out, width)?;
    }
    for (_, ty) in model.types() {
        writeln!(out)?;
        named_type(model, ty, out, width)?;
    }
    Ok(())
}

/// `list of Hive`
fn carried_text(model: &Model, slots: &SlotsOf<'_>, one: &Carried) -> String {
    one.node.map_or_else(|| "nothing".to_owned(), |node| slot_text(model, &slots.slot(node)))
}

fn operation(
    operation: &Operation,
    carried: &dyn Fn(&Carried) -> String,
    out: &mut impl Write,
    width: usize,
) -> io::Result<()> {
    let Operation { method, path, id, summary, takes, gives } = operation;
    let said = summary.as_deref().or(id.as_deref()).unwrap_or_default();
    let said = said.lines().next().unwrap_or_default();
    let head = format!("{method} {path}");
    let room = width.saturating_sub(head.chars().count() + 2);
    writeln!(out, "{}  {}", visible(&head).bold(), cut(&visible(said), room).dimmed())?;
    let all = takes.iter().map(|one| ("takes", one)).chain(gives.iter().map(|one| ("gives", one)));
    let column = all.clone().map(|(_, one)| visible(&one.what).chars().count()).max().unwrap_or(0);
    for (sign, one) in all {
        let row = format!("{:<column$}  {}", visible(&one.what), visible(&carried(one)));
        writeln!(out, "  {sign}  {}", cut(&row, width.saturating_sub(9)))?;
    }
    Ok(())
}

fn named_type(model: &Model, ty: &NamedType, out: &mut impl Write, width: usize) -> io::Result<()> {
    let name = ty.name.in_capitals();
    let what = match &ty.definition {
        Definition::Record(_) => String::new(),
        Definition::Enumeration(known) => {
            let values: Vec<String> =
                known.cases.iter().map(|case| format!("{:?}", case.wire.as_str())).collect();
            format!("  {}", values.join(", "))
        }
        Definition::Union(union) => {
            let cases: Vec<String> = union
                .cases
                .iter()
                .zip(model.telling_keys(union))
                .map(|(case, key)| {
                    let with = key.map(|key| format!(" with {key}")).unwrap_or_default();
                    format!("{}{with}", slot_text(model, &case.slot))
                })
                .collect();
            let by = union.tag.as_ref().map(|tag| format!(", told apart by {tag}")).unwrap_or_default();
            format!("  one of {}{by}", cases.join(", "))
        }
    };
    writeln!(
        out,
        "{}{}",
        visible(&name).bold(),
        cut(&visible(&what), width.saturating_sub(name.chars().count()))
    )?;
    if let Definition::Record(record) = &ty.definition {
        let longest = record.fields.iter().map(|field| visible(field.wire.as_str()).chars().count()).max();
        let column = longest.unwrap_or(0).min(32);
        for Field { wire, name: _, presence, slot, encoding, default: _, docs } in &record.fields {
            let mark = if *presence == Presence::Sometimes { ", may be missing" } else { "" };
            let said = docs.text().lines().next().map(|line| format!("  {line}")).unwrap_or_default();
            let inside = slot_text(model, slot);
            let what = match encoding {
                Encoding::Plain => inside,
                Encoding::JsonInText => format!("JSON in a text: {inside}"),
                Encoding::NothingWords(words) => {
                    let words: Vec<String> =
                        words.iter().map(|word| format!("{:?}", word.as_str())).collect();
                    format!("{inside}, or nothing: {}", words.join(", "))
                }
            };
            let row = format!("{:<column$}  {what}{mark}{said}", visible(wire.as_str()));
            writeln!(out, "  {}", cut(&visible(&row), width.saturating_sub(2)))?;
        }
        if let Some(extras) = &record.extras {
            let row = format!("any other key: {}", slot_text(model, extras));
            writeln!(out, "  {}", cut(&visible(&row), width.saturating_sub(2)))?;
        }
    }
    Ok(())
}

/// `list of Hive, or null`
pub(crate) fn slot_text(model: &Model, slot: &Slot) -> String {
    let text = match &slot.ty {
        Type::Any => "any value".to_owned(),
        Type::Scalar(scalar) => scalar_word(*scalar).to_owned(),
        Type::Constant(text) => format!("always {:?}", text.as_str()),
        Type::List(items) => format!("list of {}", slot_text(model, items)),
        Type::Map(values) => format!("map of {}", slot_text(model, values)),
        Type::Tuple(items) => {
            let items: Vec<String> = items.iter().map(|item| slot_text(model, item)).collect();
            format!("[{}]", items.join(", "))
        }
        Type::Named(id) => model.get(*id).name.in_capitals(),
    };
    if slot.nullable { format!("{text} or null") } else { text }
}

fn scalar_word(scalar: Scalar) -> &'static str {
    match scalar {
        Scalar::Boolean => "boolean",
        Scalar::Always(true) => "always true",
        Scalar::Always(false) => "always false",
        Scalar::Integer(Width::Narrow | Width::Wide | Width::Exact) => "integer",
        Scalar::Integer(Width::Big) => "big integer",
        Scalar::Float => "float",
        Scalar::Text => "text",
        Scalar::DateTime(_) => "date-time",
        Scalar::LocalDateTime(_) => "date-time without offset",
        Scalar::Date => "date",
        Scalar::Time(_) => "time",
        Scalar::Uuid => "UUID",
        Scalar::Uri => "URI",
        Scalar::Decimal => "decimal",
        Scalar::Coded(Coding::IntegerText) => "integer in letters",
        Scalar::Coded(Coding::FloatText) => "float in letters",
        Scalar::Coded(Coding::DecimalText) => "decimal in letters",
        Scalar::Coded(Coding::BooleanText) => "boolean in letters",
        Scalar::Coded(Coding::EpochSeconds) => "seconds since 1970",
        Scalar::Coded(Coding::EpochMilliseconds) => "milliseconds since 1970",
    }
}

/// The same for programs.
pub(crate) fn json(drafted: &Drafted, settled: &Settled) -> Value {
    let model = &settled.model;
    let slots = settled.slots_of(&drafted.draft);
    let carried = |all: &[Carried]| -> Vec<Value> {
        all.iter().map(|one| json!({"what": one.what, "type": carried_text(model, &slots, one)})).collect()
    };
    let operations: Vec<Value> = drafted
        .operations
        .iter()
        .map(|Operation { method, path, id, summary, takes, gives }| {
            json!({
                "method": method,
                "path": path,
                "id": id,
                "summary": summary,
                "takes": carried(takes),
                "gives": carried(gives),
            })
        })
        .collect();
    json!({"operations": operations, "schema": jar_sprout_grow::json_schema(model)})
}

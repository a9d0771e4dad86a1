//! Unions in Rust: enums whose variants hold the cases.

use jar_sprout_layout::{Doc, braces, cat, group, if_broken, line, lines, nest, paragraphs, soft, text};
use jar_sprout_model::{Type, WireName};

use super::Sheet;
use super::{names, rename, serde, sizes, types};
use crate::plan::{Ident, Plan, PlannedType, PlannedUnion, PlannedUnionCase};

/// How a union is read and written.
enum Coded {
    /// Whichever case fits.
    Derived,
    /// The tag is the enum's: the case is chosen by hand, since a derived reader would take a known kind with bad
    /// contents for one that is not known.
    WrittenByAttribute,
    /// The cases have the tag themselves.
    ByHand,
}

pub(super) fn union(sheet: &mut Sheet<'_>, ty: &PlannedType<'_>, union: &PlannedUnion<'_>) -> Doc {
    let ident = &ty.ident;
    let coded = match union.tag {
        None => Coded::Derived,
        Some(_) if sheet.plan.have_cases_tags(union) => Coded::ByHand,
        Some(_) => Coded::WrittenByAttribute,
    };
    let declaration = declaration(sheet, ty, union, &coded);
    let Some(tag) = union.tag else { return declaration };
    let write = matches!(coded, Coded::ByHand).then(|| serialize(ident, &union.cases));
    let read = deserialize(sheet.plan, ident, tag, union, &coded);
    paragraphs([declaration].into_iter().chain(write).chain([read]))
}

fn declaration(sheet: &mut Sheet<'_>, ty: &PlannedType<'_>, union: &PlannedUnion<'_>, coded: &Coded) -> Doc {
    let PlannedType { id, ident, .. } = ty;
    let PlannedUnion { tag, cases, unknown: _ } = union;
    let (derives, kind) = match (coded, tag) {
        (Coded::Derived, _) => (", Serialize, Deserialize", Some("untagged".to_owned())),
        (Coded::WrittenByAttribute, tag) => {
            (", Serialize", tag.map(|tag| format!("tag = {}", names::LITERAL.of(tag.as_str()))))
        }
        (Coded::ByHand, _) => ("", None),
    };
    let has_attributes = kind.is_some();
    let tags: Vec<(&str, &str)> =
        cases.iter().map(|case| (case.ident.as_str(), case.tag.map_or("", WireName::as_str))).collect();
    let rule = names::variant_rule(&tags);
    let all = names::rename_all(&rule).filter(|_| has_attributes);
    let mut body = Vec::new();
    let boxed = sizes::boxed(sheet.plan, union);
    for (PlannedUnionCase { ident: case, tag, key: _, slot }, is_boxed) in cases.iter().zip(boxed) {
        let is_renamed = |tag: &&WireName| has_attributes && !rule.makes(case.as_str(), tag.as_str());
        let own = tag.filter(is_renamed).map(rename);
        let ty = types::slot(sheet, Some(*id), slot);
        let is_apart = matches!(slot.ty, Type::Named(held) if sheet.plan.contains_inline(held, *id));
        let ty = if is_boxed && !is_apart { cat([text("Box<"), ty, text(">")]) } else { ty };
        let variant = cat([text(format!("{case}(")), ty, text("),")]);
        body.extend(serde(own.into_iter().collect()).into_iter().chain([variant]));
    }
    if tag.is_some() {
        // A tag that no sample had, with all that stands beside it.
        body.extend(has_attributes.then(|| text("#[serde(untagged)]")));
        body.push(text("Other(serde_json::Value),"));
    }
    let derives = super::derives(sheet.plan, *id, derives);
    let attributes = serde(kind.into_iter().chain(all).collect());
    let declaration = braces(format!("pub enum {ident}"), body);
    lines([derives].into_iter().chain(attributes).chain([declaration]))
}

/// Writes what a case holds, which has its tag.
fn serialize(ident: &Ident, cases: &[PlannedUnionCase<'_>]) -> Doc {
    let cases = cases.iter().map(|case| case.ident.as_str()).chain(["Other"]);
    let arms = cases.map(|case| text(format!("Self::{case}(value) => value.serialize(serializer),")));
    let method = braces(
        "fn serialize<S: serde::Serializer>(&self, serializer: S) -> Result<S::Ok, S::Error>",
        [braces("match self", arms)],
    );
    braces(format!("impl Serialize for {ident}"), [method])
}

/// Reads the case that the tag names, and keeps what has another.
fn deserialize(
    plan: &Plan<'_>,
    ident: &Ident,
    tag: &WireName,
    union: &PlannedUnion<'_>,
    coded: &Coded,
) -> Doc {
    let key = names::LITERAL.of(tag.as_str());
    let mut body = vec![text("let value = serde_json::Value::deserialize(deserializer)?;")];
    // A record that keeps other keys would keep the tag, which is the enum's to write.
    let keeps_keys = |case: &PlannedUnionCase<'_>| match case.slot.ty {
        Type::Named(id) => plan.get(id).extras.is_some(),
        Type::Map(_) => true,
        Type::Any | Type::Scalar(_) | Type::Constant(_) | Type::List(_) | Type::Tuple(_) => false,
    };
    let is_tag_apart = matches!(coded, Coded::WrittenByAttribute);
    let case_value = if is_tag_apart && union.cases.iter().any(keeps_keys) {
        body.push(text("let mut case = value.clone();"));
        let remove = text(format!("keys.remove({key});"));
        body.push(braces("if let Some(keys) = case.as_object_mut()", [remove]));
        "case"
    } else {
        "value"
    };
    let arms = union.cases.iter().map(|PlannedUnionCase { ident: case, tag, .. }| {
        let tag = names::LITERAL.of(tag.map_or("", WireName::as_str));
        let read = text(format!("serde_json::from_value({case_value}).map(Self::{case})"));
        // In braces where it has a line of its own.
        group(cat([
            text(format!("Some({tag}) =>")),
            if_broken(" {", ""),
            nest(cat([line(), read])),
            if_broken("", ","),
            soft(),
            if_broken("}", ""),
        ]))
    });
    let arms = arms.chain([text("_ => return Ok(Self::Other(value)),")]);
    body.push(braces(format!("match value[{key}].as_str()"), arms));
    body.push(text(".map_err(serde::de::Error::custom)"));
    let method = braces(
        "fn deserialize<D: serde::Deserializer<'de>>(deserializer: D) -> Result<Self, D::Error>",
        body,
    );
    braces(format!("impl<'de> Deserialize<'de> for {ident}"), [method])
}

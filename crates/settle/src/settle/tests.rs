//! Small samples and the models one expects of them.

use std::fmt::Write as _;

use jar_sprout_model::{Presence, Scalar, SourceId, Width};
use jar_sprout_shape::{Shape, observe};
use proptest::prelude::*;

use super::*;
use crate::{draft_shape, root_name};

fn model_of(name: &str, samples: &[&str]) -> Model {
    let mut shape = Shape::default();
    for (source, sample) in (0..).map(SourceId).zip(samples) {
        observe(sample.as_bytes(), source, &mut shape).expect("the sample is JSON");
    }
    let words = root_name([name]);
    let policies = Policies::default();
    let drafted = draft_shape(&shape, &words, &policies);
    settle(&drafted.draft, drafted.root, &RootName { words, is_given: false }, &policies).model
}

/// The model in a few lines: `Hive: id int64, queen? Queen|null`.
fn sketch(model: &Model) -> String {
    let mut out = format!("{} = {}\n", model.root.name, show(model, &model.root.slot));
    for (_, ty) in model.types() {
        let (separator, parts): (&str, Vec<String>) = match &ty.definition {
            Definition::Record(record) => {
                (", ", record.fields.iter().map(|field| show_field(model, field)).collect())
            }
            Definition::Enumeration(known) => {
                (" ", known.cases.iter().map(|case| format!("{:?}", case.wire.as_str())).collect())
            }
            Definition::Union(union) => {
                (" | ", union.cases.iter().map(|case| show(model, &case.slot)).collect())
            }
        };
        writeln!(out, "{}: {}", ty.name, parts.join(separator)).unwrap();
    }
    out
}

fn show_field(model: &Model, field: &Field) -> String {
    let mark = if field.presence == Presence::Sometimes { "?" } else { "" };
    format!("{}{mark} {}", field.wire, show(model, &field.slot))
}

fn show(model: &Model, slot: &Slot) -> String {
    let ty = match &slot.ty {
        Type::Any => "any".to_owned(),
        Type::Scalar(Scalar::Boolean) => "bool".to_owned(),
        Type::Scalar(Scalar::Integer(Width::Narrow)) => "int".to_owned(),
        Type::Scalar(Scalar::Integer(Width::Wide)) => "int64".to_owned(),
        Type::Scalar(Scalar::Integer(Width::Big)) => "bigint".to_owned(),
        Type::Scalar(Scalar::Float) => "float".to_owned(),
        Type::Scalar(Scalar::Text) => "text".to_owned(),
        Type::Scalar(Scalar::DateTime) => "date-time".to_owned(),
        Type::Scalar(Scalar::LocalDateTime) => "local date-time".to_owned(),
        Type::Scalar(Scalar::Date) => "date".to_owned(),
        Type::Scalar(Scalar::Time) => "time".to_owned(),
        Type::Scalar(Scalar::Uuid) => "uuid".to_owned(),
        Type::Scalar(Scalar::Uri) => "uri".to_owned(),
        Type::Constant(text) => format!("{:?}", text.as_str()),
        Type::Tuple(items) => {
            format!("({})", items.iter().map(|item| show(model, item)).collect::<Vec<_>>().join(", "))
        }
        Type::List(items) => format!("[{}]", show(model, items)),
        Type::Map(values) => format!("{{{}}}", show(model, values)),
        Type::Named(id) => format!("<{}>", model.get(*id).name),
    };
    ty + if slot.nullable { "|null" } else { "" }
}

#[track_caller]
fn check(name: &str, samples: &[&str], expected: &str) {
    let model = model_of(name, samples);
    let expected: String = expected.lines().map(|line| format!("{}\n", line.trim())).collect();
    assert_eq!(sketch(&model).trim(), expected.trim());
}

#[test]
fn presence_and_nullability_stay_apart() {
    check(
        "hive",
        &[r#"{"a": 1, "b": null, "c": 2, "d": null}"#, r#"{"a": 1, "b": 2}"#],
        "hive = <hive>
         hive: a int, b int|null, c? int, d? any|null",
    );
}

#[test]
fn numbers_are_as_wide_as_they_must_be() {
    check(
        "hive",
        &[
            r#"{"frames": 10, "id": 7, "honey_bytes": 5, "big": 3000000000, "huge": 18446744073709551616, "kg": 8, "near": 1073741825}"#,
            r#"{"frames": 8, "id": 8, "honey_bytes": 6, "big": 1, "huge": 1, "kg": 8.5, "near": 0}"#,
        ],
        "hive = <hive>
         hive: frames int, id int64, honey_bytes int64, big int64, huge bigint, kg float, near int64",
    );
}

#[test]
fn what_is_not_known_is_any() {
    check(
        "hive",
        &[r#"{"tags": [], "meta": {}, "mixed": [1, "a"], "none": null}"#],
        "hive = <hive>
         hive: tags [any], meta any, mixed [<hive mixed>], none any|null
         hive mixed: int | text",
    );
}

#[test]
fn list_items_are_named_in_the_singular() {
    check(
        "page",
        &[r#"{"hives": [{"id": 1, "boxes": [[{"frames": 10}]]}], "people": [{"name": "Ada"}]}"#],
        "page = <page>
         page: hives [<hive>], people [<person>]
         hive: id int64, boxes [[<box>]]
         box: frames int
         person: name text",
    );
}

#[test]
fn a_list_at_the_root_names_its_items() {
    check("hives", &[r#"[{"id": 1}]"#], "hives = [<hive>]\nhive: id int64");
    check("hive", &[r#"[{"id": 1}]"#], "hive list = [<hive>]\nhive: id int64");
    check("names", &[r#"["a"]"#], "names = [text]");
    check("answer", &["42"], "answer = int");
}

#[test]
fn one_structure_is_one_type() {
    check(
        "hive",
        &[r#"{"small": {"url": "a", "w": 1, "h": 2}, "large": {"w": 1, "h": 2, "url": "b"}}"#],
        "hive = <hive>
         hive: small <small>, large <small>
         small: url text, w int, h int",
    );
    check(
        "hive",
        &[r#"{"home_address": {"street": "a"}, "work_address": {"street": "b"}}"#],
        "hive = <hive>
         hive: home_address <address>, work_address <address>
         address: street text",
    );
}

#[test]
fn little_structure_under_unlike_names_stays_apart() {
    check(
        "hive",
        &[r#"{"queen": {"id": 1}, "keeper": {"id": 2}}"#],
        "hive = <hive>
         hive: queen <queen>, keeper <keeper>
         queen: id int64
         keeper: id int64",
    );
}

#[test]
fn clashes_take_the_parents_word() {
    check(
        "hive",
        &[r#"{"owner": {"name": "a"}, "queen": {"owner": {"since": 1}}}"#],
        "hive = <hive>
         hive: owner <owner>, queen <queen>
         owner: name text
         queen: owner <queen owner>
         queen owner: since int",
    );
}

#[test]
fn more_keys_than_a_person_names_are_a_map() {
    let pairs: Vec<String> = (0..300).map(|n| format!(r#""s{n}": {{"t": {n}}}"#)).collect();
    check(
        "readings",
        &[&format!("{{{}}}", pairs.join(","))],
        "readings = {<reading>}
         reading: t int",
    );
}

proptest! {
    #[test]
    fn the_order_of_samples_changes_nothing_but_key_order(order in Just([0_usize, 1, 2]).prop_shuffle()) {
        let samples = [
            r#"{"a": 1, "q": {"x": 1}}"#,
            r#"{"a": 2.5, "q": {"x": 1, "y": []}, "n": null}"#,
            r#"{"a": 3, "q": null}"#,
        ];
        let words = |order: [usize; 3]| {
            let text = sketch(&model_of("hive", &order.map(|at| samples[at])));
            let mut words: Vec<String> = text.split([',', ' ', '\n']).map(str::to_owned).collect();
            words.sort();
            words
        };
        prop_assert_eq!(words(order), words([0, 1, 2]));
    }
}

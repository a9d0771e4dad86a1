//! Observation against an independent reader, in any cut of the input; and the laws of merging.

use std::collections::{BTreeMap, BTreeSet};
use std::io::{self, Read};

use proptest::prelude::*;
use serde_json::{Value, json};

use super::*;
use jar_sprout_model::Kind;

/// Gives its bytes out a few at a time.
struct Trickle<'b> {
    bytes: &'b [u8],
    step: usize,
}

impl Read for Trickle<'_> {
    fn read(&mut self, buffer: &mut [u8]) -> io::Result<usize> {
        let count = self.step.min(self.bytes.len()).min(buffer.len());
        buffer[..count].copy_from_slice(&self.bytes[..count]);
        self.bytes = &self.bytes[count..];
        Ok(count)
    }
}

fn shape_of(text: &[u8]) -> Result<Shape, Box<Problem>> {
    shape_from(text, SourceId(0), BUFFER_SIZE, usize::MAX)
}

fn shape_from(bytes: &[u8], source: SourceId, buffer: usize, step: usize) -> Result<Shape, Box<Problem>> {
    let mut shape = Shape::default();
    observe_buffered(Trickle { bytes, step }, source, &mut shape, buffer)?;
    Ok(shape)
}

/// Counts per path and kind: what both readers must agree on.
type Counts = BTreeMap<(String, Kind), u64>;

fn counts_of_shape(shape: &Shape, path: &str, counts: &mut Counts) {
    let mut add = |kind, count| {
        if count > 0 {
            counts.insert((path.to_owned(), kind), count);
        }
    };
    add(Kind::Null, shape.nulls.count);
    add(Kind::Boolean, shape.booleans.count());
    let numbers = shape.numbers.as_ref();
    add(Kind::Integer, numbers.map_or(0, |n| n.integers.count));
    add(Kind::Number, numbers.map_or(0, |n| n.fractions.count));
    add(Kind::Text, shape.texts.as_ref().map_or(0, |t| t.tally.count));
    add(Kind::List, shape.lists.as_ref().map_or(0, |l| l.tally.count));
    add(Kind::Object, shape.objects.as_ref().map_or(0, |o| o.tally.count));
    if let Some(lists) = &shape.lists {
        counts_of_shape(&lists.items, &format!("{path}[*]"), counts);
    }
    for field in shape.objects.iter().flat_map(|o| o.fields()) {
        counts_of_shape(&field.shape, &format!("{path}.{:?}", field.key), counts);
    }
}

fn counts_of_value(value: &Value, path: &str, counts: &mut Counts) {
    let kind = match value {
        Value::Null => Kind::Null,
        Value::Bool(_) => Kind::Boolean,
        Value::Number(n) if n.is_f64() => Kind::Number,
        Value::Number(_) => Kind::Integer,
        Value::String(_) => Kind::Text,
        Value::Array(_) => Kind::List,
        Value::Object(_) => Kind::Object,
    };
    *counts.entry((path.to_owned(), kind)).or_default() += 1;
    match value {
        Value::Array(items) => items.iter().for_each(|v| counts_of_value(v, &format!("{path}[*]"), counts)),
        Value::Object(map) => {
            map.iter().for_each(|(k, v)| counts_of_value(v, &format!("{path}.{k:?}"), counts));
        }
        _ => {}
    }
}

fn any_json() -> impl Strategy<Value = Value> {
    let leaf = prop_oneof![
        Just(Value::Null),
        any::<bool>().prop_map(Value::from),
        any::<i64>().prop_map(Value::from),
        any::<u64>().prop_map(Value::from),
        (-1e9..1e9).prop_map(|f: f64| Value::from(f)),
        ".*".prop_map(Value::from),
        prop::sample::select(vec!["caged", "laying", "2026-05-01", "", "🍯 \\ \" \n"]).prop_map(Value::from),
    ];
    let key = prop_oneof![
        prop::sample::select(vec!["id", "name", "queen", "é", "a\"b"]).prop_map(String::from),
        ".{0,3}"
    ];
    leaf.prop_recursive(5, 40, 6, move |inner| {
        prop_oneof![
            prop::collection::vec(inner.clone(), 0..6).prop_map(Value::from),
            prop::collection::btree_map(key.clone(), inner.clone(), 0..6)
                .prop_map(|map| Value::Object(map.into_iter().collect())),
            inner.prop_map(|value| Value::from(value.to_string())),
        ]
    })
}

fn samples() -> impl Strategy<Value = Vec<Value>> {
    prop::collection::vec(any_json(), 1..5)
}

/// Objects with few keys and words, whose values differ in kind: what stands beside what is told for them.
fn events() -> impl Strategy<Value = Vec<Value>> {
    let value = prop_oneof![
        prop::sample::select(vec![
            json!(1),
            json!(1.5),
            json!("a"),
            json!(true),
            json!([1]),
            json!(["a"]),
            json!([])
        ]),
        prop::sample::select(vec![
            json!({"a": 1}),
            json!([{"a": 1}]),
            json!([[{"b": 1}]]),
            json!([{"b": 1}, 1])
        ]),
        Just(Value::Null),
    ];
    let key = prop::sample::select(vec!["value", "more", "kind"]);
    let kind = prop::sample::select(vec!["swarm", "box", "queen"]);
    let event = (kind, prop::collection::vec((key, value), 1..4)).prop_map(|(kind, fields)| {
        let all = [("kind", json!(kind))].into_iter().chain(fields);
        Value::Object(all.map(|(key, value)| (key.to_owned(), value)).collect())
    });
    prop::collection::vec(event, 1..8)
}

fn ndjson(values: &[Value]) -> String {
    values.iter().map(|value| format!("{value}\n")).collect()
}

proptest! {
    #[test]
    fn counts_what_an_independent_reader_sees(values in samples(), pretty in any::<bool>()) {
        let text = if pretty {
            values.iter().map(|v| serde_json::to_string_pretty(v).unwrap() + "\n").collect()
        } else {
            ndjson(&values)
        };
        let (mut mine, mut theirs) = (Counts::new(), Counts::new());
        counts_of_shape(&shape_of(text.as_bytes()).unwrap(), "$", &mut mine);
        values.iter().for_each(|value| counts_of_value(value, "$", &mut theirs));
        prop_assert_eq!(mine, theirs);
    }

    #[test]
    fn the_cut_of_the_input_does_not_matter(values in samples(), buffer in 1_usize..600, step in 1_usize..40) {
        let text = ndjson(&values);
        let whole = shape_of(text.as_bytes()).unwrap();
        let cut = shape_from(text.as_bytes(), SourceId(0), buffer, step).unwrap();
        prop_assert_eq!(whole, cut);
    }

    #[test]
    fn merging_equals_observing_both(
        [a, b, c] in prop_oneof![
            prop::array::uniform3(samples().boxed()),
            prop::array::uniform3(events().boxed()),
        ]
    ) {
        let texts = [ndjson(&a), ndjson(&b), ndjson(&c)];
        let mut together = Shape::default();
        let mut parts = Vec::new();
        for (source, text) in (0..).map(SourceId).zip(&texts) {
            observe(text.as_bytes(), source, &mut together).unwrap();
            parts.push(shape_from(text.as_bytes(), source, BUFFER_SIZE, usize::MAX).unwrap());
        }
        let merged = |order: [usize; 3]| {
            let mut shape = Shape::default();
            order.iter().for_each(|&at| shape.merge(parts[at].clone()));
            shape
        };
        let mut tail = parts[1].clone();
        tail.merge(parts[2].clone());
        let mut right_first = parts[0].clone();
        right_first.merge(tail);
        prop_assert_eq!(&together, &merged([0, 1, 2]), "in order");
        prop_assert_eq!(&together, &merged([2, 0, 1]), "commutative");
        prop_assert_eq!(&together, &right_first, "associative");
    }

    #[test]
    fn accepts_just_what_an_independent_reader_accepts(value in any_json(), at in any::<prop::sample::Index>(), byte in any::<u8>(), kind in 0..3) {
        let mut bytes = value.to_string().into_bytes();
        let at = at.index(bytes.len());
        match kind {
            0 => bytes[at] = byte,
            1 => bytes.insert(at, byte),
            _ => { bytes.remove(at); }
        }
        let theirs = serde_json::Deserializer::from_slice(&bytes).into_iter::<Value>().collect::<Result<Vec<_>, _>>();
        // Several values on one line are ours to refuse; a number that no float holds is ours to accept.
        let comparable = match &theirs {
            Ok(values) => values.len() == 1,
            Err(error) => !error.to_string().contains("out of range"),
        };
        if comparable {
            prop_assert_eq!(shape_of(&bytes).is_ok(), theirs.is_ok(), "{:?}", String::from_utf8_lossy(&bytes));
        }
    }

    #[test]
    fn never_panics(bytes in prop::collection::vec(any::<u8>(), 0..200), buffer in 1_usize..64) {
        let _ = shape_from(&bytes, SourceId(0), buffer, 7);
    }
}

/// The fault of a text as `line:column message` with its excerpt's line and caret.
#[track_caller]
fn check_fault(text: &[u8], expected: &str, excerpt: &str) {
    for (buffer, step) in [(BUFFER_SIZE, usize::MAX), (8, 3)] {
        let problem = shape_from(text, SourceId(0), buffer, step).expect_err("the text has a fault");
        let jar_sprout_model::Spot::Text { line, column, .. } = problem.spot else {
            panic!("no place in the text")
        };
        assert_eq!(format!("{line}:{column} {}", problem.message), expected);
        if step == usize::MAX {
            let shown = problem.excerpt.expect("an excerpt");
            let marked: String = shown
                .text
                .chars()
                .take(shown.caret)
                .chain(['^'])
                .chain(shown.text.chars().skip(shown.caret))
                .collect();
            assert_eq!(marked, excerpt);
        }
    }
}

#[test]
fn faults_have_their_place() {
    check_fault(b"", "1:1 there is no JSON value in here", "^");
    check_fault(b" \n\n", "3:1 there is no JSON value in here", "^");
    check_fault(b"{\"a\": 1,}", "1:9 expected a key, found `}`", "{\"a\": 1,^}");
    check_fault(b"[1, 2,\n 3,]", "2:4 expected a value, found `]`", " 3,^]");
    check_fault(b"{'a': 1}", "1:2 expected a key, found `'`", "{^'a': 1}");
    check_fault("{\"größe\": tru}".as_bytes(), "1:11 this is not `true`", "{\"größe\": ^tru}");
    check_fault(b"{\"a\" 1}", "1:6 expected `:` after a key, found `1`", "{\"a\" ^1}");
    check_fault(b"{\"a\": 01}", "1:7 not a number that JSON knows", "{\"a\": ^01}");
    check_fault(
        b"{\"a\": \"x\ty\"}",
        "1:9 a control character inside a string must be escaped",
        "{\"a\": \"x^ y\"}",
    );
    check_fault(b"[\"x\n\"]", "1:4 the line ends in the middle of a string", "[\"x^");
    check_fault(b"{\"a\": }", "1:7 expected a value, found `}`", "{\"a\": ^}");
    check_fault(br#"["\x"]"#, "1:3 not an escape that JSON knows", r#"["^\x"]"#);
    check_fault(br#"["\ud83c"]"#, "1:9 a surrogate escape without its other half", r#"["\ud83c^"]"#);
    check_fault(b"[\"\xFF\"]", "1:3 not valid UTF-8", "[\"^\u{FFFD}\"]");
    check_fault(b"{\"a\": 1} x", "1:10 more text follows the value on its line", "{\"a\": 1} ^x");
    check_fault(b"{\"a\": 1}\n{\"a\": \n", "2:6 the text ends in the middle of an object", "{\"a\":^");
    check_fault(b"{\"a\": \"unfin", "1:13 the text ends in the middle of a string", "{\"a\": \"unfin^");
    check_fault(b"\xFF\xFE{\0", "1:1 not valid UTF-8", "^\u{FFFD}\u{FFFD}{\u{FFFD}");
}

#[test]
fn a_known_key_is_not_met_without_its_escape() {
    let text = br#"[{"a\"b": 1}, {"a"b": 2}]"#;
    assert_eq!(shape_of(text).unwrap_err().message, "expected `:` after a key, found `b`");
}

#[test]
fn nesting_has_a_bound() {
    let nested = |depth: usize| "[".repeat(depth) + &"]".repeat(depth);
    assert!(shape_of(nested(MAX_DEPTH).as_bytes()).is_ok());
    let problem = shape_of(nested(10_000).as_bytes()).unwrap_err();
    assert_eq!(problem.message, "nested deeper than 512 levels");
}

#[test]
fn a_byte_order_mark_is_stepped_over() {
    let shape = shape_of("\u{FEFF}{\"a\": 1}".as_bytes()).unwrap();
    assert_eq!(shape.objects.unwrap().tally.count, 1);
}

#[test]
fn a_long_text_is_counted_but_not_kept() {
    let text = format!("[\"{}é\\n\"]", "ä".repeat(400_000));
    for (buffer, step) in [(BUFFER_SIZE, usize::MAX), (1000, 777)] {
        let shape = shape_from(text.as_bytes(), SourceId(0), buffer, step).unwrap();
        let texts = shape.lists.unwrap().items.texts.unwrap();
        assert_eq!(texts.longest, 800_003);
        assert_eq!(texts.example().map(str::len), Some(80));
    }
}

#[test]
fn keys_beyond_the_bound_crowd_together() {
    let object = |from: usize, to: usize| {
        let pairs: Vec<String> = (from..to).map(|n| format!("\"k{n}\": {{\"x\": {n}}}")).collect();
        format!("{{{}}}", pairs.join(","))
    };
    let text = format!("{}\n{}", object(0, 200), object(100, 300));
    let objects = shape_of(text.as_bytes()).unwrap().objects.unwrap();
    assert_eq!((objects.fields().len(), objects.entries), (0, 400));
    let crowd = objects.crowd().unwrap();
    assert_eq!(crowd.objects.as_ref().unwrap().tally.count, 400);
}

#[test]
fn positions_have_a_bound() {
    let inner = |n: usize| {
        format!("{{{}}}", (0..200).map(|k| format!("\"k{n}x{k}\": 1")).collect::<Vec<_>>().join(","))
    };
    let text = format!(
        "{{{}}}",
        (0..250)
            .map(|n| format!("\"f{n}\": [{}, {}]", inner(n), inner(n + 250)))
            .collect::<Vec<_>>()
            .join(",")
    );
    let lines: String = (0..3).map(|n| text.replace("\"f", &format!("\"g{n}")) + "\n").collect();
    let deeper =
        format!("[{}]", (0..200).map(|n| format!("{{\"d{n}\": {text}}}")).collect::<Vec<_>>().join(","));
    let mut shape = Shape::default();
    let observed = observe((lines + &deeper).as_bytes(), SourceId(0), &mut shape).unwrap();
    assert!(
        observed.warnings.iter().any(|warning| warning.message.contains("positions")),
        "{:?}",
        observed.warnings
    );
}

#[test]
fn a_repeated_key_is_named_with_its_line() {
    let mut shape = Shape::default();
    let text = b"{\"a\": 1,\n \"a\": 2}";
    let observed = observe(&text[..], SourceId(0), &mut shape).unwrap();
    assert_eq!(observed.warnings.len(), 1);
    assert!(observed.warnings[0].message.contains("`a` stands twice"));
    let field = shape.objects.as_ref().unwrap().field("a").unwrap().clone();
    assert_eq!((field.seen.count, field.shape.seen()), (1, 2));
}

#[test]
fn first_seen_order_follows_the_input_not_the_merging() {
    let keys = |shape: &Shape| {
        shape.objects.as_ref().unwrap().fields().iter().map(|f| f.key.to_string()).collect::<Vec<_>>()
    };
    let first = shape_from(b"{\"z\": 1, \"a\": 2}", SourceId(0), 64, 64).unwrap();
    let second = shape_from(b"{\"b\": 1, \"a\": 2}", SourceId(1), 64, 64).unwrap();
    let mut merged = second.clone();
    merged.merge(first);
    assert_eq!(keys(&merged), ["z", "a", "b"]);
}

/// Of a key that stands twice, the last value counts.
#[test]
fn a_variant_has_the_last_value_of_a_key() {
    let shape = shape_of(br#"[{"load": "gone", "load": {"from": 1}}]"#).expect("it is JSON");
    let items = &shape.lists.as_ref().expect("it is a list").items;
    let variants = items.objects.as_ref().and_then(|objects| objects.variants()).expect("they are few");
    let [variant] = &variants[..] else { panic!("one set of keys: {variants:?}") };
    let load = &variant.keys[0];
    assert_eq!(load.kinds, KindSet::of(Kind::Object));
    assert!(load.texts.as_ref().is_some_and(BTreeSet::is_empty), "{load:?}");
}

/// The words of a list of texts that was read in two halves, or in one: none where they are too many.
#[track_caller]
fn check_words(texts: &[String], expected: Option<&[(&str, u64)]>) {
    let whole = shape_of(serde_json::to_string(texts).unwrap().as_bytes()).unwrap();
    let halves = texts.split_at(texts.len() / 2);
    let mut merged = shape_of(serde_json::to_string(halves.0).unwrap().as_bytes()).unwrap();
    merged.merge(shape_of(serde_json::to_string(halves.1).unwrap().as_bytes()).unwrap());
    for shape in [&whole, &merged] {
        let texts = shape.lists.as_ref().unwrap().items.texts.as_ref().unwrap();
        let mut words: Option<Vec<(&str, u64)>> =
            texts.words().map(|words| words.iter().map(|(word, tally)| (*word, tally.count)).collect());
        words.iter_mut().for_each(|words| words.sort_unstable());
        assert_eq!(words.as_deref(), expected);
    }
}

#[test]
fn words_are_told_apart_among_many_texts_of_a_form() {
    let numbers = |count: usize| (0..count).map(|number| number.to_string());
    let with = |words: &[&str], count| -> Vec<String> {
        let words = words.iter().map(|word| (*word).to_owned());
        numbers(count).chain(words.clone()).chain(numbers(count)).chain(words).collect()
    };
    check_words(&with(&["N/A", ""], 3), Some(&[("", 2), ("N/A", 2)]));
    check_words(&with(&["N/A", ""], 100), Some(&[("", 2), ("N/A", 2)]));
    check_words(&with(&[], 100), Some(&[]));
    check_words(&with(&["a", "b", "c", "d", "e", "f", "g", "h", "i"], 100), None);
    check_words(
        &with(&["a word that is longer than any that is told apart from others at one place"], 100),
        None,
    );
}

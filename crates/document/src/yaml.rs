//! YAML 1.2, straight from its events into what is made of it: a value, or JSON text with every digit as it was written.
//!
//! Scalars mean what the core schema says (YAML 1.2.2, section 10.3), but for two things: digits behind a zero are a text,
//! since `0171` is a telephone number and no number, and what JSON has no word for (`.inf`, `.nan`) is null. A `<<` takes
//! over the entries of other objects, as people write it still.

use std::borrow::Cow;

use foldhash::{HashMap as FastMap, HashSet as FastSet};
use saphyr_parser::{Event, Parser, ScalarStyle, ScanError, Span, Tag};
use serde_json::Number;

use crate::fault::Fault;
use crate::text::Text;
use crate::value::{Object, Value};

/// How deep lists and objects may stand in each other: as deep as JSON is read.
const DEEPEST: usize = 128;

/// The most parts that aliases may add, all told.
const MOST_REPEATED: usize = 250_000;

/// The value of a YAML text.
pub(crate) fn read_yaml(text: &str) -> Result<Value, Fault> {
    read::<Value>(text)
}

/// The same as JSON text, whose numbers have all their digits.
///
/// # Errors
/// A text that is no YAML, or more than one document; aliases that blow up, keys that stand twice or are no scalars.
pub fn yaml_as_json(text: &str) -> Result<String, Fault> {
    read::<Json>(text).map(Json::into_text)
}

/// What is made of YAML.
trait Made: Clone {
    fn null() -> Self;
    fn boolean(flag: bool) -> Self;
    /// A number as JSON writes it.
    fn number(literal: &str) -> Self;
    fn text(text: &str) -> Self;
    fn list(items: Vec<Self>) -> Self;
    fn object(entries: Vec<(Text, Self)>) -> Self;
    /// The entries of an object, where it is one; what a list holds, where it is one.
    fn merged(self) -> Vec<(Text, Self)>;
}

impl Made for Value {
    fn null() -> Self {
        Self::Null
    }

    fn boolean(flag: bool) -> Self {
        Self::Bool(flag)
    }

    /// A whole number of more than 64 bits is the nearest one that a double holds, as it is in JSON.
    fn number(literal: &str) -> Self {
        let whole =
            literal.parse::<i64>().map(Number::from).or_else(|_| literal.parse::<u64>().map(Number::from));
        let number = whole.ok().or_else(|| Number::from_f64(literal.parse().ok()?));
        number.map_or(Self::Null, Self::Number)
    }

    fn text(text: &str) -> Self {
        Self::String(text.into())
    }

    fn list(items: Vec<Self>) -> Self {
        Self::Array(items.into())
    }

    fn object(entries: Vec<(Text, Self)>) -> Self {
        Self::Object(Object::new(entries.into()))
    }

    fn merged(self) -> Vec<(Text, Self)> {
        match self {
            Self::Object(object) => object.entries().to_vec(),
            Self::Array(several) => several.into_iter().flat_map(Self::merged).collect(),
            Self::Null | Self::Bool(_) | Self::Number(_) | Self::String(_) => Vec::new(),
        }
    }
}

/// JSON text in the making.
#[derive(Clone)]
enum Json {
    Text(String),
    List(Vec<Json>),
    Object(Vec<(Text, Json)>),
}

impl Json {
    fn into_text(self) -> String {
        let mut out = String::new();
        self.write(&mut out);
        out
    }

    fn write(self, out: &mut String) {
        match self {
            Self::Text(text) => out.push_str(&text),
            Self::List(items) => {
                out.push('[');
                for (at, item) in items.into_iter().enumerate() {
                    out.push_str(if at > 0 { "," } else { "" });
                    item.write(out);
                }
                out.push(']');
            }
            Self::Object(entries) => {
                out.push('{');
                for (at, (key, value)) in entries.into_iter().enumerate() {
                    out.push_str(if at > 0 { "," } else { "" });
                    out.push_str(&quoted(&key));
                    out.push(':');
                    value.write(out);
                }
                out.push('}');
            }
        }
    }
}

fn quoted(text: &str) -> String {
    serde_json::Value::from(text).to_string()
}

impl Made for Json {
    fn null() -> Self {
        Self::Text("null".to_owned())
    }

    fn boolean(flag: bool) -> Self {
        Self::Text(flag.to_string())
    }

    fn number(literal: &str) -> Self {
        Self::Text(literal.to_owned())
    }

    fn text(text: &str) -> Self {
        Self::Text(quoted(text))
    }

    fn list(items: Vec<Self>) -> Self {
        Self::List(items)
    }

    fn object(entries: Vec<(Text, Self)>) -> Self {
        Self::Object(entries)
    }

    fn merged(self) -> Vec<(Text, Self)> {
        match self {
            Self::Object(entries) => entries,
            Self::List(several) => several.into_iter().flat_map(Self::merged).collect(),
            Self::Text(_) => Vec::new(),
        }
    }
}

/// A list or an object that is not at its end.
struct Frame<M> {
    inside: Inside<M>,
    anchor: usize,
    size: Size,
}

/// How much something is.
#[derive(Clone, Copy)]
struct Size {
    /// How many parts are in it, itself included.
    parts: usize,
    /// How deep lists and objects stand in each other.
    depth: usize,
}

/// A scalar's.
const ONE: Size = Size { parts: 1, depth: 0 };

enum Inside<M> {
    List(Vec<M>),
    Object {
        entries: Vec<(Text, M)>,
        seen: FastSet<Text>,
        /// What `<<` takes over, unless the object says otherwise.
        merged: Vec<(Text, M)>,
        /// The key whose value comes next.
        key: Option<Key>,
    },
}

enum Key {
    Own(Text),
    Merge,
}

fn read<M: Made>(text: &str) -> Result<M, Fault> {
    let mut reader = Reader { open: Vec::new(), anchors: FastMap::default(), repeated: 0, whole: None };
    for event in Parser::new_from_str(text) {
        let (event, span) = event.map_err(|error| fault_of(&error, text))?;
        reader.take(event, span)?;
    }
    Ok(reader.whole.unwrap_or_else(M::null))
}

fn fault_of(error: &ScanError, text: &str) -> Fault {
    let place = error.marker();
    let has_tab = text.lines().nth(place.line().saturating_sub(1)).is_some_and(is_indented_by_tab);
    let help = has_tab.then(|| "YAML is indented with blanks, never with tabs".to_owned());
    Fault { message: error.info().to_owned(), place: Some(line_and_column(place)), help }
}

fn is_indented_by_tab(line: &str) -> bool {
    let indent = &line[..line.len() - line.trim_start_matches([' ', '\t']).len()];
    indent.contains('\t')
}

fn line_and_column(place: &saphyr_parser::Marker) -> (u64, u64) {
    (place.line() as u64, place.col() as u64 + 1)
}

struct Reader<M> {
    open: Vec<Frame<M>>,
    /// What has a name, with how much it is.
    anchors: FastMap<usize, (M, Size)>,
    /// How many parts aliases have added.
    repeated: usize,
    whole: Option<M>,
}

impl<M: Made> Reader<M> {
    fn take(&mut self, event: Event<'_>, span: Span) -> Result<(), Fault> {
        let fault = |message: &str, help: Option<&str>| {
            let help = help.map(str::to_owned);
            Fault { message: message.to_owned(), place: Some(line_and_column(&span.start)), help }
        };
        match event {
            Event::Nothing | Event::StreamStart | Event::StreamEnd | Event::DocumentEnd => Ok(()),
            Event::DocumentStart(_) if self.whole.is_some() => {
                Err(fault("there is more than one document in the file", Some("give each a file of its own")))
            }
            Event::DocumentStart(_) => Ok(()),
            Event::SequenceStart(anchor, _) => self.open(Inside::List(Vec::new()), anchor, &fault),
            Event::MappingStart(anchor, _) => {
                let (entries, merged) = (Vec::new(), Vec::new());
                self.open(
                    Inside::Object { entries, seen: FastSet::default(), merged, key: None },
                    anchor,
                    &fault,
                )
            }
            Event::SequenceEnd | Event::MappingEnd => {
                let Some(Frame { inside, anchor, size }) = self.open.pop() else { return Ok(()) };
                let made = match inside {
                    Inside::List(items) => M::list(items),
                    Inside::Object { mut entries, seen, merged, key: _ } => {
                        let mut taken = seen;
                        entries.extend(merged.into_iter().filter(|(key, _)| taken.insert(key.clone())));
                        M::object(entries)
                    }
                };
                self.put(made, size, anchor, &fault)
            }
            Event::Scalar(text, style, anchor, tag) => {
                let is_plain = style == ScalarStyle::Plain;
                if let Some(Frame { inside: Inside::Object { seen, key: key @ None, .. }, .. }) =
                    self.open.last_mut()
                {
                    if is_plain && text == "<<" {
                        *key = Some(Key::Merge);
                        return Ok(());
                    }
                    let own = Text::from(&*text);
                    if !seen.insert(own.clone()) {
                        return Err(fault(
                            &format!("duplicate key `{}`", &*own),
                            Some("leave one of them out"),
                        ));
                    }
                    if anchor > 0 {
                        self.anchors.insert(anchor, (M::text(&text), ONE));
                    }
                    *key = Some(Key::Own(own));
                    return Ok(());
                }
                self.put(scalar(&text, is_plain, tag.as_deref()), ONE, anchor, &fault)
            }
            Event::Alias(anchor) => {
                let Some((made, size)) = self.anchors.get(&anchor).cloned() else {
                    return Err(fault("an alias stands inside of what it stands for", None));
                };
                self.bear(size.depth, &fault)?;
                self.repeated += size.parts;
                if self.repeated > MOST_REPEATED {
                    return Err(fault(
                        "its aliases multiply beyond measure",
                        Some("write out what they stand for"),
                    ));
                }
                self.put(made, size, 0, &fault)
            }
        }
    }

    fn open(&mut self, inside: Inside<M>, anchor: usize, fault: Faults<'_>) -> Result<(), Fault> {
        if let Some(Frame { inside: Inside::Object { key: None, .. }, .. }) = self.open.last() {
            return Err(fault("a key is a list or an object", None));
        }
        let size = Size { parts: 1, depth: 1 };
        self.bear(size.depth, fault)?;
        self.open.push(Frame { inside, anchor, size });
        Ok(())
    }

    /// Whether there is room for something so deep where the reader is.
    fn bear(&self, depth: usize, fault: Faults<'_>) -> Result<(), Fault> {
        if self.open.len() + depth > DEEPEST {
            return Err(fault("lists and objects stand in each other more than 128 deep", None));
        }
        Ok(())
    }

    /// Puts what was made where it belongs.
    fn put(&mut self, made: M, size: Size, anchor: usize, fault: Faults<'_>) -> Result<(), Fault> {
        if anchor > 0 {
            self.anchors.insert(anchor, (made.clone(), size));
        }
        let Some(frame) = self.open.last_mut() else {
            self.whole = Some(made);
            return Ok(());
        };
        frame.size.parts += size.parts;
        frame.size.depth = frame.size.depth.max(size.depth + 1);
        match &mut frame.inside {
            Inside::List(items) => items.push(made),
            Inside::Object { entries, merged, key, seen: _ } => match key.take() {
                Some(Key::Own(key)) => entries.push((key, made)),
                Some(Key::Merge) => merged.extend(made.merged()),
                None => return Err(fault("a key is an alias", Some("write it out"))),
            },
        }
        Ok(())
    }
}

type Faults<'f> = &'f dyn Fn(&str, Option<&str>) -> Fault;

/// What a scalar means: as its tag has it, else what the core schema makes of one without quotes.
fn scalar<M: Made>(text: &str, is_plain: bool, tag: Option<&Tag>) -> M {
    let core = tag.filter(|tag| tag.is_yaml_core_schema()).map(|tag| tag.suffix.as_str());
    if core == Some("str") || (!is_plain && core.is_none()) || tag.is_some_and(|tag| tag.suffix.is_empty()) {
        return M::text(text);
    }
    match text {
        "" | "~" | "null" | "Null" | "NULL" => M::null(),
        "true" | "True" | "TRUE" => M::boolean(true),
        "false" | "False" | "FALSE" => M::boolean(false),
        ".nan" | ".NaN" | ".NAN" => M::null(),
        text => match number(text) {
            Some(literal) => M::number(&literal),
            None if is_infinite(text) => M::null(),
            None => M::text(text),
        },
    }
}

fn is_infinite(text: &str) -> bool {
    matches!(text.trim_start_matches(['-', '+']), ".inf" | ".Inf" | ".INF")
}

/// A number as JSON writes it: `0x1F` is 31, `.5` is 0.5.
fn number(text: &str) -> Option<Cow<'_, str>> {
    let radix =
        |digits: &str, radix| u64::from_str_radix(digits, radix).ok().map(|n| Cow::Owned(n.to_string()));
    if let Some(digits) = text.strip_prefix("0x") {
        return digits.bytes().all(|byte| byte.is_ascii_hexdigit()).then(|| radix(digits, 16))?;
    }
    if let Some(digits) = text.strip_prefix("0o") {
        return digits.bytes().all(|byte| byte.is_ascii_digit()).then(|| radix(digits, 8))?;
    }
    let is_digits = |text: &str| !text.is_empty() && text.bytes().all(|byte| byte.is_ascii_digit());
    let unsigned = text.strip_prefix(['-', '+']).unwrap_or(text);
    let sign = if text.starts_with('-') { "-" } else { "" };
    let (mantissa, exponent) = match unsigned.split_once(['e', 'E']) {
        Some((mantissa, exponent)) => (mantissa, Some(exponent)),
        None => (unsigned, None),
    };
    let (whole, fraction) = match mantissa.split_once('.') {
        Some((whole, fraction)) => (whole, Some(fraction)),
        None => (mantissa, None),
    };
    let has_digits = !whole.is_empty() || fraction.is_some_and(|fraction| !fraction.is_empty());
    let are_digits =
        [whole, fraction.unwrap_or_default()].iter().all(|part| part.is_empty() || is_digits(part));
    let is_exponent =
        exponent.is_none_or(|digits| is_digits(digits.strip_prefix(['-', '+']).unwrap_or(digits)));
    let has_idle_zero = whole.len() > 1 && whole.starts_with('0');
    if !has_digits || !are_digits || !is_exponent || has_idle_zero {
        return None;
    }
    let whole = if whole.is_empty() { "0" } else { whole };
    let fraction = match fraction {
        Some("") => ".0".to_owned(),
        Some(fraction) => format!(".{fraction}"),
        None => String::new(),
    };
    let exponent = exponent.map(|exponent| format!("e{exponent}")).unwrap_or_default();
    Some(Cow::Owned(format!("{sign}{whole}{fraction}{exponent}")))
}

#[cfg(test)]
mod tests {
    use super::*;

    #[track_caller]
    fn check(yaml: &str, json: &str) {
        assert_eq!(yaml_as_json(yaml).as_deref(), Ok(json), "{yaml}");
        let value: serde_json::Value = serde_json::from_str(json).expect("it is JSON");
        assert_eq!(read_yaml(yaml), Ok(value.into()), "{yaml}");
    }

    #[test]
    fn scalars_mean_what_the_core_schema_says() {
        check("[null, ~, Null]", "[null,null,null]");
        check("a:\nb: ~\n", r#"{"a":null,"b":null}"#);
        check("[true, False, yes, on]", r#"[true,false,"yes","on"]"#);
        check("[17, -3, +4, 0, 0x1F, 0o17]", "[17,-3,4,0,31,15]");
        check("[8.4, .5, 3., -1e3, 6E+2]", "[8.4,0.5,3.0,-1e3,6e+2]");
        check(
            "[0171, 1_000, 12:30, 2026-05-01, 1.2.3, +, '-', .]",
            r#"["0171","1_000","12:30","2026-05-01","1.2.3","+","-","."]"#,
        );
        check("[.inf, -.Inf, .nan]", "[null,null,null]");
        check("['17', \"true\", !!str 17, !honey 17]", r#"["17","true","17",17]"#);
        check("a: |\n  one\n  two\n", r#"{"a":"one\ntwo\n"}"#);
    }

    #[test]
    fn numbers_of_any_size_are_read() {
        check("[18446744073709551615]", "[18446744073709551615]");
        let text = "maximum: 12345678901234567890123";
        assert_eq!(yaml_as_json(text).as_deref(), Ok(r#"{"maximum":12345678901234567890123}"#));
        let value = read_yaml(text).expect("it is YAML");
        assert_eq!(
            value.as_object().and_then(|o| o.get("maximum")?.as_number()?.as_f64()),
            Some(1.234_567_890_123_456_8e22)
        );
    }

    #[test]
    fn keys_are_text_and_merges_do_not_overrule() {
        check("200: a\ntrue: b\n", r#"{"200":"a","true":"b"}"#);
        check(
            "- &x {a: 1, b: 2}\n- {<<: *x, b: 3, c: *x}",
            r#"[{"a":1,"b":2},{"b":3,"c":{"a":1,"b":2},"a":1}]"#,
        );
        check("- &x {a: 1}\n- &y {a: 2, b: 3}\n- <<: [*x, *y]\n", r#"[{"a":1},{"a":2,"b":3},{"a":1,"b":3}]"#);
        check("'<<': 1", r#"{"<<":1}"#);
    }

    #[test]
    fn what_cannot_be_read_has_its_place() {
        #[track_caller]
        fn fails(yaml: &str, message: &str, place: (u64, u64)) {
            let fault = read_yaml(yaml).expect_err(yaml);
            assert!(fault.message.contains(message), "{fault:?}");
            assert_eq!(fault.place, Some(place), "{fault:?}");
        }
        fails("a: 1\nb: 2\na: 3\n", "duplicate key `a`", (3, 1));
        fails("? [a]\n: 1\n", "a key is a list", (1, 3));
        fails("a: 1\n---\nb: 2\n", "more than one document", (2, 1));
        fails(&"[".repeat(200), "128 deep", (1, 129));
        fails("a: &x [*x]\n", "alias", (1, 8));
        let half = |inside: &str| format!("{}{inside}{}", "[".repeat(70), "]".repeat(70));
        let deep = format!("a: &a {}\nb: {}\n", half("1"), half("*a"));
        fails(&deep, "128 deep", (2, 74));
    }
}

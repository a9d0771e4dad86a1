//! Maps: objects whose keys are data.
//!
//! No single sign decides it. What the keys look like, how seldom the objects share them, how many there are, whether
//! their values have one structure: each adds up, and what has enough is a map. Which kinds of value stand under the
//! keys decides only what the map holds.

use std::collections::BTreeSet;

use indexmap::IndexMap;
use jar_sprout_model::Kind;
use jar_sprout_shape::Step;

use crate::draft::evidence::{KeyClue, KeyForm, KeyWeight};
use crate::draft::graph::{FieldPart, Graph, Keys, NodeId};
use crate::draft::similarity::{Agreement, agreement};
use crate::policies::Policies;
use crate::structure::Structure;

/// With more objects than this under different keys, all of one structure, nobody named the keys.
const FEW_NAMES: usize = 12;

/// Finds every map below a position, from the outside in.
pub(crate) fn make_maps(graph: &mut Graph, root: NodeId, policies: &Policies) {
    let elsewhere = keys_of_maps(graph, root);
    let mut next = 0;
    // Uniting values changes what lies below, so the walk is made anew after each map.
    let mut order = graph.walk(root);
    while let Some(&id) = order.get(next) {
        next += 1;
        let Some(weight) = weigh_keys(graph, id, &elsewhere, policies) else { continue };
        if weight.is_map() {
            graph.make_map(id, weight);
            order = graph.walk(root);
            continue;
        }
        let data = keys_beside_names(graph, id, policies);
        if !data.is_empty() {
            graph.make_extras(id, &data);
            order = graph.walk(root);
        }
    }
}

/// The keys under which maps stand.
pub(crate) fn keys_of_maps(graph: &Graph, root: NodeId) -> BTreeSet<String> {
    let is_map = |id: &NodeId| {
        graph.node(*id).objects.as_ref().is_some_and(|objects| matches!(objects.keys, Keys::Data { .. }))
    };
    let maps = graph.walk(root).into_iter().filter(is_map);
    maps.flat_map(|id| own_keys(graph, id)).collect()
}

/// The keys that lead to a position itself.
fn own_keys(graph: &Graph, id: NodeId) -> Vec<String> {
    let own = |path: &jar_sprout_shape::Path| match path.0.last() {
        Some(Step::Child(key)) => Some(key.clone()),
        Some(Step::All) | None => None,
    };
    graph.node(id).paths.iter().filter_map(own).collect()
}

/// What speaks for the keys at a position being data, and what against; none where there are no keys.
/// `elsewhere` are the keys under which maps stand.
pub(crate) fn weigh_keys(
    graph: &Graph,
    id: NodeId,
    elsewhere: &BTreeSet<String>,
    policies: &Policies,
) -> Option<KeyWeight> {
    let node = graph.node(id);
    let objects = node.objects.as_ref()?;
    let fields = node.fields().filter(|fields| !fields.is_empty())?;
    if let Some(structure) = policies.structure_at(&node.paths) {
        return Some(KeyWeight::decided(*structure == Structure::Map));
    }
    if !policies.maps {
        return None;
    }
    let keys: Vec<&str> = fields.keys().map(String::as_str).collect();
    let values: Vec<NodeId> = fields.values().map(|field| field.node).collect();
    let mut weight = KeyWeight::default();
    let form = shared_form(&keys);
    if let Some(form) = form {
        weight.add(KeyClue::Form(form), form.weight(keys.len()));
    }
    weight.add(KeyClue::Sparse, sparsity(fields, objects.tally.count, objects.entries));
    let agreement = agreement(graph, &values);
    // Many unlike values are the fields of something big.
    if !matches!(agreement, Agreement::Unlike | Agreement::Nothing) {
        weight.add(KeyClue::Many, abundance(graph, &values));
    }
    let is_known = || own_keys(graph, id).iter().any(|key| elsewhere.contains(key));
    if weight.total() > 0 && is_known() {
        weight.add(KeyClue::MapElsewhere, 5);
    }
    // The usual set of keys, whole in each of several objects, is what somebody wrote down.
    let all = objects.tally.count * fields.len() as u64;
    if form.is_none() && objects.tally.count >= 3 && objects.entries == all {
        weight.add(KeyClue::AlwaysTogether, if fields.len() > FEW_NAMES { -1 } else { -5 });
    }
    if weight.total() > 0 {
        let (clue, points) = match agreement {
            Agreement::One => (KeyClue::OneStructure, 3),
            Agreement::Like => (KeyClue::LikeStructure, 2),
            // `line1` to `line4` are fields of an address.
            Agreement::Kind if form == Some(KeyForm::Counted) => (KeyClue::OneKind, -5),
            Agreement::Kind => (KeyClue::OneKind, 1),
            Agreement::Nothing => (KeyClue::UnlikeValues, -3),
            Agreement::Unlike => (KeyClue::UnlikeValues, -8),
        };
        // Keys of a telling form are data whatever stands under them.
        let is_telling = form.is_some_and(KeyForm::is_telling);
        weight.add(clue, if is_telling { points.max(0) } else { points });
    }
    Some(weight)
}

/// So many keys of a telling form make a map of a part of a record.
const FEW_DATA: usize = 3;

/// The keys of a record that are data though others are names: several of one form that nobody gives to a field, beside
/// at least one that is always there.
fn keys_beside_names(graph: &Graph, id: NodeId, policies: &Policies) -> Vec<String> {
    let node = graph.node(id);
    let (Some(objects), Some(fields)) = (&node.objects, node.fields()) else { return Vec::new() };
    if policies.structure_at(&node.paths).is_some() {
        return Vec::new();
    }
    let telling: [KeyTest; 5] = [is_number, is_id, is_date, is_email, is_route];
    let of_form =
        |test: &KeyTest| -> Vec<String> { fields.keys().filter(|key| test(key)).cloned().collect() };
    let data = telling.iter().map(of_form).max_by_key(Vec::len).unwrap_or_default();
    let is_name = |key: &String| !telling.iter().any(|test| test(key));
    let has_name = fields.iter().any(|(key, field)| is_name(key) && field.seen.count == objects.tally.count);
    let least = if node.extras().is_some() { 1 } else { FEW_DATA };
    let values: Vec<NodeId> = data.iter().map(|key| fields[key].node).collect();
    let is_part = data.len() >= least && has_name && agreement(graph, &values) != Agreement::Unlike;
    if is_part { data } else { Vec::new() }
}

/// How much it says that objects hardly share a key: none is in most of them, and the usual one has few of all.
fn sparsity(fields: &IndexMap<String, FieldPart>, objects: u64, entries: u64) -> i32 {
    let count = fields.len() as u64;
    // Two that share nothing say it as well, if they say much.
    if objects == 2 && count >= 4 && entries == count {
        return 5;
    }
    if objects < 3 || fields.values().any(|field| field.seen.count * 10 > objects * 8) {
        return 0;
    }
    let filled = match entries * 100 / (objects * count) {
        0..=15 => 7,
        16..=25 => 5,
        26..=40 => 4,
        _ => return 0,
    };
    filled
        + match count {
            0..4 => -2,
            4..6 => 1,
            6..20 => 2,
            _ => 4,
        }
}

/// How much the number of keys says: nobody names so many objects, and settings are many, too.
fn abundance(graph: &Graph, values: &[NodeId]) -> i32 {
    let has_parts = |id: &NodeId| {
        let kinds = graph.node(*id).kinds();
        kinds.has(Kind::Object) || kinds.has(Kind::List)
    };
    match (values.len(), values.iter().all(has_parts)) {
        (25.., true) => 9,
        (13.., true) => 7,
        (10.., true) => 6,
        (8.., true) => 4,
        (6.., true) => 3,
        (4.., true) => 1,
        (41.., false) => 8,
        _ => 0,
    }
}

impl KeyForm {
    /// Whether nobody gives such a key to a field, not even to one.
    fn is_telling(self) -> bool {
        match self {
            Self::Number | Self::Id | Self::Date | Self::Email | Self::Route => true,
            Self::Dotted
            | Self::DigitFirst
            | Self::Numbered
            | Self::Counted
            | Self::Code
            | Self::Locale
            | Self::Label => false,
        }
    }

    /// How much it says that so many keys have it; a form that a word could have by chance needs company.
    fn weight(self, keys: usize) -> i32 {
        match (self, keys) {
            _ if self.is_telling() => 14,
            (Self::DigitFirst | Self::Numbered, 2..) => 9,
            (Self::Dotted, _) => 8,
            (Self::DigitFirst | Self::Numbered, _) => 1,
            (Self::Counted, _) => 5,
            (_, 3..) => 9,
            (_, 2) => 5,
            (_, _) => 1,
        }
    }
}

type KeyTest = fn(&str) -> bool;

/// The form that all keys have.
fn shared_form(keys: &[&str]) -> Option<KeyForm> {
    let all = |test: KeyTest| !keys.is_empty() && keys.iter().all(|key| test(key));
    let forms: [(KeyForm, KeyTest); 10] = [
        (KeyForm::Number, is_number),
        (KeyForm::Id, is_id),
        (KeyForm::Date, is_date),
        (KeyForm::Email, is_email),
        (KeyForm::Route, is_route),
        (KeyForm::Dotted, is_dotted),
        (KeyForm::DigitFirst, |key| key.starts_with(|c: char| c.is_ascii_digit())),
        (KeyForm::Locale, is_locale),
        (KeyForm::Code, |key| (2..=3).contains(&key.len()) && key.bytes().all(|b| b.is_ascii_uppercase())),
        (KeyForm::Label, is_label),
    ];
    let found = forms.into_iter().find(|(_, test)| all(*test)).map(|(form, _)| form);
    // Codes of one length: `ID` beside `URL` are two names.
    let one_length = keys.windows(2).all(|pair| pair[0].len() == pair[1].len());
    let labels = keys.iter().filter(|key| is_label(key)).count();
    match found {
        None if labels * 2 > keys.len() => Some(KeyForm::Label),
        Some(KeyForm::Code) if !one_length => None,
        None if is_numbered(keys) => Some(KeyForm::Numbered),
        None if is_counted(keys) => Some(KeyForm::Counted),
        found => found,
    }
}

fn is_number(key: &str) -> bool {
    let digits = key.strip_prefix('-').unwrap_or(key);
    !digits.is_empty() && digits.bytes().all(|b| b.is_ascii_digit())
}

fn is_id(key: &str) -> bool {
    use jar_sprout_shape::Form;
    let marks =
        key.chars().filter(|c| c.is_ascii_punctuation() && !matches!(c, '_' | '-' | '.' | ':' | '/')).count();
    let is_random = key.len() >= 12 && marks >= 3;
    is_hexadecimal(key) || is_random || Form::of(key.as_bytes()) == Form::Uuid
}

/// `1f2a9c44`: what nobody reads as a word.
pub fn is_hexadecimal(key: &str) -> bool {
    key.len() >= 8 && key.bytes().all(|b| b.is_ascii_hexdigit()) && key.bytes().any(|b| b.is_ascii_digit())
}

/// `2026-05`
pub fn is_month(key: &str) -> bool {
    use jar_sprout_shape::Form;
    key.len() == 7 && Form::of(format!("{key}-01").as_bytes()) == Form::Date
}

fn is_date(key: &str) -> bool {
    use jar_sprout_shape::Form;
    is_month(key)
        || matches!(
            Form::of(key.as_bytes()),
            Form::Date | Form::DateTime | Form::LocalDateTime | Form::LooseDateTime | Form::HourAndMinute
        )
}

fn is_email(key: &str) -> bool {
    jar_sprout_shape::Form::of(key.as_bytes()) == jar_sprout_shape::Form::Email
}

/// Words with a slash between them: `hives/17`, `./queen`, `https://…`
fn is_route(key: &str) -> bool {
    key.contains('/') && key.chars().any(char::is_alphanumeric)
}

/// Three words and more with dots between: `coop.fennimarsh.title`
fn is_dotted(key: &str) -> bool {
    let parts = key.split('.');
    parts.clone().count() >= 3 && parts.into_iter().all(|part| part.chars().any(char::is_alphanumeric))
}

/// Keys with characters that no naming of fields has: blanks inside, slashes, `@` inside, colons.
fn is_label(key: &str) -> bool {
    let odd = |c: char| c.is_whitespace() || matches!(c, '/' | ':' | '@' | '*' | '?' | '#');
    key.chars().skip(1).any(odd)
}

/// What all keys start with, if nothing but a number follows it.
fn numbered_prefix<'k>(keys: &[&'k str]) -> Option<&'k str> {
    fn prefix(key: &str) -> &str {
        key.trim_end_matches(|c: char| c.is_ascii_digit())
    }
    let first = prefix(keys.first()?);
    let is_like = |key: &&str| prefix(key) == first && key.len() > first.len();
    (!first.is_empty() && keys.iter().all(is_like)).then_some(first)
}

/// One prefix that ends in a letter or a mark, then a number: `s-40`, `hive12`, `q_7`.
fn is_numbered(keys: &[&str]) -> bool {
    let Some(first) = numbered_prefix(keys) else { return false };
    // `line1`, `line2` are fields of an address; numbers of two digits, or behind a mark, are not.
    let numbers_apart = keys.iter().filter(|key| key.len() - first.len() >= 2).count() * 2 >= keys.len();
    numbers_apart || first.ends_with(['-', '_', ':', '.', '#'])
}

/// So many things were counted, not named.
const COUNTED: usize = 4;

/// `frame1` to `frame4`.
fn is_counted(keys: &[&str]) -> bool {
    keys.len() >= COUNTED && numbered_prefix(keys).is_some()
}

/// `en`, `nl-NL`, `pt_BR`: an ISO 639-1 language, perhaps with a region.
pub fn is_locale(key: &str) -> bool {
    let (language, region) = key.split_at_checked(2).unwrap_or((key, ""));
    let has_region = || {
        let region = region.strip_prefix(['-', '_']);
        region.is_some_and(|r| (2..=4).contains(&r.len()) && r.bytes().all(|b| b.is_ascii_alphanumeric()))
    };
    LANGUAGES.contains(&language) && (region.is_empty() || has_region())
}

/// ISO 639-1, the languages that user interfaces are offered in.
const LANGUAGES: &[&str] = &[
    "af", "am", "ar", "az", "be", "bg", "bn", "bs", "ca", "cs", "cy", "da", "de", "el", "en", "eo", "es",
    "et", "eu", "fa", "fi", "fr", "fy", "ga", "gd", "gl", "gu", "he", "hi", "hr", "hu", "hy", "id", "is",
    "it", "ja", "ka", "kk", "km", "kn", "ko", "ku", "ky", "la", "lb", "lo", "lt", "lv", "mk", "ml", "mn",
    "mr", "ms", "mt", "my", "nb", "ne", "nl", "nn", "no", "pa", "pl", "ps", "pt", "ro", "ru", "sd", "si",
    "sk", "sl", "sq", "sr", "sv", "sw", "ta", "te", "tg", "th", "tk", "tl", "tr", "tt", "uk", "ur", "uz",
    "vi", "yi", "yo", "zh", "zu",
];

#[cfg(test)]
mod tests {
    use super::*;

    #[track_caller]
    fn check(keys: &[&str], expected: Option<KeyForm>) {
        assert_eq!(shared_form(keys), expected, "{keys:?}");
    }

    #[test]
    fn keys_that_are_data() {
        check(&["17", "23"], Some(KeyForm::Number));
        check(&["6f1c0a52-8d0e-4c0f-9d5e-0c7f3a1b2d4e"], Some(KeyForm::Id));
        check(&["2026-05-01", "2026-05-02"], Some(KeyForm::Date));
        check(&["2026-05"], Some(KeyForm::Date));
        check(&["s-40", "s-41"], Some(KeyForm::Numbered));
        check(&["hive12", "hive13"], Some(KeyForm::Numbered));
        check(&["B1", "B2", "B3", "B4"], Some(KeyForm::Counted));
        check(&["227g", "340g"], Some(KeyForm::DigitFirst));
        check(&["GBP", "EUR", "USD"], Some(KeyForm::Code));
        check(&["en", "nl-NL", "pt_BR"], Some(KeyForm::Locale));
        check(&["Alder Bank", "Mill Race"], Some(KeyForm::Label));
        check(&["ada@honey.example"], Some(KeyForm::Email));
    }

    #[test]
    fn keys_that_are_names() {
        check(&["id", "name"], None);
        check(&["line1", "line2"], None);
        check(&["x1", "y1", "x2", "y2"], None);
        check(&["ID", "URL"], None);
        check(&["x", "y"], None);
        check(&["@id", "@type"], None);
        check(&["small", "medium", "large"], None);
        check(&[], None);
    }
}

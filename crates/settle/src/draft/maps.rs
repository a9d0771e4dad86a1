//! Maps: objects whose keys are data.

use jar_sprout_model::Kind;

use crate::draft::evidence::{KeyForm, MapReason};
use crate::draft::graph::{Graph, NodeId};
use crate::draft::similarity::are_alike;

/// With more objects than this under different keys, all of one structure, nobody named the keys.
const MANY_OBJECTS: usize = 12;

/// The same for numbers, texts and the like: settings have many keys, too.
const MANY_VALUES: usize = 40;

/// Finds every map below a position, from the outside in.
pub(crate) fn make_maps(graph: &mut Graph, root: NodeId) {
    let mut next = 0;
    // Uniting values changes what lies below, so the walk is made anew after each map.
    let mut order = graph.walk(root);
    while let Some(&id) = order.get(next) {
        next += 1;
        if let Some(why) = why_map(graph, id) {
            graph.make_map(id, why);
            order = graph.walk(root);
        }
    }
}

/// What makes the keys at a position data, if something does.
fn why_map(graph: &Graph, id: NodeId) -> Option<MapReason> {
    let node = graph.node(id);
    let objects = node.objects.as_ref()?;
    let fields = node.fields()?;
    let keys: Vec<&str> = fields.keys().map(String::as_str).collect();
    let values: Vec<NodeId> = fields.values().map(|field| field.node).collect();
    let form = shared_form(&keys);
    let sparse = |percent| {
        is_sparse(fields.values().map(|f| f.seen.count), objects.tally.count, objects.entries, percent)
    };
    let holds_parts = values.iter().any(|value| {
        let kinds = graph.node(*value).kinds();
        kinds.has(Kind::Object) || kinds.has(Kind::List)
    });
    let holds_objects = values.iter().any(|value| graph.node(*value).kinds().has(Kind::Object));
    let why = match form {
        Some(form) if keys.len() >= form.least_keys() => MapReason::Form(form),
        _ if sparse(40) && keys.len() >= if holds_parts { 6 } else { 20 } => MapReason::Sparse,
        _ if sparse(15) && keys.len() >= if holds_parts { 4 } else { 8 } => MapReason::Sparse,
        _ if keys.len() > if holds_objects { MANY_OBJECTS } else { MANY_VALUES } => MapReason::Many,
        _ => return None,
    };
    are_alike(graph, &values).then_some(why)
}

/// Whether no key is in most objects, and the usual object has at most this share of the keys.
fn is_sparse(counts: impl Iterator<Item = u64>, objects: u64, entries: u64, percent: u64) -> bool {
    let counts: Vec<u64> = counts.collect();
    objects >= 3
        && counts.iter().all(|count| count * 10 <= objects * 8)
        && entries * 100 <= objects * counts.len() as u64 * percent
}

impl KeyForm {
    /// The fewest keys that make a map; those of a form that a word could have by chance need company.
    fn least_keys(self) -> usize {
        match self {
            Self::Number | Self::Id | Self::Date | Self::Email => 1,
            Self::DigitFirst | Self::Numbered => 2,
            Self::Code | Self::Locale | Self::Label => 3,
        }
    }
}

type KeyTest = fn(&str) -> bool;

/// The form that all keys have.
fn shared_form(keys: &[&str]) -> Option<KeyForm> {
    let all = |test: KeyTest| !keys.is_empty() && keys.iter().all(|key| test(key));
    let forms: [(KeyForm, KeyTest); 8] = [
        (KeyForm::Number, is_number),
        (KeyForm::Id, is_id),
        (KeyForm::Date, is_date),
        (KeyForm::Email, is_email),
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
    let is_hex = key.len() >= 8
        && key.bytes().all(|b| b.is_ascii_hexdigit())
        && key.bytes().any(|b| b.is_ascii_digit());
    is_hex || is_random || Form::of(key.as_bytes()) == Form::Uuid
}

fn is_date(key: &str) -> bool {
    use jar_sprout_shape::Form;
    let is_month = key.len() == 7 && Form::of(format!("{key}-01").as_bytes()) == Form::Date;
    is_month
        || matches!(
            Form::of(key.as_bytes()),
            Form::Date | Form::DateTime | Form::LocalDateTime | Form::LooseDateTime | Form::HourAndMinute
        )
}

fn is_email(key: &str) -> bool {
    jar_sprout_shape::Form::of(key.as_bytes()) == jar_sprout_shape::Form::Email
}

/// Keys with characters that no naming of fields has: blanks inside, slashes, `@` inside, colons.
fn is_label(key: &str) -> bool {
    let odd = |c: char| c.is_whitespace() || matches!(c, '/' | ':' | '@' | '*' | '?' | '#');
    key.chars().skip(1).any(odd)
}

/// One prefix that ends in a letter or a mark, then a number: `s-40`, `hive12`, `q_7`.
fn is_numbered(keys: &[&str]) -> bool {
    let prefix = |key: &str| key.trim_end_matches(|c: char| c.is_ascii_digit()).len();
    let split = |key: &str| key.split_at(prefix(key)).0.to_owned();
    let Some(first) = keys.first().map(|key| split(key)) else { return false };
    let numbers_apart = keys.iter().filter(|key| key.len() - prefix(key) >= 2).count() * 2 >= keys.len();
    // `line1`, `line2` are fields of an address; numbers of two digits, or behind a mark, are not.
    let has_mark = first.ends_with(['-', '_', ':', '.', '#']);
    !first.is_empty()
        && keys.iter().all(|key| split(key) == first && prefix(key) < key.len())
        && (numbers_apart || has_mark)
}

/// `en`, `nl-NL`, `pt_BR`: an ISO 639-1 language, perhaps with a region.
pub(crate) fn is_locale(key: &str) -> bool {
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
        check(&["ID", "URL"], None);
        check(&["x", "y"], None);
        check(&["@id", "@type"], None);
        check(&["small", "medium", "large"], None);
        check(&[], None);
    }
}

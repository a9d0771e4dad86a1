//! Rules by which a library makes keys of identifiers, so that nothing need be said of each.

use crate::plan::PlannedField;

/// A rule as a library has it.
#[derive(Clone, Copy)]
pub(crate) struct RenameRule {
    /// What its people call it.
    pub(crate) name: &'static str,
    /// What it makes of words in small letters.
    pub(crate) apply: fn(&[&str]) -> String,
}

/// What becomes of the identifiers of a type where nothing is said of each.
pub(crate) struct Renaming {
    rule: Option<RenameRule>,
    /// The words of an identifier, as the library sees them; none of one that it does not split so.
    words: fn(&str) -> Option<Vec<String>>,
}

impl Renaming {
    /// Identifiers are keys.
    pub(crate) fn none() -> Self {
        Self { rule: None, words: |_| None }
    }

    /// The rule that makes most keys of their identifiers, if it spares more than it costs.
    pub(crate) fn of<'r>(
        pairs: &[(&str, &str)],
        rules: impl IntoIterator<Item = &'r RenameRule>,
        words: fn(&str) -> Option<Vec<String>>,
    ) -> Self {
        let exceptions =
            |renaming: &Self| pairs.iter().filter(|(ident, wire)| !renaming.makes(ident, wire)).count();
        let none = Self { rule: None, words };
        let without = exceptions(&none);
        let ruled = rules.into_iter().map(|rule| Self { rule: Some(*rule), words });
        let best = ruled.map(|ruled| (exceptions(&ruled), ruled)).min_by_key(|(count, _)| *count);
        match best {
            Some((count, ruled)) if count < without && (count == 0 || count + 1 < without) => ruled,
            Some(_) | None => none,
        }
    }

    /// The rule that makes most keys of fields of their names, where one key alone is better said than made.
    pub(crate) fn of_fields<'f, 'm: 'f>(
        fields: impl IntoIterator<Item = &'f PlannedField<'m>>,
        rules: &[RenameRule],
        words: fn(&str) -> Option<Vec<String>>,
    ) -> Self {
        let pairs: Vec<(&str, &str)> =
            fields.into_iter().map(|field| (field.ident.as_str(), field.wire.as_str())).collect();
        Self::of_several(&pairs, rules, words)
    }

    /// The same where one key alone is better said than made.
    fn of_several<'r>(
        pairs: &[(&str, &str)],
        rules: impl IntoIterator<Item = &'r RenameRule>,
        words: fn(&str) -> Option<Vec<String>>,
    ) -> Self {
        let renaming = Self::of(pairs, rules, words);
        let is_spared = |(ident, wire): &&(&str, &str)| ident != wire && renaming.makes(ident, wire);
        if pairs.iter().filter(is_spared).count() < 2 { Self::none() } else { renaming }
    }

    /// Whether a key is what becomes of an identifier.
    pub(crate) fn makes(&self, ident: &str, wire: &str) -> bool {
        match self.rule {
            None => ident == wire,
            Some(rule) => (self.words)(ident).is_some_and(|words| {
                let words: Vec<&str> = words.iter().map(String::as_str).collect();
                (rule.apply)(&words) == wire
            }),
        }
    }

    /// What the library's people call the rule.
    pub(crate) fn name(&self) -> Option<&'static str> {
        self.rule.map(|rule| rule.name)
    }
}

/// The words of `honey_kg`, if all libraries see the same in it: letters alone.
pub(crate) fn snake_words(ident: &str) -> Option<Vec<String>> {
    let is_word = |word: &str| !word.is_empty() && word.bytes().all(|letter| letter.is_ascii_lowercase());
    ident.split('_').map(|word| is_word(word).then(|| word.to_owned())).collect()
}

/// The words of `honeyKg` or `HoneyKg`, if all libraries see the same in it: letters alone, and no two capitals in a row.
pub(crate) fn camel_words(ident: &str) -> Option<Vec<String>> {
    let mut words: Vec<String> = Vec::new();
    let mut was_capital = false;
    for letter in ident.chars() {
        let is_capital = letter.is_ascii_uppercase();
        if !letter.is_ascii_alphabetic() || is_capital && was_capital {
            return None;
        }
        if is_capital || words.is_empty() {
            words.push(String::new());
        }
        words.last_mut()?.push(letter.to_ascii_lowercase());
        was_capital = is_capital;
    }
    (!words.is_empty()).then_some(words)
}

/// `HoneyKg`
pub(crate) fn in_pascal_case(words: &[&str]) -> String {
    let capital = |word: &&str| {
        let mut letters = word.chars();
        letters
            .next()
            .map(|first| first.to_ascii_uppercase().to_string() + letters.as_str())
            .unwrap_or_default()
    };
    words.iter().map(capital).collect()
}

/// `honeyKg`
pub(crate) fn in_camel_case(words: &[&str]) -> String {
    words[0].to_owned() + &in_pascal_case(&words[1..])
}

/// `honey-kg`
pub(crate) fn in_kebab_case(words: &[&str]) -> String {
    words.join("-")
}

/// `honey_kg`
pub(crate) fn in_snake_case(words: &[&str]) -> String {
    words.join("_")
}

/// `HONEY_KG`
pub(crate) fn in_screaming_case(words: &[&str]) -> String {
    words.join("_").to_ascii_uppercase()
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn words_that_libraries_see_differently_are_none() {
        let words = |words: Option<Vec<String>>| words.map(|words| words.join(" "));
        assert_eq!(words(snake_words("honey_kg")).as_deref(), Some("honey kg"));
        assert_eq!(words(camel_words("honeyKg")).as_deref(), Some("honey kg"));
        assert_eq!(words(camel_words("HoneyKg")).as_deref(), Some("honey kg"));
        for odd in ["utf8_text", "from_", "_id", "größe", ""] {
            assert_eq!(words(snake_words(odd)), None, "{odd}");
        }
        for odd in ["utf8Text", "sensorIDs", "aBC", "größe", ""] {
            assert_eq!(words(camel_words(odd)), None, "{odd}");
        }
    }

    #[test]
    fn one_key_is_said_and_several_are_made() {
        let rules = [RenameRule { name: "snake", apply: in_snake_case }];
        let name = |pairs: &[(&str, &str)]| Renaming::of_several(pairs, &rules, camel_words).name();
        assert_eq!(name(&[("honeyKg", "honey_kg"), ("id", "id")]), None);
        assert_eq!(name(&[("honeyKg", "honey_kg"), ("hiveId", "hive_id"), ("id", "id")]), Some("snake"));
        assert_eq!(name(&[("honeyKg", "honey_kg"), ("hiveId", "hive_id"), ("isOpen", "isOpen")]), None);
    }
}

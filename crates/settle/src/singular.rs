//! The singular of an English plural: the name of one item of a list.

use std::borrow::Cow;

use jar_sprout_model::Words;

/// The name of one item of what these words name: `hives` gives `hive`, `news` gives `news item`.
pub fn singular(words: &Words) -> Words {
    match words.last() {
        "data" | "news" => words.with_word("item"),
        word => match singular_word(word) {
            Cow::Borrowed(same) if same == word => words.clone(),
            one => words.with_last(&one),
        },
    }
}

const IRREGULAR: &[(&str, &str)] = &[
    ("people", "person"),
    ("men", "man"),
    ("women", "woman"),
    ("children", "child"),
    ("mice", "mouse"),
    ("geese", "goose"),
    ("feet", "foot"),
    ("teeth", "tooth"),
    ("oxen", "ox"),
    ("criteria", "criterion"),
    ("phenomena", "phenomenon"),
    ("matrices", "matrix"),
    ("indices", "index"),
    ("vertices", "vertex"),
    ("appendices", "appendix"),
    ("vortices", "vortex"),
    ("axes", "axis"),
    ("quizzes", "quiz"),
    ("cacti", "cactus"),
    ("fungi", "fungus"),
    ("nuclei", "nucleus"),
    ("radii", "radius"),
    ("alumni", "alumnus"),
    ("foci", "focus"),
    ("stimuli", "stimulus"),
];

/// Words that end like a plural and are none, or are their own plural.
const UNCHANGED: &[&str] = &[
    "series",
    "species",
    "means",
    "headquarters",
    "kudos",
    "chaos",
    "lens",
    "gas",
    "atlas",
    "canvas",
    "bias",
    "alias",
    "christmas",
    "pajamas",
    "yes",
    "always",
    "perhaps",
    "sales",
    "goods",
    "gps",
    "https",
    "dns",
    "sms",
    "css",
    "js",
    "aws",
    "os",
    "ios",
    "macos",
    "tls",
    "ics",
    "cors",
    "rss",
    "sas",
    "vs",
    "this",
    "has",
    "does",
    "graphics",
    "physics",
    "mathematics",
    "economics",
    "analytics",
    "statistics",
    "metadata",
    "media",
];

/// The plurals of words in `-us`, `-as` and `-ns`.
const BARE_ES: &[&str] = &[
    "bus",
    "status",
    "virus",
    "bonus",
    "campus",
    "census",
    "corpus",
    "focus",
    "apparatus",
    "radius",
    "walrus",
    "alias",
    "canvas",
    "gas",
    "bias",
    "atlas",
    "lens",
    "hero",
    "potato",
    "tomato",
    "echo",
    "veto",
    "torpedo",
    "mosquito",
    "volcano",
    "cargo",
    "iris",
];

/// Words in `-f` and `-fe`; other `-ves` are words in `-ve`, as hives are.
const F_WORDS: &[&str] = &[
    "wolf", "leaf", "knife", "life", "shelf", "half", "wife", "thief", "loaf", "calf", "elf", "self", "scarf",
];

/// Words in `-ie`; other `-ies` are words in `-y`.
const IE_WORDS: &[&str] = &[
    "movie", "cookie", "zombie", "selfie", "tie", "pie", "die", "lie", "hoodie", "calorie", "rookie",
    "brownie", "genie", "smoothie", "rookie", "prairie", "eerie",
];

/// Words in `-sis`, whose plural is in `-ses`.
const SIS_WORDS: &[&str] = &[
    "analysis",
    "crisis",
    "thesis",
    "hypothesis",
    "diagnosis",
    "synopsis",
    "parenthesis",
    "oasis",
    "emphasis",
    "synthesis",
    "prognosis",
    "genesis",
    "nemesis",
];

/// Other words in `-is`, which are singular; the rest are plurals of words in `-i`, as APIs are.
const IS_WORDS: &[&str] = &[
    "axis", "basis", "iris", "ibis", "mantis", "tennis", "chassis", "debris", "redis", "paris", "trellis",
    "cannabis", "praxis", "pelvis", "marquis", "gis", "his", "is",
];

/// Words in `-u`; other words in `-us` are singular.
const U_WORDS: &[&str] = &["menu", "cpu", "gpu", "tpu", "sku", "emu", "guru", "bayou", "haiku", "you", "eu"];

/// Words in `-che`; other `-ches` are words in `-ch`.
const CHE_WORDS: &[&str] = &["cache", "ache", "niche", "headache", "avalanche", "cliche", "creche"];

fn singular_word(word: &str) -> Cow<'_, str> {
    if let Some((_, singular)) = IRREGULAR.iter().find(|(plural, _)| *plural == word) {
        return Cow::Borrowed(singular);
    }
    let Some(stem) = word.strip_suffix('s') else { return Cow::Borrowed(word) };
    if UNCHANGED.contains(&word) || word.chars().count() < 3 {
        return Cow::Borrowed(word);
    }
    if let Some(es) = stem.strip_suffix('e') {
        return Cow::Owned(before_es(stem, es));
    }
    match stem.chars().last() {
        // `address`
        Some('s') => Cow::Borrowed(word),
        // `status`, but `menus`
        Some('u') if !U_WORDS.contains(&stem) && !stem.ends_with("menu") => Cow::Borrowed(word),
        // `analysis`, `metropolis`, but `apis`
        Some('i')
            if IS_WORDS.contains(&word) || ["sis", "tis", "polis"].iter().any(|end| word.ends_with(end)) =>
        {
            Cow::Borrowed(word)
        }
        _ => Cow::Borrowed(stem),
    }
}

/// `stem` is the word without `s`, `bare` without `es`.
fn before_es(stem: &str, bare: &str) -> String {
    let known = |words: &[&str], word: &str| words.contains(&word).then(|| word.to_owned());
    let swapped = |end: &str, other: &str| bare.strip_suffix(end).map(|start| format!("{start}{other}"));
    let special = known(BARE_ES, bare)
        .or_else(|| known(IE_WORDS, stem))
        .or_else(|| known(CHE_WORDS, stem))
        .or_else(|| known(SIS_WORDS, &format!("{bare}is")))
        .or_else(|| known(F_WORDS, &swapped("v", "f")?))
        .or_else(|| known(F_WORDS, &swapped("v", "fe")?))
        .or_else(|| swapped("i", "y").filter(|word| word.len() > 3));
    let takes_es = ["x", "ch", "sh", "ss", "zz"].iter().any(|end| bare.ends_with(end));
    special.unwrap_or_else(|| if takes_es { bare } else { stem }.to_owned())
}

#[cfg(test)]
mod tests {
    use super::*;

    #[track_caller]
    fn check(pairs: &[(&str, &str)]) {
        for (plural, expected) in pairs {
            assert_eq!(singular(&Words::split(plural)).to_string(), *expected, "{plural}");
        }
    }

    #[test]
    fn regular_plurals() {
        check(&[
            ("hives", "hive"),
            ("queens", "queen"),
            ("harvests", "harvest"),
            ("apiaries", "apiary"),
            ("boxes", "box"),
            ("batches", "batch"),
            ("caches", "cache"),
            ("brushes", "brush"),
            ("addresses", "address"),
            ("classes", "class"),
            ("sizes", "size"),
            ("prizes", "prize"),
            ("cases", "case"),
            ("houses", "house"),
            ("responses", "response"),
            ("images", "image"),
            ("movies", "movie"),
            ("urls", "url"),
            ("ids", "id"),
            ("keys", "key"),
            ("photos", "photo"),
            ("shoes", "shoe"),
            ("archives", "archive"),
            ("ties", "tie"),
            ("apis", "api"),
            ("uris", "uri"),
            ("taxis", "taxi"),
            ("menus", "menu"),
            ("subMenus", "sub menu"),
            ("cpus", "cpu"),
        ]);
    }

    #[test]
    fn irregular_plurals() {
        check(&[
            ("people", "person"),
            ("children", "child"),
            ("indices", "index"),
            ("leaves", "leaf"),
            ("lives", "life"),
            ("analyses", "analysis"),
            ("statuses", "status"),
            ("heroes", "hero"),
            ("buses", "bus"),
            ("aliases", "alias"),
            ("quizzes", "quiz"),
        ]);
    }

    #[test]
    fn words_that_are_no_plural() {
        check(&[
            ("status", "status"),
            ("address", "address"),
            ("analysis", "analysis"),
            ("axis", "axis"),
            ("arthritis", "arthritis"),
            ("virus", "virus"),
            ("series", "series"),
            ("news", "news item"),
            ("data", "data item"),
            ("gps", "gps"),
            ("bus", "bus"),
            ("hive", "hive"),
            ("canvas", "canvas"),
            ("as", "as"),
            ("日本語", "日本語"),
        ]);
    }

    #[test]
    fn only_the_last_word_counts() {
        check(&[("hives_photos", "hives photo"), ("lastInspections", "last inspection")]);
    }
}

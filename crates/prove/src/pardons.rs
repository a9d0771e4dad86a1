//! What a judge may not say, with the reason; everything else it says is a defect of ours.

/// A rule that is not held against grown code.
pub(crate) struct Pardon {
    /// The judge, by its name.
    pub(crate) judge: &'static str,
    /// The rule, in the judge's words.
    pub(crate) rule: &'static str,
    /// Why grown code may break it.
    #[cfg_attr(
        not(test),
        expect(dead_code, reason = "it is for readers, and a test holds that it is there")
    )]
    pub(crate) reason: &'static str,
}

const UNSAID: &str =
    "what a thing is, only the source can say; a sentence made of its name would say nothing";
const OWN_WORDS: &str = "what a document says is in its own words";
const AT_RUN_TIME: &str = "the library looks at annotations while the program runs";
const ONE_LETTER: &str = "a key's first word may have one letter: `x-request-id`";
const SIZE: &str = "how much there is, is the data's affair";

/// The rules that are not held against grown code.
pub(crate) const PARDONS: &[Pardon] = &[
    pardon("clippy", "struct_excessive_bools", SIZE),
    pardon("clippy", "type_complexity", "how deep its lists are, is the data's affair"),
    pardon("clippy", "too_many_lines", SIZE),
    pardon("clippy", "doc_markdown", OWN_WORDS),
    pardon("clippy", "doc_lazy_continuation", OWN_WORDS),
    pardon("clippy", "ref_option", "serde hands a field to the function that writes it by reference"),
    pardon(
        "clippy",
        "trivially_copy_pass_by_ref",
        "serde hands a field to the function that writes it by reference",
    ),
    pardon("clippy", "unicode_not_nfc", "the letters of a key are its own"),
    pardon("clippy", "use_self", "what holds itself reads better by its name: `replies: Vec<Comment>`"),
    pardon("ruff", "ANN401", "a validator takes what has no type yet"),
    pardon("ruff", "ARG002", "the library hands it over, wanted or not"),
    pardon("ruff", "C901", SIZE),
    pardon("ruff", "COM812", "ruff's own formatter has it otherwise, and says that they exclude each other"),
    pardon("ruff", "CPY001", "whose the code is, its users say"),
    pardon("ruff", "D100", UNSAID),
    pardon("ruff", "D101", UNSAID),
    pardon("ruff", "D102", UNSAID),
    pardon("ruff", "D103", UNSAID),
    pardon("ruff", "D104", UNSAID),
    pardon("ruff", "D105", UNSAID),
    pardon("ruff", "D107", UNSAID),
    pardon("ruff", "D203", "excludes D211, which holds"),
    pardon("ruff", "D205", "a first sentence may be longer than a line"),
    pardon("ruff", "D213", "excludes D212, which holds"),
    pardon("ruff", "D400", "a summary may end in a colon or an address; others end in a period"),
    pardon("ruff", "D301", OWN_WORDS),
    pardon("ruff", "D404", OWN_WORDS),
    pardon("ruff", "D415", "a summary may end in a colon or an address; others end in a period"),
    pardon("ruff", "FBT001", "what writes a truth takes one"),
    pardon("ruff", "E501", "a text or a name that is longer than a line; the formatter judges the rest"),
    pardon("ruff", "INP001", "the trials lie beside each other in no package"),
    pardon("ruff", "PLC2401", "the letters of a key are its own"),
    pardon("ruff", "PLR0911", SIZE),
    pardon("ruff", "PLR0912", SIZE),
    pardon("ruff", "PLR0915", SIZE),
    pardon("ruff", "PTH123", "a program that shows how to read a file opens it as everybody does"),
    pardon("ruff", "RUF001", OWN_WORDS),
    pardon("ruff", "RUF002", OWN_WORDS),
    pardon("ruff", "S105", "a word of the API that has `token` or `pass` in it is no password"),
    pardon("ruff", "T201", "a program that shows how to read a file says what it read"),
    pardon("ruff", "TC001", AT_RUN_TIME),
    pardon("ruff", "TC002", AT_RUN_TIME),
    pardon("ruff", "TC003", AT_RUN_TIME),
    pardon("ruff", "UP013", "a key that hides a type cannot stand in a class"),
    pardon(
        "eslint",
        "@typescript-eslint/no-deprecated",
        "what reads a response reads what should not be used any more as well",
    ),
    pardon(
        "pyright",
        "reportIncompatibleVariableOverride",
        "`__pydantic_extra__` is typed in the way of the library's own documentation",
    ),
    pardon("staticcheck", "ST1000", UNSAID),
    pardon("staticcheck", "ST1020", OWN_WORDS),
    pardon("staticcheck", "ST1021", OWN_WORDS),
    pardon("staticcheck", "ST1022", OWN_WORDS),
    pardon(
        "pyright",
        "reportUnknownArgumentType",
        "JSON that was read has no type, and `isinstance(data, dict)` tells nothing of what is in it",
    ),
    pardon(
        "pyright",
        "reportUnknownVariableType",
        "JSON that was read has no type, nor have lists and dictionaries of it",
    ),
    pardon("revive", "exported", "it asks for what the source does not say; staticcheck judges what is said"),
    pardon("revive", "add-constant", "0 and 1 are what they say"),
    pardon("revive", "cognitive-complexity", SIZE),
    pardon("revive", "confusing-naming", "it takes the methods of a type with parameters for functions"),
    pardon("revive", "cyclomatic", SIZE),
    pardon("revive", "function-length", SIZE),
    pardon("revive", "line-length-limit", "gofmt leaves lines as they are"),
    pardon("revive", "max-public-structs", SIZE),
    pardon("revive", "package-comments", UNSAID),
    pardon("detekt", "complexity.CyclomaticComplexMethod", SIZE),
    pardon("detekt", "complexity.TooManyFunctions", SIZE),
    pardon("detekt", "style.MagicNumber", "a default is the number that its document says"),
    pardon("detekt", "style.ReturnCount", "what tells kinds apart returns at each of them"),
    pardon("checkstyle", "AbbreviationAsWordInName", "the letters of a key are its own"),
    pardon(
        "checkstyle",
        "LineLength",
        "a text without a blank is not torn apart; the formatter judges the rest",
    ),
    pardon("checkstyle", "MissingJavadocMethod", UNSAID),
    pardon("checkstyle", "MissingJavadocType", UNSAID),
    pardon("checkstyle", "SummaryJavadoc", "what a type is may be unsaid, or said in a list behind a colon"),
    pardon("checkstyle", "MemberName", ONE_LETTER),
    pardon("checkstyle", "ParameterName", ONE_LETTER),
    pardon("checkstyle", "RecordComponentName", ONE_LETTER),
    pardon("error-prone", "InvalidParam", OWN_WORDS),
    pardon(
        "error-prone",
        "JavaLocalDateTimeGetNano",
        "whether there is a fraction, the nanoseconds alone tell",
    ),
    pardon("error-prone", "JavaLocalTimeGetNano", "whether there is a fraction, the nanoseconds alone tell"),
    pardon("error-prone", "MissingSummary", UNSAID),
];

const fn pardon(judge: &'static str, rule: &'static str, reason: &'static str) -> Pardon {
    Pardon { judge, rule, reason }
}

/// The rules that a judge is not heard on.
pub(crate) fn pardoned(judge: &str) -> impl Iterator<Item = &'static str> {
    PARDONS.iter().filter(move |pardon| pardon.judge == judge).map(|pardon| pardon.rule)
}

#[cfg(test)]
mod tests {
    use super::{PARDONS, Pardon};

    #[test]
    fn each_pardon_is_given_once_and_has_a_reason() {
        for (at, pardon) in PARDONS.iter().enumerate() {
            assert!(pardon.reason.len() > 10, "{}: {}", pardon.judge, pardon.rule);
            let same = |other: &&Pardon| (other.judge, other.rule) == (pardon.judge, pardon.rule);
            assert_eq!(PARDONS[at..].iter().filter(same).count(), 1, "{}: {}", pardon.judge, pardon.rule);
        }
    }
}

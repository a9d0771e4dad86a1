//! Where a file comes from: grown files say so in their first line, with a seal.

use crate::spell::MARK;

/// Where a file comes from.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum Origin {
    /// A person wrote it.
    Foreign,
    /// We grew it, for the model of this name if it has one, and nobody changed it since.
    Grown(Option<String>),
    /// We grew it, and somebody changed it since.
    Changed(Option<String>),
}

/// A grown text with a seal in its mark, by which it is known again: `Grown by Jar Sprout: hives 5f3a9c01`.
pub fn sealed(text: &str, model: Option<&str>) -> String {
    let (first, rest) = text.split_once('\n').unwrap_or((text, ""));
    let model = model.map(|model| format!("{model} ")).unwrap_or_default();
    let mark = format!("{}: {model}{}", MARK.trim_end_matches('.'), seal(rest));
    format!("{}\n{rest}", first.replacen(MARK, &mark, 1))
}

/// Where a file's text comes from.
pub fn origin(text: &str) -> Origin {
    let (first, rest) = text.split_once('\n').unwrap_or((text, ""));
    let first = first.trim_end();
    if first.ends_with(MARK) {
        return Origin::Grown(None);
    }
    let Some((_, said)) = first.split_once(&format!("{}: ", MARK.trim_end_matches('.'))) else {
        return Origin::Foreign;
    };
    let (model, found) = match said.rsplit_once(' ') {
        Some((model, found)) => (Some(model.to_owned()), found),
        None => (None, said),
    };
    if found == seal(rest) { Origin::Grown(model) } else { Origin::Changed(model) }
}

/// A checksum that does not see how lines end, which version control may change.
fn seal(text: &str) -> String {
    format!("{:08x}", crc32fast::hash(text.replace("\r\n", "\n").as_bytes()))
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_seal_is_known_again() {
        let text = "// Grown by Jar Sprout.\npackage x\n";
        assert_eq!(origin(text), Origin::Grown(None));
        assert_eq!(origin("package x\n// Grown by Jar Sprout.\n"), Origin::Foreign);
        assert_eq!(origin(""), Origin::Foreign);
        for model in [None, Some("hives")] {
            let sealed = sealed(text, model);
            let model = model.map(str::to_owned);
            assert_eq!(origin(&sealed), Origin::Grown(model.clone()));
            assert_eq!(origin(&sealed.replace('\n', "\r\n")), Origin::Grown(model.clone()));
            assert_eq!(origin(&sealed.replace("package x", "package y")), Origin::Changed(model));
        }
    }
}

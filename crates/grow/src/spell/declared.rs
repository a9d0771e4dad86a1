//! What helper code declares.

/// What a line at the margin declares with one of these words: `Box` for `class` in `final class Box<T>(`, `read` for
/// `fun` in `fun <T> Moshi.read(`.
pub(crate) fn declared<'l>(line: &'l str, by: &[&str]) -> Option<&'l str> {
    if line.starts_with([' ', '/', '*']) {
        return None;
    }
    let mut rest = line;
    while let Some((word, after)) = rest.split_once(' ') {
        if by.contains(&word) {
            return name_at(after);
        }
        rest = after;
    }
    None
}

/// The name with which a declaration goes on; of a function of another type, behind that.
fn name_at(rest: &str) -> Option<&str> {
    let rest = match rest.strip_prefix('<') {
        Some(parameters) => parameters.split_once("> ")?.1,
        None => rest,
    };
    let end = rest.find(|c: char| !(c.is_alphanumeric() || c == '_' || c == '.')).unwrap_or(rest.len());
    rest[..end].rsplit('.').next().filter(|name| !name.is_empty())
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn declarations_are_found() {
        let by = &["class", "fun", "@interface"];
        let found = [
            ("internal abstract class Held<T : Any>", Some("Held")),
            ("internal inline fun <reified T> JsonParser.read(): T =", Some("read")),
            ("fun GsonBuilder.withDates(): GsonBuilder =", Some("withDates")),
            ("@interface JsonInText {", Some("JsonInText")),
            ("    class Inner {", None),
            ("/** Of a class of its own. */", None),
            ("val x = 1", None),
            ("class", None),
        ];
        for (line, name) in found {
            assert_eq!(declared(line, by), name, "{line}");
        }
    }
}

//! GraphQL: many operations at one address, told apart by their names.

use serde_json::Value;

use super::read::Exchange;

/// The name of the GraphQL operation that an exchange asks for; none where it asks for none.
pub(super) fn operation(exchange: &Exchange) -> Option<String> {
    said(exchange).filter(|name| is_name(name))
}

/// A name of GraphQL (October 2021, section 2.1.9).
fn is_name(text: &str) -> bool {
    let is_start = |c: char| c.is_ascii_alphabetic() || c == '_';
    text.starts_with(is_start) && text.chars().all(|c| is_start(c) || c.is_ascii_digit())
}

fn said(exchange: &Exchange) -> Option<String> {
    let parameter =
        |wanted: &str| exchange.url.query_pairs().find(|(name, _)| name == wanted).map(|(_, value)| value);
    if let Some(name) = parameter("operationName") {
        return Some(name.into_owned());
    }
    if let Some(query) = parameter("query").filter(|query| is_query(query)) {
        return name_of(&query);
    }
    let body: Value = serde_json::from_str(&exchange.request.as_ref()?.sample()?).ok()?;
    let query = body.get("query").and_then(Value::as_str).filter(|query| is_query(query));
    match body.get("operationName").and_then(Value::as_str) {
        Some(name) if query.is_some() || body.get("variables").is_some() => Some(name.to_owned()),
        Some(_) | None => name_of(query?),
    }
}

/// Whether a text may be a document of GraphQL (October 2021, section 2.2).
fn is_query(text: &str) -> bool {
    let text = text.trim_start();
    let is_keyword = ["query", "mutation", "subscription", "fragment"].iter().any(|word| {
        text.strip_prefix(word)
            .is_some_and(|rest| rest.starts_with(|c: char| c.is_whitespace() || "{($@".contains(c)))
    });
    (is_keyword || text.starts_with('{') || text.starts_with('#')) && text.contains('{')
}

/// The name behind `query` or `mutation`; of a document without one, its first field.
fn name_of(query: &str) -> Option<String> {
    let mut words = query
        .lines()
        .filter(|line| !line.trim_start().starts_with('#'))
        .flat_map(|line| line.split(|c: char| !c.is_alphanumeric() && !matches!(c, '_' | '{' | '(')))
        .filter(|word| !word.is_empty());
    let mut first_field = None;
    while let Some(word) = words.next() {
        let is_keyword = matches!(word, "query" | "mutation" | "subscription");
        if is_keyword && let Some(next) = words.next() {
            let name: String = next.chars().take_while(|c| c.is_alphanumeric() || *c == '_').collect();
            if !name.is_empty() {
                return Some(name);
            }
        }
        if first_field.is_none() {
            let behind = query.split_once('{').map(|(_, rest)| rest.trim_start());
            first_field = behind.map(|rest| -> String {
                rest.chars().take_while(|c| c.is_alphanumeric() || *c == '_').collect()
            });
        }
    }
    first_field.filter(|name| !name.is_empty())
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn names_are_of_letters_digits_and_underscores() {
        assert!(is_name("Hives_2") && is_name("_hive"));
        for other in ["", "2hives", "a b", "a\nb", "grüße"] {
            assert!(!is_name(other), "{other}");
        }
    }

    #[test]
    fn operations_are_told_by_name() {
        let check = |query: &str, expected: Option<&str>| {
            let name = Some(query).filter(|query| is_query(query)).and_then(name_of);
            assert_eq!(name.as_deref(), expected, "{query}");
        };
        check("query HivesOfApiary($id: ID!) { apiary(id: $id) { hives { id } } }", Some("HivesOfApiary"));
        check("# all\nmutation   AddHive{ add { id } }", Some("AddHive"));
        check("fragment H on Hive { id }\nquery Hives { hives { ...H } }", Some("Hives"));
        check("{ hives { id } }", Some("hives"));
        check("query { hives { id } }", Some("hives"));
        check("query($id: ID!) { hive(id: $id) { id } }", Some("hive"));
        for other in ["hives in spring", "queryable {", "", "{", "a {"] {
            check(other, None);
        }
    }
}

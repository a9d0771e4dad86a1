//! Words of messages: lists, counts, and what was probably meant.

/// `Kotlin, TypeScript and Rust`
pub(crate) fn listed(names: &[&str]) -> String {
    listed_with("and", names)
}

/// `` `one`, `two` or `three` ``
pub(crate) fn quoted_with(word: &str, names: &[&str]) -> String {
    let quoted: Vec<String> = names.iter().map(|name| format!("`{name}`")).collect();
    listed_with(word, &quoted.iter().map(String::as_str).collect::<Vec<_>>())
}

fn listed_with(word: &str, names: &[&str]) -> String {
    match names {
        [] => String::new(),
        [one] => (*one).to_owned(),
        [all @ .., last] => format!("{} {word} {last}", all.join(", ")),
    }
}

/// The first few of them, and how many more there are: `one, two and 3 more`
pub(crate) fn first_few(names: &[String], most: usize) -> String {
    let shown = names[..names.len().min(most)].join(", ");
    match names.len().saturating_sub(most) {
        0 => shown,
        more => format!("{shown} and {more} more"),
    }
}

/// The word most like another, if one is like it at all; the first of equals by letter.
pub(crate) fn nearest(word: &str, others: impl IntoIterator<Item = String>) -> Option<String> {
    others
        .into_iter()
        .map(|other| (strsim::jaro_winkler(word, &other), other))
        .filter(|(likeness, _)| *likeness > 0.8)
        .max_by(|a, b| a.0.total_cmp(&b.0).then_with(|| b.1.cmp(&a.1)))
        .map(|(_, other)| other)
}

/// `` did you mean `one`? there are `one` and `two` ``
pub(crate) fn did_you_mean(word: &str, known: &[&str]) -> String {
    let all = format!("there are {}", quoted_with("and", known));
    match nearest(word, known.iter().map(|known| (*known).to_owned())) {
        Some(near) => format!("did you mean `{near}`? {all}"),
        None => all,
    }
}

/// `1 file`, `2 files`
pub(crate) fn counted(count: usize, word: &str) -> String {
    format!("{count} {word}{}", if count == 1 { "" } else { "s" })
}

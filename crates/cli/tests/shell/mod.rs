//! Command lines as a shell takes them apart.

/// The words of a line: in single quotes, blanks and `$` are themselves.
pub(crate) fn words(line: &str) -> Vec<String> {
    let mut words: Vec<String> = Vec::new();
    let mut is_open = false;
    for (at, part) in line.split('\'').enumerate() {
        let is_quoted = at % 2 == 1;
        let pieces: Vec<&str> = if is_quoted { vec![part] } else { part.split(' ').collect() };
        for (at, piece) in pieces.iter().enumerate() {
            // What stands right behind a quote belongs to it.
            match words.last_mut().filter(|_| is_open && at == 0) {
                Some(last) => last.push_str(piece),
                None => words.push((*piece).to_owned()),
            }
        }
        is_open = is_quoted || !part.ends_with(' ');
    }
    words.retain(|word| !word.is_empty());
    words
}

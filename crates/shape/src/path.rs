//! Paths into a shape: the child and wildcard subset of JSONPath (RFC 9535).

use std::fmt;

use thiserror::Error;

use crate::shape::Shape;

/// `$.hives[*].queen`
#[derive(Debug, Clone, PartialEq, Eq, Default)]
pub struct Path(pub Vec<Step>);

/// One segment of a path.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum Step {
    /// `.queen` or `['queen']`
    Child(String),
    /// `[*]` or `.*`: all items of lists, all values of objects.
    All,
}

/// Why a path cannot be read.
#[derive(Debug, Clone, PartialEq, Eq, Error)]
#[error("cannot read this path at character {column}: {message}")]
pub struct PathError {
    /// The path.
    pub path: String,
    /// Where in it, in characters from 1.
    pub column: usize,
    /// What is wrong there.
    pub message: &'static str,
}

/// A path that leads nowhere.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct NoMatch {
    /// The part that does lead somewhere.
    pub matched: Path,
    /// The step that does not.
    pub step: Step,
    /// The keys that do exist there, in first-seen order.
    pub keys: Vec<String>,
    /// Whether there are list items or many values there, which `[*]` would take.
    pub has_items: bool,
}

impl Path {
    /// Reads a path such as `$.hives[*]['honey kg']`.
    ///
    /// # Errors
    /// Anything beyond child and wildcard segments: indexes, slices, filters, descendants.
    pub fn parse(text: &str) -> Result<Self, PathError> {
        let chars: Vec<char> = text.chars().collect();
        let fail = |at: usize, message| Err(PathError { path: text.to_owned(), column: at + 1, message });
        if chars.first() != Some(&'$') {
            return fail(0, "a path starts with `$`");
        }
        let mut steps = Vec::new();
        let mut at = 1;
        while at < chars.len() {
            let rest = &chars[at..];
            let (step, length) = match rest {
                ['.', '.', ..] => return fail(at, "`..` is not supported; name each level"),
                ['.', '*', ..] => (Step::All, 2),
                ['.', ..] => match shorthand(&rest[1..]) {
                    Some(name) => (Step::Child(name.iter().collect()), name.len() + 1),
                    None => return fail(at + 1, "expected a key; quote an odd one as `['…']`"),
                },
                ['[', '*', ']', ..] => (Step::All, 3),
                ['[', quote @ ('\'' | '"'), ..] => match quoted(&rest[2..], *quote) {
                    Some((name, length)) => (Step::Child(name), length + 2),
                    None => return fail(at, "the quoted key does not end with its quote and `]`"),
                },
                ['[', '0'..='9' | '-' | ':', ..] => {
                    return fail(at, "an index is not supported; `[*]` takes all items");
                }
                ['[', '?', ..] => return fail(at, "a filter is not supported; `[*]` takes all items"),
                _ => return fail(at, "expected `.key`, `['key']` or `[*]`"),
            };
            steps.push(step);
            at += length;
        }
        Ok(Self(steps))
    }

    /// The shape at the end of this path.
    ///
    /// # Errors
    /// The first step that leads nowhere, with what does exist there.
    pub fn select(&self, shape: Shape) -> Result<Shape, Box<NoMatch>> {
        let mut current = shape;
        for (depth, step) in self.0.iter().enumerate() {
            let taken = match step {
                Step::Child(key) => child(&mut current, key),
                Step::All => all(&mut current),
            };
            current = match taken {
                Some(next) => next,
                None => return Err(Box::new(self.no_match(depth, &current))),
            };
        }
        Ok(current)
    }

    fn no_match(&self, depth: usize, shape: &Shape) -> NoMatch {
        let fields = shape.objects.as_ref().map(|o| o.fields()).unwrap_or_default();
        NoMatch {
            matched: Self(self.0[..depth].to_vec()),
            step: self.0[depth].clone(),
            keys: fields.iter().map(|field| field.key.to_string()).collect(),
            has_items: shape.lists.is_some() || shape.objects.as_ref().is_some_and(|o| o.crowd().is_some()),
        }
    }
}

fn child(shape: &mut Shape, key: &str) -> Option<Shape> {
    shape.objects.as_mut()?.take_field(key)
}

fn all(shape: &mut Shape) -> Option<Shape> {
    let items = shape.lists.take().map(|lists| lists.items);
    let values = shape.objects.take().map(|objects| objects.into_values());
    let mut merged = items.or_else(|| values.is_some().then(Shape::default))?;
    merged.merge(values.unwrap_or_default());
    Some(merged)
}

/// A member-name-shorthand (RFC 9535, section 2.5.1.1), with `-` allowed inside: `.honey-kg` is what people type.
fn shorthand(chars: &[char]) -> Option<&[char]> {
    let inside = |c: &char| c.is_alphanumeric() || matches!(c, '_' | '-' | '@' | '$');
    let length = chars.iter().take_while(|c| inside(c)).count();
    (length > 0).then(|| &chars[..length])
}

/// The key up to its closing quote and bracket, and how long all of that is.
fn quoted(chars: &[char], quote: char) -> Option<(String, usize)> {
    let mut name = String::new();
    let mut at = 0;
    loop {
        match *chars.get(at)? {
            '\\' => {
                name.push(*chars.get(at + 1)?);
                at += 2;
            }
            c if c == quote => break,
            c => {
                name.push(c);
                at += 1;
            }
        }
    }
    (chars.get(at + 1) == Some(&']')).then_some((name, at + 2))
}

impl fmt::Display for Path {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        f.write_str("$")?;
        self.0.iter().try_for_each(|step| write!(f, "{step}"))
    }
}

impl fmt::Display for Step {
    fn fmt(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
        match self {
            Self::All => f.write_str("[*]"),
            Self::Child(key) => {
                let chars: Vec<char> = key.chars().collect();
                if shorthand(&chars).is_some_and(|name| name.len() == chars.len()) {
                    write!(f, ".{key}")
                } else {
                    write!(f, "['{}']", key.replace('\\', "\\\\").replace('\'', "\\'"))
                }
            }
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;
    use proptest::prelude::*;

    #[track_caller]
    fn check(text: &str, shown: &str) {
        assert_eq!(Path::parse(text).map(|p| p.to_string()), Ok(shown.to_owned()));
    }

    #[track_caller]
    fn refuses(text: &str, column: usize) {
        assert_eq!(Path::parse(text).map_err(|e| e.column), Err(column), "{text}");
    }

    #[test]
    fn reads_children_and_wildcards() {
        check("$", "$");
        check("$.hives[*].queen", "$.hives[*].queen");
        check("$.*", "$[*]");
        check("$['hives'][\"honey kg\"]", "$.hives['honey kg']");
        check(r"$['it\'s']", r"$['it\'s']");
        check("$.honey-kg.größe", "$.honey-kg.größe");
    }

    #[test]
    fn refuses_the_rest_with_its_place() {
        refuses("hives", 1);
        refuses("$..queen", 2);
        refuses("$.hives[0]", 8);
        refuses("$.hives[?@.a]", 8);
        refuses("$.", 3);
        refuses("$['a", 2);
        refuses("$.a b", 4);
    }

    proptest! {
        #[test]
        fn what_is_shown_can_be_read(keys in proptest::collection::vec(proptest::option::of(any::<String>()), 0..4)) {
            let path = Path(keys.into_iter().map(|key| key.map_or(Step::All, Step::Child)).collect());
            prop_assert_eq!(Path::parse(&path.to_string()), Ok(path));
        }
    }
}

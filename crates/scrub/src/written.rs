//! JSON as it will be written.

/// A value whose parts that were not changed stand as they were written.
pub(crate) enum Written {
    Literal(String),
    List(Vec<Written>),
    Object(Vec<(String, Written)>),
}

impl Written {
    /// The text: indented where the sample was, else on one line.
    pub(crate) fn text(&self, is_indented: bool) -> String {
        let mut out = String::new();
        self.push(is_indented.then_some(0), &mut out);
        out
    }

    fn push(&self, level: Option<usize>, out: &mut String) {
        let deeper = level.map(|level| level + 1);
        let new_line = |level: Option<usize>, out: &mut String| {
            if let Some(level) = level {
                out.push('\n');
                out.push_str(&"  ".repeat(level));
            }
        };
        match self {
            Self::Literal(text) => out.push_str(text),
            Self::List(items) if items.is_empty() => out.push_str("[]"),
            Self::Object(entries) if entries.is_empty() => out.push_str("{}"),
            Self::List(items) => {
                out.push('[');
                for (at, item) in items.iter().enumerate() {
                    out.push_str(if at > 0 { "," } else { "" });
                    new_line(deeper, out);
                    item.push(deeper, out);
                }
                new_line(level, out);
                out.push(']');
            }
            Self::Object(entries) => {
                out.push('{');
                for (at, (key, value)) in entries.iter().enumerate() {
                    out.push_str(if at > 0 { "," } else { "" });
                    new_line(deeper, out);
                    out.push_str(&quoted(key));
                    out.push_str(if level.is_some() { ": " } else { ":" });
                    value.push(deeper, out);
                }
                new_line(level, out);
                out.push('}');
            }
        }
    }
}

/// A text as JSON writes it.
pub(crate) fn quoted(text: &str) -> String {
    serde_json::Value::from(text).to_string()
}

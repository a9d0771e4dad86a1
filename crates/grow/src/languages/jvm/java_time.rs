//! Times of `java.time`, which Java and Kotlin write alike.

use jar_sprout_model::{Fraction, TimeForm, ZeroOffset};

use crate::spell::swap;

/// How `java.time` writes times in a special way, in Java and in Kotlin.
struct JavaTime {
    /// The constant that writes them in the usual way.
    usual: &'static str,
    /// The expression of the formatter.
    format: String,
    /// That of one for whole seconds, where they have another.
    whole: Option<String>,
    /// Whether a builder must be imported.
    has_builder: bool,
}

impl JavaTime {
    /// How a type of `java.time` is written. `new` is what stands before a constructor.
    fn of(ty: &str, form: TimeForm, new: &str) -> Self {
        let (usual, local, date) = match ty {
            "OffsetDateTime" => ("ISO_OFFSET_DATE_TIME", "ISO_LOCAL_DATE_TIME", "uuuu-MM-dd'T'"),
            "LocalDateTime" => ("ISO_LOCAL_DATE_TIME", "ISO_LOCAL_DATE_TIME", "uuuu-MM-dd'T'"),
            _ => ("ISO_LOCAL_TIME", "ISO_LOCAL_TIME", ""),
        };
        let zone = match form.zero {
            _ if usual == local => "",
            ZeroOffset::Letter => "XXX",
            ZeroOffset::Digits => "xxx",
        };
        let pattern =
            |fraction: String| format!("DateTimeFormatter.ofPattern(\"{date}HH:mm:ss{fraction}{zone}\")");
        let of_digits = |digits: u8| pattern(format!(".{}", "S".repeat(usize::from(digits))));
        let built = || {
            format!(
                "{new}DateTimeFormatterBuilder()\n.append(DateTimeFormatter.{local})\n.appendOffset(\"+HH:MM\", \"+00:00\")\n.toFormatter()"
            )
        };
        let (format, whole) = match form.fraction {
            Fraction::Exactly(digits) => (of_digits(digits), None),
            Fraction::NoneOr(digits) => (of_digits(digits), Some(pattern(String::new()))),
            Fraction::Shortest | Fraction::Threes => (built(), None),
        };
        let has_builder = format.contains("Builder");
        Self { usual, format, whole, has_builder }
    }
}

/// What a language of `java.time` writes around a formatter.
pub(crate) struct JavaSyntax {
    /// What stands before a constructor.
    pub(crate) new: &'static str,
    /// What stands before the name of a constant.
    pub(crate) constant: &'static str,
    /// The name of the formatter for whole seconds, where they have another.
    pub(crate) whole: &'static str,
    /// The name of the formatter.
    pub(crate) format: &'static str,
    /// The expression that chooses between the two.
    pub(crate) either: &'static str,
    /// What ends a line.
    pub(crate) end: &'static str,
}

impl JavaSyntax {
    /// The code of a helper that writes times of a type in the usual way, changed to write them in another. Its
    /// constants go behind the head of its class, at an indentation of so many columns.
    pub(crate) fn in_form(&self, text: &str, ty: &str, class: &str, indent: usize, form: TimeForm) -> String {
        let JavaTime { usual, format, whole, has_builder } = JavaTime::of(ty, form, self.new);
        let chosen = if whole.is_some() { self.either } else { self.format };
        let whole = whole.map(|whole| self.declared(indent, self.whole, &whole)).unwrap_or_default();
        let format = self.declared(indent, self.format, &format);
        let import = |name: &str| format!("import java.time.format.{name}{}\n", self.end);
        let formatter = import("DateTimeFormatter");
        let builder = if has_builder { import("DateTimeFormatterBuilder") } else { String::new() };
        let text = swap(text, &formatter, &format!("{formatter}{builder}"));
        let text = swap(&text, class, &format!("{class}{whole}{format}\n"));
        swap(&text, &format!("DateTimeFormatter.{usual}.format"), &format!("{chosen}.format"))
    }

    /// A constant's declaration, broken behind its `=` where it is long.
    fn declared(&self, indent: usize, name: &str, code: &str) -> String {
        let start = " ".repeat(indent);
        let head = format!("{start}{} {name} =", self.constant);
        let line = format!("{head} {code}{}\n", self.end);
        if line.trim_end().len() > 100 || code.contains('\n') {
            let code = code.replace('\n', &format!("\n{start}        "));
            format!("{head}\n{start}    {code}{}\n", self.end)
        } else {
            line
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn java_formatters_are_patterns_or_builders() {
        let of = |ty: &str, fraction, zero| JavaTime::of(ty, TimeForm { fraction, zero }, "new ");
        let millis = of("OffsetDateTime", Fraction::Exactly(3), ZeroOffset::Digits);
        assert_eq!(millis.format, "DateTimeFormatter.ofPattern(\"uuuu-MM-dd'T'HH:mm:ss.SSSxxx\")");
        assert_eq!(millis.whole, None);
        let optional = of("LocalTime", Fraction::NoneOr(6), ZeroOffset::Letter);
        assert_eq!(optional.whole.as_deref(), Some("DateTimeFormatter.ofPattern(\"HH:mm:ss\")"));
        assert!(of("OffsetDateTime", Fraction::Shortest, ZeroOffset::Digits).has_builder);
        let syntax = JavaSyntax { new: "", constant: "val", whole: "w", format: "f", either: "e", end: ";" };
        let long = syntax.declared(2, &"x".repeat(86), "\"code\"");
        assert_eq!(long, format!("  val {} =\n      \"code\";\n", "x".repeat(86)));
    }
}

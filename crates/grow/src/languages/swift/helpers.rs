//! Helper code in Swift: one file for each helper, in the form that its users ask for.

use std::sync::LazyLock;

use super::Sheet;
use crate::spell::{Helper, swap};

/// A helper in all its forms. The file is that of public types which are read and written.
pub(super) struct SwiftHelper {
    name: &'static str,
    /// By whether it is public, and whether it writes.
    forms: LazyLock<[[String; 2]; 2]>,
}

macro_rules! helper {
    ($name:literal) => {
        SwiftHelper {
            name: $name,
            forms: LazyLock::new(|| {
                let text = include_str!(concat!($name, ".swift"));
                [false, true].map(|is_public| [false, true].map(|writes| form(text, is_public, writes)))
            }),
        }
    };
}

pub(super) static JSON_VALUE: SwiftHelper = helper!("JSONValue");
pub(super) static ISO_DATE: SwiftHelper = helper!("ISODate");
pub(super) static INTEGER_TEXT: SwiftHelper = helper!("IntegerText");
pub(super) static DOUBLE_TEXT: SwiftHelper = helper!("DoubleText");
pub(super) static DECIMAL_TEXT: SwiftHelper = helper!("DecimalText");
pub(super) static BOOLEAN_TEXT: SwiftHelper = helper!("BooleanText");
pub(super) static EPOCH_SECONDS: SwiftHelper = helper!("EpochSeconds");
pub(super) static EPOCH_MILLISECONDS: SwiftHelper = helper!("EpochMilliseconds");
pub(super) static JSON_TEXT: SwiftHelper = helper!("JSONText");
pub(super) static NOTHING_WORDS: SwiftHelper = helper!("NothingWords");
pub(super) static MAYBE: SwiftHelper = helper!("Maybe");
/// Holds a value apart; it writes only where its users do.
pub(super) static BOX: SwiftHelper = helper!("Box");
/// Keys that are no properties; it writes only where its users do.
pub(super) static OTHER_KEY: SwiftHelper = helper!("OtherKey");

/// What stands around the part of a file that writes.
const WRITES: [&str; 2] = ["    // <encode>", "    // </encode>"];

fn form(text: &str, is_public: bool, writes: bool) -> String {
    let mut out = String::with_capacity(text.len());
    let mut is_written = true;
    for line in text.lines() {
        match WRITES.iter().position(|mark| *mark == line) {
            Some(mark) => is_written = writes || mark == 1,
            None if is_written => out.extend([line, "\n"]),
            None => {}
        }
    }
    if !writes && text.contains(WRITES[0]) && text.contains(": Codable") {
        out = swap(&out, "Codable", "Decodable");
    }
    if is_public { out } else { out.replace("public ", "") }
}

/// Notes a helper; answers its name.
pub(super) fn help(sheet: &mut Sheet<'_>, helper: &'static SwiftHelper) -> &'static str {
    let options = sheet.options;
    let text = &helper.forms[usize::from(!options.access.is_empty())][usize::from(options.is_encoded)];
    sheet.needs.helpers.insert(Helper { name: helper.name, text });
    helper.name
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn forms_differ_in_access_and_in_what_writes() {
        let [[internal_decode, internal], [_, public]] = &*BOX.forms;
        assert!(public.contains("public final class Box<Value: Codable") && public.contains("func encode"));
        assert!(!internal.contains("public") && internal.contains("func encode"));
        assert!(internal_decode.contains(": Decodable, ") && !internal_decode.contains("encode("));
        for helper in [
            &JSON_VALUE,
            &JSON_TEXT,
            &NOTHING_WORDS,
            &ISO_DATE,
            &INTEGER_TEXT,
            &BOOLEAN_TEXT,
            &EPOCH_SECONDS,
            &EPOCH_MILLISECONDS,
            &DOUBLE_TEXT,
            &DECIMAL_TEXT,
            &MAYBE,
            &BOX,
            &OTHER_KEY,
        ] {
            let all = helper.forms.iter().flatten();
            all.for_each(|form| assert!(!form.contains("encode>"), "{} has marks: {form}", helper.name));
        }
    }
}

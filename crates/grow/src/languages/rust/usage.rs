//! How grown Rust is used.

use jar_sprout_layout::{braces, paragraphs, print, text};

use super::Sheet;
use super::settings::{Dates, RustOptions};
use super::{ABOUT, names, types};
use crate::prepare::Dependency;
use crate::settings::Entry;
use crate::spell::{Body, Dialect as _, GrownFile, Place, Program};

/// The dependencies of a package, with the features that the code needs of them.
pub(super) fn project(options: &RustOptions) -> Vec<GrownFile> {
    let of_dates = match options.dates {
        Dates::Chrono => ", default-features = false, features = [\"std\", \"serde\"]",
        Dates::Time => ", features = [\"macros\", \"serde-human-readable\", \"serde-well-known\"]",
        Dates::Jiff => ", features = [\"serde\"]",
    };
    let line = |Dependency(name, version): &Dependency| match *name {
        // Without it, the last digit of a float may be another one.
        "serde_json" => format!("{name} = {{ version = \"{version}\", features = [\"float_roundtrip\"] }}\n"),
        "serde" => format!("{name} = {{ version = \"{version}\", features = [\"derive\"] }}\n"),
        _ => format!("{name} = {{ version = \"{version}\"{of_dates} }}\n"),
    };
    let lines: String = options.abilities().foundation.libraries.iter().map(line).collect();
    vec![GrownFile::new("Cargo.toml", format!("[dependencies]\n{lines}"))]
}

/// ```text
/// fn main() -> std::io::Result<()> {
///     let text = std::fs::read_to_string("hives.json")?;
///     …
/// }
/// ```
pub(super) fn program(sheet: &mut Sheet<'_>, place: Place<'_>) -> Option<Program> {
    let plan = sheet.plan;
    let (root, [decode, encode]) = plan.first_entry();
    let name = plan.root_ident(root);
    let ty = plan.root_type(root, |slot| print(&types::slot(sheet, None, slot), &ABOUT.style));
    let file = sheet.options.file_name(plan.title());
    let module = file.trim_end_matches(".rs");
    let (uses, reading, written) = if sheet.options.entry == Entry::Functions {
        (
            format!("use {module}::{{{decode}, {encode}}};"),
            format!("let response = {decode}(&text)?;"),
            format!("{encode}(&response)?"),
        )
    } else {
        (
            format!("use {module}::{name};"),
            format!("let response: {ty} = serde_json::from_str(&text)?;"),
            "serde_json::to_string(&response)?".to_owned(),
        )
    };
    let body = [
        text(format!("let text = std::fs::read_to_string({})?;", names::LITERAL.of(place.sample))),
        text("// What does not fit says what is missing, with its line and column."),
        text(reading.clone()),
        text(format!("println!(\"{{}}\", {written});")),
        text("Ok(())"),
    ];
    let main = braces("fn main() -> Result<(), Box<dyn std::error::Error>>", body);
    let head = [text(format!("mod {module};")), text(uses)];
    Some(Program {
        body: Body::Whole("main.rs".to_owned(), paragraphs(head.into_iter().chain([main]))),
        folder: None,
        run: "main.rs".to_owned(),
        reading,
    })
}

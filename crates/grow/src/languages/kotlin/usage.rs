//! How grown Kotlin is used.

use jar_sprout_layout::{Doc, braces, cat, text};

use super::Sheet;
use super::settings::{KotlinOptions, Library};
use super::{entry, names};
use crate::languages::jvm::gradle_dependencies;
use crate::settings::Entry;
use crate::spell::{Body, GrownFile, Place, Program};

/// The compiler that the proofs call.
const COMPILER: &str = "2.4.20";

/// The plugins and the libraries of a Gradle project.
pub(super) fn project(options: &KotlinOptions) -> Vec<GrownFile> {
    let foundation = options.abilities().foundation;
    let kind = if options.is_parcelable { "android" } else { "jvm" };
    let plugin = |name: String| format!("    kotlin(\"{name}\") version \"{COMPILER}\"\n");
    let plugins = foundation.plugins.iter().map(|name| plugin(format!("plugin.{name}")));
    let plugins: String = [plugin(kind.to_owned())].into_iter().chain(plugins).collect();
    let mut build = format!("plugins {{\n{plugins}}}\n");
    if !foundation.libraries.is_empty() {
        build += &format!("\n{}", gradle_dependencies(&foundation.libraries));
    }
    vec![GrownFile::new("build.gradle.kts", build)]
}

/// ```kotlin
/// fun main() {
///     val text = File("hives.json").readText()
///     …
/// }
/// ```
pub(super) fn program(sheet: &mut Sheet<'_>, place: Place<'_>) -> Option<Program> {
    let faults: &[&str] = match sheet.options.library {
        Library::Kotlinx => &["kotlinx.serialization.SerializationException"],
        Library::Moshi => {
            &["com.squareup.moshi.JsonDataException", "com.squareup.moshi.JsonEncodingException"]
        }
        Library::Gson => &["com.google.gson.JsonParseException"],
        Library::Jackson => &["com.fasterxml.jackson.core.JsonProcessingException"],
        Library::None => return None,
    };
    let comes_along = sheet.options.entry == Entry::Functions;
    let functions = if comes_along { Vec::new() } else { entry::functions(sheet) };
    sheet.needs.imports.extend(faults);
    sheet.needs.imports.insert("java.io.File");
    let plan = sheet.plan;
    let (root, [decode, encode]) = plan.first_entry();
    let name = plan.root_ident(root);
    let tried =
        [text(format!("val response = {decode}(text)")), text(format!("println({encode}(response))"))];
    let mut main = vec![braces("try", tried)];
    for fault in faults {
        let class = fault.rsplit('.').next().unwrap_or_default();
        let told = text(format!(
            "println(\"does not fit {}: ${{error.message}}\")",
            name.as_str().trim_matches('`')
        ));
        main.extend([text(" "), braces(format!("catch (error: {class})"), [told])]);
    }
    let read = text(format!("val text = File({}).readText()", names::LITERAL.of(place.sample)));
    let main: Doc = braces("fun main()", [read, cat(main)]);
    let package = sheet.options.package.as_ref().map(|name| format!("{}.", name.replace('`', "")));
    let reading =
        if comes_along { format!("val response = {decode}(text)") } else { entry::reading(sheet, root) };
    Some(Program {
        body: Body::Declarations(functions.into_iter().chain([main]).collect()),
        folder: None,
        run: format!("{}{}Kt", package.unwrap_or_default(), plan.program().as_str()),
        reading,
    })
}

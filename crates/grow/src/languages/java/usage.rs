//! How grown Java is used.

use jar_sprout_layout::{braces, cat, members, text};

use super::Sheet;
use super::settings::{JavaOptions, Library};
use super::{entry, names};
use crate::languages::jvm::gradle_dependencies;
use crate::prepare::Dependency;
use crate::settings::Entry;
use crate::spell::{Body, GrownFile, Place, Program};

/// The library, for Maven and for Gradle.
pub(super) fn project(options: &JavaOptions) -> Vec<GrownFile> {
    let libraries = options.abilities().foundation.libraries;
    let dependency = |Dependency(name, version): &Dependency| {
        let (group, artifact) = name.split_once(':').expect("a library of Maven has a group");
        format!(
            "  <dependency>\n    <groupId>{group}</groupId>\n    <artifactId>{artifact}</artifactId>\n    <version>{version}</version>\n  </dependency>\n"
        )
    };
    let dependencies: String = libraries.iter().map(dependency).collect();
    vec![
        GrownFile::new("pom.xml", format!("<dependencies>\n{dependencies}</dependencies>\n")),
        GrownFile::new("build.gradle.kts", gradle_dependencies(&libraries)),
    ]
}

/// ```java
/// public final class ReadHivePage {
///   public static void main(String[] args) throws IOException {
///     String text = Files.readString(Path.of("hives.json"));
///     …
///   }
/// }
/// ```
pub(super) fn program(sheet: &mut Sheet<'_>, place: Place<'_>) -> Option<Program> {
    let comes_along = sheet.options.entry == Entry::Functions;
    let fault = match sheet.options.library {
        Library::Jackson => "com.fasterxml.jackson.core.JsonProcessingException",
        Library::Gson => "com.google.gson.JsonParseException",
    };
    let program = sheet.plan.program();
    let mut inside = if comes_along { Vec::new() } else { entry::inside(sheet, program) };
    sheet.needs.imports.extend([fault, "java.io.IOException", "java.nio.file.Files", "java.nio.file.Path"]);
    let class = fault.rsplit('.').next().unwrap_or_default();
    let plan = sheet.plan;
    let (root, [decode, encode]) = plan.first_entry();
    let home = if comes_along { format!("{}.", plan.entry_home()) } else { String::new() };
    let ty = entry::type_of(sheet, root);
    let tried = [
        text(format!("{ty} response = {home}{decode}(text);")),
        text(format!("System.out.println({home}{encode}(response));")),
    ];
    let told =
        format!("System.out.println(\"does not fit {}: \" + error.getMessage());", plan.root_ident(root));
    let tried =
        cat([braces("try", tried), text(" "), braces(format!("catch ({class} error)"), [text(told)])]);
    let read = text(format!("String text = Files.readString(Path.of({}));", names::LITERAL.of(place.sample)));
    inside.push(braces("public static void main(String[] args) throws IOException", [read, tried]));
    let class = members(text(format!("public final class {program}")), inside);
    let reading = if comes_along {
        format!("{ty} response = {home}{decode}(text);")
    } else {
        entry::reading(sheet, root)
    };
    Some(Program {
        body: Body::Declarations(vec![class]),
        folder: None,
        run: format!("{}.{program}", sheet.options.package),
        reading,
    })
}

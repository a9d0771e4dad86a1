//! How grown C# is used.

use jar_sprout_layout::{lines, text};

use super::Sheet;
use super::settings::{AHEAD_OF_TIME, CSharpOptions, Level, Library};
use super::{block, entry, members, names};
use crate::prepare::Dependency;
use crate::settings::Entry;
use crate::spell::{Body, GrownFile, Place, Program};

/// The properties and the packages of a project.
pub(super) fn project(options: &CSharpOptions) -> Vec<GrownFile> {
    let properties: &[(&str, &str)] = match options.level {
        Level::Seven => &[("LangVersion", "7.3")],
        Level::Twelve => &[("TargetFramework", "net10.0"), ("Nullable", "enable")],
    };
    let ahead = options.has_context.then_some((AHEAD_OF_TIME, "true"));
    let property = |(name, value): (&str, &str)| format!("  <{name}>{value}</{name}>\n");
    let properties: String = properties.iter().copied().chain(ahead).map(property).collect();
    let mut text = format!("<PropertyGroup>\n{properties}</PropertyGroup>\n");
    for Dependency(name, version) in options.abilities().foundation.libraries {
        text += &format!(
            "\n<ItemGroup>\n  <PackageReference Include=\"{name}\" Version=\"{version}\" />\n</ItemGroup>\n"
        );
    }
    vec![GrownFile::new("App.csproj", text)]
}

/// ```csharp
/// internal static class ReadHivePage
/// {
///     private static void Main()
///     {
///         var text = File.ReadAllText("hives.json");
///         …
///     }
/// }
/// ```
pub(super) fn program(sheet: &mut Sheet<'_>, place: Place<'_>) -> Option<Program> {
    let comes_along = sheet.options.entry == Entry::Functions;
    sheet.needs.imports.extend([
        "System",
        "System.IO",
        match sheet.options.library {
            Library::SystemTextJson => "System.Text.Json",
            Library::Newtonsoft => "Newtonsoft.Json",
        },
    ]);
    let functions = (!comes_along).then(|| entry::class(sheet));
    let plan = sheet.plan;
    let (program, (root, [decode, encode])) = (plan.program(), plan.first_entry());
    let (home, name) = (plan.entry_home(), plan.root_ident(root));
    // A type of theirs would be taken for the system's.
    let of_system = |name: &str, whole: &'static str| if plan.find(name).is_some() { whole } else { "" };
    let (file, console) = (of_system("File", "System.IO."), of_system("Console", "System."));
    // The text `null` is read as well.
    let is_told = sheet.options.level >= Level::Twelve && !root.slot().nullable;
    let or = if is_told { " ?? throw new JsonException(\"null\")" } else { "" };
    let tried = [
        text(format!("var response = {home}.{decode}(text){or};")),
        text(format!("{console}Console.WriteLine({home}.{encode}(response));")),
    ];
    let told = format!(
        "{console}Console.WriteLine(\"does not fit {}: \" + error.Message);",
        name.as_str().trim_matches('@')
    );
    let main = [
        text(format!("var text = {file}File.ReadAllText({});", names::LITERAL.of(place.sample))),
        lines([block(text("try"), tried), block(text("catch (JsonException error)"), [text(told)])]),
    ];
    let main = block(text("private static void Main()"), main);
    let class = members(text(format!("internal static class {program}")), [main]);
    let reading = if comes_along {
        format!("var response = {home}.{decode}(text);")
    } else {
        entry::reading(sheet, root)
    };
    Some(Program {
        body: Body::Declarations(functions.into_iter().chain([class]).collect()),
        folder: None,
        run: format!("{}.{program}", sheet.options.namespace),
        reading,
    })
}

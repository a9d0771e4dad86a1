//! How grown TypeScript is used.

use jar_sprout_layout::{braces, cat, lines, paragraphs, text};

use super::Sheet;
use super::names;
use super::settings::{Reading, TypeScriptOptions};
use crate::spell::{Body, Dialect as _, GrownFile, Place, Program};

/// The compiler that the proofs call.
const COMPILER: &str = "7.0.2";

/// The compiler, and how strict it is.
pub(super) fn project(_: &TypeScriptOptions) -> Vec<GrownFile> {
    vec![
        GrownFile::new(
            "package.json",
            format!(
                "{{\n  \"type\": \"module\",\n  \"devDependencies\": {{\n    \"@types/node\": \"20\",\n    \"typescript\": \"{COMPILER}\"\n  }}\n}}\n"
            ),
        ),
        GrownFile::new(
            "tsconfig.json",
            "{\n  \"compilerOptions\": {\n    \"strict\": true,\n    \"target\": \"es2022\",\n    \"module\": \"nodenext\",\n    \"types\": [\"node\"]\n  }\n}\n",
        ),
    ]
}

/// ```ts
/// const text = readFileSync("hives.json", "utf8");
/// ```
pub(super) fn program(sheet: &mut Sheet<'_>, place: Place<'_>) -> Option<Program> {
    let plan = sheet.plan;
    let name = plan.root_name();
    let module = sheet.options.file_name(plan.title());
    let module = module.trim_end_matches(".ts");
    let (import, reading, written) = match sheet.options.reading {
        Reading::None => (
            format!("import type {{ {name} }} from \"./{module}.js\";"),
            format!("const response: {name} = JSON.parse(text);"),
            "JSON.stringify(response)".to_owned(),
        ),
        Reading::Checked | Reading::Dated => (
            format!("import {{ format{name}, parse{name} }} from \"./{module}.js\";"),
            format!("const response = parse{name}(text);"),
            format!("format{name}(response)"),
        ),
    };
    let imports = lines([text("import { readFileSync } from \"node:fs\";"), text(import)]);
    let read = text(format!("const text = readFileSync({}, \"utf8\");", names::literal(place.sample)));
    let tried = [text(reading.clone()), text(format!("console.log({written});"))];
    let told = text(format!("console.error(\"does not fit {name}:\", error);"));
    let tried = cat([braces("try", tried), text(" "), braces("catch (error)", [told])]);
    let file = sheet.options.file_name(plan.program().as_str());
    Some(Program {
        body: Body::Whole(file.clone(), paragraphs([imports, lines([read, tried])])),
        folder: None,
        run: file,
        reading,
    })
}

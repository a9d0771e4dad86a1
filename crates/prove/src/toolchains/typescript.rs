//! TypeScript: `tsc` at its strictest, with every sample assigned to the type of its root; or passed through the
//! functions that parse it; Prettier as a judge.

use std::process::Command;

use jar_sprout_grow::Judge;

use crate::run::version;
use crate::toolchain::{Missing, Ready, Task};

const PROJECT: &str = r#"{
  "compilerOptions": {
    "strict": true,
    "exactOptionalPropertyTypes": true,
    "noUncheckedIndexedAccess": true,
    "noPropertyAccessFromIndexSignature": true,
    "noImplicitReturns": true,
    "noUnusedLocals": true,
    "noUnusedParameters": true,
    "verbatimModuleSyntax": true,
    "isolatedModules": true,
    "erasableSyntaxOnly": true,
    "outDir": "out",
    "target": "es2022",
    "module": "nodenext",
    "types": []
  },
  "include": ["**/*.ts"]
}
"#;

/// What a program uses of the platform, whose types are not installed; the driver brings its own.
const PLATFORM: &str = include_str!("typescript/platform.d.ts");

pub(crate) fn find(wanted: &Task<'_>) -> Result<Ready, Missing> {
    let installed = wanted.tools.installed("typescript/node_modules/.bin/tsc");
    let Some(compiler) = installed.or_else(|| wanted.tools.program("tsc")) else {
        let home = wanted.tools.home().join("typescript");
        let line = format!("npm install --prefix {} typescript@7.0.2", home.display());
        return Err(Missing::new("the TypeScript compiler", line));
    };
    let version = version(wanted.command(&compiler).arg("--version")).unwrap_or_default();
    let mut compile = wanted.command(compiler);
    compile.args(["-p", "."]);
    let run = if wanted.abilities.judge == Judge::Driver || wanted.program.is_some() {
        let node = wanted.tools.program("node");
        let node = node.ok_or_else(|| Missing::new("Node.js", "apt-get install nodejs"))?;
        let mut run = wanted.command(node);
        run.arg(format!("out/{}", wanted.main("driver.ts").replace(".ts", ".js")));
        Some(run)
    } else {
        compile.arg("--noEmit");
        None
    };
    let files = [("tsconfig.json", PROJECT), ("package.json", "{\"type\": \"module\"}\n")].into_iter();
    let files = files.chain(wanted.program.map(|_| ("platform.d.ts", PLATFORM)));
    let files = files.map(|(name, text)| (name, text.to_owned()));
    Ok(Ready {
        title: format!("tsc {}", version.trim_start_matches("Version ")),
        code: "",
        files: files.collect(),
        compile: vec![compile],
        run,
        shared: None,
        nulls: wanted.abilities.nulls,
        judges: prettier(wanted).map(|command| ("Prettier", command)).into_iter().collect(),
    })
}

fn prettier(wanted: &Task<'_>) -> Option<Command> {
    let prettier = wanted.tools.installed("judges/npm/node_modules/.bin/prettier")?;
    let mut command = wanted.command("sh");
    let files = if wanted.program.is_some() { "'**/*.ts' '!platform.d.ts'" } else { "'t*/**/*.ts'" };
    let script = "\"$0\" --list-different FILES | while read file; do \
        echo \"$file\"; \"$0\" \"$file\" | diff \"$file\" -; done";
    command.args(["-c", &script.replace("FILES", files)]).arg(prettier);
    Some(command)
}

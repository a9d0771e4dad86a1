//! TypeScript: ESLint with the strict and stylistic rules of typescript-eslint; Biome.

use std::process::Command;

use super::{Bench, installed, pardoned};
use crate::toolchain::Missing;
use crate::tools::Tools;

const PROJECT: &str = r#"{"compilerOptions": {"strict": true, "target": "es2022", "module": "nodenext", "types": [],
"noEmit": true, "exactOptionalPropertyTypes": true, "noPropertyAccessFromIndexSignature": true, "noUncheckedIndexedAccess": true}, "include": ["t*/**/*.ts"]}
"#;

const RULES: &str = r#"import tseslint from "./node_modules/typescript-eslint/dist/index.js";

export default tseslint.config(
  ...tseslint.configs.strictTypeChecked,
  ...tseslint.configs.stylisticTypeChecked,
  {
    linterOptions: { reportUnusedDisableDirectives: "error" },
    languageOptions: { parserOptions: { project: "./tsconfig.json", tsconfigRootDir: import.meta.dirname } },
    rules: { PARDONS },
  },
);
"#;

const BIOME: &str = r#"{"root": true, "files": {"maxSize": 67108864},
"linter": {"rules": {"preset": "recommended"}}, "formatter": {"enabled": false}}
"#;

pub(super) fn find(tools: &Tools) -> Result<Bench, Missing> {
    let modules = installed(tools, "ESLint", "judges/npm/node_modules")?;
    let mut eslint = Command::new("sh");
    // It looks for what its rules import beside them.
    let script = "ln -s \"$1\" node_modules && exec \"$1/.bin/eslint\" --max-warnings 0 't*/**/*.ts'";
    eslint.args(["-c", script, "sh"]).arg(&modules);
    let mut biome = Command::new("sh");
    let script = "\"$1/.bin/biome\" check --error-on-warnings --max-diagnostics=200 --colors=off t*/ > said 2>&1 || cat said";
    biome.args(["-c", script, "sh"]).arg(&modules);
    let off = |rule| format!("\"{rule}\": \"off\", ");
    let pardons: String = pardoned("eslint").map(off).collect();
    Ok(Bench {
        code: "",
        files: vec![
            ("package.json", "{\"type\": \"module\"}\n".to_owned()),
            ("tsconfig.json", PROJECT.to_owned()),
            ("eslint.config.mjs", RULES.replace("PARDONS", &pardons)),
            ("biome.json", BIOME.to_owned()),
        ],
        judges: vec![("ESLint", eslint), ("Biome", biome)],
    })
}

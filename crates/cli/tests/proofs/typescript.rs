//! TypeScript: compiled at its strictest, with every sample assigned to the type of its root.

use std::fs;
use std::process::Command;

use jar_sprout_grow::find_language;

use crate::toolchain::{find, must_pass};
use crate::trials::{lay_out, proofs};

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
    "noEmit": true,
    "target": "es2022",
    "module": "nodenext",
    "types": []
  },
  "include": ["**/*.ts"]
}
"#;

#[test]
fn grown_typescript_takes_every_sample() {
    let Some(compiler) = find("TypeScript compiler", "typescript/node_modules/.bin/tsc") else { return };
    let typescript = find_language("typescript").unwrap();
    let folder = tempfile::tempdir().unwrap();
    fs::write(folder.path().join("tsconfig.json"), PROJECT).unwrap();
    fs::write(folder.path().join("package.json"), r#"{"type": "module"}"#).unwrap();
    lay_out(typescript, &proofs(), folder.path());
    must_pass(Command::new(compiler).arg("-p").arg(folder.path()));
}

//! Rust: `cargo build` with warnings as errors; clippy and rustfmt as judges.

use crate::pardons::pardoned;
use crate::run::version;
use crate::toolchain::{Missing, Ready, Shared, Task};

pub(crate) fn find(wanted: &Task<'_>) -> Result<Ready, Missing> {
    let missing = || Missing::new("Rust 1.85 or later", "see https://rustup.rs");
    let cargo = wanted.tools.program("cargo").ok_or_else(missing)?;
    let Some(target) = wanted.tools.installed("rust/target") else {
        let home = wanted.tools.home().join("rust");
        let home = home.display();
        let line = format!(
            "cargo init -q --name trials {home} && cd {home} && cargo add -q serde serde_json chrono time jiff -F serde/derive,serde_json/float_roundtrip,chrono/serde,time/macros,time/serde-human-readable,time/serde-well-known,jiff/serde && CARGO_TARGET_DIR=target cargo build -q"
        );
        return Err(Missing::new("a Rust project with serde and the libraries of dates built", line));
    };
    let project = target.with_file_name("");
    let read = |name: &str| std::fs::read_to_string(project.join(name)).unwrap_or_default();
    let cargo = |arguments: &[&str]| {
        let mut command = wanted.command(&cargo);
        command.args(arguments);
        command.env("CARGO_TARGET_DIR", &target).env("RUSTFLAGS", "-Dwarnings").env("CARGO_INCREMENTAL", "0");
        command
    };
    let quiet = ["--quiet", "--offline", "--locked"];
    let pardons: Vec<String> = pardoned("clippy").map(|rule| format!("-Aclippy::{rule}")).collect();
    let mut clippy = cargo(&[&["clippy"][..], &quiet].concat());
    clippy.args(["--", "-Wclippy::pedantic", "-Wclippy::nursery"]).args(pardons);
    let mut format = wanted.command("rustfmt");
    // The driver's modules are formatted with it.
    format.args(["--check", "--edition", "2024", "--config", "skip_macro_invocations=[]", "src/main.rs"]);
    let version = version(cargo(&["--version"]).arg("--quiet")).unwrap_or_default();
    let version = version.split(' ').nth(1).unwrap_or_default();
    let program = format!("trials{}", std::env::consts::EXE_SUFFIX);
    let own = wanted.folder.join(&program);
    Ok(Ready {
        title: format!("cargo {version}"),
        code: "src",
        files: vec![("Cargo.toml", read("Cargo.toml")), ("Cargo.lock", read("Cargo.lock"))],
        compile: vec![cargo(&[&["build"][..], &quiet].concat())],
        run: Some(wanted.command(&own)),
        shared: Some(Shared {
            lock: target.join("trials.lock"),
            source: wanted.folder.join("src/main.rs"),
            built: target.join(format!("debug/{program}")),
            own,
        }),
        nulls: wanted.abilities.nulls,
        judges: vec![("clippy", clippy), ("rustfmt", format)],
    })
}

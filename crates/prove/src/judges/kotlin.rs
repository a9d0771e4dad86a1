//! Kotlin: detekt, with every rule there is.

use std::collections::BTreeMap;
use std::process::Command;

use super::{Bench, installed, java, pardoned};
use crate::toolchain::Missing;
use crate::tools::Tools;

pub(super) fn find(tools: &Tools) -> Result<Bench, Missing> {
    let detekt = installed(tools, "detekt", "judges/jars/detekt-cli-1.23.8-all.jar")?;
    let mut judge = Command::new(java(tools, "java")?);
    judge.arg("-jar").arg(detekt).args(["--build-upon-default-config", "--all-rules"]);
    judge.args(["--config", "detekt.yml", "--input", "src"]);
    let mut sets: BTreeMap<&str, String> = BTreeMap::new();
    for (set, rule) in pardoned("detekt").filter_map(|rule| rule.split_once('.')) {
        sets.entry(set).or_default().push_str(&format!("  {rule}:\n    active: false\n"));
    }
    let pardons = sets.iter().map(|(set, rules)| format!("{set}:\n{rules}"));
    Ok(Bench {
        code: "src/trials",
        files: vec![("detekt.yml", pardons.collect())],
        judges: vec![("detekt", judge)],
    })
}

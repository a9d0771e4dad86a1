//! Go: revive, with every rule there is.

use std::process::Command;

use super::{Bench, pardoned};
use crate::toolchain::Missing;
use crate::tools::Tools;

pub(super) fn find(tools: &Tools) -> Result<Bench, Missing> {
    let line = "go install github.com/mgechev/revive@v1.16.0";
    let revive = tools.go_program("revive").ok_or_else(|| Missing::new("revive", line))?;
    let pardons: String =
        pardoned("revive").map(|rule| format!("[rule.{rule}]\nDisabled = true\n")).collect();
    let mut judge = Command::new(revive);
    judge.args(["-set_exit_status", "-config", "revive.toml", "./..."]);
    Ok(Bench {
        code: "",
        files: vec![
            ("go.mod", "module trials\n\ngo 1.24\n".to_owned()),
            ("revive.toml", format!("enableAllRules = true\n{pardons}")),
        ],
        judges: vec![("revive", judge)],
    })
}

//! The samples as files for a driver, and what it made of them.

use std::fmt::Write as _;
use std::fs;
use std::io;
use std::path::{Path, PathBuf};

use jar_sprout_model::Model;

use crate::proof::{Proof, Staged};
use crate::report::Miss;
use crate::round_trip::{Comparison, Lenience};

/// A line for each sample: its trial, its file, the file for what comes back.
pub(crate) fn write_samples(staged: &[&Staged], folder: &Path) -> io::Result<String> {
    let mut jobs = String::new();
    for Staged { trial, .. } in staged {
        for sample in &trial.samples {
            let file = sample_file(folder, &sample.name);
            fs::write(&file, &sample.text)?;
            let result = file.with_extension("result");
            writeln!(jobs, "{}\t{}\t{}", trial.place, file.display(), result.display())
                .expect("a string takes everything");
        }
    }
    Ok(jobs)
}

/// The samples that did not come back as they were sent. `said` is what the driver said of those it could not
/// decode: a line each, with the trial, the file and the reason.
pub(crate) fn misses(
    proofs: &[Proof],
    staged: &[&Staged],
    folder: &Path,
    said: &str,
    lenience: Lenience,
) -> Vec<Miss> {
    let mut misses = Vec::new();
    for Staged { index, trial, model, files: _, shared: _, digest: _ } in staged {
        let proof = &proofs[*index];
        for (sample, of_trial) in proof.samples.iter().zip(&trial.samples) {
            let file = sample_file(folder, &of_trial.name);
            let text = fs::read_to_string(file.with_extension("result"))
                .map_err(|_| reason(said, &file))
                .and_then(|came| compare(model, &sample.text, &came, lenience));
            if let Err(text) = text {
                misses.push(Miss { proof: proof.name.clone(), sample: sample.name.clone(), text });
            }
        }
    }
    misses
}

fn sample_file(folder: &Path, name: &str) -> PathBuf {
    folder.join(format!("{name}.json"))
}

fn reason(said: &str, file: &Path) -> String {
    let file = file.display().to_string();
    let reason = said.lines().find_map(|line| {
        let mut parts = line.splitn(3, '\t').skip(1);
        (parts.next() == Some(&file)).then(|| parts.next().unwrap_or_default().to_owned())
    });
    reason.unwrap_or_else(|| "the driver made nothing of it".to_owned())
}

pub(crate) fn compare(model: &Model, sent: &str, came: &str, lenience: Lenience) -> Result<(), String> {
    let sent = serde_json::from_str(sent).map_err(|error| format!("the sample is not JSON: {error}"))?;
    let came = serde_json::from_str(came).map_err(|error| format!("what came back is not JSON: {error}"))?;
    let comparison = Comparison { model, lenience };
    comparison.difference(&model.root.slot, &sent, &came, "$").map_or(Ok(()), Err)
}

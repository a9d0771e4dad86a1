//! The samples as files for a driver, and what it made of them.

use std::fmt::Write as _;
use std::fs;
use std::path::Path;

use jar_sprout_grow::Trial;

use crate::round_trip::difference;
use crate::trials::Proof;

/// A line for each sample: its trial, its file, the file for what comes back.
pub(crate) fn write_samples(trials: &[Trial], folder: &Path) -> String {
    let mut jobs = String::new();
    for trial in trials {
        for sample in &trial.samples {
            let file = folder.join(format!("{}.json", sample.name));
            fs::write(&file, &sample.text).unwrap();
            let result = file.with_extension("result");
            writeln!(jobs, "{}\t{}\t{}", trial.place, file.display(), result.display()).unwrap();
        }
    }
    jobs
}

/// What came back otherwise than it was sent.
pub(crate) fn differences(proofs: &[Proof], trials: &[Trial], folder: &Path) -> Vec<String> {
    let of_trial = |proof: &Proof, trial: &Trial| -> Vec<String> {
        let root = &proof.model.root.slot;
        let one = |name: &str, text: &str| {
            let came = fs::read_to_string(folder.join(format!("{name}.result"))).unwrap();
            let (sent, came) = (serde_json::from_str(text).unwrap(), serde_json::from_str(&came).unwrap());
            difference(&proof.model, root, &sent, &came, "$").map(|difference| format!("{name} {difference}"))
        };
        trial.samples.iter().filter_map(|sample| one(&sample.name, &sample.text)).collect()
    };
    proofs.iter().zip(trials).flat_map(|(proof, trial)| of_trial(proof, trial)).collect()
}

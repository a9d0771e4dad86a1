//! What is proven: the demo's samples, and data made to be awkward.

use std::fs;
use std::path::Path;

use jar_sprout_grow::{Arrangement, Language, Trial, TrialSample, grow};
use jar_sprout_model::{Model, SourceId};
use jar_sprout_settle::{Policies, RootName, draft_shape, root_name, settle};
use jar_sprout_shape::{Shape, observe};

/// A model and the samples it was made from.
pub(crate) struct Proof {
    pub(crate) name: String,
    pub(crate) model: Model,
    /// Each one JSON text.
    pub(crate) samples: Vec<String>,
}

/// All that every language must carry.
pub(crate) fn proofs() -> Vec<Proof> {
    let here = Path::new(env!("CARGO_MANIFEST_DIR"));
    let mut proofs = from_folder(&here.join("demo"));
    proofs.extend(from_folder(&here.join("tests/proofs/awkward")));
    assert!(proofs.len() >= 11, "the samples were found");
    proofs
}

/// A model for each file; files that differ only in their number are samples of the same thing.
fn from_folder(folder: &Path) -> Vec<Proof> {
    let mut files: Vec<_> = fs::read_dir(folder).unwrap().map(|entry| entry.unwrap().path()).collect();
    files.sort();
    let stem = |path: &Path| path.file_stem().unwrap().to_str().unwrap().to_owned();
    let thing =
        |path: &Path| stem(path).trim_end_matches(|c: char| c.is_ascii_digit() || c == '-').to_owned();
    files
        .chunk_by(|a, b| thing(a) == thing(b))
        .map(|group| {
            let texts: Vec<String> = group.iter().map(|path| fs::read_to_string(path).unwrap()).collect();
            let mut shape = Shape::default();
            for (source, text) in (0..).map(SourceId).zip(&texts) {
                observe(text.as_bytes(), source, &mut shape).expect("the sample is JSON");
            }
            let stems: Vec<String> = group.iter().map(|path| stem(path)).collect();
            let words = root_name(stems.iter().map(String::as_str), None);
            let policies = Policies::default();
            let drafted = draft_shape(&shape, &words, &policies);
            let name = RootName { words, is_given: false };
            let settled = settle(&drafted.draft, drafted.root, &name, &policies);
            let lines = group[0].extension().is_some_and(|extension| extension == "ndjson");
            let split = |text: &String| -> Vec<String> {
                if lines { text.lines().map(str::to_owned).collect() } else { vec![text.clone()] }
            };
            Proof {
                name: thing(&group[0]),
                model: settled.model,
                samples: texts.iter().flat_map(split).collect(),
            }
        })
        .collect()
}

/// Writes the code of every proof into a folder of its own, and the driver beside them.
pub(crate) fn lay_out(language: &dyn Language, proofs: &[Proof], folder: &Path) -> Vec<Trial> {
    let trials: Vec<Trial> =
        proofs.iter().enumerate().map(|(index, proof)| lay_out_one(language, proof, index, folder)).collect();
    for file in language.driver(&trials) {
        fs::write(folder.join(file.name), file.text).unwrap();
    }
    trials
}

fn lay_out_one(language: &dyn Language, proof: &Proof, index: usize, folder: &Path) -> Trial {
    let place = format!("t{index}");
    let code = folder.join(&place);
    fs::create_dir_all(&code).unwrap();
    for file in grow(language, &proof.model, &language.trial_settings(&place), Arrangement::AsUsual) {
        fs::write(code.join(file.name), file.text).unwrap();
    }
    let sample = |(number, text): (usize, &String)| TrialSample {
        name: format!("{}-{number}", proof.name),
        text: text.clone(),
    };
    Trial::new(language, &proof.model, &place, proof.samples.iter().enumerate().map(sample).collect())
}

//! The samples that every language must carry.

use std::fs;
use std::path::{Path, PathBuf};

use jar_sprout_model::{Model, SourceId, Words};
use jar_sprout_prove::{Proof, Sample};
use jar_sprout_settle::{Policies, RootName, draft_shape, root_name, settle};
use jar_sprout_shape::{Shape, observe};

fn here() -> &'static Path {
    Path::new(env!("CARGO_MANIFEST_DIR"))
}

/// All that every language must carry.
pub(crate) fn proofs() -> Vec<Proof> {
    let mut proofs = from_folder(&here().join("../cli/demo"));
    proofs.extend(from_folder(&here().join("tests/awkward")));
    let cases = from_cases(&here().join("../settle/tests/cases"));
    assert!(proofs.len() >= 15 && cases.len() >= 60, "the samples were found");
    proofs.extend(cases);
    proofs
}

fn files_of(folder: &Path) -> Vec<PathBuf> {
    let mut files: Vec<_> = fs::read_dir(folder).unwrap().map(|entry| entry.unwrap().path()).collect();
    files.sort();
    files
}

fn stem(path: &Path) -> String {
    path.file_stem().unwrap().to_str().unwrap().to_owned()
}

/// A model for each file; files that differ only in their number are samples of the same thing.
fn from_folder(folder: &Path) -> Vec<Proof> {
    let thing =
        |path: &Path| stem(path).trim_end_matches(|c: char| c.is_ascii_digit() || c == '-').to_owned();
    let of_group = |group: &[PathBuf]| {
        let lines = group[0].extension().is_some_and(|extension| extension == "ndjson");
        let split = |text: String| -> Vec<String> {
            if lines { text.lines().map(str::to_owned).collect() } else { vec![text] }
        };
        let samples: Vec<String> =
            group.iter().flat_map(|path| split(fs::read_to_string(path).unwrap())).collect();
        let stems: Vec<String> = group.iter().map(|path| stem(path)).collect();
        proof(&thing(&group[0]), samples, root_name(stems.iter().map(String::as_str), None))
    };
    files_of(folder).chunk_by(|a, b| thing(a) == thing(b)).map(of_group).collect()
}

/// The samples of the cases of inference: a line that says what a case shows, the name of its file, samples, `=>`.
fn from_cases(folder: &Path) -> Vec<Proof> {
    let of_case = |path: PathBuf| {
        let text = fs::read_to_string(&path).unwrap();
        let (given, _) = text.split_once("\n=>\n").unwrap();
        let mut lines = given.lines().skip(1).filter(|line| !line.trim().is_empty());
        let words = root_name([lines.next().unwrap()], None);
        proof(&stem(&path), lines.map(str::to_owned).collect(), words)
    };
    files_of(folder).into_iter().map(of_case).collect()
}

fn proof(name: &str, samples: Vec<String>, words: Words) -> Proof {
    let model = model(&samples, words);
    let sample = |(number, text)| Sample { name: format!("{name}-{number}"), text };
    // A null at the root is for whoever holds the value.
    let samples = samples.into_iter().filter(|text| text.trim() != "null");
    Proof { name: name.to_owned(), model, samples: samples.enumerate().map(sample).collect() }
}

fn model(samples: &[String], words: Words) -> Model {
    let mut shape = Shape::default();
    for (source, text) in (0..).map(SourceId).zip(samples) {
        observe(text.as_bytes(), source, &mut shape).expect("the sample is JSON");
    }
    let policies = Policies::default();
    let drafted = draft_shape(&shape, &words, &policies);
    settle(&drafted.draft, drafted.root, &RootName { words, is_given: false }, &policies).model
}

//! The sweep: every group of samples in a folder through every language, its compiler and its judges.

use std::fs;
use std::path::Path;
use std::time::Instant;

use anyhow::{Context, Result, bail};
use jar_sprout_grow::{LANGUAGES, Language, Settings, find_language};
use jar_sprout_model::SourceId;
use jar_sprout_prove::{Exhibit, Missing, Order, Proof, Report, Sample, ToolOutput, Tools, judge, prove};
use jar_sprout_settle::{Policies, RootName, infer, root_name};
use jar_sprout_shape::{Shape, observe};
use serde::Deserialize;

use crate::documents;

/// An entry of a folder's `index.json`.
#[derive(Deserialize)]
struct Entry {
    id: String,
    kind: String,
    files: Vec<String>,
    /// The document that the samples belong to.
    samples_for: Option<String>,
}

/// Proves every group of samples, in all languages or in those named after the folder; `KEY=VALUE` is a setting.
pub(crate) fn sweep(arguments: &[String]) -> Result<()> {
    let Some((folder, rest)) = arguments.split_first() else {
        bail!("sweep which folder? it holds an `index.json`")
    };
    let (settings, languages): (Vec<&String>, Vec<&String>) =
        rest.iter().partition(|text| text.contains('='));
    let languages: Vec<&dyn Language> = if languages.is_empty() {
        LANGUAGES.to_vec()
    } else {
        let find = |key: &&String| find_language(key).with_context(|| format!("no language `{key}`"));
        languages.iter().map(find).collect::<Result<_>>()?
    };
    let proofs = proofs(Path::new(folder))?;
    let tools = Tools::of_this_machine();
    let mut failed = false;
    for language in languages {
        let mut given = Settings::default();
        for (key, value) in settings.iter().filter_map(|setting| setting.split_once('=')) {
            if language.set(&mut given, key, value).is_err() {
                bail!("{} has no setting `{key}` with `{value}`", language.title());
            }
        }
        let start = Instant::now();
        let order = Order { language, settings: &given, with_judges: true, is_shared: false, memory: None };
        match prove(&order, &proofs, &tools)? {
            Err(Missing { what, install }) => {
                println!("{:<12} {what} is missing: {install}", language.title());
            }
            Ok(report) => failed |= show(language, &report, start),
        }
        let exhibit = |proof: &Proof| Exhibit {
            name: proof.name.clone(),
            model: proof.model.clone(),
            settings: given.clone(),
        };
        let exhibits: Vec<Exhibit> = proofs.iter().map(exhibit).collect();
        match judge(language, &exhibits, &tools)? {
            Err(Missing { what, install }) => {
                println!("{:<12} {what} is missing: {install}", language.title());
            }
            Ok(said) => {
                let said = said.unwrap_or_default();
                failed |= !said.is_empty();
                said.iter().for_each(show_output);
            }
        }
    }
    if failed { bail!("not everything holds") } else { Ok(()) }
}

/// A line for the language, and below it what failed; whether anything did.
fn show(language: &dyn Language, report: &Report, start: Instant) -> bool {
    let Report { toolchain, compiler, samples, misses, judges, proven: _ } = report;
    let equal = samples - misses.len();
    let seconds = start.elapsed().as_secs_f64();
    println!("{:<12} {toolchain:<28} {equal}/{samples} samples equal, {seconds:.0} s", language.title());
    compiler.iter().chain(judges).for_each(show_output);
    for miss in misses.iter().take(40) {
        println!("  {} {}: {}", miss.proof, miss.sample, miss.text.chars().take(300).collect::<String>());
    }
    !(compiler.is_empty() && misses.is_empty() && judges.is_empty())
}

/// What a tool said.
fn show_output(ToolOutput { tool, proofs, text }: &ToolOutput) {
    println!("  {tool} of {}", proofs.join(", "));
    text.lines().take(40).for_each(|line| println!("    {line}"));
}

/// A model for each group of samples and each document of a folder.
pub(crate) fn proofs(folder: &Path) -> Result<Vec<Proof>> {
    let index = folder.join("index.json");
    let text = fs::read_to_string(&index).with_context(|| index.display().to_string())?;
    let entries: Vec<Entry> = serde_json::from_str(&text)?;
    let samples = entries.iter().filter(|entry| entry.kind == "samples");
    let mut proofs: Vec<Proof> =
        samples.map(|entry| proof(folder, entry).with_context(|| entry.id.clone())).collect::<Result<_>>()?;
    let groups = proofs.len();
    for entry in entries.iter().filter(|entry| entry.kind != "samples") {
        let belonging: Vec<&Proof> = entries
            .iter()
            .filter(|other| other.samples_for.as_deref() == Some(&entry.id))
            .filter_map(|other| proofs[..groups].iter().find(|proof| proof.name == other.id))
            .collect();
        let of_documents = documents::proofs(folder, &entry.id, &entry.files, &belonging)?;
        proofs.extend(of_documents);
    }
    println!("{groups} groups of samples, {} documents", proofs.len() - groups);
    Ok(proofs)
}

fn proof(folder: &Path, entry: &Entry) -> Result<Proof> {
    let mut shape = Shape::default();
    let mut samples = Vec::new();
    for (source, file) in (0..).map(SourceId).zip(&entry.files) {
        let text = fs::read_to_string(folder.join(file))?;
        if observe(text.as_bytes(), source, &mut shape).is_err() {
            bail!("{file} is not JSON");
        }
        samples.extend(split(file, &text)?);
    }
    let stems: Vec<_> = entry.files.iter().filter_map(|file| Path::new(file).file_stem()?.to_str()).collect();
    let parent = entry.files.first().and_then(|file| Path::new(file).parent()?.file_name()?.to_str());
    let name = RootName { words: root_name(stems, parent, false), is_given: false };
    let model = infer(&shape, &name, &Policies::default()).settled.model;
    Ok(Proof { name: entry.id.clone(), model, samples })
}

/// The values of a file: one, or one a line.
fn split(file: &str, text: &str) -> Result<Vec<Sample>> {
    let values = serde_json::Deserializer::from_str(text).into_iter::<&serde_json::value::RawValue>();
    let sample = |(number, value): (usize, serde_json::Result<&serde_json::value::RawValue>)| {
        Ok(Sample { name: format!("{file}:{number}"), text: value?.get().to_owned() })
    };
    values.enumerate().map(sample).collect()
}

//! `jar-sprout demo`: the full example on the data of the Fennimarsh Honey Co-op.

use std::fmt::Write as _;
use std::path::{Path, PathBuf};

use jar_sprout_grow::LANGUAGES;
use jar_sprout_model::Model;

use crate::args::DemoArgs;
use crate::demo_data::{DOCUMENTS, ENDPOINTS, Endpoint, JAR, NEXT_YEAR, RECORDING, SAMPLES, Sample};
use crate::exit::Exit;
use crate::failure::{Failure, Outcome, reason};
use crate::files::{NewFile, Over, write_all};
use crate::grown::wanted_changes;
use crate::jar::{FILE, JarLanguage, open_models, read_jar};
use crate::look::size;
use crate::report;
use crate::wording::listed;

pub(crate) fn demo(args: &DemoArgs) -> Outcome<Exit> {
    write_data(&args.dir)?;
    std::env::set_current_dir(&args.dir).map_err(|error| Failure::path(reason(&error), &args.dir))?;
    let jar = read_jar(Path::new(""))?;
    let mut models = open_models(&jar, &[])?;
    if let Some((_, failure)) = models.failures.pop() {
        return Err(failure);
    }
    let languages: Vec<&JarLanguage> = jar.languages.iter().collect();
    wanted_changes(&jar, &models, &languages, Over::Grown)?.make()?;
    let lines: Vec<String> = ENDPOINTS
        .iter()
        .chain(DOCUMENTS)
        .filter_map(|endpoint| {
            let opened = models.opened.iter().find(|opened| opened.model.name == endpoint.name)?;
            Some(endpoint.line(&opened.modelled.settled.model))
        })
        .collect();
    report::result(&summary(&args.dir, &lines))?;
    Ok(Exit::Well)
}

/// Writes samples, documents, and the jar that says what becomes of them.
fn write_data(dir: &Path) -> Outcome<()> {
    let held = |endpoints: &'static [Endpoint], folder: &'static str| {
        let files = endpoints.iter().flat_map(|endpoint| endpoint.samples);
        files.map(move |Sample { file, text }| (Path::new(folder).join(file), *text))
    };
    let jar = [(PathBuf::from(FILE), JAR)];
    let recording = [(Path::new("recordings").join(RECORDING.file), RECORDING.text)];
    let next = NEXT_YEAR.iter().map(|(name, sample)| (Path::new("next-year").join(name), sample.text));
    let files =
        held(ENDPOINTS, SAMPLES).chain(held(DOCUMENTS, "documents")).chain(recording).chain(next).chain(jar);
    let files = files.map(|(path, text)| NewFile { path: dir.join(path), text: text.to_owned() });
    write_all(files.collect(), Over::Nothing).map_err(Failure::from)
}

impl Endpoint {
    /// `hives        a page of hives            6 types, 45 fields`
    fn line(&self, model: &Model) -> String {
        let Self { name, path: _, gives, samples: _ } = self;
        let types = model.types().count();
        let fields: usize = model.types().map(|(_, ty)| ty.definition.fields().len()).sum();
        format!(
            "  {name:<12} {gives:<26}  {types:>2} {}, {fields} fields",
            if types == 1 { "type" } else { "types" }
        )
    }
}

fn summary(dir: &Path, lines: &[String]) -> String {
    let dir = dir.display();
    let samples: Vec<&Sample> = ENDPOINTS.iter().flat_map(|endpoint| endpoint.samples).collect();
    let bytes: usize = samples.iter().map(|sample| sample.text.len()).sum();
    let languages: Vec<&str> = LANGUAGES.iter().map(|language| language.title()).collect();
    let mut out = String::new();
    let _ = writeln!(
        out,
        "The Fennimarsh Honey Co-op's API: {} saved responses, {}, now in {dir}/{SAMPLES}, two documents, and recorded traffic.\nEach became models in {}, as {dir}/{FILE} says:\n",
        samples.len(),
        size(bytes as u64),
        listed(&languages),
    );
    for line in lines {
        let _ = writeln!(out, "{line}");
    }
    let _ = write!(
        out,
        "\nTry next:\n  jar-sprout look {dir}/{SAMPLES}/hives.json\n  jar-sprout grow {dir}/{SAMPLES}/hives.json --at '$.hives[*]' --into kotlin\n  jar-sprout why {dir}/{SAMPLES}/hives.json --field Queen.status\n  jar-sprout look {dir}/documents/api.yaml\n  jar-sprout look {dir}/recordings/session.har\n  jar-sprout stand-in &\n  jar-sprout fetch http://127.0.0.1:8017/v1/hives --pages 5 --dir {dir}/fetched\n  jar-sprout drift {dir}/documents/api.yaml {dir}/next-year/api.yaml\n  cd {dir} && jar-sprout decide Queen.colour --rename mark --only hive && jar-sprout grow --dry-run && jar-sprout check\n  jar-sprout grow your-own-response.json --into typescript\n"
    );
    out
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn every_sample_of_the_demo_is_in_the_program() {
        let folder = Path::new(env!("CARGO_MANIFEST_DIR")).join("demo");
        let mut on_disk: Vec<String> = std::fs::read_dir(folder)
            .unwrap()
            .map(|entry| entry.unwrap().file_name().into_string().unwrap())
            .collect();
        let mut inside: Vec<&str> =
            ENDPOINTS.iter().chain(DOCUMENTS).flat_map(|e| e.samples).map(|s| s.file).collect();
        inside.extend([FILE, RECORDING.file]);
        inside.extend(NEXT_YEAR.iter().map(|(_, sample)| sample.file));
        on_disk.sort();
        inside.sort_unstable();
        assert_eq!(on_disk, inside);
    }
}

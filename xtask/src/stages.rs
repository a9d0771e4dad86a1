//! Every stage of one input: what came of its bytes on the way to code.

use std::fs;
use std::path::Path;

use anyhow::{Context, Result, anyhow, bail};
use jar_sprout_document::recognise_text;
use jar_sprout_grow::{Arrangement, Settings, find_language, grow_prepared, outline, prepare};
use jar_sprout_model::SourceId;
use jar_sprout_settle::{Inferred, Policies, RootName, infer, root_name};
use jar_sprout_shape::{Shape, observe};

use crate::documents;

/// What is said where the arguments make no sense.
const USAGE: &str = "stages FILE [LANGUAGE]: FILE holds JSON, NDJSON, JSON Schema or an API description";

/// Prints each stage under its name.
pub(crate) fn stages(arguments: &[String]) -> Result<()> {
    let [file, language @ ..] = arguments else { bail!("{USAGE}") };
    let key = language.first().map_or("kotlin", String::as_str);
    let language = find_language(key).with_context(|| format!("no language `{key}`"))?;
    let file = Path::new(file);
    let text = fs::read_to_string(file).with_context(|| file.display().to_string())?;
    let Inferred { drafted, settled } = match recognise_text(&text) {
        Some(_) => of_document(file, &text),
        None => of_samples(file, &text),
    }?;
    show("draft", &format!("{:#?}", drafted.draft));
    show("evidence", &format!("{:#?}", drafted.evidence));
    show("model", &format!("{:#?}", settled.model));
    let dialect = &*language.dialect(&Settings::default());
    let prepared = prepare(dialect, &settled.model);
    show("prepared model", &format!("{:#?}", prepared.model()));
    show("plan", &outline(dialect, &prepared));
    for file in grow_prepared(dialect, &prepared, Arrangement::Together).files {
        show(&file.name, &file.text);
    }
    Ok(())
}

fn show(stage: &str, text: &str) {
    println!("==== {stage}\n{}\n", text.trim_end());
}

fn of_samples(file: &Path, text: &str) -> Result<Inferred> {
    let mut shape = Shape::default();
    observe(text.as_bytes(), SourceId(0), &mut shape).map_err(|problem| anyhow!(problem.message))?;
    show("shape", &format!("{shape:#?}"));
    let name = RootName { words: root_name([stem(file).as_str()], None, false), is_given: false };
    Ok(infer(&shape, &name, &Policies::default()))
}

fn of_document(file: &Path, text: &str) -> Result<Inferred> {
    let name = file.file_name().unwrap_or_default().to_string_lossy();
    let folder = file.parent().unwrap_or(Path::new(""));
    documents::inferred(folder, &name, text).map_err(|problem| anyhow!(problem.message))
}

fn stem(file: &Path) -> String {
    file.file_stem().unwrap_or_default().to_string_lossy().into_owned()
}

//! Grown files on the disk: those that a jar asks for, and those that it asks for no more.

use std::collections::BTreeSet;
use std::fs;
use std::path::{Path, PathBuf};

use jar_sprout_grow::{
    Arrangement, Dialect, GrownFile, Language, Origin, Provenance, grow_prepared, grow_shared, marked,
    origin, prepare,
};
use jar_sprout_model::{Model, Problem};

use crate::files::{Changes, NewFile, Over};
use crate::jar::{FILE, Jar, JarLanguage, Models, Opened, Place, folder_name, folder_of, way};

/// The files of a model in a language, as its people lay them out; with a mark that says from what, if they get one.
pub(crate) fn grown_files(
    language: &dyn Language,
    dialect: &dyn Dialect,
    model: &Model,
    dir: &Path,
    from: Option<&Provenance>,
) -> Vec<NewFile> {
    let files = jar_sprout_grow::grow(dialect, model, Arrangement::AsUsual);
    in_folder(language, files, dir, from)
}

/// Code as files in a folder.
fn in_folder(
    language: &dyn Language,
    code: Vec<GrownFile>,
    dir: &Path,
    from: Option<&Provenance>,
) -> Vec<NewFile> {
    let file = |GrownFile { name, text }: GrownFile| NewFile {
        path: dir.join(name),
        text: if from.is_some() { marked(language, &text, from) } else { text },
    };
    code.into_iter().map(file).collect()
}

/// What the mark of code calls the model, where it is of all that the jar has.
pub(crate) const ALL_MODELS: &str = "all";

/// What it takes to have on the disk what the jar says: files written, and those removed that it says no more.
pub(crate) fn wanted_changes(
    jar: &Jar,
    models: &Models<'_>,
    languages: &[&JarLanguage],
    over: Over,
) -> Result<Changes, Problem> {
    let mut files = Vec::new();
    let mut wanted = BTreeSet::new();
    let mut adopted = 0;
    for language in languages {
        let mut shared = BTreeSet::new();
        let mut want = |name: &str, code: Vec<GrownFile>, dir: &Path| {
            let from = language.is_marked.then(|| Provenance::of_jar(name, &way_to_jar(dir)));
            let mut grown = in_folder(language.language, code, dir, from.as_ref());
            wanted.extend(grown.iter().map(|file| file.path.clone()));
            if !language.is_marked && over == Over::Grown {
                // Code without a mark is whose folder it is in, once it is there.
                let before = grown.len();
                grown.retain(|file| !file.path.exists());
                adopted += before - grown.len();
            }
            files.extend(grown);
        };
        for Opened { model, modelled, .. } in &models.opened {
            let Place { dir, dialect } = jar.place(language, model);
            let prepared = prepare(&*dialect, &modelled.settled.model);
            let grown = grow_prepared(&*dialect, &prepared, Arrangement::AsUsual);
            shared.extend(grown.shared);
            want(&model.name, grown.files, &dir);
        }
        if let Some(code) = jar.shared_code(language) {
            want(ALL_MODELS, grow_shared(&*code.dialect(language), &shared), &code.dir);
        }
    }
    let mut changes = Changes::to(files, over)?;
    changes.adopted = adopted;
    let are_all_opened = models.opened.len() == jar.models.len();
    let is_over = |model: &str| match model {
        // What the other models need of it is not known.
        ALL_MODELS => are_all_opened,
        model => models.is_over(jar, model),
    };
    for language in languages {
        changes.removed.extend(
            files_of_jar(jar, language)
                .filter(|(path, model, _)| !wanted.contains(path) && is_over(model))
                .map(|(path, _, text)| (path, text)),
        );
    }
    Ok(changes)
}

/// The files that this jar grew into the folder of a language, and that nobody changed since, each with its model: of
/// the folder itself and of those in it. None behind a link, none in what another jar governs, no copy.
fn files_of_jar<'j>(
    jar: &'j Jar,
    language: &'j JarLanguage,
) -> impl Iterator<Item = (PathBuf, String, String)> + 'j {
    let dir = &language.dir;
    // Where a model stands that is the only one.
    let alone = folder_of(language.language, &language.settings, dir);
    let places: Vec<(PathBuf, &str)> =
        jar.models.iter().map(|model| (jar.place(language, model).dir, model.name.as_str())).collect();
    // Where code is, or was when the jar had another model more or less.
    let above = places.iter().filter_map(|(place, _)| place.parent()).filter(|above| above.starts_with(dir));
    let above: BTreeSet<&Path> = above.chain([dir.as_path()]).collect();
    let inner = above.into_iter().flat_map(|above| [above.to_owned()].into_iter().chain(entries(above)));
    let folders: BTreeSet<PathBuf> =
        inner.chain(places.iter().map(|(place, _)| place.clone())).chain([alone.clone()]).collect();
    let is_place_of = move |folder: &Path, model: &str| {
        folder == *dir
            || model == ALL_MODELS && folder.starts_with(dir)
            || folder == alone
            || places.iter().any(|(place, name)| place == folder && *name == model)
            || folder.starts_with(dir) && folder.ends_with(folder_name(model))
    };
    let is_ours = |folder: &PathBuf| is_reached(dir, folder) && is_governed_here(folder);
    let ours = folders.into_iter().filter(is_ours);
    let files = ours.flat_map(|folder| {
        let way = way_to_jar(&folder);
        entries(&folder).into_iter().map(move |path| (path, way.clone()))
    });
    files.filter_map(move |(path, way)| {
        let is_of_language = path.extension().is_some_and(|ending| ending == language.language.ending());
        if !is_of_language || !is_real(&path, fs::FileType::is_file) {
            return None;
        }
        let text = fs::read_to_string(&path).ok()?;
        match origin(&text) {
            Origin::Grown(Provenance::Jar { model, jar })
                if jar == way && is_place_of(path.parent()?, &model) =>
            {
                Some((path, model, text))
            }
            Origin::Grown(_) | Origin::Changed | Origin::Foreign => None,
        }
    })
}

/// Whether something is what it is asked for, and no link to it.
fn is_real(path: &Path, is_it: fn(&fs::FileType) -> bool) -> bool {
    fs::symlink_metadata(path).is_ok_and(|about| is_it(&about.file_type()))
}

/// Whether a folder is one, and no link leads there from the folder above.
fn is_reached(above: &Path, folder: &Path) -> bool {
    let between = folder.ancestors().take_while(|part| part.starts_with(above) && *part != Path::new(""));
    let mut between = between.peekable();
    between.peek().is_some() && between.all(|part| is_real(part, fs::FileType::is_dir))
}

/// Whether the nearest jar of a folder is the one we are in.
fn is_governed_here(folder: &Path) -> bool {
    let here = Path::new(".").canonicalize();
    let Ok((folder, here)) = folder.canonicalize().and_then(|folder| Ok((folder, here?))) else {
        return false;
    };
    folder.ancestors().take_while(|above| **above != *here).all(|above| !above.join(FILE).exists())
}

fn entries(folder: &Path) -> Vec<PathBuf> {
    let mut paths: Vec<PathBuf> =
        fs::read_dir(folder).into_iter().flatten().flatten().map(|entry| entry.path()).collect();
    paths.sort();
    paths
}

/// The way from a folder to the jar that we are in: `../jar.toml`.
fn way_to_jar(folder: &Path) -> String {
    let way = way(folder, Path::new(""));
    if way.is_empty() { FILE.to_owned() } else { format!("{way}/{FILE}") }
}

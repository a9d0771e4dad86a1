//! `jar-sprout grow`: from samples to code.

use std::collections::BTreeSet;
use std::fs;
use std::path::{Path, PathBuf};
use std::time::Duration;

use jar_sprout_grow::{
    Arrangement, Dialect, GrownFile, LANGUAGES, Language, Origin, Provenance, Settings, fields_left_as_text,
    fields_with_words_left, is_marked, json_schema, marked, origin, types_too_wide, types_without_extras,
};
use jar_sprout_model::{Field, Model, NamedType, Problem, Spot};
use notify::{RecursiveMode, Watcher as _};
use similar::TextDiff;

use crate::args::{CodeArgs, GrowArgs, Questions};
use crate::commands::usage::tell_use;
use crate::exit::Exit;
use crate::failure::{Failure, Outcome};
use crate::files::{Changes, NewFile, Over, write_all};
use crate::grown::{ALL_MODELS, grown_files, wanted_changes};
use crate::jar::{
    BRINGS_OWN, FILE, Jar, JarLanguage, NewLanguage, Place, add_languages, enter_jar, enter_jar_alone,
    folder_of, nearest_jar, open_models, parse_jar, read_text, write_jar,
};
use crate::modelling::{Home, model, show_contradictions, show_questions};
use crate::report;
use crate::request::{Request, refuse_beside_jar, said_by_jar, setting_of_jar};
use crate::settings::{language, taken_apart, typed_settings};
use crate::source_names::SourceNames;
use crate::sources::gather;
use crate::wording::{counted, listed, quoted_with};

pub(crate) fn grow(args: &GrowArgs) -> Outcome<Exit> {
    if args.source.sources.is_empty() {
        refuse_beside_jar(&args.source, &args.model)?;
        return if args.watch { watch(args) } else { grow_jar(args) };
    }
    if args.watch {
        let problem = Failure::argument("watching is for a jar", "--watch");
        let help = "make one: `jar-sprout init hives.json --into kotlin`; then `jar-sprout grow --watch`";
        return Err(problem.with_help(help).into());
    }
    let Some(into) = &args.into else {
        let known: Vec<&str> = LANGUAGES.iter().map(|language| language.key()).collect();
        let help = format!("`--into` one of {}", quoted_with("and", &known));
        return Err(Failure::argument("into which language?", "jar-sprout grow").with_help(help).into());
    };
    if into == JSON_SCHEMA {
        return grow_schema(args);
    }
    let language = language(into, format!("--into {into}"))?;
    let settings = typed_settings(language, args.code.package.as_ref(), &args.code.settings)?;
    let dialect = &*language.dialect(&settings);
    let request = Request::of(&args.source, &args.model)?;
    let gathered = gather(&request.selection)?;
    gathered.show_warnings();
    let modelled = model(&gathered, &request)?;
    let is_decided = !request.decisions.is_empty();
    show_contradictions(&modelled, &gathered, &request.selection, is_decided, Home::Arguments)?;
    let model = &modelled.settled.model;
    match &args.dir {
        None => print_code(language, &settings, dialect, model)?,
        Some(dir) => {
            let from = is_marked(&settings).then(|| Provenance::of_source(&gathered.title()));
            let dir = &folder_of(language, &settings, dir);
            let files = grown_files(language, dialect, model, dir, from.as_ref());
            let names: Vec<String> = files.iter().map(|file| file_name(&file.path)).collect();
            let over = if args.overwrite { Over::Changed } else { Over::Grown };
            let changes = Changes::to(files, over)?;
            if args.dry_run {
                report::result(&diff(&changes))?;
                changes.refuse_to_overwrite()?;
            } else {
                changes.make()?;
                report::note(&format!("grown into {}: {}", dir.display(), names.join(", ")));
                tell_use(Some((dialect, model)), &format!("jar-sprout use … --into {into}"));
            }
        }
    }
    tell_left_out(language, dialect, model, &Spot::Argument(format!("--into {into}")));
    show_questions(&modelled, &gathered, args.model.questions, Home::Arguments);
    Ok(Exit::Well)
}

/// The most types or fields that a warning names.
const FEW_NAMES: usize = 3;

/// Says what of a model the code of a language does not have: keys beyond the fields of its types, and what texts say
/// that are JSON.
fn tell_left_out(language: &dyn Language, dialect: &dyn Dialect, model: &Model, spot: &Spot) {
    let tell = |names: Vec<String>, said: &dyn Fn(String) -> String| {
        if !names.is_empty() {
            let message = format!("{}: {}", language.title(), said(few(names)));
            report::problem(&Problem::warning(message, spot.clone()), &SourceNames::default());
        }
    };
    let types = types_without_extras(dialect, model).into_iter();
    let types = types.map(|ty| format!("`{}`", ty.name.in_capitals()));
    tell(types.collect(), &|names| format!("keys beyond the fields of {names} are not kept"));
    let wide = types_too_wide(dialect, model).into_iter();
    let wide = wide.map(|ty| format!("`{}`", ty.name.in_capitals()));
    tell(wide.collect(), &|names| {
        format!(
            "{names} has more fields than a class takes: the last ones are kept as other keys are, where the library keeps any"
        )
    });
    let names = |fields: Vec<(&NamedType, &Field)>| -> Vec<String> {
        let name = |(ty, field): (&NamedType, &Field)| format!("`{}.{}`", ty.name.in_capitals(), field.wire);
        fields.into_iter().map(name).collect()
    };
    tell(names(fields_left_as_text(dialect, model)), &|names| format!("the JSON in {names} stays a text"));
    tell(names(fields_with_words_left(dialect, model)), &|names| {
        format!("the words for nothing in {names} stay values")
    });
}

/// The first few names, and how many more there are.
fn few(mut names: Vec<String>) -> String {
    let more = names.len().saturating_sub(FEW_NAMES);
    names.truncate(FEW_NAMES);
    names.extend((more > 0).then(|| format!("{more} more")));
    listed(&names.iter().map(String::as_str).collect::<Vec<_>>())
}

/// What `--into` takes beside the languages.
const JSON_SCHEMA: &str = "json-schema";

/// The model as a JSON Schema, on standard output.
fn grow_schema(args: &GrowArgs) -> Outcome<Exit> {
    if let Some(setting) = args.code.settings.first() {
        let problem = Failure::argument("a JSON Schema has no settings", format!("--with {setting}"));
        return Err(problem.with_help("leave it out").into());
    }
    let request = Request::of(&args.source, &args.model)?;
    let gathered = gather(&request.selection)?;
    gathered.show_warnings();
    let modelled = model(&gathered, &request)?;
    let is_decided = !request.decisions.is_empty();
    show_contradictions(&modelled, &gathered, &request.selection, is_decided, Home::Arguments)?;
    let text = format!("{:#}\n", json_schema(&modelled.settled.model));
    match &args.dir {
        None => report::result(&text)?,
        Some(dir) => {
            let name = modelled.settled.model.root.name.iter().collect::<Vec<_>>().join("-");
            let path = dir.join(format!("{name}.schema.json"));
            let note = format!("grown into {}", path.display());
            write_all(vec![NewFile { path, text }], Over::Nothing)?;
            report::note(&note);
        }
    }
    show_questions(&modelled, &gathered, args.model.questions, Home::Arguments);
    Ok(Exit::Well)
}

fn file_name(path: &Path) -> String {
    path.file_name().map(|name| name.to_string_lossy().into_owned()).unwrap_or_default()
}

/// Grows all that the jar says.
fn grow_jar(args: &GrowArgs) -> Outcome<Exit> {
    let (_lock, jar) = if args.dry_run {
        (None, enter_jar("jar-sprout grow")?)
    } else {
        enter_jar_alone("jar-sprout grow")?
    };
    let (jar, added) = match new_language(args, &jar)? {
        None => (jar, None),
        Some(language) if args.dir.is_none() => return print_all(args, &jar, language),
        Some(language) => {
            let text = add_languages(&read_text(Path::new(""))?, &[added(language, args)]);
            (parse_jar(&text)?, Some((language, text)))
        }
    };
    let models = open_models(&jar, &args.only.only)?;
    let languages = jar.languages(args.into.as_deref())?;
    models.tell_troubles(&jar);
    let over = if args.overwrite { Over::Changed } else { Over::Grown };
    let changes = wanted_changes(&jar, &models, &languages, over)?;
    if args.dry_run {
        report::result(&diff(&changes))?;
    }
    changes.refuse_to_overwrite()?;
    tell_removed(&changes, args.dry_run);
    if !args.dry_run {
        changes.make()?;
        // The jar says it once it is so.
        if let Some((language, text)) = added {
            write_jar(&text)?;
            report::note(&format!("added to {FILE}: language `{}`", language.key()));
        }
        report::note(&summary(&changes));
        if !changes.is_nothing() {
            // Of several there is no one line.
            let alone = match (&models.opened[..], &languages[..]) {
                ([one], [language]) => Some((jar.place(language, one.model).dialect, one)),
                _ => None,
            };
            let alone = alone.as_ref().map(|(dialect, one)| (&**dialect, &one.modelled.settled.model));
            tell_use(alone, "jar-sprout use");
        }
    }
    for one in &models.opened {
        one.gathered.show_warnings();
        for language in &languages {
            let Place { dir: _, dialect } = jar.place(language, one.model);
            let (language, model) = (language.language, &one.modelled.settled.model);
            tell_left_out(language, &*dialect, model, &Spot::Path(FILE.to_owned()));
        }
        if changes.is_nothing() && args.model.questions == Questions::Worst {
            // What was said when it was grown need not be said again.
            continue;
        }
        let home = jar.home(one.model);
        let is_decided = !one.model.decisions.is_empty();
        show_contradictions(&one.modelled, &one.gathered, &one.model.request.selection, is_decided, home)?;
        show_questions(&one.modelled, &one.gathered, args.model.questions, home);
    }
    Ok(if models.failures.is_empty() { Exit::Well } else { Exit::Unusable })
}

/// The language that was named and that the jar does not grow yet. What is said of one that it grows stands in the
/// jar.
fn new_language(args: &GrowArgs, jar: &Jar) -> Result<Option<&'static dyn Language>, Problem> {
    let GrowArgs { into, dir, code: CodeArgs { package, settings }, .. } = args;
    let is_known = |into: &String| jar.languages(Some(into)).is_ok();
    if let Some(into) = into.as_ref().filter(|into| !is_known(into)) {
        return Ok(Some(language(into, format!("--into {into}"))?));
    }
    if let Some(dir) = dir {
        let dir = dir.display();
        return Err(said_by_jar(format!("--dir {dir}"), &format!("`dir = \"{dir}\"` under its language")));
    }
    if let Some(package) = package {
        return Err(setting_of_jar(&format!("package={package}")));
    }
    settings.first().map_or(Ok(None), |setting| Err(setting_of_jar(setting)))
}

/// A language as it was named, for the jar.
fn added(language: &'static dyn Language, args: &GrowArgs) -> NewLanguage {
    let dir = args.dir.as_ref().map(|dir| dir.to_string_lossy().replace('\\', "/")).unwrap_or_default();
    let settings = taken_apart(language, args.code.package.as_ref(), &args.code.settings);
    NewLanguage { key: language.key(), dir, settings }
}

/// All models of the jar in a language that it does not grow, on standard output.
fn print_all(args: &GrowArgs, jar: &Jar, language: &'static dyn Language) -> Outcome<Exit> {
    let models = open_models(jar, &args.only.only)?;
    models.tell_troubles(jar);
    let settings = typed_settings(language, args.code.package.as_ref(), &args.code.settings)?;
    let (name, dir, is_marked) = (language.key().to_owned(), PathBuf::new(), is_marked(&settings));
    let printed =
        JarLanguage { name, language, dir, settings, is_marked, shared: Some(BRINGS_OWN.to_owned()) };
    for one in &models.opened {
        let Place { dir: _, dialect } = jar.place(&printed, one.model);
        print_code(language, &printed.settings, &*dialect, &one.modelled.settled.model)?;
    }
    Ok(if models.failures.is_empty() { Exit::Well } else { Exit::Unusable })
}

/// The code of a model in one text, on standard output.
fn print_code(
    language: &dyn Language,
    settings: &Settings,
    dialect: &dyn Dialect,
    model: &Model,
) -> Outcome<()> {
    for GrownFile { name: _, text } in jar_sprout_grow::grow(dialect, model, Arrangement::Together) {
        report::result(&if is_marked(settings) { marked(language, &text, None) } else { text })?;
    }
    Ok(())
}

/// Says what is going to be removed, before it is, and how a model that moves stays where it is.
fn tell_removed(changes: &Changes, is_dry: bool) {
    let removing = if is_dry { "would remove" } else { "removing" };
    let (mut moving, mut sharing) = (BTreeSet::new(), BTreeSet::new());
    for (path, text) in &changes.removed {
        report::note(&format!("{removing} {}: nothing asks for it any more", path.display()));
        let Some(model) = model_of(text) else { continue };
        let namesakes = changes.written.iter().filter(|(file, _)| file.path.file_name() == path.file_name());
        for (file, _) in namesakes {
            match model_of(&file.text) {
                Some(all) if all == ALL_MODELS => sharing.extend(file.path.parent()),
                Some(same) if same == model => drop(moving.insert(same)),
                Some(_) | None => {}
            }
        }
    }
    for folder in sharing {
        report::note(&format!(
            "  what all models need stands in {} from now on; `shared = \"none\"` under the language in jar.toml leaves it with each",
            folder.display()
        ));
    }
    for model in moving {
        report::note(&format!(
            "  the code of {model} moves; `folder = \".\"` under [models.{model}] in jar.toml keeps it where it is"
        ));
    }
}

/// The model of a jar that a file is grown from.
fn model_of(text: &str) -> Option<String> {
    match origin(text) {
        Origin::Grown(Provenance::Jar { model, jar: _ }) => Some(model),
        Origin::Grown(Provenance::Source(_)) | Origin::Changed | Origin::Foreign => None,
    }
}

fn summary(changes: &Changes) -> String {
    let Changes { written, unchanged, adopted, removed: _, kept: _, foreign: _, of_others: _ } = changes;
    if changes.is_nothing() {
        return format!("{}: nothing to do", counted(unchanged + adopted, "file"));
    }
    let mut lines: Vec<String> = written
        .iter()
        .map(|(file, old)| {
            format!("  {} {}", if old.is_some() { "changed" } else { "new    " }, file.path.display())
        })
        .collect();
    if *adopted > 0 {
        lines.push(format!("  and {} yours, since no mark says otherwise", counted(*adopted, "file")));
    }
    if *unchanged > 0 {
        lines.push(format!("  and {} unchanged", counted(*unchanged, "file")));
    }
    lines.insert(0, "grown:".to_owned());
    lines.join("\n")
}

/// What would change, as a unified diff.
fn diff(changes: &Changes) -> String {
    let Changes { written, unchanged: _, adopted: _, removed, kept: _, foreign: _, of_others: _ } = changes;
    let written = written.iter().map(|(file, old)| (&file.path, old.as_deref(), Some(file.text.as_str())));
    let removed = removed.iter().map(|(path, old)| (path, Some(old.as_str()), None));
    let one = |(path, old, new): (&PathBuf, Option<&str>, Option<&str>)| {
        let name = |side: &str, is_there: bool| {
            if is_there { format!("{side}/{}", path.display()) } else { "/dev/null".to_owned() }
        };
        TextDiff::from_lines(old.unwrap_or_default(), new.unwrap_or_default())
            .unified_diff()
            .header(&name("a", old.is_some()), &name("b", new.is_some()))
            .to_string()
    };
    written.chain(removed).map(one).collect()
}

/// How long changes are collected before the jar is grown again.
const PAUSE: Duration = Duration::from_millis(200);

/// Grows now, and again whenever something in the jar's folder changes that was not grown.
fn watch(args: &GrowArgs) -> Outcome<Exit> {
    let folder = nearest_jar().unwrap_or_default();
    let (sender, changes) = std::sync::mpsc::channel();
    let unwatchable =
        |error: &notify::Error| Failure::path(format!("cannot watch this folder: {error}"), &folder);
    let mut watcher = notify::recommended_watcher(sender).map_err(|error| unwatchable(&error))?;
    grow_again(args);
    watcher.watch(&folder, RecursiveMode::Recursive).map_err(|error| unwatchable(&error))?;
    report::note("watching; press Ctrl-C to stop");
    while let Ok(first) = changes.recv() {
        std::thread::sleep(PAUSE);
        let all: Vec<_> = [first].into_iter().chain(changes.try_iter()).collect();
        if all.iter().flatten().any(is_of_a_person) {
            grow_again(args);
        }
    }
    Ok(Exit::Well)
}

/// A failure is told, and the next change may mend it.
fn grow_again(args: &GrowArgs) {
    if let Err(failure) = grow_jar(args) {
        report::failure(&failure);
    }
}

/// Whether a change is of something that we did not write ourselves.
fn is_of_a_person(event: &notify::Event) -> bool {
    let is_ours = |path: &PathBuf| {
        let is_passing = path.iter().any(|name| name.to_string_lossy().starts_with(crate::stage::OURS));
        let text = || fs::read_to_string(path).unwrap_or_default();
        is_passing || path.is_dir() || origin(&text()) != Origin::Foreign
    };
    !event.kind.is_access() && !event.paths.iter().all(is_ours)
}

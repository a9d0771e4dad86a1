//! Code: the files that a language grows from a model.

use std::borrow::Cow;
use std::collections::BTreeSet;

use jar_sprout_layout::{Doc, cat, hard, lines, print, print_out, text};
use jar_sprout_model::{Model, OnWire, Scalar, each};

use crate::extras::with_kept_extras;
use crate::language::Language;
use crate::plan::{Absence, Ident, Plan, PlannedRoot, PlannedType, Wanted};
use crate::settings::{ABSENT, ENTRY, Settings};
use crate::times::Times;
use crate::twins::{Twinned, twinned};

/// What every grown file says in its first line, behind the language's own comment sign.
pub const MARK: &str = "Grown by Jar Sprout.";

/// One file of code.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct GrownFile {
    /// Its name, without a folder.
    pub name: String,
    /// Its whole text, with a newline at the end.
    pub text: String,
}

/// How types are spread over files.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Arrangement {
    /// All in one text.
    Together,
    /// As the language's people do it: one type a file, or all in one.
    AsUsual,
}

/// The code of a model in a language.
pub fn grow(
    language: &dyn Language,
    model: &Model,
    settings: &Settings,
    arrangement: Arrangement,
) -> Vec<GrownFile> {
    let times = Times::of(model, language.time_keeping(settings));
    let model = times.writable(model);
    let model = holdable(language, model, settings);
    let model = with_kept_extras(language, model, settings);
    let twinned = twinned(language, &model, settings);
    let model: &Model = twinned.as_ref().map_or(&model, |twinned| &twinned.model);
    // A twin is made of what is there.
    let tells_absence = language.tells_absence(settings) && twinned.is_none();
    let absence = match (tells_absence, settings.given(ABSENT.key)) {
        (false, _) => Absence::Untold,
        (true, Some("apart")) => Absence::Told,
        (true, _) => Absence::ToldInPatches,
    };
    let has_entry = settings.given(ENTRY.key) == Some("functions");
    let first_twin = twinned.as_ref().and_then(|twinned| twinned.pairs.first());
    let wanted = Wanted {
        absence,
        has_entry,
        has_defaults: language.fills_in(settings),
        first_twin: first_twin.map_or(usize::MAX, |(_, twin)| twin.index()),
    };
    let mut plan = Plan::of(model, &language.about().naming, times, wanted);
    if let Some(Twinned { pairs, model: _ }) = &twinned {
        plan.pair(pairs);
    }
    if language.nests(settings) {
        plan.nest();
    }
    if arrangement == Arrangement::AsUsual && language.has_file_per_type(settings) {
        return file_per_type(language, &plan, settings, has_entry);
    }
    let mut unit = spell_unit(language, &plan, settings, one_unit(&plan, has_entry));
    unit.needs.is_whole = true;
    vec![unit.print(language, settings)]
}

/// A file for each type, and for what goes beside them.
fn file_per_type(
    language: &dyn Language,
    plan: &Plan<'_>,
    settings: &Settings,
    has_entry: bool,
) -> Vec<GrownFile> {
    // Each is printed when it is spelled, so that its memory is free for the next one.
    let printed = each(unit_per_type(plan, has_entry), |unit| {
        let mut unit = spell_unit(language, plan, settings, unit);
        let helpers = std::mem::take(&mut unit.needs.helpers);
        // Where nothing reads, there is nothing to enter by.
        let is_empty = unit.declarations.is_empty();
        (!is_empty).then(|| (unit.print(language, settings), helpers))
    });
    let mut files = Vec::with_capacity(printed.len());
    let mut all_helpers = BTreeSet::new();
    for (file, helpers) in printed.into_iter().flatten() {
        files.push(file);
        all_helpers.extend(helpers);
    }
    // Every helper has a file of its own, once.
    files.extend(all_helpers.into_iter().map(|helper: Helper| {
        let mut needs = Needs::default();
        let declarations = vec![helper.declaration(language, settings, &mut needs)];
        Unit { name: helper.name.to_owned(), declarations, needs }.print(language, settings)
    }));
    if language.has_namespace_file(settings) {
        let unit = Unit { name: String::new(), declarations: Vec::new(), needs: Needs::default() };
        files.push(unit.print(language, settings));
    }
    files
}

/// The model with what a language holds in place of what it does not.
fn holdable<'m>(language: &dyn Language, model: Cow<'m, Model>, settings: &Settings) -> Cow<'m, Model> {
    if model.scalars().all(|scalar| language.holds(scalar, settings)) {
        return model;
    }
    let mut model = model.into_owned();
    model.change_scalars(&|scalar| match (language.holds(scalar, settings), scalar.on_wire()) {
        (true, _) => scalar,
        (false, OnWire::Text) => Scalar::Text,
        (false, OnWire::Boolean | OnWire::Integer | OnWire::Number) => Scalar::Float,
    });
    Cow::Owned(model)
}

/// Where a file comes from.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum Origin {
    /// A person wrote it.
    Foreign,
    /// We grew it, for the model of this name if it has one, and nobody changed it since.
    Grown(Option<String>),
    /// We grew it, and somebody changed it since.
    Changed(Option<String>),
}

/// A grown text with a seal in its mark, by which it is known again: `Grown by Jar Sprout: hives 5f3a9c01`.
pub fn sealed(text: &str, model: Option<&str>) -> String {
    let (first, rest) = text.split_once('\n').unwrap_or((text, ""));
    let model = model.map(|model| format!("{model} ")).unwrap_or_default();
    let mark = format!("{}: {model}{}", MARK.trim_end_matches('.'), seal(rest));
    format!("{}\n{rest}", first.replacen(MARK, &mark, 1))
}

/// Where a file's text comes from.
pub fn origin(text: &str) -> Origin {
    let (first, rest) = text.split_once('\n').unwrap_or((text, ""));
    let first = first.trim_end();
    if first.ends_with(MARK) {
        return Origin::Grown(None);
    }
    let Some((_, said)) = first.split_once(&format!("{}: ", MARK.trim_end_matches('.'))) else {
        return Origin::Foreign;
    };
    let (model, found) = match said.rsplit_once(' ') {
        Some((model, found)) => (Some(model.to_owned()), found),
        None => (None, said),
    };
    if found == seal(rest) { Origin::Grown(model) } else { Origin::Changed(model) }
}

/// A checksum that does not see how lines end, which version control may change.
fn seal(text: &str) -> String {
    format!("{:08x}", crc32fast::hash(text.replace("\r\n", "\n").as_bytes()))
}

/// What goes into one file.
struct Planned<'p> {
    name: String,
    types: Vec<&'p PlannedType<'p>>,
    /// The roots whose aliases stand in it.
    roots: Vec<&'p PlannedRoot<'p>>,
    /// Whether the functions stand in it that read and write whole samples.
    has_entry: bool,
}

fn one_unit<'p>(plan: &'p Plan<'p>, has_entry: bool) -> Planned<'p> {
    let roots = plan.roots.iter().collect();
    Planned { name: plan.title().to_owned(), types: plan.outermost().collect(), roots, has_entry }
}

fn unit_per_type<'p>(plan: &'p Plan<'p>, has_entry: bool) -> Vec<Planned<'p>> {
    let unit = |ident: &Ident, types, roots| Planned {
        name: ident.as_str().to_owned(),
        types,
        roots,
        has_entry: false,
    };
    let root = |root: &'p PlannedRoot<'p>| match root {
        PlannedRoot::Named { .. } => None,
        PlannedRoot::Alias { ident, .. } => Some(unit(ident, Vec::new(), vec![root])),
    };
    let types = plan.outermost().map(|ty| unit(&ty.ident, vec![ty], Vec::new()));
    let entry = has_entry.then(|| Planned { has_entry, ..unit(plan.entry_home(), Vec::new(), Vec::new()) });
    plan.roots.iter().filter_map(root).chain(types).chain(entry).collect()
}

/// The declarations of one file, and what they need.
struct Unit {
    name: String,
    declarations: Vec<Doc>,
    needs: Needs,
}

/// What declarations need beside themselves; noted where a type is spelled.
#[derive(Debug, Default)]
pub struct Needs {
    /// Imported names, as the language writes them.
    pub(crate) imports: BTreeSet<&'static str>,
    /// What is said of the whole file, as the language writes it.
    pub(crate) file_annotations: BTreeSet<&'static str>,
    /// Constant helper code.
    pub(crate) helpers: BTreeSet<Helper>,
    /// What cannot stand inside the namespace that the other declarations of the file stand in.
    pub(crate) outside: Vec<Doc>,
    /// Whether the file has all there is.
    pub(crate) is_whole: bool,
}

impl Needs {
    fn add(&mut self, other: Self) {
        let Self { imports, file_annotations, helpers, outside, is_whole } = other;
        self.imports.extend(imports);
        self.file_annotations.extend(file_annotations);
        self.helpers.extend(helpers);
        self.outside.extend(outside);
        self.is_whole |= is_whole;
    }
}

/// Constant helper code: a real file in its language, with imports of its own.
#[derive(Debug, Clone, Copy, PartialEq, Eq, PartialOrd, Ord)]
pub struct Helper {
    /// The name of what it declares, and of its file.
    pub(crate) name: &'static str,
    /// The whole file.
    pub(crate) text: &'static str,
}

fn spell_unit<'p>(
    language: &dyn Language,
    plan: &'p Plan<'p>,
    settings: &Settings,
    unit: Planned<'p>,
) -> Unit {
    let Planned { name, mut types, roots, has_entry } = unit;
    let mut needs = Needs::default();
    if language.declares_inside_out() {
        types.reverse();
    }
    types.sort_by_key(|ty| language.rank(ty));
    if language.declares_inside_out() {
        types = plan.bases_first(types);
    }
    let declared = each(types, |ty| {
        let mut needs = Needs::default();
        (declared(language, plan, ty, settings, &mut needs), needs)
    });
    let mut declarations = Vec::with_capacity(declared.len());
    for (declaration, own) in declared {
        declarations.push(declaration);
        needs.add(own);
    }
    let aliases = roots.into_iter().filter_map(|root| match root {
        PlannedRoot::Named { .. } => None,
        PlannedRoot::Alias { ident, slot } => Some(language.alias(plan, ident, slot, settings, &mut needs)),
    });
    let aliases: Vec<Doc> = aliases.collect();
    let place = if language.declares_inside_out() { declarations.len() } else { 0 };
    declarations.splice(place..place, aliases);
    if has_entry {
        declarations.extend(language.entry(plan, settings, &mut needs));
    }
    Unit { name, declarations, needs }
}

/// The declarations that stand inside another.
pub(crate) fn nested(
    language: &dyn Language,
    plan: &Plan<'_>,
    host: &PlannedType<'_>,
    settings: &Settings,
    needs: &mut Needs,
) -> Vec<Doc> {
    plan.nested_in(host).map(|ty| declared(language, plan, ty, settings, needs)).collect()
}

/// A declaration with what is said of it.
fn declared(
    language: &dyn Language,
    plan: &Plan<'_>,
    ty: &PlannedType<'_>,
    settings: &Settings,
    needs: &mut Needs,
) -> Doc {
    let declaration = match plan.wire_of(ty) {
        Some(wire) => language.declare_twin(plan, ty, wire, settings, needs),
        None => language.declare(plan, ty, settings, needs),
    };
    lines(language.comment(plan, ty, settings).into_iter().chain([declaration]))
}

impl Unit {
    fn print(self, language: &dyn Language, settings: &Settings) -> GrownFile {
        let Self { name, mut declarations, mut needs } = self;
        for helper in std::mem::take(&mut needs.helpers) {
            let declaration = helper.declaration(language, settings, &mut needs);
            let place = if language.declares_inside_out() { 0 } else { declarations.len() };
            declarations.insert(place, declaration);
        }
        let name = language.file_name(&name, settings);
        let doc = language.assemble(&name, settings, &needs, declarations);
        let (doc, style) = (cat([doc, hard()]), &language.about().style);
        // Of many files, each core prints its own.
        let text = if needs.is_whole { print_out(doc, style) } else { print(&doc, style) };
        GrownFile { name, text }
    }
}

impl Helper {
    /// The helper's code; its imports go where all imports go.
    fn declaration(self, language: &dyn Language, settings: &Settings, needs: &mut Needs) -> Doc {
        let (inside, outside) = language.split_helper(self, settings);
        needs.outside.extend(outside.map(|code| lines(code.lines().map(|line| text(line.to_owned())))));
        let mut code = Vec::new();
        for line in inside.trim_end().lines() {
            match language.imported(line) {
                Some(name) => drop(needs.imports.insert(name)),
                None if code.is_empty() && line.is_empty() => {}
                None => code.push(text(line)),
            }
        }
        lines(code)
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn a_seal_is_known_again() {
        let text = "// Grown by Jar Sprout.\npackage x\n";
        assert_eq!(origin(text), Origin::Grown(None));
        assert_eq!(origin("package x\n// Grown by Jar Sprout.\n"), Origin::Foreign);
        assert_eq!(origin(""), Origin::Foreign);
        for model in [None, Some("hives")] {
            let sealed = sealed(text, model);
            let model = model.map(str::to_owned);
            assert_eq!(origin(&sealed), Origin::Grown(model.clone()));
            assert_eq!(origin(&sealed.replace('\n', "\r\n")), Origin::Grown(model.clone()));
            assert_eq!(origin(&sealed.replace("package x", "package y")), Origin::Changed(model));
        }
    }
}

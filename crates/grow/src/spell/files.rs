//! Files: which declarations stand in which, and what they need beside them.

use std::borrow::Cow;
use std::collections::{BTreeMap, BTreeSet};

use jar_sprout_layout::{Doc, cat, hard, lines, print, print_out, text};
use jar_sprout_model::each;

use super::dialect::Dialect;
use super::grown_file::GrownFile;
use super::sheet::{BlankSheet, Borrowed, Helper, Needs, Sheet};
use super::usage::{Body, Place, Program, Usage, UsingProgram};
use crate::plan::{Ident, Plan, PlannedRoot, PlannedType};
use crate::prepare::{Abilities, Order};
use crate::settings::{Entry, Spread};

/// How types are spread over files.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Arrangement {
    /// All in one text.
    Together,
    /// As the language's people do it: one type a file, or all in one.
    AsUsual,
}

/// Code, and what it finds with what all models share.
#[derive(Debug, Default)]
pub struct Grown {
    /// The files.
    pub files: Vec<GrownFile>,
    /// The helpers whose code stands elsewhere.
    pub shared: BTreeSet<Helper>,
}

/// The code of a plan.
pub(crate) fn spell(dialect: &dyn Dialect, plan: &Plan<'_>, arrangement: Arrangement) -> Grown {
    let speller = &Speller { dialect, abilities: dialect.abilities(), plan };
    if arrangement == Arrangement::AsUsual && speller.abilities.spread == Spread::PerType {
        return speller.file_per_type();
    }
    let mut unit = speller.spell_unit(speller.one_unit());
    unit.needs.is_whole = true;
    speller.declare_nothings(&mut unit);
    let shared = take_shared(dialect, &mut unit.needs.helpers);
    Grown { files: vec![speller.print(unit, &shared)], shared }
}

/// Takes out of helpers those whose code stands with what all models share: all, or none.
fn take_shared(dialect: &dyn Dialect, helpers: &mut BTreeSet<Helper>) -> BTreeSet<Helper> {
    if dialect.shared().is_some() { std::mem::take(helpers) } else { BTreeSet::new() }
}

/// The code of helpers that all models share.
pub(crate) fn spell_shared(dialect: &dyn Dialect, needed: &BTreeSet<Helper>) -> Vec<GrownFile> {
    let mut files: BTreeMap<&str, BTreeSet<Helper>> = BTreeMap::new();
    let all = dialect.shared_helpers(needed);
    for helper in &all {
        files.entry(dialect.shared_file(*helper)).or_default().insert(*helper);
    }
    let file = |(name, helpers): (&str, BTreeSet<Helper>)| {
        let mut needs = Needs::default();
        let code = |helper: &Helper| helper_code(dialect, *helper, |line| dialect.opened(line), &mut needs);
        let declarations: Vec<Doc> = helpers.iter().map(code).collect();
        let others = all.difference(&helpers).copied().collect();
        assembled(dialect, Unit { name: name.to_owned(), declarations, needs }, &others)
    };
    files.into_iter().map(file).collect()
}

/// How the code of a plan is used to read a file.
pub(crate) fn used(dialect: &dyn Dialect, plan: &Plan<'_>, place: Place<'_>) -> Usage {
    let speller = &Speller { dialect, abilities: dialect.abilities(), plan };
    let mut needs = Needs { is_whole: true, ..Needs::default() };
    let program = dialect.program(&mut speller.sheet(&mut needs), place);
    let program = program.map(|Program { body, folder, run, reading }| {
        let file = match body {
            Body::Declarations(declarations) => {
                // What the types need stands with them.
                let there = speller.spell_unit(speller.one_unit()).needs.helpers;
                needs.helpers.retain(|helper| !there.contains(helper));
                let mut unit = Unit { name: plan.program().to_string(), declarations, needs };
                let shared = take_shared(dialect, &mut unit.needs.helpers);
                speller.print(unit, &shared)
            }
            Body::Whole(name, doc) => {
                GrownFile { name, text: print_out(cat([doc, hard()]), &dialect.about().style) }
            }
        };
        UsingProgram { file, folder, run, reading }
    });
    Usage { project: dialect.project(), program }
}

/// What spells a plan.
struct Speller<'p> {
    dialect: &'p dyn Dialect,
    abilities: Abilities,
    plan: &'p Plan<'p>,
}

impl<'p> Speller<'p> {
    /// A file for each type, and for what goes beside them.
    fn file_per_type(&self) -> Grown {
        // Each is printed when it is spelled, so that its memory is free for the next one.
        let printed = each(self.unit_per_type(), |unit| {
            let mut unit = self.spell_unit(unit);
            let helpers = std::mem::take(&mut unit.needs.helpers);
            let nothings = std::mem::take(&mut unit.needs.nothings);
            // Where nothing reads, there is nothing to enter by.
            let is_empty = unit.declarations.is_empty();
            (!is_empty).then(|| (self.print(unit, &helpers), helpers, nothings))
        });
        let mut files = Vec::with_capacity(printed.len());
        let (mut all_helpers, mut all_nothings) = (BTreeSet::new(), BTreeSet::new());
        for (file, helpers, nothings) in printed.into_iter().flatten() {
            files.push(file);
            all_helpers.extend(helpers);
            all_nothings.extend(nothings);
        }
        for index in all_nothings {
            let mut needs = Needs::default();
            let declarations = self.nothing(index, &mut needs).into_iter().collect();
            let helpers = std::mem::take(&mut needs.helpers);
            let name = self.plan.nothings[index].ident.to_string();
            files.push(self.print(Unit { name, declarations, needs }, &helpers));
            all_helpers.extend(helpers);
        }
        let none = BTreeSet::new();
        let shared = take_shared(self.dialect, &mut all_helpers);
        // Every helper has a file of its own, once.
        files.extend(all_helpers.into_iter().map(|helper: Helper| {
            let mut needs = Needs::default();
            let declarations = vec![self.helper(helper, &mut needs)];
            self.print(Unit { name: helper.name.to_owned(), declarations, needs }, &none)
        }));
        if self.abilities.has_namespace_file {
            let (name, declarations) = (String::new(), Vec::new());
            files.push(self.print(Unit { name, declarations, needs: Needs::default() }, &none));
        }
        Grown { files, shared }
    }

    fn has_entry(&self) -> bool {
        self.abilities.entry == Entry::Functions
    }

    fn one_unit(&self) -> Planned<'p> {
        Planned {
            name: self.plan.title().to_owned(),
            types: self.plan.outermost().collect(),
            roots: self.plan.roots.iter().collect(),
            has_entry: self.has_entry(),
        }
    }

    fn unit_per_type(&self) -> Vec<Planned<'p>> {
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
        let types = self.plan.outermost().map(|ty| unit(&ty.ident, vec![ty], Vec::new()));
        let entry = || Planned { has_entry: true, ..unit(self.plan.entry_home(), Vec::new(), Vec::new()) };
        let entry = self.has_entry().then(entry);
        self.plan.roots.iter().filter_map(root).chain(types).chain(entry).collect()
    }

    fn spell_unit(&self, unit: Planned<'p>) -> Unit {
        let Planned { name, types, roots, has_entry } = unit;
        let declared = each(self.ordered(types), |ty| {
            let mut needs = Needs::default();
            let declaration = declared(self.dialect, &mut self.sheet(&mut needs), ty);
            (declaration, needs)
        });
        let mut needs = Needs::default();
        let mut declarations = Vec::with_capacity(declared.len());
        for (declaration, own) in declared {
            declarations.push(declaration);
            needs.add(own);
        }
        let mut sheet = self.sheet(&mut needs);
        let aliases = roots.into_iter().filter_map(|root| match root {
            PlannedRoot::Named { .. } => None,
            PlannedRoot::Alias { ident, slot } => Some(self.dialect.alias(&mut sheet, ident, slot)),
        });
        let aliases: Vec<Doc> = aliases.collect();
        let place = match self.abilities.order {
            Order::OutsideIn => 0,
            Order::InsideOut => declarations.len(),
        };
        declarations.splice(place..place, aliases);
        if has_entry {
            declarations.extend(self.dialect.entry(&mut sheet));
        }
        Unit { name, declarations, needs }
    }

    fn sheet<'s>(&'s self, needs: &'s mut Needs) -> BlankSheet<'s> {
        Sheet { plan: self.plan, options: &(), needs }
    }

    /// Types in the order in which they are declared.
    fn ordered(&self, types: Vec<&'p PlannedType<'p>>) -> Vec<&'p PlannedType<'p>> {
        match self.abilities.order {
            Order::OutsideIn => types,
            Order::InsideOut => self.plan.inside_out(types),
        }
    }

    /// Where what is declared for others stands: behind them, or before.
    fn place(&self, declarations: &[Doc]) -> usize {
        match self.abilities.order {
            Order::OutsideIn => declarations.len(),
            Order::InsideOut => 0,
        }
    }

    /// Declares what reads and writes words for nothing, in the same file.
    fn declare_nothings(&self, unit: &mut Unit) {
        for index in std::mem::take(&mut unit.needs.nothings) {
            if let Some(declaration) = self.nothing(index, &mut unit.needs) {
                unit.declarations.insert(self.place(&unit.declarations), declaration);
            }
        }
    }

    /// A file, with what it needs in it, but for the helpers that stand in other files.
    fn print(&self, mut unit: Unit, elsewhere: &BTreeSet<Helper>) -> GrownFile {
        self.declare_nothings(&mut unit);
        for helper in std::mem::take(&mut unit.needs.helpers) {
            let declaration = self.helper(helper, &mut unit.needs);
            unit.declarations.insert(self.place(&unit.declarations), declaration);
        }
        assembled(self.dialect, unit, elsewhere)
    }

    /// The code that reads and writes a type or a word for nothing.
    fn nothing(&self, index: usize, needs: &mut Needs) -> Option<Doc> {
        self.dialect.nothing(&mut self.sheet(needs), &self.plan.nothings[index])
    }

    /// The code of a helper that stands with the model.
    fn helper(&self, helper: Helper, needs: &mut Needs) -> Doc {
        helper_code(self.dialect, helper, Cow::Borrowed, needs)
    }
}

/// The code of a helper, each of its lines as it is to be; its imports go where all imports go.
fn helper_code(
    dialect: &dyn Dialect,
    helper: Helper,
    line_of: impl Fn(&'static str) -> Cow<'static, str>,
    needs: &mut Needs,
) -> Doc {
    let (inside, outside) = dialect.split_helper(helper);
    needs.outside.extend(outside.map(|code| lines(code.lines().map(|line| text(line.to_owned())))));
    let mut code = Vec::new();
    for line in inside.trim_end().lines() {
        match (dialect.about().imported)(line) {
            Some(name) => drop(needs.imports.insert(name)),
            None if code.is_empty() && line.is_empty() => {}
            None => code.push(text(line_of(line))),
        }
    }
    lines(code)
}

/// The text of a file.
fn assembled(dialect: &dyn Dialect, unit: Unit, elsewhere: &BTreeSet<Helper>) -> GrownFile {
    let Unit { name, declarations, mut needs } = unit;
    let style = &dialect.about().style;
    if dialect.shared().is_some() && !elsewhere.is_empty() {
        let code: Vec<String> = declarations.iter().map(|declaration| print(declaration, style)).collect();
        let code = code.join("\n");
        let used = code_lines(&code).flat_map(words).chain(needs.file_annotations.iter().copied()).collect();
        needs.borrowed = elsewhere.iter().flat_map(|helper| borrowed(dialect, *helper, &used)).collect();
    }
    let name = dialect.file_name(&name);
    let doc = dialect.assemble(&name, &needs, declarations);
    let doc = cat([doc, hard()]);
    // Of many files, each core prints its own.
    let text = if needs.is_whole { print_out(doc, style) } else { print(&doc, style) };
    GrownFile { name, text }
}

/// The lines of a code that are no comments, in any of the languages.
fn code_lines(code: &str) -> impl Iterator<Item = &str> {
    let mut is_docstring = false;
    code.lines().filter(move |line| {
        let quotes = line.matches("\"\"\"").count();
        let is_said = is_docstring || quotes > 0;
        is_docstring ^= quotes % 2 == 1;
        let start = line.trim_start();
        !is_said && !["//", "/*", "*", "#"].iter().any(|comment| start.starts_with(comment))
    })
}

/// The words of a line.
fn words(code: &str) -> impl Iterator<Item = &str> {
    code.split(|c: char| !(c.is_alphanumeric() || c == '_')).filter(|word| !word.is_empty())
}

/// What is used of a helper in another file than its own.
fn borrowed<'d>(
    dialect: &'d dyn Dialect,
    helper: Helper,
    used: &'d BTreeSet<&str>,
) -> impl Iterator<Item = Borrowed> + 'd {
    let file = dialect.shared_file(helper);
    let declared = helper.text.lines().filter_map(dialect.about().declared);
    declared.filter(|name| used.contains(&*dialect.opened(name))).map(move |name| Borrowed { file, name })
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

/// The declarations of one file, and what they need.
struct Unit {
    name: String,
    declarations: Vec<Doc>,
    needs: Needs,
}

/// The declarations that stand inside another.
pub(crate) fn nested(dialect: &dyn Dialect, sheet: &mut BlankSheet<'_>, host: &PlannedType<'_>) -> Vec<Doc> {
    sheet.plan.nested_in(host).map(|ty| declared(dialect, sheet, ty)).collect()
}

/// A declaration with what is said of it.
fn declared(dialect: &dyn Dialect, sheet: &mut BlankSheet<'_>, ty: &PlannedType<'_>) -> Doc {
    let declaration = match sheet.plan.wire_of(ty) {
        Some(wire) => dialect.declare_copy(sheet, ty, wire),
        None => dialect.declare(sheet, ty),
    };
    lines(dialect.comment(sheet.plan, ty).into_iter().chain([declaration]))
}

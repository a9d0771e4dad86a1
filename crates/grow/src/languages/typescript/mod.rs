//! TypeScript: interfaces and literal unions; on request a function that parses and checks.

mod bounds;
mod habits;
mod names;
mod plain_copies;
mod proof;
mod reading;
mod settings;
mod types;
mod usage;

use std::borrow::Cow;
use std::collections::BTreeSet;

use jar_sprout_layout::{Doc, Indent, Style, braces, cat, hard, lines, paragraphs, text};
use jar_sprout_model::Slot;

use crate::language::{Language, SharedPlace};
use crate::plan::{
    Fate, Ident, Plan, PlannedCase, PlannedDefinition, PlannedExtras, PlannedField, PlannedType,
    PlannedUnion, PlannedUnionCase, small_words,
};
use crate::prepare::Abilities;
use crate::settings::Settings;
use crate::spell::docs::{self, Comment};
use crate::spell::{About, BlankSheet, Dialect, GrownFile, Helper, Needs, Place, Program, Trial};
use settings::{Hold, Reading, TypeScriptOptions};

/// TypeScript.
pub(crate) struct TypeScript;

static ABOUT: About = About {
    key: "typescript",
    title: "TypeScript",
    aliases: &["ts"],
    grows: "interfaces and literal unions, on request with a checking parse function",
    settings: settings::SETTINGS,
    habits: habits::HABITS,
    folders: None,
    between: None,
    naming: names::NAMING,
    comment: Comment {
        form: docs::CommentStyle::Stars,
        width: 80,
        escape: docs::in_stars,
        deprecated: Some(|why| {
            why.map_or_else(|| "@deprecated".to_owned(), |why| format!("@deprecated {why}"))
        }),
    },
    style: Style { width: 80, indent: Indent::Spaces(2) },
    ending: "ts",
    mark: ["// @generated ", ".", "; do not edit."],
    imported: |_| None,
    declared: reading::declared_in,
};

/// What declarations are spelled on.
type Sheet<'s> = crate::spell::Sheet<'s, TypeScriptOptions>;

impl Language for TypeScript {
    fn about(&self) -> &'static About {
        &ABOUT
    }

    fn dialect(&self, settings: &Settings) -> Box<dyn Dialect> {
        Box::new(TypeScriptOptions::of(settings))
    }

    fn apart(&self, settings: &Settings, _: &str) -> Settings {
        settings.clone()
    }

    fn sharing(&self, settings: &Settings, shared: &SharedPlace<'_>) -> Option<Settings> {
        Some(settings.clone().with_shared(shared.way.to_owned()))
    }

    fn for_trial(&self, settings: &Settings, _: &str) -> Settings {
        settings.for_trial()
    }
}

impl Dialect for TypeScriptOptions {
    fn about(&self) -> &'static About {
        &ABOUT
    }

    fn abilities(&self) -> Abilities {
        self.abilities()
    }

    fn file_name(&self, type_name: &str) -> String {
        format!("{}.ts", small_words(type_name, "-"))
    }

    fn comment(&self, _: &Plan<'_>, ty: &PlannedType<'_>) -> Option<Doc> {
        ABOUT.comment.of(ty.docs, 0)
    }

    fn declare(&self, sheet: &mut BlankSheet<'_>, ty: &PlannedType<'_>) -> Doc {
        let sheet = &mut sheet.with(self);
        let PlannedType { ident, definition, .. } = ty;
        let declaration = match definition {
            PlannedDefinition::Record(fields) => record(sheet, ty, fields),
            PlannedDefinition::Enumeration(cases) => enumeration(ident, cases, ty.is_closed),
            PlannedDefinition::Union(union) => self::union(sheet, ty, union),
        };
        if self.reading == Reading::None {
            return declaration;
        }
        let functions = reading::reader(sheet, ty);
        paragraphs([declaration].into_iter().chain(functions))
    }

    fn declare_copy(
        &self,
        sheet: &mut BlankSheet<'_>,
        copy: &PlannedType<'_>,
        wire: &PlannedType<'_>,
    ) -> Doc {
        plain_copies::declare(&mut sheet.with(self), copy, wire)
    }

    fn alias(&self, sheet: &mut BlankSheet<'_>, ident: &Ident, slot: &Slot) -> Doc {
        let sheet = &mut sheet.with(self);
        let alias = types::alias(sheet, ident, slot);
        if self.reading == Reading::None {
            return alias;
        }
        let parse = reading::parse(sheet, ident, slot);
        cat([alias, hard(), hard(), parse])
    }

    /// They stand beside each root's type.
    fn entry(&self, _: &mut BlankSheet<'_>) -> Vec<Doc> {
        Vec::new()
    }

    fn assemble(&self, _: &str, needs: &Needs, declarations: Vec<Doc>) -> Doc {
        debug_assert!(needs.imports.is_empty(), "the language has all that is needed");
        let way = self.shared.as_deref().unwrap_or_default();
        let borrowed = (!needs.borrowed.is_empty()).then(|| reading::import(way, &needs.borrowed));
        paragraphs(borrowed.into_iter().chain(declarations))
    }

    fn shared(&self) -> Option<&str> {
        self.shared.as_deref()
    }

    /// All readers stand in one file.
    fn shared_file(&self, _: Helper) -> &'static str {
        reading::FILE
    }

    /// The file is the same whatever its users need of it.
    fn shared_helpers(&self, needed: &BTreeSet<Helper>) -> BTreeSet<Helper> {
        if needed.is_empty() { BTreeSet::new() } else { reading::all() }
    }

    fn opened(&self, line: &'static str) -> Cow<'static, str> {
        reading::exported(line)
    }

    fn project(&self) -> Vec<GrownFile> {
        usage::project(self)
    }

    fn program(&self, sheet: &mut BlankSheet<'_>, place: Place<'_>) -> Option<Program> {
        usage::program(&mut sheet.with(self), place)
    }

    fn driver(&self, trials: &[Trial]) -> Vec<GrownFile> {
        match self.reading {
            Reading::None => proof::assigned(trials),
            Reading::Checked | Reading::Dated => proof::parsed(trials),
        }
    }
}

/// ```ts
/// export interface Hive {
///   id: number;
/// }
/// ```
fn record(sheet: &Sheet<'_>, ty: &PlannedType<'_>, fields: &[PlannedField<'_>]) -> Doc {
    let ident = &ty.ident;
    if fields.is_empty() {
        return text(format!("export type {ident} = Record<string, unknown>;"));
    }
    let extras = ty.extras.as_ref().map(|extras| others(sheet, fields, extras));
    let base = sheet.plan.base_of(ty);
    let own = Plan::own_fields(base, fields);
    let body = own.iter().map(|one| field(sheet, one)).chain(extras);
    let base = base.map(|base| format!(" extends {}", base.ident)).unwrap_or_default();
    braces(format!("export interface {ident}{base}"), body)
}

/// `[key: string]: number;`, where each property is one of those; the language has it that they all must be.
fn others(sheet: &Sheet<'_>, fields: &[PlannedField<'_>], extras: &PlannedExtras<'_>) -> Doc {
    let fits = |field: &PlannedField<'_>| field.slot == extras.slot && field.fate.is_always_there();
    let key = text(format!("{}[key: string]", sheet.options.hold.property()));
    if !fields.iter().all(fits) {
        return cat([key, text(": unknown;")]);
    }
    cat([key, types::property_of(sheet, ":", extras.slot)])
}

/// `note?: string | null;`
fn field(sheet: &Sheet<'_>, field: &PlannedField<'_>) -> Doc {
    let PlannedField { ident: _, wire, slot: _, encoding: _, docs, fate } = field;
    let mark = match fate {
        Fate::Tag(_) | Fate::Required | Fate::Nullable => ":",
        // What reads it fills it in.
        Fate::Defaulted(_) => ":",
        Fate::Optional | Fate::Either | Fate::Apart => "?:",
    };
    let hold = if docs.is_read_only { Hold::Readonly } else { sheet.options.hold };
    let key = text([hold.property(), &names::property_key(wire.as_str())].concat());
    let declaration = cat([key, types::property(sheet, mark, field)]);
    lines(ABOUT.comment.of(&docs.without_read_only(), 2).into_iter().chain([declaration]))
}

/// `"laying" | "caged" | (string & {})`: editors offer the known values, and any other text is allowed.
fn enumeration(ident: &Ident, cases: &[PlannedCase<'_>], is_closed: bool) -> Doc {
    let known =
        cases.iter().map(|PlannedCase { ident: _, wire, docs: _ }| text(names::literal(wire.as_str())));
    alternatives(ident, known.chain((!is_closed).then(|| text("(string & {})"))))
}

fn union(sheet: &mut Sheet<'_>, ty: &PlannedType<'_>, union: &PlannedUnion<'_>) -> Doc {
    let ident = &ty.ident;
    let PlannedUnion { tag, cases, unknown: _ } = union;
    let unknown = tag.filter(|_| sheet.options.reading != Reading::None);
    let unknown = unknown.map(|tag| (unknown_name(sheet.plan, ident), tag));
    let hold = sheet.options.hold.property();
    let options = sheet.options.in_alias(ty.id);
    let sheet = sheet.with(&options);
    let case = |PlannedUnionCase { ident: _, tag: _, key: _, slot }: &PlannedUnionCase<'_>| {
        types::slot(&sheet, slot)
    };
    let others = unknown.iter().map(|(name, _)| text(name.clone()));
    let union = alternatives(ident, cases.iter().map(case).chain(others));
    let Some((name, tag)) = unknown else { return union };
    // The compiler tells the cases from it by what it can never be.
    let kind = text(format!("{hold}{}?: never;", names::property_key(tag.as_str())));
    let others = text(format!("{hold}[key: string]: unknown;"));
    let declared = braces(format!("export interface {name}"), [kind, others]);
    let comment = text("/** An object as it came, whose kind is none of those known. */");
    paragraphs([union, lines([comment, declared])])
}

/// What an object of a kind that is not known yet is called: `UnknownEvent`
fn unknown_name(plan: &Plan<'_>, union: &Ident) -> String {
    let mut name = format!("Unknown{union}");
    while plan.find(&name).is_some() {
        name.push_str("Kind");
    }
    name
}

fn alternatives(ident: &Ident, cases: impl Iterator<Item = Doc>) -> Doc {
    cat([text(format!("export type {ident} =")), types::one_of(cases), text(";")])
}

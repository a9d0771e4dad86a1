//! TypeScript: interfaces and literal unions; on request a function that parses and checks.

mod names;
mod proof;
mod reading;
mod twins;
mod types;

use jar_sprout_layout::{Doc, Indent, Style, cat, group, hard, if_broken, join, line, lines, nest, text};
use jar_sprout_model::{Presence, Record, Slot};

use crate::code::{GrownFile, MARK, Needs};
use crate::docs::{self, Comment};
use crate::extras::Extras;
use crate::language::{About, Language};
use crate::plan::{
    Ident, Plan, PlannedCase, PlannedDefinition, PlannedExtras, PlannedField, PlannedType, PlannedUnion,
    PlannedUnionCase, small_words,
};
use crate::settings::{Choice, Setting, Settings, TWINS, Values};
use crate::trial::Trial;
use crate::twins::Tags;

/// TypeScript.
pub(crate) struct TypeScript;

/// Whether what an object holds can be changed.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
enum Hold {
    Mutable,
    Readonly,
}

impl Hold {
    fn of(settings: &Settings) -> Self {
        if settings.is(&PROPERTIES, "readonly") { Self::Readonly } else { Self::Mutable }
    }

    /// What stands before a property, and before a list.
    fn property(self) -> &'static str {
        match self {
            Self::Mutable => "",
            Self::Readonly => "readonly ",
        }
    }
}

const PROPERTIES: Setting = Setting {
    key: "properties",
    doc: "whether properties and lists can be changed",
    values: Values::Choice(&[
        Choice { value: "mutable", doc: "they can" },
        Choice { value: "readonly", doc: "they cannot" },
    ]),
};

const PARSE: Setting = Setting {
    key: "parse",
    doc: "whether a function for each root parses a response and checks it",
    values: Values::Choice(&[
        Choice { value: "none", doc: "types alone, no run-time code" },
        Choice { value: "checked", doc: "parseHives(text), which says where a response is not as expected" },
        Choice {
            value: "dated",
            doc: "the same, with Date objects for date-times; they are written back as they came",
        },
    ]),
};

/// What reads a response.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
enum Reading {
    None,
    Checked,
    Dated,
}

/// All settings, resolved.
#[derive(Debug, Clone, Copy)]
struct Form {
    hold: Hold,
    reading: Reading,
    /// Whether a type stands in the name for another, which may lead back to itself.
    is_alias: bool,
}

impl Form {
    fn of(settings: &Settings) -> Self {
        let reading = match settings.value(&PARSE) {
            Some("checked") => Reading::Checked,
            Some("dated") => Reading::Dated,
            _ => Reading::None,
        };
        Self { hold: Hold::of(settings), reading, is_alias: false }
    }
}

static ABOUT: About = About {
    key: "typescript",
    title: "TypeScript",
    grows: "interfaces and literal unions, on request with a checking parse function",
    settings: &[PROPERTIES, PARSE, TWINS],
    naming: names::NAMING,
    comment: Comment {
        form: docs::Form::Stars,
        width: 80,
        escape: docs::in_stars,
        deprecated: Some("@deprecated"),
    },
    style: Style { width: 80, indent: Indent::Spaces(2) },
    has_file_per_type: false,
};

impl Language for TypeScript {
    fn about(&self) -> &'static About {
        &ABOUT
    }

    fn file_name(&self, type_name: &str, _: &Settings) -> String {
        format!("{}.ts", small_words(type_name, "-"))
    }

    fn declare(&self, plan: &Plan<'_>, ty: &PlannedType<'_>, settings: &Settings, needs: &mut Needs) -> Doc {
        let form = Form::of(settings);
        let PlannedType { ident, definition, .. } = ty;
        let declaration = match definition {
            PlannedDefinition::Record(fields) => record(plan, ty, fields, form),
            PlannedDefinition::Enumeration(cases) => enumeration(ident, cases, ty.is_closed),
            PlannedDefinition::Union(union) => self::union(plan, ident, union, form),
        };
        if form.reading == Reading::None {
            return declaration;
        }
        let functions = reading::reader(plan, ty, form, needs);
        join(&cat([hard(), hard()]), [declaration].into_iter().chain(functions))
    }

    fn declare_twin(
        &self,
        plan: &Plan<'_>,
        twin: &PlannedType<'_>,
        wire: &PlannedType<'_>,
        settings: &Settings,
        needs: &mut Needs,
    ) -> Doc {
        twins::declare(plan, twin, wire, Form::of(settings), needs)
    }

    /// They tell the cases of a union apart.
    fn tags_of_twins(&self) -> Tags {
        Tags::Kept
    }

    fn alias(
        &self,
        plan: &Plan<'_>,
        ident: &Ident,
        slot: &Slot,
        settings: &Settings,
        needs: &mut Needs,
    ) -> Doc {
        let form = Form::of(settings);
        let alias = text(format!("export type {ident} = {};", types::slot(plan, slot, form)));
        if form.reading == Reading::None {
            return alias;
        }
        let parse = reading::parse(plan, ident, slot, form, needs);
        cat([alias, hard(), hard(), parse])
    }

    fn assemble(&self, _: &str, _: &Settings, needs: &Needs, declarations: Vec<Doc>) -> Doc {
        debug_assert!(needs.imports.is_empty(), "the language has all that is needed");
        let blank_line = cat([hard(), hard()]);
        join(&blank_line, [text(format!("// {MARK}"))].into_iter().chain(declarations))
    }

    fn extras(&self, _: &Record, _: &Settings) -> Extras {
        Extras::Typed
    }

    fn fills_in(&self, settings: &Settings) -> bool {
        Form::of(settings).reading != Reading::None
    }

    fn driver(&self, trials: &[Trial], settings: &Settings) -> Vec<GrownFile> {
        match Form::of(settings).reading {
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
fn record(plan: &Plan<'_>, ty: &PlannedType<'_>, fields: &[PlannedField<'_>], form: Form) -> Doc {
    let ident = &ty.ident;
    if fields.is_empty() {
        return text(format!("export type {ident} = Record<string, unknown>;"));
    }
    let extras = ty.extras.as_ref().map(|extras| cat([hard(), others(plan, fields, extras, form)]));
    let base = plan.base_of(ty);
    let own = Plan::own_fields(base, fields);
    let fields = own.iter().map(|one| cat([hard(), field(plan, one, form)]));
    let body = nest(cat(fields.chain(extras)));
    let base = base.map(|base| format!(" extends {}", base.ident)).unwrap_or_default();
    cat([text(format!("export interface {ident}{base} {{")), body, hard(), text("}")])
}

/// `[key: string]: number;`, where each property is one of those; the language has it that they all must be.
fn others(plan: &Plan<'_>, fields: &[PlannedField<'_>], extras: &PlannedExtras<'_>, form: Form) -> Doc {
    let fits = |field: &PlannedField<'_>| field.slot == extras.slot && field.presence == Presence::Always;
    let ty =
        if fields.iter().all(fits) { types::slot(plan, extras.slot, form) } else { "unknown".to_owned() };
    text(format!("{}[key: string]: {ty};", form.hold.property()))
}

/// `note?: string | null;`
fn field(plan: &Plan<'_>, field: &PlannedField<'_>, form: Form) -> Doc {
    let PlannedField { ident: _, wire, presence, slot, docs, is_apart: _, default } = field;
    let mark = match presence {
        Presence::Always => ": ",
        // What reads it fills it in.
        Presence::Sometimes if default.is_some() => ": ",
        Presence::Sometimes => "?: ",
    };
    let (key, ty) = (names::property_key(wire.as_str()), types::slot(plan, slot, form));
    let declaration = text([form.hold.property(), &key, mark, &ty, ";"].concat());
    lines(ABOUT.comment.of(docs, 2).into_iter().chain([declaration]))
}

/// `"laying" | "caged" | (string & {})`: editors offer the known values, and any other text is allowed.
fn enumeration(ident: &Ident, cases: &[PlannedCase<'_>], is_closed: bool) -> Doc {
    let known =
        cases.iter().map(|PlannedCase { ident: _, wire, docs: _ }| text(names::LITERAL.of(wire.as_str())));
    alternatives(ident, known.chain((!is_closed).then(|| text("(string & {})"))))
}

fn union(plan: &Plan<'_>, ident: &Ident, union: &PlannedUnion<'_>, form: Form) -> Doc {
    let PlannedUnion { tag: _, cases, unknown: _ } = union;
    let form = Form { is_alias: true, ..form };
    let case = |PlannedUnionCase { ident: _, tag: _, slot }: &PlannedUnionCase<'_>| {
        text(types::slot(plan, slot, form))
    };
    alternatives(ident, cases.iter().map(case))
}

/// All on one line, or one a line with `|` before each.
fn alternatives(ident: &Ident, cases: impl Iterator<Item = Doc>) -> Doc {
    let cases = join(&cat([line(), text("| ")]), cases);
    let body = cat([line(), if_broken("| ", ""), cases]);
    group(cat([text(format!("export type {ident} =")), nest(body), text(";")]))
}

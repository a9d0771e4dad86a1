//! Python: models for pydantic v2, in the syntax of 3.10 and later.

mod converting;
mod dataclasses;
mod entry;
mod habits;
mod names;
mod proof;
mod settings;
mod times;
mod typed_dicts;
mod types;
mod usage;

use jar_sprout_layout::{
    Doc, Indent, Style, cat, comma_list, flat_length, group, hard, if_broken, join, last_comma, line, lines,
    nest, paragraphs, soft, text,
};
use jar_sprout_model::{Counts, Docs, Limit, Scalar, Slot, Type, WireName};

use crate::language::{Language, SharedPlace};
use crate::plan::{
    DefaultSpelling, Fate, Ident, Plan, PlannedCase, PlannedDefinition, PlannedField, PlannedType,
    PlannedUnion, PlannedUnionCase, small_words,
};
use crate::prepare::Abilities;
use crate::settings::Settings;
use crate::spell::docs::{self, Comment};
use crate::spell::renaming::Renaming;
use crate::spell::{About, BlankSheet, Dialect, GrownFile, Helper, Needs, Place, Program, Trial};
use settings::{Level, PythonOptions, Types};

/// Python with pydantic.
pub(crate) struct Python;

const INDENT: usize = 4;

const STYLE: Style = Style { width: 88, indent: Indent::Spaces(INDENT) };

/// What the library's own names start with, and warns of.
const PROTECTED: &[&str] = &["model_dump", "model_validate"];

/// An enum that keeps values it does not know.
const OPEN_ENUM: Helper = Helper { name: "OpenEnum", text: include_str!("open_enum.py") };

const OPEN_ENUM_310: Helper = Helper { name: "OpenEnum", text: include_str!("open_enum_310.py") };

/// What a union's cases are, so that their tags are written.
const TAGGED_MODEL: Helper = Helper { name: "TaggedModel", text: include_str!("tagged_model.py") };

/// Chooses a case of a union.
const BY_TAG: Helper = Helper { name: "by_tag", text: include_str!("by_tag.py") };

/// What `StrEnum` is from 3.11 on.
const TEXT_ENUM: Helper = Helper { name: "TextEnum", text: include_str!("text_enum.py") };

static ABOUT: About = About {
    key: "python",
    title: "Python",
    aliases: &["py"],
    grows: "models for pydantic v2, or dataclasses, Python 3.11 and later, 3.10 on request",
    settings: settings::SETTINGS,
    habits: habits::HABITS,
    folders: None,
    between: Some('.'),
    naming: names::NAMING,
    comment: Comment {
        form: docs::CommentStyle::Quotes,
        width: 88,
        escape: docs::in_quotes,
        deprecated: Some(docs::deprecated),
    },
    style: STYLE,
    ending: "py",
    mark: ["# @generated ", ".", "; do not edit."],
    imported: |line| (line.starts_with("from ") || line.starts_with("import ")).then_some(line),
    declared: names::declared,
};

/// What declarations are spelled on.
type Sheet<'s> = crate::spell::Sheet<'s, PythonOptions>;

impl Language for Python {
    fn about(&self) -> &'static About {
        &ABOUT
    }

    fn dialect(&self, settings: &Settings) -> Box<dyn Dialect> {
        Box::new(PythonOptions::of(settings))
    }

    fn apart(&self, settings: &Settings, _: &str) -> Settings {
        settings.clone()
    }

    fn shared(&self, settings: &Settings, _: &str) -> Settings {
        settings.clone().with_shared(names::HERE.to_owned())
    }

    /// Modules are imported by their whole paths.
    fn sharing(&self, settings: &Settings, shared: &SharedPlace<'_>) -> Option<Settings> {
        shared.name.contains('.').then(|| settings.clone().with_shared(shared.name.to_owned()))
    }

    fn for_trial(&self, settings: &Settings, _: &str) -> Settings {
        settings.for_trial()
    }
}

impl Dialect for PythonOptions {
    fn about(&self) -> &'static About {
        &ABOUT
    }

    fn abilities(&self) -> Abilities {
        self.abilities()
    }

    fn file_name(&self, type_name: &str) -> String {
        format!("{}.py", small_words(type_name, "_"))
    }

    /// It stands inside.
    fn comment(&self, _: &Plan<'_>, _: &PlannedType<'_>) -> Option<Doc> {
        None
    }

    fn declare(&self, sheet: &mut BlankSheet<'_>, ty: &PlannedType<'_>) -> Doc {
        let sheet = &mut sheet.with(self);
        let PlannedType { docs, definition, .. } = ty;
        let said = |union| lines([union].into_iter().chain(ABOUT.comment.of(docs, 0)));
        match (definition, self.types) {
            (PlannedDefinition::Record(fields), Types::Pydantic) => record(sheet, ty, fields),
            (PlannedDefinition::Record(fields), Types::Dataclasses) => dataclasses::record(sheet, ty, fields),
            (PlannedDefinition::Record(fields), Types::TypedDicts) => typed_dicts::record(sheet, ty, fields),
            (PlannedDefinition::Enumeration(cases), Types::Pydantic | Types::Dataclasses) => {
                enumeration(sheet, ty, cases)
            }
            (PlannedDefinition::Enumeration(cases), Types::TypedDicts) => {
                typed_dicts::enumeration(ty, cases, sheet.needs)
            }
            (PlannedDefinition::Union(union), Types::Pydantic) => said(self::union(sheet, ty, union)),
            (PlannedDefinition::Union(union), Types::Dataclasses) => dataclasses::union(sheet, ty, union),
            (PlannedDefinition::Union(union), Types::TypedDicts) => {
                said(typed_dicts::union(sheet, ty, union))
            }
        }
    }

    fn alias(&self, sheet: &mut BlankSheet<'_>, ident: &Ident, slot: &Slot) -> Doc {
        let sheet = &mut sheet.with(self);
        match self.types {
            Types::Pydantic => cat([text(format!("{ident} = ")), types::slot(sheet, slot, Types::Pydantic)]),
            Types::Dataclasses => dataclasses::alias(sheet, ident, slot),
            Types::TypedDicts => text(format!("{ident} = {}", typed_dicts::slot(sheet, slot))),
        }
    }

    fn entry(&self, sheet: &mut BlankSheet<'_>) -> Vec<Doc> {
        entry::functions(&mut sheet.with(self), self.types)
    }

    fn assemble(&self, _: &str, needs: &Needs, declarations: Vec<Doc>) -> Doc {
        let future = text("from __future__ import annotations");
        let groups = names::grouped_imports(&needs.imports);
        let groups = groups.into_iter().map(lines);
        let package = self.shared.as_deref().unwrap_or_default();
        let borrowed = names::borrowed(package, &needs.borrowed);
        let borrowed = (!borrowed.is_empty()).then(|| lines(borrowed));
        let head = paragraphs([future].into_iter().chain(groups).chain(borrowed));
        below_imports(head, declarations)
    }

    fn shared(&self) -> Option<&str> {
        self.shared.as_deref()
    }

    fn project(&self) -> Vec<GrownFile> {
        usage::project(self)
    }

    fn program(&self, sheet: &mut BlankSheet<'_>, place: Place<'_>) -> Option<Program> {
        usage::program(&mut sheet.with(self), place)
    }

    fn driver(&self, trials: &[Trial]) -> Vec<GrownFile> {
        match self.types {
            Types::Pydantic | Types::Dataclasses => proof::driver(trials),
            Types::TypedDicts => proof::typed(trials),
        }
    }
}

/// ```text
/// class Hive(BaseModel):
///     id: int
/// ```
fn record(sheet: &mut Sheet<'_>, ty: &PlannedType<'_>, fields: &[PlannedField<'_>]) -> Doc {
    // Where one field is called as another's key, a key must not be taken for a name.
    let is_ambiguous = fields.iter().any(|field| {
        let is_key = |other: &PlannedField<'_>| other.wire.as_str() == field.ident.as_str();
        fields.iter().any(|other| is_key(other) && other.ident != field.ident)
    });
    // What is set of the base is set of all that extend it.
    let base = sheet.plan.base_of(ty).filter(|_| !is_ambiguous);
    let has_tag = fields.iter().any(|field| field.fate.tag().is_some());
    match (base, has_tag) {
        (Some(_), _) => {}
        (None, true) => drop(sheet.needs.helpers.insert(TAGGED_MODEL)),
        (None, false) => drop(sheet.needs.imports.insert("from pydantic import BaseModel")),
    }
    let own = Plan::own_fields(base, fields);
    let has_alias = own.iter().any(|field| field.ident.as_str() != field.wire.as_str());
    // What a base says of its keys would hold for those of others as well.
    let is_alone = !is_ambiguous && base.is_none() && !sheet.plan.is_base(ty);
    let renaming = if is_alone { names::alias_rule(&own) } else { Renaming::none() };
    let mut settings = Vec::new();
    match renaming.name() {
        Some("to_camel") => {
            sheet.needs.imports.insert("from pydantic.alias_generators import to_camel");
            settings.push("alias_generator=to_camel");
        }
        Some(_) => {
            sheet.needs.imports.insert("from pydantic.alias_generators import to_pascal");
            settings.push("alias_generator=to_pascal");
        }
        None => {}
    }
    if ty.extras.is_some() {
        settings.push("extra=\"allow\"");
    }
    if has_alias && !is_ambiguous {
        settings.push("populate_by_name=True");
    }
    if own.iter().any(|field| PROTECTED.iter().any(|start| field.ident.as_str().starts_with(start))) {
        settings.push("protected_namespaces=()");
    }
    let config = (!settings.is_empty()).then(|| {
        sheet.needs.imports.insert("from pydantic import ConfigDict");
        let config = call("ConfigDict(", settings.into_iter().map(text), ")");
        cat([hard(), text("model_config = "), config, hard()])
    });
    let extras = ty.extras.as_ref().map(|extras| {
        sheet.needs.imports.insert("from pydantic import Field");
        let map = types::slot(sheet, &extras.map, Types::Pydantic);
        cat([hard(), text("__pydantic_extra__: "), map, text(" = Field(init=False)")])
    });
    let fields = own.iter().map(|one| {
        let said = ABOUT.comment.beside_annotation(one.docs, INDENT);
        cat([hard(), lines([field(sheet, one, &renaming)].into_iter().chain(said))])
    });
    let fields: Vec<Doc> = fields.chain(extras).collect();
    let comment = docstring(ty.docs);
    let body = match (fields.is_empty(), &comment) {
        (true, None) => cat([hard(), text("pass")]),
        _ => cat(fields),
    };
    let body = cat(comment.into_iter().chain(config).chain([body]));
    let usual = if has_tag { TAGGED_MODEL.name } else { "BaseModel" };
    let base = base.map_or(usual, |base| base.ident.as_str());
    cat([text(format!("class {}({base}):", ty.ident)), nest(body)])
}

/// What is said of a class, the first thing in it, with a blank line behind.
fn docstring(docs: &Docs) -> Option<Doc> {
    ABOUT.comment.of(docs, INDENT).map(|comment| cat([hard(), comment, hard()]))
}

/// A member, and what is said of it below.
fn documented(member: Doc, docs: &Docs) -> Doc {
    lines([member].into_iter().chain(ABOUT.comment.of(docs, INDENT)))
}

/// `note: str | None = Field(default=None, alias="Note")`
fn field(sheet: &mut Sheet<'_>, field: &PlannedField<'_>, renaming: &Renaming) -> Doc {
    let PlannedField { ident, wire, slot, encoding: _, docs, fate } = field;
    let (ty, default) = match fate {
        Fate::Tag(tag) => (types::slot(sheet, slot, Types::Pydantic), Some(names::literal(tag.as_str()))),
        fate if field.nothing_words().is_some() => {
            let words = field.nothing_words().expect("asked");
            let default = fate.is_left_out().then(|| "None".to_owned());
            (types::or_nothing(sheet, slot, words), default)
        }
        Fate::Required | Fate::Nullable if field.is_json_in_text() => {
            let ty = types::json_text(sheet, slot);
            (if slot.nullable { types::or_none(ty, &slot.ty) } else { ty }, None)
        }
        Fate::Optional | Fate::Either | Fate::Apart if field.is_json_in_text() => {
            (cat([types::json_text(sheet, slot), text(" | None")]), Some("None".to_owned()))
        }
        Fate::Required | Fate::Nullable => (types::slot(sheet, slot, Types::Pydantic), None),
        Fate::Defaulted(default) => (
            types::non_null(sheet, slot, Types::Pydantic),
            Some(sheet.plan.default_code(*default, &DEFAULTS)),
        ),
        // A model knows by itself which of its fields were set.
        Fate::Optional | Fate::Either | Fate::Apart => {
            (types::or_none(types::non_null(sheet, slot, Types::Pydantic), &slot.ty), Some("None".to_owned()))
        }
    };
    let is_made = renaming.makes(ident.as_str(), wire.as_str());
    let alias = (!is_made).then(|| format!("alias={}", names::literal(wire.as_str())));
    // What chooses a case looks at its tag.
    let is_deprecated = docs.is_deprecated && fate.tag().is_none();
    let deprecated = is_deprecated.then(|| format!("deprecated={}", names::literal(&docs::warning(docs))));
    let bounds = if sheet.options.checks_bounds { bounds(field) } else { Vec::new() };
    let said: Vec<String> = alias.into_iter().chain(bounds).chain(deprecated).collect();
    let (opening, value) = match (said.is_empty(), default) {
        (true, None) => return cat([text(format!("{ident}: ")), ty]),
        (true, Some(default)) => (default.len(), text(default)),
        (false, default) => {
            sheet.needs.imports.insert("from pydantic import Field");
            let default = default.map(|default| format!("default={default}"));
            let arguments = default.into_iter().chain(said).map(text);
            let open = "Field(";
            (open.len(), call(open, arguments, ")"))
        }
    };
    assigned(ident, ty, opening, value)
}

/// `name: str = "Alder Bank"`, of whose value the first columns stay on the line where it is broken.
fn assigned(ident: &Ident, ty: Doc, opening: usize, value: Doc) -> Doc {
    let width = flat_length(&ty);
    let start = INDENT + ident.as_str().chars().count() + ": ".len() + width + " = ".len() + opening;
    // Its formatter takes a value into parentheses that has room in a line of its own, and else the type that leaves it
    // none.
    let has_room =
        start - opening + "(".len() <= STYLE.width && 2 * INDENT + flat_length(&value) <= STYLE.width;
    if start > STYLE.width && has_room {
        let value = cat([text("("), nest(cat([hard(), value])), hard(), text(")")]);
        return cat([text(format!("{ident}: ")), ty, text(" = "), value]);
    }
    let ty =
        if start > STYLE.width { cat([text("("), nest(cat([hard(), ty])), hard(), text(")")]) } else { ty };
    cat([text(format!("{ident}: ")), ty, text(" = "), value])
}

/// `ge=-40`, `max_length=60`: what the library checks of a value.
fn bounds(field: &PlannedField<'_>) -> Vec<String> {
    let Some(limits) = field.docs.limits().filter(|_| field.is_plain()) else { return Vec::new() };
    let number = |key: [&str; 2], limit: &Option<Limit>| {
        let Limit { number, is_within } = limit.as_ref()?;
        let is_whole = number.parse::<i64>().is_ok();
        let fits = is_whole || field.slot.ty == Type::Scalar(Scalar::Float);
        fits.then(|| format!("{}={number}", key[usize::from(!is_within)]))
    };
    let counts = |counts: Counts| {
        let least = counts.least.map(|least| format!("min_length={least}"));
        let most = counts.most.map(|most| format!("max_length={most}"));
        least.into_iter().chain(most).collect()
    };
    match &field.slot.ty {
        Type::Scalar(Scalar::Integer(_) | Scalar::Float) => {
            let bounds = [number(["ge", "gt"], &limits.least), number(["le", "lt"], &limits.most)];
            // Of a fraction, no remainder tells.
            let step = limits.step.as_ref().filter(|step| step.parse::<i64>().is_ok_and(|step| step > 0));
            bounds.into_iter().flatten().chain(step.map(|step| format!("multiple_of={step}"))).collect()
        }
        Type::Scalar(Scalar::Text) => counts(limits.lengths),
        Type::List(_) => counts(limits.items),
        Type::Any | Type::Scalar(_) | Type::Constant(_) | Type::Map(_) | Type::Tuple(_) | Type::Named(_) => {
            Vec::new()
        }
    }
}

const DEFAULTS: DefaultSpelling = DefaultSpelling {
    truths: ["False", "True"],
    literal: names::literal,
    case: |ty, case| format!("{}.{}", ty.ident, case.ident),
};

/// Contents on the same line, on one line of their own, or one a line.
fn call(open: &'static str, arguments: impl Iterator<Item = Doc>, close: &'static str) -> Doc {
    let inner = comma_list(arguments);
    let inner = group(cat([inner, last_comma()]));
    group(cat([text(open), nest(cat([soft(), inner])), soft(), text(close)]))
}

fn enumeration(sheet: &mut Sheet<'_>, ty: &PlannedType<'_>, cases: &[PlannedCase<'_>]) -> Doc {
    let base = match (ty.is_closed, sheet.options.level) {
        (true, Level::Eleven) => {
            sheet.needs.imports.insert("from enum import StrEnum");
            "StrEnum"
        }
        (is_closed, level) => {
            let helper = match (is_closed, level) {
                (true, _) => TEXT_ENUM,
                (false, Level::Ten) => OPEN_ENUM_310,
                (false, Level::Eleven) => OPEN_ENUM,
            };
            sheet.needs.helpers.insert(helper);
            helper.name
        }
    };
    let case = |PlannedCase { ident: case, wire, docs }: &PlannedCase<'_>| {
        let literal = names::literal(wire.as_str());
        let (name_width, width) = (case.as_str().chars().count(), literal.chars().count());
        let is_long = INDENT + name_width + " = ".len() + width > STYLE.width;
        // Its formatter takes a text into parentheses that has room in a line of its own.
        let member = if is_long && 2 * INDENT + width <= STYLE.width {
            let inside = nest(cat([hard(), text(literal)]));
            cat([text(format!("{case} = (")), inside, hard(), text(")")])
        } else {
            text(format!("{case} = {literal}"))
        };
        cat([hard(), documented(member, docs)])
    };
    let cases = cat(cases.iter().map(case));
    let body = cat(docstring(ty.docs).into_iter().chain([cases]));
    cat([text(format!("class {}({base}):", ty.ident)), nest(body)])
}

/// Declarations below imports, which stand nearer to a plain statement than to a class or a function: so isort has it.
fn below_imports(head: Doc, declarations: Vec<Doc>) -> Doc {
    let apart = cat([hard(), hard(), hard()]);
    let is_apart = declarations.first().is_none_or(|first| {
        ["class ", "def ", "@", "#"]
            .iter()
            .any(|start| opening(first).is_some_and(|text| text.starts_with(start)))
    });
    let first = if is_apart { &apart } else { &cat([hard(), hard()]) };
    cat([head, first.clone(), join(&apart, declarations)])
}

/// The first text of a document.
fn opening(doc: &Doc) -> Option<&str> {
    match doc {
        Doc::Text(text) => Some(text),
        Doc::Nest(inside) | Doc::Group(inside, _) => opening(inside),
        Doc::Cat(parts) => parts.iter().find_map(opening),
        Doc::Nil | Doc::Line(_) | Doc::Hard | Doc::IfBroken { .. } | Doc::Table(_) => None,
    }
}

/// `Step = str | Recipe`: on that line, on one of their own in parentheses, or one a line.
fn alternatives(ident: &Ident, cases: impl IntoIterator<Item = Doc>) -> Doc {
    cat([text(format!("{ident} = ")), in_parentheses(group(join(&cat([line(), text("| ")]), cases)))])
}

/// What stands in parentheses where it has no room without.
fn in_parentheses(value: Doc) -> Doc {
    group(cat([if_broken("(", ""), nest(cat([soft(), value])), soft(), if_broken(")", "")]))
}

/// A tag that no sample had leaves the whole object as a dictionary.
fn union(sheet: &mut Sheet<'_>, ty: &PlannedType<'_>, union: &PlannedUnion<'_>) -> Doc {
    let PlannedUnion { tag, cases, unknown: _ } = union;
    let ident = &ty.ident;
    let case = |PlannedUnionCase { ident: _, tag: _, key: _, slot }: &PlannedUnionCase<'_>| {
        types::slot(sheet, slot, Types::Pydantic)
    };
    let mut cases: Vec<Doc> = cases.iter().map(case).collect();
    if tag.is_none() {
        if sheet.plan.names_itself(ty.id) {
            // The library follows a name that leads back to itself only where it is told that it is one.
            sheet.needs.imports.insert("from typing_extensions import TypeAliasType");
            let cases = join(&text(" | "), cases);
            let cases = jar_sprout_layout::print(&cases, &ABOUT.style);
            let arguments = comma_list([format!("\"{ident}\""), format!("\"{cases}\"")].map(text));
            let arguments = nest(cat([soft(), group(arguments)]));
            return group(cat([text(format!("{ident} = TypeAliasType(")), arguments, soft(), text(")")]));
        }
        return alternatives(ident, cases);
    }
    sheet.needs.imports.extend([
        "from pydantic import JsonValue",
        "from pydantic import Tag",
        "from typing import Annotated",
    ]);
    sheet.needs.helpers.insert(BY_TAG);
    cases.push(text("dict[str, JsonValue]"));
    let key = tag.map_or("", WireName::as_str);
    let tags = || union.cases.iter().map(|case| names::literal(case.tag.map_or("", WireName::as_str)));
    // What is left as it is has a tag that nothing has.
    let marked = cases
        .into_iter()
        .zip(tags().chain([names::literal("")]))
        .map(|(case, tag)| cat([text("Annotated["), case, text(format!(", Tag({tag})]"))]));
    let cases = group(join(&cat([line(), text("| ")]), marked));
    let name = tag_name(sheet.plan, union).map_or_else(|| key.to_owned(), ToString::to_string);
    let known = [names::literal(key), names::literal(&name)].into_iter().chain(tags()).map(text);
    let chooser = call("by_tag(", known, ")");
    cat([text(format!("{ident} = ")), call("Annotated[", [cases, chooser].into_iter(), "]")])
}

/// What the tag of a union is called in its cases.
fn tag_name<'p>(plan: &'p Plan<'_>, union: &PlannedUnion<'_>) -> Option<&'p Ident> {
    let mut cases = union.cases.iter().flat_map(|case| case.slot.ty.named());
    cases.find_map(|id| plan.get(id).tag_field()).map(|field| &field.ident)
}

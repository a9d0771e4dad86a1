//! Swift: structs that are Codable.

mod entry;
mod extras;
mod habits;
mod helpers;
mod names;
mod plain_copies;
mod proof;
mod settings;
mod types;
mod unions;
mod usage;

use jar_sprout_layout::{
    Doc, Indent, Style, braces, cat, comma_list, group, lines, members, nest, paragraphs, soft, text,
};
use jar_sprout_model::{Slot, WireName, Words};

use crate::language::{Language, SharedPlace};
use crate::plan::{
    DefaultSpelling, Fate, Ident, Plan, PlannedCase, PlannedDefault, PlannedDefinition, PlannedField,
    PlannedType, pascal_case,
};
use crate::prepare::Abilities;
use crate::settings::Settings;
use crate::spell::docs::{self, Comment};
use crate::spell::{
    About, BlankSheet, Dialect, GrownFile, Helper, Needs, Place, Program, Trial, in_groups, nested,
};
use extras::Extras;
use settings::{NAMESPACE, SwiftOptions};

/// Swift.
pub(crate) struct Swift;

static ABOUT: About = About {
    key: "swift",
    title: "Swift",
    aliases: &[],
    grows: "structs that are Codable, Swift 6",
    settings: settings::SETTINGS,
    habits: habits::HABITS,
    folders: None,
    between: None,
    naming: names::NAMING,
    comment: Comment {
        form: docs::CommentStyle::Lines("/// "),
        width: 100,
        escape: docs::as_it_is,
        deprecated: Some(|why| format!("- Warning: {}", docs::deprecated(why))),
    },
    style: Style { width: 100, indent: Indent::Spaces(4) },
    ending: "swift",
    mark: ["// @generated ", ".", "; do not edit."],
    imported: |line| line.strip_prefix("import "),
    declared: |_| None,
};

/// What declarations are spelled on.
type Sheet<'s> = crate::spell::Sheet<'s, SwiftOptions>;

impl Language for Swift {
    fn about(&self) -> &'static About {
        &ABOUT
    }

    fn dialect(&self, settings: &Settings) -> Box<dyn Dialect> {
        Box::new(SwiftOptions::of(settings))
    }

    /// A module is what a package has; models that share one stand in a namespace each.
    fn apart(&self, settings: &Settings, model: &str) -> Settings {
        let name = pascal_case(&Words::split(model));
        let names = [name.clone(), format!("{name}Models"), format!("Models{name}")];
        let is_free = |name: &&String| Settings::default().with(&NAMESPACE, name).is_some();
        let Some(name) = names.iter().find(is_free) else { return settings.clone() };
        // As it was asked for, with the model's own name behind.
        let name = format!("{}{name}", NAMESPACE.of(settings).unwrap_or_default());
        settings.with(&NAMESPACE, &name).expect("it is longer than a name that can be used")
    }

    fn shared(&self, settings: &Settings, _: &str) -> Settings {
        settings.without(&NAMESPACE)
    }

    /// What stands beside all namespaces is found in each.
    fn sharing(&self, settings: &Settings, _: &SharedPlace<'_>) -> Option<Settings> {
        Some(settings.clone().with_shared(String::new()))
    }

    /// All trials share a module, which is far quicker than one for each.
    fn for_trial(&self, settings: &Settings, place: &str) -> Settings {
        let namespace = proof::namespace(NAMESPACE.of(settings).as_deref(), place);
        settings.for_trial().with(&NAMESPACE, &namespace).expect("a trial's place is a name")
    }
}

impl Dialect for SwiftOptions {
    fn about(&self) -> &'static About {
        &ABOUT
    }

    fn abilities(&self) -> Abilities {
        self.abilities()
    }

    /// A module cannot have two files of one name.
    fn file_name(&self, type_name: &str) -> String {
        let ty = type_name.trim_matches('`');
        match &self.namespace {
            Some(namespace) if ty.is_empty() => format!("{namespace}.swift"),
            Some(namespace) => format!("{namespace}+{ty}.swift"),
            // A file called so is taken for a program.
            None if ty.eq_ignore_ascii_case("main") => format!("{ty}+Type.swift"),
            None => format!("{ty}.swift"),
        }
    }

    fn comment(&self, plan: &Plan<'_>, ty: &PlannedType<'_>) -> Option<Doc> {
        ABOUT.comment.of(ty.docs, self.at(plan, ty).indent)
    }

    fn declare(&self, sheet: &mut BlankSheet<'_>, ty: &PlannedType<'_>) -> Doc {
        let options = self.at(sheet.plan, ty);
        match &ty.definition {
            PlannedDefinition::Record(fields) => {
                let nested = nested(self, sheet, ty);
                record(&mut sheet.with(&options), ty, fields, nested)
            }
            PlannedDefinition::Enumeration(cases) if ty.is_closed => closed(&ty.ident, cases, &options),
            PlannedDefinition::Enumeration(cases) => enumeration(&ty.ident, cases, &options),
            PlannedDefinition::Union(union) => unions::union(&mut sheet.with(&options), ty, union),
        }
    }

    fn declare_copy(
        &self,
        sheet: &mut BlankSheet<'_>,
        copy: &PlannedType<'_>,
        wire: &PlannedType<'_>,
    ) -> Doc {
        let options = self.at(sheet.plan, copy);
        let nested = nested(self, sheet, copy);
        plain_copies::declare(&mut sheet.with(&options), copy, wire, nested)
    }

    fn alias(&self, sheet: &mut BlankSheet<'_>, ident: &Ident, slot: &Slot) -> Doc {
        text(format!("{}typealias {ident} = {}", self.access, types::slot(&mut sheet.with(self), slot)))
    }

    fn entry(&self, sheet: &mut BlankSheet<'_>) -> Vec<Doc> {
        entry::functions(&mut sheet.with(self))
    }

    fn assemble(&self, _: &str, needs: &Needs, declarations: Vec<Doc>) -> Doc {
        let imports = needs.imports.iter().map(|name| text(format!("import {name}")));
        let imports = (!needs.imports.is_empty()).then(|| lines(imports));
        let declarations = match &self.namespace {
            None => declarations,
            Some(namespace) => {
                // The namespace is declared where all of it stands, or in a file of its own.
                let is_its_own = needs.is_whole || declarations.is_empty();
                let head = if is_its_own {
                    format!("{}enum {namespace}", self.access)
                } else {
                    format!("extension {namespace}")
                };
                [members(head, declarations)].into_iter().chain(needs.outside.clone()).collect()
            }
        };
        paragraphs(imports.into_iter().chain(declarations))
    }

    /// Extensions stand beside all types, and name what they extend by its whole name.
    fn split_helper(&self, helper: Helper) -> (&'static str, Option<String>) {
        let Some(namespace) = &self.namespace else { return (helper.text, None) };
        let Some(at) = helper.text.find("\nextension ") else { return (helper.text, None) };
        let (inside, outside) = helper.text.split_at(at);
        let name = helper.name;
        let outside = outside
            .replace(&format!("{name}<"), &format!("{namespace}.{name}<"))
            .replace(&format!("extension {name}:"), &format!("extension {namespace}.{name}:"))
            .replace(&format!(": {name}\n"), &format!(": {namespace}.{name}\n"));
        (inside, Some(outside.trim().to_owned()))
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
        proof::driver(trials, self)
    }
}

/// ```swift
/// struct Hive: Codable, Hashable, Sendable {
///     let id: Int64
/// }
/// ```
fn record(sheet: &mut Sheet<'_>, ty: &PlannedType<'_>, fields: &[PlannedField<'_>], nested: Vec<Doc>) -> Doc {
    let ident = &ty.ident;
    let extras = Extras::of(sheet, ty);
    let SwiftOptions { indent, access, is_class, is_encoded, property, .. } = *sheet.options;
    let typed: Vec<(&PlannedField<'_>, String)> =
        fields.iter().map(|field| (field, types::field(sheet, ty.id, field))).collect();
    // What is always there is written even if it is null, which the compiler's own way leaves out.
    let writes_null = is_encoded
        && fields.iter().any(|field| field.fate.is_always_there() && types::may_be_nil(field.slot));
    let has_words = fields.iter().any(|field| field.nothing_words().is_some());
    let has_defaults = fields.iter().any(|field| field.fate.default().is_some());
    let is_renamed = fields.iter().any(|field| bare(&field.ident) != field.wire.as_str());
    let decodes = has_words || has_defaults || extras.is_some();
    // Code that is written out would be told of each use.
    let is_written_out = is_class || !access.is_empty() || writes_null || decodes || sheet.plan.has_copies();
    let is_changed = ty.is_patch;
    let properties = typed.iter().map(|(field, ty)| {
        let is_marked = field.docs.is_deprecated && !is_written_out;
        let mark = is_marked.then(|| {
            let message = names::LITERAL.of(&docs::warning(field.docs));
            text(format!("@available(*, deprecated, message: {message})"))
        });
        let comment = match mark {
            Some(_) => ABOUT.comment.beside_annotation(field.docs, indent + 4),
            None => ABOUT.comment.of(field.docs, indent + 4),
        };
        // Whoever makes one says only what is to be there.
        let is_free = !is_written_out && (is_changed || field.fate.tag().is_some()) && property == "let";
        let (property, default) = match field.fate {
            Fate::Apart if is_free => ("var", " = .absent".to_owned()),
            Fate::Optional | Fate::Either if is_free => ("var", String::new()),
            Fate::Tag(tag) if is_free => ("private(set) var", tag_value(tag)),
            Fate::Tag(_)
            | Fate::Required
            | Fate::Nullable
            | Fate::Optional
            | Fate::Either
            | Fate::Apart
            | Fate::Defaulted(_) => (property, String::new()),
        };
        let declaration = text(format!("{access}{property} {}: {ty}{default}", field.ident));
        (comment, lines(mark.into_iter().chain([declaration])))
    });
    let mut inside = Vec::new();
    if !fields.is_empty() {
        let extras = extras.iter().map(|extras| (None, extras.property(sheet.options)));
        inside.push(docs::spaced(properties.chain(extras)));
    }
    if is_renamed || writes_null || decodes {
        inside.push(coding_keys(fields, extras.is_some()));
    }
    // Another initializer takes the place of the one that a struct has by itself.
    if is_class || !access.is_empty() || decodes {
        inside.push(initializer(sheet, &typed, extras.as_ref()));
    }
    if decodes {
        inside.push(decode(sheet, &typed, extras.as_ref()));
    }
    if writes_null || (has_words || extras.is_some()) && is_encoded {
        inside.push(encode(fields, extras.as_ref(), sheet.options));
    }
    inside.extend(nested);
    let has_id = fields.iter().any(|field| {
        bare(&field.ident) == "id" && field.fate.is_always_there() && !types::may_be_nil(field.slot)
    });
    let kind = if is_class { "final class" } else { "struct" };
    let protocols = sheet.options.protocols(has_id);
    members(format!("{access}{kind} {ident}: {protocols}"), inside)
}

/// ` = "swarm"`
fn tag_value(tag: &WireName) -> String {
    format!(" = {}", names::LITERAL.of(tag.as_str()))
}

/// An identifier without its backticks.
fn bare(ident: &Ident) -> &str {
    ident.as_str().trim_matches('`')
}

/// `all` says that all of them are to be asked for.
fn coding_keys(fields: &[PlannedField<'_>], all: bool) -> Doc {
    let key = |field: &PlannedField<'_>| {
        let PlannedField { ident, wire, slot: _, encoding: _, docs: _, fate: _ } = field;
        text(if bare(ident) == wire.as_str() {
            format!("case {ident}")
        } else {
            format!("case {ident} = {}", names::LITERAL.of(wire.as_str()))
        })
    };
    let more = if all { ", CaseIterable" } else { "" };
    braces(format!("private enum CodingKeys: String, CodingKey{more}"), fields.iter().map(key))
}

/// `init(id: Int64, note: String? = nil)`
fn initializer(
    sheet: &Sheet<'_>,
    fields: &[(&PlannedField<'_>, String)],
    extras: Option<&Extras<'_>>,
) -> Doc {
    let parameter = |(field, ty): &(&PlannedField<'_>, String)| {
        let default = match field.fate {
            Fate::Defaulted(default) => format!(" = {}", default_code(sheet.plan, default)),
            Fate::Apart => " = .absent".to_owned(),
            Fate::Optional | Fate::Either => " = nil".to_owned(),
            Fate::Tag(tag) => tag_value(tag),
            Fate::Required | Fate::Nullable => String::new(),
        };
        text(format!("{}: {ty}{default}", names::label(field.ident.as_str())))
    };
    let parameters = fields.iter().map(parameter).chain(extras.map(Extras::parameter));
    let parameters = comma_list(parameters);
    let head = group(cat([
        text(format!("{}init(", sheet.options.access)),
        nest(cat([soft(), parameters])),
        soft(),
        text(")"),
    ]));
    let idents = fields.iter().map(|(field, _)| &field.ident).chain(extras.map(|extras| extras.ident));
    let set = idents.map(|ident| text(format!("self.{} = {ident}", names::label(ident.as_str()))));
    if fields.is_empty() {
        return text(format!("{}init() {{}}", sheet.options.access));
    }
    braces(head, set)
}

const DEFAULTS: DefaultSpelling = DefaultSpelling {
    truths: ["false", "true"],
    literal: |text| names::LITERAL.of(text),
    case: |_, case| format!(".{}", case.ident),
};

fn default_code(plan: &Plan<'_>, default: PlannedDefault<'_>) -> String {
    let code = plan.default_code(default, &DEFAULTS);
    if default.is_number() { in_groups(&code) } else { code }
}

/// What the compiler would write, but that what is absent has its default value.
fn decode(sheet: &Sheet<'_>, fields: &[(&PlannedField<'_>, String)], extras: Option<&Extras<'_>>) -> Doc {
    let one = |(field, ty): &(&PlannedField<'_>, String)| {
        let name = &field.ident;
        // The method has names of its own.
        let own = if matches!(bare(name), "container" | "decoder") { "self." } else { "" };
        let plain = ty.trim_end_matches('?');
        let (method, default) = match field.fate {
            Fate::Defaulted(default) => {
                ("decodeIfPresent", format!(" ?? {}", default_code(sheet.plan, default)))
            }
            Fate::Optional | Fate::Either => ("decodeIfPresent", String::new()),
            Fate::Tag(_) | Fate::Required | Fate::Nullable | Fate::Apart => ("decode", String::new()),
        };
        // A key that must be there may hold null.
        let ty = if method == "decode" { ty } else { plain };
        let (ty, or) =
            if field.nothing_words().is_some() { (plain, or_words(field)) } else { (ty, String::new()) };
        let head = format!("{own}{name} = try container.{method}(");
        let key = names::label(name.as_str());
        wrapped(head, format!("{ty}.self, forKey: .{key}{or}"), format!("){default}"))
    };
    let container = text("let container = try decoder.container(keyedBy: CodingKeys.self)");
    braces(
        format!("{}init(from decoder: any Decoder) throws", sheet.options.access),
        [container].into_iter().chain(fields.iter().map(one)).chain(extras.map(Extras::decoded)),
    )
}

fn encode(fields: &[PlannedField<'_>], extras: Option<&Extras<'_>>, options: &SwiftOptions) -> Doc {
    let one = |field: &PlannedField<'_>| {
        let method = match field.fate {
            Fate::Optional | Fate::Either => "encodeIfPresent",
            Fate::Tag(_) | Fate::Required | Fate::Nullable | Fate::Apart | Fate::Defaulted(_) => "encode",
        };
        let name = &field.ident;
        // The method has names of its own.
        let own = if matches!(bare(name), "container" | "encoder") { "self." } else { "" };
        let or = if method == "encode" { or_words(field) } else { String::new() };
        let head = format!("try container.{method}(");
        let (value, key) = (format!("{own}{name}"), names::label(name.as_str()));
        wrapped(head, format!("{value}, forKey: .{key}{or}"), ")".to_owned())
    };
    let container = text("var container = encoder.container(keyedBy: CodingKeys.self)");
    braces(
        format!("{}func encode(to encoder: any Encoder) throws", options.access),
        [container].into_iter().chain(fields.iter().map(one)).chain(extras.map(Extras::encoded)),
    )
}

/// A call whose arguments stand on a line of their own where there is no room for all of it.
fn wrapped(head: String, arguments: String, end: String) -> Doc {
    group(cat([text(head), nest(cat([soft(), text(arguments)])), text(end)]))
}

/// `, or: NothingWords("N/A")`
fn or_words(field: &PlannedField<'_>) -> String {
    let Some(words) = field.nothing_words() else { return String::new() };
    let words: Vec<String> = words.iter().map(|word| names::LITERAL.of(word.as_str())).collect();
    format!(", or: NothingWords({})", words.join(", "))
}

/// A text of its own type; one that is not known yet is kept as it is.
fn enumeration(ident: &Ident, cases: &[PlannedCase<'_>], options: &SwiftOptions) -> Doc {
    let SwiftOptions { indent, access, .. } = *options;
    let case = |PlannedCase { ident: case, wire, docs }: &PlannedCase<'_>| {
        let literal = names::LITERAL.of(wire.as_str());
        let declaration = text(format!("{access}static let {case} = {ident}(rawValue: {literal})"));
        (ABOUT.comment.of(docs, indent + 4), declaration)
    };
    let value = text(format!("{access}let rawValue: String"));
    // Where the module alone sees it, the compiler makes the same.
    let initializer = (!access.is_empty())
        .then(|| braces(format!("{access}init(rawValue: String)"), [text("self.rawValue = rawValue")]));
    let coding = options.coding();
    members(
        format!("{access}struct {ident}: RawRepresentable, {coding}, Hashable, Sendable"),
        [docs::spaced(cases.iter().map(case)), value].into_iter().chain(initializer),
    )
}

/// `enum QueenStatus: String, Codable, Hashable, Sendable`
fn closed(ident: &Ident, cases: &[PlannedCase<'_>], options: &SwiftOptions) -> Doc {
    let case = |PlannedCase { ident: case, wire, docs }: &PlannedCase<'_>| {
        let value = if bare(case) == wire.as_str() {
            String::new()
        } else {
            format!(" = {}", names::LITERAL.of(wire.as_str()))
        };
        (ABOUT.comment.of(docs, options.indent + 4), text(format!("case {case}{value}")))
    };
    let access = options.access;
    let coding = options.coding();
    members(
        format!("{access}enum {ident}: String, {coding}, Hashable, Sendable"),
        [docs::spaced(cases.iter().map(case))],
    )
}

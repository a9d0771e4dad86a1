//! Dart: classes that read and write themselves, with no step of building, or for `json_annotation`.

mod annotated;
mod entry;
mod extras;
mod habits;
mod names;
mod plain_copies;
mod proof;
mod settings;
mod types;
mod unions;
mod usage;
mod values;

use std::borrow::Cow;
use std::collections::BTreeSet;

use jar_sprout_layout::{
    Doc, Indent, Style, braces, cat, comma_list, group, hard, last_comma, line, lines, members, nest,
    paragraphs, soft, text,
};
use jar_sprout_model::{NothingWords, Slot, Type};

use crate::language::{Language, SharedPlace};
use crate::plan::{
    DefaultSpelling, Fate, Ident, Plan, PlannedCase, PlannedDefinition, PlannedField, PlannedType,
    small_words,
};
use crate::prepare::Abilities;
use crate::settings::Settings;
use crate::spell::docs::{self, Comment};
use crate::spell::renaming::Renaming;
use crate::spell::{About, BlankSheet, Dialect, GrownFile, Needs, Place, Program, Trial};
use settings::DartOptions;
use types::Json;

/// Dart.
pub(crate) struct Dart;

/// Columns of a line.
const PAGE: usize = 80;

static ABOUT: About = About {
    key: "dart",
    title: "Dart",
    aliases: &[],
    grows: "classes with fromJson and toJson, Dart 3.3 and later",
    settings: settings::SETTINGS,
    habits: habits::HABITS,
    folders: None,
    between: None,
    naming: names::NAMING,
    comment: Comment {
        form: docs::CommentStyle::Lines("/// "),
        width: 80,
        escape: docs::as_it_is,
        deprecated: None,
    },
    style: Style { width: PAGE, indent: Indent::Spaces(2) },
    ending: "dart",
    mark: ["// @generated ", ".", "; do not edit."],
    // Its helpers import nothing.
    imported: |_| None,
    declared: names::declared,
};

/// What declarations are spelled on.
type Sheet<'s> = crate::spell::Sheet<'s, DartOptions>;

impl Language for Dart {
    fn about(&self) -> &'static About {
        &ABOUT
    }

    fn dialect(&self, settings: &Settings) -> Box<dyn Dialect> {
        Box::new(DartOptions::of(settings))
    }

    fn apart(&self, settings: &Settings, _: &str) -> Settings {
        settings.clone()
    }

    fn shared(&self, settings: &Settings, _: &str) -> Settings {
        settings.clone().with_shared(names::HERE.to_owned())
    }

    fn sharing(&self, settings: &Settings, shared: &SharedPlace<'_>) -> Option<Settings> {
        Some(settings.clone().with_shared(shared.way.to_owned()))
    }

    fn for_trial(&self, settings: &Settings, _: &str) -> Settings {
        settings.for_trial()
    }
}

impl Dialect for DartOptions {
    fn about(&self) -> &'static About {
        &ABOUT
    }

    fn abilities(&self) -> Abilities {
        self.abilities()
    }

    fn file_name(&self, type_name: &str) -> String {
        format!("{}.dart", small_words(type_name, "_"))
    }

    fn comment(&self, _: &Plan<'_>, ty: &PlannedType<'_>) -> Option<Doc> {
        ABOUT.comment.of(ty.docs, 0)
    }

    fn declare(&self, sheet: &mut BlankSheet<'_>, ty: &PlannedType<'_>) -> Doc {
        let sheet = &mut sheet.with(self);
        match &ty.definition {
            PlannedDefinition::Record(fields) => record(sheet, ty, fields),
            PlannedDefinition::Enumeration(cases) if ty.is_closed => closed(sheet, &ty.ident, cases),
            PlannedDefinition::Enumeration(cases) => enumeration(&ty.ident, cases, self),
            PlannedDefinition::Union(union) => unions::union(sheet, ty, union),
        }
    }

    fn declare_copy(
        &self,
        sheet: &mut BlankSheet<'_>,
        copy: &PlannedType<'_>,
        wire: &PlannedType<'_>,
    ) -> Doc {
        plain_copies::declare(&mut sheet.with(self), copy, wire)
    }

    /// A name for the type, and functions that read and write it.
    fn alias(&self, sheet: &mut BlankSheet<'_>, ident: &Ident, slot: &Slot) -> Doc {
        let plan = sheet.plan;
        let ty = types::slot(&mut sheet.with(self), slot);
        let function = function_name(ident.as_str());
        let read = types::read(plan, &slot.ty, slot.nullable, Json::dynamic("json"), 0);
        let read_hugs = types::opens_itself(&slot.ty) && !slot.nullable;
        let written = types::write(plan, &slot.ty, "value", 0);
        let write_hugs = read_hugs && written.is_some();
        let written = written.unwrap_or_else(|| text("value"));
        paragraphs([
            text(format!("typedef {ident} = {ty};")),
            arrow(format!("{ident} {function}FromJson(dynamic json)"), read, read_hugs),
            arrow(format!("Object? {function}ToJson({ident} value)"), written, write_hugs),
        ])
    }

    fn entry(&self, sheet: &mut BlankSheet<'_>) -> Vec<Doc> {
        entry::functions(&mut sheet.with(self))
    }

    fn assemble(&self, file: &str, needs: &Needs, declarations: Vec<Doc>) -> Doc {
        let imports = needs.imports.iter().map(|name| text(format!("import '{name}';")));
        let imports = (!needs.imports.is_empty()).then(|| lines(imports));
        let way = self.shared.as_deref().unwrap_or_default();
        let borrowed: BTreeSet<String> =
            needs.borrowed.iter().map(|one| names::import(way, &self.file_name(one.file))).collect();
        let borrowed = (!borrowed.is_empty()).then(|| lines(borrowed.into_iter().map(text)));
        // What the tool writes is a part of the file.
        let part = needs
            .imports
            .contains(annotated::LIBRARY)
            .then(|| text(format!("part '{}.g.dart';", file.trim_end_matches(".dart"))));
        paragraphs(imports.into_iter().chain(borrowed).chain(part).chain(declarations))
    }

    fn shared(&self) -> Option<&str> {
        self.shared.as_deref()
    }

    /// What other files use has no underscore.
    fn opened(&self, line: &'static str) -> Cow<'static, str> {
        Cow::Owned(line.replace("_deep", "deep"))
    }

    fn project(&self) -> Vec<GrownFile> {
        usage::project(self)
    }

    fn program(&self, sheet: &mut BlankSheet<'_>, place: Place<'_>) -> Option<Program> {
        usage::program(&mut sheet.with(self), place)
    }

    fn driver(&self, trials: &[Trial]) -> Vec<GrownFile> {
        proof::driver(trials)
    }
}

/// `hiveList` of `HiveList`
fn function_name(type_name: &str) -> String {
    let mut chars = type_name.chars();
    chars.next().map(|first| first.to_lowercase().chain(chars).collect()).unwrap_or_default()
}

/// ```dart
/// class Hive {
///   const Hive({required this.id});
///
///   factory Hive.fromJson(Map<String, dynamic> json) => Hive(
///     id: json['id'] as int,
///   );
///
///   final int id;
///
///   Map<String, dynamic> toJson() => {
///     'id': id,
///   };
/// }
/// ```
fn record(sheet: &mut Sheet<'_>, ty: &PlannedType<'_>, fields: &[PlannedField<'_>]) -> Doc {
    let ident = &ty.ident;
    let union = sheet.plan.union_of(ty.id).map(|union| &union.ident);
    let head = match union {
        Some(union) => format!("final class {ident} extends {union}"),
        None => format!("class {ident}"),
    };
    let to_json = if sheet.options.is_annotated && !fields.is_empty() {
        annotated::to_json(ident)
    } else {
        to_json(sheet.plan, ty, fields)
    };
    let to_json = lines(union.map(|_| text("@override")).into_iter().chain([to_json]));
    let mut values = Vec::new();
    if sheet.options.has_copy_with {
        values.extend(values::copy_with(sheet, ty, fields));
    }
    if sheet.options.has_equality {
        let extras = ty.extras.iter().map(|extras| (extras.ident.as_str(), &extras.map.ty));
        let parts = fields.iter().map(|field| (field.ident.as_str(), &field.slot.ty));
        let parts: Vec<(&str, &Type)> = parts.chain(extras).collect();
        values.extend(values::equality(sheet.options, ident.as_str(), &parts, sheet.needs));
    }
    if fields.is_empty() {
        let made = [
            text(format!("const {ident}();")),
            text(format!("const {ident}.fromJson(Map<String, dynamic> _);")),
            to_json,
        ];
        return members(head, made.into_iter().chain(values));
    }
    let (tags, parts): (Vec<_>, Vec<_>) =
        fields.iter().partition(|field| is_tag_apart(sheet, ty, fields, field));
    let is_annotated = sheet.options.is_annotated;
    let renaming = if is_annotated { annotated::rename_rule(fields) } else { Renaming::none() };
    let is_apart = |field: &PlannedField<'_>| tags.iter().any(|tag| tag.ident == field.ident);
    let declared = fields.iter().map(|field| {
        let value = field.fate.tag().filter(|_| is_apart(field));
        let value = value.map(|tag| format!(" = {}", names::LITERAL.of(tag.as_str()))).unwrap_or_default();
        let declaration = text(format!("final {} {}{value};", field_type(sheet, field), field.ident));
        let overrides = sheet.plan.is_shared(ty, field).then(|| text("@override"));
        let deprecated = field
            .docs
            .is_deprecated
            .then(|| text(format!("@Deprecated({})", names::LITERAL.of(&docs::warning(field.docs)))));
        let key = sheet.options.is_annotated.then(|| annotated::key(field, &renaming)).flatten();
        (
            ABOUT.comment.of(field.docs, 2),
            lines(deprecated.into_iter().chain(key).chain(overrides).chain([declaration])),
        )
    });
    let mut declared: Vec<(Option<Doc>, Doc)> = declared.collect();
    if let Some(extras) = &ty.extras {
        let map = types::slot(sheet, &extras.map);
        declared.push((None, text(format!("final {map} {};", extras.ident))));
    }
    let declared = docs::spaced(declared);
    let from_json = if sheet.options.is_annotated {
        annotated::from_json(ident)
    } else {
        from_json(sheet, ty, fields, &parts)
    };
    let inside =
        [constructor(sheet.plan, ty, &parts), from_json, declared, to_json].into_iter().chain(values);
    let class = members(head, inside);
    if sheet.options.is_annotated { annotated::class(class, &renaming, sheet.needs) } else { class }
}

/// A function of one expression; `hugs` says that the expression opens with a bracket, which stays on the line.
fn arrow(head: String, body: Doc, hugs: bool) -> Doc {
    if hugs {
        return cat([text(head), text(" => "), body, text(";")]);
    }
    group(cat([text(head), text(" =>"), nest(nest(cat([line(), body, text(";")])))]))
}

fn field_type(sheet: &mut Sheet<'_>, field: &PlannedField<'_>) -> String {
    match field.fate {
        Fate::Apart => {
            sheet.needs.helpers.insert(types::MAYBE);
            format!("Maybe<{}>?", types::slot(sheet, field.slot))
        }
        Fate::Tag(_) | Fate::Required | Fate::Defaulted(_) => types::non_null(sheet, &field.slot.ty),
        Fate::Nullable | Fate::Optional | Fate::Either => {
            types::or_null(&field.slot.ty, types::non_null(sheet, &field.slot.ty))
        }
    }
}

const DEFAULTS: DefaultSpelling = DefaultSpelling {
    truths: ["false", "true"],
    literal: |text| names::LITERAL.of(text),
    case: |ty, case| {
        let name = if ty.is_closed { closed_name(&case.ident) } else { case.ident.to_string() };
        format!("{}.{name}", ty.ident)
    },
};

/// Whether the tag of a record stands beside its constructor, where nobody can give it another one: not where other code
/// makes one, or nothing else would be left to it.
fn is_tag_apart(
    sheet: &Sheet<'_>,
    ty: &PlannedType<'_>,
    fields: &[PlannedField<'_>],
    field: &PlannedField<'_>,
) -> bool {
    field.fate.tag().is_some()
        && !sheet.options.is_annotated
        && !sheet.plan.has_copies()
        && (fields.len() > 1 || ty.extras.is_some())
}

fn constructor(plan: &Plan<'_>, ty: &PlannedType<'_>, fields: &[&PlannedField<'_>]) -> Doc {
    let parameter = |field: &&PlannedField<'_>| {
        let name = &field.ident;
        text(match field.fate {
            Fate::Tag(tag) => format!("this.{name} = {}", names::LITERAL.of(tag.as_str())),
            Fate::Defaulted(default) => {
                format!("this.{name} = {}", plan.default_code(default, &DEFAULTS))
            }
            Fate::Required | Fate::Nullable => format!("required this.{name}"),
            Fate::Optional | Fate::Either | Fate::Apart => format!("this.{name}"),
        })
    };
    let extras = ty.extras.iter().map(|extras| text(format!("this.{} = const {{}}", extras.ident)));
    listed(format!("const {}({{", ty.ident), fields.iter().map(parameter).chain(extras), "});")
}

fn from_json(
    sheet: &mut Sheet<'_>,
    ty: &PlannedType<'_>,
    all: &[PlannedField<'_>],
    fields: &[&PlannedField<'_>],
) -> Doc {
    let (ident, plan) = (&ty.ident, sheet.plan);
    let mut argument = |field: &&PlannedField<'_>| {
        let json = format!("json[{}]", names::LITERAL.of(field.wire.as_str()));
        let mut read = |may_be_null| {
            if field.is_json_in_text() {
                return types::read_text(sheet, &field.slot.ty, may_be_null, &json);
            }
            if let Some(words) = field.nothing_words() {
                return read_or_nothing(plan, &field.slot.ty, &json, words);
            }
            types::read(plan, &field.slot.ty, may_be_null, Json::dynamic(&json), 0)
        };
        let value = match field.fate {
            Fate::Defaulted(default) => {
                let default = plan.default_code(default, &DEFAULTS);
                types::read_or(plan, &field.slot.ty, &json, &default)
            }
            Fate::Apart => {
                let key = names::LITERAL.of(field.wire.as_str());
                let value = types::call("Maybe".to_owned(), read(true));
                let choice = cat([line(), text("? "), value, line(), text(": null")]);
                group(cat([text(format!("json.containsKey({key})")), nest(nest(choice))]))
            }
            Fate::Tag(_) | Fate::Required => read(false),
            Fate::Nullable | Fate::Optional | Fate::Either => read(true),
        };
        cat([text(format!("{}: ", field.ident)), value])
    };
    let head = format!("factory {ident}.fromJson(Map<String, dynamic> json) =>");
    let extras = ty.extras.iter().map(|extras| extras::read(plan, all, extras));
    let arguments = listed(format!("{ident}("), fields.iter().map(&mut argument).chain(extras), ");");
    // Inside a class, a name and a bracket behind it.
    let is_narrow = 2 + head.len() + 1 + ident.as_str().len() < PAGE;
    if is_narrow {
        return cat([text(head), text(" "), arguments]);
    }
    cat([text(head), nest(nest(cat([hard(), arguments])))])
}

fn to_json(plan: &Plan<'_>, ty: &PlannedType<'_>, fields: &[PlannedField<'_>]) -> Doc {
    if fields.is_empty() {
        return text("Map<String, dynamic> toJson() => const {};");
    }
    let extras = ty.extras.iter().map(|extras| extras::written(plan, extras));
    let entries = fields.iter().map(|field| entry(plan, field)).chain(extras);
    listed("Map<String, dynamic> toJson() => {".to_owned(), entries, "};")
}

/// ```dart
/// switch (json['kg']) {
///   null || 'N/A' => null,
///   final value => (value as num).toDouble(),
/// }
/// ```
fn read_or_nothing(plan: &Plan<'_>, ty: &Type, json: &str, words: &NothingWords) -> Doc {
    let words = words.iter().map(|word| format!(" || {}", names::LITERAL.of(word.as_str())));
    let nothing = text(format!("null{} => null,", words.collect::<String>()));
    let value = types::read(plan, ty, false, Json::dynamic("value"), 0);
    braces(format!("switch ({json})"), [nothing, cat([text("final value => "), value, text(",")])])
}

/// On one line, or one a line with a comma behind each.
fn listed(open: String, parts: impl Iterator<Item = Doc>, close: &'static str) -> Doc {
    let parts = comma_list(parts);
    group(cat([text(open), nest(cat([soft(), parts, last_comma()])), soft(), text(close)]))
}

/// `if (queen case final queen?) 'queen': queen.toJson()`
fn entry(plan: &Plan<'_>, field: &PlannedField<'_>) -> Doc {
    let PlannedField { ident, wire, slot, encoding: _, docs: _, fate } = field;
    let key = names::LITERAL.of(wire.as_str());
    let name = ident.as_str();
    let written = types::write(plan, &slot.ty, name, 0);
    let written = if field.is_json_in_text() {
        let inside = written.unwrap_or_else(|| text(name.to_owned()));
        Some(types::call("jsonEncode".to_owned(), inside))
    } else {
        written
    };
    let plain = || cat([text(format!("{key}: ")), written.clone().unwrap_or_else(|| text(name.to_owned()))]);
    match fate {
        Fate::Apart => {
            let value = format!("{name}.value");
            let written = types::write_held(plan, slot, &value, 0).unwrap_or_else(|| text(value));
            let entry = cat([line(), text(format!("{key}: ")), written]);
            group(cat([text(format!("if ({name} case final {name}?)")), nest(entry)]))
        }
        Fate::Tag(_) | Fate::Required | Fate::Defaulted(_) => plain(),
        Fate::Nullable => {
            let word = field.nothing_words().map(|words| names::LITERAL.of(words.first().as_str()));
            let or_word = |value: Doc| match &word {
                Some(word) => group(cat([value, nest(nest(cat([line(), text(format!("?? {word}"))])))])),
                None => value,
            };
            match (&slot.ty, &written) {
                (_, None) => or_word(plain()),
                (ty, Some(written))
                    if matches!(ty, Type::List(_) | Type::Map(_)) || field.is_json_in_text() =>
                {
                    let some = cat([text(format!("final {name}? => ")), written.clone(), text(",")]);
                    let none = text(format!("null => {},", word.as_deref().unwrap_or("null")));
                    braces(format!("{key}: switch ({name})"), [some, none])
                }
                (_, Some(_)) => or_word(cat([
                    text(format!("{key}: ")),
                    types::write(plan, &slot.ty, &format!("{name}?"), 0).unwrap_or(Doc::Nil),
                ])),
            }
        }
        Fate::Optional | Fate::Either => {
            let condition = match &written {
                None => format!("if ({name} != null)"),
                Some(_) => format!("if ({name} case final {name}?)"),
            };
            group(cat([text(condition), nest(cat([line(), plain()]))]))
        }
    }
}

/// A text of its own type, which is not there when the program runs; one that is not known yet is kept as it is.
fn enumeration(ident: &Ident, cases: &[PlannedCase<'_>], options: &DartOptions) -> Doc {
    let case = |PlannedCase { ident: case, wire, docs }: &PlannedCase<'_>| {
        let declaration =
            text(format!("static const {case} = {ident}({});", names::LITERAL.of(wire.as_str())));
        (ABOUT.comment.of(docs, 2), declaration)
    };
    let inside = [docs::spaced(cases.iter().map(case))].into_iter();
    let methods = options.is_annotated.then(|| annotated::of_text(ident)).into_iter().flatten();
    members(format!("extension type const {ident}(String value)"), inside.chain(methods))
}

/// What every enum has of itself.
const OF_ENUMS: &[&str] = &["index", "values"];

fn closed_name(case: &Ident) -> String {
    let more = if OF_ENUMS.contains(&case.as_str()) { "Case" } else { "" };
    format!("{case}{more}")
}

/// ```dart
/// enum QueenStatus {
///   laying('laying');
///
///   const QueenStatus(this.value);
/// }
/// ```
fn closed(sheet: &mut Sheet<'_>, ident: &Ident, cases: &[PlannedCase<'_>]) -> Doc {
    let last = cases.len().saturating_sub(1);
    let case = |(at, PlannedCase { ident: case, wire, docs }): (usize, &PlannedCase<'_>)| {
        let end = if at == last { ";" } else { "," };
        let literal = names::LITERAL.of(wire.as_str());
        let declaration = text(format!("{}({literal}){end}", closed_name(case)));
        (ABOUT.comment.of(docs, 2), declaration)
    };
    let find = [
        "(known) => known.value == json".to_owned(),
        format!("orElse: () => throw FormatException('unknown {ident}', json)"),
    ];
    let read = listed("values.firstWhere(".to_owned(), find.into_iter().map(text), ")");
    let head = format!("factory {ident}.fromJson(String json)");
    let hugs = 2 + head.len() + " => values.firstWhere(".len() <= PAGE;
    let inside = [
        docs::spaced(cases.iter().enumerate().map(case)),
        text(format!("const {ident}(this.value);")),
        arrow(head, read, hugs),
        text("final String value;"),
        text("String toJson() => value;"),
    ];
    let declaration = members(format!("enum {ident}"), inside);
    if sheet.options.is_annotated { annotated::of_enum(declaration, sheet.needs) } else { declaration }
}

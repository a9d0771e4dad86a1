//! Rust: structs and enums with serde's derives.

mod entry;
mod habits;
mod names;
mod proof;
mod settings;
mod sizes;
mod times;
mod types;
mod unions;
mod usage;

use jar_sprout_layout::{
    Doc, Indent, Style, braces, cat, comma_list, group, group_at_most, hard, lines, members, nest,
    paragraphs, soft, text,
};
use jar_sprout_model::{Coding, Encoding, Slot, Type, TypeId, WireName};

use crate::language::{Language, SharedPlace};
use crate::plan::{
    DefaultSpelling, Fate, Ident, Plan, PlannedCase, PlannedDefinition, PlannedExtras, PlannedField,
    PlannedNothing, PlannedType, small_words,
};
use crate::prepare::Abilities;
use crate::settings::Settings;
use crate::spell::docs::{self, Comment};
use crate::spell::renaming::Renaming;
use crate::spell::{About, BlankSheet, Dialect, GrownFile, Helper, Needs, Place, Program, Trial, in_groups};
use settings::RustOptions;

/// Rust with serde.
pub(crate) struct Rust;

static ABOUT: About = About {
    key: "rust",
    title: "Rust",
    aliases: &["rs"],
    grows: "structs and enums with serde's derives",
    settings: settings::SETTINGS,
    habits: habits::HABITS,
    folders: None,
    between: None,
    naming: names::NAMING,
    comment: Comment {
        form: docs::CommentStyle::Lines("/// "),
        width: 100,
        escape: docs::without_fences,
        deprecated: Some(docs::deprecated),
    },
    style: Style { width: 100, indent: Indent::Spaces(4) },
    ending: "rs",
    mark: ["// @generated ", ".", "; do not edit."],
    imported: |line| line.strip_prefix("use ")?.strip_suffix(';'),
    declared: |_| None,
};

/// What declarations are spelled on.
type Sheet<'s> = crate::spell::Sheet<'s, RustOptions>;

impl Language for Rust {
    fn about(&self) -> &'static About {
        &ABOUT
    }

    fn dialect(&self, settings: &Settings) -> Box<dyn Dialect> {
        Box::new(RustOptions::of(settings))
    }

    fn apart(&self, settings: &Settings, _: &str) -> Settings {
        settings.clone()
    }

    fn sharing(&self, _: &Settings, _: &SharedPlace<'_>) -> Option<Settings> {
        None
    }

    fn for_trial(&self, settings: &Settings, _: &str) -> Settings {
        settings.for_trial()
    }
}

impl Dialect for RustOptions {
    fn about(&self) -> &'static About {
        &ABOUT
    }

    fn abilities(&self) -> Abilities {
        self.abilities()
    }

    fn file_name(&self, type_name: &str) -> String {
        format!("{}.rs", small_words(type_name, "_"))
    }

    fn comment(&self, _: &Plan<'_>, ty: &PlannedType<'_>) -> Option<Doc> {
        ABOUT.comment.of(ty.docs, 0)
    }

    fn declare(&self, sheet: &mut BlankSheet<'_>, ty: &PlannedType<'_>) -> Doc {
        let sheet = &mut sheet.with(self);
        sheet.needs.imports.extend(["serde::Deserialize", "serde::Serialize"]);
        let PlannedType { ident, definition, .. } = ty;
        match definition {
            PlannedDefinition::Record(fields) => record(sheet, ty, fields),
            PlannedDefinition::Enumeration(cases) => enumeration(ident, cases, ty.is_closed),
            PlannedDefinition::Union(union) => unions::union(sheet, ty, union),
        }
    }

    fn alias(&self, sheet: &mut BlankSheet<'_>, ident: &Ident, slot: &Slot) -> Doc {
        let ty = types::slot(&mut sheet.with(self), None, slot);
        cat([text(format!("pub type {ident} = ")), ty, text(";")])
    }

    fn nothing(&self, sheet: &mut BlankSheet<'_>, nothing: &PlannedNothing<'_>) -> Option<Doc> {
        sheet.needs.imports.extend(["serde::Deserialize", "serde::Serialize"]);
        sheet.needs.helpers.insert(NOTHING_WORDS);
        let PlannedNothing { ident, slot: _, words } = nothing;
        let words = comma_list(words.iter().map(|word| text(names::LITERAL.of(word.as_str()))));
        let words = cat([
            text("const WORDS: &'static [&'static str] = &["),
            nest(cat([soft(), words])),
            soft(),
            text("];"),
        ]);
        let head = format!("impl {} for {ident}", NOTHING_WORDS.name);
        Some(paragraphs([text(format!("struct {ident};")), braces(head, [group(words)])]))
    }

    fn entry(&self, sheet: &mut BlankSheet<'_>) -> Vec<Doc> {
        entry::functions(&mut sheet.with(self))
    }

    fn assemble(&self, _: &str, needs: &Needs, declarations: Vec<Doc>) -> Doc {
        let imports = names::grouped_imports(&needs.imports);
        let imports = (!imports.is_empty()).then(|| lines(imports.into_iter().map(text)));
        paragraphs(imports.into_iter().chain(declarations))
    }

    fn shared(&self) -> Option<&str> {
        None
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

/// Tells null from nothing.
const PRESENT: Helper = Helper { name: "present", text: include_str!("present.rs.in") };

/// Numbers and truths in letters.
const IN_LETTERS: Helper = Helper { name: "in_letters", text: include_str!("in_letters.rs.in") };
const IN_LETTERS_OR_NONE: Helper =
    Helper { name: "in_letters_or_none", text: include_str!("in_letters_or_none.rs.in") };

/// Values that stand as JSON in a text.
const JSON_IN_TEXT: Helper = Helper { name: "json_in_text", text: include_str!("json_in_text.rs.in") };
const JSON_IN_TEXT_OR_NONE: Helper =
    Helper { name: "json_in_text_or_none", text: include_str!("json_in_text_or_none.rs.in") };

/// Words that stand for nothing.
const NOTHING_WORDS: Helper = Helper { name: "NothingWords", text: include_str!("nothing_words.rs.in") };

/// `#[derive(Debug, Clone, PartialEq, Eq, Serialize, Deserialize)]`
fn derives(plan: &Plan<'_>, id: TypeId, coded: &str) -> Doc {
    let total = if plan.has_floats(id) { "" } else { ", Eq" };
    text(format!("#[derive(Debug, Clone, PartialEq{total}{coded})]"))
}

/// `#[serde(rename = "@type", skip_serializing_if = "Option::is_none")]`
fn serde(arguments: Vec<String>) -> Option<Doc> {
    (!arguments.is_empty()).then(|| attribute("serde", arguments))
}

/// `#[name(a = "b", c)]`
fn attribute(name: &str, arguments: Vec<String>) -> Doc {
    // Its formatter lets one argument fill the line, and keeps several on one up to 70 columns.
    let most = if arguments.len() == 1 { ABOUT.style.width } else { 80 };
    let arguments = comma_list(arguments.into_iter().map(text));
    let open = text(format!("#[{name}("));
    group_at_most(most, cat([open, nest(cat([soft(), arguments])), soft(), text(")]")]))
}

fn rename(wire: &WireName) -> String {
    format!("rename = {}", names::LITERAL.of(wire.as_str()))
}

/// ```text
/// #[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
/// pub struct Hive {
///     pub id: i64,
/// }
/// ```
fn record(sheet: &mut Sheet<'_>, ty: &PlannedType<'_>, fields: &[PlannedField<'_>]) -> Doc {
    let ident = &ty.ident;
    let tag = sheet
        .plan
        .tag_to_write(ty)
        .map(|(key, tag)| [format!("tag = {}", names::LITERAL.of(key.as_str())), rename(tag)]);
    // A tag is the enum's, or the attribute's: serde reads and writes it.
    let fields: Vec<&PlannedField<'_>> = fields.iter().filter(|field| field.fate.tag().is_none()).collect();
    let pairs: Vec<(&str, &str)> =
        fields.iter().map(|field| (names::bare(field.ident.as_str()), field.wire.as_str())).collect();
    let rule = names::rename_rule(&pairs);
    let arguments = tag.into_iter().flatten().chain(names::rename_all(&rule)).collect();
    let derives = derives(sheet.plan, ty.id, ", Serialize, Deserialize");
    let attributes = [derives].into_iter().chain(serde(arguments));
    if fields.is_empty() {
        return lines(attributes.chain([text(format!("pub struct {ident} {{}}"))]));
    }
    let mut members: Vec<Doc> = fields.iter().map(|one| field(sheet, ty, one, &rule)).collect();
    if let Some(PlannedExtras { ident, map, slot: _ }) = &ty.extras {
        let declared = cat([text(format!("pub {ident}: ")), types::slot(sheet, None, map), text(",")]);
        members.extend([text("#[serde(flatten)]"), declared]);
    }
    let declaration = lines(attributes.chain([braces(format!("pub struct {ident}"), members)]));
    match defaults(sheet, ty, &fields) {
        Some(defaults) => cat([declaration, hard(), hard(), defaults]),
        None => declaration,
    }
}

const DEFAULTS: DefaultSpelling = DefaultSpelling {
    truths: ["false", "true"],
    literal: |text| format!("{}.to_owned()", names::LITERAL.of(text)),
    case: |ty, case| format!("{}::{}", ty.ident, case.ident),
};

fn default_name(ident: &Ident) -> String {
    format!("default_{}", names::bare(ident.as_str()))
}

/// Functions that make the default values of fields.
fn defaults(sheet: &mut Sheet<'_>, owner: &PlannedType<'_>, fields: &[&PlannedField<'_>]) -> Option<Doc> {
    let mut functions = Vec::new();
    for field in fields {
        let Some(default) = field.fate.default() else { continue };
        let ty = types::non_null(sheet, Some(owner.id), field.slot);
        let code = sheet.plan.default_code(default, &DEFAULTS);
        let is_owned = code.ends_with(".to_owned()");
        let keywords = if is_owned { "fn" } else { "const fn" };
        let head = cat([text(format!("{keywords} {}() -> ", default_name(&field.ident))), ty]);
        let code = if default.is_number() { in_groups(&code) } else { code };
        functions.push(braces(head, [text(code)]));
    }
    (!functions.is_empty()).then(|| members(format!("impl {}", owner.ident), functions))
}

fn field(sheet: &mut Sheet<'_>, owner: &PlannedType<'_>, field: &PlannedField<'_>, rule: &Renaming) -> Doc {
    let PlannedField { ident, wire, slot, encoding: _, docs, fate } = field;
    let mut arguments = Vec::new();
    if !rule.makes(names::bare(ident.as_str()), wire.as_str()) {
        arguments.push(rename(wire));
    }
    let left_out = || "skip_serializing_if = \"Option::is_none\"".to_owned();
    match fate {
        Fate::Tag(_) | Fate::Required | Fate::Nullable => {}
        Fate::Optional | Fate::Either => arguments.push(left_out()),
        Fate::Apart => {
            sheet.needs.helpers.insert(PRESENT);
            let present = "deserialize_with = \"present\"".to_owned();
            arguments.extend([left_out(), "default".to_owned(), present]);
        }
        Fate::Defaulted(_) => {
            arguments.push(format!("default = \"{}::{}\"", owner.ident, default_name(ident)));
        }
    }
    let is_option = match fate {
        Fate::Tag(_) | Fate::Required | Fate::Defaulted(_) => false,
        // Any JSON value has a null of its own.
        Fate::Nullable => slot.ty != Type::Any || field.nothing_words().is_some(),
        Fate::Optional | Fate::Either | Fate::Apart => true,
    };
    // What reads in another way than the library's own does not know of what is absent.
    let absent = fate.is_left_out().then(|| "default".to_owned());
    let is_plain = !fate.tells_null() && *field.encoding == Encoding::Plain;
    let time = if is_plain { times::attribute(sheet, field, is_option) } else { None };
    let coding = field.coding();
    if let Some((index, PlannedNothing { ident, .. })) = sheet.plan.nothing_of(field) {
        sheet.needs.nothings.insert(index);
        let letters = if coding.is_some() { "_letters" } else { "" };
        arguments.extend(absent.clone());
        arguments.push(format!("serialize_with = \"{ident}::write{letters}\""));
        arguments.push(format!("deserialize_with = \"{ident}::read{letters}\""));
    } else if let Some(path) = with(sheet, field, is_option) {
        arguments.extend(absent.clone());
        arguments.push(format!("with = \"{path}\""));
    }
    let ty = match (&slot.ty, &time, coding) {
        (Type::Scalar(scalar), Some(_), _) => text(types::scalar(sheet, *scalar)),
        (_, _, Some(coding)) => text(types::decoded(sheet, coding)),
        // `Option<Option<String>>`
        _ if fate.tells_null() => types::slot(sheet, Some(owner.id), slot),
        _ => types::non_null(sheet, Some(owner.id), slot),
    };
    arguments.extend(time.into_iter().flatten());
    let ty = if is_option { cat([text("Option<"), ty, text(">")]) } else { ty };
    let declaration = cat([text(format!("pub {ident}: ")), ty, text(",")]);
    let comment = ABOUT.comment.beside_annotation(docs, 4);
    let deprecated = docs.is_deprecated.then(|| {
        let note = names::LITERAL.of(&docs::warning(docs));
        attribute("deprecated", vec![format!("note = {note}")])
    });
    lines(comment.into_iter().chain(deprecated).chain(serde(arguments)).chain([declaration]))
}

/// The module that reads and writes a field which the wire has in another way.
fn with(sheet: &mut Sheet<'_>, field: &PlannedField<'_>, is_option: bool) -> Option<String> {
    let helper = match field.coding() {
        Some(coding @ (Coding::EpochSeconds | Coding::EpochMilliseconds)) => {
            return Some(times::epoch(sheet.options.dates, coding, is_option));
        }
        Some(_) if is_option => IN_LETTERS_OR_NONE,
        Some(_) => IN_LETTERS,
        None if !field.is_json_in_text() => return None,
        None if is_option => JSON_IN_TEXT_OR_NONE,
        None => JSON_IN_TEXT,
    };
    sheet.needs.helpers.insert(helper);
    Some(helper.name.to_owned())
}

/// Known values as variants, any other text in `Other` if there may be such.
fn enumeration(ident: &Ident, cases: &[PlannedCase<'_>], is_closed: bool) -> Doc {
    let pairs: Vec<(&str, &str)> =
        cases.iter().map(|case| (case.ident.as_str(), case.wire.as_str())).collect();
    let rule = names::variant_rule(&pairs);
    let case = |PlannedCase { ident: case, wire, docs }: &PlannedCase<'_>| {
        let own = (!rule.makes(case.as_str(), wire.as_str())).then(|| rename(wire));
        let variant = text(format!("{case},"));
        let comment = ABOUT.comment.of(docs, 4);
        lines(comment.into_iter().chain(serde(own.into_iter().collect())).chain([variant]))
    };
    let other = lines([text("#[serde(untagged)]"), text("Other(String),")]);
    let body = cases.iter().map(case).chain((!is_closed).then_some(other));
    let copy = if is_closed { "Copy, " } else { "" };
    let derives = text(format!("#[derive(Debug, Clone, {copy}PartialEq, Eq, Hash, Serialize, Deserialize)]"));
    let declaration = braces(format!("pub enum {ident}"), body);
    lines(
        [derives]
            .into_iter()
            .chain(serde(names::rename_all(&rule).into_iter().collect()))
            .chain([declaration]),
    )
}

//! Go: structs with tags.

mod entry;
mod habits;
mod names;
mod proof;
mod settings;
mod times;
mod types;
mod unions;
mod usage;

use std::borrow::Cow;

use jar_sprout_layout::{Doc, Indent, Style, braces, cat, hard, lines, nest, paragraphs, table, text};
use jar_sprout_model::{Docs, Slot, Type};

use crate::language::{Language, SharedPlace};
use crate::plan::{
    DefaultSpelling, Ident, Plan, PlannedCase, PlannedDefinition, PlannedExtras, PlannedField,
    PlannedNothing, PlannedType,
};
use crate::prepare::Abilities;
use crate::settings::Settings;
use crate::spell::docs::{self, Comment};
use crate::spell::{About, BlankSheet, Dialect, GrownFile, Helper, Needs, Place, Program, Trial};
use settings::{GoOptions, PACKAGE};

/// Go with `encoding/json`.
pub(crate) struct Go;

/// Reads and writes keys that no struct tag can name.
const KEYS: Helper = Helper { name: "keys", text: include_str!("keys.go") };

/// Reads and writes keys that are no fields.
const OTHERS: Helper = Helper { name: "others", text: include_str!("others.go") };

static ABOUT: About = About {
    key: "go",
    title: "Go",
    aliases: &["golang"],
    grows: "structs with tags, Go 1.24 and later",
    settings: settings::SETTINGS,
    habits: habits::HABITS,
    folders: None,
    between: Some('/'),
    naming: names::NAMING,
    // Its formatter breaks no lines.
    comment: Comment {
        form: docs::CommentStyle::GoLines,
        width: 100,
        escape: docs::in_go,
        deprecated: Some(|why| format!("Deprecated: {}", why.unwrap_or("do not use it any more."))),
    },
    style: Style { width: usize::MAX, indent: Indent::Tab { columns: 8 } },
    ending: "go",
    mark: ["// Code generated ", ". DO NOT EDIT.", ". DO NOT EDIT."],
    imported: |line| line.strip_prefix("import \"")?.strip_suffix('"'),
    declared: names::declared,
};

/// What declarations are spelled on.
type Sheet<'s> = crate::spell::Sheet<'s, GoOptions>;

impl Language for Go {
    fn about(&self) -> &'static About {
        &ABOUT
    }

    fn dialect(&self, settings: &Settings) -> Box<dyn Dialect> {
        Box::new(GoOptions::of(settings))
    }

    /// Each folder is a package.
    fn apart(&self, settings: &Settings, model: &str) -> Settings {
        Settings::default().with_part(&PACKAGE, &model.replace('_', "")).or(settings)
    }

    /// A package is imported by its whole path.
    fn sharing(&self, settings: &Settings, shared: &SharedPlace<'_>) -> Option<Settings> {
        shared.name.contains('/').then(|| settings.clone().with_shared(shared.name.to_owned()))
    }

    fn for_trial(&self, settings: &Settings, place: &str) -> Settings {
        settings.for_trial().with(&PACKAGE, place).expect("a trial's place is a package")
    }
}

impl Dialect for GoOptions {
    fn about(&self) -> &'static About {
        &ABOUT
    }

    fn abilities(&self) -> Abilities {
        self.abilities()
    }

    fn file_name(&self, type_name: &str) -> String {
        names::file_name(type_name)
    }

    /// A comment begins with the name of what it is of; what a union says of itself stands below, in a paragraph.
    fn comment(&self, _: &Plan<'_>, ty: &PlannedType<'_>) -> Option<Doc> {
        let PlannedType { ident, docs, definition, .. } = ty;
        let said = docs.text();
        let is_named = said.strip_prefix(ident.as_str()).is_some_and(|rest| rest.starts_with(' '));
        let comment = if said.is_empty() || is_named || docs.is_deprecated {
            ABOUT.comment.of(docs, 0)
        } else {
            ABOUT.comment.of(&Docs::new(&opened(ident.as_str(), said)), 0)
        };
        let is_union = matches!(definition, PlannedDefinition::Union(_));
        comment.map(|comment| if is_union { lines([comment, text("//")]) } else { comment })
    }

    fn declare(&self, sheet: &mut BlankSheet<'_>, ty: &PlannedType<'_>) -> Doc {
        let sheet = &mut sheet.with(self);
        let PlannedType { ident, definition, .. } = ty;
        match definition {
            PlannedDefinition::Record(fields) => record(sheet, ty, fields),
            PlannedDefinition::Enumeration(cases) if ty.is_closed => {
                let check = refuse_others(ident, cases, sheet.needs);
                paragraphs([enumeration(ident, cases), check])
            }
            PlannedDefinition::Enumeration(cases) => enumeration(ident, cases),
            PlannedDefinition::Union(union) => unions::union(sheet, ident, union),
        }
    }

    fn alias(&self, sheet: &mut BlankSheet<'_>, ident: &Ident, slot: &Slot) -> Doc {
        // A type of its own has no methods of the one it stands for, which lists and maps do not need.
        let sign = match &slot.ty {
            Type::List(_) | Type::Map(_) | Type::Tuple(_) => "",
            Type::Any | Type::Scalar(_) | Type::Constant(_) | Type::Named(_) => "= ",
        };
        text(format!("type {ident} {sign}{}", types::slot(&mut sheet.with(self), slot)))
    }

    fn nothing(&self, _: &mut BlankSheet<'_>, nothing: &PlannedNothing<'_>) -> Option<Doc> {
        Some(types::words(nothing))
    }

    fn entry(&self, sheet: &mut BlankSheet<'_>) -> Vec<Doc> {
        entry::functions(&mut sheet.with(self))
    }

    fn assemble(&self, _: &str, needs: &Needs, declarations: Vec<Doc>) -> Doc {
        let package = text(format!("package {}", self.package));
        let quoted = |path: &str| format!("\"{path}\"");
        let imports: Vec<String> = needs.imports.iter().copied().map(quoted).collect();
        let shared = self.shared.as_deref().filter(|_| !needs.borrowed.is_empty()).map(quoted);
        let imports = match (&imports[..], &shared) {
            ([], None) => None,
            ([one], None) => Some(text(format!("import {one}"))),
            ([], Some(shared)) => Some(text(format!("import {shared}"))),
            (several, shared) => {
                let several = several.iter().map(|path| cat([hard(), text(path.clone())]));
                // Those of the standard library stand first, by themselves.
                let shared = shared.iter().flat_map(|path| [hard(), cat([hard(), text(path.clone())])]);
                Some(cat([text("import ("), nest(cat(several.chain(shared))), hard(), text(")")]))
            }
        };
        paragraphs([package].into_iter().chain(imports).chain(declarations))
    }

    fn shared(&self) -> Option<&str> {
        self.shared.as_deref()
    }

    fn opened(&self, line: &'static str) -> Cow<'static, str> {
        names::opened(line)
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

/// ```go
/// type Hive struct {
///     ID int64 `json:"id"`
/// }
/// ```
fn record(sheet: &mut Sheet<'_>, ty: &PlannedType<'_>, fields: &[PlannedField<'_>]) -> Doc {
    let ident = &ty.ident;
    if fields.is_empty() {
        return text(format!("type {ident} struct{{}}"));
    }
    let row = |field: &PlannedField<'_>, sheet: &mut Sheet<'_>| {
        let (ty, option) = types::field(sheet, ty.id, field);
        let name = names::tag_name(field.wire.as_str()).map_or_else(|| "-".to_owned(), |name| name + option);
        vec![field.ident.to_string(), ty, format!("`json:\"{name}\"`")]
    };
    let nothing = Docs::default();
    let base = sheet.plan.base_of(ty).filter(|base| can_embed(base, fields));
    let embedded = base.map(|base| (&nothing, vec![base.ident.to_string()]));
    let own = Plan::own_fields(base, fields);
    let own = own.iter().map(|field| (field.docs, row(field, sheet)));
    let mut rows: Vec<(&Docs, Vec<String>)> = embedded.into_iter().chain(own).collect();
    if let Some(PlannedExtras { ident, map, slot: _ }) = &ty.extras {
        rows.push((&nothing, vec![ident.to_string(), types::slot(sheet, map), "`json:\"-\"`".to_owned()]));
    }
    let declaration = braces(format!("type {ident} struct"), [documented_rows(rows)]);
    if let Some(extras) = &ty.extras {
        let methods = extras_methods(sheet, ident, fields, extras);
        return paragraphs([declaration].into_iter().chain(methods));
    }
    let odd: Vec<&PlannedField<'_>> =
        fields.iter().filter(|field| names::tag_name(field.wire.as_str()).is_none()).collect();
    if odd.is_empty() {
        return match fill_in(sheet, ident, fields) {
            Some(method) => paragraphs([declaration, method]),
            None => declaration,
        };
    }
    sheet.needs.imports.insert("encoding/json");
    sheet.needs.helpers.insert(KEYS);
    let options = sheet.options;
    paragraphs([declaration, decode_odd_keys(options, ident, &odd), encode_odd_keys(options, ident, &odd)])
}

impl Sheet<'_> {
    /// Notes a helper; answers its name.
    fn help(&mut self, helper: Helper) -> String {
        self.needs.helpers.insert(helper);
        self.options.name_of(helper.name)
    }
}

const DEFAULTS: DefaultSpelling = DefaultSpelling {
    truths: ["false", "true"],
    literal: |text| names::LITERAL.of(text),
    case: |_, case| case.ident.to_string(),
};

/// What gives fields their default values before it reads what is there.
fn fill_in(sheet: &mut Sheet<'_>, ident: &Ident, fields: &[PlannedField<'_>]) -> Option<Doc> {
    let row = |field: &PlannedField<'_>| {
        let default = sheet.plan.default_code(field.fate.default()?, &DEFAULTS);
        Some([format!("{}:", field.ident), format!("{default},")])
    };
    let rows: Vec<[String; 2]> = fields.iter().filter_map(row).collect();
    if rows.is_empty() {
        return None;
    }
    sheet.needs.imports.insert("encoding/json");
    let receiver = names::receiver(ident.as_str());
    let body = vec![
        text(format!("type plain {ident}")),
        cat([text("value := plain{"), nest(cat([hard(), table(rows)])), hard(), text("}")]),
        unions::failing("json.Unmarshal(data, &value)"),
        text(format!("*{receiver} = {ident}(value)")),
        text("return nil"),
    ];
    Some(method(
        "UnmarshalJSON gives what is absent its default value.",
        &format!("({receiver} *{ident}) UnmarshalJSON(data []byte) error"),
        body,
    ))
}

/// Whether a record may stand in one that has all of these fields: methods of its own would be taken for those of the
/// whole, and its name is that of a field.
fn can_embed(base: &PlannedType<'_>, fields: &[PlannedField<'_>]) -> bool {
    fields.iter().all(|field| {
        let has_tag = names::tag_name(field.wire.as_str()).is_some();
        has_tag && field.fate.default().is_none() && field.ident != base.ident
    })
}

/// What reads and writes the keys that are no fields.
fn extras_methods(
    sheet: &mut Sheet<'_>,
    ident: &Ident,
    fields: &[PlannedField<'_>],
    extras: &PlannedExtras<'_>,
) -> [Doc; 2] {
    sheet.needs.imports.insert("encoding/json");
    sheet.needs.helpers.insert(OTHERS);
    let [decode, encode] = ["decodeOthers", "encodeOthers"].map(|name| sheet.options.name_of(name));
    let (receiver, extras) = (names::receiver(ident.as_str()), &extras.ident);
    let known: Vec<String> = fields.iter().map(|field| names::LITERAL.of(field.wire.as_str())).collect();
    let known = known.join(", ");
    let read = method(
        "UnmarshalJSON reads the keys that are no fields as well.",
        &format!("({receiver} *{ident}) UnmarshalJSON(data []byte) error"),
        vec![
            text(format!("type plain {ident}")),
            unions::failing(&format!("json.Unmarshal(data, (*plain)({receiver}))")),
            text(format!("return {decode}(data, &{receiver}.{extras}, {known})")),
        ],
    );
    let write = method(
        "MarshalJSON writes the keys that are no fields as well.",
        &format!("({receiver} {ident}) MarshalJSON() ([]byte, error)"),
        vec![
            text(format!("type plain {ident}")),
            text(format!("return {encode}(plain({receiver}), {receiver}.{extras})")),
        ],
    );
    [read, write]
}

/// Rows in columns; one of which something is said starts anew, a blank line before it.
fn documented_rows(rows: Vec<(&Docs, Vec<String>)>) -> Doc {
    let mut sections: Vec<(Option<Doc>, Vec<Vec<String>>)> = Vec::new();
    for (docs, row) in rows {
        let comment = ABOUT.comment.of(docs, 8);
        match sections.last_mut() {
            Some((_, rows)) if comment.is_none() => rows.push(row),
            Some(_) | None => sections.push((comment, vec![row])),
        }
    }
    let sections =
        sections.into_iter().map(|(comment, rows)| lines(comment.into_iter().chain([table(rows)])));
    paragraphs(sections)
}

fn decode_odd_keys(options: &GoOptions, ident: &Ident, odd: &[&PlannedField<'_>]) -> Doc {
    let receiver = names::receiver(ident.as_str());
    let rows = odd.iter().map(|field| {
        [format!("{}:", names::LITERAL.of(field.wire.as_str())), format!("&{receiver}.{},", field.ident)]
    });
    let body = vec![
        text(format!("type tagged {ident}")),
        unions::failing(&format!("json.Unmarshal(data, (*tagged)({receiver}))")),
        cat([
            text(format!("return {}(data, map[string]any{{", options.name_of("decodeKeys"))),
            nest(cat([hard(), table(rows)])),
            hard(),
            text("})"),
        ]),
    ];
    method(
        "UnmarshalJSON reads the keys that no tag can name as well.",
        &format!("({receiver} *{ident}) UnmarshalJSON(data []byte) error"),
        body,
    )
}

fn encode_odd_keys(options: &GoOptions, ident: &Ident, odd: &[&PlannedField<'_>]) -> Doc {
    let receiver = names::receiver(ident.as_str());
    let (always, sometimes): (Vec<_>, Vec<_>) =
        odd.iter().copied().partition(|field| field.fate.is_always_there());
    let rows = always.iter().map(|PlannedField { ident: field, wire, .. }| {
        [format!("{}:", names::LITERAL.of(wire.as_str())), format!("{receiver}.{field},")]
    });
    let known = if always.is_empty() {
        text("odd := map[string]any{}")
    } else {
        cat([text("odd := map[string]any{"), nest(cat([hard(), table(rows)])), hard(), text("}")])
    };
    let mut body = vec![text(format!("type tagged {ident}")), known];
    for PlannedField { ident: field, wire, .. } in sometimes {
        let set = text(format!("odd[{}] = {receiver}.{field}", names::LITERAL.of(wire.as_str())));
        body.push(braces(format!("if {receiver}.{field} != nil"), [set]));
    }
    body.push(text(format!("return {}(tagged({receiver}), odd)", options.name_of("encodeKeys"))));
    method(
        "MarshalJSON writes the keys that no tag can name as well.",
        &format!("({receiver} {ident}) MarshalJSON() ([]byte, error)"),
        body,
    )
}

/// ```go
/// // Doc.
/// func (h *Hive) Signature() {
///     body
/// }
/// ```
fn method(doc: &str, signature: &str, body: Vec<Doc>) -> Doc {
    lines([text(format!("// {doc}")), braces(format!("func {signature}"), body)])
}

/// A text of its own type; one that is not known yet is kept as it is.
fn enumeration<'c>(ident: &Ident, cases: &'c [PlannedCase<'_>]) -> Doc {
    let row = |case: &'c PlannedCase<'_>| {
        let PlannedCase { ident: case, wire, docs } = case;
        let literal = format!("= {}", names::LITERAL.of(wire.as_str()));
        (*docs, vec![case.to_string(), ident.to_string(), literal])
    };
    let declaration = text(format!("type {ident} string"));
    let values = nest(cat([hard(), documented_rows(cases.iter().map(row).collect())]));
    let values = cat([text("const ("), values, hard(), text(")")]);
    paragraphs([declaration, values])
}

/// Decodes the values that there are, and no others.
fn refuse_others(ident: &Ident, cases: &[PlannedCase<'_>], needs: &mut Needs) -> Doc {
    needs.imports.insert("fmt");
    let known = cases.iter().map(|case| case.ident.to_string()).collect::<Vec<_>>().join(", ");
    let body = [
        format!("switch value := {ident}(text); value {{"),
        format!("case {known}:"),
        "\t*v = value".to_owned(),
        "\treturn nil".to_owned(),
        "default:".to_owned(),
        format!("\treturn fmt.Errorf(\"%q is no {ident}\", text)"),
        "}".to_owned(),
    ];
    let signature = format!("(v *{ident}) UnmarshalText(text []byte) error");
    method("UnmarshalText takes known values alone.", &signature, body.map(text).to_vec())
}

/// What is said of a type, opened with its name as Go's comments are: `Hive is a hive`, `Hive: one of many`.
fn opened(ident: &str, said: &str) -> String {
    const VERBS: &[&str] = &[
        "contains",
        "defines",
        "describes",
        "holds",
        "identifies",
        "indicates",
        "lists",
        "provides",
        "represents",
        "returns",
        "specifies",
        "stores",
        "tells",
    ];
    let first = said.split(' ').next().unwrap_or_default();
    let lowered = || first.to_lowercase() + &said[first.len()..];
    match first {
        "A" | "An" | "The" if !ident.ends_with('s') => format!("{ident} is {}", lowered()),
        _ if VERBS.contains(&first.to_lowercase().as_str()) => format!("{ident} {}", lowered()),
        _ => format!("{ident}: {said}"),
    }
}

#[cfg(test)]
mod tests {
    use super::opened;

    #[test]
    fn a_comment_opens_with_the_name() {
        assert_eq!(opened("Hive", "A hive."), "Hive is a hive.");
        assert_eq!(opened("Hive", "Represents a hive."), "Hive represents a hive.");
        assert_eq!(opened("Hives", "The hives of a yard."), "Hives: The hives of a yard.");
        assert_eq!(opened("Hive", "Weight."), "Hive: Weight.");
    }
}

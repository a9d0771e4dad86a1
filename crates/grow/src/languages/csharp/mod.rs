//! C#: records for System.Text.Json, or classes, or for Newtonsoft.Json.

mod entry;
mod names;
mod plain_copies;
mod proof;
mod settings;
mod text_types;
mod times;
mod types;
mod unions;

use jar_sprout_layout::{
    Doc, Indent, Style, cat, comma_list, group, hard, line, lines, nest, paragraphs, soft, text,
};
use jar_sprout_model::{Numeral, Scalar, Slot, Type, Width, Words};

use crate::language::Language;
use crate::plan::{
    DefaultSpelling, Fate, Ident, Plan, PlannedDefinition, PlannedExtras, PlannedField, PlannedType,
    pascal_case,
};
use crate::prepare::Abilities;
use crate::settings::Settings;
use crate::spell::docs::{self, Comment};
use crate::spell::{About, BlankSheet, Dialect, GrownFile, Helper, MARK, Needs, Trial};
use settings::{CSharpOptions, Level, Library, NAMESPACE, Types};

/// C#.
pub(crate) struct CSharp;

const BIG_INTEGER: Helper =
    Helper { name: "BigIntegerConverter", text: include_str!("BigIntegerConverter.cs") };
const MAYBE: Helper = Helper { name: "Maybe", text: include_str!("Maybe.cs") };
const JSON: Helper = Helper { name: "Json", text: include_str!("newtonsoft/Json.cs") };

static ABOUT: About = About {
    key: "csharp",
    title: "C#",
    grows: "records for System.Text.Json, .NET 8 and later",
    settings: settings::SETTINGS,
    naming: names::NAMING,
    comment: Comment {
        form: docs::CommentStyle::Summary,
        width: 100,
        escape: docs::in_markup,
        deprecated: Some("Deprecated."),
    },
    style: Style { width: 100, indent: Indent::Spaces(4) },
    ending: "cs",
    imported: |line| line.strip_prefix("using ")?.strip_suffix(';').filter(|name| !name.contains('=')),
};

/// What declarations are spelled on.
type Sheet<'s> = crate::spell::Sheet<'s, CSharpOptions>;

impl Language for CSharp {
    fn about(&self) -> &'static About {
        &ABOUT
    }

    fn dialect(&self, settings: &Settings) -> Box<dyn Dialect> {
        Box::new(CSharpOptions::of(settings))
    }

    fn apart(&self, settings: &Settings, model: &str) -> Settings {
        settings.with_part(&NAMESPACE, &pascal_case(&Words::split(model)))
    }

    fn for_trial(&self, settings: &Settings, place: &str) -> Settings {
        let namespace = proof::namespace(place);
        settings.for_trial().with(&NAMESPACE, &namespace).expect("a trial's namespace is one")
    }
}

impl Dialect for CSharpOptions {
    fn about(&self) -> &'static About {
        &ABOUT
    }

    fn abilities(&self) -> Abilities {
        self.abilities()
    }

    fn file_name(&self, type_name: &str) -> String {
        format!("{}.cs", type_name.trim_start_matches('@'))
    }

    fn comment(&self, _: &Plan<'_>, ty: &PlannedType<'_>) -> Option<Doc> {
        ABOUT.comment.of(ty.docs, 0)
    }

    fn declare(&self, sheet: &mut BlankSheet<'_>, ty: &PlannedType<'_>) -> Doc {
        let sheet = &mut sheet.with(self);
        match &ty.definition {
            PlannedDefinition::Record(fields) => record(sheet, ty, fields),
            PlannedDefinition::Enumeration(cases) if ty.is_closed => {
                text_types::closed(sheet, &ty.ident, cases)
            }
            PlannedDefinition::Enumeration(cases) => text_types::enumeration(sheet, &ty.ident, cases),
            PlannedDefinition::Union(union) => unions::union(sheet, &ty.ident, union),
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

    /// C# has no name for a type without a class of its own; a reader calls this.
    fn alias(&self, sheet: &mut BlankSheet<'_>, ident: &Ident, slot: &Slot) -> Doc {
        let sheet = &mut sheet.with(self);
        let ty = types::slot(sheet, slot);
        let read = read(sheet, &ty, "json");
        let result = result(ty, self);
        let read = arrow(call(format!("public static {result} FromJson"), &["string json"]), read);
        let value = format!("{result} value");
        let write = arrow(call("public static string ToJson", &[&value]), call(write(self), &["value"]));
        members(text(format!("{} static class {ident}", self.access)), [read, write])
    }

    fn entry(&self, sheet: &mut BlankSheet<'_>) -> Vec<Doc> {
        vec![entry::class(&mut sheet.with(self))]
    }

    fn assemble(&self, _: &str, needs: &Needs, declarations: Vec<Doc>) -> Doc {
        let mark = text(format!("// {MARK}"));
        let nullable = (self.level >= Level::Twelve).then(|| text("#nullable enable"));
        let mut imports: Vec<&str> = needs.imports.iter().copied().collect();
        imports.sort_by_key(|name| (!(*name == "System" || name.starts_with("System.")), *name));
        let imports = (!imports.is_empty())
            .then(|| lines(imports.into_iter().map(|name| text(format!("using {name};")))));
        let head = [lines([mark].into_iter().chain(nullable))].into_iter().chain(imports);
        match self.level {
            Level::Twelve => {
                let namespace = text(format!("namespace {};", self.namespace));
                paragraphs(head.chain([namespace]).chain(declarations))
            }
            Level::Seven => {
                let inside = nest(cat([hard(), paragraphs(declarations)]));
                let namespace = cat([
                    text(format!("namespace {}", self.namespace)),
                    hard(),
                    text("{"),
                    inside,
                    hard(),
                    text("}"),
                ]);
                paragraphs(head.chain([namespace]))
            }
        }
    }

    fn driver(&self, trials: &[Trial]) -> Vec<GrownFile> {
        proof::driver(trials)
    }
}

/// What reads a text as a type, which it answers or null.
fn read(sheet: &mut Sheet<'_>, ty: &str, text: &str) -> Doc {
    match sheet.options.library {
        Library::SystemTextJson => {
            sheet.needs.imports.insert("System.Text.Json");
            call(format!("JsonSerializer.Deserialize<{ty}>"), &[text])
        }
        Library::Newtonsoft => {
            sheet.needs.imports.insert("Newtonsoft.Json");
            sheet.needs.helpers.insert(JSON);
            call(format!("JsonConvert.DeserializeObject<{ty}>"), &[text, "Json.Settings"])
        }
    }
}

/// What writes a value as text.
fn write(options: &CSharpOptions) -> &'static str {
    match options.library {
        Library::SystemTextJson => "JsonSerializer.Serialize",
        Library::Newtonsoft => "JsonConvert.SerializeObject",
    }
}

/// The type of what was read, null for the text `null`. What may be null of its own is not told so twice.
fn result(ty: String, options: &CSharpOptions) -> String {
    if options.level >= Level::Twelve && !ty.ends_with('?') { ty + "?" } else { ty }
}

/// A method of one expression.
fn arrow(head: Doc, body: Doc) -> Doc {
    cat([head, group(cat([text(" =>"), nest(cat([line(), body, text(";")]))]))])
}

/// `name(a, b)`: arguments or parameters on one line, or one a line.
fn call(name: impl AsRef<str>, arguments: &[&str]) -> Doc {
    let arguments = arguments.iter().map(|argument| types::doc(argument));
    let arguments = comma_list(arguments);
    let arguments = cat([text("("), nest(cat([soft(), arguments])), soft(), text(")")]);
    cat([types::doc(name.as_ref()), group(arguments)])
}

/// ```csharp
/// public sealed record Hive
/// {
///     [JsonPropertyName("id")]
///     public required long Id { get; init; }
/// }
/// ```
fn record(sheet: &mut Sheet<'_>, ty: &PlannedType<'_>, fields: &[PlannedField<'_>]) -> Doc {
    let kind = match sheet.options.types {
        Types::Records => "record",
        Types::Classes => "class",
    };
    let extended = sheet.plan.base_of(ty);
    let own = Plan::own_fields(extended, fields);
    let base = unions::base(sheet, ty.id).or_else(|| extended.map(|base| &base.ident));
    // Records and classes do not derive from each other.
    let is_case = base.is_some() && extended.is_none();
    let kind = if is_case && sheet.options.level >= Level::Twelve { "record" } else { kind };
    let base = base.map(|base| format!(" : {base}")).unwrap_or_default();
    let sealed = if sheet.plan.is_base(ty) { "" } else { "sealed " };
    let head = text(format!("{} {sealed}{kind} {}{base}", sheet.options.access, ty.ident));
    if fields.is_empty() {
        return cat([head, text(" { }")]);
    }
    let mut properties: Vec<Doc> = own.iter().map(|field| property(sheet, field, fields)).collect();
    properties.extend(ty.extras.as_ref().map(|extras| extension_data(sheet, extras)));
    members(head, properties)
}

fn property(sheet: &mut Sheet<'_>, field: &PlannedField<'_>, siblings: &[PlannedField<'_>]) -> Doc {
    let PlannedField { ident, wire: _, slot, docs, fate } = field;
    let parts = match sheet.options.library {
        Library::SystemTextJson => system_text_json_attributes(sheet, field),
        Library::Newtonsoft => {
            let own = newtonsoft_attribute(sheet, field, siblings);
            [own].into_iter().chain(in_letters_attribute(sheet, field)).collect()
        }
    };
    let spelled = types::non_null(sheet, slot);
    // `JsonElement` holds null as it is.
    let keeps_null = slot.ty == Type::Any && sheet.options.library == Library::SystemTextJson;
    let ty = match fate {
        Fate::Apart => {
            sheet.needs.helpers.insert(MAYBE);
            format!("Maybe<{}>", types::slot(sheet, slot))
        }
        Fate::Nullable if keeps_null => spelled.name,
        Fate::Nullable | Fate::Optional | Fate::Either => spelled.or_null(sheet.options),
        Fate::Tag(_) | Fate::Required | Fate::Defaulted(_) => spelled.name,
    };
    let required =
        if fate.is_always_there() && sheet.options.level >= Level::Twelve { "required " } else { "" };
    let accessors = match sheet.options.types {
        Types::Records => "{ get; init; }",
        Types::Classes => "{ get; set; }",
    };
    let property =
        cat([text(format!("public {required}")), types::doc(&ty), text(format!(" {ident} {accessors}"))]);
    let property = match fate.default() {
        Some(default) => {
            cat([property, text(format!(" = {};", sheet.plan.default_code(default, &DEFAULTS)))])
        }
        None => property,
    };
    let comment = ABOUT.comment.of(docs, 4);
    lines(comment.into_iter().chain(parts.into_iter().map(text)).chain([property]))
}

/// What holds the keys that are no properties; the libraries take any values alone.
fn extension_data(sheet: &mut Sheet<'_>, extras: &PlannedExtras<'_>) -> Doc {
    sheet.needs.imports.insert("System.Collections.Generic");
    sheet.needs.imports.insert(match sheet.options.library {
        Library::SystemTextJson => "System.Text.Json.Serialization",
        Library::Newtonsoft => "Newtonsoft.Json",
    });
    let value = types::slot(sheet, extras.slot);
    let accessors = match sheet.options.types {
        Types::Records => "{ get; init; }",
        Types::Classes => "{ get; set; }",
    };
    let null = if sheet.options.level >= Level::Twelve { "?" } else { "" };
    let declared = format!("public Dictionary<string, {value}>{null} {} {accessors}", extras.ident);
    lines([text("[JsonExtensionData]"), text(declared)])
}

/// A property may be called as its type.
const DEFAULTS: DefaultSpelling = DefaultSpelling {
    truths: ["false", "true"],
    literal: |text| names::LITERAL.of(text),
    case: |ty, case| format!("{}.{}", ty.ident, case.ident),
};

fn system_text_json_attributes(sheet: &mut Sheet<'_>, field: &PlannedField<'_>) -> Vec<String> {
    let mut attributes = Vec::new();
    if field.ident.as_str() != field.wire.as_str() {
        attributes.push(format!("[JsonPropertyName({})]", names::LITERAL.of(field.wire.as_str())));
    }
    let left_out = match field.fate {
        Fate::Apart => Some("WhenWritingDefault"),
        Fate::Optional | Fate::Either => Some("WhenWritingNull"),
        Fate::Tag(_) | Fate::Required | Fate::Nullable | Fate::Defaulted(_) => None,
    };
    attributes.extend(left_out.map(|when| format!("[JsonIgnore(Condition = JsonIgnoreCondition.{when})]")));
    let converter = match &field.slot.ty {
        Type::Scalar(Scalar::Integer(Width::Big)) => Some(BIG_INTEGER),
        Type::Scalar(Scalar::StringEncoded(numeral)) => Some(in_letters(*numeral)),
        Type::Scalar(scalar) => times::converter(sheet.plan, *scalar),
        Type::Any | Type::Constant(_) | Type::List(_) | Type::Map(_) | Type::Tuple(_) | Type::Named(_) => {
            None
        }
    };
    if let Some(converter) = converter.filter(|_| !field.fate.tells_null()) {
        sheet.needs.helpers.insert(converter);
        attributes.push(format!("[JsonConverter(typeof({}))]", converter.name));
    }
    if !attributes.is_empty() {
        sheet.needs.imports.insert("System.Text.Json.Serialization");
    }
    attributes
}

/// What reads and writes a number in letters.
fn in_letters(numeral: Numeral) -> Helper {
    macro_rules! converter {
        ($name:literal) => {
            Helper {
                name: concat!($name, "InLettersConverter"),
                text: include_str!(concat!($name, "InLettersConverter.cs")),
            }
        };
    }
    match numeral {
        Numeral::Integer => converter!("Long"),
        Numeral::Float => converter!("Double"),
        Numeral::Decimal => converter!("Decimal"),
    }
}

/// The same for Newtonsoft.Json.
fn in_letters_attribute(sheet: &mut Sheet<'_>, field: &PlannedField<'_>) -> Option<String> {
    field.numeral()?;
    let text = match sheet.options.level {
        Level::Seven => include_str!("seven/InLettersConverter.cs"),
        Level::Twelve => include_str!("newtonsoft/InLettersConverter.cs"),
    };
    let helper = Helper { name: "InLettersConverter", text };
    sheet.needs.helpers.insert(helper);
    Some(format!("[JsonConverter(typeof({}))]", helper.name))
}

/// `[JsonProperty("id", Required = Required.Always)]`
fn newtonsoft_attribute(
    sheet: &mut Sheet<'_>,
    field: &PlannedField<'_>,
    siblings: &[PlannedField<'_>],
) -> String {
    sheet.needs.imports.insert("Newtonsoft.Json");
    if speaks_of_any(&field.slot.ty) {
        sheet.needs.helpers.insert(JSON);
    }
    debug_assert!(sheet.options.library == Library::Newtonsoft);
    let name = (field.ident.as_str() != field.wire.as_str()).then(|| names::LITERAL.of(field.wire.as_str()));
    let rule = match field.fate {
        Fate::Defaulted(_) => "Required = Required.Default",
        Fate::Required if field.slot.ty == Type::Any => "Required = Required.AllowNull",
        Fate::Tag(_) | Fate::Required => "Required = Required.Always",
        Fate::Nullable => "Required = Required.AllowNull",
        Fate::Optional | Fate::Either | Fate::Apart => "NullValueHandling = NullValueHandling.Ignore",
    };
    // Inside a class, the name of a property hides that of a type.
    let (_, ty) = rule.split_once(" = ").expect("a rule sets something");
    let is_hidden =
        ty.split('.').next().is_some_and(|ty| siblings.iter().any(|field| field.ident.as_str() == ty));
    let rule = if is_hidden { rule.replacen(" = ", " = Newtonsoft.Json.", 1) } else { rule.to_owned() };
    let arguments: Vec<String> = name.into_iter().chain([rule]).collect();
    format!("[JsonProperty({})]", arguments.join(", "))
}

fn speaks_of_any(ty: &Type) -> bool {
    match ty {
        Type::Any | Type::Tuple(_) => true,
        Type::List(items) | Type::Map(items) => speaks_of_any(&items.ty),
        Type::Scalar(_) | Type::Constant(_) | Type::Named(_) => false,
    }
}

/// A declaration with members, a blank line between each two.
fn members(head: Doc, inside: impl IntoIterator<Item = Doc>) -> Doc {
    block(head, [paragraphs(inside)])
}

/// A head with lines below it, in braces on lines of their own.
fn block(head: Doc, inside: impl IntoIterator<Item = Doc>) -> Doc {
    let inside = inside.into_iter().map(|one| cat([hard(), one]));
    cat([head, hard(), text("{"), nest(cat(inside)), hard(), text("}")])
}

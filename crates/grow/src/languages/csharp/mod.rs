//! C#: records for System.Text.Json, or classes, or for Newtonsoft.Json.

mod entry;
mod names;
mod proof;
mod settings;
mod text_types;
mod times;
mod twins;
mod types;
mod unions;

use jar_sprout_layout::{Doc, Indent, Style, cat, group, hard, join, line, lines, nest, soft, text};
use jar_sprout_model::{Fraction, Numeral, Presence, Record, Scalar, Slot, Type, Width, Words};

use crate::code::{GrownFile, Helper, MARK, Needs};
use crate::docs::{self, Comment};
use crate::extras::Extras;
use crate::language::{About, Language, TimeKeeping};
use crate::plan::{
    DefaultSpelling, Ident, Plan, PlannedDefinition, PlannedExtras, PlannedField, PlannedType, pascal_case,
};
use crate::settings::Settings;
use crate::trial::Trial;
use settings::{Form, Level, Library, Types};

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
        form: docs::Form::Summary,
        width: 100,
        escape: docs::in_markup,
        deprecated: Some("Deprecated."),
    },
    style: Style { width: 100, indent: Indent::Spaces(4) },
    has_file_per_type: true,
};

impl Language for CSharp {
    fn about(&self) -> &'static About {
        &ABOUT
    }

    fn file_name(&self, type_name: &str, _: &Settings) -> String {
        format!("{}.cs", type_name.trim_start_matches('@'))
    }

    fn declare(&self, plan: &Plan<'_>, ty: &PlannedType<'_>, settings: &Settings, needs: &mut Needs) -> Doc {
        let form = Form::of(settings);
        match &ty.definition {
            PlannedDefinition::Record(fields) => record(plan, ty, fields, &form, needs),
            PlannedDefinition::Enumeration(cases) if ty.is_closed => {
                text_types::closed(&ty.ident, cases, &form, needs)
            }
            PlannedDefinition::Enumeration(cases) => text_types::enumeration(&ty.ident, cases, &form, needs),
            PlannedDefinition::Union(union) => unions::union(plan, &ty.ident, union, &form, needs),
        }
    }

    fn declare_twin(
        &self,
        plan: &Plan<'_>,
        twin: &PlannedType<'_>,
        wire: &PlannedType<'_>,
        settings: &Settings,
        needs: &mut Needs,
    ) -> Doc {
        twins::declare(plan, twin, wire, &Form::of(settings), needs)
    }

    /// C# has no name for a type without a class of its own; a reader calls this.
    fn alias(
        &self,
        plan: &Plan<'_>,
        ident: &Ident,
        slot: &Slot,
        settings: &Settings,
        needs: &mut Needs,
    ) -> Doc {
        let form = Form::of(settings);
        let ty = types::slot(plan, &form, slot, needs);
        let read = read(&ty, &form, "json", needs);
        let result = result(ty, &form);
        let read = arrow(call(format!("public static {result} FromJson"), &["string json"]), read);
        let value = format!("{result} value");
        let write = arrow(call("public static string ToJson", &[&value]), call(write(&form), &["value"]));
        members(text(format!("{} static class {ident}", form.access)), [read, write])
    }

    fn entry(&self, plan: &Plan<'_>, settings: &Settings, needs: &mut Needs) -> Vec<Doc> {
        vec![entry::class(plan, &Form::of(settings), needs)]
    }

    fn assemble(&self, _: &str, settings: &Settings, needs: &Needs, declarations: Vec<Doc>) -> Doc {
        let form = Form::of(settings);
        let blank_line = cat([hard(), hard()]);
        let mark = text(format!("// {MARK}"));
        let nullable = (form.level >= Level::Twelve).then(|| text("#nullable enable"));
        let mut imports: Vec<&str> = needs.imports.iter().copied().collect();
        imports.sort_by_key(|name| (!(*name == "System" || name.starts_with("System.")), *name));
        let imports = (!imports.is_empty())
            .then(|| lines(imports.into_iter().map(|name| text(format!("using {name};")))));
        let head = [lines([mark].into_iter().chain(nullable))].into_iter().chain(imports);
        match form.level {
            Level::Twelve => {
                let namespace = text(format!("namespace {};", form.namespace));
                join(&blank_line, head.chain([namespace]).chain(declarations))
            }
            Level::Seven => {
                let inside = nest(cat([hard(), join(&blank_line, declarations)]));
                let namespace = cat([
                    text(format!("namespace {}", form.namespace)),
                    hard(),
                    text("{"),
                    inside,
                    hard(),
                    text("}"),
                ]);
                join(&blank_line, head.chain([namespace]))
            }
        }
    }

    fn time_keeping(&self, settings: &Settings) -> TimeKeeping {
        match Form::of(settings).library {
            Library::SystemTextJson => TimeKeeping::InForm(Fraction::Shortest),
            Library::Newtonsoft => TimeKeeping::Loose,
        }
    }

    fn tells_absence(&self, settings: &Settings) -> bool {
        Form::of(settings).library == Library::SystemTextJson
    }

    fn extras(&self, _: &Record, _: &Settings) -> Extras {
        Extras::OfAny
    }

    fn imported(&self, line: &'static str) -> Option<&'static str> {
        line.strip_prefix("using ")?.strip_suffix(';').filter(|name| !name.contains('='))
    }

    fn apart(&self, settings: &Settings, model: &str) -> Settings {
        settings.with_part(self, "namespace", &pascal_case(&Words::split(model)))
    }

    fn trial_settings(&self, place: &str) -> Settings {
        let mut settings = Settings::default();
        settings.set(self, "namespace", &proof::namespace(place)).expect("a trial's namespace is one");
        settings
    }

    fn driver(&self, trials: &[Trial], _: &Settings) -> Vec<GrownFile> {
        proof::driver(trials)
    }
}

/// What reads a text as a type, which it answers or null.
fn read(ty: &str, form: &Form<'_>, text: &str, needs: &mut Needs) -> Doc {
    match form.library {
        Library::SystemTextJson => {
            needs.imports.insert("System.Text.Json");
            call(format!("JsonSerializer.Deserialize<{ty}>"), &[text])
        }
        Library::Newtonsoft => {
            needs.imports.insert("Newtonsoft.Json");
            needs.helpers.insert(JSON);
            call(format!("JsonConvert.DeserializeObject<{ty}>"), &[text, "Json.Settings"])
        }
    }
}

/// What writes a value as text.
fn write(form: &Form<'_>) -> &'static str {
    match form.library {
        Library::SystemTextJson => "JsonSerializer.Serialize",
        Library::Newtonsoft => "JsonConvert.SerializeObject",
    }
}

/// The type of what was read, null for the text `null`. What may be null of its own is not told so twice.
fn result(ty: String, form: &Form<'_>) -> String {
    if form.level >= Level::Twelve && !ty.ends_with('?') { ty + "?" } else { ty }
}

/// A method of one expression.
fn arrow(head: Doc, body: Doc) -> Doc {
    cat([head, group(cat([text(" =>"), nest(cat([line(), body, text(";")]))]))])
}

/// `name(a, b)`: arguments or parameters on one line, or one a line.
fn call(name: impl AsRef<str>, arguments: &[&str]) -> Doc {
    let arguments = arguments.iter().map(|argument| types::doc(argument));
    let arguments = join(&cat([text(","), line()]), arguments);
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
fn record(
    plan: &Plan<'_>,
    ty: &PlannedType<'_>,
    fields: &[PlannedField<'_>],
    form: &Form<'_>,
    needs: &mut Needs,
) -> Doc {
    let kind = match form.types {
        Types::Records => "record",
        Types::Classes => "class",
    };
    let extended = plan.base_of(ty);
    let own = Plan::own_fields(extended, fields);
    let base = unions::base(plan, ty.id, form).or_else(|| extended.map(|base| &base.ident));
    // Records and classes do not derive from each other.
    let is_case = base.is_some() && extended.is_none();
    let kind = if is_case && form.level >= Level::Twelve { "record" } else { kind };
    let base = base.map(|base| format!(" : {base}")).unwrap_or_default();
    let sealed = if plan.is_base(ty) { "" } else { "sealed " };
    let head = text(format!("{} {sealed}{kind} {}{base}", form.access, ty.ident));
    if fields.is_empty() {
        return cat([head, text(" { }")]);
    }
    let mut properties: Vec<Doc> =
        own.iter().map(|field| property(plan, field, fields, form, needs)).collect();
    properties.extend(ty.extras.as_ref().map(|extras| extension_data(plan, extras, form, needs)));
    members(head, properties)
}

fn property(
    plan: &Plan<'_>,
    field: &PlannedField<'_>,
    siblings: &[PlannedField<'_>],
    form: &Form<'_>,
    needs: &mut Needs,
) -> Doc {
    let PlannedField { ident, wire: _, presence, slot, docs, is_apart, default } = field;
    let parts = match form.library {
        Library::SystemTextJson => system_text_json_attributes(plan, field, needs),
        Library::Newtonsoft => {
            let own = newtonsoft_attribute(field, siblings, form, needs);
            [own].into_iter().chain(in_letters_attribute(field, form, needs)).collect()
        }
    };
    let spelled = types::non_null(plan, form, slot, needs);
    let may_be_null = slot.nullable || *presence == Presence::Sometimes && default.is_none();
    // `JsonElement` holds null as it is.
    let keeps_null =
        slot.ty == Type::Any && form.library == Library::SystemTextJson && *presence == Presence::Always;
    let ty = if *is_apart {
        needs.helpers.insert(MAYBE);
        format!("Maybe<{}>", types::slot(plan, form, slot, needs))
    } else if may_be_null && !keeps_null {
        spelled.or_null(form)
    } else {
        spelled.name
    };
    let required =
        if *presence == Presence::Always && form.level >= Level::Twelve { "required " } else { "" };
    let accessors = match form.types {
        Types::Records => "{ get; init; }",
        Types::Classes => "{ get; set; }",
    };
    let property =
        cat([text(format!("public {required}")), types::doc(&ty), text(format!(" {ident} {accessors}"))]);
    let property = match default {
        Some(default) => cat([property, text(format!(" = {};", plan.default_code(*default, &DEFAULTS)))]),
        None => property,
    };
    let comment = ABOUT.comment.of(docs, 4);
    lines(comment.into_iter().chain(parts.into_iter().map(text)).chain([property]))
}

/// What holds the keys that are no properties; the libraries take any values alone.
fn extension_data(plan: &Plan<'_>, extras: &PlannedExtras<'_>, form: &Form<'_>, needs: &mut Needs) -> Doc {
    needs.imports.insert("System.Collections.Generic");
    needs.imports.insert(match form.library {
        Library::SystemTextJson => "System.Text.Json.Serialization",
        Library::Newtonsoft => "Newtonsoft.Json",
    });
    let value = types::slot(plan, form, extras.slot, needs);
    let accessors = match form.types {
        Types::Records => "{ get; init; }",
        Types::Classes => "{ get; set; }",
    };
    let null = if form.level >= Level::Twelve { "?" } else { "" };
    let declared = format!("public Dictionary<string, {value}>{null} {} {accessors}", extras.ident);
    lines([text("[JsonExtensionData]"), text(declared)])
}

/// A property may be called as its type.
const DEFAULTS: DefaultSpelling = DefaultSpelling {
    truths: ["false", "true"],
    literal: |text| names::LITERAL.of(text),
    case: |ty, case| format!("{}.{}", ty.ident, case.ident),
};

fn system_text_json_attributes(plan: &Plan<'_>, field: &PlannedField<'_>, needs: &mut Needs) -> Vec<String> {
    let mut attributes = Vec::new();
    if field.ident.as_str() != field.wire.as_str() {
        attributes.push(format!("[JsonPropertyName({})]", names::LITERAL.of(field.wire.as_str())));
    }
    if field.is_apart {
        attributes.push("[JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingDefault)]".to_owned());
    } else if field.presence == Presence::Sometimes && field.default.is_none() {
        attributes.push("[JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingNull)]".to_owned());
    }
    let converter = match &field.slot.ty {
        Type::Scalar(Scalar::Integer(Width::Big)) => Some(BIG_INTEGER),
        Type::Scalar(Scalar::Lettered(numeral)) => Some(in_letters(*numeral)),
        Type::Scalar(scalar) => times::converter(plan, *scalar),
        Type::Any | Type::Constant(_) | Type::List(_) | Type::Map(_) | Type::Tuple(_) | Type::Named(_) => {
            None
        }
    };
    if let Some(converter) = converter.filter(|_| !field.is_apart) {
        needs.helpers.insert(converter);
        attributes.push(format!("[JsonConverter(typeof({}))]", converter.name));
    }
    if !attributes.is_empty() {
        needs.imports.insert("System.Text.Json.Serialization");
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
fn in_letters_attribute(field: &PlannedField<'_>, form: &Form<'_>, needs: &mut Needs) -> Option<String> {
    field.numeral()?;
    let text = match form.level {
        Level::Seven => include_str!("seven/InLettersConverter.cs"),
        Level::Twelve => include_str!("newtonsoft/InLettersConverter.cs"),
    };
    let helper = Helper { name: "InLettersConverter", text };
    needs.helpers.insert(helper);
    Some(format!("[JsonConverter(typeof({}))]", helper.name))
}

/// `[JsonProperty("id", Required = Required.Always)]`
fn newtonsoft_attribute(
    field: &PlannedField<'_>,
    siblings: &[PlannedField<'_>],
    form: &Form<'_>,
    needs: &mut Needs,
) -> String {
    needs.imports.insert("Newtonsoft.Json");
    if speaks_of_any(&field.slot.ty) {
        needs.helpers.insert(JSON);
    }
    debug_assert!(form.library == Library::Newtonsoft);
    let name = (field.ident.as_str() != field.wire.as_str()).then(|| names::LITERAL.of(field.wire.as_str()));
    let rule = match (field.presence, field.slot.nullable || field.slot.ty == Type::Any) {
        _ if field.default.is_some() => "Required = Required.Default",
        (Presence::Always, false) => "Required = Required.Always",
        (Presence::Always, true) => "Required = Required.AllowNull",
        (Presence::Sometimes, _) => "NullValueHandling = NullValueHandling.Ignore",
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
    block(head, [join(&cat([hard(), hard()]), inside)])
}

/// A head with lines below it, in braces on lines of their own.
fn block(head: Doc, inside: impl IntoIterator<Item = Doc>) -> Doc {
    let inside = inside.into_iter().map(|one| cat([hard(), one]));
    cat([head, hard(), text("{"), nest(cat(inside)), hard(), text("}")])
}

//! Java: records for Jackson or Gson, or classes with getters and setters.

mod beans;
mod entry;
mod gson;
mod names;
mod proof;
mod settings;
mod twins;
mod types;
mod unions;

use jar_sprout_layout::{Doc, Indent, Style, cat, group, hard, join, line, lines, nest, print, soft, text};
use jar_sprout_model::{Fraction, Presence, Record, Scalar, Slot, Type, Width};

use crate::code::{GrownFile, MARK, Needs, nested};
use crate::docs::{self, Comment};
use crate::extras::Extras;
use crate::language::{About, Language, TimeKeeping};
use crate::plan::{
    DefaultSpelling, Ident, Plan, PlannedCase, PlannedDefinition, PlannedExtras, PlannedField, PlannedType,
};
use crate::settings::Settings;
use crate::trial::Trial;
use settings::{Form, Library};

/// Java.
pub(crate) struct Java;

static ABOUT: About = About {
    key: "java",
    title: "Java",
    grows: "records for Jackson or Gson, Java 17 and later",
    settings: settings::SETTINGS,
    naming: names::NAMING,
    comment: Comment { form: docs::Form::Javadoc, width: 100, escape: docs::in_javadoc, deprecated: None },
    style: Style { width: 100, indent: Indent::Spaces(2) },
    has_file_per_type: true,
};

impl Language for Java {
    fn about(&self) -> &'static About {
        &ABOUT
    }

    fn file_name(&self, type_name: &str, _: &Settings) -> String {
        format!("{type_name}.java")
    }

    fn declare(&self, plan: &Plan<'_>, ty: &PlannedType<'_>, settings: &Settings, needs: &mut Needs) -> Doc {
        let form = Form { indent: plan.indent(ty, 2), ..Form::of(settings) };
        match (&ty.definition, form.library) {
            (PlannedDefinition::Record(fields), _) => {
                let nested = nested(self, plan, ty, settings, needs);
                let declare = if form.has_beans { beans::bean } else { record };
                declare(plan, ty, fields, nested, form, needs)
            }
            (PlannedDefinition::Enumeration(cases), _) if ty.is_closed => {
                closed(&ty.ident, cases, form, needs)
            }
            (PlannedDefinition::Enumeration(cases), Library::Jackson) => {
                enumeration(&ty.ident, cases, form, needs)
            }
            (PlannedDefinition::Enumeration(cases), Library::Gson) => {
                gson::enumeration(&ty.ident, cases, form, needs)
            }
            (PlannedDefinition::Union(union), Library::Jackson) => {
                unions::union(plan, &ty.ident, union, form, needs)
            }
            (PlannedDefinition::Union(union), Library::Gson) => {
                gson::union(plan, &ty.ident, union, form, needs)
            }
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
        twins::declare(plan, twin, wire, (Form::of(settings), settings::package(settings)), needs)
    }

    /// The fields of a record are told of before it.
    fn comment(&self, plan: &Plan<'_>, ty: &PlannedType<'_>, settings: &Settings) -> Option<Doc> {
        let fields: &[PlannedField<'_>] = match &ty.definition {
            PlannedDefinition::Record(fields) if !Form::of(settings).has_beans => fields,
            PlannedDefinition::Record(_)
            | PlannedDefinition::Enumeration(_)
            | PlannedDefinition::Union(_) => &[],
        };
        let tag = |field: &PlannedField<'_>| {
            // No annotation of a part says that it is deprecated.
            let deprecated = if field.docs.is_deprecated { " Deprecated." } else { "" };
            let said = docs::in_one_line(field.docs.text(), docs::in_javadoc) + deprecated;
            (!said.is_empty()).then(|| format!("@param {} {}", field.ident, said.trim_start()))
        };
        let tags: Vec<String> = fields.iter().filter_map(tag).collect();
        ABOUT.comment.with_tags(ty.docs, plan.indent(ty, 2), &tags)
    }

    /// Java has no name for a type without a class of its own; a reader takes this one.
    fn alias(
        &self,
        plan: &Plan<'_>,
        ident: &Ident,
        slot: &Slot,
        settings: &Settings,
        needs: &mut Needs,
    ) -> Doc {
        let form = Form::of(settings);
        let (import, token, reader) = match form.library {
            Library::Jackson => (
                "com.fasterxml.jackson.core.type.TypeReference",
                "TypeReference",
                "a mapper's {@code readValue}",
            ),
            Library::Gson => ("com.google.gson.reflect.TypeToken", "TypeToken", "{@code fromJson}"),
        };
        needs.imports.insert(import);
        let ty = types::boxed(plan, slot, form, needs);
        let reference = group(cat([
            text(format!("public static final {token}<{ty}> TYPE =")),
            nest(nest(cat([line(), text(format!("new {token}<>() {{}};"))]))),
        ]));
        let class = members(
            text(format!("public final class {ident}")),
            [reference, text(format!("private {ident}() {{}}"))],
        );
        lines([text(format!("/** The type of a whole response, for {reader}. */")), class])
    }

    fn entry(&self, plan: &Plan<'_>, settings: &Settings, needs: &mut Needs) -> Vec<Doc> {
        vec![entry::class(plan, Form::of(settings), needs)]
    }

    fn assemble(&self, _: &str, settings: &Settings, needs: &Needs, declarations: Vec<Doc>) -> Doc {
        let head =
            lines([text(format!("// {MARK}")), text(format!("package {};", settings::package(settings)))]);
        let imports = needs.imports.iter().map(|name| text(format!("import {name};")));
        let imports = (!needs.imports.is_empty()).then(|| lines(imports));
        join(&cat([hard(), hard()]), [head].into_iter().chain(imports).chain(declarations))
    }

    fn time_keeping(&self, _: &Settings) -> TimeKeeping {
        TimeKeeping::InForm(Fraction::Shortest)
    }

    fn tells_absence(&self, settings: &Settings) -> bool {
        Form::of(settings).library == Library::Jackson
    }

    fn extras(&self, _: &Record, settings: &Settings) -> Extras {
        match Form::of(settings).library {
            Library::Jackson => Extras::Typed,
            Library::Gson => Extras::LeftOut,
        }
    }

    fn imported(&self, line: &'static str) -> Option<&'static str> {
        line.strip_prefix("import ")?.strip_suffix(';')
    }

    fn apart(&self, settings: &Settings, model: &str) -> Settings {
        settings.with_part(self, "package", model)
    }

    fn trial_settings(&self, place: &str) -> Settings {
        let mut settings = Settings::default();
        settings.set(self, "package", &proof::package(place)).expect("a trial's package is one");
        settings
    }

    fn driver(&self, trials: &[Trial], _: &Settings) -> Vec<GrownFile> {
        proof::driver(trials)
    }
}

/// ```java
/// public record Hive(long id, @JsonProperty("honey_kg") double honeyKg) {}
/// ```
fn record(
    plan: &Plan<'_>,
    ty: &PlannedType<'_>,
    fields: &[PlannedField<'_>],
    nested: Vec<Doc>,
    form: Form,
    needs: &mut Needs,
) -> Doc {
    let mut annotations = annotations(fields, form, needs);
    let leaves_out = leaves_out(fields, form);
    let mut components: Vec<Doc> =
        fields.iter().map(|one| component(plan, one, leaves_out, form, needs)).collect();
    if let Some(extras) = &ty.extras {
        let (annotations, declaration) = extras_declaration(plan, extras, form, needs);
        components.push(group(cat([text(annotations), nest(nest(cat([line(), text(declaration)])))])));
    }
    let naming = field_with_empty_key(fields, form).map(|field| {
        annotations.push(naming_annotation(&ty.ident, needs));
        naming_of_empty_key(&field.ident)
    });
    let inside: Vec<Doc> = defaults(plan, ty, fields).into_iter().chain(naming).chain(nested).collect();
    let brace = if inside.is_empty() { " {}" } else { " {" };
    let head = record_head(plan, ty, components, form.indent, brace);
    annotations.push(if inside.is_empty() { cat([head, text(brace)]) } else { members(head, inside) });
    lines(annotations)
}

/// `public record SwarmEvent(String id, boolean caught) implements Event`, with `brace` behind it.
fn record_head(
    plan: &Plan<'_>,
    ty: &PlannedType<'_>,
    components: Vec<Doc>,
    indent: usize,
    brace: &str,
) -> Doc {
    let between = cat([text(","), line()]);
    let components = group(join(&between, components));
    let width = |doc: &Doc| print(doc, &Style { width: usize::MAX, ..ABOUT.style }).chars().count();
    let one_line = width(&components);
    let inside = nest(nest(cat([soft(), components])));
    let inside = if one_line == 0 { Doc::Nil } else { inside };
    let open = format!("public record {}(", ty.ident);
    let Some(union) = plan.union_of(ty.id) else {
        return group(cat([text(open), inside, text(")")]));
    };
    let supers = format!("implements {}", union.ident);
    // Its formatter lets it follow components that have a line of their own, but not those that have a line each.
    let rest = ") ".len() + supers.len() + brace.len();
    let is_flat = indent + open.len() + one_line + ")".len() <= ABOUT.style.width;
    let follows = !is_flat && indent + CONTINUED + one_line + rest <= ABOUT.style.width;
    let head = group(cat([text(open), inside, text(")")]));
    if follows {
        return cat([head, text(format!(" {supers}"))]);
    }
    group(cat([head, nest(nest(cat([line(), text(supers)])))]))
}

/// Columns by which a line is indented that goes on with another.
const CONTINUED: usize = 4;

const DEFAULTS: DefaultSpelling = DefaultSpelling {
    truths: ["false", "true"],
    literal: |text| names::LITERAL.of(text),
    case: |ty, case| format!("{}.{}", ty.ident, case.ident),
};

/// The code of a field's default value; a whole number must say that it is a long one, or a box does not take it.
fn default_code(plan: &Plan<'_>, field: &PlannedField<'_>) -> Option<String> {
    let code = plan.default_code(field.default?, &DEFAULTS);
    let is_long = matches!(field.slot.ty, Type::Scalar(Scalar::Integer(Width::Wide | Width::Exact)));
    Some(if is_long { code + "L" } else { code })
}

/// The constructor that gives what is absent its default value.
fn defaults(plan: &Plan<'_>, ty: &PlannedType<'_>, fields: &[PlannedField<'_>]) -> Option<Doc> {
    let set = fields.iter().filter_map(|field| {
        let code = default_code(plan, field)?;
        let set = text(format!("{} = {code};", field.ident));
        Some(block(text(format!("if ({} == null)", field.ident)), [set]))
    });
    let set: Vec<Doc> = set.collect();
    (!set.is_empty()).then(|| block(text(format!("public {}", ty.ident)), set))
}

fn naming_annotation(ident: &Ident, needs: &mut Needs) -> Doc {
    needs.imports.extend([
        "com.fasterxml.jackson.databind.PropertyNamingStrategies",
        "com.fasterxml.jackson.databind.annotation.JsonNaming",
    ]);
    text(format!("@JsonNaming({ident}.Naming.class)"))
}

/// The library takes an annotation with the empty key for one without a key.
fn naming_of_empty_key(ident: &Ident) -> Doc {
    let translate = block(
        text("public String translate(String name)"),
        [text(format!("return name.equals({}) ? \"\" : name;", names::LITERAL.of(ident.as_str())))],
    );
    let class = members(
        text("static final class Naming extends PropertyNamingStrategies.NamingBase"),
        [text("private static final long serialVersionUID = 1L;"), lines([text("@Override"), translate])],
    );
    lines([text("/** Gives one component the empty key, which no annotation can. */"), class])
}

/// The field whose key Jackson's annotation cannot say.
fn field_with_empty_key<'f, 'm>(fields: &'f [PlannedField<'m>], form: Form) -> Option<&'f PlannedField<'m>> {
    fields.iter().find(|field| form.library == Library::Jackson && field.wire.as_str().is_empty())
}

/// Whether a field may be left out, which Jackson must be told; Gson writes all nulls or none.
fn leaves_out(fields: &[PlannedField<'_>], form: Form) -> bool {
    form.library == Library::Jackson
        && fields.iter().any(|field| field.presence == Presence::Sometimes && field.default.is_none())
}

/// What is said of a whole class, for Jackson.
fn annotations(fields: &[PlannedField<'_>], form: Form, needs: &mut Needs) -> Vec<Doc> {
    let mut annotations = Vec::new();
    if form.library == Library::Gson {
        return annotations;
    }
    if leaves_out(fields, form) {
        needs.imports.insert("com.fasterxml.jackson.annotation.JsonInclude");
        annotations.push(text("@JsonInclude(JsonInclude.Include.NON_NULL)"));
    }
    if fields.is_empty() {
        // Without an annotation of its own, the library does not write what has no parts.
        needs.imports.insert("com.fasterxml.jackson.databind.annotation.JsonSerialize");
        annotations.push(text("@JsonSerialize"));
    }
    annotations
}

fn component(
    plan: &Plan<'_>,
    field: &PlannedField<'_>,
    leaves_out: bool,
    form: Form,
    needs: &mut Needs,
) -> Doc {
    let (annotations, ty) = annotated(plan, field, leaves_out, form, needs);
    let declaration = text(format!("{ty} {}", field.ident));
    if annotations.is_empty() {
        return declaration;
    }
    group(cat([text(annotations.join(" ")), nest(nest(cat([line(), declaration])))]))
}

/// What is said of the map of keys that are no fields, and its declaration.
fn extras_declaration(
    plan: &Plan<'_>,
    extras: &PlannedExtras<'_>,
    form: Form,
    needs: &mut Needs,
) -> (&'static str, String) {
    needs.imports.extend([
        "com.fasterxml.jackson.annotation.JsonAnyGetter",
        "com.fasterxml.jackson.annotation.JsonAnySetter",
    ]);
    let map = types::boxed(plan, &extras.map, form, needs);
    ("@JsonAnySetter @JsonAnyGetter", format!("{map} {}", extras.ident))
}

/// What is said of a field, and its type.
fn annotated(
    plan: &Plan<'_>,
    field: &PlannedField<'_>,
    leaves_out: bool,
    form: Form,
    needs: &mut Needs,
) -> (Vec<String>, String) {
    let types::Spelled { annotation, ty } = types::field(plan, field, form, needs);
    let mut annotations = Vec::new();
    if field.ident.as_str() != field.wire.as_str() {
        annotations.extend(key_annotation(field.wire.as_str(), form, needs));
    }
    if leaves_out && field.presence == Presence::Always && field.slot.nullable {
        annotations.push("@JsonInclude(JsonInclude.Include.ALWAYS)".to_owned());
    }
    annotations.extend(annotation);
    (annotations, ty)
}

/// What says the key of a field on the wire, or the text of an enum's value.
fn key_annotation(wire: &str, form: Form, needs: &mut Needs) -> Option<String> {
    let (import, name) = match form.library {
        // An empty one says nothing to it.
        Library::Jackson if wire.is_empty() => return None,
        Library::Jackson => ("com.fasterxml.jackson.annotation.JsonProperty", "JsonProperty"),
        Library::Gson => ("com.google.gson.annotations.SerializedName", "SerializedName"),
    };
    needs.imports.insert(import);
    Some(format!("@{name}({})", names::LITERAL.of(wire)))
}

/// `public enum QueenStatus`
fn closed(ident: &Ident, cases: &[PlannedCase<'_>], form: Form, needs: &mut Needs) -> Doc {
    let last = cases.len().saturating_sub(1);
    let case = |(at, PlannedCase { ident: case, wire, docs }): (usize, &PlannedCase<'_>)| {
        let key = key_annotation(wire.as_str(), form, needs).map(text);
        let end = if at == last { "" } else { "," };
        let comment = ABOUT.comment.of(docs, form.indent + 2);
        let declaration = lines(key.into_iter().chain([text(format!("{case}{end}"))]));
        (comment, declaration)
    };
    let cases: Vec<_> = cases.iter().enumerate().map(case).collect();
    let inside = nest(cat([hard(), docs::spaced(cases)]));
    cat([text(format!("public enum {ident} {{")), inside, hard(), text("}")])
}

/// A text of its own type; one that is not known yet is kept as it is.
fn enumeration(ident: &Ident, cases: &[PlannedCase<'_>], form: Form, needs: &mut Needs) -> Doc {
    needs.imports.extend([
        "com.fasterxml.jackson.annotation.JsonCreator",
        "com.fasterxml.jackson.annotation.JsonValue",
    ]);
    let creator = unions::creator(ident.as_str());
    let inside = [constants(ident, cases, form), creator];
    unions::value_record(&format!("public record {ident}"), "String", "", inside)
}

/// `public static final QueenStatus LAYING = new QueenStatus("laying");`
fn constants(ident: &Ident, cases: &[PlannedCase<'_>], form: Form) -> Doc {
    let case = |PlannedCase { ident: case, wire, docs }: &PlannedCase<'_>| {
        let literal = names::LITERAL.of(wire.as_str());
        let value = nest(nest(cat([line(), text(format!("new {ident}({literal});"))])));
        let declaration = group(cat([text(format!("public static final {ident} {case} =")), value]));
        (ABOUT.comment.of(docs, form.indent + 2), declaration)
    };
    docs::spaced(cases.iter().map(case))
}

/// A declaration with members, a blank line between each two.
fn members(head: Doc, inside: impl IntoIterator<Item = Doc>) -> Doc {
    let inside = join(&cat([hard(), hard()]), inside);
    cat([head, text(" {"), nest(cat([hard(), inside])), hard(), text("}")])
}

/// A head with lines below it.
fn block(head: Doc, inside: impl IntoIterator<Item = Doc>) -> Doc {
    let inside = inside.into_iter().map(|one| cat([hard(), one]));
    cat([head, text(" {"), nest(cat(inside)), hard(), text("}")])
}

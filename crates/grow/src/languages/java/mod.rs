//! Java: records for Jackson, or classes with getters and setters.

mod beans;
mod names;
mod proof;
mod settings;
mod types;
mod unions;

use jar_sprout_layout::{Doc, Indent, Style, cat, group, hard, join, line, lines, nest, soft, text};
use jar_sprout_model::{Fraction, Presence, Slot};

use crate::code::{GrownFile, MARK, Needs};
use crate::docs::{self, Comment};
use crate::language::{About, Language, TimeKeeping};
use crate::plan::{Ident, Plan, PlannedCase, PlannedDefinition, PlannedField, PlannedType};
use crate::settings::Settings;
use crate::trial::Trial;

/// Java with Jackson.
pub(crate) struct Java;

static ABOUT: About = About {
    key: "java",
    title: "Java",
    grows: "records for Jackson, Java 17 and later",
    settings: settings::SETTINGS,
    naming: names::NAMING,
    comment: Comment { form: docs::Form::Stars, width: 100, escape: docs::in_javadoc, deprecated: None },
    style: Style { width: 100, indent: Indent::Spaces(2) },
    has_file_per_type: true,
};

impl Language for Java {
    fn about(&self) -> &'static About {
        &ABOUT
    }

    fn file_name(&self, type_name: &str) -> String {
        format!("{type_name}.java")
    }

    fn declare(&self, plan: &Plan<'_>, ty: &PlannedType<'_>, settings: &Settings, needs: &mut Needs) -> Doc {
        match &ty.definition {
            PlannedDefinition::Record(fields) if settings::has_beans(settings) => {
                beans::bean(plan, ty, fields, needs)
            }
            PlannedDefinition::Record(fields) => record(plan, ty, fields, needs),
            PlannedDefinition::Enumeration(cases) => enumeration(&ty.ident, cases, needs),
            PlannedDefinition::Union(union) => unions::union(plan, &ty.ident, union, needs),
        }
    }

    /// The fields of a record are told of before it.
    fn comment(&self, ty: &PlannedType<'_>, settings: &Settings) -> Option<Doc> {
        let fields: &[PlannedField<'_>] = match &ty.definition {
            PlannedDefinition::Record(fields) if !settings::has_beans(settings) => fields,
            PlannedDefinition::Record(_)
            | PlannedDefinition::Enumeration(_)
            | PlannedDefinition::Union(_) => &[],
        };
        let tag = |field: &PlannedField<'_>| {
            // No annotation of a part says that it is deprecated.
            let deprecated = if field.docs.is_deprecated { " Deprecated." } else { "" };
            let said = docs::in_one_line(&field.docs.text, docs::in_javadoc) + deprecated;
            (!said.is_empty()).then(|| format!("@param {} {}", field.ident, said.trim_start()))
        };
        let tags: Vec<String> = fields.iter().filter_map(tag).collect();
        ABOUT.comment.with_tags(ty.docs, 0, &tags)
    }

    /// Java has no name for a type without a class of its own; a reader takes this one.
    fn alias(&self, plan: &Plan<'_>, ident: &Ident, slot: &Slot, _: &Settings, needs: &mut Needs) -> Doc {
        needs.imports.insert("com.fasterxml.jackson.core.type.TypeReference");
        let ty = types::boxed(plan, slot, needs);
        let reference = group(cat([
            text(format!("public static final TypeReference<{ty}> TYPE =")),
            nest(nest(cat([line(), text("new TypeReference<>() {};")]))),
        ]));
        let class = members(
            text(format!("public final class {ident}")),
            [reference, text(format!("private {ident}() {{}}"))],
        );
        lines([text("/** The type of a whole response, for a mapper's {@code readValue}. */"), class])
    }

    fn assemble(&self, settings: &Settings, needs: &Needs, declarations: Vec<Doc>) -> Doc {
        let head =
            lines([text(format!("// {MARK}")), text(format!("package {};", settings::package(settings)))]);
        let imports = needs.imports.iter().map(|name| text(format!("import {name};")));
        let imports = (!needs.imports.is_empty()).then(|| lines(imports));
        join(&cat([hard(), hard()]), [head].into_iter().chain(imports).chain(declarations))
    }

    fn time_keeping(&self, _: &Settings) -> TimeKeeping {
        TimeKeeping::InForm(Fraction::Shortest)
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
fn record(plan: &Plan<'_>, ty: &PlannedType<'_>, fields: &[PlannedField<'_>], needs: &mut Needs) -> Doc {
    let mut annotations = annotations(fields, needs);
    let leaves_out = leaves_out(fields);
    let components: Vec<Doc> = fields.iter().map(|one| component(plan, one, leaves_out, needs)).collect();
    let components = if components.is_empty() {
        Doc::Nil
    } else {
        nest(nest(cat([soft(), group(join(&cat([text(","), line()]), components))])))
    };
    let supers = plan
        .union_of(plan.id_of(ty))
        .map_or(Doc::Nil, |union| nest(nest(cat([line(), text(format!("implements {}", union.ident))]))));
    let head = group(cat([text(format!("public record {}(", ty.ident)), components, text(")")]));
    let head = group(cat([head, supers]));
    let empty_key = fields.iter().find(|field| field.wire.as_str().is_empty());
    let record = match empty_key {
        None => cat([head, text(" {}")]),
        Some(field) => {
            annotations.push(naming_annotation(&ty.ident, needs));
            members(head, [naming_of_empty_key(&field.ident)])
        }
    };
    annotations.push(record);
    lines(annotations)
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

/// Whether a field may be left out.
fn leaves_out(fields: &[PlannedField<'_>]) -> bool {
    fields.iter().any(|field| field.presence == Presence::Sometimes)
}

/// What is said of a whole class.
fn annotations(fields: &[PlannedField<'_>], needs: &mut Needs) -> Vec<Doc> {
    let mut annotations = Vec::new();
    if leaves_out(fields) {
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

fn component(plan: &Plan<'_>, field: &PlannedField<'_>, leaves_out: bool, needs: &mut Needs) -> Doc {
    let (annotations, ty) = annotated(plan, field, leaves_out, needs);
    let declaration = text(format!("{ty} {}", field.ident));
    if annotations.is_empty() {
        return declaration;
    }
    group(cat([text(annotations.join(" ")), nest(nest(cat([line(), declaration])))]))
}

/// What is said of a field, and its type.
fn annotated(
    plan: &Plan<'_>,
    field: &PlannedField<'_>,
    leaves_out: bool,
    needs: &mut Needs,
) -> (Vec<String>, String) {
    let types::Spelled { annotation, ty } = types::field(plan, field, needs);
    let mut annotations = Vec::new();
    if field.ident.as_str() != field.wire.as_str() && !field.wire.as_str().is_empty() {
        needs.imports.insert("com.fasterxml.jackson.annotation.JsonProperty");
        annotations.push(format!("@JsonProperty({})", names::LITERAL.of(field.wire.as_str())));
    }
    if leaves_out && field.presence == Presence::Always && field.slot.nullable {
        annotations.push("@JsonInclude(JsonInclude.Include.ALWAYS)".to_owned());
    }
    annotations.extend(annotation);
    (annotations, ty)
}

/// A text of its own type; one that is not known yet is kept as it is.
fn enumeration(ident: &Ident, cases: &[PlannedCase<'_>], needs: &mut Needs) -> Doc {
    needs.imports.extend([
        "com.fasterxml.jackson.annotation.JsonCreator",
        "com.fasterxml.jackson.annotation.JsonValue",
    ]);
    let case = |PlannedCase { ident: case, wire, docs }: &PlannedCase<'_>| {
        let literal = names::LITERAL.of(wire.as_str());
        let value = nest(nest(cat([line(), text(format!("new {ident}({literal});"))])));
        let declaration = group(cat([text(format!("public static final {ident} {case} =")), value]));
        (ABOUT.comment.of(docs, 2), declaration)
    };
    let constants = docs::spaced(cases.iter().map(case));
    let creator = unions::creator(ident.as_str());
    unions::value_record(&format!("public record {ident}"), "String", "", [constants, creator])
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

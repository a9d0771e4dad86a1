//! Java: records for Jackson or Gson, or classes with getters and setters.

mod beans;
mod bounds;
mod entry;
mod gson;
mod habits;
mod names;
mod nothing;
mod plain_copies;
mod proof;
mod settings;
mod types;
mod unions;
mod usage;

use std::borrow::Cow;
use std::collections::BTreeSet;

use jar_sprout_layout::{
    Doc, Indent, Style, braces, cat, flat_length, group, hard, join, line, lines, members, nest, paragraphs,
    soft, text,
};
use jar_sprout_model::{Scalar, Slot, Type, Width, WireName};

use crate::language::{Language, SharedPlace};
use crate::languages::jvm::naming;
use crate::plan::{
    DefaultSpelling, Fate, Ident, Plan, PlannedCase, PlannedDefinition, PlannedExtras, PlannedField,
    PlannedNothing, PlannedType,
};
use crate::prepare::Abilities;
use crate::settings::Settings;
use crate::spell::docs::{self, Comment};
use crate::spell::renaming::Renaming;
use crate::spell::{About, BlankSheet, Dialect, GrownFile, Needs, Place, Program, Trial, nested};
use settings::{JavaOptions, Library, PACKAGE};

/// Java.
pub(crate) struct Java;

static ABOUT: About = About {
    key: "java",
    title: "Java",
    aliases: &[],
    grows: "records for Jackson or Gson, Java 17 and later",
    settings: settings::SETTINGS,
    habits: habits::HABITS,
    folders: Some(&PACKAGE),
    between: None,
    naming: names::NAMING,
    comment: Comment {
        form: docs::CommentStyle::Javadoc,
        width: 100,
        escape: docs::in_javadoc,
        deprecated: None,
    },
    style: Style { width: 100, indent: Indent::Spaces(2) },
    ending: "java",
    mark: ["// @generated ", ".", "; do not edit."],
    imported: |line| line.strip_prefix("import ")?.strip_suffix(';'),
    declared: names::declared,
};

/// What declarations are spelled on.
type Sheet<'s> = crate::spell::Sheet<'s, JavaOptions>;

impl Language for Java {
    fn about(&self) -> &'static About {
        &ABOUT
    }

    fn dialect(&self, settings: &Settings) -> Box<dyn Dialect> {
        Box::new(JavaOptions::of(settings))
    }

    fn apart(&self, settings: &Settings, model: &str) -> Settings {
        // Of a package's name, its people write words together.
        settings.with_part(&PACKAGE, &model.replace('_', ""))
    }

    fn sharing(&self, settings: &Settings, shared: &SharedPlace<'_>) -> Option<Settings> {
        Some(settings.clone().with_shared(PACKAGE.of(shared.settings)?))
    }

    fn for_trial(&self, settings: &Settings, place: &str) -> Settings {
        let package = proof::package(place);
        settings.for_trial().with(&PACKAGE, &package).expect("a trial's package is one")
    }
}

impl Dialect for JavaOptions {
    fn about(&self) -> &'static About {
        &ABOUT
    }

    fn abilities(&self) -> Abilities {
        self.abilities()
    }

    fn file_name(&self, type_name: &str) -> String {
        format!("{type_name}.java")
    }

    /// The fields of a record are told of before it.
    fn comment(&self, plan: &Plan<'_>, ty: &PlannedType<'_>) -> Option<Doc> {
        let fields: &[PlannedField<'_>] = match &ty.definition {
            PlannedDefinition::Record(fields) if !self.has_beans => fields,
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
        let components = fields.iter().filter(|field| !is_tag_apart(self, plan, ty, field));
        let tags: Vec<String> = components.filter_map(tag).collect();
        ABOUT.comment.with_tags(ty.docs, plan.indent(ty, 2), &tags)
    }

    fn declare(&self, sheet: &mut BlankSheet<'_>, ty: &PlannedType<'_>) -> Doc {
        let options = self.indented(sheet.plan.indent(ty, 2));
        let ident = &ty.ident;
        let declaration = match (&ty.definition, self.library) {
            (PlannedDefinition::Record(fields), _) => {
                let nested = nested(self, sheet, ty);
                let declare = if self.has_beans { beans::bean } else { record };
                declare(&mut sheet.with(&options), ty, fields, nested)
            }
            (PlannedDefinition::Enumeration(cases), _) if ty.is_closed => {
                closed(&mut sheet.with(&options), ident, cases)
            }
            (PlannedDefinition::Enumeration(cases), Library::Jackson) => {
                enumeration(&mut sheet.with(&options), ident, cases)
            }
            (PlannedDefinition::Enumeration(cases), Library::Gson) => {
                gson::enumeration(&mut sheet.with(&options), ident, cases)
            }
            (PlannedDefinition::Union(union), Library::Jackson) => {
                unions::union(&mut sheet.with(&options), ty, union)
            }
            (PlannedDefinition::Union(union), Library::Gson) => {
                gson::union(&mut sheet.with(&options), ty, union)
            }
        };
        // What is said of a type holds for those inside.
        if !self.says_null || sheet.plan.is_nested(ty) {
            return declaration;
        }
        sheet.needs.imports.insert("org.jspecify.annotations.NullMarked");
        lines([text("@NullMarked"), declaration])
    }

    fn declare_copy(
        &self,
        sheet: &mut BlankSheet<'_>,
        copy: &PlannedType<'_>,
        wire: &PlannedType<'_>,
    ) -> Doc {
        let options = self.indented(sheet.plan.indent(copy, 2));
        let nested = nested(self, sheet, copy);
        plain_copies::declare(&mut sheet.with(&options), copy, wire, nested)
    }

    /// Java has no name for a type without a class of its own; a reader takes this one.
    fn alias(&self, sheet: &mut BlankSheet<'_>, ident: &Ident, slot: &Slot) -> Doc {
        let sheet = &mut sheet.with(self);
        let (import, token, reader) = match self.library {
            Library::Jackson => (
                "com.fasterxml.jackson.core.type.TypeReference",
                "TypeReference",
                "a mapper's {@code readValue}",
            ),
            Library::Gson => ("com.google.gson.reflect.TypeToken", "TypeToken", "{@code fromJson}"),
        };
        sheet.needs.imports.insert(import);
        let ty = types::boxed(sheet, slot);
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

    fn nothing(&self, sheet: &mut BlankSheet<'_>, nothing: &PlannedNothing<'_>) -> Option<Doc> {
        nothing::declaration(&mut sheet.with(self), nothing)
    }

    fn entry(&self, sheet: &mut BlankSheet<'_>) -> Vec<Doc> {
        vec![entry::class(&mut sheet.with(self))]
    }

    fn assemble(&self, _: &str, needs: &Needs, declarations: Vec<Doc>) -> Doc {
        let package = text(format!("package {};", self.package));
        let shared = self.shared.as_deref().unwrap_or_default();
        let borrowed = needs.borrowed.iter().map(|one| format!("{shared}.{}", one.name));
        let imports: BTreeSet<String> =
            needs.imports.iter().map(|name| (*name).to_owned()).chain(borrowed).collect();
        let imports = (!imports.is_empty())
            .then(|| lines(imports.into_iter().map(|name| text(format!("import {name};")))));
        paragraphs([package].into_iter().chain(imports).chain(declarations))
    }

    fn shared(&self) -> Option<&str> {
        self.shared.as_deref()
    }

    /// What stands in another package must be public.
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

/// ```java
/// public record Hive(long id, @JsonProperty("honey_kg") double honeyKg) {}
/// ```
fn record(sheet: &mut Sheet<'_>, ty: &PlannedType<'_>, fields: &[PlannedField<'_>], nested: Vec<Doc>) -> Doc {
    let renaming = renaming(sheet.options, fields);
    let mut annotations = annotations(sheet, ty, fields, &renaming);
    let leaves_out = leaves_out(fields, sheet.options);
    let tag = fields.iter().find(|field| is_tag_apart(sheet.options, sheet.plan, ty, field));
    let is_component = |field: &&PlannedField<'_>| tag.is_none_or(|tag| tag.ident != field.ident);
    let components = fields.iter().filter(is_component);
    let mut components: Vec<Doc> =
        components.map(|one| component(sheet, one, leaves_out, &renaming)).collect();
    let tag = tag.map(|tag| tag_method(sheet, tag));
    if let Some(extras) = &ty.extras {
        let (annotations, declaration) = extras_declaration(sheet, extras);
        components.push(group(cat([text(annotations), nest(nest(cat([line(), text(declaration)])))])));
    }
    let naming = field_with_empty_key(fields, sheet.options).map(|field| {
        annotations.push(naming_annotation(&ty.ident, sheet.needs));
        naming_of_empty_key(&field.ident)
    });
    let defaults = defaults(sheet.plan, ty, fields);
    let inside: Vec<Doc> = defaults.into_iter().chain(tag).chain(naming).chain(nested).collect();
    let brace = if inside.is_empty() { " {}" } else { " {" };
    let head = record_head(sheet.plan, ty, components, sheet.options.indent, brace);
    annotations.push(if inside.is_empty() { cat([head, text(brace)]) } else { members(head, inside) });
    lines(annotations)
}

/// Whether the tag of a record is no component, so that nobody can give it another one. What keeps other keys would keep
/// it as one of them, and a plain copy is made of what the wire's has.
fn is_tag_apart(
    options: &JavaOptions,
    plan: &Plan<'_>,
    ty: &PlannedType<'_>,
    field: &PlannedField<'_>,
) -> bool {
    field.fate.tag().is_some()
        && options.library == Library::Jackson
        && ty.extras.is_none()
        && !plan.has_copies()
        && !field.wire.as_str().is_empty()
}

/// ```java
/// @JsonProperty("kind")
/// public String kind() {
///   return "swarm";
/// }
/// ```
fn tag_method(sheet: &mut Sheet<'_>, field: &PlannedField<'_>) -> Doc {
    let annotation = key_annotation(sheet, field.wire.as_str()).map(text);
    let tag = names::LITERAL.of(field.fate.tag().map_or("", WireName::as_str));
    let method = braces(text(format!("public String {}()", field.ident)), [text(format!("return {tag};"))]);
    let comment = ABOUT.comment.of(field.docs, sheet.options.indent + 2);
    lines(comment.into_iter().chain(annotation).chain([method]))
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
    let one_line = flat_length(&components);
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
    let code = plan.default_code(field.fate.default()?, &DEFAULTS);
    let is_long = matches!(field.slot.ty, Type::Scalar(Scalar::Integer(Width::Wide | Width::Exact)));
    Some(if is_long { code + "L" } else { code })
}

/// The constructor that gives what is absent its default value.
fn defaults(plan: &Plan<'_>, ty: &PlannedType<'_>, fields: &[PlannedField<'_>]) -> Option<Doc> {
    let set = fields.iter().filter_map(|field| {
        let code = default_code(plan, field)?;
        let set = text(format!("{} = {code};", field.ident));
        Some(braces(text(format!("if ({} == null)", field.ident)), [set]))
    });
    let set: Vec<Doc> = set.collect();
    (!set.is_empty()).then(|| braces(text(format!("public {}", ty.ident)), set))
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
    let translate = braces(
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
fn field_with_empty_key<'f, 'm>(
    fields: &'f [PlannedField<'m>],
    options: &JavaOptions,
) -> Option<&'f PlannedField<'m>> {
    fields.iter().find(|field| options.library == Library::Jackson && field.wire.as_str().is_empty())
}

/// Whether a field may be left out, which Jackson must be told; Gson writes all nulls or none.
fn leaves_out(fields: &[PlannedField<'_>], options: &JavaOptions) -> bool {
    options.library == Library::Jackson && fields.iter().any(|field| field.fate.is_left_out())
}

/// What is said of a whole class, for Jackson.
fn annotations(
    sheet: &mut Sheet<'_>,
    ty: &PlannedType<'_>,
    fields: &[PlannedField<'_>],
    renaming: &Renaming,
) -> Vec<Doc> {
    let mut annotations = Vec::new();
    if sheet.options.library == Library::Gson {
        return annotations;
    }
    if ty.extras.is_none() {
        // A key that the server adds later is no error.
        sheet.needs.imports.insert("com.fasterxml.jackson.annotation.JsonIgnoreProperties");
        annotations.push(text("@JsonIgnoreProperties(ignoreUnknown = true)"));
    }
    if leaves_out(fields, sheet.options) {
        sheet.needs.imports.insert("com.fasterxml.jackson.annotation.JsonInclude");
        annotations.push(text("@JsonInclude(JsonInclude.Include.NON_NULL)"));
    }
    annotations.extend(naming::annotation(renaming, ".class", sheet.needs).map(text));
    if fields.is_empty() {
        // Without an annotation of its own, the library does not write what has no parts.
        sheet.needs.imports.insert("com.fasterxml.jackson.databind.annotation.JsonSerialize");
        annotations.push(text("@JsonSerialize"));
    }
    annotations
}

/// What makes the keys of a type of its names, if that is asked for.
fn renaming(options: &JavaOptions, fields: &[PlannedField<'_>]) -> Renaming {
    if options.has_key_rules { naming::renaming(fields) } else { Renaming::none() }
}

fn component(sheet: &mut Sheet<'_>, field: &PlannedField<'_>, leaves_out: bool, renaming: &Renaming) -> Doc {
    let (annotations, ty) = annotated(sheet, field, leaves_out, renaming);
    let declaration = text(format!("{ty} {}", field.ident));
    if annotations.is_empty() {
        return declaration;
    }
    let annotations = group(nest(nest(join(&line(), annotations.into_iter().map(text)))));
    group(cat([annotations, nest(nest(cat([line(), declaration])))]))
}

/// What is said of the map of keys that are no fields, and its declaration.
fn extras_declaration(sheet: &mut Sheet<'_>, extras: &PlannedExtras<'_>) -> (&'static str, String) {
    sheet.needs.imports.extend([
        "com.fasterxml.jackson.annotation.JsonAnyGetter",
        "com.fasterxml.jackson.annotation.JsonAnySetter",
    ]);
    let map = types::boxed(sheet, &extras.map);
    ("@JsonAnySetter @JsonAnyGetter", format!("{map} {}", extras.ident))
}

/// What is said of a field, and its type.
fn annotated(
    sheet: &mut Sheet<'_>,
    field: &PlannedField<'_>,
    leaves_out: bool,
    renaming: &Renaming,
) -> (Vec<String>, String) {
    let types::Spelled { annotations: own, ty } = nothing::field(sheet, field);
    let mut annotations = Vec::new();
    let key = field.wire.as_str();
    let is_renamed = !renaming.makes(field.ident.as_str(), key);
    if is_required(field, sheet.options) {
        sheet.needs.imports.insert("com.fasterxml.jackson.annotation.JsonProperty");
        let value = if is_renamed { format!("value = {}, ", names::LITERAL.of(key)) } else { String::new() };
        annotations.push(format!("@JsonProperty({value}required = true)"));
    } else if is_renamed {
        annotations.extend(key_annotation(sheet, key));
    }
    // A word is written where null would be, whatever is said of nulls.
    if leaves_out && matches!(field.fate, Fate::Nullable) && field.nothing_words().is_none() {
        annotations.push("@JsonInclude(JsonInclude.Include.ALWAYS)".to_owned());
    }
    annotations.extend(own);
    if sheet.options.checks_bounds {
        annotations.extend(bounds::checks(sheet, field));
    }
    (annotations, ty)
}

/// Whether the library must be told that a key is always there: without that, a record has null or zero where it is
/// missing. It asks for what a constructor takes alone, and an annotation cannot say the empty key.
fn is_required(field: &PlannedField<'_>, options: &JavaOptions) -> bool {
    options.library == Library::Jackson
        && !options.has_beans
        && !field.wire.as_str().is_empty()
        && matches!(field.fate, Fate::Required | Fate::Nullable)
}

/// What says the key of a field on the wire, or the text of an enum's value.
fn key_annotation(sheet: &mut Sheet<'_>, wire: &str) -> Option<String> {
    let (import, name) = match sheet.options.library {
        // An empty one says nothing to it.
        Library::Jackson if wire.is_empty() => return None,
        Library::Jackson => ("com.fasterxml.jackson.annotation.JsonProperty", "JsonProperty"),
        Library::Gson => ("com.google.gson.annotations.SerializedName", "SerializedName"),
    };
    sheet.needs.imports.insert(import);
    Some(format!("@{name}({})", names::LITERAL.of(wire)))
}

/// `public enum QueenStatus`
fn closed(sheet: &mut Sheet<'_>, ident: &Ident, cases: &[PlannedCase<'_>]) -> Doc {
    let last = cases.len().saturating_sub(1);
    let case = |(at, PlannedCase { ident: case, wire, docs }): (usize, &PlannedCase<'_>)| {
        let key = key_annotation(sheet, wire.as_str()).map(text);
        let end = if at == last { "" } else { "," };
        let comment = ABOUT.comment.of(docs, sheet.options.indent + 2);
        let declaration = lines(key.into_iter().chain([text(format!("{case}{end}"))]));
        (comment, declaration)
    };
    let cases: Vec<_> = cases.iter().enumerate().map(case).collect();
    braces(format!("public enum {ident}"), [docs::spaced(cases)])
}

/// A text of its own type; one that is not known yet is kept as it is.
fn enumeration(sheet: &mut Sheet<'_>, ident: &Ident, cases: &[PlannedCase<'_>]) -> Doc {
    sheet.needs.imports.extend([
        "com.fasterxml.jackson.annotation.JsonCreator",
        "com.fasterxml.jackson.annotation.JsonValue",
    ]);
    let creator = unions::creator(ident.as_str());
    let inside = [constants(ident, cases, sheet.options), creator];
    unions::value_record(&format!("public record {ident}"), "String", "", inside)
}

/// `public static final QueenStatus LAYING = new QueenStatus("laying");`
fn constants(ident: &Ident, cases: &[PlannedCase<'_>], options: &JavaOptions) -> Doc {
    let case = |PlannedCase { ident: case, wire, docs }: &PlannedCase<'_>| {
        let literal = names::LITERAL.of(wire.as_str());
        let argument = nest(nest(cat([soft(), text(format!("{literal});"))])));
        let made = group(cat([text(format!("new {ident}(")), argument]));
        let value = nest(nest(cat([line(), made])));
        let start = format!("public static final {ident} {case} =");
        let column = options.indent + 2;
        let declaration = if column + start.chars().count() <= ABOUT.style.width {
            group(cat([text(start), value]))
        } else {
            let named = cat([hard(), text(format!("{case} =")), value]);
            cat([text(format!("public static final {ident}")), nest(nest(named))])
        };
        (ABOUT.comment.of(docs, column), declaration)
    };
    docs::spaced(cases.iter().map(case))
}

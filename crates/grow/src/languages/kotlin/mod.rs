//! Kotlin: data classes for kotlinx.serialization, Moshi, Gson or Jackson, or for none.

mod adapters;
mod datetime;
mod entry;
mod extras;
mod foreign;
mod habits;
mod names;
mod nothing;
mod parcels;
mod plain_copies;
mod proof;
mod settings;
mod types;
mod unions;
mod usage;

use jar_sprout_layout::{
    Doc, Indent, Style, braces, cat, group, hard, join, last_comma, line, lines, members, nest, paragraphs,
    soft, text,
};
use jar_sprout_model::{Slot, WireName};

use crate::language::{Language, SharedPlace};
use crate::languages::jvm::naming;
use crate::plan::{
    DefaultSpelling, Fate, Ident, Plan, PlannedCase, PlannedDefinition, PlannedField, PlannedNothing,
    PlannedType,
};
use crate::prepare::Abilities;
use crate::settings::Settings;
use crate::spell::docs::{self, Comment};
use crate::spell::renaming::Renaming;
use crate::spell::{About, BlankSheet, Dialect, GrownFile, Needs, Place, Program, Trial, nested};
use settings::{KotlinOptions, Library, PACKAGE};

/// Kotlin with kotlinx.serialization.
pub(crate) struct Kotlin;

static ABOUT: About = About {
    key: "kotlin",
    title: "Kotlin",
    aliases: &["kt"],
    grows: "data classes for kotlinx.serialization, Moshi, Gson or Jackson",
    settings: settings::SETTINGS,
    habits: habits::HABITS,
    folders: Some(&PACKAGE),
    between: None,
    naming: names::NAMING,
    comment: Comment {
        form: docs::CommentStyle::Stars,
        width: 100,
        escape: docs::in_stars,
        deprecated: None,
    },
    style: Style { width: 100, indent: Indent::Spaces(4) },
    ending: "kt",
    mark: ["// @generated ", ".", "; do not edit."],
    imported: |line| line.strip_prefix("import "),
    declared: names::declared,
};

/// What declarations are spelled on.
type Sheet<'s> = crate::spell::Sheet<'s, KotlinOptions>;

impl Language for Kotlin {
    fn about(&self) -> &'static About {
        &ABOUT
    }

    fn dialect(&self, settings: &Settings) -> Box<dyn Dialect> {
        Box::new(KotlinOptions::of(settings))
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

impl Dialect for KotlinOptions {
    fn about(&self) -> &'static About {
        &ABOUT
    }

    fn abilities(&self) -> Abilities {
        self.abilities()
    }

    fn file_name(&self, type_name: &str) -> String {
        format!("{}.kt", type_name.trim_matches('`'))
    }

    fn comment(&self, plan: &Plan<'_>, ty: &PlannedType<'_>) -> Option<Doc> {
        ABOUT.comment.of(ty.docs, plan.indent(ty, 4))
    }

    fn declare(&self, sheet: &mut BlankSheet<'_>, ty: &PlannedType<'_>) -> Doc {
        let options = self.indented(sheet.plan.indent(ty, 4));
        match &ty.definition {
            PlannedDefinition::Record(fields) => {
                let nested = nested(self, sheet, ty);
                record(&mut sheet.with(&options), ty, fields, nested)
            }
            PlannedDefinition::Enumeration(cases) if ty.is_closed => {
                closed(&mut sheet.with(&options), &ty.ident, cases)
            }
            PlannedDefinition::Enumeration(cases) => enumeration(&mut sheet.with(&options), &ty.ident, cases),
            PlannedDefinition::Union(union) => {
                // Some libraries choose a case by an adapter.
                let declared = match options.library {
                    Library::Moshi | Library::Gson | Library::Jackson => adapters::union,
                    Library::Kotlinx | Library::None => unions::union,
                };
                declared(&mut sheet.with(&options), ty, union)
            }
        }
    }

    fn declare_copy(
        &self,
        sheet: &mut BlankSheet<'_>,
        copy: &PlannedType<'_>,
        wire: &PlannedType<'_>,
    ) -> Doc {
        let options = self.indented(sheet.plan.indent(copy, 4));
        let place = sheet.needs.outside.len();
        let nested = nested(self, sheet, copy);
        plain_copies::declare(&mut sheet.with(&options), copy, wire, (nested, place))
    }

    fn alias(&self, sheet: &mut BlankSheet<'_>, ident: &Ident, slot: &Slot) -> Doc {
        cat([text(format!("typealias {ident} = ")), types::slot(&mut sheet.with(self), slot)])
    }

    fn nothing(&self, sheet: &mut BlankSheet<'_>, nothing: &PlannedNothing<'_>) -> Option<Doc> {
        nothing::declaration(&mut sheet.with(self), nothing)
    }

    fn entry(&self, sheet: &mut BlankSheet<'_>) -> Vec<Doc> {
        entry::functions(&mut sheet.with(self))
    }

    fn assemble(&self, _: &str, needs: &Needs, declarations: Vec<Doc>) -> Doc {
        let head = self.package.as_ref().map(|name| text(format!("package {name}")));
        let classes: Vec<String> =
            needs.file_annotations.iter().map(|name| format!("{name}::class")).collect();
        let head = (!classes.is_empty()).then(|| use_serializers(&classes)).into_iter().chain(head);
        let package = self.shared.as_deref().unwrap_or_default();
        let borrowed = needs.borrowed.iter().map(|one| format!("{package}.{}", one.name));
        let mut imports: Vec<String> = needs.imports.iter().map(|name| (*name).to_owned()).collect();
        imports.extend(borrowed);
        imports.sort_by_cached_key(|name| (names::import_group(name), name.clone()));
        let imports: Vec<Doc> = imports.iter().map(|name| text(format!("import {name}"))).collect();
        let imports = (!imports.is_empty()).then(|| lines(imports));
        paragraphs(head.chain(imports).chain(declarations).chain(needs.outside.clone()))
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
        // What nothing reads is compiled and no more.
        match self.library {
            Library::None => Vec::new(),
            Library::Kotlinx | Library::Moshi | Library::Gson | Library::Jackson => proof::driver(trials),
        }
    }
}

/// `@file:UseSerializers(LocalDateSerializer::class)`
fn use_serializers(classes: &[String]) -> Doc {
    let classes = classes.iter().map(|class| text(class.clone()));
    let between = cat([text(","), line()]);
    let inner = nest(cat([soft(), join(&between, classes), last_comma()]));
    group(cat([text("@file:UseSerializers("), inner, soft(), text(")")]))
}

/// ```kotlin
/// @Serializable
/// data class Hive(
///     val id: Long,
/// )
/// ```
fn record(sheet: &mut Sheet<'_>, ty: &PlannedType<'_>, fields: &[PlannedField<'_>], nested: Vec<Doc>) -> Doc {
    let ident = &ty.ident;
    let renaming = if sheet.options.has_key_rules { naming::renaming(fields) } else { Renaming::none() };
    let annotations = match sheet.options.library {
        Library::Kotlinx => extras::annotations(sheet, ty).unwrap_or_else(|| serializable(sheet, fields)),
        Library::Moshi => adapters::of_moshi(sheet.needs),
        Library::Jackson => adapters::of_jackson(sheet, ty, fields, &renaming),
        Library::Gson | Library::None => Vec::new(),
    };
    let extras = ty.extras.iter().map(|extras| &extras.map.ty);
    let parts = fields.iter().map(|field| &field.slot.ty).chain(extras);
    let parcels = parcels::annotations(sheet, parts);
    let annotations = annotations.into_iter().map(text).chain(parcels);
    let supers = supertypes(sheet, ty);
    if fields.is_empty() {
        return lines(annotations.chain([cat([text(format!("class {ident}")), supers])]));
    }
    let is_tag_apart = has_tag_apart(sheet, fields);
    let (apart, fields): (Vec<_>, Vec<_>) =
        fields.iter().partition(|field| is_tag_apart && field.fate.tag().is_some());
    let parts = fields.iter().map(|one| cat([hard(), field(sheet, ty, one, &renaming)]));
    let mut parts: Vec<Doc> = parts.collect();
    let tags: Vec<Doc> = apart.into_iter().map(|field| tag_apart(sheet, field)).collect();
    if let Some(extras) = &ty.extras {
        parts.push(cat([hard(), extras::property(sheet, extras)]));
    }
    let body = nest(cat(parts));
    let naming = match sheet.options.library {
        Library::Jackson => adapters::naming_of_empty_key(&fields, sheet.needs),
        Library::Kotlinx | Library::Moshi | Library::Gson | Library::None => None,
    };
    let serializer = extras::serializer(sheet, ty);
    let inside: Vec<Doc> = tags.into_iter().chain(naming).chain(serializer).chain(nested).collect();
    let head = cat([text(format!("data class {ident}(")), body, hard(), text(")"), supers]);
    let class = if inside.is_empty() { head } else { members(head, inside) };
    lines(annotations.chain([class]))
}

/// Whether the tag of a record stands beside its constructor, where nobody can give it another one: not where a
/// parcel or a plain copy is made of what the constructor takes, or nothing else would be left to it.
fn has_tag_apart(sheet: &Sheet<'_>, fields: &[PlannedField<'_>]) -> bool {
    sheet.options.library == Library::Kotlinx
        && !sheet.options.is_parcelable
        && !sheet.plan.has_copies()
        && fields.iter().any(|field| field.fate.tag().is_none())
}

/// ```kotlin
/// @Required
/// val kind: String = "swarm"
/// ```
fn tag_apart(sheet: &mut Sheet<'_>, field: &PlannedField<'_>) -> Doc {
    let PlannedField { ident, wire, docs, fate, .. } = field;
    sheet.needs.imports.insert("kotlinx.serialization.Required");
    let key = (ident.as_str().trim_matches('`') != wire.as_str())
        .then(|| key_annotation(sheet, wire.as_str()))
        .flatten();
    let tag = names::LITERAL.of(fate.tag().map_or("", WireName::as_str));
    let declared = [Some("@Required".to_owned()), key, Some(format!("val {ident}: String = {tag}"))];
    let comment = ABOUT.comment.of(docs, sheet.options.indent + 4);
    lines(comment.into_iter().chain(declared.into_iter().flatten().map(text)))
}

/// `@Serializable`
fn serializable(sheet: &mut Sheet<'_>, fields: &[PlannedField<'_>]) -> Vec<String> {
    let mut annotations = Vec::new();
    let has_tag = fields.iter().any(|field| field.fate.tag().is_some());
    let is_in_constructor = has_tag && !has_tag_apart(sheet, fields);
    let needs = &mut *sheet.needs;
    if is_in_constructor {
        needs.imports.insert("kotlinx.serialization.ExperimentalSerializationApi");
        annotations.push("@OptIn(ExperimentalSerializationApi::class)".to_owned());
    }
    needs.imports.insert("kotlinx.serialization.Serializable");
    annotations.push("@Serializable".to_owned());
    annotations
}

/// What says the key of a field on the wire.
fn key_annotation(sheet: &mut Sheet<'_>, wire: &str) -> Option<String> {
    let (import, opening) = match sheet.options.library {
        Library::Kotlinx => ("kotlinx.serialization.SerialName", "@SerialName("),
        Library::Moshi => ("com.squareup.moshi.Json", "@Json(name = "),
        Library::Gson => ("com.google.gson.annotations.SerializedName", "@SerializedName("),
        // An empty one says nothing to it.
        Library::Jackson if wire.is_empty() => return None,
        Library::Jackson => ("com.fasterxml.jackson.annotation.JsonProperty", "@JsonProperty("),
        Library::None => return None,
    };
    sheet.needs.imports.insert(import);
    Some([opening, &names::LITERAL.of(wire), ")"].concat())
}

/// ` : Event` for the cases of a sealed interface.
fn supertypes(sheet: &mut Sheet<'_>, ty: &PlannedType<'_>) -> Doc {
    let unions: Vec<Doc> = sheet.plan.unions_of(ty.id).map(|union| text(union.ident.to_string())).collect();
    // Its linter wants each but the first on a line of its own.
    let between = cat([text(","), hard()]);
    if unions.is_empty() {
        text(parcels::supertype(sheet))
    } else {
        cat([text(" : "), nest(join(&between, unions))])
    }
}

/// `val id: Long,`, with its key where the name does not say it.
fn field(
    sheet: &mut Sheet<'_>,
    owner: &PlannedType<'_>,
    field: &PlannedField<'_>,
    renaming: &Renaming,
) -> Doc {
    let PlannedField { ident, wire, slot, encoding: _, docs, fate } = field;
    let mut parts: Vec<Doc> = ABOUT.comment.of(docs, sheet.options.indent + 4).into_iter().collect();
    if docs.is_deprecated {
        parts.push(text(format!("@Deprecated({})", names::LITERAL.of(&docs::warning(docs)))));
    }
    if sheet.options.library == Library::Jackson && adapters::has_misread_getter(ident.as_str()) {
        sheet.needs.imports.insert("com.fasterxml.jackson.annotation.JsonProperty");
        let key = names::LITERAL.of(wire.as_str());
        parts.extend(["get", "param"].map(|site| text(format!("@{site}:JsonProperty({key})"))));
    } else if !renaming.makes(ident.as_str().trim_matches('`'), wire.as_str()) {
        parts.extend(key_annotation(sheet, wire.as_str()).map(text));
    }
    if sheet.options.library == Library::Jackson && matches!(fate, Fate::Nullable) {
        sheet.needs.imports.insert("com.fasterxml.jackson.annotation.JsonInclude");
        parts.push(text("@get:JsonInclude(JsonInclude.Include.ALWAYS)"));
    }
    let overrides = if sheet.plan.is_shared(owner, field) { "override " } else { "" };
    let value = text(format!("{overrides}{} {ident}: ", sheet.options.property));
    let value = match fate {
        Fate::Tag(tag) => {
            if sheet.options.library == Library::Kotlinx {
                sheet.needs.imports.insert("kotlinx.serialization.EncodeDefault");
                parts.push(text("@EncodeDefault"));
            }
            let literal = names::LITERAL.of(tag.as_str());
            cat([value, text("String = "), text(literal), text(",")])
        }
        Fate::Defaulted(default) => {
            let ty = types::non_null(sheet, slot);
            let default = sheet.plan.default_code(*default, &DEFAULTS);
            cat([value, ty, text(format!(" = {default},"))])
        }
        Fate::Apart => {
            sheet.needs.helpers.insert(types::MAYBE);
            let ty = types::slot(sheet, slot);
            cat([value, text("Maybe<"), ty, text("> = Maybe.Absent,")])
        }
        Fate::Required => cat([value, field_type(sheet, field, &mut parts), text(",")]),
        Fate::Nullable => cat([value, field_type(sheet, field, &mut parts), text("?,")]),
        Fate::Optional | Fate::Either => {
            cat([value, field_type(sheet, field, &mut parts), text("? = null,")])
        }
    };
    parts.push(value);
    lines(parts)
}

const DEFAULTS: DefaultSpelling = DefaultSpelling {
    truths: ["false", "true"],
    literal: |text| names::LITERAL.of(text),
    case: |ty, case| format!("{}.{}", ty.ident, case.ident),
};

/// The type of a field's value that is not null; an annotation that it takes goes before the field.
fn field_type(sheet: &mut Sheet<'_>, field: &PlannedField<'_>, annotations: &mut Vec<Doc>) -> Doc {
    match nothing::annotated(sheet, field) {
        Some((own, ty)) => {
            annotations.extend(own.into_iter().map(text));
            ty
        }
        None => types::non_null(sheet, field.slot),
    }
}

/// A class around one value, which is not there at run time; its linter wants the value on a line of its own.
fn value_class(name: &str, ty: Doc, rest: Doc, parcels: Vec<Doc>, options: &KotlinOptions) -> Doc {
    let value = nest(cat([hard(), text("val value: "), ty, text(",")]));
    let class = cat([text(format!("value class {name}(")), value, hard(), text(")"), rest]);
    let serializable = (options.library == Library::Kotlinx).then(|| text("@Serializable"));
    lines(serializable.into_iter().chain(parcels).chain([text("@JvmInline"), class]))
}

/// A value class, so that a value the server adds later is kept as it is:
/// ```kotlin
/// @Serializable
/// @JvmInline
/// value class QueenStatus(
///     val value: String,
/// ) {
///     companion object {
///         val LAYING = QueenStatus("laying")
///     }
/// }
/// ```
fn enumeration(sheet: &mut Sheet<'_>, ident: &Ident, cases: &[PlannedCase<'_>]) -> Doc {
    let case = |PlannedCase { ident: case, wire, docs }: &PlannedCase<'_>| {
        let literal = names::LITERAL.of(wire.as_str());
        let call = cat([soft(), text(literal), last_comma()]);
        let call = group(cat([text(format!("{ident}(")), nest(call), soft(), text(")")]));
        let value = nest(cat([line(), call]));
        (ABOUT.comment.of(docs, sheet.options.indent + 8), group(cat([text(format!("val {case} =")), value])))
    };
    let cases = docs::spaced(cases.iter().map(case));
    match sheet.options.library {
        Library::Kotlinx => drop(sheet.needs.imports.insert("kotlinx.serialization.Serializable")),
        Library::None => {}
        Library::Moshi | Library::Gson | Library::Jackson => {
            return adapters::enumeration(sheet, ident, cases);
        }
    }
    let companion = braces("companion object", [cases]);
    let supertype = parcels::supertype(sheet);
    let body = braces(supertype, [companion]);
    let parcels = parcels::annotations(sheet, []);
    value_class(&ident.to_string(), text("String"), body, parcels, sheet.options)
}

/// ```kotlin
/// @Serializable
/// enum class QueenStatus {
///     @SerialName("laying")
///     LAYING,
/// }
/// ```
fn closed(sheet: &mut Sheet<'_>, ident: &Ident, cases: &[PlannedCase<'_>]) -> Doc {
    if sheet.options.library == Library::Kotlinx {
        sheet.needs.imports.insert("kotlinx.serialization.Serializable");
    }
    let mut has_keys = false;
    let case = |PlannedCase { ident: case, wire, docs }: &PlannedCase<'_>| {
        let is_as_on_wire = case.as_str() == wire.as_str();
        let key = if is_as_on_wire { None } else { key_annotation(sheet, wire.as_str()) };
        has_keys |= key.is_some();
        let comment = ABOUT.comment.of(docs, sheet.options.indent + 4);
        (comment, lines(key.map(text).into_iter().chain([text(format!("{case},"))])))
    };
    let cases: Vec<(Option<Doc>, Doc)> = cases.iter().map(case).collect();
    let serializable = (sheet.options.library == Library::Kotlinx).then(|| text("@Serializable"));
    // Its linter wants a blank line wherever an annotation stands.
    let cases = if has_keys {
        let documented = cases.into_iter().map(|(comment, case)| lines(comment.into_iter().chain([case])));
        paragraphs(documented)
    } else {
        docs::spaced(cases)
    };
    let class = braces(format!("enum class {ident}"), [cases]);
    lines(serializable.into_iter().chain([class]))
}

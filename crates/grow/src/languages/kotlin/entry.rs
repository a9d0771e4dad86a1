//! The functions that read and write whole responses in Kotlin.

use jar_sprout_layout::{Doc, braces, cat, group, hard, last_comma, line, lines, nest, soft, text};
use jar_sprout_model::{Scalar, Width};

use super::Sheet;
use super::settings::Library;
use super::types;
use crate::plan::{Plan, PlannedRoot};

/// Spells an expression for a type, and whether that may be null.
type Spell = fn(&str, bool) -> String;

/// How each library reads and writes a type by name.
fn calls(library: Library) -> Option<(Spell, Spell)> {
    Some(match library {
        Library::Kotlinx => {
            (|_, _| "json.decodeFromString(text)".to_owned(), |_, _| "json.encodeToString(value)".to_owned())
        }
        Library::Moshi => (of_moshi, |ty, _| format!("adapter<{ty}>().toJson(value)")),
        Library::Gson => (
            |ty, _| format!("gson.fromJson(text, object : TypeToken<{ty}>() {{}})"),
            |ty, _| format!("gson.toJson(value, object : TypeToken<{ty}>() {{}}.type)"),
        ),
        Library::Jackson => {
            (|_, _| "mapper.readValue(text)".to_owned(), |_, _| "mapper.writeValueAsString(value)".to_owned())
        }
        Library::None => return None,
    })
}

/// What a library needs to be set up with.
fn set_up(sheet: &mut Sheet<'_>) -> Doc {
    match sheet.options.library {
        Library::Kotlinx => {
            sheet
                .needs
                .imports
                .extend(["kotlinx.serialization.encodeToString", "kotlinx.serialization.json.Json"]);
            text("private val json = Json { ignoreUnknownKeys = true }")
        }
        Library::Moshi => moshi(sheet),
        Library::Gson => {
            sheet.needs.imports.extend(["com.google.gson.GsonBuilder", "com.google.gson.reflect.TypeToken"]);
            let dates = with_dates(sheet);
            text(format!("private val gson = GsonBuilder().serializeNulls(){dates}.create()"))
        }
        Library::Jackson => jackson(sheet),
        Library::None => Doc::Nil,
    }
}

/// The type of a root; whether it may be null stands in the name for it.
fn type_of(plan: &Plan<'_>, root: &PlannedRoot<'_>) -> String {
    let mark = if matches!(root, PlannedRoot::Named { .. }) && root.slot().nullable { "?" } else { "" };
    format!("{}{mark}", plan.root_ident(root))
}

/// `val response: HivePage = json.decodeFromString(text)`
pub(super) fn reading(sheet: &Sheet<'_>, root: &PlannedRoot<'_>) -> String {
    let ty = type_of(sheet.plan, root);
    let read = calls(sheet.options.library).map(|(read, _)| read(&ty, root.slot().nullable));
    format!("val response: {ty} = {}", read.unwrap_or_default())
}

/// What a library is set up with, and what reads and writes each root with it.
pub(super) fn functions(sheet: &mut Sheet<'_>) -> Vec<Doc> {
    let Some((read, write)) = calls(sheet.options.library) else { return Vec::new() };
    let mut made = vec![set_up(sheet)];
    for (root, [decode, encode]) in sheet.plan.entries() {
        let ty = type_of(sheet.plan, root);
        made.push(function(&format!("fun {decode}"), "text: String", &ty, read(&ty, root.slot().nullable)));
        made.push(function(
            &format!("fun {encode}"),
            &format!("value: {ty}"),
            "String",
            write(&ty, root.slot().nullable),
        ));
    }
    made
}

/// What the library answers null for is no response, unless it may be.
fn of_moshi(ty: &str, may_be_null: bool) -> String {
    let cast = if may_be_null { String::new() } else { format!(" as {ty}") };
    format!("adapter<{ty}>().fromJson(text){cast}")
}

fn moshi(sheet: &mut Sheet<'_>) -> Doc {
    sheet.needs.imports.extend([
        "com.squareup.moshi.JsonAdapter",
        "com.squareup.moshi.Moshi",
        "com.squareup.moshi.adapter",
        "com.squareup.moshi.kotlin.reflect.KotlinJsonAdapterFactory",
    ]);
    let has_dates = sheet.plan.model.scalars().any(|scalar| types::is_foreign(sheet.options, scalar));
    let dates = has_dates.then(|| {
        sheet.needs.helpers.insert(types::MOSHI_DATES);
        ".withDatesAndBigIntegers()"
    });
    let calls = [".Builder()"].into_iter().chain(dates);
    let calls = calls.chain([".addLast(KotlinJsonAdapterFactory())", ".build()"]);
    let calls = nest(cat(calls.map(|call| cat([hard(), text(call)]))));
    let chain = nest(cat([hard(), text("Moshi"), calls]));
    lines([
        cat([text("private val moshi ="), chain]),
        text(""),
        text("@OptIn(ExperimentalStdlibApi::class)"),
        text(
            "private inline fun <reified T> adapter(): JsonAdapter<T> = moshi.adapter<T>().serializeNulls()",
        ),
    ])
}

fn jackson(sheet: &mut Sheet<'_>) -> Doc {
    sheet.needs.imports.extend([
        "com.fasterxml.jackson.databind.DeserializationFeature",
        "com.fasterxml.jackson.module.kotlin.jsonMapper",
        "com.fasterxml.jackson.module.kotlin.kotlinModule",
        "com.fasterxml.jackson.module.kotlin.readValue",
    ]);
    let dates = with_dates(sheet);
    let inside = [
        text(format!("addModule(kotlinModule()){dates}")),
        text("disable(DeserializationFeature.ACCEPT_FLOAT_AS_INT)"),
        text("disable(DeserializationFeature.FAIL_ON_UNKNOWN_PROPERTIES)"),
        text("enable(DeserializationFeature.FAIL_ON_NULL_FOR_PRIMITIVES)"),
    ];
    cat([text("private val mapper ="), nest(cat([hard(), braces("jsonMapper", inside)]))])
}

/// The call that makes the library know dates, where there are any. Big integers it knows by itself.
fn with_dates(sheet: &mut Sheet<'_>) -> &'static str {
    let is_date = |scalar| {
        types::is_foreign(sheet.options, scalar)
            && !matches!(scalar, Scalar::Integer(Width::Big) | Scalar::Decimal)
    };
    if !sheet.plan.model.scalars().any(is_date) {
        return "";
    }
    sheet.needs.helpers.insert(if sheet.options.library == Library::Gson {
        types::GSON_DATES
    } else {
        types::JACKSON_DATES
    });
    ".withDates()"
}

/// A function of one parameter and one expression.
fn function(head: &str, parameter: &str, result: &str, body: String) -> Doc {
    let parameter = nest(cat([soft(), text(parameter.to_owned()), last_comma()]));
    let signature = group(cat([text(format!("{head}(")), parameter, soft(), text(format!("): {result} ="))]));
    cat([signature, group(nest(cat([line(), text(body)])))])
}

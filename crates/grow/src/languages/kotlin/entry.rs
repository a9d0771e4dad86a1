//! The functions that read and write whole responses in Kotlin.

use jar_sprout_layout::{Doc, cat, group, hard, if_broken, line, lines, nest, soft, text};
use jar_sprout_model::{Scalar, Width};

use super::settings::{Form, Library};
use super::types;
use crate::code::Needs;
use crate::plan::Plan;

/// Spells an expression for a type, and whether that may be null.
type Spell = fn(&str, bool) -> String;

/// What a library needs to be set up with, and how it reads and writes a type by name.
pub(super) fn functions(plan: &Plan<'_>, form: Form, needs: &mut Needs) -> Vec<Doc> {
    let (set_up, read, write): (Doc, Spell, Spell) = match form.library {
        Library::Kotlinx => {
            needs.imports.extend(["kotlinx.serialization.encodeToString", "kotlinx.serialization.json.Json"]);
            (
                text("private val json = Json { ignoreUnknownKeys = true }"),
                |_, _| "json.decodeFromString(text)".to_owned(),
                |_, _| "json.encodeToString(value)".to_owned(),
            )
        }
        Library::Moshi => (moshi(plan, needs), of_moshi, |ty, _| format!("adapter<{ty}>().toJson(value)")),
        Library::Gson => {
            needs.imports.extend(["com.google.gson.GsonBuilder", "com.google.gson.reflect.TypeToken"]);
            let dates = with_dates(plan, form, needs);
            (
                text(format!("private val gson = GsonBuilder().serializeNulls(){dates}.create()")),
                |ty, _| format!("gson.fromJson(text, object : TypeToken<{ty}>() {{}})"),
                |ty, _| format!("gson.toJson(value, object : TypeToken<{ty}>() {{}}.type)"),
            )
        }
        Library::Jackson => (
            jackson(plan, form, needs),
            |_, _| "mapper.readValue(text)".to_owned(),
            |_, _| "mapper.writeValueAsString(value)".to_owned(),
        ),
        Library::None => return Vec::new(),
    };
    let mut made = vec![set_up];
    for (root, [decode, encode]) in plan.entries() {
        // Whether it may be null stands in the name for it.
        let ty = plan.root_type(root, |slot| {
            let mark = if slot.nullable { "?" } else { "" };
            format!("{}{mark}", plan.root_ident(root))
        });
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

fn moshi(plan: &Plan<'_>, needs: &mut Needs) -> Doc {
    needs.imports.extend([
        "com.squareup.moshi.JsonAdapter",
        "com.squareup.moshi.Moshi",
        "com.squareup.moshi.adapter",
        "com.squareup.moshi.kotlin.reflect.KotlinJsonAdapterFactory",
    ]);
    let has_dates = plan.model.scalars().any(types::is_foreign);
    let dates = has_dates.then(|| {
        needs.helpers.insert(types::MOSHI_DATES);
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

fn jackson(plan: &Plan<'_>, form: Form, needs: &mut Needs) -> Doc {
    needs.imports.extend([
        "com.fasterxml.jackson.databind.DeserializationFeature",
        "com.fasterxml.jackson.module.kotlin.jsonMapper",
        "com.fasterxml.jackson.module.kotlin.kotlinModule",
        "com.fasterxml.jackson.module.kotlin.readValue",
    ]);
    let dates = with_dates(plan, form, needs);
    let inside = [
        text(format!("addModule(kotlinModule()){dates}")),
        text("disable(DeserializationFeature.FAIL_ON_UNKNOWN_PROPERTIES)"),
    ];
    let inside = nest(cat(inside.map(|one| cat([hard(), one]))));
    cat([text("private val mapper ="), nest(cat([hard(), text("jsonMapper {"), inside, hard(), text("}")]))])
}

/// The call that makes the library know dates, where there are any. Big integers it knows by itself.
fn with_dates(plan: &Plan<'_>, form: Form, needs: &mut Needs) -> &'static str {
    let is_date = |scalar| {
        types::is_foreign(scalar) && !matches!(scalar, Scalar::Integer(Width::Big) | Scalar::Decimal)
    };
    if !plan.model.scalars().any(is_date) {
        return "";
    }
    needs.helpers.insert(if form.library == Library::Gson {
        types::GSON_DATES
    } else {
        types::JACKSON_DATES
    });
    ".withDates()"
}

/// A function of one parameter and one expression.
fn function(head: &str, parameter: &str, result: &str, body: String) -> Doc {
    let parameter = nest(cat([soft(), text(parameter.to_owned()), if_broken(",", "")]));
    let signature = group(cat([text(format!("{head}(")), parameter, soft(), text(format!("): {result} ="))]));
    cat([signature, group(nest(cat([line(), text(body)])))])
}

//! Parcels: what Android needs to hand objects from screen to screen.

use jar_sprout_layout::{Doc, text};
use jar_sprout_model::Type;

use super::Sheet;
use super::settings::Library;
use crate::spell::Helper;

const KOTLINX: Helper =
    Helper { name: "JsonElementParceler", text: include_str!("kotlinx/JsonElementParceler.kt") };
const KOTLINX_OBJECT: Helper =
    Helper { name: "JsonObjectParceler", text: include_str!("kotlinx/JsonObjectParceler.kt") };
const GSON: Helper =
    Helper { name: "JsonElementParceler", text: include_str!("gson/JsonElementParceler.kt") };
const JACKSON: Helper =
    Helper { name: "JsonNodeParceler", text: include_str!("jackson/JsonNodeParceler.kt") };

/// What is said of a class that holds values of these types.
pub(super) fn annotations<'t>(sheet: &mut Sheet<'_>, types: impl IntoIterator<Item = &'t Type>) -> Vec<Doc> {
    let holds_any = types.into_iter().any(holds_any);
    let parceler = match sheet.options.library {
        Library::Kotlinx => Some(("JsonElement", KOTLINX)),
        Library::Gson => Some(("JsonElement", GSON)),
        Library::Jackson => Some(("JsonNode", JACKSON)),
        // Lists, maps and what they hold go along as they are.
        Library::Moshi | Library::None => None,
    };
    parcelize(sheet, parceler.filter(|_| holds_any))
}

/// What is said of a class that holds the whole object of a tag that is not known yet.
pub(super) fn annotations_of_unknown(sheet: &mut Sheet<'_>) -> Vec<Doc> {
    match sheet.options.library {
        Library::Kotlinx => parcelize(sheet, Some(("JsonObject", KOTLINX_OBJECT))),
        Library::Gson | Library::Jackson | Library::Moshi | Library::None => annotations(sheet, [&Type::Any]),
    }
}

/// ` : Parcelable`
pub(super) fn supertype(sheet: &mut Sheet<'_>) -> &'static str {
    if !sheet.options.is_parcelable {
        return "";
    }
    sheet.needs.imports.insert("android.os.Parcelable");
    " : Parcelable"
}

fn parcelize(sheet: &mut Sheet<'_>, parceler: Option<(&str, Helper)>) -> Vec<Doc> {
    if !sheet.options.is_parcelable {
        return Vec::new();
    }
    sheet.needs.imports.insert("kotlinx.parcelize.Parcelize");
    let parceler = parceler.map(|(ty, helper)| {
        sheet.needs.imports.insert("kotlinx.parcelize.TypeParceler");
        sheet.needs.helpers.insert(helper);
        text(format!("@TypeParceler<{ty}, {}>", helper.name))
    });
    [text("@Parcelize")].into_iter().chain(parceler).collect()
}

fn holds_any(ty: &Type) -> bool {
    match ty {
        Type::Any | Type::Tuple(_) => true,
        Type::List(slot) | Type::Map(slot) => holds_any(&slot.ty),
        Type::Scalar(_) | Type::Constant(_) | Type::Named(_) => false,
    }
}

//! Parcels: what Android needs to hand objects from screen to screen.

use jar_sprout_layout::{Doc, text};
use jar_sprout_model::Type;

use super::settings::{Form, Library};
use crate::code::{Helper, Needs};

const KOTLINX: Helper =
    Helper { name: "JsonElementParceler", text: include_str!("kotlinx/JsonElementParceler.kt") };
const KOTLINX_OBJECT: Helper =
    Helper { name: "JsonObjectParceler", text: include_str!("kotlinx/JsonObjectParceler.kt") };
const GSON: Helper =
    Helper { name: "JsonElementParceler", text: include_str!("gson/JsonElementParceler.kt") };
const JACKSON: Helper =
    Helper { name: "JsonNodeParceler", text: include_str!("jackson/JsonNodeParceler.kt") };

/// What is said of a class that holds values of these types.
pub(super) fn annotations<'t>(
    types: impl IntoIterator<Item = &'t Type>,
    form: Form,
    needs: &mut Needs,
) -> Vec<Doc> {
    let holds_any = types.into_iter().any(holds_any);
    let parceler = match form.library {
        Library::Kotlinx => Some(("JsonElement", KOTLINX)),
        Library::Gson => Some(("JsonElement", GSON)),
        Library::Jackson => Some(("JsonNode", JACKSON)),
        // Lists, maps and what they hold go along as they are.
        Library::Moshi | Library::None => None,
    };
    parcelize(parceler.filter(|_| holds_any), form, needs)
}

/// What is said of a class that holds the whole object of a tag that is not known yet.
pub(super) fn annotations_of_unknown(form: Form, needs: &mut Needs) -> Vec<Doc> {
    match form.library {
        Library::Kotlinx => parcelize(Some(("JsonObject", KOTLINX_OBJECT)), form, needs),
        Library::Gson | Library::Jackson | Library::Moshi | Library::None => {
            annotations([&Type::Any], form, needs)
        }
    }
}

/// ` : Parcelable`
pub(super) fn supertype(form: Form, needs: &mut Needs) -> &'static str {
    if !form.is_parcelable {
        return "";
    }
    needs.imports.insert("android.os.Parcelable");
    " : Parcelable"
}

fn parcelize(parceler: Option<(&str, Helper)>, form: Form, needs: &mut Needs) -> Vec<Doc> {
    if !form.is_parcelable {
        return Vec::new();
    }
    needs.imports.insert("kotlinx.parcelize.Parcelize");
    let parceler = parceler.map(|(ty, helper)| {
        needs.imports.insert("kotlinx.parcelize.TypeParceler");
        needs.helpers.insert(helper);
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

//! What makes an object a value: `copyWith`, `==` and `hashCode`.

use jar_sprout_layout::{Doc, cat, group, join, line, lines, nest, text};
use jar_sprout_model::Type;

use super::Sheet;
use super::settings::DartOptions;
use super::{field_type, listed, types};
use crate::plan::{PlannedExtras, PlannedField, PlannedType};
use crate::spell::{Helper, Needs};

/// Compares lists and maps by what they hold.
const DEEP: Helper = Helper { name: "deep", text: include_str!("deep.dart") };

/// `Hive copyWith({int? id}) => Hive(id: id ?? this.id);`
pub(super) fn copy_with(
    sheet: &mut Sheet<'_>,
    ty: &PlannedType<'_>,
    fields: &[PlannedField<'_>],
) -> Option<Doc> {
    let ident = &ty.ident;
    let fields: Vec<&PlannedField<'_>> = fields.iter().filter(|field| field.fate.tag().is_none()).collect();
    if fields.is_empty() {
        return None;
    }
    let parameter = |field: &&PlannedField<'_>, sheet: &mut Sheet<'_>| {
        let ty = field_type(sheet, field);
        let name = &field.ident;
        text(if holds_null(field) { format!("{ty} Function()? {name}") } else { format!("{ty}? {name}") })
    };
    let argument = |field: &&PlannedField<'_>| {
        let name = &field.ident;
        let value = if holds_null(field) {
            format!("{name} == null ? this.{name} : {name}()")
        } else {
            format!("{name} ?? this.{name}")
        };
        text(format!("{name}: {value}"))
    };
    let mut parameters: Vec<Doc> = fields.iter().map(|field| parameter(field, sheet)).collect();
    let mut arguments: Vec<Doc> = fields.iter().map(argument).collect();
    if let Some(PlannedExtras { ident: name, slot: _, map }) = &ty.extras {
        parameters.push(text(format!("{}? {name}", types::slot(sheet, map))));
        arguments.push(text(format!("{name}: {name} ?? this.{name}")));
    }
    let head = listed(format!("{ident} copyWith({{"), parameters.into_iter(), "})");
    let made = listed(format!("{ident}("), arguments.into_iter(), ");");
    Some(cat([head, text(" => "), made]))
}

/// Whether the field's type has null among its values.
fn holds_null(field: &PlannedField<'_>) -> bool {
    field.fate.may_be_nothing() || field.slot.ty == Type::Any
}

/// `==` and `hashCode` of a class with these fields.
pub(super) fn equality(
    options: &DartOptions,
    ident: &str,
    fields: &[(&str, &Type)],
    needs: &mut Needs,
) -> [Doc; 2] {
    // What stands in another file cannot be private to it.
    let private = if options.shared.is_some() { "" } else { "_" };
    let parts: Vec<Doc> = fields
        .iter()
        .map(|(name, ty)| {
            // The parameter hides it.
            let own = if *name == "other" { "this.other" } else { name };
            text(if is_deep(ty) {
                needs.helpers.insert(DEEP);
                format!("{private}deepEquals(other.{name}, {own})")
            } else {
                format!("other.{name} == {own}")
            })
        })
        .collect();
    let has_parts = !parts.is_empty();
    let conditions = [text(format!("other is {ident}"))].into_iter().chain(parts);
    let conditions = join(&cat([text(" &&"), line()]), conditions);
    // What is the same needs no look inside.
    let conditions = if has_parts {
        cat([text("identical(this, other) ||"), line(), group(nest(nest(conditions)))])
    } else {
        conditions
    };
    let equals = group(cat([
        text("bool operator ==(Object other) =>"),
        nest(nest(cat([line(), group(conditions), text(";")]))),
    ]));
    let part = |(name, ty): &(&str, &Type)| {
        if is_deep(ty) { format!("{private}deepHash({name})") } else { (*name).to_owned() }
    };
    let parts = || fields.iter().map(part).map(text);
    /// So many parts `Object.hash` takes.
    const MOST: usize = 20;
    let hash = match fields {
        [] => text(format!("({ident}).hashCode;")),
        [one @ (_, ty)] if is_deep(ty) => text(part(one) + ";"),
        [one] => text(part(one) + ".hashCode;"),
        _ if fields.len() <= MOST => listed("Object.hash(".to_owned(), parts(), ");"),
        _ => listed("Object.hashAll([".to_owned(), parts(), "]);"),
    };
    let hash = cat([text("int get hashCode => "), hash]);
    [equals, hash].map(|method| lines([text("@override"), method]))
}

/// Whether values of a type must be compared by what they hold.
fn is_deep(ty: &Type) -> bool {
    match ty {
        Type::Any | Type::List(_) | Type::Map(_) | Type::Tuple(_) => true,
        Type::Scalar(_) | Type::Constant(_) | Type::Named(_) => false,
    }
}

#[cfg(test)]
mod tests {
    use jar_sprout_layout::{Style, print};

    use super::*;
    use crate::settings::Settings;

    #[test]
    fn nothing_is_equal_to_nothing() {
        let options = DartOptions::of(&Settings::default());
        let [equals, hash] = equality(&options, "Hive", &[], &mut Needs::default());
        assert_eq!(
            print(&lines([equals, hash]), &Style::default()),
            "@override\nbool operator ==(Object other) => other is Hive;\n@override\nint get hashCode => (Hive).hashCode;"
        );
    }
}

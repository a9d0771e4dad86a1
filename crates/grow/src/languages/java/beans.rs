//! Classes with getters and setters.

use jar_sprout_layout::{Doc, braces, cat, comma_list, group, line, lines, members, nest, text};

use super::Sheet;
use super::settings::Library;
use super::{
    ABOUT, annotated, annotations, default_code, extras_declaration, field_with_empty_key, leaves_out,
    naming_annotation, naming_of_empty_key, renaming, types,
};
use crate::plan::{Ident, PlannedField, PlannedType};

/// ```java
/// @JsonAutoDetect(fieldVisibility = Visibility.ANY, …)
/// public class Hive {
///   private long id;
///
///   public long getId() {
///     return id;
///   }
/// }
/// ```
pub(super) fn bean(
    sheet: &mut Sheet<'_>,
    ty: &PlannedType<'_>,
    fields: &[PlannedField<'_>],
    nested: Vec<Doc>,
) -> Doc {
    let leaves_out = leaves_out(fields, sheet.options);
    let mut heads = Vec::new();
    if sheet.options.library == Library::Jackson {
        sheet.needs.imports.extend([
            "com.fasterxml.jackson.annotation.JsonAutoDetect",
            "com.fasterxml.jackson.annotation.JsonAutoDetect.Visibility",
        ]);
        heads.push(auto_detect());
    }
    let renaming = renaming(sheet.options, fields);
    heads.extend(annotations(sheet, ty, fields, &renaming));
    let mut inside = Vec::new();
    let mut methods = Vec::new();
    for field in fields {
        let (annotations, ty) = annotated(sheet, field, leaves_out, &renaming);
        let value = default_code(sheet.plan, field).map(|code| format!(" = {code}")).unwrap_or_default();
        let declaration = format!("private {ty} {}{value};", field.ident);
        // Its formatter leaves annotations without arguments on the line.
        let is_short = !annotations.iter().any(|annotation| annotation.contains('('));
        let parts = annotations.into_iter().chain([declaration]);
        inside.push(if is_short {
            text(parts.collect::<Vec<_>>().join(" "))
        } else {
            lines(parts.map(text))
        });
        let said = |method| {
            let comment = ABOUT.comment.of(field.docs, sheet.options.indent + 2);
            let deprecated = field.docs.is_deprecated.then(|| text("@Deprecated"));
            lines(comment.into_iter().chain(deprecated).chain([method]))
        };
        methods.extend([said(getter(&field.ident, &ty)), said(setter(&field.ident, &ty))]);
    }
    if let Some(extras) = &ty.extras {
        sheet.needs.imports.insert("java.util.LinkedHashMap");
        let (annotations, declaration) = extras_declaration(sheet, extras);
        let declaration = text(format!("private {declaration} = new LinkedHashMap<>();"));
        inside.push(group(cat([text(annotations), line(), declaration])));
        let ty = types::boxed(sheet, &extras.map);
        methods.extend([getter(&extras.ident, &ty), setter(&extras.ident, &ty)]);
    }
    inside.extend(methods);
    if let Some(field) = field_with_empty_key(fields, sheet.options) {
        heads.push(naming_annotation(&ty.ident, sheet.needs));
        inside.push(naming_of_empty_key(&field.ident));
    }
    inside.extend(nested);
    // Else an object of it would belong to one of the class around.
    let is_static = if sheet.plan.is_nested(ty) { "static " } else { "" };
    let union = sheet.plan.union_of(ty.id);
    // Only a class that none extends may be one of a sealed interface's.
    let head = text(match union {
        Some(union) => format!("public {is_static}final class {} implements {}", ty.ident, union.ident),
        None => format!("public {is_static}class {}", ty.ident),
    });
    heads.push(if inside.is_empty() { cat([head, text(" {}")]) } else { members(head, inside) });
    lines(heads)
}

/// Fields are read and written, whatever the methods are called: the library's own guess at the field of a method
/// goes wrong for names such as `aB`.
fn auto_detect() -> Doc {
    let arguments = [
        "fieldVisibility = Visibility.ANY",
        "getterVisibility = Visibility.NONE",
        "isGetterVisibility = Visibility.NONE",
        "setterVisibility = Visibility.NONE",
    ];
    let arguments = comma_list(arguments.map(text));
    let inside = nest(nest(cat([jar_sprout_layout::soft(), arguments, text(")")])));
    group(cat([text("@JsonAutoDetect("), inside]))
}

fn getter(ident: &Ident, ty: &str) -> Doc {
    let head = text(format!("public {ty} {}()", getter_name(ident, ty)));
    braces(head, [text(format!("return {ident};"))])
}

/// `getHoneyKg`
pub(super) fn getter_name(ident: &Ident, ty: &str) -> String {
    let is = if ty == "boolean" { "is" } else { "get" };
    format!("{is}{}", method_part(ident))
}

fn setter(ident: &Ident, ty: &str) -> Doc {
    let head = text(format!("public void set{}({ty} {ident})", method_part(ident)));
    braces(head, [text(format!("this.{ident} = {ident};"))])
}

/// `HoneyKg` of `honeyKg`
fn method_part(ident: &Ident) -> String {
    let mut chars = ident.as_str().chars();
    chars.next().map(|first| first.to_uppercase().chain(chars).collect()).unwrap_or_default()
}

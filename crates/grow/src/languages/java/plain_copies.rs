//! Plain records beside the types of the wire.

use jar_sprout_layout::{Doc, braces, cat, comma_list, group, line, lines, members, nest, soft, text};
use jar_sprout_model::Type;

use super::Sheet;
use super::unions::{UNKNOWN, holder, permitted, sealed};
use super::{beans, nothing, record_head, types};
use crate::plan::{Plan, PlannedField, PlannedType, PlannedUnion, PlannedUnionCase};
use crate::spell::plain_copies::{
    self as copies, Both, Conversion, Sides, conversion, is_collection, may_be_null,
};
use crate::spell::{Helper, Needs};

/// Where types are named: a component of a type's name hides the type.
struct Surroundings<'p> {
    plan: &'p Plan<'p>,
    package: &'p str,
    components: Vec<&'p str>,
}

impl Surroundings<'_> {
    fn of(&self, ty: &PlannedType<'_>) -> String {
        if self.components.contains(&ty.ident.as_str()) {
            format!("{}.{}", self.package, self.plan.path(ty))
        } else {
            ty.ident.to_string()
        }
    }
}

/// The declaration of a plain type, and the method that makes it.
pub(super) fn declare(
    sheet: &mut Sheet<'_>,
    copy: &PlannedType<'_>,
    wire: &PlannedType<'_>,
    nested: Vec<Doc>,
) -> Doc {
    match copies::sides(copy, wire) {
        Sides::Records(both) => {
            let components = both.copy.iter().map(|field| field.ident.as_str()).collect();
            let place = Surroundings { plan: sheet.plan, package: &sheet.options.package, components };
            record(sheet, &Both { copy, wire }, both.pairs().collect(), &place, nested)
        }
        Sides::Unions(both) => union(sheet, copy, wire, &both),
    }
}

fn record(
    sheet: &mut Sheet<'_>,
    types: &Both<'_, PlannedType<'_>>,
    pairs: Vec<(&PlannedField<'_>, &PlannedField<'_>)>,
    place: &Surroundings<'_>,
    nested: Vec<Doc>,
) -> Doc {
    let Both { copy, wire } = *types;
    let plain = sheet.options.plain();
    let mut components = Vec::new();
    let mut arguments = Vec::new();
    for (field, source) in pairs {
        let mut own = Needs::default();
        let ty = super::nothing::field(&mut sheet.with(&plain).noting(&mut own), field).ty;
        copies::import_plain(&own, sheet.needs);
        components.push(text(format!("{ty} {}", field.ident)));
        arguments.push(argument(sheet, source, place));
    }
    let listed = |parts: Vec<Doc>| {
        if parts.is_empty() {
            return Doc::Nil;
        }
        nest(nest(cat([soft(), group(comma_list(parts))])))
    };
    let head = record_head(sheet.plan, copy, components, sheet.options.indent, " {");
    let made = group(cat([text(format!("return new {}(", copy.ident)), listed(arguments), text(");")]));
    let made = method(&format!("public static {}", copy.ident), &sheet.plan.path(wire), [made]);
    // Of a record, no annotation says that a part is deprecated.
    let is_suppressed = sheet.options.has_beans && copies::uses_deprecated(wire);
    let suppressed = is_suppressed.then(|| text("@SuppressWarnings(\"deprecation\")"));
    members(head, [lines(suppressed.into_iter().chain([made]))].into_iter().chain(nested))
}

fn method(head: &str, wire: &str, body: impl IntoIterator<Item = Doc>) -> Doc {
    braces(text(format!("{head} fromWire({wire} wire)")), body)
}

/// What a field of a copy is made of.
fn argument(sheet: &mut Sheet<'_>, source: &PlannedField<'_>, place: &Surroundings<'_>) -> Doc {
    let value = if sheet.options.has_beans {
        let mut own = Needs::default();
        let ty = nothing::field(&mut sheet.noting(&mut own), source).ty;
        format!("wire.{}()", beans::getter_name(&source.ident, &ty))
    } else {
        format!("wire.{}()", source.ident)
    };
    let conversion = conversion(sheet.plan, &source.slot.ty);
    let made = match &conversion {
        Conversion::Items(item, is_null) => {
            let each = function(item, *is_null, "item", place, sheet.needs);
            let calls = cat([soft(), text(format!(".map({each})")), soft(), text(".toList()")]);
            group(cat([text(format!("{value}.stream()")), nest(nest(calls))]))
        }
        conversion @ (Conversion::AsIs | Conversion::Made(_) | Conversion::Values(..)) => {
            text(made(conversion, &value, place, sheet.needs))
        }
    };
    if !may_be_null(source) || (matches!(conversion, Conversion::AsIs) && !is_collection(source)) {
        return made;
    }
    let nothing = match source.slot.ty {
        Type::List(_) => {
            sheet.needs.imports.insert("java.util.List");
            "List.of()"
        }
        Type::Map(_) => {
            sheet.needs.imports.insert("java.util.Map");
            "Map.of()"
        }
        Type::Any | Type::Scalar(_) | Type::Constant(_) | Type::Tuple(_) | Type::Named(_) => "null",
    };
    let choice = cat([line(), text(format!("? {nothing}")), line(), text(": "), made]);
    group(cat([text(format!("{value} == null")), nest(nest(choice))]))
}

/// The expression for what a value of the wire becomes, which is not null.
fn made(conversion: &Conversion<'_>, value: &str, place: &Surroundings<'_>, needs: &mut Needs) -> String {
    match conversion {
        Conversion::AsIs => value.to_owned(),
        Conversion::Made(copy) => format!("{}.fromWire({value})", place.of(copy)),
        Conversion::Items(item, is_null) => {
            let each = function(item, *is_null, "item", place, needs);
            format!("{value}.stream().map({each}).toList()")
        }
        Conversion::Values(held, is_null) => {
            needs.helpers.insert(VALUES);
            let each = function(held, *is_null, "held", place, needs);
            format!("{}.of({value}, {each})", VALUES.name)
        }
    }
}

const VALUES: Helper = Helper { name: "Values", text: include_str!("Values.java") };

fn function(
    conversion: &Conversion<'_>,
    may_be_null: bool,
    name: &str,
    place: &Surroundings<'_>,
    needs: &mut Needs,
) -> String {
    match (conversion, may_be_null) {
        (Conversion::Made(copy), false) => format!("{}::fromWire", place.of(copy)),
        (_, false) => format!("{name} -> {}", made(conversion, name, place, needs)),
        (_, true) => format!("{name} -> {name} == null ? null : {}", made(conversion, name, place, needs)),
    }
}

fn union(
    sheet: &mut Sheet<'_>,
    copy: &PlannedType<'_>,
    wire: &PlannedType<'_>,
    both: &Both<'_, PlannedUnion<'_>>,
) -> Doc {
    let Both { copy: union, wire: source } = *both;
    let is_direct = sheet.plan.has_direct_cases(union);
    let ident = &copy.ident;
    let place = Surroundings { plan: sheet.plan, package: "", components: Vec::new() };
    let mut inside = Vec::new();
    let mut body = Vec::new();
    for (case, from) in union.cases.iter().zip(&source.cases) {
        let class = |case: &PlannedUnionCase<'_>, owner: &PlannedType<'_>| match sheet.plan.direct_case(case)
        {
            Some(record) if is_direct => sheet.plan.path(record),
            Some(_) | None => format!("{}.{}", sheet.plan.path(owner), case.ident),
        };
        let conversion = conversion(sheet.plan, &from.slot.ty);
        let made = if is_direct {
            made(&conversion, "known", &place, sheet.needs)
        } else {
            let mut own = Needs::default();
            let ty = types::plain(&mut sheet.noting(&mut own), case.slot);
            copies::import_plain(&own, sheet.needs);
            inside.push(holder(ident, case.ident.as_str(), &ty));
            format!("new {}({})", case.ident, made(&conversion, "known.value()", &place, sheet.needs))
        };
        let test = text(format!("if (wire instanceof {} known)", class(from, wire)));
        body.push(braces(test, [text(format!("return {made};"))]));
    }
    if union.tag.is_some() {
        inside.push(holder(ident, UNKNOWN, "Object"));
        let test = text(format!("if (wire instanceof {}.{UNKNOWN} unknown)", sheet.plan.path(wire)));
        body.push(braces(test, [text(format!("return new {UNKNOWN}(unknown.value());"))]));
    }
    body.push(text("throw new IllegalArgumentException(\"unexpected: \" + wire);"));
    inside.push(method(&format!("static {ident}"), &sheet.plan.path(wire), body));
    let permitted = permitted(sheet.plan, ident, union);
    sealed(ident, permitted, inside)
}

//! Plain records beside those of the wire.

use jar_sprout_layout::{
    Doc, cat, comma_list, group, hard, join, last_comma, line, lines, nest, paragraphs, soft, text,
};
use jar_sprout_model::{Slot, Type};

use super::Sheet;
use super::settings::{CSharpOptions, Level, Library, Lists, Types};
use super::unions::{UNKNOWN, base, is_direct};
use super::{ABOUT, block, call, members, text_types, types};
use crate::plan::{PlannedField, PlannedType, PlannedUnion};
use crate::spell::plain_copies::{
    self as copies, Both, Conversion, Sides, conversion, is_collection, may_be_null,
};

/// The declaration of a plain type, with the method that makes it.
pub(super) fn declare(sheet: &mut Sheet<'_>, copy: &PlannedType<'_>, wire: &PlannedType<'_>) -> Doc {
    match copies::sides(copy, wire) {
        Sides::Records(both) => record(sheet, copy, wire, &both),
        Sides::Unions(both) => union(sheet, copy, wire, &both),
    }
}

fn record(
    sheet: &mut Sheet<'_>,
    copy: &PlannedType<'_>,
    wire: &PlannedType<'_>,
    both: &Both<'_, [PlannedField<'_>]>,
) -> Doc {
    let fields = both.copy;
    let base = base(sheet, copy.id).map(|base| format!(" : {base}")).unwrap_or_default();
    let is_record =
        sheet.options.types == Types::Records || (!base.is_empty() && sheet.options.level >= Level::Twelve);
    let kind = if is_record { "record" } else { "class" };
    let head = text(format!("{} sealed {kind} {}{base}", sheet.options.access, copy.ident));
    let accessors = if sheet.options.types == Types::Records { "{ get; init; }" } else { "{ get; set; }" };
    let required = if sheet.options.level >= Level::Twelve { "required " } else { "" };
    let mut inside: Vec<Doc> = Vec::new();
    for field in fields {
        let ty = types::non_null(sheet, field.slot);
        let keeps_null = field.slot.ty == Type::Any && sheet.options.library == Library::SystemTextJson;
        let ty = if field.slot.nullable && !keeps_null { ty.or_null(sheet.options) } else { ty.name };
        let property = cat([
            text(format!("public {required}")),
            types::doc(&ty),
            text(format!(" {} {accessors}", field.ident)),
        ]);
        inside.push(lines(ABOUT.comment.of(field.docs, 4).into_iter().chain([property])));
    }
    let mut making = Making { sheet };
    let arguments = both.pairs().map(|(field, source)| {
        let value = making.field(field, source);
        assignment(field.ident.as_str(), &value)
    });
    let arguments: Vec<Doc> = arguments.collect();
    // Its formatter gives three assignments and more a line each.
    let is_short = arguments.len() < 3;
    let made = if arguments.is_empty() {
        text(format!("new {}();", copy.ident))
    } else {
        let gap = if is_short { line() } else { hard() };
        let arguments = join(&cat([text(","), gap.clone()]), arguments);
        let list = nest(cat([gap.clone(), arguments, last_comma()]));
        group(cat([text(format!("new {}", copy.ident)), gap.clone(), text("{"), list, gap, text("};")]))
    };
    let method = cat([signature(copy, wire), group(cat([text(" =>"), nest(cat([line(), made]))]))]);
    let declaration = if inside.is_empty() { cat([head, text(" { }")]) } else { members(head, inside) };
    with_extension(declaration, wire, sheet.options, method)
}

/// `public static Hive ToHive(this HiveDto wire)`
fn signature(copy: &PlannedType<'_>, wire: &PlannedType<'_>) -> Doc {
    let head = format!("public static {} {}", copy.ident, method(copy));
    call(head, &[&format!("this {} wire", wire.ident)])
}

fn method(copy: &PlannedType<'_>) -> String {
    format!("To{}", copy.ident.as_str().trim_start_matches('@'))
}

/// A method of the type of the wire that stands beside the plain one: neither knows how the other is made.
fn with_extension(declaration: Doc, wire: &PlannedType<'_>, options: &CSharpOptions, method: Doc) -> Doc {
    let name = wire.ident.as_str().trim_start_matches('@');
    let class = members(text(format!("{} static class {name}Extensions", options.access)), [method]);
    paragraphs([declaration, class])
}

/// `Queen = wire.Queen`; an expression is broken before the calls that make a list of it.
fn assignment(name: &str, value: &str) -> Doc {
    const CALL: &str = ".ToDictionary(";
    let dictionary = value.strip_suffix(')').and_then(|value| value.split_once(CALL));
    if let Some((map, arguments)) = dictionary
        && let Some((key, held)) = arguments.split_once(", ")
    {
        let arguments = [key, held].map(|argument| text(argument.to_owned()));
        let arguments = cat([soft(), comma_list(arguments)]);
        let open = text(format!("{name} = {map}{CALL}"));
        return group(cat([open, nest(arguments), soft(), text(")")]));
    }
    let calls = value.strip_suffix(')').and_then(|value| value.rsplit_once(").To"));
    let Some((head, last)) =
        calls.filter(|(_, last)| last.starts_with("List(") || last.starts_with("Array("))
    else {
        return group(cat([text(format!("{name} =")), nest(cat([line(), text(value.to_owned())]))]));
    };
    let at = head.find('.').unwrap_or(head.len());
    let at = if head.starts_with('(') { head.find(").Select").map_or(at, |end| end + 1) } else { at };
    let (start, head) = head.split_at(at);
    let calls = [format!("{head})"), format!(".To{last})")];
    let calls = calls.map(|call| cat([soft(), text(call)]));
    group(cat([text(format!("{name} = {start}")), nest(cat(calls))]))
}

/// What writes the expressions for what values of the wire become.
struct Making<'a, 's> {
    sheet: &'a mut Sheet<'s>,
}

impl Making<'_, '_> {
    /// What a field of a copy is made of.
    fn field(&mut self, field: &PlannedField<'_>, source: &PlannedField<'_>) -> String {
        let value = format!("wire.{}", source.ident);
        let conversion = conversion(self.sheet.plan, &source.slot.ty);
        let is_any = source.slot.ty == Type::Any && self.sheet.options.library == Library::SystemTextJson;
        if is_any && !source.fate.is_always_there() {
            return format!("{value} ?? default");
        }
        if !may_be_null(source) {
            return self.made(&conversion, &field.slot.ty, &value, 0);
        }
        if !is_collection(source) {
            return self.or_null(&conversion, &field.slot.ty, &value, 0);
        }
        let nothing = self.nothing(&source.slot.ty);
        match conversion {
            Conversion::AsIs => format!("{value} ?? {nothing}"),
            conversion @ (Conversion::Made(_) | Conversion::Items(..) | Conversion::Values(..)) => {
                self.made(&conversion, &field.slot.ty, &format!("({value} ?? {nothing})"), 0)
            }
        }
    }

    /// The expression for an empty list or map of the wire.
    fn nothing(&mut self, ty: &Type) -> String {
        match ty {
            Type::List(items) => {
                let item = types::slot(self.sheet, items);
                match self.sheet.options.lists {
                    Lists::Array => format!("new {item}[0]"),
                    Lists::ReadOnly | Lists::List => format!("new List<{item}>()"),
                }
            }
            Type::Map(values) => {
                let values = types::slot(self.sheet, values);
                format!("new Dictionary<string, {values}>()")
            }
            Type::Any | Type::Scalar(_) | Type::Constant(_) | Type::Tuple(_) | Type::Named(_) => {
                "null".to_owned()
            }
        }
    }

    fn or_null(&mut self, conversion: &Conversion<'_>, ty: &Type, value: &str, depth: usize) -> String {
        match conversion {
            Conversion::AsIs => value.to_owned(),
            conversion @ (Conversion::Made(_) | Conversion::Items(..) | Conversion::Values(..)) => {
                format!("{value} == null ? null : {}", self.made(conversion, ty, value, depth))
            }
        }
    }

    /// The expression for what a value becomes that is not null; `ty` is its type then.
    fn made(&mut self, conversion: &Conversion<'_>, ty: &Type, value: &str, depth: usize) -> String {
        // A variable must not hide another.
        let name = |base: &str| if depth == 0 { base.to_owned() } else { format!("{base}{}", depth + 1) };
        let held = match ty {
            Type::List(held) | Type::Map(held) => held,
            Type::Any | Type::Scalar(_) | Type::Constant(_) | Type::Tuple(_) | Type::Named(_) => {
                return match conversion {
                    Conversion::Made(copy) => format!("{value}.{}()", method(copy)),
                    Conversion::AsIs | Conversion::Items(..) | Conversion::Values(..) => value.to_owned(),
                };
            }
        };
        match conversion {
            Conversion::AsIs => value.to_owned(),
            Conversion::Made(copy) => format!("{value}.{}()", method(copy)),
            Conversion::Items(conversion, is_null) => {
                self.sheet.needs.imports.insert("System.Linq");
                let item = name("item");
                let of = self.held(conversion, *is_null, held, &item, depth + 1);
                let end = if self.sheet.options.lists == Lists::Array { "ToArray" } else { "ToList" };
                format!("{value}.Select({item} => {of}).{end}()")
            }
            Conversion::Values(conversion, is_null) => {
                self.sheet.needs.imports.insert("System.Linq");
                let entry = name("entry");
                let of = self.held(conversion, *is_null, held, &format!("{entry}.Value"), depth + 1);
                // A dictionary of lists is not one of read-only lists.
                let cast = match **conversion {
                    Conversion::Items(..) | Conversion::Values(..) => {
                        format!("({})", types::slot(self.sheet, held))
                    }
                    Conversion::AsIs | Conversion::Made(_) => String::new(),
                };
                format!("{value}.ToDictionary({entry} => {entry}.Key, {entry} => {cast}{of})")
            }
        }
    }

    fn held(
        &mut self,
        conversion: &Conversion<'_>,
        is_null: bool,
        slot: &Slot,
        value: &str,
        depth: usize,
    ) -> String {
        if is_null {
            self.or_null(conversion, &slot.ty, value, depth)
        } else {
            self.made(conversion, &slot.ty, value, depth)
        }
    }
}

fn union(
    sheet: &mut Sheet<'_>,
    copy: &PlannedType<'_>,
    wire: &PlannedType<'_>,
    both: &Both<'_, PlannedUnion<'_>>,
) -> Doc {
    let Both { copy: union, wire: source } = *both;
    sheet.needs.imports.insert("System");
    let mut inside = Vec::new();
    // What each class of the wire becomes.
    let mut choices: Vec<(String, Doc)> = Vec::new();
    for (case, from) in union.cases.iter().zip(&source.cases) {
        let conversion = conversion(sheet.plan, &from.slot.ty);
        let is_direct = is_direct(sheet, source, from);
        let class =
            if is_direct { types::slot(sheet, from.slot) } else { format!("{}.{}", wire.ident, from.ident) };
        let known = known(&class, sheet.options);
        let mut making = Making { sheet };
        let value = if is_direct {
            text(making.made(&conversion, &case.slot.ty, &known, 0))
        } else {
            let held = making.held(&conversion, from.slot.nullable, case.slot, &format!("{known}.Value"), 0);
            let ty = types::slot(sheet, case.slot);
            inside.push(text_types::case(&copy.ident, case.ident.as_str(), &ty, sheet.options));
            around(&format!("new {}.{}", copy.ident, case.ident), held)
        };
        choices.push((class, value));
    }
    if union.tag.is_some() {
        let any = types::any(sheet).name;
        inside.push(text_types::case(&copy.ident, UNKNOWN, &any, sheet.options));
        let class = format!("{}.{UNKNOWN}", wire.ident);
        let held = format!("{}.Value", known(&class, sheet.options));
        let value = around(&format!("new {}.{UNKNOWN}", copy.ident), held);
        choices.push((class, value));
    }
    let kind = match sheet.options.level {
        Level::Twelve => "abstract record",
        Level::Seven => "abstract class",
    };
    let declaration = members(text(format!("{} {kind} {}", sheet.options.access, copy.ident)), inside);
    with_extension(
        declaration,
        wire,
        sheet.options,
        block(signature(copy, wire), choice(&choices, sheet.options)),
    )
}

/// The value of the wire when its class is known. Older compilers know no pattern in a `case`, and in conditions all
/// variables of patterns stand in one scope.
fn known(class: &str, options: &CSharpOptions) -> String {
    match options.level {
        Level::Twelve => "known".to_owned(),
        Level::Seven => format!("(({class})wire)"),
    }
}

/// `new Event.Many(…)`, what is in the brackets on a line of its own where it would be too long.
fn around(class: &str, held: String) -> Doc {
    let inside = nest(cat([soft(), text(held)]));
    group(cat([text(format!("{class}(")), inside, soft(), text(")")]))
}

fn choice(choices: &[(String, Doc)], options: &CSharpOptions) -> Vec<Doc> {
    let fail = "throw new ArgumentOutOfRangeException(nameof(wire));";
    let result = |value: &Doc| cat([text("return "), value.clone(), text(";")]);
    let returned = |value: &Doc| nest(cat([hard(), result(value)]));
    match options.level {
        Level::Twelve => {
            let branch =
                |(class, value): &(String, Doc)| cat([text(format!("case {class} known:")), returned(value)]);
            let fail = cat([text("default:"), nest(cat([hard(), text(fail)]))]);
            vec![block(text("switch (wire)"), choices.iter().map(branch).chain([fail]))]
        }
        Level::Seven => {
            let branch = |(class, value): &(String, Doc)| {
                block(text(format!("if (wire is {class})")), [result(value)])
            };
            choices.iter().map(branch).chain([text(fail)]).collect()
        }
    }
}

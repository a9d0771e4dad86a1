//! Model types as C# types, with the imports they need.

use jar_sprout_layout::{Doc, cat, group, join, line, nest, soft, text};
use jar_sprout_model::{Numeral, Scalar, Slot, Type, Width};

use super::settings::{Form, Level, Library, Lists};
use crate::code::Needs;
use crate::plan::{Plan, PlannedDefinition};

/// A type in use.
pub(super) struct Spelled {
    pub(super) name: String,
    /// Whether null needs a `?` behind it whatever the level of the language.
    pub(super) is_value: bool,
}

impl Spelled {
    fn reference(name: String) -> Self {
        Self { name, is_value: false }
    }

    fn value(name: &str) -> Self {
        Self { name: name.to_owned(), is_value: true }
    }

    /// `string?`
    pub(super) fn or_null(self, form: &Form<'_>) -> String {
        if self.is_value || form.level >= Level::Twelve { self.name + "?" } else { self.name }
    }
}

/// A type's name, whose arguments stand on one line or one a line.
pub(super) fn doc(name: &str) -> Doc {
    let Some((head, rest)) = name.split_once('<') else { return text(name.to_owned()) };
    let Some((arguments, tail)) = rest.rsplit_once('>') else { return text(name.to_owned()) };
    let mut parts: Vec<String> = vec![String::new()];
    let mut depth = 0_usize;
    for character in arguments.chars() {
        match character {
            '<' => depth += 1,
            '>' => depth = depth.saturating_sub(1),
            ',' if depth == 0 => parts.push(String::new()),
            _ => {}
        }
        if character != ',' || depth > 0 {
            parts.last_mut().expect("there is one from the start").push(character);
        }
    }
    if let [one] = &parts[..]
        && !one.contains('<')
    {
        // One name stays where it is.
        return text(name.to_owned());
    }
    let arguments = join(&cat([text(","), line()]), parts.iter().map(|part| doc(part.trim())));
    let arguments = cat([text("<"), nest(cat([soft(), arguments])), soft(), text(">")]);
    cat([text(head.to_owned()), group(arguments), text(tail.to_owned())])
}

/// The type of a place for a value, with a `?` where it may be null.
pub(super) fn slot(plan: &Plan<'_>, form: &Form<'_>, slot: &Slot, needs: &mut Needs) -> String {
    let ty = inside(plan, form, slot, needs);
    if slot.nullable && !holds_null(form, &slot.ty) { ty.or_null(form) } else { ty.name }
}

/// Behind what a library may give as null though the JSON has none, so that the compiler is content.
pub(super) fn sure(plan: &Plan<'_>, form: &Form<'_>, slot: &Slot, needs: &mut Needs) -> &'static str {
    let may_be_null = slot.nullable || inside(plan, form, slot, needs).is_value;
    if may_be_null || form.level < Level::Twelve { "" } else { "!" }
}

/// Whether the type has a null of its own.
fn holds_null(form: &Form<'_>, ty: &Type) -> bool {
    *ty == Type::Any && form.library == Library::SystemTextJson
}

/// The type of what a list or a map holds, which no attribute reaches.
fn inside(plan: &Plan<'_>, form: &Form<'_>, slot: &Slot, needs: &mut Needs) -> Spelled {
    match (&slot.ty, form.library) {
        (Type::Scalar(Scalar::DateTime(_)), Library::SystemTextJson)
        | (Type::Scalar(Scalar::Lettered(_)), _) => Spelled::reference("string".to_owned()),
        (Type::Scalar(Scalar::Integer(Width::Big)), Library::SystemTextJson) => any(form, needs),
        _ => non_null(plan, form, slot, needs),
    }
}

/// The type of a property's value that is not null, where an attribute can say how it is read.
pub(super) fn non_null(plan: &Plan<'_>, form: &Form<'_>, slot: &Slot, needs: &mut Needs) -> Spelled {
    match &slot.ty {
        Type::Any => any(form, needs),
        Type::Scalar(scalar) => self::scalar(form, *scalar, needs),
        Type::Constant(_) => Spelled::reference("string".to_owned()),
        Type::List(items) => list(form, &self::slot(plan, form, items, needs), needs),
        Type::Map(values) => {
            needs.imports.insert("System.Collections.Generic");
            let values = self::slot(plan, form, values, needs);
            let map = match form.lists {
                Lists::ReadOnly => "IReadOnlyDictionary",
                Lists::List | Lists::Array => "Dictionary",
            };
            Spelled::reference(format!("{map}<string, {values}>"))
        }
        // The library has no type for a list of unlike items.
        Type::Tuple(_) => {
            let item = any(form, needs).name;
            list(form, &item, needs)
        }
        Type::Named(id) => {
            let ty = plan.get(*id);
            let is_value = match &ty.definition {
                PlannedDefinition::Enumeration(_) => true,
                PlannedDefinition::Record(_) | PlannedDefinition::Union(_) => false,
            };
            Spelled { name: ty.ident.to_string(), is_value }
        }
    }
}

fn list(form: &Form<'_>, item: &str, needs: &mut Needs) -> Spelled {
    if form.lists != Lists::Array {
        needs.imports.insert("System.Collections.Generic");
    }
    Spelled::reference(match form.lists {
        Lists::ReadOnly => format!("IReadOnlyList<{item}>"),
        Lists::List => format!("List<{item}>"),
        Lists::Array => format!("{item}[]"),
    })
}

pub(super) fn any(form: &Form<'_>, needs: &mut Needs) -> Spelled {
    match form.library {
        Library::SystemTextJson => {
            needs.imports.insert("System.Text.Json");
            Spelled::value("JsonElement")
        }
        Library::Newtonsoft => {
            needs.imports.insert("Newtonsoft.Json.Linq");
            Spelled::reference("JToken".to_owned())
        }
    }
}

fn scalar(form: &Form<'_>, scalar: Scalar, needs: &mut Needs) -> Spelled {
    let mut of_system = |name| {
        needs.imports.insert("System");
        Spelled::value(name)
    };
    match scalar {
        Scalar::Boolean => Spelled::value("bool"),
        Scalar::Integer(Width::Narrow) => Spelled::value("int"),
        Scalar::Integer(Width::Wide | Width::Exact) => Spelled::value("long"),
        Scalar::Integer(Width::Big) => {
            needs.imports.insert("System.Numerics");
            Spelled::value("BigInteger")
        }
        Scalar::Float => Spelled::value("double"),
        Scalar::Decimal => Spelled::value("decimal"),
        Scalar::Lettered(Numeral::Integer) => Spelled::value("long"),
        Scalar::Lettered(Numeral::Float) => Spelled::value("double"),
        Scalar::Lettered(Numeral::Decimal) => Spelled::value("decimal"),
        Scalar::DateTime(_) => of_system("DateTimeOffset"),
        Scalar::LocalDateTime(_) => of_system("DateTime"),
        // Older run-times have no types for these.
        Scalar::Date | Scalar::Time(_) if form.level == Level::Seven => {
            Spelled::reference("string".to_owned())
        }
        Scalar::Date => of_system("DateOnly"),
        Scalar::Time(_) => of_system("TimeOnly"),
        Scalar::Text | Scalar::Uuid | Scalar::Uri => Spelled::reference("string".to_owned()),
    }
}

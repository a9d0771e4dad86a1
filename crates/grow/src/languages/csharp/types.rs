//! Model types as C# types, with the imports they need.

use jar_sprout_layout::{Doc, cat, comma_list, group, nest, soft, text};
use jar_sprout_model::{Coding, Scalar, ScalarKind, Slot, Type, Width};

use super::Sheet;
use super::settings::{CSharpOptions, Level, Library, Lists};
use crate::plan::PlannedDefinition;

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
    pub(super) fn or_null(self, options: &CSharpOptions) -> String {
        if self.is_value || options.level >= Level::Twelve { self.name + "?" } else { self.name }
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
    let arguments = comma_list(parts.iter().map(|part| doc(part.trim())));
    let arguments = cat([text("<"), nest(cat([soft(), arguments])), soft(), text(">")]);
    cat([text(head.to_owned()), group(arguments), text(tail.to_owned())])
}

/// The type of a place for a value, with a `?` where it may be null.
pub(super) fn slot(sheet: &mut Sheet<'_>, slot: &Slot) -> String {
    let ty = inside(sheet, slot);
    if slot.nullable && !holds_null(sheet.options, &slot.ty) { ty.or_null(sheet.options) } else { ty.name }
}

/// Behind what a library may give as null though the JSON has none, so that the compiler is content.
pub(super) fn sure(sheet: &mut Sheet<'_>, slot: &Slot) -> &'static str {
    let may_be_null = slot.nullable || inside(sheet, slot).is_value;
    if may_be_null || sheet.options.level < Level::Twelve { "" } else { "!" }
}

/// Whether the type has a null of its own.
fn holds_null(options: &CSharpOptions, ty: &Type) -> bool {
    *ty == Type::Any && options.library == Library::SystemTextJson
}

/// The type of what a list or a map holds, which no attribute reaches.
pub(super) fn inside(sheet: &mut Sheet<'_>, slot: &Slot) -> Spelled {
    match (&slot.ty, sheet.options.library) {
        (Type::Scalar(Scalar::DateTime(_)), Library::SystemTextJson) => {
            Spelled::reference("string".to_owned())
        }
        (Type::Scalar(Scalar::Coded(coding)), _) if coding.kind() == ScalarKind::Integer => {
            Spelled::value("long")
        }
        (Type::Scalar(Scalar::Coded(_)), _) => Spelled::reference("string".to_owned()),
        (Type::Scalar(Scalar::Integer(Width::Big)), Library::SystemTextJson) => any(sheet),
        _ => non_null(sheet, slot),
    }
}

/// The type of a property's value that is not null, where an attribute can say how it is read.
pub(super) fn non_null(sheet: &mut Sheet<'_>, slot: &Slot) -> Spelled {
    match &slot.ty {
        Type::Any => any(sheet),
        Type::Scalar(scalar) => self::scalar(sheet, *scalar),
        Type::Constant(_) => Spelled::reference("string".to_owned()),
        Type::List(items) => {
            let item = self::slot(sheet, items);
            list(sheet, &item)
        }
        Type::Map(values) => {
            sheet.needs.imports.insert("System.Collections.Generic");
            let values = self::slot(sheet, values);
            let map = match sheet.options.lists {
                Lists::ReadOnly => "IReadOnlyDictionary",
                Lists::List | Lists::Array => "Dictionary",
            };
            Spelled::reference(format!("{map}<string, {values}>"))
        }
        // The library has no type for a list of unlike items.
        Type::Tuple(_) => {
            let item = any(sheet).name;
            list(sheet, &item)
        }
        Type::Named(id) => {
            let ty = sheet.plan.get(*id);
            let is_value = match &ty.definition {
                PlannedDefinition::Enumeration(_) => true,
                PlannedDefinition::Record(_) | PlannedDefinition::Union(_) => false,
            };
            Spelled { name: ty.ident.to_string(), is_value }
        }
    }
}

fn list(sheet: &mut Sheet<'_>, item: &str) -> Spelled {
    if sheet.options.lists != Lists::Array {
        sheet.needs.imports.insert("System.Collections.Generic");
    }
    Spelled::reference(match sheet.options.lists {
        Lists::ReadOnly => format!("IReadOnlyList<{item}>"),
        Lists::List => format!("List<{item}>"),
        Lists::Array => format!("{item}[]"),
    })
}

pub(super) fn any(sheet: &mut Sheet<'_>) -> Spelled {
    match sheet.options.library {
        Library::SystemTextJson => {
            sheet.needs.imports.insert("System.Text.Json");
            Spelled::value("JsonElement")
        }
        Library::Newtonsoft => {
            sheet.needs.imports.insert("Newtonsoft.Json.Linq");
            Spelled::reference("JToken".to_owned())
        }
    }
}

fn scalar(sheet: &mut Sheet<'_>, scalar: Scalar) -> Spelled {
    let mut of_system = |name| {
        sheet.needs.imports.insert("System");
        Spelled::value(name)
    };
    match scalar {
        Scalar::Boolean | Scalar::Always(_) => Spelled::value("bool"),
        Scalar::Integer(Width::Narrow) => Spelled::value("int"),
        Scalar::Integer(Width::Wide | Width::Exact) => Spelled::value("long"),
        Scalar::Integer(Width::Big) => {
            sheet.needs.imports.insert("System.Numerics");
            Spelled::value("BigInteger")
        }
        Scalar::Float => Spelled::value("double"),
        Scalar::Decimal => Spelled::value("decimal"),
        Scalar::Coded(Coding::IntegerText) => Spelled::value("long"),
        Scalar::Coded(Coding::FloatText) => Spelled::value("double"),
        Scalar::Coded(Coding::DecimalText) => Spelled::value("decimal"),
        Scalar::Coded(Coding::BooleanText) => Spelled::value("bool"),
        Scalar::DateTime(_) | Scalar::Coded(Coding::EpochSeconds | Coding::EpochMilliseconds) => {
            of_system("DateTimeOffset")
        }
        Scalar::LocalDateTime(_) => of_system("DateTime"),
        // Older run-times have no types for these.
        Scalar::Date | Scalar::Time(_) if sheet.options.level == Level::Seven => {
            Spelled::reference("string".to_owned())
        }
        Scalar::Date => of_system("DateOnly"),
        Scalar::Time(_) => of_system("TimeOnly"),
        Scalar::Uuid if sheet.options.has_uuids => of_system("Guid"),
        Scalar::Uri if sheet.options.has_uris => {
            sheet.needs.imports.insert("System");
            Spelled::reference("Uri".to_owned())
        }
        Scalar::Text | Scalar::Uuid | Scalar::Uri => Spelled::reference("string".to_owned()),
    }
}

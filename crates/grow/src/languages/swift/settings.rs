//! Swift's settings.

use super::names;
use crate::plan::{Plan, PlannedType};
use crate::settings::{ABSENT, Choice, ENTRY, FILES, PLACE, Setting, Settings, TWINS, Values};

const ACCESS: Setting = Setting {
    key: "access",
    doc: "who sees the types",
    values: Values::Choice(&[
        Choice { value: "internal", doc: "the module" },
        Choice { value: "public", doc: "everyone, with initializers to match" },
    ]),
};

const TYPES: Setting = Setting {
    key: "types",
    doc: "what objects become",
    values: Values::Choice(&[
        Choice { value: "structs", doc: "structs, which can be compared and hashed" },
        Choice { value: "classes", doc: "final classes" },
    ]),
};

const CODING: Setting = Setting {
    key: "coding",
    doc: "whether types can be written as well",
    values: Values::Choice(&[
        Choice { value: "both", doc: "read and written: Codable" },
        Choice { value: "decode", doc: "only read: Decodable" },
    ]),
};

const PROPERTIES: Setting = Setting {
    key: "properties",
    doc: "whether properties can be changed",
    values: Values::Choice(&[
        Choice { value: "let", doc: "set once" },
        Choice { value: "var", doc: "can be changed; a class is then not Sendable" },
    ]),
};

const NAMESPACE: Setting = Setting {
    key: "namespace",
    doc: "an enum without cases that all types stand in, as models that share a module need",
    values: Values::Text { default: None, example: "Hives", check: check_namespace },
};

fn check_namespace(value: &str) -> Result<(), &'static str> {
    let is_name = value.starts_with(|c: char| c.is_ascii_uppercase())
        && value.chars().all(|c| c.is_ascii_alphanumeric());
    match (is_name, names::is_taken_type(value)) {
        (false, _) => Err("it must be a name in capitals, of letters and digits"),
        (true, true) => Err("Swift or Foundation has a type of that name"),
        (true, false) => Ok(()),
    }
}

pub(super) const SETTINGS: &[Setting] =
    &[NAMESPACE, ACCESS, TYPES, CODING, PROPERTIES, FILES, PLACE, ABSENT, TWINS, ENTRY];

/// All settings, resolved.
#[derive(Debug, Clone, Copy)]
pub(super) struct Form {
    /// Columns that a declaration is indented by.
    pub(super) indent: usize,
    /// `public `, or nothing.
    pub(super) access: &'static str,
    pub(super) is_class: bool,
    pub(super) is_encoded: bool,
    /// `let` or `var`.
    pub(super) property: &'static str,
    /// What a function starts with: `static `, where it stands in a namespace.
    pub(super) function: &'static str,
}

/// What all types stand in, if anything.
pub(super) fn namespace(settings: &Settings) -> Option<&str> {
    settings.value(&NAMESPACE)
}

/// Columns of one level.
const INDENT: usize = 4;

impl Form {
    /// The same for a type, which stands so many levels deep in others.
    pub(super) fn at(self, plan: &Plan<'_>, ty: &PlannedType<'_>) -> Self {
        Self { indent: self.indent + plan.indent(ty, INDENT), ..self }
    }

    pub(super) fn of(settings: &Settings) -> Self {
        let is_inside = namespace(settings).is_some();
        Self {
            indent: if is_inside { INDENT } else { 0 },
            function: if is_inside { "static " } else { "" },
            access: if settings.is(&ACCESS, "public") { "public " } else { "" },
            is_class: settings.is(&TYPES, "classes"),
            is_encoded: settings.is(&CODING, "both"),
            property: if settings.is(&PROPERTIES, "var") { "var" } else { "let" },
        }
    }

    /// `Codable`
    pub(super) fn coding(&self) -> &'static str {
        if self.is_encoded { "Codable" } else { "Decodable" }
    }

    /// What a type conforms to: `Codable, Hashable, Identifiable, Sendable`.
    pub(super) fn protocols(&self, has_id: bool) -> String {
        let mut protocols = vec![self.coding()];
        if !self.is_class {
            protocols.push("Hashable");
        }
        if has_id {
            protocols.push("Identifiable");
        }
        if !(self.is_class && self.property == "var") {
            protocols.push("Sendable");
        }
        protocols.join(", ")
    }
}

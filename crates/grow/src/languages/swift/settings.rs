//! Swift's settings.

use crate::settings::{ABSENT, Choice, ENTRY, FILES, PLACE, Setting, Settings, Values};

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

pub(super) const SETTINGS: &[Setting] = &[ACCESS, TYPES, CODING, PROPERTIES, FILES, PLACE, ABSENT, ENTRY];

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
}

impl Form {
    pub(super) fn of(settings: &Settings) -> Self {
        Self {
            indent: 0,
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

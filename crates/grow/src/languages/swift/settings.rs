//! Swift's settings.

use super::names;
use crate::plan::{Plan, PlannedType};
use crate::prepare::{
    Abilities, Extras, Foundation, Judge, Level, Nothing, Nulls, Order, PlainCopies, Tags, TimeKeeping,
};
use crate::settings::{
    ABSENT, Absence, ENTRY, Entry, FILES, MARK, Meaning, Nesting, OneOf, PLACE, Setting, Settings, Spread,
    TWINS, TextOf, URIS, UUIDS,
};

const ACCESS: OneOf<&str> = OneOf {
    key: "access",
    doc: "who sees the types",
    choices: &[
        Meaning { value: "internal", doc: "the module", it: "" },
        Meaning { value: "public", doc: "everyone, with initializers to match", it: "public " },
    ],
};

const TYPES: OneOf<bool> = OneOf {
    key: "types",
    doc: "what objects become",
    choices: &[
        Meaning { value: "structs", doc: "structs, which can be compared and hashed", it: false },
        Meaning { value: "classes", doc: "final classes", it: true },
    ],
};

const CODING: OneOf<bool> = OneOf {
    key: "coding",
    doc: "whether types can be written as well",
    choices: &[
        Meaning { value: "both", doc: "read and written: Codable", it: true },
        Meaning { value: "decode", doc: "only read: Decodable", it: false },
    ],
};

const PROPERTIES: OneOf<&str> = OneOf {
    key: "properties",
    doc: "whether properties can be changed",
    choices: &[
        Meaning { value: "let", doc: "set once", it: "let" },
        Meaning { value: "var", doc: "can be changed; a class is then not Sendable", it: "var" },
    ],
};

pub(super) const NAMESPACE: TextOf = TextOf {
    key: "namespace",
    doc: "an enum without cases that all types stand in, as models that share a module need",
    default: None,
    example: "Hives",
    check: check_namespace,
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

pub(super) const SETTINGS: &[&dyn Setting] = &[
    &NAMESPACE,
    &ACCESS,
    &TYPES,
    &CODING,
    &PROPERTIES,
    &UUIDS,
    &URIS,
    &FILES,
    &PLACE,
    &ABSENT,
    &TWINS,
    &ENTRY,
    &MARK,
];

/// All settings, resolved.
#[derive(Debug, Clone)]
pub(super) struct SwiftOptions {
    /// What all types stand in, if anything.
    pub(super) namespace: Option<String>,
    /// Where helpers stand that other models need as well: the module.
    pub(super) shared: Option<String>,
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
    /// Whether UUIDs have the platform's own type.
    pub(super) has_uuids: bool,
    /// Whether URIs have.
    pub(super) has_uris: bool,
    spread: Spread,
    nesting: Nesting,
    absence: Absence,
    /// What the names of wire types end in, beside which plain ones stand.
    ending: Option<String>,
    pub(super) entry: Entry,
}

/// Columns of one level.
const INDENT: usize = 4;

impl SwiftOptions {
    pub(super) fn of(settings: &Settings) -> Self {
        let namespace = NAMESPACE.of(settings);
        let is_inside = namespace.is_some();
        Self {
            namespace,
            shared: settings.shared().map(str::to_owned),
            indent: if is_inside { INDENT } else { 0 },
            function: if is_inside { "static " } else { "" },
            access: ACCESS.of(settings),
            is_class: TYPES.of(settings),
            is_encoded: CODING.of(settings),
            property: PROPERTIES.of(settings),
            has_uuids: UUIDS.of(settings),
            has_uris: URIS.of(settings),
            spread: FILES.of(settings),
            nesting: PLACE.of(settings),
            absence: ABSENT.of(settings),
            ending: TWINS.of(settings),
            entry: ENTRY.of(settings),
        }
    }

    /// The same for a type, which stands so many levels deep in others.
    pub(super) fn at(&self, plan: &Plan<'_>, ty: &PlannedType<'_>) -> Self {
        Self { indent: self.indent + plan.indent(ty, INDENT), ..self.clone() }
    }

    /// What code with these options can and cannot do.
    pub(super) fn abilities(&self) -> Abilities {
        Abilities {
            spread: self.spread,
            order: Order::OutsideIn,
            nesting: self.nesting,
            has_namespace_file: self.namespace.is_some(),
            absence: self.absence,
            types_uuids: self.has_uuids,
            times: TimeKeeping::AsText,
            holds: |_| true,
            has_literals: false,
            // A struct around the value is no part of a plain one.
            nothing: Nothing::Absent,
            reads_json_in_text: self.ending.is_none(),
            extras: |_| Extras::Typed,
            most_room: None,
            fills_in: true,
            nulls: Nulls::WhereRequired,
            entry: self.entry,
            plain_copies: self.ending.clone().map(|ending| PlainCopies { ending, tags: Tags::Dropped }),
            judge: Judge::Driver,
            foundation: Foundation { level: Level(6, 0), libraries: Vec::new(), plugins: &[] },
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

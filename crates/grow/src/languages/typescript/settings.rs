//! TypeScript's settings.

use jar_sprout_model::TypeId;

use crate::prepare::{
    Abilities, Extras, Foundation, Judge, Level, Nothing, Nulls, Order, PlainCopies, Tags, TimeKeeping,
};
use crate::settings::{
    Absence, BOUNDS_SAID, Entry, MARK, Meaning, Nesting, OneOf, Setting, Settings, Spread, TWINS,
};

/// Whether what an object holds can be changed.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) enum Hold {
    Mutable,
    Readonly,
}

impl Hold {
    /// What stands before a property, and before a list.
    pub(super) fn property(self) -> &'static str {
        match self {
            Self::Mutable => "",
            Self::Readonly => "readonly ",
        }
    }
}

const PROPERTIES: OneOf<Hold> = OneOf {
    key: "properties",
    doc: "whether properties and lists can be changed",
    choices: &[
        Meaning { value: "mutable", doc: "they can", it: Hold::Mutable },
        Meaning { value: "readonly", doc: "they cannot", it: Hold::Readonly },
    ],
};

/// What reads a response.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(super) enum Reading {
    None,
    Checked,
    Dated,
}

const PARSE: OneOf<Reading> = OneOf {
    key: "parse",
    doc: "whether a function for each root parses a response and checks it",
    choices: &[
        Meaning { value: "none", doc: "types alone, no run-time code", it: Reading::None },
        Meaning {
            value: "checked",
            doc: "parseHives(text), which says where a response is not as expected",
            it: Reading::Checked,
        },
        Meaning {
            value: "dated",
            doc: "the same, with Date objects for date-times; they are written back as they came",
            it: Reading::Dated,
        },
    ],
};

const BOUNDS: OneOf<bool> = OneOf {
    choices: &[
        BOUNDS_SAID,
        Meaning { value: "checked", doc: "the same, and the functions that parse check them", it: true },
    ],
    ..crate::settings::BOUNDS
};

pub(super) const SETTINGS: &[&dyn Setting] = &[&PROPERTIES, &PARSE, &BOUNDS, &TWINS, &MARK];

/// All settings, resolved.
#[derive(Debug, Clone)]
pub(super) struct TypeScriptOptions {
    pub(super) hold: Hold,
    /// Where helpers stand that other models need as well: the way to a folder.
    pub(super) shared: Option<String>,
    pub(super) reading: Reading,
    /// Whether what parses a response checks the bounds that a document sets.
    pub(super) checks_bounds: bool,
    /// The name for a union in which a type stands, and which it may lead back to.
    pub(super) alias: Option<TypeId>,
    /// What the names of wire types end in, beside which plain ones stand.
    ending: Option<String>,
}

impl TypeScriptOptions {
    pub(super) fn of(settings: &Settings) -> Self {
        Self {
            hold: PROPERTIES.of(settings),
            shared: settings.shared().map(str::to_owned),
            reading: PARSE.of(settings),
            checks_bounds: BOUNDS.of(settings),
            alias: None,
            ending: TWINS.of(settings),
        }
    }

    /// The same where a type stands in the name for a union.
    pub(super) fn in_alias(&self, union: TypeId) -> Self {
        Self { alias: Some(union), ..self.clone() }
    }

    /// What code with these options can and cannot do.
    pub(super) fn abilities(&self) -> Abilities {
        let is_read = self.reading != Reading::None;
        Abilities {
            spread: Spread::Together,
            order: Order::OutsideIn,
            nesting: Nesting::Beside,
            has_namespace_file: false,
            // `undefined` is not `null`.
            absence: Absence::Untold,
            types_uuids: false,
            times: TimeKeeping::AsText,
            holds: |_| true,
            has_literals: true,
            // What writes is `JSON.stringify`.
            // A twin has nothing where the wire has a word, or the word among its values.
            nothing: if self.ending.is_some() { Nothing::Value } else { Nothing::Word },
            reads_json_in_text: false,
            extras: |_| Extras::Typed,
            most_room: None,
            fills_in: is_read,
            nulls: Nulls::WhereRequired,
            entry: Entry::Library,
            // Tags tell the cases of a union apart.
            plain_copies: self.ending.clone().map(|ending| PlainCopies { ending, tags: Tags::Kept }),
            judge: if is_read { Judge::Driver } else { Judge::Compiler },
            foundation: Foundation { level: Level(5, 0), libraries: Vec::new(), plugins: &[] },
        }
    }
}

//! Scopes: where identifiers must differ from each other and from what the language reserves.

use std::borrow::Cow;
use std::collections::HashSet;

use foldhash::fast::RandomState;
use jar_sprout_model::{Field, WireName, Words};

use crate::prepare::without_suffix;

use super::{Ident, Naming, OwnName, UnionCaseKind, camel_case};

/// The most characters of a name: what it takes to tell things apart, and no more than a file's name may have.
pub(super) const LONGEST: usize = 80;

/// What is put behind a type's name when it is taken and no longer name is at hand.
const TYPE_WORD: &str = "model";

/// What is put behind the name of a union's case when it is taken.
const CASE_WORD: &str = "case";

/// What is put behind a member's name when every type has a member of that name.
const MEMBER_WORD: &str = "value";

/// The identifiers of one scope.
pub(super) struct Scope<'n> {
    naming: &'n Naming,
    /// Joins the words of a member's name; none where it keeps its key.
    member_case: Option<fn(&Words) -> String>,
    reserved: &'static [&'static str],
    /// What is reserved as well.
    more: &'static [&'static str],
    /// Whether its names are those of types, of which helpers are some.
    has_types: bool,
    /// The name of the type around, where no part may have it.
    own: Option<String>,
    /// Compared without case: files on some disks are.
    taken: HashSet<String, RandomState>,
}

impl<'n> Scope<'n> {
    pub(super) fn of_types(naming: &'n Naming) -> Self {
        let (reserved, member_case) = (naming.reserved_types, naming.member_case);
        Self {
            naming,
            member_case,
            reserved,
            more: &[],
            has_types: true,
            own: None,
            taken: HashSet::default(),
        }
    }

    /// The cases of an enum.
    pub(super) fn of_cases(naming: &'n Naming, owner: &Ident) -> Self {
        Self { more: naming.reserved_cases, ..Self::of_members(naming, owner, false) }
    }

    /// The fields of a type. Those of a copy have names of the language, even
    /// where those of the wire keep its keys.
    pub(super) fn of_members(naming: &'n Naming, owner: &Ident, is_copy: bool) -> Self {
        let own = own_name(naming, owner);
        let member_case = naming.member_case.or(is_copy.then_some(camel_case as fn(&Words) -> String));
        let (reserved, taken) = (naming.reserved_members, HashSet::default());
        Self { naming, member_case, reserved, more: &[], has_types: false, own, taken }
    }

    /// The cases of a union; those that are types must not hide the types they hold.
    pub(super) fn of_union_cases<'i>(
        naming: &'n Naming,
        owner: &Ident,
        held: impl Iterator<Item = &'i Ident>,
    ) -> Self {
        let taken = match naming.union_case_kind {
            UnionCaseKind::Type => held.map(|ident| ident.as_str().to_lowercase()).collect(),
            UnionCaseKind::Value => HashSet::default(),
        };
        Self {
            naming,
            member_case: naming.member_case,
            reserved: naming.reserved_union_cases,
            more: &[],
            has_types: true,
            own: own_name(naming, owner),
            taken,
        }
    }

    pub(super) fn declare_type(&mut self, name: &Words, alternatives: &[Words]) -> Ident {
        let more = std::iter::once_with(|| Cow::Owned(name.with_word(TYPE_WORD)));
        let candidates = [name].into_iter().chain(alternatives).map(Cow::Borrowed).chain(more);
        self.declare(candidates, self.naming.type_case)
    }

    /// A case that stands beside all types, with its own type's name in front.
    pub(super) fn declare_part(&mut self, owner: &Ident, name: &Words, case: fn(&Words) -> String) -> Ident {
        self.declare([Cow::Borrowed(name)], |words| [owner.as_str(), &case(words)].concat())
    }

    /// A function that stands beside all types.
    pub(super) fn declare_function(&mut self, name: &Words, case: fn(&Words) -> String) -> Ident {
        self.declare([Cow::Borrowed(name)], case)
    }

    pub(super) fn declare_union_case(&mut self, name: &Words) -> Ident {
        let more = std::iter::once_with(|| Cow::Owned(name.with_word(CASE_WORD)));
        self.declare([Cow::Borrowed(name)].into_iter().chain(more), self.naming.union_case)
    }

    /// Whether names keep the capitals of their keys: in a language that has them so, and where they are not how all keys
    /// are written.
    pub(super) fn keeps_capitals(&self, fields: &[Field]) -> bool {
        let is_small = |field: &Field| field.wire.as_str().contains(char::is_lowercase);
        self.naming.keeps_capitals && fields.iter().any(is_small)
    }

    /// What a member is called if nothing is in the way: its wire key where the language keeps keys.
    pub(super) fn member_text(&self, wire: &WireName, name: &Words) -> String {
        self.member_case.map_or_else(|| wire.as_str().to_owned(), |case| shortened(case(name)))
    }

    /// A member by its text and its name.
    pub(super) fn declare_member(&mut self, text: String, name: &Words) -> Ident {
        match self.member_case {
            None => Ident::new(text),
            Some(case) => self.declare_cased(text, name, case),
        }
    }

    pub(super) fn declare_case(&mut self, name: &Words) -> Ident {
        let case = self.naming.case_case;
        self.declare_cased(shortened(case(name)), name, case)
    }

    fn declare_cased(&mut self, text: String, name: &Words, case: fn(&Words) -> String) -> Ident {
        let text = if self.is_reserved(&text) { shortened(case(&name.with_word(MEMBER_WORD))) } else { text };
        self.declare_text(text)
    }

    /// A name as it is, if it is free, else with a number behind.
    fn declare_text(&mut self, text: String) -> Ident {
        if !self.is_reserved(&text) && self.taken.insert(text.to_lowercase()) {
            return self.finish(text);
        }
        self.declare_numbered(&text)
    }

    fn declare<'w>(
        &mut self,
        candidates: impl IntoIterator<Item = Cow<'w, Words>>,
        case: impl Fn(&Words) -> String,
    ) -> Ident {
        let (mut base, mut is_base_free) = (String::new(), false);
        for words in candidates {
            let text = shortened(case(&words));
            let is_free = !self.is_reserved(&text);
            if is_free && self.taken.insert(text.to_lowercase()) {
                return self.finish(text);
            }
            // A number goes behind the first name that only another thing has, else behind the last one.
            if !is_base_free {
                (base, is_base_free) = (text, is_free);
            }
        }
        self.declare_numbered(&base)
    }

    fn declare_numbered(&mut self, base: &str) -> Ident {
        let text = (2_u32..)
            .map(|number| format!("{base}{number}"))
            .find(|text| !self.is_reserved(text) && !self.taken.contains(&text.to_lowercase()))
            .expect("there is always a higher number");
        self.taken.insert(text.to_lowercase());
        self.finish(text)
    }

    fn is_reserved(&self, text: &str) -> bool {
        let is_reserved =
            if self.has_types { is_taken(self.reserved, text) } else { self.reserved.contains(&text) };
        is_reserved || self.more.contains(&text) || self.own.as_deref() == Some(text)
    }

    fn finish(&self, text: String) -> Ident {
        Ident::new((self.naming.escape)(text))
    }
}

/// Whether no type can have a name, given those that are taken.
pub(super) fn is_taken(taken: &[&str], name: &str) -> bool {
    taken.contains(&name)
        || without_suffix(name).is_some_and(|usual| taken.contains(&usual.as_str()))
        || is_device(name)
}

fn shortened(mut text: String) -> String {
    // No character is shorter than a byte.
    if text.len() > LONGEST
        && let Some((end, _)) = text.char_indices().nth(LONGEST)
    {
        text.truncate(end);
    }
    text
}

fn own_name(naming: &Naming, owner: &Ident) -> Option<String> {
    match naming.own_name {
        OwnName::Free => None,
        OwnName::Taken => Some(owner.as_str().to_owned()),
    }
}
/// Whether a file of this name would be a device on Windows, whatever its ending: a type often has a file of its own.
fn is_device(text: &str) -> bool {
    let text = text.to_ascii_lowercase();
    let numbered = ["com", "lpt"].iter().find_map(|device| text.strip_prefix(device));
    ["con", "prn", "aux", "nul"].contains(&text.as_str())
        || numbered.is_some_and(|rest| matches!(rest.as_bytes(), [b'1'..=b'9']))
}

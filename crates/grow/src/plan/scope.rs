//! Scopes: where identifiers must differ from each other and from what the language reserves.

use std::collections::HashSet;

use jar_sprout_model::{WireName, Words};

use super::{Ident, Naming};

/// What is put behind a type's name when it is taken and no longer name is at hand.
const TYPE_WORD: &str = "model";

/// What is put behind a member's name when every type has a member of that name.
const MEMBER_WORD: &str = "value";

/// The identifiers of one scope.
pub(super) struct Scope<'n> {
    naming: &'n Naming,
    reserved: &'static [&'static str],
    /// Compared without case: files on some disks are.
    taken: HashSet<String>,
}

impl<'n> Scope<'n> {
    pub(super) fn of_types(naming: &'n Naming) -> Self {
        Self { naming, reserved: naming.reserved_types, taken: HashSet::new() }
    }

    pub(super) fn of_members(naming: &'n Naming) -> Self {
        Self { naming, reserved: naming.reserved_members, taken: HashSet::new() }
    }

    pub(super) fn of_cases(naming: &'n Naming) -> Self {
        Self::of_members(naming)
    }

    pub(super) fn declare_type(&mut self, name: &Words, alternatives: &[Words]) -> Ident {
        let more = name.with_word(TYPE_WORD);
        let candidates = [name].into_iter().chain(alternatives).chain([&more]);
        self.declare(candidates, self.naming.type_case)
    }

    /// A member keeps its wire key where the language keeps keys.
    pub(super) fn declare_member(&mut self, wire: &WireName, name: &Words) -> Ident {
        match self.naming.member_case {
            None => Ident::new(wire.as_str().to_owned()),
            Some(case) => self.declare_cased(name, case),
        }
    }

    pub(super) fn declare_case(&mut self, name: &Words) -> Ident {
        self.declare_cased(name, self.naming.case_case)
    }

    fn declare_cased(&mut self, name: &Words, case: fn(&Words) -> String) -> Ident {
        if self.reserved.contains(&case(name).as_str()) {
            self.declare([&name.with_word(MEMBER_WORD)], case)
        } else {
            self.declare([name], case)
        }
    }

    fn declare<'w>(
        &mut self,
        candidates: impl IntoIterator<Item = &'w Words>,
        case: fn(&Words) -> String,
    ) -> Ident {
        let mut free = Vec::new();
        for words in candidates {
            let text = case(words);
            if self.reserved.contains(&text.as_str()) {
                continue;
            }
            if self.taken.insert(text.to_lowercase()) {
                return self.finish(text);
            }
            free.push(text);
        }
        let base = free.into_iter().next().expect("a name with one more word is not reserved");
        let text = (2_u32..)
            .map(|number| format!("{base}{number}"))
            .find(|text| !self.taken.contains(&text.to_lowercase()))
            .expect("there is always a higher number");
        self.taken.insert(text.to_lowercase());
        self.finish(text)
    }

    fn finish(&self, text: String) -> Ident {
        Ident::new((self.naming.escape)(text))
    }
}

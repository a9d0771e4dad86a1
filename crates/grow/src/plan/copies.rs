//! Plain copies of the wire's types.

use jar_sprout_model::TypeId;

use super::{Plan, PlannedType};

impl<'m> Plan<'m> {
    /// Whether types of the wire have plain copies.
    pub(crate) fn has_copies(&self) -> bool {
        !self.copies.is_empty()
    }

    /// The plain type of one of the wire.
    pub(crate) fn copy_of(&self, wire: TypeId) -> Option<&PlannedType<'m>> {
        self.copies.get(&wire).map(|copy| self.get(*copy))
    }

    /// The type of the wire that a plain type is made of.
    pub(crate) fn wire_of(&self, copy: &PlannedType<'m>) -> Option<&PlannedType<'m>> {
        if self.wires.is_empty() { None } else { self.wires.get(&copy.id).map(|wire| self.get(*wire)) }
    }
}

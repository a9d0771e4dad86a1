//! Keys beyond the properties of a type.

use jar_sprout_layout::{Doc, text};

use super::Form;
use super::types;
use crate::code::{Helper, Needs};
use crate::plan::{Ident, Plan, PlannedType};

const OTHER_KEY: Helper = Helper { name: "OtherKey", text: include_str!("OtherKey.swift") };
const DECODED_OTHER_KEY: Helper = Helper { name: "OtherKey", text: include_str!("decode/OtherKey.swift") };

/// The property that holds them.
pub(super) struct Extras<'p> {
    pub(super) ident: &'p Ident,
    /// `[String: Share]`
    pub(super) map: String,
}

impl<'p> Extras<'p> {
    pub(super) fn of(
        plan: &Plan<'_>,
        ty: &'p PlannedType<'_>,
        form: &Form,
        needs: &mut Needs,
    ) -> Option<Self> {
        let extras = ty.extras.as_ref()?;
        needs.helpers.insert(if form.is_encoded { OTHER_KEY } else { DECODED_OTHER_KEY });
        Some(Self { ident: &extras.ident, map: types::slot(plan, &extras.map, form, needs) })
    }

    pub(super) fn property(&self, form: &Form) -> Doc {
        text(format!("{}{} {}: {}", form.access, form.property, self.ident, self.map))
    }

    pub(super) fn parameter(&self) -> Doc {
        text(format!("{}: {} = [:]", self.ident, self.map))
    }

    pub(super) fn decoded(&self) -> Doc {
        text(format!("{} = try OtherKey.decode(from: decoder, without: CodingKeys.self)", self.ident))
    }

    pub(super) fn encoded(&self) -> Doc {
        text(format!("try OtherKey.encode({}, to: encoder)", self.ident))
    }
}

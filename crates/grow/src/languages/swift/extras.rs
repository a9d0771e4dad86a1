//! Keys beyond the properties of a type.

use jar_sprout_layout::{Doc, text};

use super::Sheet;
use super::helpers::{OTHER_KEY, help};
use super::settings::SwiftOptions;
use super::types;
use crate::plan::{Ident, PlannedType};

/// The property that holds them.
pub(super) struct Extras<'p> {
    pub(super) ident: &'p Ident,
    /// `[String: Share]`
    pub(super) map: String,
}

impl<'p> Extras<'p> {
    pub(super) fn of(sheet: &mut Sheet<'_>, ty: &'p PlannedType<'_>) -> Option<Self> {
        let extras = ty.extras.as_ref()?;
        help(sheet, &OTHER_KEY);
        Some(Self { ident: &extras.ident, map: types::slot(sheet, &extras.map) })
    }

    pub(super) fn property(&self, options: &SwiftOptions) -> Doc {
        text(format!("{}{} {}: {}", options.access, options.property, self.ident, self.map))
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

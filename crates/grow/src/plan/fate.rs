//! The fate of a field: what becomes of it in code, from all that says something of it.

use jar_sprout_model::{Field, Model, Presence, Type, WireName};

use super::defaults::{self, PlannedDefault};

/// What becomes of a field. A new fate breaks every language at compile time, which is what it is for.
#[derive(Debug, Clone, Copy)]
pub(crate) enum Fate<'m> {
    /// It tells the cases of a union apart: always there, and always this text.
    Tag(&'m WireName),
    /// Always there, and never null; any value may be null as it is.
    Required,
    /// Always there; may be null, and is written then too.
    Nullable,
    /// May be absent, and is never null.
    Optional,
    /// May be absent or null, which code takes for the same.
    Either,
    /// May be absent or null, which code tells apart.
    Apart,
    /// May be absent; this holds then.
    Defaulted(PlannedDefault<'m>),
}

/// What a language is asked for that bears on fields.
#[derive(Debug, Clone, Copy)]
pub(super) struct Asked {
    /// Whether null is told from nothing.
    pub(super) tells_absence: bool,
    /// Whether what is absent gets its default value.
    pub(super) has_defaults: bool,
}

impl<'m> Fate<'m> {
    pub(super) fn of(model: &'m Model, field: &'m Field, is_tag: bool, asked: Asked) -> Self {
        let Field { wire: _, name: _, presence, slot, encoding: _, default, docs: _ } = field;
        if let Type::Constant(text) = &slot.ty
            && is_tag
        {
            return Self::Tag(text);
        }
        match (presence, slot.nullable) {
            (Presence::Always, false) => Self::Required,
            (Presence::Always, true) => Self::Nullable,
            (Presence::Sometimes, is_nullable) => {
                let default = default.as_ref().filter(|_| asked.has_defaults && !is_nullable);
                let default = default.and_then(|default| defaults::plan(model, slot, default));
                match (default, asked.tells_absence && (is_nullable || slot.ty == Type::Any)) {
                    (Some(default), _) => Self::Defaulted(default),
                    (None, true) => Self::Apart,
                    (None, false) if is_nullable => Self::Either,
                    (None, false) => Self::Optional,
                }
            }
        }
    }

    /// Whether the key is always there.
    pub(crate) fn is_always_there(self) -> bool {
        match self {
            Self::Tag(_) | Self::Required | Self::Nullable => true,
            Self::Optional | Self::Either | Self::Apart | Self::Defaulted(_) => false,
        }
    }

    /// Whether there may be no value: the key is absent and no default stands for it, or null.
    pub(crate) fn may_be_nothing(self) -> bool {
        match self {
            Self::Tag(_) | Self::Required | Self::Defaulted(_) => false,
            Self::Nullable | Self::Optional | Self::Either | Self::Apart => true,
        }
    }

    /// Whether the key is left out when there is no value.
    pub(crate) fn is_left_out(self) -> bool {
        match self {
            Self::Tag(_) | Self::Required | Self::Nullable | Self::Defaulted(_) => false,
            Self::Optional | Self::Either | Self::Apart => true,
        }
    }

    /// Whether null is told from nothing.
    pub(crate) fn tells_null(self) -> bool {
        matches!(self, Self::Apart)
    }

    /// The text that a tag always is.
    pub(crate) fn tag(self) -> Option<&'m WireName> {
        match self {
            Self::Tag(text) => Some(text),
            Self::Required
            | Self::Nullable
            | Self::Optional
            | Self::Either
            | Self::Apart
            | Self::Defaulted(_) => None,
        }
    }

    /// What holds where the key is absent.
    pub(crate) fn default(self) -> Option<PlannedDefault<'m>> {
        match self {
            Self::Defaulted(default) => Some(default),
            Self::Tag(_) | Self::Required | Self::Nullable | Self::Optional | Self::Either | Self::Apart => {
                None
            }
        }
    }
}

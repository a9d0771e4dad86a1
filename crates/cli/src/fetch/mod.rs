//! Asking an API: the one place that speaks with a network, for `fetch` alone.

mod addresses;
mod order;
mod record;
mod send;

pub(crate) use addresses::SourcesOfModels;
pub(crate) use order::{placeholders, unsaid};
pub(crate) use record::{Recorded, record};

//! Asking an API: the one place that speaks with a network, for `fetch` alone.

mod addresses;
mod order;
mod send;

pub(crate) use addresses::addresses;
pub(crate) use order::{Order, order, values};
pub(crate) use send::{Client, Limits, Reply};

//! The commands, a file each.

mod demo;
mod grow;
mod languages;
mod look;
mod why;

pub(crate) use demo::demo;
pub(crate) use grow::grow;
pub(crate) use languages::languages;
pub(crate) use look::look;
pub(crate) use why::why;

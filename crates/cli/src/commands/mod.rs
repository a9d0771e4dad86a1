//! The commands, a file each.

mod demo;
mod grow;
mod languages;
mod look;
mod prove;
mod why;

pub(crate) use demo::demo;
pub(crate) use grow::grow;
pub(crate) use languages::languages;
pub(crate) use look::look;
pub(crate) use prove::prove;
pub(crate) use why::why;

//! The commands, a file each.

mod demo;
mod grow;
mod look;

pub(crate) use demo::demo;
pub(crate) use grow::grow;
pub(crate) use look::look;

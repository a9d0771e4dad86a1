//! The commands, a file each.

mod check;
mod decide;
mod demo;
mod drift;
mod fetch;
mod grow;
mod init;
mod languages;
mod look;
mod manual;
mod prove;
mod scrub;
mod stand_in;
mod usage;
mod why;

pub(crate) use check::check;
pub(crate) use decide::decide;
pub(crate) use demo::demo;
pub(crate) use drift::drift;
pub(crate) use fetch::fetch;
pub(crate) use grow::grow;
pub(crate) use init::init;
pub(crate) use languages::languages;
pub(crate) use look::look;
pub(crate) use manual::{completions, manual};
pub(crate) use prove::prove;
pub(crate) use scrub::scrub;
pub(crate) use stand_in::stand_in;
pub(crate) use usage::usage;
pub(crate) use why::why;

//! A small document algebra and its printer: where lines break is decided while printing.
//!
//! Beyond the usual groups it has tabs, columns aligned as tables, a cap on a group's flat width, and text
//! that depends on whether the group around it broke. It knows no language.

mod build;
mod doc;
mod print;

pub use build::{
    braces, cat, comma_list, group, group_at_most, hard, if_broken, join, last_comma, line, lines, members,
    nest, paragraphs, soft, table, text,
};
pub use doc::{Doc, Fit};
pub use print::{Indent, Style, flat_length, print, print_out};

//! Documents to draft: JSON Schema, OpenAPI and Swagger, in JSON and YAML.
//!
//! ```text
//! text ──read──> value ──gather──> library (references indexed) ──draft──> draft, roots, warnings
//! ```
//!
//! Nothing here knows samples or languages, and nothing touches files: whoever calls hands over what a reference to
//! another file leads to.

mod api;
mod definitions;
mod docs;
mod draft;
mod fault;
mod flat;
mod library;
mod names;
mod parameters;
mod pointers;
mod read;
mod text;
mod value;
mod yaml;

pub use api::{Carried, Operation};
pub use draft::{Drafted, draft_document};
pub use fault::Fault;
pub use library::{Files, Library, NoFiles};
pub use read::{DocumentKind, read_value, recognise, recognise_text};
pub use text::{Text, Word};
pub use value::{Object, Value};
pub use yaml::yaml_as_json;

//! What goes out to an API and what comes back, but for the network: placeholders and what may not be written down, the
//! addresses that are asked, what kind of answer came, and what its sample is called.

mod address;
mod answer;
mod curl;
mod ids;
mod literals;
mod packing;
mod pages;
mod placeholders;
mod recording;
mod records;
mod secrets;
mod template;

pub use address::{address, is_same_origin};
pub use answer::{Answer, NoSample, answer};
pub use curl::{Copied, NoCommand, copied};
pub use ids::is_id;
pub use jiff::Timestamp;
pub use literals::{Unsaid, shown, unsaid_address, unsaid_body, unsaid_value};
pub use packing::{PACKINGS, UnknownPacking, unpacked};
pub use pages::{Paging, next_page};
pub use placeholders::{OpenPlaceholder, Template};
pub use recording::{Body, Endpoint, Exchange, Side, Survey, Surveyor, path_template, read_recording};
pub use records::{Record, stem, stem_of_page, thing, time_stamp};
pub use secrets::{Secrets, Unset, is_secret_name};
pub use template::{AddressTemplate, NoVariable, values_at};

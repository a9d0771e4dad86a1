//! What goes out to an API and what comes back, but for the network: placeholders and what may not be written down, the
//! addresses that are asked, what kind of answer came, and what its sample is called.

mod address;
mod answer;
mod curl;
mod pages;
mod placeholders;
mod secrets;
mod template;

pub use address::{address, is_same_origin, stem, subject};
pub use answer::{Answer, NoSample, answer};
pub use curl::{Copied, NoCommand, copied};
pub use pages::{Paging, next_page};
pub use placeholders::{OpenPlaceholder, Template};
pub use secrets::{Secrets, Unset, is_secret_name};
pub use template::{AddressTemplate, NoVariable, values_at};

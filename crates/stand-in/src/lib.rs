//! A small API that answers with samples, so that an app can be built without the one that it stands in for.
//!
//! What is asked comes in as data and goes out as data; who speaks with the network is somebody else.

mod api;
mod document;
mod pages;
mod path;
mod resource;

pub use api::{Answer, Api, Asked};
pub use resource::{Held, Resource};

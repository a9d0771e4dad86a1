//! Whatever bytes a document is made of, reading it ends, and what comes of it grows.

#![no_main]

use jar_sprout_document::{Library, NoFiles, draft_document};
use jar_sprout_grow::{Arrangement, LANGUAGES, Settings, grow};
use jar_sprout_model::Words;
use jar_sprout_settle::{Policies, settle_document};
use libfuzzer_sys::fuzz_target;

fuzz_target!(|bytes: &[u8]| {
    let Ok(text) = std::str::from_utf8(bytes) else { return };
    for name in ["hives.json", "hives.yaml"] {
        let Ok(library) = Library::gather(name, text, &NoFiles) else { continue };
        let drafted = draft_document(&library, name, &[], &Words::split("hives"));
        if drafted.roots.is_empty() {
            continue;
        }
        let title = drafted.title.as_ref();
        let model = settle_document(&drafted.draft, &drafted.roots, title, &Policies::default()).model;
        for language in LANGUAGES {
            grow(&*language.dialect(&Settings::default()), &model, Arrangement::Together);
        }
    }
});

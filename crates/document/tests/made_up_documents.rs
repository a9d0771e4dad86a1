//! What was made to fit a document fits the model that is made of it.

#![allow(clippy::unwrap_used, reason = "a test that cannot go on should stop")]

mod made_up;

use jar_sprout_document::{DocumentKind, Drafted, Library, NoFiles, draft_document};
use jar_sprout_model::Words;
use jar_sprout_settle::{Policies, misfits, settle_document};
use made_up::{MadeUp, documents};
use proptest::prelude::*;

proptest! {
    #![proptest_config(ProptestConfig::with_cases(500))]

    #[test]
    fn what_fits_a_document_fits_its_model(made in documents()) {
        let MadeUp { document, instances } = made;
        let library = Library::of("apiary.json", DocumentKind::Schema, document.clone(), &NoFiles);
        let Drafted { draft, roots, title, .. } =
            draft_document(&library, "apiary.json", &[], &Words::split("apiary"));
        let model = settle_document(&draft, &roots, title.as_ref(), &Policies::default()).model;
        for instance in &instances {
            let said: Vec<String> = misfits(&model, instance).iter().map(ToString::to_string).collect();
            prop_assert!(said.is_empty(), "{instance}\n{said:?}\n{document:#}");
        }
    }
}

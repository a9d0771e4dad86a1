//! Inference in one step: the draft of what was seen or said, and the model that is made of it.

use std::collections::HashMap;

use jar_sprout_model::{Draft, DraftRoot, Words};
use jar_sprout_shape::Shape;

use crate::draft::{Drafted, draft_shape};
use crate::model::naming_sites::RootName;
use crate::model::{Settled, settle, settle_document};
use crate::policies::Policies;

/// A model, and what it was made of.
pub struct Inferred {
    /// What each position is, with its evidence.
    pub drafted: Drafted,
    /// The model.
    pub settled: Settled,
}

/// The model of what samples showed.
pub fn infer(shape: &Shape, name: &RootName, policies: &Policies) -> Inferred {
    let drafted = draft_shape(shape, &name.words, policies);
    let settled = settle(&drafted.draft, drafted.root, name, policies);
    Inferred { drafted, settled }
}

/// The model of the parts of a document; what a document says needs no evidence.
///
/// # Panics
/// Without a part that is asked for.
pub fn infer_document(
    draft: Draft,
    roots: &[DraftRoot],
    title: Option<&Words>,
    policies: &Policies,
) -> Inferred {
    let settled = settle_document(&draft, roots, title, policies);
    let drafted = Drafted { draft, root: roots[0].node, evidence: HashMap::new(), trust: policies.trust };
    Inferred { drafted, settled }
}

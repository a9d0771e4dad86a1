//! What is made of samples, and models in a few lines.

mod model;

use jar_sprout_model::SourceId;
use jar_sprout_settle::{
    Decision, Drafted, Inferred, Miss, Policies, RootName, Settled, infer, infer_decided, root_name,
};
use jar_sprout_shape::{Shape, observe};
pub(crate) use model::sketch;

/// The shape of samples, each a source of its own.
pub(crate) fn shape_of<'s>(samples: impl IntoIterator<Item = &'s str>) -> Shape {
    let mut shape = Shape::default();
    for (source, sample) in (0..).map(SourceId).zip(samples) {
        observe(sample.as_bytes(), source, &mut shape).expect("the sample is JSON");
    }
    shape
}

/// What is made of a shape whose file has this name.
pub(crate) fn settled(shape: &Shape, file: &str) -> Settled {
    settled_with_draft(shape, file).0
}

/// The same with decisions, and those of them that match nothing.
#[allow(dead_code, reason = "not every test decides")]
pub(crate) fn decided(shape: &Shape, file: &str, decisions: &[Decision]) -> (Settled, Vec<Miss>) {
    let name = RootName { words: root_name([file], None, false), is_given: false };
    let (inferred, misses) = infer_decided(shape, &name, &Policies::default(), decisions);
    (inferred.settled, misses)
}

/// The same with the draft it comes from.
pub(crate) fn settled_with_draft(shape: &Shape, file: &str) -> (Settled, Drafted) {
    let policies = Policies::default();
    let words = root_name([file], None, false);
    let Inferred { drafted, settled } = infer(shape, &RootName { words, is_given: false }, &policies);
    (settled, drafted)
}

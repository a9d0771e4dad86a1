//! Sameness: which positions of a draft have the same structure.

use std::collections::HashMap;

use jar_sprout_model::{Draft, DraftCase, DraftId, DraftKind, Presence, Scalar, TimeForms, WireName};

/// A set of positions with the same structure.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, PartialOrd, Ord)]
pub(crate) struct Class(usize);

/// The class of each position.
pub(crate) struct Classes(Vec<Class>);

impl Classes {
    pub(crate) fn of(&self, id: DraftId) -> Class {
        self.0[id.index()]
    }
}

/// The class of every position reached from `root`: equal for those of the same structure, whatever the order
/// of their keys.
///
/// Starts with all alike and splits classes until nothing more tells their members apart, so that positions
/// that contain themselves are equal when no look inside, however deep, shows a difference.
pub(crate) fn same_types(draft: &Draft, positions: &[DraftId]) -> Classes {
    let mut classes = Classes(vec![Class(0); draft.len()]);
    let mut count = 1;
    loop {
        let mut structures = HashMap::new();
        let mut refined = Classes(vec![Class(0); draft.len()]);
        for id in positions {
            let next = Class(structures.len());
            // What a document tells apart by name is not the same thing, however alike.
            let structure = (&draft.node(*id).name, Structure::of(draft, *id, &classes));
            refined.0[id.index()] = *structures.entry(structure).or_insert(next);
        }
        let settled = structures.len() == count;
        count = structures.len();
        classes = refined;
        if settled {
            return classes;
        }
    }
}

/// What a position looks like when the classes of its parts are known.
#[derive(PartialEq, Eq, Hash)]
enum Structure<'d> {
    Any,
    Scalar(Scalar),
    Constant(&'d WireName),
    Enumeration(&'d [WireName]),
    List(Part),
    Map(Part),
    Tuple(Vec<Part>),
    Record(Vec<(&'d WireName, Presence, Part)>),
    Union(Option<&'d WireName>, Vec<(Option<&'d WireName>, Part)>),
}

type Part = (Class, bool);

impl<'d> Structure<'d> {
    fn of(draft: &'d Draft, id: DraftId, classes: &Classes) -> Self {
        let part = |id: DraftId| (classes.of(id), draft.node(id).nullable);
        match &draft.node(id).kind {
            DraftKind::Any => Self::Any,
            DraftKind::Scalar(scalar) => Self::Scalar(scalar.with_time_forms(TimeForms::ALL)),
            DraftKind::Constant(text) => Self::Constant(text),
            DraftKind::Enumeration(known) => Self::Enumeration(known),
            DraftKind::List(items) => Self::List(part(*items)),
            DraftKind::Map(values) => Self::Map(part(*values)),
            DraftKind::Tuple(items) => Self::Tuple(items.iter().map(|item| part(*item)).collect()),
            DraftKind::Record(fields) => {
                let mut parts: Vec<_> =
                    fields.iter().map(|field| (&field.wire, field.presence, part(field.node))).collect();
                parts.sort_unstable();
                Self::Record(parts)
            }
            DraftKind::Union { tag, cases } => {
                let case = |DraftCase { tag, node }: &'d DraftCase| (tag.as_ref(), part(*node));
                Self::Union(tag.as_ref(), cases.iter().map(case).collect())
            }
        }
    }
}

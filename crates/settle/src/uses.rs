//! Uses: where in the draft each record stands, and which names lead there.

use std::collections::VecDeque;

use jar_sprout_model::{Draft, DraftId, DraftKind, Words};

use crate::singular::singular;

/// All positions reached from the root, the shallow ones first.
pub(crate) struct Uses {
    /// Every position, once.
    pub(crate) positions: Vec<DraftId>,
    /// Every record with the names that lead to it.
    pub(crate) records: Vec<Use>,
}

/// A record's position, and the names on the way to it.
pub(crate) struct Use {
    pub(crate) node: DraftId,
    /// From the root's name to the record's own; never empty.
    pub(crate) trail: Vec<Words>,
}

impl Use {
    /// The record's own name.
    pub(crate) fn name(&self) -> &Words {
        self.trail.last().expect("a trail starts with the root's name")
    }
}

/// Walks the draft breadth first. A list's item is called by the singular of the list's name.
pub(crate) fn find_uses(draft: &Draft, root: DraftId, root_name: &Words) -> Uses {
    let mut uses = Uses { positions: Vec::new(), records: Vec::new() };
    let mut met = vec![false; draft.len()];
    let mut queue = VecDeque::from([(root, vec![root_name.clone()])]);
    while let Some((id, trail)) = queue.pop_front() {
        if std::mem::replace(&mut met[id.index()], true) {
            continue;
        }
        uses.positions.push(id);
        match &draft.node(id).kind {
            DraftKind::Any | DraftKind::Scalar(_) => {}
            DraftKind::List(part) | DraftKind::Map(part) => queue.push_back((*part, trail_to_item(trail))),
            DraftKind::Record(fields) => {
                for field in fields {
                    let mut longer = trail.clone();
                    longer.push(Words::split(field.wire.as_str()));
                    queue.push_back((field.node, longer));
                }
                uses.records.push(Use { node: id, trail });
            }
        }
    }
    uses
}

fn trail_to_item(mut trail: Vec<Words>) -> Vec<Words> {
    if let Some(name) = trail.last_mut() {
        *name = singular(name);
    }
    trail
}

//! Endless lists: a list whose items are such lists has no end that a type without a name could say.

use jar_sprout_model::{Draft, DraftId, DraftKind};

/// The most lists, maps and tuples in each other with no named type between.
const DEEPEST: usize = 128;

#[derive(Clone, Copy, PartialEq, Eq)]
enum State {
    New,
    Active,
    Done,
}

/// Makes any value of what a list, map or tuple holds where that leads back to itself, or goes too deep.
pub(super) fn cut(draft: &mut Draft) {
    let mut states = vec![State::New; draft.len()];
    let starts: Vec<DraftId> = draft.ids().collect();
    for start in starts {
        let mut stack = vec![(start, 0)];
        while let Some((id, at)) = stack.pop() {
            states[id.index()] = State::Active;
            let Some(part) = part(&draft.node(id).kind, at) else {
                states[id.index()] = State::Done;
                continue;
            };
            stack.push((id, at + 1));
            match states[part.index()] {
                State::Done => {}
                State::New if stack.len() < DEEPEST => stack.push((part, 0)),
                State::New | State::Active => {
                    let any = draft.add(DraftKind::Any, false);
                    states.push(State::Done);
                    replace(draft, id, at, any);
                }
            }
        }
    }
}

/// One of the parts that stand in a node with no named type between.
fn part(kind: &DraftKind, at: usize) -> Option<DraftId> {
    match kind {
        DraftKind::List(part) | DraftKind::Map(part) => (at == 0).then_some(*part),
        DraftKind::Tuple(parts) => parts.get(at).copied(),
        DraftKind::Any
        | DraftKind::Scalar(_)
        | DraftKind::Constant(_)
        | DraftKind::Record { .. }
        | DraftKind::Enumeration(_)
        | DraftKind::Union { .. } => None,
    }
}

fn replace(draft: &mut Draft, id: DraftId, at: usize, part: DraftId) {
    let node = draft.node(id);
    let nullable = node.nullable;
    let kind = match node.kind.clone() {
        DraftKind::List(_) => DraftKind::List(part),
        DraftKind::Map(_) => DraftKind::Map(part),
        DraftKind::Tuple(mut parts) => {
            parts[at] = part;
            DraftKind::Tuple(parts)
        }
        other => other,
    };
    draft.set(id, kind, nullable);
}

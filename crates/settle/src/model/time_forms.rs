//! How times are written at all positions of a type, which takes its parts from the first of them.

use foldhash::HashMap as FastMap;
use jar_sprout_model::{Draft, DraftId, DraftKind, TimeForms};

use crate::model::naming_sites::Use;

/// For each time that stands at several positions of a type, the ways that write back what stands at all of them:
/// whichever of the positions the type takes its parts from.
pub(crate) fn time_forms(draft: &Draft, groups: &[Vec<&Use>]) -> FastMap<DraftId, TimeForms> {
    let mut pairs = Pairs { draft, found: Vec::new() };
    for group in groups {
        if let Some((first, others)) = group.split_first() {
            // A position may be reached in several ways.
            let others = others.iter().filter(|other| other.node != first.node);
            others.for_each(|other| pairs.find_in(first.node, other.node));
        }
    }
    shared(draft, &pairs.found)
}

/// What both sides of each pair have, until no pair differs.
fn shared(draft: &Draft, pairs: &[(DraftId, DraftId)]) -> FastMap<DraftId, TimeForms> {
    let own = |id: &DraftId| match &draft.node(*id).kind {
        DraftKind::Scalar(scalar) => scalar.time_forms().unwrap_or_default(),
        _ => TimeForms::ALL,
    };
    let mut forms: FastMap<DraftId, TimeForms> =
        pairs.iter().flat_map(|(one, other)| [one, other]).map(|id| (*id, own(id))).collect();
    loop {
        let mut is_settled = true;
        for (one, other) in pairs {
            let both = forms[one].and(forms[other]);
            for id in [one, other] {
                is_settled &= forms.insert(*id, both) == Some(both);
            }
        }
        if is_settled {
            return forms;
        }
    }
}

/// The times that stand at the same place of two positions of one structure.
struct Pairs<'d> {
    draft: &'d Draft,
    found: Vec<(DraftId, DraftId)>,
}

impl Pairs<'_> {
    /// Those in what two positions hold that has no name of its own.
    fn find_in(&mut self, one: DraftId, other: DraftId) {
        let draft = self.draft;
        match (&draft.node(one).kind, &draft.node(other).kind) {
            (
                DraftKind::Record { fields: mine, extras: more },
                DraftKind::Record { fields: theirs, extras: other },
            ) => {
                if let (Some(more), Some(other)) = (more, other) {
                    self.find(*more, *other);
                }
                for field in mine {
                    // In either, keys stand in an order of their own.
                    if let Some(same) = theirs.iter().find(|same| same.wire == field.wire) {
                        self.find(field.node, same.node);
                    }
                }
            }
            (DraftKind::Union { cases: mine, .. }, DraftKind::Union { cases: theirs, .. }) => {
                mine.iter().zip(theirs).for_each(|(mine, theirs)| self.find(mine.node, theirs.node));
            }
            _ => {}
        }
    }

    fn find(&mut self, one: DraftId, other: DraftId) {
        let draft = self.draft;
        match (&draft.node(one).kind, &draft.node(other).kind) {
            (DraftKind::Scalar(mine), DraftKind::Scalar(_)) if mine.time_forms().is_some() => {
                self.found.push((one, other));
            }
            (DraftKind::List(mine), DraftKind::List(theirs))
            | (DraftKind::Map(mine), DraftKind::Map(theirs)) => {
                self.find(*mine, *theirs);
            }
            (DraftKind::Tuple(mine), DraftKind::Tuple(theirs)) => {
                mine.iter().zip(theirs).for_each(|(mine, theirs)| self.find(*mine, *theirs));
            }
            // What has a name is a group of its own.
            _ => {}
        }
    }
}

#[cfg(test)]
mod tests {
    use jar_sprout_model::{DraftField, Presence, Scalar, WireName};

    use super::*;

    #[test]
    fn lists_share_what_their_items_have() {
        let mut draft = Draft::default();
        let mut position = |text: &str| {
            let scalar = Scalar::DateTime(TimeForms::of(text));
            let item = draft.add(DraftKind::Scalar(scalar), false);
            let node = draft.add(DraftKind::List(item), false);
            let field = DraftField::new(WireName::new("seen"), Presence::Always, node);
            (draft.add(DraftKind::Record { fields: vec![field], extras: None }, false), item)
        };
        let (first, item) = position("2026-05-01T12:30:00.120Z");
        let (other, same) = position("2026-05-01T12:30:00Z");
        let mut pairs = Pairs { draft: &draft, found: Vec::new() };
        pairs.find_in(first, other);
        let both = TimeForms::of("2026-05-01T12:30:00.120Z").and(TimeForms::of("2026-05-01T12:30:00Z"));
        assert_eq!(shared(&draft, &pairs.found), FastMap::from_iter([(item, both), (same, both)]));
    }
}

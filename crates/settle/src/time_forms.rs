//! How times are written at all positions of a type, which takes its parts from the first of them.

use std::collections::HashMap;

use jar_sprout_model::{Draft, DraftId, DraftKind, TimeForms};

use crate::uses::Use;

/// For each time in the first position of each group, the ways that write back what stands in all of its positions.
pub(crate) fn time_forms(draft: &Draft, groups: &[Vec<&Use>]) -> HashMap<DraftId, TimeForms> {
    let mut shared = Shared { draft, forms: HashMap::new() };
    for group in groups {
        if let Some((first, others)) = group.split_first() {
            others.iter().for_each(|other| shared.share_parts(first.node, other.node));
        }
    }
    shared.forms
}

struct Shared<'d> {
    draft: &'d Draft,
    forms: HashMap<DraftId, TimeForms>,
}

impl Shared<'_> {
    /// Two positions of one structure: what they hold that has no name of its own.
    fn share_parts(&mut self, first: DraftId, other: DraftId) {
        let draft = self.draft;
        match (&draft.node(first).kind, &draft.node(other).kind) {
            (DraftKind::Record(mine), DraftKind::Record(theirs)) => {
                for field in mine {
                    // In either, keys stand in an order of their own.
                    if let Some(same) = theirs.iter().find(|same| same.wire == field.wire) {
                        self.share(field.node, same.node);
                    }
                }
            }
            (DraftKind::Union { cases: mine, .. }, DraftKind::Union { cases: theirs, .. }) => {
                mine.iter().zip(theirs).for_each(|(mine, theirs)| self.share(mine.node, theirs.node));
            }
            _ => {}
        }
    }

    fn share(&mut self, first: DraftId, other: DraftId) {
        let draft = self.draft;
        match (&draft.node(first).kind, &draft.node(other).kind) {
            (DraftKind::Scalar(mine), DraftKind::Scalar(theirs)) => {
                if let (Some(mine), Some(theirs)) = (mine.time_forms(), theirs.time_forms()) {
                    let forms = self.forms.entry(first).or_insert(mine);
                    *forms = forms.and(theirs);
                }
            }
            (DraftKind::List(mine), DraftKind::List(theirs))
            | (DraftKind::Map(mine), DraftKind::Map(theirs)) => {
                self.share(*mine, *theirs);
            }
            (DraftKind::Tuple(mine), DraftKind::Tuple(theirs)) => {
                mine.iter().zip(theirs).for_each(|(mine, theirs)| self.share(*mine, *theirs));
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
            let docs = jar_sprout_model::Docs::default();
            let field = DraftField { wire: WireName::new("seen"), presence: Presence::Always, node, docs };
            (draft.add(DraftKind::Record(vec![field]), false), item)
        };
        let (first, item) = position("2026-05-01T12:30:00.120Z");
        let (other, _) = position("2026-05-01T12:30:00Z");
        let mut shared = Shared { draft: &draft, forms: HashMap::new() };
        shared.share_parts(first, other);
        let both = TimeForms::of("2026-05-01T12:30:00.120Z").and(TimeForms::of("2026-05-01T12:30:00Z"));
        assert_eq!(shared.forms, HashMap::from([(item, both)]));
    }
}

//! Names: one for each type, from the keys that lead to it.

use std::collections::{BTreeMap, HashSet};

use jar_sprout_model::Words;

use crate::uses::Use;

/// A type's name, and longer ones that fit too.
pub(crate) struct Named {
    pub(crate) name: Words,
    pub(crate) alternatives: Vec<Words>,
}

/// Names for types, each given by its uses; the shallow types come first and get the short names.
///
/// A clash is resolved by the parent's word, then the grandparent's; by a number only when all words are used up.
pub(crate) fn name_types(types: &[Vec<&Use>]) -> Vec<Named> {
    let mut taken = HashSet::new();
    types.iter().map(|uses| name_type(uses, &mut taken)).collect()
}

fn name_type(uses: &[&Use], taken: &mut HashSet<String>) -> Named {
    let first = uses.first().expect("a type is made for a use");
    let base = fitting_name(uses);
    let mut candidates = vec![base.clone()];
    let mut longer = base.clone();
    for ancestor in first.trail.iter().rev().skip(1) {
        longer = longer.prefixed(ancestor);
        candidates.push(longer.clone());
    }
    let numbered = (2..).map(|n: u32| base.with_word(&n.to_string()));
    let name = candidates
        .iter()
        .cloned()
        .chain(numbered)
        .find(|name| taken.insert(joined(name)))
        .expect("there is always a higher number");
    let alternatives =
        candidates.into_iter().filter(|other| other.iter().len() > name.iter().len()).collect();
    Named { name, alternatives }
}

/// Languages join words without a gap, and disks fold case: names that differ only there are the same.
fn joined(name: &Words) -> String {
    name.iter().collect()
}

/// The name that fits every use: the one they share, else the end they share, else the most frequent one.
fn fitting_name(uses: &[&Use]) -> Words {
    shared_name(uses).unwrap_or_else(|| {
        let mut counts: BTreeMap<&Words, usize> = BTreeMap::new();
        uses.iter().for_each(|one| *counts.entry(one.name()).or_default() += 1);
        // Among equally frequent ones the first use decides.
        let most = counts.values().max().copied().unwrap_or(0);
        uses.iter().map(|one| one.name()).find(|name| counts[name] == most).expect("there is a use").clone()
    })
}

/// The name or the end of a name that all uses share.
pub(crate) fn shared_name(uses: &[&Use]) -> Option<Words> {
    let (first, rest) = uses.split_first()?;
    rest.iter().try_fold(first.name().clone(), |shared, one| shared.common_end(one.name()))
}

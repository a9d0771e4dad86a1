//! Names: one for each type, from the keys that lead to it.

use std::collections::{BTreeMap, BTreeSet, HashSet};

use foldhash::fast::RandomState;
use jar_sprout_model::{Draft, DraftField, DraftId, DraftKind, Words};

use crate::model::envelope::is_container;
use crate::model::naming_sites::{Use, kind_word};
use crate::model::{Places, is_of_plain_kinds};
use crate::singular::singular;

/// A type's name, and longer ones that fit too.
#[derive(Debug, Clone)]
pub(crate) struct Named {
    pub(crate) name: Words,
    pub(crate) alternatives: Vec<Words>,
}

/// Names for types, each given by its uses; those that a document names come first, then the shallow types, which
/// get the short names.
///
/// A clash is resolved by the name of the type it stands in, then of the one around that; by a number only when all
/// words are used up.
pub(crate) fn name_types(draft: &Draft, types: &[Vec<&Use>], places: &Places) -> Vec<Named> {
    let mut names = Names { draft, places, taken: HashSet::default(), given: vec![None; types.len()] };
    let is_declared = |uses: &[&Use]| uses.first().is_some_and(|one| one.declared.is_some());
    let groups = || types.iter().enumerate();
    let mut named: Vec<Option<Named>> =
        groups().map(|(group, uses)| is_declared(uses).then(|| names.name(group, uses))).collect();
    for (slot, (group, uses)) in named.iter_mut().zip(groups()) {
        slot.get_or_insert_with(|| names.name(group, uses));
    }
    named.into_iter().flatten().collect()
}

/// The deepest that a type is looked for in itself: chains may be of any length, and each is looked through.
const DEEPEST: usize = 64;

/// The most types, and the most keys, around a type that its name may borrow from.
const FARTHEST: usize = 8;

/// A record of so few fields is called after what it stands in rather than after one of its many uses.
const SMALL: usize = 4;

/// With so many names and more, no single one fits a type.
const MANY_NAMES: usize = 3;

/// The names given so far.
struct Names<'p> {
    draft: &'p Draft,
    places: &'p Places,
    taken: HashSet<String, RandomState>,
    /// By type.
    given: Vec<Option<Words>>,
}

impl Names<'_> {
    fn name(&mut self, group: usize, uses: &[&Use]) -> Named {
        let candidates = self.candidates(group, uses);
        let base = candidates[0].clone();
        let numbered = (2..).map(|n: u32| base.with_word(&n.to_string()));
        let name = candidates
            .iter()
            .cloned()
            .chain(numbered)
            .find(|name| self.taken.insert(joined(name)))
            .expect("there is always a higher number");
        self.given[group] = Some(name.clone());
        let alternatives = candidates.into_iter().filter(|other| other.count() > name.count()).collect();
        Named { name, alternatives }
    }

    /// The names that fit a type, the best first.
    fn candidates(&self, group: usize, uses: &[&Use]) -> Vec<Words> {
        // The uses outside itself: a mother in a queen is a queen.
        let is_own = |around: &DraftId| self.places.group(*around) == Some(group);
        let mut outer =
            uses.iter().filter(|one| !one.within.iter().take(DEEPEST).any(is_own)).copied().peekable();
        let first = outer.peek().or(uses.first()).copied().expect("a type is made for a use");
        let mut outer_uses = Vec::new();
        if first.declared.is_none() {
            outer_uses.extend(outer);
        }
        let uses = if outer_uses.is_empty() { uses } else { &outer_uses };
        let own = first.declared.clone().unwrap_or_else(|| self.fitting_name(uses));
        let ending = first.ending.as_ref();
        let whole = |name: Words| ending.map_or_else(|| name.clone(), |ending| ending.prefixed(&name));
        let base = whole(own.clone());
        let mut candidates = vec![base.clone()];
        for around in self.around(first) {
            let longer = whole(with_parent(&own, &around));
            if !candidates.contains(&longer) {
                candidates.push(longer);
            }
        }
        // A link in a link, with nothing else around it.
        candidates.push(base.with_word("details"));
        // A status is a hive's or a queen's, unless both have the same.
        // The status of a new hive is a hive's as well.
        let is_family = |one: &Use| match (self.parent(one), self.parent(first)) {
            (Some(other), Some(parent)) => other.ends_in(parent),
            (other, parent) => other == parent,
        };
        let is_of_kinds = self.of_kinds(uses).is_some_and(|kinds| kinds == base);
        if first.leans_on_parent
            && !is_of_kinds
            && candidates.len() > 2
            && uses.iter().all(|one| is_family(one))
        {
            candidates.swap(0, 1);
        }
        candidates
    }

    /// The name that fits every use: the one they share, else the end they share, else what their parent has many of;
    /// else, of few, the most frequent one; else what it is made of.
    fn fitting_name(&self, uses: &[&Use]) -> Words {
        let mut counts: BTreeMap<&Words, usize> = BTreeMap::new();
        uses.iter().for_each(|one| *counts.entry(one.name()).or_default() += 1);
        // Among equally frequent ones the first use decides.
        let most = counts.values().max().copied().unwrap_or(0);
        let frequent = || {
            uses.iter()
                .map(|one| one.name())
                .find(|name| counts[name] == most)
                .expect("there is a use")
                .clone()
        };
        if let (Some(kinds), 2..) = (self.of_kinds(uses), counts.len()) {
            return shared_name(uses).filter(|shared| shared.count() > 1).unwrap_or(kinds);
        }
        let is_usual = counts.len() < MANY_NAMES || most * 2 > uses.len();
        shared_name(uses).or_else(|| self.one_of_parent(uses)).unwrap_or_else(|| match is_usual {
            true => frequent(),
            false => self.of_parts(uses).unwrap_or_else(frequent),
        })
    }

    /// `small`, `medium` and `large` in `images` are images, if nothing else is in there.
    fn one_of_parent(&self, uses: &[&Use]) -> Option<Words> {
        let parent = |one: &&Use| one.trail.iter().nth(1).cloned();
        let first = parent(uses.first()?)?;
        let one = singular(&first);
        let group = self.places.group(uses.first()?.node);
        let is_filled = |one: &&Use| match one.within.iter().next().map(|node| &self.draft.node(*node).kind) {
            Some(DraftKind::Record { fields, .. }) => {
                let own =
                    fields.iter().filter(|field| self.places.group(self.held(field.node)) == group).count();
                own * 2 > fields.len()
            }
            _ => true,
        };
        let is_one = one != first && uses.iter().all(|one| parent(one).as_ref() == Some(&first));
        (is_one && uses.iter().all(is_filled)).then_some(one)
    }

    /// A number or a text is one wherever it stands.
    fn of_kinds(&self, uses: &[&Use]) -> Option<Words> {
        let node = uses.first()?.node;
        let DraftKind::Union { cases, .. } = &self.draft.node(node).kind else { return None };
        let words =
            cases.iter().map(|case| kind_word(self.draft, case.node)).collect::<Vec<_>>().join(" or ");
        is_of_plain_kinds(self.draft, node).then(|| Words::split(&words))
    }

    /// What stands in lists and maps.
    fn held(&self, mut node: DraftId) -> DraftId {
        while let DraftKind::List(part) | DraftKind::Map(part) = self.draft.node(node).kind {
            node = part;
        }
        node
    }

    /// A latitude and a longitude are a `LatLng`, whatever place they are of; what has more in it is a part of what it
    /// stands in.
    fn of_parts(&self, uses: &[&Use]) -> Option<Words> {
        let first = uses.first()?;
        let DraftKind::Record { fields, .. } = &self.draft.node(first.node).kind else { return None };
        let is_named = |field: &&DraftField| !is_idle(field.name.last());
        let parents: BTreeSet<&Words> = uses.iter().filter_map(|one| self.parent(one)).collect();
        let whole = first.trail.iter().last();
        let whole = parents.first().copied().filter(|_| parents.len() == 1).or(whole);
        match &fields[..] {
            [a, b] if fields.iter().all(|field| is_named(&field)) => Some(b.name.prefixed(&a.name)),
            [one] if parents.len() > 1 && is_named(&one) => Some(one.name.clone()),
            // What is big is something by itself, and the most frequent name is the best guess.
            _ if fields.len() > SMALL => None,
            _ => whole.map(|whole| whole.with_word("part")),
        }
    }

    /// The names of the types around a use, the nearest first; then the keys that lead to it, joined.
    fn around(&self, one: &Use) -> Vec<Words> {
        let types = self.worded(one).filter_map(|node| self.name_at(node)).take(FARTHEST).cloned();
        let mut trail: Vec<Words> = Vec::new();
        for key in one.trail.iter().skip(1).take(FARTHEST) {
            trail.push(trail.last().map_or_else(|| key.clone(), |inner| inner.prefixed(key)));
        }
        types.chain(trail).collect()
    }

    fn parent(&self, one: &Use) -> Option<&Words> {
        self.worded(one).next().and_then(|node| self.name_at(node))
    }

    /// The positions around a use that have a word for what stands in them: a union of kinds has none.
    fn worded(&self, one: &Use) -> impl Iterator<Item = DraftId> {
        let has_word =
            |node: &DraftId| !matches!(self.draft.node(*node).kind, DraftKind::Union { tag: None, .. });
        one.within.iter().copied().filter(has_word)
    }

    /// The name that the type of a position has so far.
    fn name_at(&self, node: DraftId) -> Option<&Words> {
        self.given[self.places.group(node)?].as_ref()
    }
}

/// A name with its parent's before it; a word that both share at the seam stands once.
fn with_parent(name: &Words, parent: &Words) -> Words {
    if name.iter().next() == Some(parent.last()) {
        let rest = name.iter().skip(1).fold(parent.clone(), |words, word| words.with_word(word));
        return rest;
    }
    name.prefixed(parent)
}

/// Languages join words without a gap, and disks fold case: names that differ only there are the same.
fn joined(name: &Words) -> String {
    name.iter().collect()
}

/// The name or the end of a name that all uses share, if it is a name.
fn shared_name(uses: &[&Use]) -> Option<Words> {
    let (first, rest) = uses.split_first()?;
    let shared = rest.iter().try_fold(first.name().clone(), |shared, one| shared.common_end(one.name()))?;
    // One that all of them have is one, whatever it is.
    let is_whole = uses.iter().all(|one| *one.name() == shared);
    let says_something = shared.iter().any(|word| !is_idle(word) && word != "item");
    (is_whole || says_something && (shared.count() > 1 || !is_idle(shared.last()))).then_some(shared)
}

/// Whether a word alone is no name: one that binds others, or says no more than that something is in there.
fn is_idle(word: &str) -> bool {
    const BINDING: &[&str] = &[
        "as", "at", "by", "for", "from", "in", "of", "on", "or", "and", "to", "with", "many", "text",
        "details",
    ];
    BINDING.contains(&word) || is_container(word)
}

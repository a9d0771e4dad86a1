//! What a field is in one of several kinds of object.

use std::collections::BTreeSet;

use jar_sprout_model::{Kind, KindSet};

use super::{Drafter, View};
use crate::draft::graph::{FieldPart, Graph, NodeId};
use crate::draft::tags::{Tagged, TaggedCase, children_beside, keys_of, kinds_in_case};
use crate::draft::variants::{VariantPart, Variants};

impl Drafter<'_> {
    /// What a field is in some variants of its record: fewer kinds and texts, and fewer variants of its own where these
    /// fall apart just as their holders do.
    pub(super) fn narrowed(
        &self,
        key: &str,
        field: &FieldPart,
        shown: &[&VariantPart],
        case: Option<&Case<'_>>,
    ) -> View {
        let parts = || shown.iter().filter_map(|part| part.keys.get(key));
        let node = self.graph.node(field.node);
        let told = case.and_then(|case| case.kinds(self.graph, key));
        let pooled = || parts().fold(KindSet::default(), |all, part| all.and(part.kinds));
        let kinds = told.map_or_else(pooled, |(kinds, _)| kinds);
        let nulls = if kinds.has(Kind::Null) { field.nulls.count } else { 0 };
        let kinds = as_there(kinds.but_null(), node.kinds());
        let pooled = || parts().fold(KindSet::default(), |all, part| all.and(part.items));
        let items = told.map_or_else(pooled, |(_, items)| items);
        let is_same = kinds.as_seen().eq(node.kinds().as_seen());
        let texts = case.and_then(|case| case.own_texts(self.graph, key, shown));
        // Texts that other kinds have as well are counted with theirs.
        let are_own = !kinds.has(Kind::Text) || texts.is_some() || node.few_texts().is_none();
        View {
            nulls,
            kinds: if is_same { None } else { Some(kinds) },
            items: node.lists.as_ref().and_then(|lists| {
                let (all, nulls) = (self.graph.node(lists.items).kinds(), lists.nulls.count > 0);
                let items = as_there(items, all);
                let is_same = items.but_null().as_seen().eq(all.as_seen()) && items.has(Kind::Null) == nulls;
                (!is_same && !items.is_empty()).then_some(items)
            }),
            variants: case.and_then(|case| self.own_children(key, field, case)),
            texts,
            seen: case
                .and_then(|case| case.seen(self.graph, key, shown))
                .filter(|_| are_own && is_plain(kinds)),
            ..View::whole(field.node, field.nulls)
        }
    }

    /// The variants that a field's objects have beside one tag, if they share little with those beside the others.
    fn own_children(&self, key: &str, field: &FieldPart, case: &Case<'_>) -> Option<BTreeSet<u64>> {
        let inner = self.graph.inner_objects(field.node)?;
        let inner = self.graph.objects(inner)?.variants()?;
        let (tagged, told) = case.tag?;
        let holder = case.holder_variants(self.graph)?;
        let beside = |tag: &str| children_beside(holder.values(), &tagged.key, tag, key);
        let mine = beside(&told.tag)?;
        let others = tagged.cases.iter().filter(|other| other.tag != told.tag);
        let theirs = others.map(|case| beside(&case.tag)).collect::<Option<Vec<_>>>()?;
        let theirs: BTreeSet<u64> = theirs.into_iter().flatten().collect();
        if mine.is_empty() || theirs.is_empty() {
            return None;
        }
        let (mine_keys, their_keys) = (keys_of(&mine, inner), keys_of(&theirs, inner));
        let shared = mine_keys.intersection(&their_keys).count();
        (shared * 2 < mine_keys.len()).then_some(mine)
    }
}

/// Kinds that were told with numbers as one, in the words of the position.
fn as_there(kinds: KindSet, position: KindSet) -> KindSet {
    let mut kinds = kinds;
    if kinds.has(Kind::Number) || kinds.has(Kind::Integer) {
        // An integer here is a float if the position has floats.
        kinds.remove(Kind::Number);
        kinds.remove(Kind::Integer);
        kinds.insert(if position.has(Kind::Number) { Kind::Number } else { Kind::Integer });
    }
    kinds
}

/// Whether values of these kinds have no parts.
fn is_plain(kinds: KindSet) -> bool {
    !kinds.has(Kind::List) && !kinds.has(Kind::Object)
}

/// One of several kinds of object, as it is drafted.
pub(super) struct Case<'t> {
    /// All kinds with the key that tells them apart, and this one; none where they are told by their keys.
    pub(super) tag: Option<(&'t Tagged, &'t TaggedCase)>,
    /// The position that falls apart.
    pub(super) holder: NodeId,
    /// The sets of keys that the other kinds have.
    pub(super) others: Vec<&'t BTreeSet<u64>>,
}

impl Case<'_> {
    fn holder_variants<'g>(&self, graph: &'g Graph) -> Option<&'g Variants> {
        graph.node(self.holder).objects.as_ref()?.variants()
    }

    /// The kinds that a key has here, and those of the items of its lists, where a tag tells them.
    fn kinds(&self, graph: &Graph, key: &str) -> Option<(KindSet, KindSet)> {
        let (tagged, told) = self.tag?;
        kinds_in_case(self.holder_variants(graph)?, &tagged.key, told, key)
    }

    /// The texts that a key has here and in the kinds that share some of them, if there are kinds that share none.
    fn own_texts(&self, graph: &Graph, key: &str, shown: &[&VariantPart]) -> Option<BTreeSet<String>> {
        let all = self.holder_variants(graph)?;
        let texts = |parts: &mut dyn Iterator<Item = &VariantPart>| -> Option<BTreeSet<String>> {
            let texts = parts.filter_map(|part| part.keys.get(key)).map(|part| part.texts.as_ref());
            Some(texts.collect::<Option<Vec<_>>>()?.into_iter().flatten().cloned().collect())
        };
        let mut mine = texts(&mut shown.iter().copied())?;
        let theirs = self.others.iter().map(|ids| texts(&mut ids.iter().filter_map(|id| all.get(id))));
        let mut theirs = theirs.collect::<Option<Vec<_>>>()?;
        theirs.retain(|texts| !texts.is_empty());
        while let Some(at) = theirs.iter().position(|texts| !texts.is_disjoint(&mine)) {
            mine.extend(theirs.swap_remove(at));
        }
        (!mine.is_empty() && !theirs.is_empty()).then_some(mine)
    }

    /// How many objects here have a key; none where some of other kinds have just the same keys.
    fn seen(&self, graph: &Graph, key: &str, shown: &[&VariantPart]) -> Option<u64> {
        let all = self.holder_variants(graph)?;
        let others: Vec<&VariantPart> =
            self.others.iter().copied().flatten().filter_map(|id| all.get(id)).collect();
        let mut mine = shown.iter().filter(|part| part.keys.contains_key(key));
        let is_shared = |part: &VariantPart| others.iter().any(|other| std::ptr::eq(*other, part));
        mine.try_fold(0, |count, part| (!is_shared(part)).then_some(count + part.count))
    }
}

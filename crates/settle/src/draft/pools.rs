//! Pools: texts that stand alone at a place or in lists there, one or many of the same; what the one can be, the others can.

use std::collections::BTreeMap;

use jar_sprout_model::{Kind, KindSet};
use jar_sprout_shape::Texts;

use crate::draft::graph::{Graph, NodeId};

/// Texts of which one or many stand at a place.
#[derive(Debug, Clone)]
pub(crate) struct Pool {
    /// Those that stand alone, and those in the lists.
    pub(crate) texts: Texts,
    /// Whether most stand in the lists.
    pub(crate) is_of_items: bool,
}

/// The pools below a position, each under the place and under the items of its lists.
pub(crate) fn pools(graph: &Graph, root: NodeId) -> BTreeMap<NodeId, Pool> {
    let mut pools = BTreeMap::new();
    for one in graph.walk(root) {
        let node = graph.node(one);
        let (Some(alone), Some(lists)) = (&node.texts, &node.lists) else { continue };
        let many = graph.find(lists.items);
        let Some(items) = graph.node(many).texts.as_ref() else { continue };
        if one == many || graph.node(many).kinds() != KindSet::of(Kind::Text) {
            continue;
        }
        let mut texts = alone.clone();
        texts.merge(items.clone());
        let pool = Pool { texts, is_of_items: items.tally.count > alone.tally.count };
        for id in [one, many] {
            pools.entry(id).or_insert_with(|| pool.clone());
        }
    }
    pools
}

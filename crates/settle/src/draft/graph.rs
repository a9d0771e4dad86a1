//! The graph: a shape whose positions can become one.
//!
//! A shape is a tree, one node for each position. Here positions that hold the same thing are united: their
//! counters merge, and so do their parts, key by key. A node that is united with a part of itself is a recursion.

use std::collections::BTreeSet;

use indexmap::IndexMap;
use jar_sprout_model::{Kind, KindSet};
use jar_sprout_shape::{Booleans, Distinct, Lengths, Numbers, Objects, Path, Shape, Step, Tally, Texts};

use crate::draft::evidence::KeyWeight;
use crate::draft::variants::{Variants, merge_variants, variant_part};

/// Index of a node.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, PartialOrd, Ord)]
pub(crate) struct NodeId(usize);

/// Positions, some of them united.
#[derive(Debug, Default)]
pub(crate) struct Graph {
    nodes: Vec<Node>,
    /// The node each was united into; itself if it stands for its position.
    united: Vec<NodeId>,
}

/// What was seen at the positions that a node stands for, but for nulls: whether a value may be null belongs to the
/// place it stands at, not to what it is.
#[derive(Debug, Default)]
pub(crate) struct Node {
    pub(crate) booleans: Booleans,
    pub(crate) numbers: Option<Numbers>,
    pub(crate) texts: Option<Texts>,
    pub(crate) lists: Option<ListPart>,
    pub(crate) objects: Option<ObjectPart>,
    /// Where its objects stand, if other kinds of value stand here as well: they are compared with other objects, and
    /// can be one with them, whatever stands beside them.
    pub(crate) record: Option<RecordPart>,
    /// What its texts are, if each is JSON itself.
    pub(crate) inside: Option<InsidePart>,
    /// Where it stands, the shallow places first.
    pub(crate) paths: Vec<Path>,
}

/// What texts are that are JSON themselves.
#[derive(Debug, Clone, Copy)]
pub(crate) struct InsidePart {
    pub(crate) node: NodeId,
    /// Whether the user said so; else they stay texts.
    pub(crate) is_read: bool,
}

#[derive(Debug)]
pub(crate) struct ListPart {
    pub(crate) tally: Tally,
    pub(crate) empty: u64,
    pub(crate) lengths: Lengths,
    pub(crate) items: NodeId,
    /// Items that were null.
    pub(crate) nulls: Tally,
}

/// Objects that stand at a node of their own.
#[derive(Debug, Clone, Copy)]
pub(crate) struct RecordPart {
    /// Those of this position; the node may have more, of others.
    pub(crate) tally: Tally,
    pub(crate) node: NodeId,
}

#[derive(Debug)]
pub(crate) struct ObjectPart {
    pub(crate) tally: Tally,
    /// Key-value pairs in all objects.
    pub(crate) entries: u64,
    pub(crate) keys: Keys,
}

/// What the keys of objects are.
#[derive(Debug)]
pub(crate) enum Keys {
    /// Names, each with its values.
    Names {
        fields: IndexMap<String, FieldPart>,
        /// The sets of keys that stood together, by id; none if they are too many.
        variants: Option<Variants>,
        /// What stands under keys that are data, beside those that are names.
        extras: Option<ExtrasPart>,
    },
    /// Data: one node for all values.
    Data {
        values: NodeId,
        /// Values that were null.
        nulls: Tally,
        why: KeyWeight,
    },
}

/// What stands under the keys of a record that are data.
#[derive(Debug, Clone, Copy)]
pub(crate) struct ExtrasPart {
    pub(crate) values: NodeId,
    /// Values that were null.
    pub(crate) nulls: Tally,
}

#[derive(Debug, Clone, Copy)]
pub(crate) struct FieldPart {
    pub(crate) seen: Tally,
    /// Values that were null.
    pub(crate) nulls: Tally,
    pub(crate) node: NodeId,
}

/// The most lists in lists that are looked into for objects.
const MAX_LISTS: usize = 8;

/// The most paths that a node remembers.
const MAX_PATHS: usize = 8;

impl Graph {
    /// The graph of a shape, and its root.
    pub(crate) fn of(shape: &Shape) -> (Self, NodeId) {
        let mut graph = Self::default();
        let root = graph.add(shape, &Path::default());
        (graph, root)
    }

    fn add(&mut self, shape: &Shape, path: &Path) -> NodeId {
        let lists = shape.lists.as_ref().map(|lists| ListPart {
            tally: lists.tally,
            empty: lists.empty,
            lengths: lists.lengths.clone(),
            items: self.add(&lists.items, &longer(path, Step::All)),
            nulls: lists.items.nulls,
        });
        let objects = shape.objects.as_ref().map(|objects| self.add_objects(objects, path));
        let inside = shape.texts.as_ref().and_then(|texts| texts.inside());
        let inside = inside.map(|shape| InsidePart { node: self.add(shape, path), is_read: false });
        let id = NodeId(self.nodes.len());
        self.united.push(id);
        self.nodes.push(Node {
            booleans: shape.booleans,
            numbers: shape.numbers.as_deref().cloned(),
            texts: shape.texts.as_deref().cloned(),
            lists,
            objects,
            record: None,
            inside,
            paths: vec![path.clone()],
        });
        self.set_record_apart(id);
        id
    }

    /// Gives the objects of a node one of their own, if other kinds of value stand beside them. Answers two nodes that
    /// are to be united then.
    fn set_record_apart(&mut self, id: NodeId) -> Option<(NodeId, NodeId)> {
        // A position that was united with its own objects holds them no longer apart.
        let is_own = self.nodes[id.0].record.is_some_and(|record| self.find(record.node) == id);
        let node = &mut self.nodes[id.0];
        if is_own {
            node.record = None;
        }
        let kinds = node.kinds();
        if kinds == KindSet::of(Kind::Object) && node.record.is_none() {
            return None;
        }
        let objects = node.objects.take()?;
        let tally = objects.tally;
        let apart = NodeId(self.united.len());
        let paths = node.paths.clone();
        let known = node.record.as_mut().map(|record| {
            record.tally.merge(tally);
            (record.node, apart)
        });
        node.record.get_or_insert(RecordPart { tally, node: apart });
        self.united.push(apart);
        self.nodes.push(Node { objects: Some(objects), paths, ..Node::default() });
        known
    }

    /// The node at which the objects of a position stand: itself, or one of their own.
    pub(crate) fn record(&self, id: NodeId) -> NodeId {
        let id = self.find(id);
        self.nodes[id.0].record.map_or(id, |record| self.find(record.node))
    }

    /// The objects of a position, or in the lists there; none where there are both.
    pub(crate) fn inner_objects(&self, id: NodeId) -> Option<NodeId> {
        let mut id = id;
        // A list of lists may hold itself.
        for _ in 0..MAX_LISTS {
            let node = self.node(id);
            match (node.own_objects().count > 0, &node.lists) {
                (true, None) => return Some(self.record(id)),
                (false, Some(lists)) => id = lists.items,
                (true, Some(_)) | (false, None) => return None,
            }
        }
        None
    }

    /// The objects of a position.
    pub(crate) fn objects(&self, id: NodeId) -> Option<&ObjectPart> {
        self.node(self.record(id)).objects.as_ref()
    }

    /// The fields of a position's objects, if their keys are names.
    pub(crate) fn fields(&self, id: NodeId) -> Option<&IndexMap<String, FieldPart>> {
        self.node(self.record(id)).fields()
    }

    fn add_objects(&mut self, objects: &Objects, path: &Path) -> ObjectPart {
        let keys = match objects.crowd() {
            Some(values) => Keys::Data {
                values: self.add(values, &longer(path, Step::All)),
                nulls: values.nulls,
                why: KeyWeight::beyond_names(),
            },
            None => Keys::Names {
                fields: objects
                    .fields()
                    .into_iter()
                    .map(|field| {
                        let key = field.key.to_string();
                        let node = self.add(&field.shape, &longer(path, Step::Child(key.clone())));
                        (key, FieldPart { seen: field.seen, nulls: field.shape.nulls, node })
                    })
                    .collect(),
                variants: objects.variants().map(|variants| variants.iter().map(variant_part).collect()),
                extras: None,
            },
        };
        ObjectPart { tally: objects.tally, entries: objects.entries, keys }
    }

    /// The node that stands for a position.
    pub(crate) fn find(&self, id: NodeId) -> NodeId {
        let mut id = id;
        while self.united[id.0] != id {
            id = self.united[id.0];
        }
        id
    }

    /// What was seen at a position and those united with it.
    pub(crate) fn node(&self, id: NodeId) -> &Node {
        &self.nodes[self.find(id).0]
    }

    /// Unites two positions and, key by key, their parts. The first one stands for both.
    pub(crate) fn unite(&mut self, a: NodeId, b: NodeId) {
        let mut pairs = vec![(a, b)];
        while let Some((a, b)) = pairs.pop() {
            let (a, b) = (self.find(a), self.find(b));
            if a != b {
                self.united[b.0] = a;
                let theirs = std::mem::take(&mut self.nodes[b.0]);
                self.nodes[a.0].take_in(theirs, &mut pairs);
                pairs.extend(self.set_record_apart(a));
            }
        }
    }

    /// Says that the keys at a position are data, and unites their values.
    pub(crate) fn make_map(&mut self, id: NodeId, why: KeyWeight) {
        let id = self.find(id);
        let Some(objects) = &self.nodes[id.0].objects else { return };
        let Keys::Names { fields, extras, .. } = &objects.keys else { return };
        let mut values: Vec<NodeId> = fields.values().map(|field| field.node).collect();
        let mut nulls = Tally::default();
        fields.values().for_each(|field| nulls.merge(field.nulls));
        if let Some(extras) = extras {
            nulls.merge(extras.nulls);
            values.push(extras.values);
        }
        let Some((first, rest)) = values.split_first() else { return };
        let (first, rest) = (*first, rest.to_vec());
        if let Some(objects) = &mut self.nodes[id.0].objects {
            objects.keys = Keys::Data { values: first, nulls, why };
        }
        rest.into_iter().for_each(|other| self.unite(first, other));
    }

    /// Says that some of the keys at a position are data, and unites what stands under them.
    pub(crate) fn make_extras(&mut self, id: NodeId, keys: &[String]) {
        let id = self.find(id);
        let Some(objects) = &mut self.nodes[id.0].objects else { return };
        let Keys::Names { fields, variants, extras } = &mut objects.keys else { return };
        let mut parts: Vec<NodeId> = extras.iter().map(|extras| extras.values).collect();
        let mut nulls = extras.map_or_else(Tally::default, |extras| extras.nulls);
        for key in keys {
            if let Some(field) = fields.shift_remove(key) {
                nulls.merge(field.nulls);
                parts.push(field.node);
            }
        }
        // Sets of keys that are data tell no kinds apart.
        *variants = None;
        let Some((first, rest)) = parts.split_first() else { return };
        *extras = Some(ExtrasPart { values: *first, nulls });
        for other in rest {
            self.unite(*first, *other);
        }
    }

    /// What stands in the texts of a position, if they are read as JSON and nothing else stands there.
    pub(crate) fn read_inside(&self, id: NodeId) -> Option<NodeId> {
        let node = self.node(id);
        let inside = node.inside.filter(|inside| inside.is_read)?;
        (node.kinds() == KindSet::of(Kind::Text)).then(|| self.find(inside.node))
    }

    /// Says that the texts of a position are read as JSON, if all of them are.
    pub(crate) fn read_texts(&mut self, id: NodeId) {
        let id = self.find(id);
        if let Some(inside) = &mut self.nodes[id.0].inside {
            inside.is_read = true;
        }
    }

    /// Every position once, the shallow ones first.
    pub(crate) fn walk(&self, root: NodeId) -> Vec<NodeId> {
        let mut met = BTreeSet::new();
        let mut order = vec![self.find(root)];
        met.insert(order[0]);
        let mut next = 0;
        while let Some(&id) = order.get(next) {
            next += 1;
            for part in self.parts(id) {
                let part = self.find(part);
                if met.insert(part) {
                    order.push(part);
                }
            }
        }
        order
    }

    /// The positions directly below one, in order.
    pub(crate) fn parts(&self, id: NodeId) -> Vec<NodeId> {
        let node = self.node(id);
        let mut parts: Vec<NodeId> = node.lists.iter().map(|lists| lists.items).collect();
        parts.extend(node.record.map(|record| record.node));
        parts.extend(node.inside.filter(|inside| inside.is_read).map(|inside| inside.node));
        match node.objects.as_ref().map(|objects| &objects.keys) {
            None => {}
            Some(Keys::Data { values, .. }) => parts.push(*values),
            Some(Keys::Names { fields, extras, .. }) => {
                parts.extend(fields.values().map(|field| field.node));
                parts.extend(extras.map(|extras| extras.values));
            }
        }
        parts
    }
}

fn longer(path: &Path, step: Step) -> Path {
    let mut path = path.clone();
    path.0.push(step);
    path
}

impl Node {
    /// The kinds of value seen, never null; an integer beside a fraction is a float.
    pub(crate) fn kinds(&self) -> KindSet {
        let has_fractions = self.numbers.as_ref().is_some_and(Numbers::has_fractions);
        let number = if has_fractions { Kind::Number } else { Kind::Integer };
        [
            (self.booleans.count() > 0).then_some(Kind::Boolean),
            self.numbers.as_ref().map(|_| number),
            self.texts.as_ref().map(|_| Kind::Text),
            self.lists.as_ref().map(|_| Kind::List),
            (self.objects.is_some() || self.record.is_some()).then_some(Kind::Object),
        ]
        .into_iter()
        .flatten()
        .collect()
    }

    /// How many values were seen that were not null.
    pub(crate) fn seen(&self) -> u64 {
        self.booleans.count()
            + self.numbers.as_ref().map_or(0, Numbers::count)
            + self.texts.as_ref().map_or(0, |texts| texts.tally.count)
            + self.lists.as_ref().map_or(0, |lists| lists.tally.count)
            + self.own_objects().count
    }

    /// The objects of this position.
    pub(crate) fn own_objects(&self) -> Tally {
        let apart = self.record.map(|record| record.tally);
        self.objects.as_ref().map(|objects| objects.tally).or(apart).unwrap_or_default()
    }

    /// What stands under keys that are data, beside those that are names.
    pub(crate) fn extras(&self) -> Option<ExtrasPart> {
        match &self.objects.as_ref()?.keys {
            Keys::Names { extras, .. } => *extras,
            Keys::Data { .. } => None,
        }
    }

    /// The fields, if the keys are names.
    pub(crate) fn fields(&self) -> Option<&IndexMap<String, FieldPart>> {
        match &self.objects.as_ref()?.keys {
            Keys::Names { fields, .. } => Some(fields),
            Keys::Data { .. } => None,
        }
    }

    /// The distinct texts with their counts, if they are few.
    pub(crate) fn few_texts(&self) -> Option<Vec<(&str, Tally)>> {
        match self.texts.as_ref()?.distinct() {
            Distinct::All(values) => Some(values),
            Distinct::Many => None,
        }
    }

    /// Adds another node's counters; its parts are named for uniting.
    fn take_in(&mut self, other: Self, pairs: &mut Vec<(NodeId, NodeId)>) {
        let Self { booleans, numbers, texts, lists, objects, record, inside, paths } = other;
        self.booleans.yes.merge(booleans.yes);
        self.booleans.no.merge(booleans.no);
        merge(&mut self.numbers, numbers, Numbers::merge);
        self.inside = match (self.texts.is_some(), texts.is_some()) {
            (_, false) => self.inside,
            (false, true) => inside,
            (true, true) => self.inside.zip(inside).map(|(mine, theirs)| {
                pairs.push((mine.node, theirs.node));
                InsidePart { is_read: mine.is_read || theirs.is_read, ..mine }
            }),
        };
        merge(&mut self.texts, texts, Texts::merge);
        merge(&mut self.lists, lists, |mine, theirs| {
            pairs.push((mine.items, theirs.items));
            mine.nulls.merge(theirs.nulls);
            mine.tally.merge(theirs.tally);
            mine.empty += theirs.empty;
            mine.lengths.merge(theirs.lengths);
        });
        merge(&mut self.objects, objects, |mine, theirs| mine.take_in(theirs, pairs));
        merge(&mut self.record, record, |mine, theirs| {
            pairs.push((mine.node, theirs.node));
            mine.tally.merge(theirs.tally);
        });
        self.paths.extend(paths);
        self.paths.sort_by_key(|path| path.0.len());
        self.paths.truncate(MAX_PATHS);
    }
}

fn merge<T>(mine: &mut Option<T>, theirs: Option<T>, with: impl FnOnce(&mut T, T)) {
    match (mine.as_mut(), theirs) {
        (_, None) => {}
        (None, theirs) => *mine = theirs,
        (Some(mine), Some(theirs)) => with(mine, theirs),
    }
}

impl ObjectPart {
    /// The sets of keys that stood together, where keys are names and the sets few enough to be told apart.
    pub(crate) fn variants(&self) -> Option<&Variants> {
        match &self.keys {
            Keys::Names { variants, .. } => variants.as_ref(),
            Keys::Data { .. } => None,
        }
    }

    fn take_in(&mut self, other: Self, pairs: &mut Vec<(NodeId, NodeId)>) {
        let Self { tally, entries, keys } = other;
        self.tally.merge(tally);
        self.entries += entries;
        match (&mut self.keys, keys) {
            (
                Keys::Names { fields, variants, extras },
                Keys::Names { fields: others, variants: other_variants, extras: other_extras },
            ) => {
                match (extras.as_mut(), other_extras) {
                    (Some(mine), Some(theirs)) => {
                        mine.nulls.merge(theirs.nulls);
                        pairs.push((mine.values, theirs.values));
                    }
                    (None, theirs) => *extras = theirs,
                    (Some(_), None) => {}
                }
                for (key, other) in others {
                    match fields.get_mut(&key) {
                        Some(mine) => {
                            mine.seen.merge(other.seen);
                            mine.nulls.merge(other.nulls);
                            pairs.push((mine.node, other.node));
                        }
                        None => drop(fields.insert(key, other)),
                    }
                }
                *variants =
                    variants.take().zip(other_variants).map(|(mine, theirs)| merge_variants(mine, theirs));
            }
            (Keys::Data { values, nulls, .. }, Keys::Data { values: others, nulls: more, .. }) => {
                nulls.merge(more);
                pairs.push((*values, others));
            }
            (Keys::Data { values, nulls, .. }, Keys::Names { fields, extras, .. }) => {
                fields.values().for_each(|field| nulls.merge(field.nulls));
                pairs.extend(fields.values().map(|field| (*values, field.node)));
                if let Some(extras) = extras {
                    nulls.merge(extras.nulls);
                    pairs.push((*values, extras.values));
                }
            }
            (Keys::Names { fields, extras, .. }, Keys::Data { values, mut nulls, why }) => {
                fields.values().for_each(|field| nulls.merge(field.nulls));
                pairs.extend(fields.values().map(|field| (values, field.node)));
                if let Some(extras) = extras {
                    nulls.merge(extras.nulls);
                    pairs.push((values, extras.values));
                }
                self.keys = Keys::Data { values, nulls, why };
            }
        }
    }
}

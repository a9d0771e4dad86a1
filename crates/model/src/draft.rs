//! The draft: what each position is, before anything has a name.
//!
//! A draft is an arena of nodes with typed ids, so that cycles are ordinary.

use crate::docs::Docs;
use crate::model::{DefaultValue, Encoding};
use crate::scalar::Scalar;
use crate::wire::{Presence, WireName};
use crate::words::Words;

/// Index of a node in its [`Draft`].
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, PartialOrd, Ord)]
pub struct DraftId(u32);

/// What every position of the data is.
#[derive(Debug, Clone, Default)]
pub struct Draft {
    nodes: Vec<DraftNode>,
}

/// One position.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct DraftNode {
    /// What stands there when it is not null.
    pub kind: DraftKind,
    /// Whether null was seen there.
    pub nullable: bool,
    /// The name that a document gives its type; positions of one name are one type, those of two are two.
    pub name: Option<Words>,
    /// What a document says of its type.
    pub docs: Docs,
    /// Whether its type is sent to change a part of something.
    pub is_patch: bool,
    /// The record that a document says it extends; it has all fields of that as well.
    pub base: Option<DraftId>,
    /// What is read of the same thing, where this is what is sent of it.
    pub sent_of: Option<DraftId>,
}

/// What stands at a position.
#[derive(Debug, Clone, PartialEq, Eq, Hash)]
pub enum DraftKind {
    /// `null` in every sample, `{}`, or kinds that no type fits: any JSON value.
    Any,
    /// `true`, `8`, `8.4`, `"text"`.
    Scalar(Scalar),
    /// `[…]`: the items' node.
    List(DraftId),
    /// `{"h-1": …, "h-2": …}`, keys being data: the values' node.
    Map(DraftId),
    /// `{"id": …}`, keys being names.
    Record {
        /// In first-seen order.
        fields: Vec<DraftField>,
        /// What stands under any other key, where a document says so.
        extras: Option<DraftId>,
    },
    /// `["Alder Bank", 17]`: the node of each item.
    Tuple(Vec<DraftId>),
    /// `"laying"`, one of few known texts.
    Enumeration(Vec<WireName>),
    /// `"swarm"`, always that text.
    Constant(WireName),
    /// One of several: told apart by a key, or by the kind of value.
    Union {
        /// The key whose text tells the cases apart.
        tag: Option<WireName>,
        /// The cases.
        cases: Vec<DraftCase>,
    },
}

/// One case of a union.
#[derive(Debug, Clone, PartialEq, Eq, Hash)]
pub struct DraftCase {
    /// The tag's text in this case, if the union has a tag.
    pub tag: Option<WireName>,
    /// What stands there.
    pub node: DraftId,
}

/// A part of a draft that is asked for, under the name that it must have.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct DraftRoot {
    /// What it is called.
    pub name: Words,
    /// What it is.
    pub node: DraftId,
}

/// One field of a record.
#[derive(Debug, Clone, PartialEq, Eq, Hash)]
pub struct DraftField {
    /// The key.
    pub wire: WireName,
    /// The key in words.
    pub name: Words,
    /// Whether the key is always there.
    pub presence: Presence,
    /// What stands there.
    pub node: DraftId,
    /// How the wire writes that.
    pub encoding: Encoding,
    /// What a document says that holds where the key is absent.
    pub default: Option<DefaultValue>,
    /// What a document says of it.
    pub docs: Docs,
    /// Which way it goes.
    pub direction: Direction,
}

/// Which way a field goes between a client and a server.
#[derive(Debug, Clone, Copy, Default, PartialEq, Eq, Hash)]
pub enum Direction {
    /// Both: nothing else is said.
    #[default]
    Both,
    /// `readOnly`: it is read, and not sent.
    Read,
    /// `writeOnly`: it is sent, and not read.
    Sent,
}

impl DraftField {
    /// A field of which nothing is said.
    pub fn new(wire: WireName, presence: Presence, node: DraftId) -> Self {
        let name = Words::split(wire.as_str());
        let (encoding, docs, direction) = (Encoding::Plain, Docs::default(), Direction::Both);
        Self { wire, name, presence, node, encoding, default: None, docs, direction }
    }
}

impl Draft {
    /// Adds a node.
    ///
    /// # Panics
    /// Beyond `u32::MAX` nodes, which the bounds of observation keep out of reach.
    pub fn add(&mut self, kind: DraftKind, nullable: bool) -> DraftId {
        let id = DraftId(u32::try_from(self.nodes.len()).expect("observation bounds the positions"));
        self.nodes.push(DraftNode {
            kind,
            nullable,
            name: None,
            docs: Docs::default(),
            is_patch: false,
            base: None,
            sent_of: None,
        });
        id
    }

    /// Makes room for a node that will contain itself; [`Draft::set`] fills it.
    pub fn reserve(&mut self) -> DraftId {
        self.add(DraftKind::Any, false)
    }

    /// Says what a node is.
    pub fn set(&mut self, id: DraftId, kind: DraftKind, nullable: bool) {
        let node = &mut self.nodes[id.index()];
        node.kind = kind;
        node.nullable = nullable;
    }

    /// Says what a node's type is called, and what is said of it.
    pub fn describe(&mut self, id: DraftId, name: Option<Words>, docs: Docs) {
        let node = &mut self.nodes[id.index()];
        node.name = name;
        node.docs = docs;
    }

    /// Says which record a node's type extends.
    pub fn extend(&mut self, id: DraftId, base: DraftId) {
        self.nodes[id.index()].base = Some(base);
    }

    /// Says of what a node is what is sent.
    pub fn mark_sent(&mut self, id: DraftId, read: DraftId) {
        self.nodes[id.index()].sent_of = Some(read);
    }

    /// Says that a node's type is sent to change a part of something.
    pub fn mark_patch(&mut self, id: DraftId) {
        self.nodes[id.index()].is_patch = true;
    }

    /// The node of an id that this draft gave out.
    pub fn node(&self, id: DraftId) -> &DraftNode {
        &self.nodes[id.index()]
    }

    /// The ids of all nodes.
    pub fn ids(&self) -> impl Iterator<Item = DraftId> + use<> {
        let count = u32::try_from(self.nodes.len()).expect("observation bounds the positions");
        (0..count).map(DraftId)
    }

    /// How many nodes there are.
    pub fn len(&self) -> usize {
        self.nodes.len()
    }

    /// Whether there is no node yet.
    pub fn is_empty(&self) -> bool {
        self.nodes.is_empty()
    }
}

impl DraftId {
    /// The id as an index, for side tables.
    pub fn index(self) -> usize {
        self.0 as usize
    }
}

//! Graph to draft: what each position is.

pub(crate) mod enums;
pub(crate) mod evidence;
pub(crate) mod graph;
pub(crate) mod identities;
pub(crate) mod kinds;
pub(crate) mod maps;
mod narrowed;
pub(crate) mod nothing;
pub(crate) mod pools;
pub(crate) mod recursion;
pub(crate) mod sameness;
pub(crate) mod scalars;
pub(crate) mod similarity;
pub(crate) mod tags;
pub(crate) mod unite;
pub(crate) mod variants;

use std::collections::{BTreeMap, BTreeSet, HashMap};

use jar_sprout_model::{
    Docs, Draft, DraftCase, DraftField, DraftId, DraftKind, Encoding, Kind, KindSet, Place, Presence, Scalar,
    WireName, Words,
};
use jar_sprout_shape::{Lengths, Path, Shape, Tally, Texts};

use crate::draft::evidence::{Choice, Evidence, KindSeen};
use crate::draft::graph::{ExtrasPart, FieldPart, Graph, Keys, Node, NodeId, ObjectPart};
use crate::draft::identities::{identities, is_called};
use crate::draft::kinds::{ObjectKind, ObjectKinds, kinds};
use crate::draft::maps::{keys_of_maps, make_maps, weigh_keys};
use crate::draft::narrowed::Case;
use crate::draft::pools::{Pool, pools};
use crate::draft::recursion::fold_recursion;
use crate::draft::scalars::{draft_number, draft_text};
use crate::draft::tags::{Tagged, TaggedCase, find_tag, tagged_by};
use crate::draft::unite::{unite_mixed, unite_one_or_many, unite_same, unite_small};
use crate::draft::variants::VariantPart;
use crate::policies::{Policies, Trust};
use crate::singular::singular;
use crate::structure::Structure;

/// With more kinds than this at one position, no type says more than "any".
const MAX_KINDS: usize = 3;

/// A draft with what is known of each position.
pub struct Drafted {
    /// What each position is.
    pub draft: Draft,
    /// The whole sample.
    pub root: DraftId,
    /// What was seen at each position, and what was made of it.
    pub evidence: HashMap<DraftId, Evidence>,
    /// How far presence was trusted.
    pub trust: Trust,
    /// Where maps stand though there should be none: more keys than a record could name.
    pub maps_all_the_same: Vec<Path>,
}

/// The draft of a shape. `name` is what the root is called, which bears on its numbers.
pub fn draft_shape(shape: &Shape, name: &Words, policies: &Policies) -> Drafted {
    let (mut graph, root) = Graph::of(shape);
    read_texts(&mut graph, root, policies);
    make_maps(&mut graph, root, policies);
    fold_recursion(&mut graph, root);
    unite_one_or_many(&mut graph, root);
    unite_same(&mut graph, root);
    // What was united may be JSON in a text at one of its places, and may show by now that its keys are data.
    read_texts(&mut graph, root, policies);
    make_maps(&mut graph, root, policies);
    unite_small(&mut graph, root);
    unite_mixed(&mut graph, root);
    let mut drafter = Drafter {
        graph: &graph,
        map_keys: keys_of_maps(&graph, root),
        identities: identities(&graph, root),
        pools: pools(&graph, root),
        policies,
        draft: Draft::default(),
        evidence: HashMap::new(),
        made: HashMap::new(),
    };
    let root = drafter.position(View::whole(graph.find(root), shape.nulls), name);
    let Drafter { draft, evidence, .. } = drafter;
    let maps_all_the_same = if policies.maps { Vec::new() } else { beyond_names(&evidence) };
    Drafted { draft, root, evidence, trust: policies.trust, maps_all_the_same }
}

/// A position, or the part of it that stands beside one tag.
#[derive(Debug, Clone, PartialEq, Eq, Hash)]
struct View {
    node: NodeId,
    /// How often null was seen at the place.
    nulls: u64,
    /// Whether what stands there is an item of a list.
    is_item: bool,
    /// The kinds of value that stand there; none for all that were seen.
    kinds: Option<KindSet>,
    /// The kinds of the items of the lists that stand there; none for all that were seen.
    items: Option<KindSet>,
    /// The variants of object that stand there, or in the lists there; none for all.
    variants: Option<BTreeSet<u64>>,
    /// The texts that stand there; none for all.
    texts: Option<BTreeSet<String>>,
    /// How many values stand there, where they are fewer than were seen.
    seen: Option<u64>,
}

impl View {
    fn whole(node: NodeId, nulls: Tally) -> Self {
        Self {
            node,
            nulls: nulls.count,
            is_item: false,
            kinds: None,
            items: None,
            variants: None,
            texts: None,
            seen: None,
        }
    }

    /// Those of the objects at a position that have these sets of keys.
    fn of_variants(node: NodeId, variants: &BTreeSet<u64>) -> Self {
        let kinds = Some(KindSet::of(Kind::Object));
        Self { kinds, variants: Some(variants.clone()), ..Self::whole(node, Tally::default()) }
    }
}

struct Drafter<'g> {
    graph: &'g Graph,
    /// The keys under which maps stand.
    map_keys: BTreeSet<String>,
    /// The positions of texts that something is called by.
    identities: BTreeSet<NodeId>,
    /// The positions of texts of which one or many stand at a place.
    pools: BTreeMap<NodeId, Pool>,
    policies: &'g Policies,
    draft: Draft,
    evidence: HashMap<DraftId, Evidence>,
    made: HashMap<View, DraftId>,
}

/// Reads the texts of which the user said that they are JSON, and those inside them.
fn read_texts(graph: &mut Graph, root: NodeId, policies: &Policies) {
    if policies.json_texts.is_empty() {
        return;
    }
    let mut count = 0;
    loop {
        let order = graph.walk(root);
        if order.len() == count {
            return;
        }
        count = order.len();
        for id in order {
            if policies.are_json(&graph.node(id).paths) {
                graph.read_texts(id);
            }
        }
    }
}

/// Where maps stand that have more keys than a record could name.
fn beyond_names(evidence: &HashMap<DraftId, Evidence>) -> Vec<Path> {
    let is_beyond =
        |seen: &&Evidence| matches!(&seen.choice, Choice::Map(weight) if weight.is_beyond_names());
    let mut paths: Vec<Path> =
        evidence.values().filter(is_beyond).filter_map(|seen| seen.paths.first().cloned()).collect();
    paths.sort_by_key(|path| (path.0.len(), path.to_string()));
    paths
}

/// What a position is, and why.
pub(crate) struct Decided {
    pub(crate) kind: DraftKind,
    pub(crate) choice: Choice,
}

impl Decided {
    pub(crate) fn new(kind: DraftKind, choice: Choice) -> Self {
        Self { kind, choice }
    }
}

impl Drafter<'_> {
    /// `key` is the nearest key above the position.
    fn position(&mut self, view: View, key: &Words) -> DraftId {
        let view = self.of_objects(View { node: self.graph.find(view.node), ..view });
        if let Some(made) = self.made.get(&view) {
            return *made;
        }
        // Before its parts: a type may contain itself.
        let id = self.draft.reserve();
        self.made.insert(view.clone(), id);
        let node = self.graph.node(view.node);
        let kinds = view.kinds.unwrap_or(node.kinds());
        let Decided { kind, choice } = self.decide(&view, kinds.but_null(), key);
        self.draft.set(id, kind, view.nulls > 0);
        let mut seen = evidence(node, view.nulls, choice);
        if let Some(texts) = self.texts_of(&view) {
            seen.texts = Some(texts);
        } else if let Some(pool) = self.pools.get(&view.node) {
            seen.texts = Some(pool.texts.clone());
        }
        if let Some(count) = view.seen {
            let null = (view.nulls > 0).then_some(Kind::Null);
            seen = seen.of_case(count, kinds.iter().chain(null).collect());
        }
        self.evidence.insert(id, seen);
        id
    }

    /// The texts of a view that are not all of its position.
    fn texts_of(&self, view: &View) -> Option<Texts> {
        self.graph.node(view.node).texts.as_ref()?.only(view.texts.as_ref()?)
    }

    /// A view of objects alone, where they have a node of their own; one thing wherever it stands, alone or in a list.
    fn of_objects(&self, view: View) -> View {
        let node = self.graph.node(view.node);
        let is_of_objects = view.kinds.unwrap_or(node.kinds()).but_null() == KindSet::of(Kind::Object);
        if !is_of_objects {
            return view;
        }
        let kinds = if node.record.is_some() { None } else { view.kinds };
        View { node: self.graph.record(view.node), kinds, is_item: false, ..view }
    }

    fn decide(&mut self, view: &View, kinds: KindSet, key: &Words) -> Decided {
        let kinds: Vec<Kind> = kinds.as_seen().collect();
        match kinds[..] {
            [] => Decided::new(DraftKind::Any, Choice::NothingKnown),
            [kind] => self.one_kind(kind, view, key),
            _ if kinds.len() > MAX_KINDS => Decided::new(DraftKind::Any, Choice::ManyKinds),
            _ => self.mixed(&kinds, view, key),
        }
    }

    /// A union of the kinds; a list beside what its items are is one or many.
    fn mixed(&mut self, kinds: &[Kind], view: &View, key: &Words) -> Decided {
        let cases = kinds.iter().map(|kind| {
            let view = View { kinds: Some(KindSet::of(*kind)), nulls: 0, ..view.clone() };
            DraftCase { tag: None, node: self.position(view, key) }
        });
        let cases = cases.collect();
        Decided::new(DraftKind::Union { tag: None, cases }, Choice::MixedKinds)
    }

    fn one_kind(&mut self, kind: Kind, view: &View, key: &Words) -> Decided {
        let node = self.graph.node(view.node);
        match kind {
            Kind::Null => Decided::new(DraftKind::Any, Choice::NothingKnown),
            Kind::Boolean => Decided::new(DraftKind::Scalar(Scalar::Boolean), Choice::AsWritten),
            Kind::Integer | Kind::Number => {
                let numbers = node.numbers.as_ref().expect("the kind was seen");
                draft_number(numbers, key, self.policies)
            }
            Kind::Text => {
                let is_identity = is_called(key) || self.identities.contains(&view.node);
                let own = || (node.texts.as_ref().expect("the kind was seen"), view.is_item);
                let pool = || self.pools.get(&view.node).map(|pool| (&pool.texts, pool.is_of_items));
                let some = self.texts_of(view);
                let some = some.as_ref().map(|texts| (texts, view.is_item));
                let (texts, is_item) = some.or_else(pool).unwrap_or_else(own);
                draft_text(texts, is_item, is_identity, self.policies)
            }
            Kind::List => self.lists(view, key),
            Kind::Object => self.objects(view, key),
        }
    }

    fn lists(&mut self, view: &View, key: &Words) -> Decided {
        let lists = self.graph.node(view.node).lists.as_ref().expect("the kind was seen");
        let items = lists.items;
        if view.items.is_none()
            && let Lengths::Same(kinds) = &lists.lengths
            && is_tuple(kinds, lists.tally.count)
        {
            let items = kinds.iter().map(|kinds| {
                let node = self.graph.find(items);
                let nulls = u64::from(kinds.has(Kind::Null));
                let whole = View::whole(node, Tally::default());
                self.position(View { nulls, is_item: true, kinds: Some(*kinds), ..whole }, key)
            });
            let items = items.collect();
            return Decided::new(DraftKind::Tuple(items), Choice::Tuple);
        }
        let choice = if lists.empty == lists.tally.count { Choice::EmptyLists } else { Choice::AsWritten };
        let all = View { is_item: true, ..View::whole(items, lists.nulls) };
        let view = match view.items {
            None => View { variants: view.variants.clone(), ..all },
            Some(kinds) => View {
                nulls: if kinds.has(Kind::Null) { all.nulls } else { 0 },
                kinds: Some(kinds.but_null()),
                variants: view.variants.clone(),
                ..all
            },
        };
        Decided::new(DraftKind::List(self.position(view, key)), choice)
    }

    fn objects(&mut self, view: &View, key: &Words) -> Decided {
        let node = self.graph.node(view.node);
        let objects = node.objects.as_ref().expect("the kind was seen");
        match &objects.keys {
            Keys::Data { values, nulls, why } => {
                let values = self.position(View::whole(*values, *nulls), key);
                Decided::new(DraftKind::Map(values), Choice::Map(why.clone()))
            }
            Keys::Names { fields, extras: None, .. } if fields.is_empty() => {
                Decided::new(DraftKind::Any, Choice::EmptyObjects)
            }
            Keys::Names { .. } if view.variants.is_none() => match (self.tag(node), self.kinds(node)) {
                (Some(tagged), _) => self.tagged(view.node, &tagged),
                (None, Some(kinds)) => self.told_by_keys(view.node, &kinds, key),
                (None, None) => self.untold(view, key),
            },
            Keys::Names { .. } => self.untold(view, key),
        }
    }

    /// The key that tells the kinds of object at a position apart, by the user's word or by the evidence.
    fn tag(&self, node: &Node) -> Option<Tagged> {
        match self.policies.structure_at(&node.paths) {
            Some(Structure::By(key)) => tagged_by(self.graph, node, key),
            Some(Structure::Map | Structure::Record | Structure::Union) => None,
            Some(Structure::JsonInText) | None => find_tag(self.graph, node),
        }
    }

    /// What was seen of one of several kinds of object at a position.
    fn evidence_of_case(&self, node: NodeId, variants: &BTreeSet<u64>, choice: Choice) -> Evidence {
        let node = self.graph.node(node);
        let known = node.objects.as_ref().and_then(ObjectPart::variants);
        let seen =
            known.map(|known| variants.iter().filter_map(|id| known.get(id)).map(|part| part.count).sum());
        let all = evidence(node, 0, choice);
        let seen = seen.unwrap_or(all.seen);
        Evidence { seen, kinds: vec![KindSeen { what: "object", count: seen, first: None }], ..all }
    }

    /// The kinds of object at a position that keys tell apart, by the user's word or by the evidence.
    fn kinds(&self, node: &Node) -> Option<ObjectKinds> {
        match self.policies.structure_at(&node.paths) {
            Some(Structure::Union) => kinds(node),
            Some(Structure::By(key)) => kinds(node).filter(|kinds| kinds.truth.as_ref() == Some(key)),
            Some(Structure::Map | Structure::Record) => None,
            Some(Structure::JsonInText) | None => kinds(node).filter(ObjectKinds::are_plain),
        }
    }

    /// A record that no key tells the kinds of apart.
    fn untold(&mut self, view: &View, key: &Words) -> Decided {
        let weight = weigh_keys(self.graph, view.node, &self.map_keys, self.policies).unwrap_or_default();
        let node = self.graph.node(view.node);
        let is_asked = view.variants.is_none() && self.policies.structure_at(&node.paths).is_none();
        let kinds = kinds(node).filter(|kinds| is_asked && kinds.are_evident());
        let kinds = kinds.into_iter().flat_map(|kinds| kinds.kinds).map(|kind| kind.key).collect();
        let is_bounded = node
            .objects
            .as_ref()
            .is_some_and(|objects| matches!(&objects.keys, Keys::Names { variants: None, extras: None, .. }));
        Decided::new(self.record(view, key, None), Choice::Record { weight, kinds, is_bounded })
    }

    /// A union of records, each with keys of its own.
    fn told_by_keys(&mut self, node: NodeId, told: &ObjectKinds, key: &Words) -> Decided {
        let own = singular(key);
        let cases = told.kinds.iter().map(|ObjectKind { key: telling, variants, truth, .. }| {
            let view = View::of_variants(node, variants);
            let others = told.kinds.iter().map(|kind| &kind.variants).filter(|other| *other != variants);
            let case = Case { tag: None, holder: node, others: others.collect() };
            let mut kind = self.record(&view, key, Some(&case));
            if let Some((key, truth)) = told.truth.as_ref().zip(*truth) {
                self.set_truth(&mut kind, key, truth);
            }
            let id = self.draft.add(kind, false);
            self.draft.describe(id, Some(own.prefixed(&Words::split(telling))), Docs::default());
            let choice = Choice::KindByKey(telling.clone());
            self.evidence.insert(id, self.evidence_of_case(node, variants, choice));
            DraftCase { tag: None, node: id }
        });
        let cases = cases.collect();
        let keys = told.kinds.iter().map(|kind| kind.key.clone()).collect();
        let choice = Choice::KindsByKeys { keys, truth: told.truth.clone() };
        Decided::new(DraftKind::Union { tag: None, cases }, choice)
    }

    /// Makes a field of a record what it says in all objects of one kind.
    fn set_truth(&mut self, record: &mut DraftKind, key: &str, truth: bool) {
        let DraftKind::Record { fields, .. } = record else { return };
        let Some(field) = fields.iter_mut().find(|field| field.wire.as_str() == key) else { return };
        let seen = self.evidence.get(&field.node).cloned();
        field.node = self.draft.add(DraftKind::Scalar(Scalar::Always(truth)), false);
        self.evidence.extend(seen.map(|seen| (field.node, seen)));
    }

    fn tagged(&mut self, node: NodeId, tagged: &Tagged) -> Decided {
        let Tagged { key, cases } = tagged;
        let cases = cases.iter().map(|told| {
            let TaggedCase { tag, variants } = told;
            let others = tagged.cases.iter().filter(|other| other.tag != *tag).map(|other| &other.variants);
            let case = Case { tag: Some((tagged, told)), holder: node, others: others.collect() };
            let kind = self.record(&View::of_variants(node, variants), &Words::split(tag), Some(&case));
            // Not shared with other views: the tag is a part of it.
            let id = self.draft.add(kind, false);
            self.evidence.insert(id, self.evidence_of_case(node, variants, Choice::TaggedCase(key.clone())));
            DraftCase { tag: Some(WireName::new(tag)), node: id }
        });
        let cases = cases.collect();
        Decided::new(DraftKind::Union { tag: Some(WireName::new(key)), cases }, Choice::Tagged(key.clone()))
    }

    fn record(&mut self, view: &View, key: &Words, case: Option<&Case<'_>>) -> DraftKind {
        let node = self.graph.node(view.node);
        let objects = node.objects.as_ref().expect("the kind was seen");
        let Keys::Names { fields, variants, extras } = &objects.keys else { return DraftKind::Any };
        let shown: Option<Vec<&VariantPart>> = view
            .variants
            .as_ref()
            .zip(variants.as_ref())
            .map(|(ids, variants)| ids.iter().filter_map(|id| variants.get(id)).collect());
        let mut drafted = Vec::new();
        for (key, field) in fields {
            let with =
                shown.as_ref().map(|shown| shown.iter().filter(|part| part.keys.contains_key(key)).count());
            let presence = match (with, &shown) {
                (Some(0), _) => continue,
                (Some(with), Some(shown)) if with == shown.len() => Presence::Always,
                (None, _) if field.seen.count == objects.tally.count => Presence::Always,
                _ => Presence::Sometimes,
            };
            drafted.push(self.field(key, field, presence, shown.as_deref(), case));
        }
        let extras =
            extras.map(|ExtrasPart { values, nulls }| self.position(View::whole(values, nulls), key));
        DraftKind::Record { fields: drafted, extras }
    }

    fn field(
        &mut self,
        key: &str,
        field: &FieldPart,
        presence: Presence,
        shown: Option<&[&VariantPart]>,
        case: Option<&Case<'_>>,
    ) -> DraftField {
        let wire = WireName::new(key);
        let constant = case.and_then(|case| case.tag).filter(|(tagged, _)| tagged.key == key);
        if let Some((_, TaggedCase { tag, .. })) = constant {
            let id = self.draft.add(DraftKind::Constant(WireName::new(tag)), false);
            let node = self.graph.node(field.node);
            let texts = node.texts.as_ref().and_then(|texts| texts.only(&BTreeSet::from([tag.clone()])));
            let count = texts.as_ref().map_or(0, |texts| texts.tally.count);
            let all = evidence(node, 0, Choice::Tagged(key.to_owned()));
            let seen = Evidence { texts, ..all }.of_case(count, KindSet::of(Kind::Text));
            self.evidence.insert(id, seen);
            return DraftField::new(wire, Presence::Always, id);
        }
        let view = shown.map_or_else(
            || View::whole(field.node, field.nulls),
            |shown| self.narrowed(key, field, shown, case),
        );
        let name = Words::split(key);
        let (view, encoding) = match self.graph.read_inside(view.node) {
            Some(node) => {
                (View { is_item: view.is_item, ..View::whole(node, field.nulls) }, Encoding::JsonInText)
            }
            None => (view, Encoding::Plain),
        };
        let node = self.position(view, &name);
        let distrusted = self.policies.trust == Trust::Nothing && !self.policies.essential.contains(key);
        let presence = if distrusted { Presence::Sometimes } else { presence };
        DraftField { presence, encoding, ..DraftField::new(wire, presence, node) }
    }
}

/// Few items, at least two of them of unlike kinds, and the same in every list of several.
fn is_tuple(kinds: &[KindSet], lists: u64) -> bool {
    let as_one = |kinds: &KindSet| -> Vec<Kind> {
        let kinds = kinds.but_null().as_seen();
        kinds.map(|kind| if kind == Kind::Integer { Kind::Number } else { kind }).collect()
    };
    let shown: Vec<Vec<Kind>> = kinds.iter().map(as_one).collect();
    lists >= 2
        && kinds.len() >= 2
        && shown.iter().all(|kinds| kinds.len() <= 1)
        && shown.iter().flatten().collect::<BTreeSet<_>>().len() >= 2
}

fn evidence(node: &Node, nulls: u64, choice: Choice) -> Evidence {
    let mut kinds = Vec::new();
    let mut add = |what: &'static str, count: u64, first: Option<Place>| {
        if count > 0 {
            kinds.push(KindSeen { what, count, first });
        }
    };
    add("null", nulls, None);
    add("true", node.booleans.yes.count, node.booleans.yes.first);
    add("false", node.booleans.no.count, node.booleans.no.first);
    if let Some(numbers) = &node.numbers {
        add("integer", numbers.integers.count, numbers.integers.first);
        add("fraction", numbers.fractions.count, numbers.fractions.first);
    }
    if let Some(texts) = &node.texts {
        add("text", texts.tally.count, texts.tally.first);
    }
    if let Some(lists) = &node.lists {
        add("list", lists.tally.count, lists.tally.first);
    }
    let objects = node.own_objects();
    add("object", objects.count, objects.first);
    let paths: Vec<Path> = node.paths.clone();
    Evidence {
        seen: node.seen() + nulls,
        kinds,
        paths,
        choice,
        texts: node.texts.clone(),
        numbers: node.numbers.clone(),
    }
}

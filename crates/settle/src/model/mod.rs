//! Draft to model: one type for one structure, well named.

pub(crate) mod chain;
pub(crate) mod envelope;
pub(crate) mod equivalence;
pub(crate) mod names;
pub(crate) mod naming_sites;
pub(crate) mod root_name;
pub(crate) mod time_forms;

use std::collections::{BTreeSet, HashMap};

use foldhash::HashMap as FastMap;
use foldhash::fast::RandomState;
use indexmap::IndexMap;
use jar_sprout_model::{
    Case, Definition, Draft, DraftCase, DraftField, DraftId, DraftKind, DraftNode, DraftRoot, Enumeration,
    Field, Model, NamedType, Record, Root, Slot, TimeForms, Type, TypeId, Union, UnionCase, WireName, Words,
    each,
};

use crate::draft::sameness::TELLING_FIELDS;
use crate::model::envelope::{page, wrapper};
use crate::model::equivalence::{Class, same_types};
use crate::model::names::{Named, name_types};
use crate::model::naming_sites::{RootName, Use, Uses, find_uses, kind_word};
use crate::model::time_forms::time_forms;
use crate::policies::Policies;
use crate::singular::singular;
use crate::subject::Subject;

/// A model, and where in the draft its types came from.
pub struct Settled {
    /// The model.
    pub model: Model,
    /// For each type, in the model's order, the positions it stands at; the first one gave it its fields.
    pub origins: Vec<Vec<DraftId>>,
    /// What the user decided, and is not asked about.
    pub decided: BTreeSet<Subject>,
    /// The way from the root to the list that it is there to carry, if it is a page or holds one.
    pub page_of: Option<Vec<WireName>>,
}

impl Settled {
    /// The position that gave a type, or a field of it, to the model.
    pub(crate) fn origin(&self, draft: &Draft, id: TypeId, field: Option<&WireName>) -> Option<DraftId> {
        let nodes = self.origins.get(id.index())?;
        match field {
            None => nodes.first().copied(),
            // Types that were joined have fields of either.
            Some(key) => nodes.iter().find_map(|node| field_origin(&draft.node(*node).kind, key)),
        }
    }
}

/// What the positions of a draft are in the model that was made of it.
pub struct SlotsOf<'s> {
    draft: &'s Draft,
    types: HashMap<DraftId, TypeId>,
}

impl Settled {
    /// What the positions of a draft are in this model.
    pub fn slots_of<'s>(&self, draft: &'s Draft) -> SlotsOf<'s> {
        let types = self.model.types().zip(&self.origins);
        let types = types.flat_map(|((id, _), nodes)| nodes.iter().map(move |node| (*node, id))).collect();
        SlotsOf { draft, types }
    }
}

impl SlotsOf<'_> {
    /// What a position is; any value where the model has no part of it.
    pub fn slot(&self, node: DraftId) -> Slot {
        self.slot_within(node, MAX_LISTS)
    }

    /// A list of lists may hold itself.
    fn slot_within(&self, node: DraftId, depth: usize) -> Slot {
        let DraftNode { kind, nullable, .. } = self.draft.node(node);
        let part = |node: &DraftId| match depth {
            0 => Slot::of(Type::Any),
            depth => self.slot_within(*node, depth - 1),
        };
        let ty = match (self.types.get(&node), kind) {
            (Some(id), _) => Type::Named(*id),
            (None, DraftKind::Scalar(scalar)) => Type::Scalar(*scalar),
            (None, DraftKind::Constant(text)) => Type::Constant(text.clone()),
            (None, DraftKind::List(items)) => Type::List(Box::new(part(items))),
            (None, DraftKind::Map(values)) => Type::Map(Box::new(part(values))),
            (None, DraftKind::Tuple(items)) => Type::Tuple(items.iter().map(part).collect()),
            (
                None,
                DraftKind::Any
                | DraftKind::Record { .. }
                | DraftKind::Enumeration(_)
                | DraftKind::Union { .. },
            ) => Type::Any,
        };
        Slot { ty, nullable: *nullable }
    }
}

/// The most lists and maps in each other that are looked into.
const MAX_LISTS: usize = 16;

/// The position of a key, where a position is a record.
fn field_origin(kind: &DraftKind, key: &WireName) -> Option<DraftId> {
    match kind {
        DraftKind::Record { fields, .. } => {
            fields.iter().find(|field| field.wire == *key).map(|field| field.node)
        }
        _ => None,
    }
}

/// The model of a draft whose root has this name.
pub fn settle(draft: &Draft, root: DraftId, root_name: &RootName, policies: &Policies) -> Settled {
    settle_roots(draft, &[(root, root_name.clone())], policies)
}

/// The model of the parts of a document, which share their types; the first one is what a whole sample is.
///
/// # Panics
/// Without a part that is asked for.
pub fn settle_document(
    draft: &Draft,
    roots: &[DraftRoot],
    title: Option<&Words>,
    policies: &Policies,
) -> Settled {
    let named =
        |DraftRoot { name, node }: &DraftRoot| (*node, RootName { words: name.clone(), is_given: true });
    let mut settled = settle_roots(draft, &roots.iter().map(named).collect::<Vec<_>>(), policies);
    settled.model.title = title.cloned();
    settled
}

fn settle_roots(draft: &Draft, roots: &[(DraftId, RootName)], policies: &Policies) -> Settled {
    let uses = find_uses(draft, roots);
    let groups = group_types(draft, &uses);
    let places = Places::of(draft, &groups);
    let names = name_types(draft, &groups, &places);
    let names: Vec<Named> =
        names.into_iter().map(|named| prefixed(named, policies.prefix.as_ref())).collect();
    let taken: BTreeSet<Words> = names.iter().map(|named| named.name.clone()).collect();
    let builder =
        Builder::new(draft, &groups, &places, names, policies.defaults, roots.iter().map(|(root, _)| *root));
    let mut settled_roots = roots.iter().map(|(root, root_name)| {
        let slot = builder.slot(*root);
        let name = match &slot.ty {
            Type::Named(id) => builder.name(*id).clone(),
            ty => {
                let declared = with_prefix(&root_name.words, policies.prefix.as_ref());
                // A list that somebody has called so is called so, unless its items are.
                if root_name.is_given && !taken.contains(&declared) {
                    declared
                } else {
                    with_prefix(&list_name(ty, &root_name.words), policies.prefix.as_ref())
                }
            }
        };
        Root { name, slot }
    });
    let root = settled_roots.next().expect("there is a root");
    let more_roots: Vec<Root> = settled_roots.collect();
    let origins = builder.order.iter().map(|(group, _)| groups[*group].iter().map(|one| one.node).collect());
    let origins = origins.collect();
    let page_of = page_of(draft, roots[0].0, &roots[0].1.words);
    let mut model = Model::new(builder.types(), root);
    model.more_roots = more_roots;
    Settled { model, origins, decided: BTreeSet::new(), page_of }
}

/// The deepest that a page stands in its response.
const DEEPEST_PAGE: usize = 4;

/// The way to the list that a page carries: where a record has no more than one record in it, through that.
fn page_of(draft: &Draft, root: DraftId, name: &Words) -> Option<Vec<WireName>> {
    let (mut node, mut way) = (root, Vec::new());
    // A record that contains itself has no end.
    while way.len() < DEEPEST_PAGE {
        let DraftKind::Record { fields, .. } = &draft.node(node).kind else { return None };
        if let Some(page) = page(draft, fields, name, true) {
            way.extend(fields.iter().find(|field| field.node == page.part).map(|field| field.wire.clone()));
            return Some(way);
        }
        let inner = wrapper(draft, fields, name)?;
        let field = fields.iter().find(|field| field.node == inner.part)?;
        way.push(field.wire.clone());
        node = inner.part;
    }
    None
}

/// A list cannot be called what its items are called.
fn list_name(ty: &Type, name: &Words) -> Words {
    match ty {
        Type::List(_) if singular(name) == *name => name.with_word("list"),
        Type::Map(_) if singular(name) == *name => name.with_word("map"),
        Type::Any
        | Type::Scalar(_)
        | Type::Constant(_)
        | Type::List(_)
        | Type::Map(_)
        | Type::Tuple(_)
        | Type::Named(_) => name.clone(),
    }
}

fn prefixed(named: Named, prefix: Option<&Words>) -> Named {
    let Named { name, alternatives } = named;
    let alternatives = alternatives.into_iter().map(|name| with_prefix(&name, prefix)).collect();
    Named { name: with_prefix(&name, prefix), alternatives }
}

fn with_prefix(name: &Words, prefix: Option<&Words>) -> Words {
    prefix.map_or_else(|| name.clone(), |prefix| name.prefixed(prefix))
}

/// The uses of each type: positions of one structure, told apart by name where the structure says little.
fn group_types<'u>(draft: &Draft, uses: &'u Uses) -> Vec<Vec<&'u Use>> {
    let classes = same_types(draft, &uses.positions);
    // What says little by itself must share the end of its name.
    let mut groups: IndexMap<(Class, Option<&str>), Vec<&Use>, RandomState> = IndexMap::default();
    let mut ends: FastMap<DraftId, &str> = FastMap::default();
    for one in &uses.named {
        let telling = one.declared.is_some() || is_telling(draft, one.node);
        // Positions that were united are one thing already: the end of the first name stands for all.
        let end = (!telling).then(|| *ends.entry(one.node).or_insert_with(|| one.name().last()));
        groups.entry((classes.of(one.node), end)).or_default().push(one);
    }
    let mut groups: Vec<Vec<&Use>> = groups.into_values().collect();
    groups.sort_by_key(|group| group.first().map(|one| (one.trail.len(), one.node)));
    groups
}

/// Whether the structure alone says that two positions are the same thing.
fn is_telling(draft: &Draft, node: DraftId) -> bool {
    match &draft.node(node).kind {
        DraftKind::Record { fields, .. } => fields.len() > TELLING_FIELDS,
        DraftKind::Union { tag, .. } => tag.is_some() || is_of_plain_kinds(draft, node),
        DraftKind::Enumeration(_)
        | DraftKind::Any
        | DraftKind::Scalar(_)
        | DraftKind::Constant(_)
        | DraftKind::List(_)
        | DraftKind::Map(_)
        | DraftKind::Tuple(_) => false,
    }
}

/// Whether a position is a union of scalars, and lists of scalars: what it is says all there is to say of it.
pub(crate) fn is_of_plain_kinds(draft: &Draft, node: DraftId) -> bool {
    let is_plain = |node: DraftId| match &draft.node(node).kind {
        DraftKind::Any | DraftKind::Scalar(_) => true,
        DraftKind::List(items) => matches!(draft.node(*items).kind, DraftKind::Any | DraftKind::Scalar(_)),
        DraftKind::Constant(_)
        | DraftKind::Enumeration(_)
        | DraftKind::Map(_)
        | DraftKind::Tuple(_)
        | DraftKind::Record { .. }
        | DraftKind::Union { .. } => false,
    };
    matches!(&draft.node(node).kind, DraftKind::Union { tag: None, cases } if cases.iter().all(|case| is_plain(case.node)))
}

/// The group of each position with a name.
pub(crate) struct Places(Vec<Option<u32>>);

impl Places {
    fn of(draft: &Draft, groups: &[Vec<&Use>]) -> Self {
        let mut places = vec![None; draft.len()];
        for (group, uses) in (0..).zip(groups) {
            uses.iter().for_each(|one| places[one.node.index()] = Some(group));
        }
        Self(places)
    }

    /// The group of a position.
    pub(crate) fn group(&self, node: DraftId) -> Option<usize> {
        self.0[node.index()].map(|group| group as usize)
    }
}

/// Makes the types in the order in which the root first needs them.
struct Builder<'d> {
    draft: &'d Draft,
    places: &'d Places,
    /// By group.
    names: Vec<Named>,
    /// By group, its type, if it is needed.
    ids: Vec<Option<TypeId>>,
    /// The group of each type, and the position that gives it its fields.
    order: Vec<(usize, DraftId)>,
    /// Whether default values of a document are those of the code as well.
    has_defaults: bool,
    /// How the times are written that stand at several positions of a type.
    time_forms: FastMap<DraftId, TimeForms>,
}

impl<'d> Builder<'d> {
    fn new(
        draft: &'d Draft,
        groups: &[Vec<&Use>],
        places: &'d Places,
        names: Vec<Named>,
        has_defaults: bool,
        roots: impl DoubleEndedIterator<Item = DraftId>,
    ) -> Self {
        let time_forms = time_forms(draft, groups);
        let (ids, order) = (vec![None; groups.len()], Vec::new());
        let mut builder = Self { draft, places, names, ids, order, has_defaults, time_forms };
        builder.find_types(roots);
        builder
    }

    /// Finds the types depth first; not by calls in calls, since they may need each other in chains of any length.
    fn find_types(&mut self, roots: impl DoubleEndedIterator<Item = DraftId>) {
        let mut open: Vec<DraftId> = roots.rev().collect();
        while let Some(node) = open.pop() {
            let first = open.len();
            match &self.draft.node(node).kind {
                DraftKind::Any | DraftKind::Scalar(_) | DraftKind::Constant(_) => {}
                DraftKind::List(part) | DraftKind::Map(part) => open.push(*part),
                DraftKind::Tuple(parts) => open.extend(parts),
                DraftKind::Record { .. } | DraftKind::Enumeration(_) | DraftKind::Union { .. }
                    if !self.add_type(node) => {}
                DraftKind::Enumeration(_) => {}
                DraftKind::Record { fields, extras } => {
                    open.extend(fields.iter().map(|field| field.node).chain(*extras));
                }
                DraftKind::Union { cases, .. } => open.extend(cases.iter().map(|case| case.node)),
            }
            // What comes first is found first.
            open[first..].reverse();
        }
    }

    /// Gives the group of a position its type; whether it has none yet.
    fn add_type(&mut self, node: DraftId) -> bool {
        let group = self.places.group(node).expect("it has a name");
        let is_new = self.ids[group].is_none();
        if is_new {
            self.ids[group] = Some(TypeId::from_index(self.order.len()));
            self.order.push((group, node));
        }
        is_new
    }

    /// The type of a position, if it is needed.
    fn id(&self, node: DraftId) -> Option<TypeId> {
        self.ids[self.places.group(node)?]
    }

    fn name(&self, id: TypeId) -> &Words {
        let (group, _) = self.order[id.index()];
        &self.names[group].name
    }

    fn types(&self) -> Vec<NamedType> {
        let ty = |(group, node): (usize, DraftId)| {
            let Named { name, alternatives } = self.names[group].clone();
            let node = self.draft.node(node);
            // What is only extended is no type for its own sake.
            let base = node.base.and_then(|base| self.id(base));
            let (docs, is_patch) = (node.docs.clone(), node.is_patch);
            let definition = self.definition(&name, &node.kind);
            NamedType { name, alternatives, docs, is_patch, base, definition }
        };
        each(self.order.clone(), ty)
    }

    fn slot(&self, id: DraftId) -> Slot {
        let node = self.draft.node(id);
        let ty = match &node.kind {
            DraftKind::Any => Type::Any,
            DraftKind::Scalar(scalar) => {
                let forms = self.time_forms.get(&id);
                Type::Scalar(forms.map_or(*scalar, |forms| scalar.with_time_forms(*forms)))
            }
            DraftKind::Constant(text) => Type::Constant(text.clone()),
            DraftKind::List(items) => Type::List(Box::new(self.slot(*items))),
            DraftKind::Map(values) => Type::Map(Box::new(self.slot(*values))),
            DraftKind::Tuple(items) => Type::Tuple(items.iter().map(|item| self.slot(*item)).collect()),
            DraftKind::Record { .. } | DraftKind::Enumeration(_) | DraftKind::Union { .. } => {
                Type::Named(self.id(id).expect("what is needed was found"))
            }
        };
        Slot { ty, nullable: node.nullable }
    }

    fn definition(&self, name: &Words, kind: &DraftKind) -> Definition {
        match kind {
            DraftKind::Enumeration(known) => {
                let cases = known.iter().cloned().map(Case::new).collect();
                Definition::Enumeration(Enumeration { cases, is_closed: false })
            }
            DraftKind::Union { tag, cases } => {
                let mut cases: Vec<UnionCase> = cases.iter().map(|case| self.case(case)).collect();
                if tag.is_none() {
                    self.name_records(name, &mut cases);
                }
                Definition::Union(Union { tag: tag.clone(), cases })
            }
            DraftKind::Record { fields, extras } => {
                let fields = fields.iter().map(|field| self.field(field)).collect();
                Definition::Record(Record { fields, extras: extras.map(|extras| self.slot(extras)) })
            }
            DraftKind::Any
            | DraftKind::Scalar(_)
            | DraftKind::Constant(_)
            | DraftKind::List(_)
            | DraftKind::Map(_)
            | DraftKind::Tuple(_) => unreachable!("only records, enums and unions have names"),
        }
    }

    /// Several records of a union without a tag are called as their types, without what the union is called: `hive` is
    /// the `hive answer` of an `answer`. One alone is called as its kind.
    fn name_records(&self, union: &Words, cases: &mut [UnionCase]) {
        let records: Vec<(usize, TypeId)> = cases
            .iter()
            .enumerate()
            .filter_map(|(at, case)| Some((at, self.record(&case.slot.ty)?)))
            .collect();
        if records.len() > 1 {
            for (at, id) in records {
                let own = self.name(id);
                let shorter: Vec<&str> =
                    own.iter().filter(|word| union.iter().all(|other| other != *word)).collect();
                let is_left = !shorter.is_empty();
                cases[at].name = if is_left { Words::split(&shorter.join(" ")) } else { own.clone() };
            }
        }
    }

    /// The type of a place if it is one of objects.
    fn record(&self, ty: &Type) -> Option<TypeId> {
        let Type::Named(id) = ty else { return None };
        let (_, node) = self.order[id.index()];
        let kind = &self.draft.node(node).kind;
        matches!(kind, DraftKind::Record { .. } | DraftKind::Union { .. }).then_some(*id)
    }

    fn case(&self, case: &DraftCase) -> UnionCase {
        let DraftCase { tag, node } = case;
        let word = tag.as_ref().map_or_else(|| kind_word(self.draft, *node), WireName::as_str);
        // Null stands in the place of the whole union, not of one of its cases.
        let slot = Slot { nullable: false, ..self.slot(*node) };
        UnionCase { name: Words::split(word), tag: tag.clone(), slot }
    }

    fn field(&self, field: &DraftField) -> Field {
        let DraftField { wire, name, presence, node, encoding, default, docs, direction: _ } = field;
        Field {
            wire: wire.clone(),
            name: name.clone(),
            presence: *presence,
            slot: self.slot(*node),
            encoding: encoding.clone(),
            default: default.clone().filter(|_| self.has_defaults),
            docs: docs.clone(),
        }
    }
}

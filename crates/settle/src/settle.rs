//! Draft to model: one type for one structure, well named.

use std::collections::HashMap;

use indexmap::IndexMap;
use jar_sprout_model::{
    Definition, Draft, DraftField, DraftId, DraftKind, Field, Model, NamedType, Record, Root, Slot, Type,
    TypeId, Words,
};

use crate::name::{Named, name_types, shared_name};
use crate::same::{Class, same_types};
use crate::singular::singular;
use crate::uses::{Use, Uses, find_uses};

/// Records with more fields than this and the same structure are the same thing, whatever their keys are called.
const TELLING_FIELDS: usize = 2;

/// The model of a draft whose root has this name.
pub fn settle(draft: &Draft, root: DraftId, root_name: &Words) -> Model {
    let item_name = singular(root_name);
    let uses = find_uses(draft, root, root_name);
    let groups = group_records(draft, &uses);
    let names = name_types(&groups);
    let mut builder = Builder::new(draft, &groups, names);
    let slot = builder.slot(root);
    let name = match &slot.ty {
        Type::Named(id) => builder.types[id.index()].name.clone(),
        Type::List(_) | Type::Map(_) if item_name == *root_name => root_name.with_word("list"),
        Type::Any | Type::Scalar(_) | Type::Constant(_) | Type::List(_) | Type::Map(_) => root_name.clone(),
    };
    Model::new(builder.finish(), Root { name, slot })
}

/// The uses of each type: positions of one structure, told apart by name where the structure says little.
fn group_records<'u>(draft: &Draft, uses: &'u Uses) -> Vec<Vec<&'u Use>> {
    let classes = same_types(draft, &uses.positions);
    let mut groups: IndexMap<Class, Vec<Vec<&Use>>> = IndexMap::new();
    for one in &uses.records {
        let groups = groups.entry(classes[&one.node]).or_default();
        let telling = field_count(draft, one.node) > TELLING_FIELDS;
        let fits =
            |group: &&mut Vec<&Use>| telling || shared_name(&[group.as_slice(), &[one]].concat()).is_some();
        match groups.iter_mut().find(fits) {
            Some(group) => group.push(one),
            None => groups.push(vec![one]),
        }
    }
    let mut groups: Vec<Vec<&Use>> = groups.into_values().flatten().collect();
    groups.sort_by_key(|group| group.first().map(|one| (one.trail.len(), one.node)));
    groups
}

fn field_count(draft: &Draft, node: DraftId) -> usize {
    match &draft.node(node).kind {
        DraftKind::Record(fields) => fields.len(),
        DraftKind::Any | DraftKind::Scalar(_) | DraftKind::List(_) | DraftKind::Map(_) => 0,
    }
}

/// Makes the types in the order in which the root first needs them.
struct Builder<'d> {
    draft: &'d Draft,
    /// The group of each record.
    groups: HashMap<DraftId, usize>,
    names: Vec<Option<Named>>,
    /// The type of each group, once it is reached.
    ids: HashMap<usize, TypeId>,
    types: Vec<NamedType>,
}

impl<'d> Builder<'d> {
    fn new(draft: &'d Draft, groups: &[Vec<&Use>], names: Vec<Named>) -> Self {
        let members = groups.iter().enumerate();
        let groups =
            members.flat_map(|(group, uses)| uses.iter().map(move |one| (one.node, group))).collect();
        Self {
            draft,
            groups,
            names: names.into_iter().map(Some).collect(),
            ids: HashMap::new(),
            types: Vec::new(),
        }
    }

    fn slot(&mut self, id: DraftId) -> Slot {
        let node = self.draft.node(id);
        let ty = match &node.kind {
            DraftKind::Any => Type::Any,
            DraftKind::Scalar(scalar) => Type::Scalar(*scalar),
            DraftKind::List(items) => Type::List(Box::new(self.slot(*items))),
            DraftKind::Map(values) => Type::Map(Box::new(self.slot(*values))),
            DraftKind::Record(fields) => Type::Named(self.record(id, fields)),
        };
        Slot { ty, nullable: node.nullable }
    }

    fn record(&mut self, node: DraftId, fields: &[DraftField]) -> TypeId {
        let group = self.groups[&node];
        if let Some(id) = self.ids.get(&group) {
            return *id;
        }
        let id = TypeId::from_index(self.types.len());
        self.ids.insert(group, id);
        let Named { name, alternatives } = self.names[group].take().expect("a group becomes one type");
        // The fields follow: a type may need itself.
        let definition = Definition::Record(Record { fields: Vec::new() });
        self.types.push(NamedType { name, alternatives, definition });
        let fields = fields.iter().map(|field| self.field(field)).collect();
        self.types[id.index()].definition = Definition::Record(Record { fields });
        id
    }

    fn field(&mut self, field: &DraftField) -> Field {
        let DraftField { wire, presence, node } = field;
        let name = Words::split(wire.as_str());
        Field { wire: wire.clone(), name, presence: *presence, slot: self.slot(*node) }
    }

    fn finish(self) -> Vec<NamedType> {
        self.types
    }
}

#[cfg(test)]
mod tests;

//! The plan: a model with every name final in one language. Spelling only writes it down.

mod ident;
mod scope;

use jar_sprout_model::{
    Case, Definition, Enumeration, Field, Model, NamedType, Presence, Record, Root, Slot, Type, TypeId,
    Union, UnionCase, WireName, Words,
};

pub(crate) use ident::Ident;
pub(crate) use ident::{camel_case, pascal_case, screaming_case, small_words, snake_case};
use scope::Scope;

/// How a language makes identifiers.
pub struct Naming {
    /// Joins the words of a type's name.
    pub(crate) type_case: fn(&Words) -> String,
    /// Joins the words of a field's name; none where the code keeps the wire's keys.
    pub(crate) member_case: Option<fn(&Words) -> String>,
    /// Joins the words of an enum case's name.
    pub(crate) case_case: fn(&Words) -> String,
    /// Type names that are taken: by the language, or by what grown code uses.
    pub(crate) reserved_types: &'static [&'static str],
    /// Member names that clash with members every type has.
    pub(crate) reserved_members: &'static [&'static str],
    /// Makes an identifier of a name that is none as it is: a keyword, say.
    pub(crate) escape: fn(String) -> String,
}

/// A model in the names of one language.
pub struct Plan<'m> {
    pub(crate) types: Vec<PlannedType<'m>>,
    pub(crate) root: PlannedRoot<'m>,
}

/// What stands for a whole sample.
pub(crate) enum PlannedRoot<'m> {
    Named(TypeId),
    Alias { ident: Ident, slot: &'m Slot },
}

/// A named type.
pub struct PlannedType<'m> {
    pub(crate) ident: Ident,
    pub(crate) definition: PlannedDefinition<'m>,
}

/// What a named type is.
pub(crate) enum PlannedDefinition<'m> {
    Record(Vec<PlannedField<'m>>),
    Enumeration(Vec<PlannedCase<'m>>),
    Union(PlannedUnion<'m>),
}

/// A field of a record.
pub(crate) struct PlannedField<'m> {
    pub(crate) ident: Ident,
    pub(crate) wire: &'m WireName,
    pub(crate) presence: Presence,
    pub(crate) slot: &'m Slot,
}

/// A known value of an enum.
pub(crate) struct PlannedCase<'m> {
    pub(crate) ident: Ident,
    pub(crate) wire: &'m WireName,
}

/// One of several types.
pub(crate) struct PlannedUnion<'m> {
    pub(crate) tag: Option<&'m WireName>,
    pub(crate) cases: Vec<PlannedUnionCase<'m>>,
}

/// One case of a union.
pub(crate) struct PlannedUnionCase<'m> {
    /// The case's name as a type.
    pub(crate) ident: Ident,
    pub(crate) tag: Option<&'m WireName>,
    pub(crate) slot: &'m Slot,
}

impl<'m> Plan<'m> {
    pub(crate) fn of(model: &'m Model, naming: &Naming) -> Self {
        let mut scope = Scope::of_types(naming);
        let root = &model.root;
        let alias = match &root.slot.ty {
            // Null at the root is for whoever holds the value: it makes no type of its own.
            Type::Named(id) => PlannedRoot::Named(*id),
            Type::Any
            | Type::Scalar(_)
            | Type::Constant(_)
            | Type::List(_)
            | Type::Map(_)
            | Type::Tuple(_) => {
                let Root { name, slot } = root;
                PlannedRoot::Alias { ident: scope.declare_type(name, &[]), slot }
            }
        };
        let idents: Vec<Ident> = model
            .types()
            .map(|(_, NamedType { name, alternatives, definition: _ })| {
                scope.declare_type(name, alternatives)
            })
            .collect();
        let types = model.types().zip(idents).map(|((_, ty), ident)| plan_type(ty, ident, naming)).collect();
        Self { types, root: alias }
    }

    /// A type's identifier.
    pub(crate) fn ident(&self, id: TypeId) -> &Ident {
        &self.types[id.index()].ident
    }

    /// A type.
    pub(crate) fn get(&self, id: TypeId) -> &PlannedType<'m> {
        &self.types[id.index()]
    }

    /// Whether a type has a part of another one in it, with no list or map between that would hold it apart.
    pub(crate) fn contains_inline(&self, id: TypeId, part: &Ident) -> bool {
        let mut met = vec![false; self.types.len()];
        let mut rest = vec![id];
        while let Some(id) = rest.pop() {
            if self.ident(id) == part {
                return true;
            }
            if !std::mem::replace(&mut met[id.index()], true) {
                rest.extend(inline_parts(&self.get(id).definition));
            }
        }
        false
    }

    /// The unions that a type is a tagged case of.
    pub(crate) fn unions_of(&self, id: TypeId) -> impl Iterator<Item = &PlannedType<'m>> {
        self.types.iter().filter(move |ty| match &ty.definition {
            PlannedDefinition::Union(union) => {
                union.tag.is_some() && union.cases.iter().any(|case| case.slot.ty == Type::Named(id))
            }
            PlannedDefinition::Record(_) | PlannedDefinition::Enumeration(_) => false,
        })
    }

    /// What the root is called.
    pub(crate) fn root_name(&self) -> &str {
        match &self.root {
            PlannedRoot::Named(id) => self.ident(*id).as_str(),
            PlannedRoot::Alias { ident, .. } => ident.as_str(),
        }
    }
}

/// The named types that stand in a definition with no list or map between.
fn inline_parts(definition: &PlannedDefinition<'_>) -> Vec<TypeId> {
    fn inline(ty: &Type) -> Vec<TypeId> {
        match ty {
            Type::Named(id) => vec![*id],
            Type::Tuple(items) => items.iter().flat_map(|item| inline(&item.ty)).collect(),
            Type::Any | Type::Scalar(_) | Type::Constant(_) | Type::List(_) | Type::Map(_) => Vec::new(),
        }
    }
    match definition {
        PlannedDefinition::Record(fields) => fields.iter().flat_map(|field| inline(&field.slot.ty)).collect(),
        PlannedDefinition::Union(union) => {
            union.cases.iter().flat_map(|case| inline(&case.slot.ty)).collect()
        }
        PlannedDefinition::Enumeration(_) => Vec::new(),
    }
}

fn plan_type<'m>(ty: &'m NamedType, ident: Ident, naming: &Naming) -> PlannedType<'m> {
    let definition = match &ty.definition {
        Definition::Record(Record { fields }) => PlannedDefinition::Record(plan_fields(fields, naming)),
        Definition::Enumeration(Enumeration { cases }) => {
            let mut scope = Scope::of_cases(naming);
            let plan = |case: &'m Case| {
                let Case { wire, name } = case;
                PlannedCase { ident: scope.declare_case(name), wire }
            };
            PlannedDefinition::Enumeration(cases.iter().map(plan).collect())
        }
        Definition::Union(Union { tag, cases }) => {
            let mut scope = Scope::of_types(naming);
            let plan = |case: &'m UnionCase| {
                let UnionCase { name, tag, slot } = case;
                PlannedUnionCase { ident: scope.declare_type(name, &[]), tag: tag.as_ref(), slot }
            };
            let cases = cases.iter().map(plan).collect();
            PlannedDefinition::Union(PlannedUnion { tag: tag.as_ref(), cases })
        }
    };
    PlannedType { ident, definition }
}

fn plan_fields<'m>(fields: &'m [Field], naming: &Naming) -> Vec<PlannedField<'m>> {
    let mut scope = Scope::of_members(naming);
    fields
        .iter()
        .map(|Field { wire, name, presence, slot }| PlannedField {
            ident: scope.declare_member(wire, name),
            wire,
            presence: *presence,
            slot,
        })
        .collect()
}

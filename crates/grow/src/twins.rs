//! Twins: beside each type of the wire a plain one for the rest of the code, and what makes one of the other.
//!
//! The types of the wire get another name; their twins have the good one. Enums are texts of their own already, and both
//! share them.

use jar_sprout_model::{
    Definition, Field, Model, NamedType, Presence, Record, Slot, Type, TypeId, Union, UnionCase, Words,
};

use crate::code::Needs;
use crate::language::Language;
use crate::plan::{Plan, PlannedDefinition, PlannedField, PlannedType, PlannedUnion};
use crate::settings::{Settings, TWINS};

/// A model with twins.
pub(crate) struct Twinned {
    pub(crate) model: Model,
    /// Types of the wire, each with its twin.
    pub(crate) pairs: Vec<(TypeId, TypeId)>,
}

/// What becomes of tags, which are always the same text.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub enum Tags {
    /// The type itself tells the cases apart.
    Dropped,
    /// They tell the cases apart.
    Kept,
}

/// The model with twins, where the settings ask for them.
pub(crate) fn twinned(language: &dyn Language, model: &Model, settings: &Settings) -> Option<Twinned> {
    let ending = settings.given(TWINS.key)?;
    Some(with_twins(model, ending, language.tags_of_twins(), language.fills_in(settings)))
}

/// The model with a twin for each record and union that is read. `has_defaults` says whether what is absent gets its
/// default value when it is read.
fn with_twins(model: &Model, ending: &str, tags: Tags, has_defaults: bool) -> Twinned {
    let ending = Words::split(ending);
    let longer = |name: &Words| ending.iter().fold(name.clone(), |name, word| name.with_word(word));
    let is_twinned = |ty: &NamedType| {
        !ty.is_patch && matches!(ty.definition, Definition::Record(_) | Definition::Union(_))
    };
    let wires: Vec<TypeId> = model.types().filter(|(_, ty)| is_twinned(ty)).map(|(id, _)| id).collect();
    let first = model.types().count();
    let twins = (first..).map(TypeId::from_index);
    let pairs: Vec<(TypeId, TypeId)> = wires.into_iter().zip(twins).collect();
    // In the order of their ids.
    let twin_of =
        |id: TypeId| pairs.binary_search_by_key(&id, |(wire, _)| *wire).map_or(id, |at| pairs[at].1);
    let mut twinned = model.clone();
    for (wire, _) in &pairs {
        let ty = model.get(*wire);
        let definition = match &ty.definition {
            Definition::Record(record) => {
                let field = |field: &Field| twin_field(model, field, has_defaults, &twin_of);
                let kept = |field: &&Field| tags == Tags::Kept || !matches!(field.slot.ty, Type::Constant(_));
                Definition::Record(Record::of(record.fields.iter().filter(kept).map(field).collect()))
            }
            Definition::Union(union) => {
                let case =
                    |case: &UnionCase| UnionCase { slot: renamed(&case.slot, &twin_of), ..case.clone() };
                Definition::Union(Union {
                    tag: union.tag.clone(),
                    cases: union.cases.iter().map(case).collect(),
                })
            }
            Definition::Enumeration(known) => Definition::Enumeration(known.clone()),
        };
        twinned.push(NamedType { definition, base: None, ..ty.clone() });
    }
    for (wire, _) in &pairs {
        let ty = twinned.get_mut(*wire);
        ty.name = longer(&ty.name);
        ty.alternatives = ty.alternatives.iter().map(longer).collect();
    }
    for root in [&mut twinned.root].into_iter().chain(&mut twinned.more_roots) {
        root.name = longer(&root.name);
    }
    Twinned { model: twinned, pairs }
}

/// A list or a map that may be missing is an empty one; what else may be missing may be null.
fn twin_field(model: &Model, field: &Field, has_defaults: bool, twin_of: &dyn Fn(TypeId) -> TypeId) -> Field {
    let is_filled_in = has_defaults
        && !field.slot.nullable
        && field.default.as_ref().is_some_and(|default| model.takes_default(&field.slot, default));
    let is_collection = matches!(field.slot.ty, Type::List(_) | Type::Map(_));
    let may_be_null = (field.slot.nullable || field.presence == Presence::Sometimes) && !is_filled_in;
    let slot = Slot { nullable: may_be_null && !is_collection, ..renamed(&field.slot, twin_of) };
    Field { presence: Presence::Always, slot, default: None, ..field.clone() }
}

fn renamed(slot: &Slot, twin_of: &dyn Fn(TypeId) -> TypeId) -> Slot {
    let mut slot = slot.clone();
    slot.ty.rename(twin_of);
    slot
}

/// How a value of the wire becomes one of the twin.
pub(crate) enum Turn<'p> {
    /// It is one.
    AsIs,
    /// It is made of it.
    Made(&'p PlannedType<'p>),
    /// Each item of a list becomes one.
    Items(Box<Turn<'p>>, bool),
    /// Each value of a map becomes one.
    Values(Box<Turn<'p>>, bool),
}

/// How a value of a type of the wire becomes one of the twin.
pub(crate) fn turn<'p>(plan: &'p Plan<'_>, ty: &Type) -> Turn<'p> {
    let inside = |slot: &Slot| match turn(plan, &slot.ty) {
        Turn::AsIs => None,
        turn @ (Turn::Made(_) | Turn::Items(..) | Turn::Values(..)) => Some((Box::new(turn), slot.nullable)),
    };
    match ty {
        Type::Named(id) => plan.twin_of(*id).map_or(Turn::AsIs, Turn::Made),
        Type::List(items) => inside(items).map_or(Turn::AsIs, |(turn, is_null)| Turn::Items(turn, is_null)),
        Type::Map(values) => inside(values).map_or(Turn::AsIs, |(turn, is_null)| Turn::Values(turn, is_null)),
        Type::Any | Type::Scalar(_) | Type::Constant(_) | Type::Tuple(_) => Turn::AsIs,
    }
}

/// What a twin is, and what it is made of.
pub(crate) enum Sides<'p, 'm> {
    Records(&'p [PlannedField<'m>], &'p [PlannedField<'m>]),
    Unions(&'p PlannedUnion<'m>, &'p PlannedUnion<'m>),
}

/// The definitions of a twin and of its type of the wire.
pub(crate) fn sides<'p, 'm>(twin: &'p PlannedType<'m>, wire: &'p PlannedType<'m>) -> Sides<'p, 'm> {
    match (&twin.definition, &wire.definition) {
        (PlannedDefinition::Record(fields), PlannedDefinition::Record(sources)) => {
            Sides::Records(fields, sources)
        }
        (PlannedDefinition::Union(union), PlannedDefinition::Union(source)) => Sides::Unions(union, source),
        (
            PlannedDefinition::Record(_) | PlannedDefinition::Enumeration(_) | PlannedDefinition::Union(_),
            _,
        ) => unreachable!("a twin is a copy of its wire type, and enums have none"),
    }
}

/// A twin's fields, each with that of the wire that it is made of.
pub(crate) fn pairs<'f, 'm>(
    twin: &'f [PlannedField<'m>],
    wire: &'f [PlannedField<'m>],
) -> impl Iterator<Item = (&'f PlannedField<'m>, &'f PlannedField<'m>)> {
    let source = move |field: &PlannedField<'_>| wire.iter().find(|of| of.wire == field.wire);
    twin.iter().filter_map(move |field| Some((field, source(field)?)))
}

/// Takes over what a plain type needs imported of what its spelling for the wire needs.
pub(crate) fn import_plain(own: &Needs, needs: &mut Needs) {
    const TYPES: [&str; 3] = ["JsonElement", "JsonNode", "JsonObject"];
    let is_plain =
        |name: &&&str| name.starts_with("java.") || TYPES.iter().any(|ty| name.ends_with(&format!(".{ty}")));
    needs.imports.extend(own.imports.iter().filter(is_plain));
}

/// Whether what makes a twin uses something that should not be used any more.
pub(crate) fn uses_deprecated(wire: &PlannedType<'_>) -> bool {
    match &wire.definition {
        PlannedDefinition::Record(fields) => fields.iter().any(|field| field.docs.is_deprecated),
        PlannedDefinition::Enumeration(_) | PlannedDefinition::Union(_) => false,
    }
}

/// Whether a field of the wire may have nothing for the twin.
pub(crate) fn may_be_null(wire: &PlannedField<'_>) -> bool {
    (wire.slot.nullable || wire.presence == Presence::Sometimes) && wire.default.is_none()
}

/// Whether a field of the wire is a list or a map.
pub(crate) fn is_collection(wire: &PlannedField<'_>) -> bool {
    matches!(wire.slot.ty, Type::List(_) | Type::Map(_))
}

#[cfg(test)]
mod tests {
    use jar_sprout_model::{Docs, Root, Scalar, WireName};

    use super::*;

    fn field(wire: &str, presence: Presence, slot: Slot) -> Field {
        let name = Words::split(wire);
        Field { wire: WireName::new(wire), name, presence, slot, default: None, docs: Docs::default() }
    }

    #[test]
    fn a_twin_is_clean() {
        let queen = Slot { ty: Type::Named(TypeId::from_index(1)), nullable: true };
        let tags = Slot { ty: Type::List(Box::new(Slot::of(Type::Scalar(Scalar::Text)))), nullable: true };
        let kind = Slot::of(Type::Constant(WireName::new("hive")));
        let hive = Record::of(vec![
            field("kind", Presence::Always, kind),
            field("queen", Presence::Sometimes, queen),
            field("tags", Presence::Sometimes, tags),
        ]);
        let types = [("hive", hive), ("queen", Record::of(Vec::new()))]
            .map(|(name, record)| NamedType::new(Words::split(name), Definition::Record(record)));
        let root = Root { name: Words::split("hive"), slot: Slot::of(Type::Named(TypeId::from_index(0))) };
        let Twinned { model, pairs } =
            with_twins(&Model::new(types.to_vec(), root), "Dto", Tags::Dropped, true);
        let names: Vec<String> = model.types().map(|(_, ty)| ty.name.in_capitals()).collect();
        assert_eq!(names, ["HiveDto", "QueenDto", "Hive", "Queen"]);
        assert_eq!(model.root.name.in_capitals(), "HiveDto");
        let Definition::Record(twin) = &model.get(pairs[0].1).definition else { panic!("a record") };
        let [queen, tags] = &twin.fields[..] else { panic!("the tag is dropped: {twin:?}") };
        assert!(queen.presence == Presence::Always && queen.slot.nullable);
        assert_eq!(queen.slot.ty, Type::Named(pairs[1].1));
        assert!(!tags.slot.nullable, "what is missing is empty");
    }
}

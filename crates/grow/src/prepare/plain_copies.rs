//! Plain copies: beside each type of the wire a plain one for the rest of the code, and what makes one of the other.
//!
//! The types of the wire get another name; their copies have the good one. Enums are texts of their own already, and both
//! share them.

use jar_sprout_model::{
    Definition, Encoding, Field, Model, NamedType, Presence, Record, Slot, Type, TypeId, Union, UnionCase,
    Words,
};

use super::abilities::Tags;

/// A model with copies.
pub(crate) struct WithCopies {
    pub(crate) model: Model,
    /// Types of the wire, each with its copy.
    pub(crate) pairs: Vec<(TypeId, TypeId)>,
}

/// The model with a copy for each record and union that is read. `has_defaults` says whether what is absent gets its
/// default value when it is read.
pub(super) fn with_copies(model: &Model, ending: &str, tags: Tags, has_defaults: bool) -> WithCopies {
    let ending = Words::split(ending);
    let longer = |name: &Words| ending.iter().fold(name.clone(), |name, word| name.with_word(word));
    let is_copied = |ty: &NamedType| {
        !ty.is_patch && matches!(ty.definition, Definition::Record(_) | Definition::Union(_))
    };
    let wires: Vec<TypeId> = model.types().filter(|(_, ty)| is_copied(ty)).map(|(id, _)| id).collect();
    let first = model.types().count();
    let copies = (first..).map(TypeId::from_index);
    let pairs: Vec<(TypeId, TypeId)> = wires.into_iter().zip(copies).collect();
    // In the order of their ids.
    let copy_of =
        |id: TypeId| pairs.binary_search_by_key(&id, |(wire, _)| *wire).map_or(id, |at| pairs[at].1);
    let mut copied = model.clone();
    for (wire, _) in &pairs {
        let ty = model.get(*wire);
        let definition = match &ty.definition {
            Definition::Record(record) => {
                let field = |field: &Field| copied_field(model, field, has_defaults, &copy_of);
                let kept = |field: &&Field| tags == Tags::Kept || !matches!(field.slot.ty, Type::Constant(_));
                Definition::Record(Record::of(record.fields.iter().filter(kept).map(field).collect()))
            }
            Definition::Union(union) => {
                let case =
                    |case: &UnionCase| UnionCase { slot: renamed(&case.slot, &copy_of), ..case.clone() };
                Definition::Union(Union {
                    tag: union.tag.clone(),
                    cases: union.cases.iter().map(case).collect(),
                })
            }
            Definition::Enumeration(known) => Definition::Enumeration(known.clone()),
        };
        copied.push(NamedType { definition, base: None, ..ty.clone() });
    }
    for (wire, _) in &pairs {
        let ty = copied.get_mut(*wire);
        ty.name = longer(&ty.name);
        ty.alternatives = ty.alternatives.iter().map(longer).collect();
    }
    for root in [&mut copied.root].into_iter().chain(&mut copied.more_roots) {
        root.name = longer(&root.name);
    }
    WithCopies { model: copied, pairs }
}

/// A list or a map that may be missing is an empty one; what else may be missing may be null.
fn copied_field(
    model: &Model,
    field: &Field,
    has_defaults: bool,
    copy_of: &dyn Fn(TypeId) -> TypeId,
) -> Field {
    let is_filled_in = has_defaults
        && !field.slot.nullable
        && field.default.as_ref().is_some_and(|default| model.takes_default(&field.slot, default));
    let is_collection = matches!(field.slot.ty, Type::List(_) | Type::Map(_));
    let may_be_null = (field.slot.nullable || field.presence == Presence::Sometimes) && !is_filled_in;
    let slot = Slot { nullable: may_be_null && !is_collection, ..renamed(&field.slot, copy_of) };
    Field { presence: Presence::Always, slot, encoding: Encoding::Plain, default: None, ..field.clone() }
}

fn renamed(slot: &Slot, copy_of: &dyn Fn(TypeId) -> TypeId) -> Slot {
    let mut slot = slot.clone();
    slot.ty.rename(copy_of);
    slot
}

#[cfg(test)]
mod tests {
    use jar_sprout_model::{Root, Scalar, WireName};

    use super::*;

    fn field(wire: &str, presence: Presence, slot: Slot) -> Field {
        Field::new(WireName::new(wire), presence, slot)
    }

    #[test]
    fn a_plain_copy_is_clean() {
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
        let WithCopies { model, pairs } =
            with_copies(&Model::new(types.to_vec(), root), "Dto", Tags::Dropped, true);
        let names: Vec<String> = model.types().map(|(_, ty)| ty.name.in_capitals()).collect();
        assert_eq!(names, ["HiveDto", "QueenDto", "Hive", "Queen"]);
        assert_eq!(model.root.name.in_capitals(), "HiveDto");
        let Definition::Record(copy) = &model.get(pairs[0].1).definition else { panic!("a record") };
        let [queen, tags] = &copy.fields[..] else { panic!("the tag is dropped: {copy:?}") };
        assert!(queen.presence == Presence::Always && queen.slot.nullable);
        assert_eq!(queen.slot.ty, Type::Named(pairs[1].1));
        assert!(!tags.slot.nullable, "what is missing is empty");
    }
}

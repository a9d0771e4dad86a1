//! Wide records: with more fields than a class of some platforms takes.

use std::borrow::Cow;

use jar_sprout_model::{
    Definition, Field, Model, NamedType, Presence, Record, Scalar, Slot, Type, TypeId, Width,
};

use super::abilities::Abilities;

/// The types of a model that have more fields than a class of a language takes.
pub(crate) fn types_too_wide<'m>(abilities: &Abilities, model: &'m Model) -> Vec<&'m NamedType> {
    let Some(most) = abilities.most_room else { return Vec::new() };
    too_wide(model, most).map(|(_, ty)| ty).collect()
}

fn too_wide(model: &Model, most: usize) -> impl Iterator<Item = (TypeId, &NamedType)> {
    model.types().filter(move |(_, ty)| ty.definition.fields().iter().map(room).sum::<usize>() > most)
}

/// The model with as many fields in each record as a class takes; the others are keys beyond its fields.
pub(super) fn with_narrow_records<'m>(abilities: &Abilities, model: Cow<'m, Model>) -> Cow<'m, Model> {
    let Some(most) = abilities.most_room else { return model };
    let wide: Vec<TypeId> = too_wide(&model, most).map(|(id, _)| id).collect();
    if wide.is_empty() {
        return model;
    }
    let mut model = model.into_owned();
    for id in wide {
        if let Definition::Record(record) = &mut model.get_mut(id).definition {
            narrow(record, most);
        }
    }
    model.drop_unreached();
    Cow::Owned(model)
}

/// Keeps what is always there, then what comes first.
fn narrow(record: &mut Record, most: usize) {
    let mut order: Vec<usize> = (0..record.fields.len()).collect();
    order.sort_by_key(|at| record.fields[*at].presence != Presence::Always);
    let mut left = most;
    let mut is_kept = vec![false; record.fields.len()];
    for at in order {
        let room = room(&record.fields[at]);
        if room <= left {
            left -= room;
            is_kept[at] = true;
        }
    }
    let mut kept = is_kept.into_iter();
    record.fields.retain(|_| kept.next().unwrap_or_default());
    record.extras = Some(Slot::of(Type::Any));
}

/// The room that a field takes among the parameters of a method of the JVM: two for what has 64 bits (JVMS 4.3.3).
fn room(field: &Field) -> usize {
    let has_64_bits =
        matches!(field.slot.ty, Type::Scalar(Scalar::Integer(Width::Wide | Width::Exact) | Scalar::Float));
    if has_64_bits { 2 } else { 1 }
}

#[cfg(test)]
mod tests {
    use jar_sprout_model::WireName;

    use super::*;

    fn field(wire: &str, presence: Presence, scalar: Scalar) -> Field {
        Field::new(WireName::new(wire), presence, Slot::of(Type::Scalar(scalar)))
    }

    #[test]
    fn what_is_always_there_stays() {
        let mut record = Record::of(vec![
            field("note", Presence::Sometimes, Scalar::Text),
            field("id", Presence::Always, Scalar::Integer(Width::Wide)),
            field("kg", Presence::Sometimes, Scalar::Float),
            field("name", Presence::Always, Scalar::Text),
        ]);
        narrow(&mut record, 4);
        let kept: Vec<&str> = record.fields.iter().map(|field| field.wire.as_str()).collect();
        assert_eq!(kept, ["note", "id", "name"]);
        assert_eq!(record.extras, Some(Slot::of(Type::Any)));
    }
}

//! Deriving: a type for what a client sends, made of the type of what it reads.

use jar_sprout_model::{Definition, NamedType, Presence, Root, Slot, Type, TypeId, Words};

use super::matches;
use super::verdict::{Derivation, Purpose};
use crate::model::Settled;

/// Adds a type for what a client sends, and asks for it, since nothing else does.
pub(super) fn derive(settled: &mut Settled, id: TypeId, derivation: &Derivation) {
    let Derivation { name, purpose, server_made } = derivation;
    let mut ty = NamedType { name: Words::split(name), ..settled.model.get(id).clone() };
    ty.alternatives.clear();
    ty.is_patch = *purpose == Purpose::Update;
    if let Definition::Record(record) = &mut ty.definition {
        record.fields.retain(|field| !server_made.iter().any(|key| matches(key, field.wire.as_str())));
        for field in &mut record.fields {
            field.presence = match purpose {
                // What may be null may be left to the server as well.
                Purpose::Create if field.slot.nullable => field.presence,
                Purpose::Create => Presence::Always,
                Purpose::Update => Presence::Sometimes,
            };
        }
    }
    let name = ty.name.clone();
    let added = settled.model.push(ty);
    settled.origins.push(settled.origins[id.index()].clone());
    settled.model.more_roots.push(Root { name, slot: Slot::of(Type::Named(added)) });
}

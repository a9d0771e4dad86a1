//! Verdicts on fields, a function each.

use jar_sprout_model::{
    Case, Coding, DefaultValue, Definition, DraftId, Encoding, Enumeration, Field, NamedType, Presence,
    Scalar, ScalarKind, Slot, Type, TypeId, Width, WireName, Words,
};
use jar_sprout_shape::Distinct;

use super::Deciding;
use super::verdict::{FieldType, FieldVerdict, Phase};
use crate::subject::{Lack, Subject};

impl Deciding<'_, '_> {
    pub(super) fn decide_field(
        &mut self,
        id: TypeId,
        key: &WireName,
        verdict: &FieldVerdict,
    ) -> Result<(), Lack> {
        match verdict {
            FieldVerdict::Structure(_) => return Err(Lack::Samples),
            FieldVerdict::Is(ty) => self.set_type(id, key, ty)?,
            FieldVerdict::Split(name) => self.split(id, key, name)?,
            FieldVerdict::Default(value) => self.set_default(id, key, value)?,
            FieldVerdict::Closed(is_closed) => self.close_type_of(id, key, *is_closed)?,
            FieldVerdict::LeaveOut => drop(self.left_out.insert((id, key.clone()))),
            FieldVerdict::Required => self.change(id, key, |field| {
                field.presence = Presence::Always;
                field.slot.nullable = false;
            }),
            FieldVerdict::Optional => self.change(id, key, |field| field.presence = Presence::Sometimes),
            FieldVerdict::Nullable => self.change(id, key, |field| field.slot.nullable = true),
            FieldVerdict::NeverNull => self.change(id, key, |field| field.slot.nullable = false),
            FieldVerdict::Rename(name) => self.change(id, key, |field| field.name = Words::split(name)),
            FieldVerdict::Describe(text) => {
                self.change(id, key, |field| field.docs = field.docs.with_text(text));
            }
            FieldVerdict::Deprecated(is_deprecated) => {
                self.change(id, key, |field| field.docs.is_deprecated = *is_deprecated);
            }
        }
        // What a field is and when it is there is then no question any more.
        if matches!(verdict.phase(), Phase::Type | Phase::Presence) {
            self.settled.decided.insert(Subject::of(&self.settled.model.get(id).name, key));
        }
        Ok(())
    }

    /// Changes a field, if it is there.
    fn change(&mut self, id: TypeId, key: &WireName, change: impl FnOnce(&mut Field)) {
        if let Definition::Record(record) = &mut self.settled.model.get_mut(id).definition
            && let Some(field) = record.fields.iter_mut().find(|field| field.wire == *key)
        {
            change(field);
        }
    }

    fn set_type(&mut self, id: TypeId, key: &WireName, decided: &FieldType) -> Result<(), Lack> {
        let encoding = match decided {
            FieldType::OrNothing(_, words) => Encoding::NothingWords(words.clone()),
            FieldType::Scalar(_)
            | FieldType::Any
            | FieldType::List(_)
            | FieldType::Map(_)
            | FieldType::Named(_)
            | FieldType::Enum
            | FieldType::EnumOf(_) => Encoding::Plain,
        };
        let decided = match decided {
            FieldType::OrNothing(ty, _) => ty,
            decided => decided,
        };
        let ty = match decided {
            FieldType::Enum if encoding == Encoding::Plain && self.is_enum(id, key) => return Ok(()),
            FieldType::Enum => self.seen_values(id, key, &encoding),
            FieldType::EnumOf(values) => {
                let known = values.iter().map(WireName::new).collect();
                self.enumeration(id, key, known, None)
            }
            FieldType::Scalar(_)
            | FieldType::Any
            | FieldType::List(_)
            | FieldType::Map(_)
            | FieldType::OrNothing(..)
            | FieldType::Named(_) => {
                let decided = self.decided_type(decided)?;
                let known = self.field(id, key);
                known.map_or_else(|| decided.clone(), |field| self.as_on_wire(&decided, &field.slot.ty))
            }
        };
        self.change(id, key, |field| {
            field.slot.ty = ty;
            field.encoding = encoding;
        });
        Ok(())
    }

    fn decided_type(&self, decided: &FieldType) -> Result<Type, Lack> {
        Ok(match decided {
            FieldType::Scalar(scalar) => Type::Scalar(*scalar),
            FieldType::List(inner) => Type::List(Box::new(Slot::of(self.decided_type(inner)?))),
            FieldType::Map(inner) => Type::Map(Box::new(Slot::of(self.decided_type(inner)?))),
            FieldType::Named(name) => Type::Named(self.named(name)?),
            // Nothing of these stands inside another.
            FieldType::OrNothing(ty, _) => self.decided_type(ty)?,
            FieldType::Any | FieldType::Enum | FieldType::EnumOf(_) => Type::Any,
        })
    }

    /// What may be null is null where it is null; what is of another kind holds no such value.
    fn set_default(&mut self, id: TypeId, key: &WireName, value: &DefaultValue) -> Result<(), Lack> {
        let takes =
            |field: &Field| !field.slot.nullable && self.settled.model.takes_default(&field.slot, value);
        let known = self.field(id, key);
        if !known.is_some_and(takes) {
            return Err(Lack::Room { value: value.clone() });
        }
        self.change(id, key, |field| {
            field.presence = Presence::Sometimes;
            field.default = Some(value.clone());
        });
        Ok(())
    }

    /// It is said of the type that the field has.
    fn close_type_of(&mut self, id: TypeId, key: &WireName, is_closed: bool) -> Result<(), Lack> {
        let field = self.field(id, key);
        match field.map(|field| &field.slot.ty) {
            Some(Type::Named(named)) => self.close(*named, is_closed),
            Some(
                Type::Any
                | Type::Scalar(_)
                | Type::Constant(_)
                | Type::List(_)
                | Type::Map(_)
                | Type::Tuple(_),
            )
            | None => Err(Lack::Enum),
        }
    }

    /// Gives what stands in a field a type of its own.
    fn split(&mut self, id: TypeId, key: &WireName, name: &str) -> Result<(), Lack> {
        let field = self.field(id, key);
        let Some(whole) = field.and_then(|field| field.slot.ty.named().next()) else {
            return Err(Lack::NamedType);
        };
        let part = NamedType { name: Words::split(name), ..self.settled.model.get(whole).clone() };
        let known_as = part.name.in_capitals();
        let added = self.settled.model.push(part);
        self.names.insert(known_as, added);
        self.settled.origins.push(self.settled.origins[whole.index()].clone());
        self.change(id, key, |field| field.slot.ty.rename(&|id| if id == whole { added } else { id }));
        Ok(())
    }

    /// A type that was decided, in letters where the wire has texts and it is a number.
    fn as_on_wire(&self, decided: &Type, known: &Type) -> Type {
        match (decided, known) {
            (Type::List(decided), Type::List(known)) => {
                Type::List(Box::new(Slot::of(self.as_on_wire(&decided.ty, &known.ty))))
            }
            (Type::Map(decided), Type::Map(known)) => {
                Type::Map(Box::new(Slot::of(self.as_on_wire(&decided.ty, &known.ty))))
            }
            (Type::Scalar(scalar), known) if self.is_text(known) => Type::Scalar(match scalar {
                Scalar::Integer(Width::Narrow | Width::Wide | Width::Exact) => {
                    Scalar::Coded(Coding::IntegerText)
                }
                Scalar::Boolean => Scalar::Coded(Coding::BooleanText),
                Scalar::Float => Scalar::Coded(Coding::FloatText),
                Scalar::Decimal => Scalar::Coded(Coding::DecimalText),
                other => *other,
            }),
            (other, _) => other.clone(),
        }
    }

    fn is_text(&self, ty: &Type) -> bool {
        match ty {
            Type::Scalar(scalar) => scalar.kind() == ScalarKind::Text,
            Type::Named(id) => matches!(self.settled.model.get(*id).definition, Definition::Enumeration(_)),
            Type::Constant(_) => true,
            Type::Any | Type::List(_) | Type::Map(_) | Type::Tuple(_) => false,
        }
    }

    /// Whether a field is an enum already.
    fn is_enum(&self, id: TypeId, key: &WireName) -> bool {
        let ty = self.field(id, key).map(|field| &field.slot.ty);
        matches!(ty, Some(Type::Named(ty)) if matches!(self.settled.model.get(*ty).definition, Definition::Enumeration(_)))
    }

    /// An enum of the values that a field had; text where they are too many to know.
    fn seen_values(&mut self, id: TypeId, key: &WireName, encoding: &Encoding) -> Type {
        let origin = self.settled.origin(&self.drafted.draft, id, Some(key));
        let texts = origin.and_then(|node| self.drafted.evidence.get(&node)?.texts.as_ref());
        let Some(Distinct::All(values)) = texts.map(jar_sprout_shape::Texts::distinct) else {
            return Type::Scalar(Scalar::Text);
        };
        let mut known: Vec<WireName> = values.iter().map(|(text, _)| WireName::new(*text)).collect();
        known.sort();
        if let Encoding::NothingWords(words) = encoding {
            known.retain(|text| !words.has(text.as_str()));
            return self.enumeration(id, key, known, None);
        }
        self.enumeration(id, key, known, origin)
    }

    fn enumeration(
        &mut self,
        id: TypeId,
        key: &WireName,
        known: Vec<WireName>,
        origin: Option<DraftId>,
    ) -> Type {
        let cases = known.into_iter().map(Case::new).collect();
        let owner = self.settled.model.get(id).name.clone();
        let Some(field) = self.field(id, key) else {
            return Type::Scalar(Scalar::Text);
        };
        let (ty, name) = (field.slot.ty.clone(), field.name.prefixed(&owner));
        if let Type::Named(known) = ty
            && let Definition::Enumeration(known) = &mut self.settled.model.get_mut(known).definition
        {
            if origin.is_none() {
                known.cases = cases;
            }
            return ty;
        }
        let definition = Definition::Enumeration(Enumeration { cases, is_closed: false });
        let added = self.settled.model.push(NamedType::new(name.clone(), definition));
        self.settled.origins.push(origin.into_iter().collect());
        self.names.entry(name.in_capitals()).or_insert(added);
        Type::Named(added)
    }
}

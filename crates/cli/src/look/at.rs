//! What a model makes of a position of the shape.

use jar_sprout_model::{Definition, Encoding, Field, Model, Slot, Type, Words};

/// A position, and what the model has there.
#[derive(Debug, Clone, Copy)]
pub(crate) struct At<'m> {
    model: &'m Model,
    /// Whether a key that the model does not have was left out of it.
    is_whole: bool,
    /// Whether the wire has what stands here as JSON in a text.
    is_in_text: bool,
    place: Place<'m>,
}

#[derive(Debug, Clone, Copy)]
enum Place<'m> {
    /// It has a type.
    Slot(&'m Slot),
    /// It was decided that it is no part of the model.
    LeftOut,
    /// It stands in something of which the model says nothing.
    Beyond,
}

impl<'m> At<'m> {
    /// The root of a model. One that was made of the very samples is whole: it has all their keys but those that were
    /// left out.
    pub(crate) fn root(model: &'m Model, is_whole: bool) -> Self {
        Self { model, is_whole, is_in_text: false, place: Place::Slot(&model.root.slot) }
    }

    fn with(self, slot: Option<&'m Slot>) -> Self {
        let place = slot.map_or(Place::Beyond, Place::Slot);
        Self { place, is_in_text: false, ..self }
    }

    /// What stands in the texts here, if the model reads them as JSON.
    pub(crate) fn inside(self) -> Option<Self> {
        self.is_in_text.then_some(Self { is_in_text: false, ..self })
    }

    /// The types that may stand here: those of a union, or the one.
    fn types(self) -> Vec<&'m Type> {
        let Place::Slot(slot) = self.place else { return Vec::new() };
        match &slot.ty {
            Type::Named(id) => match &self.model.get(*id).definition {
                Definition::Union(union) => union.cases.iter().map(|case| &case.slot.ty).collect(),
                Definition::Record(_) | Definition::Enumeration(_) => vec![&slot.ty],
            },
            ty => vec![ty],
        }
    }

    pub(crate) fn items(self) -> Self {
        self.with(self.types().into_iter().find_map(|ty| match ty {
            Type::List(items) => Some(&**items),
            _ => None,
        }))
    }

    /// The values of a map, where it is one.
    pub(crate) fn values(self) -> Option<Self> {
        let values = self.types().into_iter().find_map(|ty| match ty {
            Type::Map(values) => Some(&**values),
            _ => None,
        })?;
        Some(self.with(Some(values)))
    }

    /// What stands under a key, and the name of its field where that is another one.
    pub(crate) fn field(self, key: &str) -> (Self, Option<String>) {
        let mut is_record = false;
        for ty in self.types() {
            let Type::Named(id) = ty else { continue };
            let Definition::Record(record) = &self.model.get(*id).definition else { continue };
            is_record = true;
            if let Some(Field { name, slot, encoding, .. }) =
                record.fields.iter().find(|field| field.wire.as_str() == key)
            {
                let renamed = (*name != Words::split(key)).then(|| in_camels(name));
                let is_in_text = *encoding == Encoding::JsonInText;
                return (Self { is_in_text, ..self.with(Some(slot)) }, renamed);
            }
            if let Some(extras) = &record.extras {
                return (self.with(Some(extras)), None);
            }
        }
        let place = if is_record && self.is_whole { Place::LeftOut } else { Place::Beyond };
        (Self { place, ..self.with(None) }, None)
    }

    /// What stands under a key that no field has, where the record takes such keys.
    pub(crate) fn beside_fields(self, key: &str) -> Option<Self> {
        let mut extras = None;
        for ty in self.types() {
            let Type::Named(id) = ty else { continue };
            let Definition::Record(record) = &self.model.get(*id).definition else { continue };
            if record.fields.iter().any(|field| field.wire.as_str() == key) {
                return None;
            }
            extras = extras.or(record.extras.as_ref());
        }
        extras.map(|extras| self.with(Some(extras)))
    }

    pub(crate) fn is_left_out(self) -> bool {
        matches!(self.place, Place::LeftOut)
    }

    /// The union that stands here, by the name that decisions call it by.
    pub(crate) fn union(self) -> Option<String> {
        let Place::Slot(Slot { ty: Type::Named(id), .. }) = self.place else { return None };
        let ty = self.model.get(*id);
        matches!(ty.definition, Definition::Union(_)).then(|| ty.name.in_capitals())
    }

    /// The enum that the texts here are, by its name.
    pub(crate) fn enumeration(self) -> Option<String> {
        self.only(|definition| matches!(definition, Definition::Enumeration(_)))
    }

    /// The record that all objects here are, by its name.
    pub(crate) fn record(self) -> Option<String> {
        self.only(|definition| matches!(definition, Definition::Record(_)))
    }

    /// The one type here with such a definition, by its name.
    fn only(self, has: impl Fn(&Definition) -> bool) -> Option<String> {
        let named = |ty: &Type| if let Type::Named(id) = ty { Some(self.model.get(*id)) } else { None };
        let mut found = self.types().into_iter().filter_map(named).filter(|ty| has(&ty.definition));
        found.next().filter(|_| found.next().is_none()).map(|ty| ty.name.in_capitals())
    }
}

/// `imageUrl`
fn in_camels(name: &Words) -> String {
    let mut chars = name.in_capitals().chars().collect::<Vec<_>>().into_iter();
    chars.next().into_iter().flat_map(char::to_lowercase).chain(chars).collect()
}

//! The model: named types, free of any language.

use std::collections::HashSet;
use std::sync::Arc;

use crate::docs::Docs;
use crate::scalar::{Scalar, Width};
use crate::wire::{Presence, WireName};
use crate::words::Words;

/// Index of a named type in its [`Model`].
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash, PartialOrd, Ord)]
pub struct TypeId(u32);

/// The result of inference: named types and the root.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Model {
    types: Vec<NamedType>,
    /// What a whole sample is.
    pub root: Root,
    /// What else is asked for: the other parts of a document.
    pub more_roots: Vec<Root>,
    /// What all of it is called, where that is not the root's name.
    pub title: Option<Words>,
}

/// What a whole sample is.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Root {
    /// The root's name; the type's own where the root is a named type.
    pub name: Words,
    /// Its type.
    pub slot: Slot,
}

/// A type that has a name of its own.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct NamedType {
    /// The name, unique in the model.
    pub name: Words,
    /// Longer names that fit too, for a language in which the first one is taken; the best first.
    pub alternatives: Vec<Words>,
    /// What is said of it.
    pub docs: Docs,
    /// Whether it is sent to change a part of something: what is absent is left alone, and null is set.
    pub is_patch: bool,
    /// The type that a document says it extends.
    pub base: Option<TypeId>,
    /// What it is.
    pub definition: Definition,
}

/// What a named type is.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum Definition {
    /// `{"id": 17, "name": "Alder Bank"}`
    Record(Record),
    /// `"laying" | "caged"`
    Enumeration(Enumeration),
    /// `{"kind": "swarm", …} | {"kind": "harvest", …}`, or `8 | "eight"`
    Union(Union),
}

/// An object with known keys.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Record {
    /// In first-seen order.
    pub fields: Vec<Field>,
    /// What stands under any other key, where a document says so.
    pub extras: Option<Slot>,
}

/// One key of a record.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Field {
    /// The key on the wire.
    pub wire: WireName,
    /// The key as words.
    pub name: Words,
    /// Whether the key is always there.
    pub presence: Presence,
    /// What stands there.
    pub slot: Slot,
    /// How the wire writes that.
    pub encoding: Encoding,
    /// What holds where the key is absent.
    pub default: Option<DefaultValue>,
    /// What is said of it.
    pub docs: Docs,
}

/// How the wire writes what stands in a field.
#[derive(Debug, Clone, Default, PartialEq, Eq, Hash)]
pub enum Encoding {
    /// `{"frames": 8}`: as it is
    #[default]
    Plain,
    /// `"{\"frames\": 8}"`: as a text that is JSON itself; null stays null.
    JsonInText,
    /// `8`, or `"N/A"` where there is none: as it is, or as a word that stands for nothing.
    NothingWords(NothingWords),
}

impl Encoding {
    /// The words that stand for nothing, where it has some.
    pub fn nothing_words(&self) -> Option<&NothingWords> {
        match self {
            Self::NothingWords(words) => Some(words),
            Self::Plain | Self::JsonInText => None,
        }
    }
}

/// Texts that stand for no value: at least one, no two alike. Cheap to clone.
#[derive(Debug, Clone, PartialEq, Eq, Hash, PartialOrd, Ord)]
pub struct NothingWords(Arc<[WireName]>);

impl NothingWords {
    /// These words; none where there is none.
    pub fn new(words: impl IntoIterator<Item = WireName>) -> Option<Self> {
        let mut each: Vec<WireName> = Vec::new();
        for word in words {
            if !each.contains(&word) {
                each.push(word);
            }
        }
        (!each.is_empty()).then(|| Self(each.into()))
    }

    /// The one that is written where there is no value.
    pub fn first(&self) -> &WireName {
        &self.0[0]
    }

    /// All of them.
    pub fn iter(&self) -> impl Iterator<Item = &WireName> {
        self.0.iter()
    }

    /// Whether a text is one of them.
    pub fn has(&self, text: &str) -> bool {
        self.0.iter().any(|word| word.as_str() == text)
    }
}

/// What holds where a key is absent.
#[derive(Debug, Clone, PartialEq, Eq, Hash)]
pub enum DefaultValue {
    /// `true`
    Boolean(bool),
    /// `0`, `0.5`: as JSON writes it.
    Number(String),
    /// `"calm"`
    Text(String),
}

/// A text with few known values.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Enumeration {
    /// The known values.
    pub cases: Vec<Case>,
    /// Whether there can be no other; else a value not listed must not break a decode.
    pub is_closed: bool,
}

/// One known value.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Case {
    /// The text on the wire.
    pub wire: WireName,
    /// The text as words.
    pub name: Words,
    /// What is said of it.
    pub docs: Docs,
}

/// One of several types.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Union {
    /// The key whose value tells the cases apart; none when only the kind of value does.
    pub tag: Option<WireName>,
    /// The cases.
    pub cases: Vec<UnionCase>,
}

/// One case of a union.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct UnionCase {
    /// The case's name.
    pub name: Words,
    /// The tag's value in this case, where the union has a tag.
    pub tag: Option<WireName>,
    /// What stands there.
    pub slot: Slot,
}

/// A place for a value: its type, and whether it may be null.
#[derive(Debug, Clone, PartialEq, Eq, Hash)]
pub struct Slot {
    /// The type of a value that is not null.
    pub ty: Type,
    /// Whether null may stand there.
    pub nullable: bool,
}

/// A type in use.
#[derive(Debug, Clone, PartialEq, Eq, Hash)]
pub enum Type {
    /// Any JSON value.
    Any,
    /// A value with no parts.
    Scalar(Scalar),
    /// Always this text: the tag of a union's case.
    Constant(WireName),
    /// `[…]`
    List(Box<Slot>),
    /// `{"h-1": …}`, keys being data.
    Map(Box<Slot>),
    /// `["Alder Bank", 17]`: so many items, each of its own type.
    Tuple(Vec<Slot>),
    /// A named type.
    Named(TypeId),
}

impl Model {
    /// A model of these types; `root` and they refer to each other by index.
    pub fn new(types: Vec<NamedType>, root: Root) -> Self {
        Self { types, root, more_roots: Vec::new(), title: None }
    }

    /// All that is asked for: what a whole sample is, and what else a document has.
    pub fn roots(&self) -> impl Iterator<Item = &Root> {
        [&self.root].into_iter().chain(&self.more_roots)
    }

    /// The type of an id that belongs to this model.
    pub fn get(&self, id: TypeId) -> &NamedType {
        &self.types[id.index()]
    }

    /// The type of an id that belongs to this model, to be changed.
    pub fn get_mut(&mut self, id: TypeId) -> &mut NamedType {
        &mut self.types[id.index()]
    }

    /// Puts one type wherever another stands.
    pub fn replace(&mut self, gone: TypeId, kept: TypeId) {
        self.rename(&|id| if id == gone { kept } else { id });
    }

    /// The record that a type extends: all of its fields are this type's as well, and are the same.
    pub fn base(&self, id: TypeId) -> Option<TypeId> {
        let ty = self.get(id);
        let base = self.get(ty.base?);
        let (Definition::Record(own), Definition::Record(theirs)) = (&ty.definition, &base.definition) else {
            return None;
        };
        let is_same = |field: &Field, other: &Field| {
            field.wire == other.wire
                && field.presence == other.presence
                && field.slot == other.slot
                && field.encoding == other.encoding
                && field.default == other.default
        };
        let has = |field: &Field| own.fields.iter().any(|other| is_same(field, other));
        let is_plain = |record: &Record| !record.has_tag() && record.extras.is_none();
        // Of two that have the same fields, neither extends the other.
        let has_more = !theirs.fields.is_empty() && own.fields.len() > theirs.fields.len();
        let extends = has_more
            && is_plain(own)
            && is_plain(theirs)
            && ty.is_patch == base.is_patch
            && theirs.fields.iter().all(has);
        extends.then_some(ty.base).flatten()
    }

    /// Keeps the types of these old indexes, in their order, and gives every type in use its new id.
    pub(crate) fn keep(&mut self, kept: &[usize], to: &dyn Fn(TypeId) -> TypeId) {
        let mut index = 0;
        self.types.retain(|_| {
            index += 1;
            kept.binary_search(&(index - 1)).is_ok()
        });
        for ty in &mut self.types {
            // Whoever extends what is gone has its fields all the same.
            ty.base = ty.base.filter(|base| kept.binary_search(&base.index()).is_ok());
        }
        self.rename(to);
    }

    fn rename(&mut self, to: &dyn Fn(TypeId) -> TypeId) {
        for ty in &mut self.types {
            ty.base = ty.base.map(to);
        }
        self.change_types(&|ty| ty.rename(to));
    }

    /// Changes the type of every place.
    fn change_types(&mut self, change: &dyn Fn(&mut Type)) {
        for root in [&mut self.root].into_iter().chain(&mut self.more_roots) {
            change(&mut root.slot.ty);
        }
        for ty in &mut self.types {
            match &mut ty.definition {
                Definition::Record(record) => {
                    record.slots_mut().for_each(|slot| change(&mut slot.ty));
                }
                Definition::Union(union) => {
                    union.cases.iter_mut().for_each(|case| change(&mut case.slot.ty));
                }
                Definition::Enumeration(_) => {}
            }
        }
    }

    /// The scalars of all places, as they are and inside lists, maps and tuples.
    pub fn scalars(&self) -> impl Iterator<Item = Scalar> {
        let roots = self.roots().map(|root| &root.slot.ty);
        let parts = self.types.iter().flat_map(|ty| ty.definition.types());
        roots.chain(parts).flat_map(Type::scalars)
    }

    /// Changes the fields of all records, each as what its type makes of it; types that are needed no more go.
    pub fn change_fields(&mut self, change: &dyn Fn(&NamedType, &mut Field)) {
        for index in 0..self.types.len() {
            let mut fields = self.types[index].definition.fields().to_vec();
            fields.iter_mut().for_each(|field| change(&self.types[index], field));
            if let Definition::Record(record) = &mut self.types[index].definition {
                record.fields = fields;
            }
        }
        self.drop_unreached();
    }

    /// Puts another scalar in the place of each.
    pub fn change_scalars(&mut self, to: &dyn Fn(Scalar) -> Scalar) {
        self.change_types(&|ty| ty.change_scalars(to));
    }

    /// The types that say what stands under keys beyond their fields.
    pub fn with_extras(&self) -> impl Iterator<Item = (TypeId, &NamedType, &Record)> {
        self.types().filter_map(|(id, ty)| match &ty.definition {
            Definition::Record(record) if record.extras.is_some() => Some((id, ty, record)),
            Definition::Record(_) | Definition::Enumeration(_) | Definition::Union(_) => None,
        })
    }

    /// Puts something else in the place of what stands under keys beyond the fields of records.
    pub fn change_extras(&mut self, to: impl Fn(TypeId, &Record) -> Option<Slot>) {
        for (index, ty) in self.types.iter_mut().enumerate() {
            if let Definition::Record(record) = &mut ty.definition
                && record.extras.is_some()
            {
                record.extras = to(TypeId::from_index(index), record);
            }
        }
        self.drop_unreached();
    }

    /// Adds a type.
    pub fn push(&mut self, ty: NamedType) -> TypeId {
        self.types.push(ty);
        TypeId::from_index(self.types.len() - 1)
    }

    /// All types with their ids: the root's first, then by first use.
    pub fn types(&self) -> impl Iterator<Item = (TypeId, &NamedType)> {
        self.types.iter().enumerate().map(|(index, ty)| (TypeId::from_index(index), ty))
    }
}

impl Model {
    /// Whether a value is one that a place can have by default: a truth, a number or a text in a place for just that,
    /// or a known value of an enum.
    pub fn takes_default(&self, slot: &Slot, value: &DefaultValue) -> bool {
        match (&slot.ty, value) {
            (Type::Scalar(Scalar::Boolean), DefaultValue::Boolean(_))
            | (Type::Scalar(Scalar::Float), DefaultValue::Number(_))
            | (Type::Scalar(Scalar::Text), DefaultValue::Text(_)) => true,
            (Type::Scalar(Scalar::Integer(Width::Narrow)), DefaultValue::Number(number)) => {
                number.parse::<i32>().is_ok()
            }
            (Type::Scalar(Scalar::Integer(Width::Wide | Width::Exact)), DefaultValue::Number(number)) => {
                // Not every language writes the least one as a number.
                number.parse::<i64>().is_ok_and(|number| number > i64::MIN)
            }
            (Type::Named(id), DefaultValue::Text(text)) => match &self.get(*id).definition {
                Definition::Enumeration(known) => known.cases.iter().any(|case| case.wire.as_str() == text),
                Definition::Record(_) | Definition::Union(_) => false,
            },
            (
                Type::Any
                | Type::Scalar(_)
                | Type::Constant(_)
                | Type::List(_)
                | Type::Map(_)
                | Type::Tuple(_)
                | Type::Named(_),
                _,
            ) => false,
        }
    }
}

impl Model {
    /// The keys that tell which case of a tagged union a record is.
    pub fn tags(&self) -> HashSet<(TypeId, &WireName)> {
        let tagged = self.types.iter().filter_map(|ty| match &ty.definition {
            Definition::Union(union) => Some((union, union.tag.as_ref()?)),
            Definition::Record(_) | Definition::Enumeration(_) => None,
        });
        let cases = |(union, tag): (&'_ Union, _)| -> Vec<_> {
            union.cases.iter().flat_map(|case| case.slot.ty.named()).map(|id| (id, tag)).collect()
        };
        tagged.flat_map(cases).collect()
    }

    /// For each case of a union, the key that tells it from the other objects among the cases: one that it always has,
    /// and none of them. None for what is no record, or has no such key, and where a tag tells them or there are no
    /// other objects.
    pub fn telling_keys<'m>(&'m self, union: &'m Union) -> Vec<Option<&'m WireName>> {
        if union.tag.is_some()
            || union.cases.iter().filter(|case| self.has_objects(&case.slot.ty)).count() < 2
        {
            return vec![None; union.cases.len()];
        }
        let fields = |case: &'m UnionCase| match case.slot.ty {
            Type::Named(id) => self.get(id).definition.fields(),
            Type::Any
            | Type::Scalar(_)
            | Type::Constant(_)
            | Type::List(_)
            | Type::Map(_)
            | Type::Tuple(_) => &[],
        };
        let telling = |(at, case): (usize, &'m UnionCase)| {
            let is_elsewhere = |field: &Field| {
                let mut others = union.cases.iter().enumerate().filter(|(other, _)| *other != at);
                others.any(|(_, other)| fields(other).iter().any(|known| known.wire == field.wire))
            };
            let is_there = |field: &&Field| {
                field.presence == Presence::Always && !field.slot.nullable && field.slot.ty != Type::Any
            };
            fields(case).iter().filter(is_there).find(|field| !is_elsewhere(field)).map(|field| &field.wire)
        };
        union.cases.iter().enumerate().map(telling).collect()
    }

    /// Whether the objects among the cases of a union without a tag are told apart by their keys: all but one of
    /// several have a key of their own.
    pub fn are_objects_told(&self, union: &Union) -> bool {
        let cases = union.cases.iter().zip(self.telling_keys(union));
        cases.filter(|(case, key)| self.has_objects(&case.slot.ty) && key.is_none()).count() <= 1
    }

    /// Whether the wire may have objects in the place of a type.
    fn has_objects(&self, ty: &Type) -> bool {
        match ty {
            Type::Named(id) => !matches!(self.get(*id).definition, Definition::Enumeration(_)),
            Type::Map(_) => true,
            Type::Any | Type::Scalar(_) | Type::Constant(_) | Type::List(_) | Type::Tuple(_) => false,
        }
    }
}

impl Record {
    /// A record whose keys are those of its fields.
    pub fn of(fields: Vec<Field>) -> Self {
        Self { fields, extras: None }
    }

    /// Whether a key is that of a field.
    pub fn has_key(&self, key: &str) -> bool {
        self.fields.iter().any(|field| field.wire.as_str() == key)
    }

    /// Whether a tagged union has it as a case, or may have.
    pub fn has_tag(&self) -> bool {
        self.fields.iter().any(|field| matches!(field.slot.ty, Type::Constant(_)))
    }

    /// All its places.
    pub fn slots(&self) -> impl Iterator<Item = &Slot> {
        self.fields.iter().map(|field| &field.slot).chain(&self.extras)
    }

    fn slots_mut(&mut self) -> impl Iterator<Item = &mut Slot> {
        self.fields.iter_mut().map(|field| &mut field.slot).chain(&mut self.extras)
    }
}

impl Field {
    /// A field that is named as its key, of which nothing is said.
    pub fn new(wire: WireName, presence: Presence, slot: Slot) -> Self {
        let name = Words::split(wire.as_str());
        let (encoding, docs) = (Encoding::Plain, Docs::default());
        Self { wire, name, presence, slot, encoding, default: None, docs }
    }
}

impl NamedType {
    /// A type of which nothing is said.
    pub fn new(name: Words, definition: Definition) -> Self {
        Self {
            name,
            alternatives: Vec::new(),
            docs: Docs::default(),
            is_patch: false,
            base: None,
            definition,
        }
    }
}

impl Case {
    /// A value, named as it is written, of which nothing is said.
    pub fn new(wire: WireName) -> Self {
        Self { name: Words::split(wire.as_str()), wire, docs: Docs::default() }
    }
}

impl Definition {
    /// The fields that the type has of its own.
    pub fn fields(&self) -> &[Field] {
        match self {
            Self::Record(record) => &record.fields,
            Self::Enumeration(_) | Self::Union(_) => &[],
        }
    }
}

impl TypeId {
    /// The id of the type at an index.
    ///
    /// # Panics
    /// Beyond `u32::MAX` types.
    pub fn from_index(index: usize) -> Self {
        Self(u32::try_from(index).expect("a model has fewer types than positions"))
    }

    /// The id as an index.
    pub fn index(self) -> usize {
        self.0 as usize
    }
}

impl Slot {
    /// A place that is never null.
    pub fn of(ty: Type) -> Self {
        Self { ty, nullable: false }
    }
}

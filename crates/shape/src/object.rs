//! Objects at one position: a table of their keys with a shape each, bounded.

use std::collections::HashMap;

use jar_sprout_model::Place;

use crate::input::Expected;
use crate::shape::{Shape, Tally};

/// Past this many distinct keys at one position, the keys are data: all values merge into one shape.
pub const MAX_KEYS: usize = 256;

/// With fewer keys than this, a look along the table beats a hash.
const HASHED_FROM: usize = 8;

/// What objects were seen.
#[derive(Debug, Clone, Default)]
pub struct Objects {
    /// How many objects.
    pub tally: Tally,
    /// How many key-value pairs in all of them.
    pub entries: u64,
    fields: Vec<Field>,
    index: HashMap<Box<str>, usize>,
    /// All values, once there were more than [`MAX_KEYS`] keys.
    crowd: Option<Box<Shape>>,
    first_key: usize,
}

/// One key of the objects at a position.
#[derive(Debug, Clone)]
pub struct Field {
    /// The key, unescaped.
    pub key: Box<str>,
    /// How many objects had it, and where it was seen first.
    pub seen: Tally,
    /// Its values.
    pub shape: Shape,
    /// `"key"` as it is most likely written; none when it needs an escape.
    quoted: Option<Expected>,
    /// The field that followed last time: a guess that is nearly always right.
    next: usize,
    /// The object it was last seen in, to find a key given twice.
    last_object: u64,
}

/// A field's place in its table.
pub(crate) type FieldIndex = usize;

impl Objects {
    /// The fields in first-seen order. Empty once the keys turned out to be data.
    pub fn fields(&self) -> Vec<&Field> {
        let mut fields: Vec<&Field> = self.fields.iter().collect();
        fields.sort_by_key(|field| field.seen.first);
        fields
    }

    /// The field of a key.
    pub fn field(&self, key: &str) -> Option<&Field> {
        self.find(key).map(|index| &self.fields[index])
    }

    /// The shape of all values, if there were more than [`MAX_KEYS`] distinct keys.
    pub fn crowd(&self) -> Option<&Shape> {
        self.crowd.as_deref()
    }

    pub(crate) fn start(&mut self, place: Place) {
        self.tally.add(place);
    }

    /// The field that most likely comes after `previous`, to be compared with the input.
    #[inline]
    pub(crate) fn predict(&self, previous: Option<FieldIndex>) -> Option<(FieldIndex, &Expected)> {
        let index = previous.map_or(self.first_key, |previous| self.fields[previous].next);
        Some((index, self.fields.get(index)?.quoted.as_ref()?))
    }

    /// The field of a key, made if it is new. None once the keys are too many to tell apart.
    pub(crate) fn enter(&mut self, key: &str) -> Option<FieldIndex> {
        if self.crowd.is_some() {
            return None;
        }
        if let Some(index) = self.find(key) {
            return Some(index);
        }
        if self.fields.len() == MAX_KEYS {
            self.crowd_together();
            return None;
        }
        Some(self.push(Field::new(key)))
    }

    /// Counts a key of the current object and learns that it follows `previous`.
    /// Answers whether the object had the key already.
    #[inline]
    pub(crate) fn count(&mut self, index: FieldIndex, previous: Option<FieldIndex>, place: Place) -> bool {
        self.entries += 1;
        match previous {
            Some(previous) => self.fields[previous].next = index,
            None => self.first_key = index,
        }
        let object = self.tally.count;
        let field = &mut self.fields[index];
        let repeated = field.last_object == object;
        field.last_object = object;
        if !repeated {
            field.seen.add(place);
        }
        repeated
    }

    /// The shape that takes the value of a field just counted.
    #[inline]
    pub(crate) fn shape_mut(&mut self, index: FieldIndex) -> &mut Shape {
        &mut self.fields[index].shape
    }

    /// Counts a key once the keys are too many, and gives the shape that takes its value.
    pub(crate) fn crowd_mut(&mut self) -> &mut Shape {
        self.entries += 1;
        self.crowd.get_or_insert_default()
    }

    pub(crate) fn merge(&mut self, other: Self) {
        let Self { tally, entries, fields, index: _, crowd, first_key: _ } = other;
        self.tally.merge(tally);
        self.entries += entries;
        if let Some(crowd) = crowd {
            self.crowd_together();
            self.crowd.get_or_insert_default().merge(*crowd);
        }
        for field in fields {
            match self.enter(&field.key) {
                Some(index) => {
                    let mine = &mut self.fields[index];
                    mine.seen.merge(field.seen);
                    mine.shape.merge(field.shape);
                }
                None => self.crowd.get_or_insert_default().merge(field.shape),
            }
        }
    }

    pub(crate) fn key(&self, index: FieldIndex) -> &str {
        &self.fields[index].key
    }

    /// Takes the values of one key out.
    pub(crate) fn take_field(&mut self, key: &str) -> Option<Shape> {
        self.find(key).map(|index| std::mem::take(&mut self.fields[index].shape))
    }

    /// All values as one shape.
    pub(crate) fn into_values(mut self) -> Shape {
        self.crowd_together();
        *self.crowd.unwrap_or_default()
    }

    fn find(&self, key: &str) -> Option<FieldIndex> {
        if self.index.is_empty() {
            self.fields.iter().position(|field| &*field.key == key)
        } else {
            self.index.get(key).copied()
        }
    }

    fn push(&mut self, field: Field) -> FieldIndex {
        let index = self.fields.len();
        self.fields.push(field);
        if self.fields.len() == HASHED_FROM {
            self.index = self.fields.iter().enumerate().map(|(at, field)| (field.key.clone(), at)).collect();
        } else if self.fields.len() > HASHED_FROM {
            self.index.insert(self.fields[index].key.clone(), index);
        }
        index
    }

    /// Gives up telling the keys apart.
    fn crowd_together(&mut self) {
        let crowd = self.crowd.get_or_insert_default();
        for field in std::mem::take(&mut self.fields) {
            crowd.merge(field.shape);
        }
        self.index = HashMap::new();
        self.first_key = 0;
    }
}

impl PartialEq for Objects {
    /// Equal when they saw the same; what they guess of the next input does not count.
    fn eq(&self, other: &Self) -> bool {
        self.tally == other.tally
            && self.entries == other.entries
            && self.crowd == other.crowd
            && self.fields() == other.fields()
    }
}

impl Field {
    fn new(key: &str) -> Self {
        let is_plain = !key.bytes().any(|b| b < 0x20 || b == b'"' || b == b'\\');
        Self {
            key: key.into(),
            seen: Tally::default(),
            shape: Shape::default(),
            quoted: is_plain.then(|| Expected::new(format!("\"{key}\""))),
            next: usize::MAX,
            last_object: 0,
        }
    }
}

impl PartialEq for Field {
    fn eq(&self, other: &Self) -> bool {
        self.key == other.key && self.seen == other.seen && self.shape == other.shape
    }
}

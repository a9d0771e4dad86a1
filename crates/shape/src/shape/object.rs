//! Objects at one position: a table of their keys with a shape each, bounded.

use std::collections::{BTreeSet, HashMap};
use std::hash::Hasher;

use jar_sprout_model::{Kind, Place};
use rustc_hash::FxHasher;

use crate::shape::links::{LinkTable, Linked, Links, ValueKinds, VariantBits};
use crate::shape::text::MAX_DISTINCT;
use crate::shape::variant::{Beside, KindsBeside, Known, Sighting, Variant, VariantKey, Variants, bits};
use crate::shape::{FieldIndex, Shape};
use crate::tally::Tally;
use crate::token::Expected;

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
    fields: Vec<FieldShape>,
    index: HashMap<Box<str>, usize>,
    /// All values, once there were more than [`MAX_KEYS`] keys.
    crowd: Option<Box<Shape>>,
    variants: Variants,
    first_key: usize,
}

/// One key of the objects at a position.
#[derive(Debug, Clone)]
pub struct FieldShape {
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
    /// A number for the key, the same wherever it is met.
    id: u64,
}

impl Objects {
    /// The fields in first-seen order. Empty once the keys turned out to be data.
    pub fn fields(&self) -> Vec<&FieldShape> {
        let mut fields: Vec<&FieldShape> = self.fields.iter().collect();
        fields.sort_by_key(|field| field.seen.first);
        fields
    }

    /// The field of a key.
    pub fn field(&self, key: &str) -> Option<&FieldShape> {
        self.find(key).map(|index| &self.fields[index])
    }

    /// The shape of all values, if there were more than [`MAX_KEYS`] distinct keys.
    pub fn crowd(&self) -> Option<&Shape> {
        self.crowd.as_deref()
    }

    /// The sets of keys that stood together, by their ids; none if they are too many to tell apart.
    pub fn variants(&self) -> Option<Vec<Variant<'_>>> {
        let mut variants: Vec<Variant<'_>> =
            self.variants.known()?.iter().map(|known| self.resolve(known)).collect();
        variants.sort();
        Some(variants)
    }

    fn resolve(&self, known: &Known) -> Variant<'_> {
        let mut keys: Vec<VariantKey<'_>> =
            known.sightings.iter().map(|one| self.resolve_key(one, known)).collect();
        keys.sort();
        Variant { id: known.id, count: known.count, keys }
    }

    fn resolve_key(&self, sighting: &Sighting, known: &Known) -> VariantKey<'_> {
        let Sighting { field, key: _, kinds, items, truths, ordinals, children: _ } = *sighting;
        let FieldShape { key, shape, .. } = &self.fields[field];
        let texts = || {
            let texts = shape.texts.as_ref().filter(|texts| texts.are_few())?;
            bits(ordinals).map(|ordinal| texts.at_ordinal(ordinal)).collect()
        };
        // Texts that are not told apart cannot be linked.
        let are_told = shape.texts.as_ref().is_none_or(|texts| texts.are_few());
        VariantKey {
            key,
            kinds,
            items,
            truths,
            texts: if ordinals == 0 && shape.texts.is_none() { Some(BTreeSet::new()) } else { texts() },
            beside: known
                .links
                .known()
                .filter(|_| are_told)
                .and_then(|links| self.resolve_links(field, links)),
            kinds_beside: are_told.then(|| self.resolve_kinds(field, known)).flatten(),
        }
    }

    fn resolve_kinds(&self, field: FieldIndex, known: &Known) -> Option<BTreeSet<KindsBeside<'_>>> {
        let mut all = BTreeSet::new();
        let is_never_null = |other: FieldIndex| {
            known.sightings.iter().any(|one| one.field == other && !one.kinds.has(Kind::Null))
        };
        let mine = known.kind_links.known()?.iter().filter(|links| links.field == field);
        for Links { other, by_ordinal, .. } in mine.filter(|links| is_never_null(links.other)) {
            let texts = self.fields[field].shape.texts.as_ref()?;
            let key = &self.fields[*other].key;
            let told = by_ordinal.iter().enumerate().filter(|(_, seen)| !seen.kinds.is_empty());
            for (ordinal, ValueKinds { kinds, items }) in told {
                let text = texts.at_ordinal(ordinal)?;
                all.insert(KindsBeside { text, key, kinds: *kinds, items: *items });
            }
        }
        Some(all)
    }

    fn resolve_links(&self, field: FieldIndex, links: &[Links<VariantBits>]) -> Option<BTreeSet<Beside<'_>>> {
        let mut all = BTreeSet::new();
        for Links { other, by_ordinal, .. } in links.iter().filter(|links| links.field == field) {
            let texts = self.fields[field].shape.texts.as_ref()?;
            let FieldShape { key, shape, .. } = &self.fields[*other];
            // Where the inner variants were given up, nothing is known of them.
            let Some(known) = inner_objects(shape).and_then(|objects| objects.variants.known_by_holders())
            else {
                continue;
            };
            for (ordinal, children) in by_ordinal.iter().enumerate().filter(|(_, children)| **children != 0) {
                let text = texts.at_ordinal(ordinal)?;
                all.extend(bits(*children).map(|at| Beside { text, key, variant: known[at].id }));
            }
        }
        Some(all)
    }

    /// Counts the object that ends, by what was seen of its values. Answers the bit of its variant.
    #[inline]
    pub(crate) fn end(&mut self, sightings: &[Sighting]) -> u64 {
        if self.crowd.is_some() {
            return 0;
        }
        let id = sightings.iter().fold(0_u64, |id, one| id.wrapping_add(one.key));
        self.variants.count(id, sightings)
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

    /// Whether the key is known, or would not be told from others anyway.
    pub(crate) fn knows(&self, key: &str) -> bool {
        self.crowd.is_some() || self.find(key).is_some()
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
        Some(self.push(FieldShape::new(key)))
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

    /// The number of a field's key.
    #[inline]
    pub(crate) fn key_number(&self, index: FieldIndex) -> u64 {
        self.fields[index].id
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

    /// Adds what other objects showed. Answers for each of their variants its bit here.
    pub(crate) fn merge(&mut self, other: Self) -> Vec<u64> {
        let Self { tally, entries, fields, index: _, crowd, variants, first_key: _ } = other;
        self.tally.merge(tally);
        self.entries += entries;
        if let Some(crowd) = crowd {
            self.crowd_together();
            self.crowd.get_or_insert_default().merge(*crowd);
        }
        let moves: Vec<Option<Move>> = fields.into_iter().map(|field| self.merge_field(field)).collect();
        let moved = |known: Known| -> Option<Known> {
            let Known { id, count, sightings, links, mixed, kind_links } = known;
            let sightings = sightings.iter().map(|one| moves[one.field].as_ref()?.apply(*one));
            let mixed = mixed.iter().map(|field| Some(moves[*field].as_ref()?.field));
            Some(Known {
                id,
                count,
                sightings: sightings.collect::<Option<_>>()?,
                links: move_links(links, &moves, Move::moved),
                mixed: mixed.collect::<Option<_>>()?,
                kind_links: move_links(kind_links, &moves, |_, kinds| kinds),
            })
        };
        let known = variants.into_known().and_then(|known| known.into_iter().map(moved).collect());
        self.variants.merge(known)
    }

    /// Takes in a field of other objects, and says where it and what it knows of its values went.
    fn merge_field(&mut self, field: FieldShape) -> Option<Move> {
        let Some(index) = self.enter(&field.key) else {
            self.crowd.get_or_insert_default().merge(field.shape);
            return None;
        };
        let mine = &mut self.fields[index];
        mine.seen.merge(field.seen);
        let texts = field.shape.texts.as_deref().cloned();
        let children = mine.shape.absorb(field.shape);
        let ordinals = texts.map(|texts| {
            let moved = |ordinal: usize| {
                let text = texts.at_ordinal(ordinal)?;
                let mine = mine.shape.texts.as_ref()?;
                (0..MAX_DISTINCT).find(|at| mine.at_ordinal(*at) == Some(text))
            };
            (0..MAX_DISTINCT).map_while(moved).collect()
        });
        Some(Move { field: index, ordinals: ordinals.unwrap_or_default(), children })
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

    fn push(&mut self, field: FieldShape) -> FieldIndex {
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
    pub(crate) fn crowd_together(&mut self) {
        let crowd = self.crowd.get_or_insert_default();
        for field in std::mem::take(&mut self.fields) {
            crowd.merge(field.shape);
        }
        self.index = HashMap::new();
        self.variants.give_up();
        self.first_key = 0;
    }
}

/// Where a merged field went: its index, the ordinals of its texts, the bits of its objects' variants.
struct Move {
    field: FieldIndex,
    ordinals: Vec<usize>,
    children: Vec<u64>,
}

impl Move {
    /// A sighting in the words of the table it was moved to.
    fn apply(&self, sighting: Sighting) -> Option<Sighting> {
        let Sighting { field: _, key, kinds, items, truths, ordinals, children } = sighting;
        // Where ordinals or variants were given up, nothing is known of them any more.
        let ordinals = bits(ordinals)
            .filter_map(|ordinal| self.ordinals.get(ordinal))
            .fold(0, |all, ordinal| all | 1 << ordinal);
        let children = self.moved(children);
        Some(Sighting { field: self.field, key, kinds, items, truths, ordinals, children })
    }

    fn moved(&self, children: u64) -> u64 {
        bits(children).filter_map(|at| self.children.get(at)).fold(0, |all, bit| all | bit)
    }
}

/// Links in the words of the table they were moved to; `moved` is what becomes of what the other field had.
fn move_links<T: Linked, const MOST: usize>(
    links: LinkTable<T, MOST>,
    moves: &[Option<Move>],
    moved: impl Fn(&Move, T) -> T,
) -> LinkTable<T, MOST> {
    let move_one = |Links { field, other, by_ordinal }: Links<T>| -> Option<Links<T>> {
        let (field, other) = (moves[field].as_ref()?, moves[other].as_ref()?);
        let mut links = Links::new(field.field, other.field);
        // An ordinal that is gone stands among texts too many to be told apart; so do all others of the field.
        for (ordinal, seen) in field.ordinals.iter().zip(by_ordinal) {
            links.add(*ordinal, moved(other, seen));
        }
        Some(links)
    };
    LinkTable::of(links.into_known().and_then(|links| links.into_iter().map(move_one).collect()))
}

/// The objects at a position, or in the lists there; none where there are both.
fn inner_objects(shape: &Shape) -> Option<&Objects> {
    match (&shape.objects, &shape.lists) {
        (Some(objects), None) => Some(objects),
        (None, Some(lists)) => inner_objects(&lists.items),
        (Some(_), Some(_)) | (None, None) => None,
    }
}

/// A number for a key; sums of them stand for sets of keys.
fn key_id(key: &str) -> u64 {
    let mut hasher = FxHasher::default();
    hasher.write(key.as_bytes());
    hasher.finish()
}

impl PartialEq for Objects {
    /// Equal when they saw the same; what they guess of the next input does not count.
    fn eq(&self, other: &Self) -> bool {
        self.tally == other.tally
            && self.entries == other.entries
            && self.crowd == other.crowd
            && self.fields() == other.fields()
            && self.variants() == other.variants()
    }
}

impl FieldShape {
    fn new(key: &str) -> Self {
        let is_plain = !key.bytes().any(|b| b < 0x20 || b == b'"' || b == b'\\');
        Self {
            key: key.into(),
            seen: Tally::default(),
            shape: Shape::default(),
            quoted: is_plain.then(|| Expected::new(format!("\"{key}\""))),
            next: usize::MAX,
            last_object: 0,
            id: key_id(key),
        }
    }
}

impl PartialEq for FieldShape {
    fn eq(&self, other: &Self) -> bool {
        self.key == other.key && self.seen == other.seen && self.shape == other.shape
    }
}

//! Observation: one pass over JSON text that counts into a shape.

use std::io::Read;

use jar_sprout_model::{Kind, KindSet, Place, Problem, SourceId};

use crate::fault::Fault;
use crate::input::{BUFFER_SIZE, Input};
use crate::shape::FieldIndex;
use crate::shape::Shape;
use crate::shape::list::{Lists, MAX_FIXED};
use crate::shape::object::Objects;
use crate::shape::variant::{Seen, Sighting, Truths};
use crate::token::Written;

/// The deepest nesting that is followed.
pub const MAX_DEPTH: usize = 512;

/// The most positions that one source may add; past it, memory counts for more than names.
pub const MAX_POSITIONS: usize = 60_000;

/// The most warnings kept from one source.
const MAX_WARNINGS: usize = 10;

/// What was read from one source.
#[derive(Debug, Default)]
pub struct Observed {
    /// How many values stood in it: one, or one a line.
    pub values: u64,
    /// Its length in bytes.
    pub bytes: u64,
    /// What the user should know; the first few.
    pub warnings: Vec<Problem>,
    /// How many more warnings there were.
    pub more_warnings: u64,
}

/// Counts one source into `shape`: a JSON text (RFC 8259), or one value a line (NDJSON).
///
/// Several sources go into one shape in the order of their ids; shapes made apart are merged in any order.
/// `shape` must not be used after an error: it holds what stood before the fault.
///
/// # Errors
/// The first fault of the text, with its line and column; an empty text is one.
pub fn observe(reader: impl Read, source: SourceId, shape: &mut Shape) -> Result<Observed, Box<Problem>> {
    observe_buffered(reader, source, shape, BUFFER_SIZE)
}

fn observe_buffered(
    reader: impl Read,
    source: SourceId,
    shape: &mut Shape,
    buffer_size: usize,
) -> Result<Observed, Box<Problem>> {
    let input = Input::new(reader, source, buffer_size);
    let mut observation =
        Observation { input, observed: Observed::default(), sightings: Vec::new(), positions: 0 };
    observation.source(shape)?;
    Ok(observation.observed)
}

struct Observation<R> {
    input: Input<R>,
    observed: Observed,
    /// What was seen of the values of the objects that are open.
    sightings: Vec<Sighting>,
    /// How many positions this source has added.
    positions: usize,
}

/// A key of an object that was just read.
#[derive(Clone, Copy)]
struct Key {
    field: FieldIndex,
    is_repeated: bool,
}

impl<R: Read> Observation<R> {
    fn source(&mut self, shape: &mut Shape) -> Result<(), Box<Problem>> {
        self.input.skip_byte_order_mark()?;
        let mut last_line = None;
        while let Some(first) = self.input.skip_white_space()? {
            if last_line == Some(self.input.line()) {
                return Err(self.input.fault(&Fault::Trailing));
            }
            self.value(first, shape, 0)?;
            self.observed.values += 1;
            last_line = Some(self.input.line());
        }
        self.observed.bytes = self.input.offset();
        if self.observed.values == 0 {
            return Err(self.input.fault(&Fault::Empty));
        }
        Ok(())
    }

    #[inline]
    fn value(&mut self, first: u8, shape: &mut Shape, depth: usize) -> Result<Seen, Box<Problem>> {
        let place = self.input.place();
        let mut seen = Seen::default();
        let kind = match first {
            b'"' => {
                self.input.advance();
                let text = self.input.text()?;
                let texts = shape.texts.get_or_insert_default();
                seen.ordinals = texts.observe(text.bytes, text.length, place);
                if texts.may_be_json() {
                    let is_whole = text.length == text.bytes.len() as u64;
                    let is_like = matches!(text.bytes, [b'{', .., b'}'] | [b'[', .., b']']);
                    let like = (is_whole && is_like).then(|| text.bytes.to_vec());
                    texts.observe_inside(like.and_then(|text| self.inside(text, place, depth)));
                }
                Kind::Text
            }
            b'-' | b'0'..=b'9' => {
                let number = self.input.number()?;
                shape.numbers.get_or_insert_default().observe(&number, place);
                if number.written == Written::Integer { Kind::Integer } else { Kind::Number }
            }
            b'{' => {
                let objects = shape.objects.get_or_insert_default();
                objects.start(place);
                seen.children = self.object(objects, depth)?;
                Kind::Object
            }
            b'[' => {
                let lists = shape.lists.get_or_insert_default();
                lists.start(place);
                (seen.items, seen.children) = self.list(lists, depth)?;
                Kind::List
            }
            b't' => {
                self.input.literal("true")?;
                shape.booleans.yes.add(place);
                seen.truths = Truths::of(true);
                Kind::Boolean
            }
            b'f' => {
                self.input.literal("false")?;
                shape.booleans.no.add(place);
                seen.truths = Truths::of(false);
                Kind::Boolean
            }
            b'n' => {
                self.input.literal("null")?;
                shape.nulls.add(place);
                Kind::Null
            }
            _ => return Err(self.input.unexpected("a value")),
        };
        seen.kinds = KindSet::of(kind);
        Ok(seen)
    }

    /// What a text is as JSON, which has depth left as what stands around it; none where it is no JSON.
    #[cold]
    fn inside(&mut self, mut text: Vec<u8>, place: Place, depth: usize) -> Option<Shape> {
        // All of it stands at the line of the text.
        text.iter_mut().filter(|byte| **byte == b'\n').for_each(|byte| *byte = b' ');
        let buffer_size = text.len();
        let input = Input::at(text.as_slice(), place, buffer_size);
        let mut inner = Observation {
            input,
            observed: Observed::default(),
            sightings: Vec::new(),
            positions: self.positions,
        };
        let mut shape = Shape::default();
        let first = inner.next("a text").ok()?;
        inner.value(first, &mut shape, depth + 1).ok()?;
        let has_more = inner.input.skip_white_space().ok()?.is_some();
        self.positions = inner.positions;
        (!has_more).then_some(shape)
    }

    /// Answers the bit of the object's variant.
    fn object(&mut self, objects: &mut Objects, depth: usize) -> Result<u64, Box<Problem>> {
        self.enter(depth)?;
        let mine = self.sightings.len();
        let mut previous = None;
        let mut next = self.next("an object")?;
        if next == b'}' {
            self.input.advance();
            return Ok(objects.end(&[]));
        }
        loop {
            if next != b'"' {
                return Err(self.input.unexpected("a key"));
            }
            let field = self.key(objects, previous)?;
            if self.next("an object")? != b':' {
                return Err(self.input.unexpected("`:` after a key"));
            }
            self.input.advance();
            let first = self.next("an object")?;
            match field {
                Some(Key { field, is_repeated }) => {
                    let Seen { kinds, items, truths, ordinals, children } =
                        self.value(first, objects.shape_mut(field), depth + 1)?;
                    let key = objects.key_number(field);
                    let sighting = Sighting { field, key, kinds, items, truths, ordinals, children };
                    // Of a key that stands twice, the last value counts.
                    let known = &mut self.sightings[mine..];
                    let known =
                        if is_repeated { known.iter_mut().find(|one| one.field == field) } else { None };
                    match known {
                        Some(known) => *known = sighting,
                        None => self.sightings.push(sighting),
                    }
                }
                None => drop(self.value(first, objects.crowd_mut(), depth + 1)?),
            }
            previous = field.map(|key| key.field);
            match self.next("an object")? {
                b',' => self.input.advance(),
                b'}' => break,
                _ => return Err(self.input.unexpected("`,` or `}`")),
            }
            next = self.next("an object")?;
        }
        self.input.advance();
        let variant = objects.end(&self.sightings[mine..]);
        self.sightings.truncate(mine);
        Ok(variant)
    }

    /// Reads a key and counts it. None once the keys at this position are too many to tell apart.
    #[inline]
    fn key(
        &mut self,
        objects: &mut Objects,
        previous: Option<FieldIndex>,
    ) -> Result<Option<Key>, Box<Problem>> {
        let place = self.input.place();
        let predicted = match objects.predict(previous) {
            Some((index, quoted)) if self.input.take(quoted) => Some(index),
            _ => None,
        };
        let index = match predicted {
            Some(index) => index,
            None => {
                self.input.advance();
                let key = self.input.key()?;
                self.make_room(objects, &key);
                match objects.enter(&key) {
                    Some(index) => index,
                    None => return Ok(None),
                }
            }
        };
        let is_repeated = objects.count(index, previous, place);
        if is_repeated {
            self.warn_of_repetition(objects, index);
        }
        Ok(Some(Key { field: index, is_repeated }))
    }

    /// Counts a new position. When there are too many, the keys here are taken as data from now on.
    fn make_room(&mut self, objects: &mut Objects, key: &str) {
        if objects.knows(key) {
            return;
        }
        self.positions += 1;
        if self.positions > MAX_POSITIONS {
            objects.crowd_together();
            if self.positions == MAX_POSITIONS + 1 {
                let message =
                    format!("more than {MAX_POSITIONS} positions: new keys are taken as data from here on");
                self.observed.warnings.push(self.input.warning(message));
            }
        }
    }

    #[cold]
    fn warn_of_repetition(&mut self, objects: &Objects, index: FieldIndex) {
        if self.observed.warnings.len() == MAX_WARNINGS {
            self.observed.more_warnings += 1;
            return;
        }
        let key = objects.key(index);
        let message = format!("the key `{key}` stands twice in one object; the last one counts");
        self.observed.warnings.push(self.input.warning(message));
    }

    /// Answers the kinds of the items, and the bits of the variants of the objects among them.
    fn list(&mut self, lists: &mut Lists, depth: usize) -> Result<(KindSet, u64), Box<Problem>> {
        self.enter(depth)?;
        let mut length = 0;
        let (mut all, mut children) = (KindSet::default(), 0);
        let mut kinds = [KindSet::default(); MAX_FIXED];
        let mut next = self.next("a list")?;
        if next != b']' {
            loop {
                let seen = self.value(next, &mut lists.items, depth + 1)?;
                if let Some(kinds) = kinds.get_mut(length) {
                    *kinds = seen.kinds;
                }
                all = all.and(seen.kinds);
                children |= seen.children;
                length += 1;
                match self.next("a list")? {
                    b',' => self.input.advance(),
                    b']' => break,
                    _ => return Err(self.input.unexpected("`,` or `]`")),
                }
                next = self.next("a list")?;
            }
        }
        self.input.advance();
        lists.end(length as u64, &kinds[..length.min(MAX_FIXED)]);
        Ok((all, children))
    }

    /// Steps over an opening bracket.
    fn enter(&mut self, depth: usize) -> Result<(), Box<Problem>> {
        if depth == MAX_DEPTH {
            return Err(self.input.fault(&Fault::TooDeep { limit: MAX_DEPTH }));
        }
        self.input.advance();
        Ok(())
    }

    /// The next byte that is not white space; there must be one.
    #[inline]
    fn next(&mut self, inside: &'static str) -> Result<u8, Box<Problem>> {
        match self.input.skip_white_space()? {
            Some(byte) => Ok(byte),
            None => Err(self.input.fault(&Fault::Truncated { inside })),
        }
    }
}

#[cfg(test)]
mod tests;

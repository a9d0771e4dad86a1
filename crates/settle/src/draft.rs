//! Shape to draft: what each position is, judged from its counters alone.

use jar_sprout_model::{Draft, DraftField, DraftId, DraftKind, Presence, Scalar, Width, WireName, Words};
use jar_sprout_shape::{Field, Kind, Numbers, Objects, Shape};

/// Integers up to here leave room to grow within 32 bits; beyond it the next value may not fit.
const ROOMY: i128 = 1 << 30;

/// The draft of a shape, and its root. `name` is what the root is called, which bears on its numbers.
pub fn draft_shape(shape: &Shape, name: &Words) -> (Draft, DraftId) {
    let mut draft = Draft::default();
    let root = draft_position(&mut draft, shape, name);
    (draft, root)
}

/// `key` is the nearest key above the position.
fn draft_position(draft: &mut Draft, shape: &Shape, key: &Words) -> DraftId {
    let kind = draft_kind(draft, shape, key);
    draft.add(kind, shape.nulls.count > 0)
}

fn draft_kind(draft: &mut Draft, shape: &Shape, key: &Words) -> DraftKind {
    let kinds = shape.kinds();
    let kinds: Vec<Kind> = kinds.into_iter().filter(|kind| *kind != Kind::Null).collect();
    // Nothing known, or kinds that no one type fits.
    let [kind] = kinds[..] else { return DraftKind::Any };
    match kind {
        Kind::Null => DraftKind::Any,
        Kind::Boolean => DraftKind::Scalar(Scalar::Boolean),
        Kind::Integer => DraftKind::Scalar(Scalar::Integer(integer_width(shape.numbers.as_deref(), key))),
        Kind::Float => DraftKind::Scalar(Scalar::Float),
        Kind::Text => DraftKind::Scalar(Scalar::Text),
        Kind::List => {
            let items = &shape.lists.as_ref().expect("the kind was seen").items;
            DraftKind::List(draft_position(draft, items, key))
        }
        Kind::Object => draft_objects(draft, shape.objects.as_ref().expect("the kind was seen"), key),
    }
}

fn draft_objects(draft: &mut Draft, objects: &Objects, key: &Words) -> DraftKind {
    if let Some(values) = objects.crowd() {
        return DraftKind::Map(draft_position(draft, values, key));
    }
    if objects.entries == 0 {
        return DraftKind::Any;
    }
    let objects_seen = objects.tally.count;
    DraftKind::Record(
        objects.fields().into_iter().map(|field| draft_field(draft, field, objects_seen)).collect(),
    )
}

fn draft_field(draft: &mut Draft, field: &Field, objects_seen: u64) -> DraftField {
    let Field { key, seen, shape, .. } = field;
    DraftField {
        wire: WireName::new(&**key),
        presence: if seen.count == objects_seen { Presence::Always } else { Presence::Sometimes },
        node: draft_position(draft, shape, &Words::split(key)),
    }
}

/// 64 bits when the range, or the nature of the number, asks for it.
fn integer_width(numbers: Option<&Numbers>, key: &Words) -> Width {
    let Some(range) = numbers.and_then(|n| n.integer_range) else { return Width::Narrow };
    if i64::try_from(range.least).is_err() || i64::try_from(range.greatest).is_err() {
        Width::Big
    } else if range.least < -ROOMY || range.greatest > ROOMY || grows_for_ever(key) {
        Width::Wide
    } else {
        Width::Narrow
    }
}

/// Ids, counts of bytes and points in time outgrow 32 bits sooner or later.
fn grows_for_ever(key: &Words) -> bool {
    matches!(key.last(), "id" | "ids" | "byte" | "bytes" | "timestamp" | "epoch")
}

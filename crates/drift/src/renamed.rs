//! Keys that were renamed, it seems: what is gone and what is new in one object, where both are the same but for the key.

use jar_sprout_model::{Definition, Field, Model, Scalar, Type, TypeId};

use crate::kinds::is_same_scalar;

/// How much alike two names must be, where nothing else tells the two from others.
const LIKENESS: f64 = 0.72;

/// The same, where what stands there is of a kind that few fields have.
const LIKENESS_OF_RARE: f64 = 0.5;

/// Pairs of a field that is gone and one that is new, each in at most one. `shares_values` tells of two fields whether the
/// same texts were seen in both.
pub(crate) fn renamed<'f>(
    old: &Model,
    new: &Model,
    gone: &[&'f Field],
    fresh: &[&'f Field],
    shares_values: &dyn Fn(&Field, &Field) -> bool,
) -> Vec<(&'f Field, &'f Field)> {
    let mut all: Vec<(f64, &Field, &Field)> = Vec::new();
    for one in gone {
        for other in fresh {
            let likeness = likeness((old, one), (new, other), shares_values);
            if likeness > 0.0 {
                all.push((likeness, one, other));
            }
        }
    }
    // The most alike first; of equals, by their keys, whichever of the two sides is the old one.
    let keys = |one: &Field, other: &Field| {
        let (one, other) = (one.wire.as_str().to_owned(), other.wire.as_str().to_owned());
        if one < other { (one, other) } else { (other, one) }
    };
    all.sort_by(|a, b| b.0.total_cmp(&a.0).then_with(|| keys(a.1, a.2).cmp(&keys(b.1, b.2))));
    let mut pairs: Vec<(&Field, &Field)> = Vec::new();
    for (_, one, other) in all {
        if pairs.iter().all(|(gone, fresh)| gone.wire != one.wire && fresh.wire != other.wire) {
            pairs.push((one, other));
        }
    }
    pairs
}

/// How much alike two fields are; 0 where they are not the same thing.
fn likeness(
    old: (&Model, &Field),
    new: (&Model, &Field),
    shares_values: &dyn Fn(&Field, &Field) -> bool,
) -> f64 {
    let (one, other) = (old.1, new.1);
    let is_same = one.presence == other.presence
        && one.slot.nullable == other.slot.nullable
        && one.encoding == other.encoding
        && is_alike((old.0, &one.slot.ty), (new.0, &other.slot.ty));
    if !is_same {
        return 0.0;
    }
    if shares_values(one, other) {
        return 1.0;
    }
    let [first, second] = [one, other].map(|field| field.name.to_string());
    let mut likeness = strsim::jaro_winkler(&first, &second);
    // `img` and `image url`: one is what is left of the other.
    let (short, long) = if first.len() <= second.len() { (&first, &second) } else { (&second, &first) };
    if is_abbreviation(short, long) {
        likeness = likeness.max(LIKENESS);
    }
    let least = if is_rare(&one.slot.ty) { LIKENESS_OF_RARE } else { LIKENESS };
    if likeness >= least { likeness } else { 0.0 }
}

/// Whether the letters of one stand in the other in their order, from its first letter on.
fn is_abbreviation(short: &str, long: &str) -> bool {
    let mut letters = long.chars();
    short.len() >= 2
        && short.chars().next() == long.chars().next()
        && short.chars().filter(|c| !c.is_whitespace()).all(|wanted| letters.any(|letter| letter == wanted))
}

/// Whether few fields of an object are of this kind.
fn is_rare(ty: &Type) -> bool {
    match ty {
        Type::Scalar(scalar) => !matches!(
            scalar,
            Scalar::Text | Scalar::Boolean | Scalar::Integer(_) | Scalar::Float | Scalar::Always(_)
        ),
        Type::Named(_) | Type::Map(_) | Type::Tuple(_) => true,
        Type::List(items) => is_rare(&items.ty),
        Type::Any | Type::Constant(_) => false,
    }
}

/// Whether two types are the same thing: by their scalars, and by the keys of what they hold.
fn is_alike(old: (&Model, &Type), new: (&Model, &Type)) -> bool {
    match (old.1, new.1) {
        (Type::Any, Type::Any) => true,
        (Type::Scalar(one), Type::Scalar(other)) => is_same_scalar(*one, *other),
        (Type::Constant(one), Type::Constant(other)) => one == other,
        (Type::List(one), Type::List(other)) | (Type::Map(one), Type::Map(other)) => {
            is_alike((old.0, &one.ty), (new.0, &other.ty))
        }
        (Type::Tuple(one), Type::Tuple(other)) => {
            one.len() == other.len()
                && one.iter().zip(other).all(|(one, other)| is_alike((old.0, &one.ty), (new.0, &other.ty)))
        }
        (Type::Named(one), Type::Named(other)) => words_of(old.0, *one) == words_of(new.0, *other),
        _ => false,
    }
}

/// The keys of a record, the values of an enum, the tags of a union.
fn words_of(model: &Model, id: TypeId) -> Vec<String> {
    let mut words: Vec<String> = match &model.get(id).definition {
        Definition::Record(record) => {
            record.fields.iter().map(|field| field.wire.as_str().to_owned()).collect()
        }
        Definition::Enumeration(known) => {
            known.cases.iter().map(|case| case.wire.as_str().to_owned()).collect()
        }
        Definition::Union(union) => {
            let tags = union.cases.iter().filter_map(|case| Some(case.tag.as_ref()?.as_str().to_owned()));
            tags.collect()
        }
    };
    words.sort();
    words
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn what_is_left_of_a_name_stands_for_it() {
        for (short, long) in [("img", "image url"), ("qty", "quantity"), ("desc", "description")] {
            assert!(is_abbreviation(short, long), "{short}");
        }
        for (short, long) in [("i", "image"), ("url", "image url"), ("name", "notes")] {
            assert!(!is_abbreviation(short, long), "{short}");
        }
    }
}

//! Resolving: what a schema says by itself, before any of it has a place. No schema bears on what another says, so that
//! many are resolved on all cores.

use jar_sprout_model::{
    DefaultValue, Direction, Docs, Encoding, Kind, Scalar, TimeForms, Width, WireName, Words,
};

use crate::docs::{default_of_all, docs_of_all, says};
use crate::flat::{Flat, Flattening, NoteKind, Spec, is_plain, pure_reference, says_nullable, trivial_parts};
use crate::text::Word;
use crate::value::Value;

/// What the schema of a property says.
#[derive(Debug, Clone)]
pub(crate) struct Declared<'d> {
    pub(crate) wire: WireName,
    pub(crate) name: Words,
    pub(crate) default: Option<DefaultValue>,
    pub(crate) docs: Docs,
    pub(crate) direction: Direction,
    pub(crate) encoding: Encoding,
    pub(crate) resolved: Resolved<'d>,
}

/// What a schema is when its reference is followed.
#[derive(Debug, Clone)]
pub(crate) enum Resolved<'d> {
    /// A value without parts and without a name, as most are: it is no matter whether it stands twice.
    Plain { scalar: Scalar, is_nullable: bool },
    Schema {
        spec: Spec<'d>,
        /// Whether null may stand there beside what the schema says.
        is_nullable: bool,
    },
}

/// Which way a place goes, by any of the schemas that speak of it.
fn direction_of(said: &[&Value]) -> Direction {
    let any_says = |word| said.iter().any(|schema| says(schema, word));
    match (any_says(Word::ReadOnly), any_says(Word::WriteOnly)) {
        (true, false) => Direction::Read,
        (false, true) => Direction::Sent,
        // What says both says nothing.
        (false, false) | (true, true) => Direction::Both,
    }
}

/// Whether a schema is a scalar, a list or a map, which have no name where they are used.
fn makes_no_type(schema: &Value) -> bool {
    let has = |word| schema.said(word).is_some();
    let is_of = |ty| schema.said(Word::Type).and_then(Value::as_str) == Some(ty);
    let is_made_of_others = [Word::AllOf, Word::AnyOf, Word::OneOf].into_iter().any(has);
    is_plain(schema)
        || (is_of("array") && !is_made_of_others)
        || (is_of("object") && !is_made_of_others && !has(Word::Properties))
}

impl Resolved<'_> {
    /// The same, and null as well.
    fn or_null(self, may_be_null: bool) -> Self {
        match self {
            Self::Plain { scalar, is_nullable } => {
                Self::Plain { scalar, is_nullable: is_nullable || may_be_null }
            }
            Self::Schema { spec, is_nullable } => {
                Self::Schema { spec, is_nullable: is_nullable || may_be_null }
            }
        }
    }
}

/// What stands in a text that is JSON itself, and whether null may stand in its place (JSON Schema 2020-12,
/// validation, section 8.5).
fn inside_text<'d>(spec: &Spec<'d>) -> Option<(&'d Value, bool)> {
    let Spec::One(schema) = spec else { return None };
    let inside = schema.said(Word::ContentSchema).filter(|inside| inside.as_object().is_some())?;
    let is_json = schema.said(Word::ContentMediaType)?.as_str() == Some("application/json");
    let types = match schema.said(Word::Type)? {
        Value::Array(several) => several,
        one => std::slice::from_ref(one),
    };
    let may_be_null = types.iter().any(|ty| ty.as_str() == Some("null"));
    let is_text = types.iter().all(|ty| matches!(ty.as_str(), Some("string" | "null")));
    let is_as_written = schema.said(Word::ContentEncoding).is_none();
    (is_json && is_text && is_as_written).then_some((inside, may_be_null || says_nullable(schema)))
}

impl<'d> Flattening<'_, 'd> {
    /// What is said of a property.
    pub(crate) fn declare(&mut self, key: &str, spec: &Spec<'d>) -> Declared<'d> {
        let said = self.said_by(spec);
        let (encoding, resolved) = match inside_text(spec) {
            Some((inside, may_be_null)) => {
                (Encoding::JsonInText, self.resolve(&Spec::One(inside)).or_null(may_be_null))
            }
            None => (Encoding::Plain, self.resolve(spec)),
        };
        Declared {
            wire: WireName::new(key),
            name: Words::split(key),
            default: default_of_all(said.iter().copied()),
            direction: direction_of(&said),
            docs: docs_of_all(said),
            encoding,
            resolved,
        }
    }

    /// The schemas that say something of a place for people, the nearest one last: all that hold together, what stands
    /// beside a reference in its `allOf`, and what a reference leads to that makes no type of its own.
    pub(crate) fn said_by(&self, spec: &Spec<'d>) -> Vec<&'d Value> {
        match spec {
            Spec::One(schema) => {
                let alias = self.references.target(schema).filter(|target| makes_no_type(target));
                alias.into_iter().chain(trivial_parts(schema)).chain([*schema]).collect()
            }
            Spec::Bare(schema) => vec![*schema],
            Spec::All(specs) => specs.iter().flat_map(|spec| self.said_by(spec)).collect(),
            Spec::Any(_) => vec![spec.first()],
        }
    }

    /// A schema that is a reference and no more is what it leads to.
    pub(crate) fn resolve(&mut self, spec: &Spec<'d>) -> Resolved<'d> {
        let canonical;
        let schema = match spec {
            Spec::One(schema) => schema,
            _ => {
                canonical = self.canonical(spec);
                match &canonical {
                    Spec::One(schema) => schema,
                    spec => return Resolved::Schema { spec: spec.clone(), is_nullable: false },
                }
            }
        };
        let (schema, is_nullable) = match self.references.target(schema) {
            Some(target) => (target, says_nullable(schema)),
            None => {
                if let Some(holder) = pure_reference(schema)
                    && let Err(fault) = self.references.follow(holder)
                {
                    self.broken.push((holder, fault));
                }
                (*schema, false)
            }
        };
        let spec = Spec::One(schema);
        if is_plain(schema) {
            let flat = self.flat(&spec);
            let kind = flat.likely_kinds().only();
            if let Some(scalar) = kind.and_then(|kind| self.scalar(kind, &flat, schema)) {
                return Resolved::Plain { scalar, is_nullable: is_nullable || flat.is_nullable };
            }
        }
        Resolved::Schema { spec, is_nullable }
    }

    /// A value of a kind that has no parts.
    pub(crate) fn scalar(&mut self, kind: Kind, flat: &Flat<'d>, at: &'d Value) -> Option<Scalar> {
        match kind {
            Kind::Boolean => Some(Scalar::Boolean),
            Kind::Number => Some(Scalar::Float),
            Kind::Integer => Some(Scalar::Integer(width(flat))),
            Kind::Text => {
                if matches!(flat.format, Some("time" | "duration")) {
                    self.note(at, NoteKind::Format);
                }
                Some(text_scalar(flat.format))
            }
            Kind::List | Kind::Object | Kind::Null => None,
        }
    }
}

fn width(flat: &Flat<'_>) -> Width {
    const LAST: f64 = 9_223_372_036_854_775_807.0;
    let fits_narrow = |number: f64| number.abs() <= f64::from(i32::MAX);
    match (flat.format, flat.least, flat.greatest) {
        (Some("int32"), _, _) => Width::Narrow,
        (Some("int64"), _, _) => Width::Wide,
        (_, Some(least), Some(greatest)) if fits_narrow(least) && fits_narrow(greatest) => Width::Narrow,
        (Some("uint64"), _, _) => Width::Big,
        (_, _, Some(greatest)) if greatest > LAST => Width::Big,
        _ => Width::Wide,
    }
}

fn text_scalar(format: Option<&str>) -> Scalar {
    match format {
        Some("date-time") => Scalar::DateTime(TimeForms::ALL),
        Some("date") => Scalar::Date,
        Some("uuid") => Scalar::Uuid,
        Some("uri" | "url") => Scalar::Uri,
        _ => Scalar::Text,
    }
}

//! Decisions: the user's word on a field, which stands above what the samples say.

use jar_sprout_model::{
    Case, Definition, DraftKind, Enumeration, NamedType, Presence, Scalar, Slot, Type, TypeId, Width,
    WireName,
};
use jar_sprout_shape::Distinct;

use crate::draft::Drafted;
use crate::join::join;
use crate::settle::Settled;
use crate::subject::{Subject, Unmatched, locate};

/// One decision on a field.
#[derive(Debug, Clone, PartialEq, Eq)]
pub struct Decision {
    /// The field.
    pub subject: Subject,
    /// What it is from now on.
    pub verdict: Verdict,
}

/// What a field is from now on.
#[derive(Debug, Clone, PartialEq, Eq)]
pub enum Verdict {
    /// `float`, `date-time`
    Scalar(Scalar),
    /// `any`
    Any,
    /// `[text]`
    List(Box<Verdict>),
    /// `enum`: of the values that were seen
    Enum,
    /// `required`: always there, never null
    Required,
    /// `optional`: may be missing
    Optional,
    /// `nullable`: may be null
    Nullable,
    /// `Address`: the type is that other type
    SameAs(String),
}

/// The words for verdicts that are one word.
pub const VERDICTS: &[(&str, Verdict)] = &[
    ("text", Verdict::Scalar(Scalar::Text)),
    ("boolean", Verdict::Scalar(Scalar::Boolean)),
    ("integer", Verdict::Scalar(Scalar::Integer(Width::Narrow))),
    ("wide", Verdict::Scalar(Scalar::Integer(Width::Wide))),
    ("big", Verdict::Scalar(Scalar::Integer(Width::Big))),
    ("float", Verdict::Scalar(Scalar::Float)),
    ("date-time", Verdict::Scalar(Scalar::DateTime)),
    ("local-date-time", Verdict::Scalar(Scalar::LocalDateTime)),
    ("date", Verdict::Scalar(Scalar::Date)),
    ("time", Verdict::Scalar(Scalar::Time)),
    ("uuid", Verdict::Scalar(Scalar::Uuid)),
    ("uri", Verdict::Scalar(Scalar::Uri)),
    ("any", Verdict::Any),
    ("enum", Verdict::Enum),
    ("required", Verdict::Required),
    ("optional", Verdict::Optional),
    ("nullable", Verdict::Nullable),
];

impl Verdict {
    /// Reads `float` or `[text]`.
    pub fn parse(text: &str) -> Option<Self> {
        if let Some(inner) = text.strip_prefix('[').and_then(|text| text.strip_suffix(']')) {
            return Self::parse(inner).filter(Self::is_type).map(|inner| Self::List(Box::new(inner)));
        }
        let is_type_name = text.starts_with(char::is_uppercase) && text.chars().all(char::is_alphanumeric);
        let known = VERDICTS.iter().find(|(word, _)| *word == text).map(|(_, verdict)| verdict.clone());
        known.or_else(|| is_type_name.then(|| Self::SameAs(text.to_owned())))
    }

    fn is_type(&self) -> bool {
        matches!(self, Self::Scalar(_) | Self::Any | Self::List(_))
    }
}

/// Applies decisions to a settled model; types that are needed no more go.
///
/// # Errors
/// A decision on a type or field that the model does not have.
pub fn decide(settled: &mut Settled, drafted: &Drafted, decisions: &[Decision]) -> Result<(), Unmatched> {
    decisions.iter().try_for_each(|decision| decide_one(settled, drafted, decision))?;
    let kept = settled.model.drop_unreached();
    settled.origins = kept.iter().map(|old| settled.origins[*old].clone()).collect();
    Ok(())
}

fn decide_one(settled: &mut Settled, drafted: &Drafted, decision: &Decision) -> Result<(), Unmatched> {
    let Decision { subject, verdict } = decision;
    let (id, field) = locate(&settled.model, subject)?;
    let (field, verdict) = match (field, verdict) {
        (None, Verdict::SameAs(name)) => return join_types(settled, id, name),
        (Some(field), verdict) => (field, verdict),
        (None, _) => {
            let known = settled.model.types().map(|(_, ty)| format!("{}.…", ty.name.in_capitals())).collect();
            return Err(Unmatched { asked: subject.to_string(), known });
        }
    };
    let ty = match verdict {
        Verdict::Required | Verdict::Optional | Verdict::Nullable => None,
        Verdict::SameAs(name) => Some(Type::Named(locate(&settled.model, &Subject::parse(name))?.0)),
        Verdict::Enum => Some(seen_values(settled, drafted, id, field)),
        verdict => Some(decided_type(verdict)),
    };
    let Definition::Record(record) = &mut settled.model.get_mut(id).definition else { return Ok(()) };
    let field = &mut record.fields[field];
    if let Some(ty) = ty {
        field.slot.ty = ty;
    }
    match verdict {
        Verdict::Required => {
            field.presence = Presence::Always;
            field.slot.nullable = false;
        }
        Verdict::Optional => field.presence = Presence::Sometimes,
        Verdict::Nullable => field.slot.nullable = true,
        Verdict::Scalar(_) | Verdict::Any | Verdict::List(_) | Verdict::Enum | Verdict::SameAs(_) => {}
    }
    settled.decided.insert(subject.clone());
    Ok(())
}

/// Makes one type of two.
fn join_types(settled: &mut Settled, gone: TypeId, name: &str) -> Result<(), Unmatched> {
    let (kept, _) = locate(&settled.model, &Subject::parse(name))?;
    if gone == kept || join(settled, gone, kept) {
        return Ok(());
    }
    Err(Unmatched { asked: format!("record {name}"), known: Vec::new() })
}

fn decided_type(verdict: &Verdict) -> Type {
    match verdict {
        Verdict::Scalar(scalar) => Type::Scalar(*scalar),
        Verdict::List(inner) => Type::List(Box::new(Slot::of(decided_type(inner)))),
        Verdict::Any
        | Verdict::Enum
        | Verdict::Required
        | Verdict::Optional
        | Verdict::Nullable
        | Verdict::SameAs(_) => Type::Any,
    }
}

/// An enum of the values that a field had; text where they are too many to know.
fn seen_values(settled: &mut Settled, drafted: &Drafted, id: TypeId, field: usize) -> Type {
    let origin = settled.origin(&drafted.draft, id, Some(field));
    let texts = origin.and_then(|node| drafted.evidence.get(&node)?.texts.as_ref());
    let Some(Distinct::All(values)) = texts.map(jar_sprout_shape::Texts::distinct) else {
        return Type::Scalar(Scalar::Text);
    };
    let mut known: Vec<WireName> = values.iter().map(|(text, _)| WireName::new(*text)).collect();
    known.sort();
    let cases = known.into_iter().map(Case::new).collect();
    let owner = settled.model.get(id);
    let Definition::Record(record) = &owner.definition else { return Type::Scalar(Scalar::Text) };
    if let Type::Named(known) = &record.fields[field].slot.ty
        && matches!(settled.model.get(*known).definition, Definition::Enumeration(_))
    {
        return Type::Named(*known);
    }
    let name = record.fields[field].name.prefixed(&owner.name);
    let definition = Definition::Enumeration(Enumeration { cases });
    let added = settled.model.push(NamedType::new(name, definition));
    settled.origins.push(origin.into_iter().collect());
    debug_assert!(matches!(drafted.draft.node(settled.origins[id.index()][0]).kind, DraftKind::Record(_)));
    Type::Named(added)
}

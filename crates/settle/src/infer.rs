//! Inference in one step: the draft of what was seen or said, and the model that is made of it.

use std::collections::HashMap;

use jar_sprout_model::{Draft, DraftId, DraftKind, DraftRoot, Encoding, Words};
use jar_sprout_shape::Shape;

use crate::decide::decide;
use crate::decide::verdict::{Decision, FieldVerdict, TypeVerdict, Verdict};
use crate::draft::evidence::Choice;
use crate::draft::{Drafted, draft_shape};
use crate::model::naming_sites::RootName;
use crate::model::{Settled, settle, settle_document};
use crate::policies::Policies;
use crate::structure::Structure;
use crate::subject::{Lack, Miss, locate};

/// A model, and what it was made of.
pub struct Inferred {
    /// What each position is, with its evidence.
    pub drafted: Drafted,
    /// The model.
    pub settled: Settled,
}

/// The model of what samples showed.
pub fn infer(shape: &Shape, name: &RootName, policies: &Policies) -> Inferred {
    let drafted = draft_shape(shape, &name.words, policies);
    let settled = settle(&drafted.draft, drafted.root, name, policies);
    Inferred { drafted, settled }
}

/// The same with decisions, and those of them that match nothing.
///
/// What objects are is decided before anything has a name, and yet of things by their names: so the model is made
/// without such a decision first, and anew with it at the position that it names.
pub fn infer_decided(
    shape: &Shape,
    name: &RootName,
    policies: &Policies,
    decisions: &[Decision],
) -> (Inferred, Vec<Miss>) {
    let (structural, others): (Vec<&Decision>, Vec<&Decision>) =
        decisions.iter().partition(|decision| structure(decision).is_some());
    let mut policies = policies.clone();
    let mut inferred = infer(shape, name, &policies);
    let mut misses = Vec::new();
    let known = (!structural.is_empty()).then(|| inferred.settled.model.clone());
    // In the order in which they were given: one may be of what another has made.
    for decision in structural {
        let Some(structure) = structure(decision) else { continue };
        let miss = |lack| Miss { subject: decision.subject.clone(), lack };
        match place(&inferred, decision, structure) {
            Err(miss) => misses.push(miss),
            Ok(None) if *structure == Structure::JsonInText => misses.push(miss(Lack::JsonTexts)),
            Ok(None) => misses.push(miss(Lack::Objects)),
            Ok(Some(path)) => {
                if *structure == Structure::JsonInText {
                    policies.json_texts.insert(path.clone());
                } else {
                    policies.structures.insert(path.clone(), structure.clone());
                }
                inferred = infer(shape, name, &policies);
                misses.extend(refused(&inferred, &path, structure).map(miss));
            }
        }
    }
    let others: Vec<Decision> = others.into_iter().cloned().collect();
    // What was there before is dissolved by another decision, and not unknown.
    let was_there = |miss: &Miss| known.as_ref().is_some_and(|known| locate(known, &miss.subject).is_ok());
    let unknown = decide(&mut inferred.settled, &inferred.drafted, &others);
    misses.extend(unknown.into_iter().filter(|miss| !was_there(miss)));
    (inferred, misses)
}

fn structure(decision: &Decision) -> Option<&Structure> {
    match &decision.verdict {
        Verdict::Type(TypeVerdict::Structure(structure))
        | Verdict::Field(FieldVerdict::Structure(structure)) => Some(structure),
        Verdict::Type(_) | Verdict::Field(_) => None,
    }
}

/// The position of the objects, or of the texts that are JSON, that a subject names, as a path; none where it has none.
fn place(inferred: &Inferred, decision: &Decision, structure: &Structure) -> Result<Option<String>, Miss> {
    let Inferred { drafted, settled } = inferred;
    let subject = &decision.subject;
    let (id, index) = locate(&settled.model, subject)?;
    let field = index.and_then(|index| settled.model.get(id).definition.fields().get(index));
    let is_read = field.is_some_and(|field| field.encoding == Encoding::JsonInText);
    let node = settled.origin(&drafted.draft, id, subject.key.as_ref());
    let node = node.and_then(|node| match structure {
        Structure::Map | Structure::Record | Structure::By(_) | Structure::Union => {
            objects_in(&drafted.draft, node)
        }
        Structure::JsonInText => Some(node).filter(|node| {
            is_read || drafted.evidence.get(node).is_some_and(|seen| seen.inside_texts().is_some())
        }),
    });
    let path = node.and_then(|node| drafted.evidence.get(&node)?.paths.first());
    Ok(path.map(ToString::to_string))
}

/// The objects that a position holds, itself or in lists, alone or beside other kinds.
fn objects_in(draft: &Draft, node: DraftId) -> Option<DraftId> {
    let mut open = vec![node];
    // A list of lists may hold itself.
    for _ in 0..=draft.len() {
        let node = open.pop()?;
        match &draft.node(node).kind {
            DraftKind::Record { .. } | DraftKind::Map(_) | DraftKind::Union { tag: Some(_), .. } => {
                return Some(node);
            }
            DraftKind::List(items) => open.push(*items),
            DraftKind::Union { tag: None, cases } => open.extend(cases.iter().rev().map(|case| case.node)),
            DraftKind::Any
            | DraftKind::Scalar(_)
            | DraftKind::Constant(_)
            | DraftKind::Enumeration(_)
            | DraftKind::Tuple(_) => {}
        }
    }
    None
}

/// Why the objects at a position are not what was decided, if they are not.
fn refused(inferred: &Inferred, path: &str, structure: &Structure) -> Option<Lack> {
    let Drafted { draft, evidence, .. } = &inferred.drafted;
    let is_there = |id: &DraftId| {
        let kind = &draft.node(*id).kind;
        let is_of_objects = matches!(
            kind,
            DraftKind::Record { .. } | DraftKind::Map(_) | DraftKind::Union { tag: Some(_), .. }
        );
        is_of_objects && evidence[id].paths.iter().any(|other| other.to_string() == path)
    };
    let mut nodes: Vec<&DraftId> = evidence.keys().filter(|id| is_there(id)).collect();
    nodes.sort();
    let is_of_kinds = |are_told: &dyn Fn(Option<&String>) -> bool| {
        evidence.values().any(|seen| {
            matches!(&seen.choice, Choice::KindsByKeys { truth, .. } if are_told(truth.as_ref()))
                && seen.paths.iter().any(|other| other.to_string() == path)
        })
    };
    let has = |is_so: fn(&DraftKind) -> bool| nodes.iter().any(|id| is_so(&draft.node(**id).kind));
    match structure {
        Structure::Map => (!has(|kind| matches!(kind, DraftKind::Map(_)))).then_some(Lack::Objects),
        Structure::Record => has(|kind| matches!(kind, DraftKind::Map(_))).then_some(Lack::FewerKeys),
        Structure::By(key) => {
            let by_text = |id: &&DraftId| matches!(&draft.node(**id).kind, DraftKind::Union { tag: Some(tag), .. } if tag.as_str() == key);
            let by_truth = is_of_kinds(&|truth| truth.is_some_and(|truth| truth == key));
            (!nodes.iter().any(by_text) && !by_truth).then(|| Lack::Tag { key: key.clone() })
        }
        Structure::Union => (!is_of_kinds(&|_| true)).then_some(Lack::Kinds),
        // Whether they are JSON was asked where they stand.
        Structure::JsonInText => None,
    }
}

/// The model of the parts of a document; what a document says needs no evidence.
///
/// # Panics
/// Without a part that is asked for.
pub fn infer_document(
    draft: Draft,
    roots: &[DraftRoot],
    title: Option<&Words>,
    policies: &Policies,
) -> Inferred {
    let settled = settle_document(&draft, roots, title, policies);
    let drafted = Drafted {
        draft,
        root: roots[0].node,
        evidence: HashMap::new(),
        trust: policies.trust,
        maps_all_the_same: Vec::new(),
    };
    Inferred { drafted, settled }
}

//! Clusters: one question for all that stand in the same doubt.

use std::collections::HashMap;

use indexmap::IndexMap;
use jar_sprout_model::{Definition, WireName};

use crate::ask::question::{Question, Settling};
use crate::decide::verdict::FieldVerdict;
use crate::model::Settled;
use crate::subject::Subject;

/// A question with the sort of doubt that it is about.
pub(super) struct Doubted {
    pub(super) kind: DoubtKind,
    pub(super) question: Question,
}

/// A sort of doubt: of one type's fields, those of one sort have the same answer more often than not.
#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub(super) enum DoubtKind {
    /// Numbers and truths in letters.
    InLetters,
    /// What sort of number it is.
    Number,
    /// Nothing was seen but null, empty lists or empty objects.
    Unknown,
    /// Several kinds of value.
    Mixed,
    /// Words that stand for nothing.
    NothingWord,
    /// Another one, which is like none beside it.
    Other,
}

/// One question for all fields of a key that stand in the same doubt, if no other field has the key.
pub(super) fn once_per_key(settled: &Settled, questions: Vec<Doubted>) -> Vec<Doubted> {
    let mut by_doubt: IndexMap<(WireName, Option<String>, String), Vec<Doubted>> = IndexMap::new();
    let mut alone = Vec::new();
    for doubted in questions {
        match &doubted.question.settle {
            Settling::Field(Subject { key: Some(key), .. }, verdict @ FieldVerdict::Is(_)) => {
                let doubt = (key.clone(), verdict.word(), doubted.question.chose.clone());
                by_doubt.entry(doubt).or_default().push(doubted);
            }
            Settling::Field(..) | Settling::Structure(..) | Settling::SameAs(..) | Settling::TrustNothing => {
                alone.push(doubted);
            }
        }
    }
    let mut has_key: HashMap<&WireName, usize> = HashMap::new();
    for (_, ty) in settled.model.types() {
        if let Definition::Record(record) = &ty.definition {
            record.fields.iter().for_each(|field| *has_key.entry(&field.wire).or_default() += 1);
        }
    }
    for ((key, _, _), mut same) in by_doubt {
        let is_all = has_key.get(&key).is_some_and(|count| *count == same.len());
        if same.len() < 2 || !is_all || key.as_str().contains('*') {
            alone.append(&mut same);
            continue;
        }
        let others = same.len() - 1;
        let Doubted { kind, question } = same.swap_remove(0);
        let Settling::Field(Subject { type_name, .. }, verdict) = question.settle else { continue };
        let subject = Subject { type_name: "*".to_owned(), key: Some(key) };
        let types = if others == 1 { "type" } else { "types" };
        let question = Question {
            subject: Some(subject.clone()),
            saw: format!("{} in {type_name}, and the like in {others} other {types}", question.saw),
            settle: Settling::Field(subject, verdict),
            ..question
        };
        alone.push(Doubted { kind, question });
    }
    alone
}

/// With so many fields of one type in the same doubt, it is one.
const SAME_DOUBT: usize = 2;

/// The most fields that are named beside the first.
const FEW_FIELDS: usize = 3;

/// One question for the fields of a type that stand in the same doubt; it names the others.
pub(super) fn once_per_type(questions: Vec<Doubted>) -> Vec<Question> {
    let mut by_doubt: IndexMap<(String, DoubtKind, Option<String>), Vec<Question>> = IndexMap::new();
    let mut alone = Vec::new();
    for Doubted { kind, question } in questions {
        match &question.settle {
            Settling::Field(Subject { type_name, key: Some(_) }, verdict @ FieldVerdict::Is(_))
                if kind != DoubtKind::Other =>
            {
                by_doubt.entry((type_name.clone(), kind, verdict.word())).or_default().push(question);
            }
            Settling::Field(..) | Settling::Structure(..) | Settling::SameAs(..) | Settling::TrustNothing => {
                alone.push(question);
            }
        }
    }
    for mut same in by_doubt.into_values() {
        if same.len() < SAME_DOUBT {
            alone.append(&mut same);
            continue;
        }
        let key = |question: &Question| {
            let key = question.subject.as_ref().and_then(|subject| subject.key.as_ref());
            key.map_or_else(String::new, |key| format!("`{key}`"))
        };
        let mut others: Vec<String> = same[1..].iter().map(key).collect();
        let more = others.len().saturating_sub(FEW_FIELDS);
        others.truncate(FEW_FIELDS);
        others.extend((more > 0).then(|| format!("{more} more")));
        let first = same.swap_remove(0);
        alone.push(Question { saw: format!("{}, and so in {}", first.saw, others.join(", ")), ..first });
    }
    alone
}

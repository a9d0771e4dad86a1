//! Envelopes: records that are there to carry another thing.

use jar_sprout_model::{Draft, DraftField, DraftId, DraftKind, Encoding, Words};

use crate::singular::singular;

/// An envelope and what it carries.
#[derive(Debug, Clone, PartialEq, Eq)]
pub(crate) struct Envelope {
    /// What the envelope is called: `hive page`.
    pub(crate) name: Words,
    /// The field that carries the thing.
    pub(crate) part: DraftId,
    /// What the list, or the one thing, in it is called; a list's items by its singular.
    pub(crate) part_name: Words,
}

/// Keys that say no more than that something is in there.
const CONTAINERS: &[&str] = &[
    "data",
    "items",
    "results",
    "result",
    "records",
    "entries",
    "list",
    "values",
    "content",
    "rows",
    "hits",
    "docs",
    "documents",
    "elements",
    "objects",
    "response",
    "payload",
    "body",
    "collection",
    "page",
];

/// The envelope that a record is, if it is one.
///
/// A page is called in the plural and has one list of records beside scalars and small records of scalars. A wrapper
/// is the root and has one record under a key that says nothing.
pub(crate) fn envelope(draft: &Draft, fields: &[DraftField], own: &Words, is_root: bool) -> Option<Envelope> {
    page(draft, fields, own, is_root).or_else(|| if is_root { wrapper(draft, fields, own) } else { None })
}

/// The page that a record is, if it is one.
pub(crate) fn page(draft: &Draft, fields: &[DraftField], own: &Words, is_root: bool) -> Option<Envelope> {
    let one = singular(own);
    // What is packed into a text is not what the record is there for.
    if fields.iter().any(|field| field.encoding == Encoding::JsonInText) {
        return None;
    }
    let mut lists = fields.iter().filter(|field| !is_small(draft, field.node));
    let (list, rest) = (lists.next()?, lists.next());
    if one == *own || rest.is_some() || fields.len() < 2 || !is_list_of_records(draft, list.node) {
        return None;
    }
    let key = &list.name;
    let says_so = is_container_key(key) || singular(key).last() == one.last();
    // Under another name, nothing but counts and links may stand beside the list.
    let beside = || fields.iter().all(|field| field.node == list.node || !has_text(draft, field.node));
    if !(says_so || is_root && beside()) {
        return None;
    }
    let part_name = if is_container_key(key) { own } else { key }.clone();
    Some(Envelope { name: singular(&part_name).with_word("page"), part: list.node, part_name })
}

/// What a record wraps, if it is there for one record alone.
pub(crate) fn wrapper(draft: &Draft, fields: &[DraftField], own: &Words) -> Option<Envelope> {
    let is_wrapped = |field: &&DraftField| {
        matches!(
            draft.node(field.node).kind,
            DraftKind::Record { .. } | DraftKind::Union { tag: Some(_), .. }
        ) && is_container_key(&field.name)
            && field.encoding == Encoding::Plain
    };
    let wrapped = fields.iter().find(is_wrapped)?;
    let others_small = fields.iter().all(|field| field.node == wrapped.node || is_small(draft, field.node));
    let one = singular(own);
    others_small.then(|| Envelope { name: one.with_word("response"), part: wrapped.node, part_name: one })
}

fn is_container_key(key: &Words) -> bool {
    key.count() == 1 && is_container(key.last())
}

/// Whether a word says no more than that something is in there.
pub(crate) fn is_container(word: &str) -> bool {
    CONTAINERS.contains(&word)
}

fn is_list_of_records(draft: &Draft, id: DraftId) -> bool {
    match &draft.node(id).kind {
        DraftKind::List(items) => {
            matches!(
                draft.node(*items).kind,
                DraftKind::Record { .. } | DraftKind::Union { tag: Some(_), .. }
            )
        }
        _ => false,
    }
}

/// Text of any kind but a link.
fn has_text(draft: &Draft, id: DraftId) -> bool {
    use jar_sprout_model::Scalar;
    match &draft.node(id).kind {
        DraftKind::Scalar(Scalar::Boolean | Scalar::Integer(_) | Scalar::Float | Scalar::Uri)
        | DraftKind::Any => false,
        DraftKind::Record { fields, .. } => fields.iter().any(|field| has_text(draft, field.node)),
        _ => true,
    }
}

/// A scalar, or a record of nothing but scalars; or one of links, each a record of a scalar or two.
fn is_small(draft: &Draft, id: DraftId) -> bool {
    let is_link = |id: DraftId| match &draft.node(id).kind {
        DraftKind::Record { fields, .. } => {
            fields.len() <= 2 && fields.iter().all(|field| is_scalar(draft, field.node))
        }
        _ => false,
    };
    match &draft.node(id).kind {
        DraftKind::Record { fields, .. } => {
            fields.iter().all(|field| is_scalar(draft, field.node) || is_link(field.node))
        }
        _ => is_scalar(draft, id),
    }
}

fn is_scalar(draft: &Draft, id: DraftId) -> bool {
    matches!(
        draft.node(id).kind,
        DraftKind::Any | DraftKind::Scalar(_) | DraftKind::Constant(_) | DraftKind::Enumeration(_)
    )
}

//! Uses: where in the draft each type with a name stands, and which names lead there.

use std::collections::VecDeque;

use foldhash::HashMap as FastMap;
use jar_sprout_model::{Draft, DraftCase, DraftField, DraftId, DraftKind, Kind, ScalarKind, Words};

use crate::model::chain::Chain;
use crate::model::envelope::{Envelope, envelope};
use crate::singular::singular;

/// All positions reached from the root, the shallow ones first.
pub(crate) struct Uses {
    /// Every position, once.
    pub(crate) positions: Vec<DraftId>,
    /// Every position whose type has a name, with the names that lead to it.
    pub(crate) named: Vec<Use>,
}

/// A position, and the names on the way to it.
#[derive(Debug, Clone)]
pub(crate) struct Use {
    pub(crate) node: DraftId,
    /// From the root's name to its own; never empty.
    pub(crate) trail: Chain<Words>,
    /// The name that a document gives it.
    pub(crate) declared: Option<Words>,
    /// What its name ends in beside that of the way: `or text`.
    pub(crate) ending: Option<Words>,
    /// Whether its own name says little without the one before it.
    pub(crate) leans_on_parent: bool,
    /// The positions with a name that it stands in.
    pub(crate) within: Chain<DraftId>,
}

impl Use {
    /// The position's own name.
    pub(crate) fn name(&self) -> &Words {
        self.trail.last().expect("a trail starts with the root's name")
    }
}

/// The root's name, and whether the user gave it.
#[derive(Debug, Clone)]
pub struct RootName {
    /// The name.
    pub words: Words,
    /// Whether it must stand as it is.
    pub is_given: bool,
}

struct Walk<'d> {
    draft: &'d Draft,
    /// What is asked for, and whether its name must stand.
    roots: FastMap<DraftId, bool>,
    uses: Uses,
    queue: VecDeque<Step>,
    /// By position, whether it was visited.
    met: Vec<bool>,
    /// What the position that is visited stands in.
    within: Chain<DraftId>,
}

/// A position to be visited.
struct Step {
    id: DraftId,
    trail: Chain<Words>,
    within: Chain<DraftId>,
}

/// Walks the draft breadth first. A list's item is called by the singular of the list's name.
pub(crate) fn find_uses(draft: &Draft, roots: &[(DraftId, RootName)]) -> Uses {
    let mut walk = Walk {
        draft,
        roots: roots.iter().map(|(id, name)| (*id, name.is_given)).collect(),
        uses: Uses { positions: Vec::new(), named: Vec::new() },
        queue: roots
            .iter()
            .map(|(id, name)| Step {
                id: *id,
                trail: Chain::empty().with(name.words.clone()),
                within: Chain::empty(),
            })
            .collect(),
        met: vec![false; draft.len()],
        within: Chain::empty(),
    };
    while let Some(Step { id, trail, within }) = walk.queue.pop_front() {
        walk.within = within;
        if std::mem::replace(&mut walk.met[id.index()], true) {
            walk.visit_again(id, trail);
        } else {
            walk.uses.positions.push(id);
            walk.visit(id, trail);
        }
    }
    walk.uses
}

impl Walk<'_> {
    fn push(&mut self, id: DraftId, trail: Chain<Words>) {
        self.queue.push_back(Step { id, trail, within: self.within.clone() });
    }

    /// A part of a position that has a name; `within` ends in that.
    fn push_inside(&mut self, within: &Chain<DraftId>, id: DraftId, trail: Chain<Words>) {
        self.queue.push_back(Step { id, trail, within: within.clone() });
    }

    /// Whether a position has neither a name nor parts.
    fn is_plain(&self, id: DraftId) -> bool {
        matches!(self.draft.node(id).kind, DraftKind::Any | DraftKind::Scalar(_) | DraftKind::Constant(_))
    }

    fn visit_plain(&mut self, id: DraftId) {
        if !std::mem::replace(&mut self.met[id.index()], true) {
            self.uses.positions.push(id);
        }
    }

    fn visit(&mut self, id: DraftId, trail: Chain<Words>) {
        let draft = self.draft;
        match &draft.node(id).kind {
            DraftKind::Any | DraftKind::Scalar(_) | DraftKind::Constant(_) => {}
            DraftKind::Enumeration(_) => self.name(id, trail, true),
            DraftKind::List(part) | DraftKind::Map(part) => {
                let item = match &draft.node(id).name {
                    Some(name) => trail.with_last(item_of(name)),
                    None => item_trail(&trail),
                };
                self.push(*part, item);
            }
            DraftKind::Tuple(items) => {
                let trail = item_trail(&trail);
                items.iter().for_each(|item| self.push(*item, trail.clone()));
            }
            DraftKind::Record { fields, extras } => {
                let inside = self.within.with(id);
                if let Some(extras) = extras {
                    self.push_inside(&inside, *extras, entry_trail(&trail));
                }
                self.record(id, &inside, fields, trail);
            }
            DraftKind::Union { tag: Some(_), cases } => {
                let inside = self.within.with(id);
                for DraftCase { tag, node } in cases {
                    let case = tag.as_ref().map(|tag| Words::split(tag.as_str()));
                    let own = trail.last().expect("a trail is never empty");
                    let name = case.map_or_else(|| own.clone(), |case| case_name(&case, own));
                    self.push_inside(&inside, *node, trail.with_last(name));
                }
                self.name(id, trail, false);
            }
            DraftKind::Union { tag: None, cases } => self.untagged(id, cases, trail),
        }
    }

    /// Another way to a position whose parts are known: one more use of its type.
    fn visit_again(&mut self, id: DraftId, trail: Chain<Words>) {
        match &self.draft.node(id).kind {
            DraftKind::Record { .. } | DraftKind::Union { tag: Some(_), .. } => self.name(id, trail, false),
            DraftKind::Enumeration(_) => self.name(id, trail, true),
            // A union of kinds is called after its parts.
            DraftKind::Union { tag: None, .. }
            | DraftKind::Any
            | DraftKind::Scalar(_)
            | DraftKind::Constant(_)
            | DraftKind::List(_)
            | DraftKind::Map(_)
            | DraftKind::Tuple(_) => {}
        }
    }

    fn name(&mut self, node: DraftId, trail: Chain<Words>, leans_on_parent: bool) {
        // Two words say enough by themselves.
        let is_short = trail.last().is_some_and(|name| name.count() == 1);
        let within = self.within.clone();
        let declared = self.draft.node(node).name.clone();
        let leans_on_parent = leans_on_parent && is_short && declared.is_none();
        self.uses.named.push(Use { node, trail, declared, ending: None, leans_on_parent, within });
    }

    fn record(&mut self, id: DraftId, inside: &Chain<DraftId>, fields: &[DraftField], trail: Chain<Words>) {
        let own = trail.last().expect("a trail is never empty").clone();
        let root = self.roots.get(&id).copied();
        let keeps_name = root == Some(true) || self.draft.node(id).name.is_some();
        let found = envelope(self.draft, fields, &own, root.is_some());
        let trail = match &found {
            Some(Envelope { name, .. }) if !keeps_name => trail.with_last(name.clone()),
            Some(_) | None => trail,
        };
        for field in fields {
            if self.is_plain(field.node) {
                // Nothing is called after it: who comes first makes no difference.
                self.visit_plain(field.node);
                continue;
            }
            let name = match &found {
                // What is declared to be called so lends its name to nothing in it.
                Some(Envelope { part, part_name, .. })
                    if *part == field.node && !(keeps_name && *part_name == own) =>
                {
                    part_name.clone()
                }
                Some(_) | None => field.name.clone(),
            };
            self.push_inside(inside, field.node, trail.with(name));
        }
        self.name(id, trail, false);
    }

    /// The first key of a record that is none of the other cases'.
    fn own_key(&self, cases: &[DraftCase], id: DraftId) -> Option<Words> {
        let others = || cases.iter().filter(|case| case.node != id).flat_map(|case| self.keys(case.node));
        let is_own = |field: &&DraftField| others().all(|other| other.wire != field.wire);
        self.keys(id).iter().find(is_own).map(|field| field.name.clone())
    }

    /// Whether a record is what stands in a list beside it: one or many of it.
    fn is_one_of(&self, cases: &[DraftCase], id: DraftId) -> bool {
        let keys = |id: DraftId| self.keys(id).iter().map(|field| &field.wire);
        let is_such = |item: DraftId| item == id || keys(item).eq(keys(id));
        let has_keys = !self.keys(id).is_empty();
        has_keys
            && cases
                .iter()
                .any(|case| matches!(self.draft.node(case.node).kind, DraftKind::List(item) if is_such(item)))
    }

    /// The fields of a record.
    fn keys(&self, id: DraftId) -> &[DraftField] {
        match &self.draft.node(id).kind {
            DraftKind::Record { fields, .. } => fields,
            DraftKind::Any
            | DraftKind::Scalar(_)
            | DraftKind::List(_)
            | DraftKind::Map(_)
            | DraftKind::Tuple(_)
            | DraftKind::Enumeration(_)
            | DraftKind::Constant(_)
            | DraftKind::Union { .. } => &[],
        }
    }

    /// A union of kinds: beside a record, which takes the name, it says what else there may be.
    fn untagged(&mut self, id: DraftId, cases: &[DraftCase], trail: Chain<Words>) {
        let takes_name = |case: &&DraftCase| {
            matches!(
                self.draft.node(case.node).kind,
                DraftKind::Record { .. } | DraftKind::Enumeration(_) | DraftKind::Union { .. }
            )
        };
        // Of several records, none has the name of all.
        let are_several = cases.iter().filter(|case| !self.keys(case.node).is_empty()).count() > 1;
        let named = cases.iter().find(takes_name).map(|case| case.node).filter(|_| !are_several);
        let others = cases.iter().filter(|case| Some(case.node) != named);
        let others = others.map(|case| format!("or {}", kind_word(self.draft, case.node)));
        let ending = named.map(|_| Words::split(&others.collect::<Vec<_>>().join(" ")));
        let declared = self.draft.node(id).name.clone();
        let inside = self.within.with(id);
        // What stands alone is called as it is in the list beside it, and so is the one or many of it.
        let trail = if cases.iter().any(|case| self.is_one_of(cases, case.node)) {
            item_trail(&trail)
        } else {
            trail
        };
        for case in cases {
            let key = if are_several { self.own_key(cases, case.node) } else { None };
            let trail = match &declared {
                _ if let Some(key) = key => {
                    trail.last().map_or_else(Chain::empty, |own| trail.with_last(own.prefixed(&key)))
                }
                // The name is the union's own, and what stands in it is a part of that.
                Some(name) => trail.with_last(name.with_word(kind_word(self.draft, case.node))),
                // The list of one or many is named as a list; its items share the name of the one.
                None => trail.clone(),
            };
            self.push_inside(&inside, case.node, trail);
        }
        let ending = ending.filter(|_| declared.is_none());
        self.name(id, trail, ending.is_none() && !are_several);
        if let Some(last) = self.uses.named.last_mut() {
            last.ending = ending;
        }
    }
}

/// What a case of a union of kinds is called.
pub(crate) fn kind_word(draft: &Draft, id: DraftId) -> &'static str {
    match &draft.node(id).kind {
        DraftKind::Any => "any",
        DraftKind::Scalar(scalar) => word_of(match scalar.kind() {
            ScalarKind::Boolean => Kind::Boolean,
            ScalarKind::Integer | ScalarKind::Number => Kind::Number,
            ScalarKind::Text => Kind::Text,
        }),
        DraftKind::Constant(_) | DraftKind::Enumeration(_) => word_of(Kind::Text),
        DraftKind::List(_) | DraftKind::Tuple(_) => word_of(Kind::List),
        DraftKind::Map(_) => "table",
        DraftKind::Record { .. } | DraftKind::Union { .. } => word_of(Kind::Object),
    }
}

/// What a case of a union is called by the kind of its values.
pub(crate) fn word_of(kind: Kind) -> &'static str {
    match kind {
        Kind::Object => "item",
        Kind::List => "many",
        Kind::Text => "text",
        Kind::Boolean => "flag",
        Kind::Integer | Kind::Number => "numeric",
        Kind::Null => "nothing",
    }
}

/// `swarm` of `event` is a `swarm event`, `swarm_event` is one already.
fn case_name(case: &Words, own: &Words) -> Words {
    if case.iter().any(|word| word == own.last()) { case.clone() } else { own.prefixed(case) }
}

/// The way to what stands under the other keys of a record.
fn entry_trail(trail: &Chain<Words>) -> Chain<Words> {
    let name =
        |own: &Words| Some(singular(own)).filter(|one| one != own).unwrap_or_else(|| own.with_word("entry"));
    trail.last().map_or_else(Chain::empty, |own| trail.with(name(own)))
}

/// What an item is called of a list that has a name of its own.
fn item_of(list: &Words) -> Words {
    let one = singular(list);
    if one == *list { list.with_word("item") } else { one }
}

fn item_trail(trail: &Chain<Words>) -> Chain<Words> {
    trail.last().map_or_else(Chain::empty, |name| trail.with_last(singular(name)))
}

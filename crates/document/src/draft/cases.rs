//! One of several schemas: tagged, told apart by their kinds, or merged where nothing tells them apart.

use std::collections::HashSet;

use indexmap::{IndexMap, IndexSet};
use jar_sprout_model::{
    DraftCase, DraftField, DraftId, DraftKind, Kind, KindSet, Presence, Scalar, Width, WireName,
};

use super::{Drafter, Made, TaggedSpec, discriminator_key};
use crate::flat::{Flat, NoteKind, Properties, Property, Spec};
use crate::value::Value;

impl<'d> Drafter<'_, 'd> {
    pub(super) fn of_alternatives(&mut self, mut flat: Flat<'d>, at: &'d Value) -> Made {
        let mut is_nullable = flat.is_nullable;
        let mut groups = std::mem::take(&mut flat.alternatives).into_iter();
        let first = groups.next().unwrap_or_default();
        if groups.next().is_some() {
            self.flattening.note(at, NoteKind::ManyGroups);
        }
        let discriminator = flat.discriminator;
        // What stands beside the alternatives holds for each of them.
        let has_shared = flat.has_substance();
        let mut cases: Vec<(Spec<'d>, Flat<'d>)> = Vec::new();
        let mut bounded = Vec::new();
        let mut queue: Vec<Spec<'d>> = first.into_iter().rev().collect();
        let mut seen = HashSet::new();
        while let Some(case) = queue.pop() {
            if !seen.insert(self.key(&case)) {
                continue;
            }
            let own = self.flattening.flat(&case);
            if is_null(&own) {
                is_nullable = true;
                continue;
            }
            let has_null = |values: &Vec<&Value>| values.iter().any(|value| value.is_null());
            is_nullable |= own.is_nullable || own.values.as_ref().is_some_and(has_null);
            let is_base = self.heirs.contains_key(&std::ptr::from_ref(case.first()));
            if own.values.is_none() && own.alternatives.len() == 1 && !own.has_substance() && !is_base {
                queue.extend(own.alternatives.into_iter().flatten().rev());
                continue;
            }
            // One that only says which keys must be there is no type.
            if own.has_substance() || !has_shared {
                cases.push((case, own));
            } else {
                bounded.push((case, own));
            }
        }
        // But where others say which values may stand there, it says that any may.
        if cases.iter().any(|(_, own)| own.values.is_some()) {
            cases.append(&mut bounded);
        }
        if has_shared {
            if cases.iter().all(|(_, own)| self.only_bounds(own, &flat)) {
                let kind = self.made(flat, at);
                return match kind {
                    Made::Kind(kind, nullable) => Made::Kind(kind, nullable || is_nullable),
                    Made::SameAs(id, nullable) => Made::SameAs(id, nullable || is_nullable),
                };
            }
            for (case, own) in &mut cases {
                *case = Spec::All(vec![Spec::Bare(at), case.clone()]);
                let mut both = flat.clone();
                for (key, Property { spec, declared: _ }) in &own.properties {
                    let spec = match both.properties.get(key) {
                        Some(Property { spec: shared, .. }) => Spec::All(vec![shared.clone(), spec.clone()]),
                        None => spec.clone(),
                    };
                    both.properties.insert(key, spec.into());
                }
                both.required.extend(own.required.iter().copied());
                both.values = own.values.take().or(both.values);
                *own = both;
            }
        }
        self.united(cases, discriminator, is_nullable, at)
    }

    /// Whether an alternative says of what stands beside it what must be there and within which bounds, and no more.
    fn only_bounds(&mut self, own: &Flat<'d>, shared: &Flat<'d>) -> bool {
        own.values.is_none()
            && own.properties.iter().all(|(key, property)| {
                shared.properties.contains_key(key) && !self.flattening.flat(&property.spec).has_substance()
            })
    }

    /// One type of several: tagged, told apart by their kinds, or merged where nothing tells them apart.
    fn united(
        &mut self,
        cases: Vec<(Spec<'d>, Flat<'d>)>,
        discriminator: Option<&'d Value>,
        is_nullable: bool,
        at: &'d Value,
    ) -> Made {
        match &cases[..] {
            [] => return Made::Kind(DraftKind::Any, is_nullable),
            [(one, _)] => {
                let one = one.clone();
                return Made::SameAs(self.place(&one), is_nullable);
            }
            _ => {}
        }
        let are_objects = cases.iter().all(|(_, flat)| {
            flat.values.is_none()
                && flat.likely_kinds().only() == Some(Kind::Object)
                && !flat.properties.is_empty()
        });
        if are_objects && let Some((tag, cases)) = self.tags_of(&cases, discriminator) {
            return Made::Kind(self.tagged(&tag, cases), is_nullable);
        }
        self.by_kind(cases, is_nullable, at)
    }

    fn by_kind(&mut self, cases: Vec<(Spec<'d>, Flat<'d>)>, is_nullable: bool, at: &'d Value) -> Made {
        let mut by_kind: IndexMap<Kind, Vec<(Spec<'d>, Flat<'d>)>> = IndexMap::new();
        for (spec, flat) in cases {
            let kinds = kinds_of(&flat);
            if kinds.is_empty() {
                return Made::Kind(DraftKind::Any, is_nullable);
            }
            for kind in kinds.iter() {
                // Whole numbers are numbers.
                let kind = if kind == Kind::Integer { Kind::Number } else { kind };
                by_kind.entry(kind).or_default().push((spec.clone(), flat.clone()));
            }
        }
        if let (Some((kind, cases)), 1) = (by_kind.first(), by_kind.len())
            && cases.len() > 1
        {
            // Under the name that all of it has.
            return Made::Kind(self.one_of_kind(*kind, cases, at), is_nullable);
        }
        let mut made: Vec<DraftId> = Vec::new();
        for (kind, cases) in by_kind {
            if kind == Kind::Object && self.tags_of(&cases, None).is_none() && self.are_told_by_keys(&cases) {
                made.extend(cases.iter().map(|(spec, _)| self.place(spec)));
                continue;
            }
            made.push(match &cases[..] {
                [(spec, flat)] if kinds_of(flat).only().is_some() => {
                    let spec = spec.clone();
                    self.place(&spec)
                }
                _ => {
                    let kind = self.one_of_kind(kind, &cases, at);
                    self.draft.add(kind, false)
                }
            });
        }
        match made[..] {
            [one] => Made::SameAs(one, is_nullable),
            _ => {
                let cases = made.into_iter().map(|node| DraftCase { tag: None, node }).collect();
                Made::Kind(DraftKind::Union { tag: None, cases }, is_nullable)
            }
        }
    }

    /// Several schemas of one kind as one type that all of them fit.
    fn one_of_kind(&mut self, kind: Kind, cases: &[(Spec<'d>, Flat<'d>)], at: &'d Value) -> DraftKind {
        match kind {
            Kind::Boolean => DraftKind::Scalar(Scalar::Boolean),
            Kind::Integer | Kind::Number => {
                let is_whole = cases
                    .iter()
                    .all(|(_, flat)| kinds_of(flat).has(Kind::Integer) && !kinds_of(flat).has(Kind::Number));
                DraftKind::Scalar(if is_whole { Scalar::Integer(Width::Wide) } else { Scalar::Float })
            }
            Kind::Text => {
                // Any text beside known ones is an enum that others may join.
                let is_any = |flat: &Flat<'d>| flat.values.is_some() || flat.format.is_none();
                let values = cases.iter().filter_map(|(_, flat)| flat.values.as_ref()).flatten();
                let known: IndexSet<WireName> =
                    values.filter_map(|value| value.as_str()).map(WireName::new).collect();
                let is_open = cases.iter().any(|(_, flat)| flat.values.is_none());
                // One word beside any others is none that a type should have.
                let are_few = known.len() < if is_open { 2 } else { 1 };
                if are_few || !cases.iter().all(|(_, flat)| is_any(flat)) {
                    DraftKind::Scalar(Scalar::Text)
                } else {
                    DraftKind::Enumeration(known.into_iter().collect())
                }
            }
            Kind::List => {
                let items: Vec<Spec<'d>> = cases.iter().filter_map(|(_, flat)| flat.items.clone()).collect();
                let items = if items.len() == cases.len() {
                    self.place(&Spec::Any(items))
                } else {
                    self.draft.add(DraftKind::Any, false)
                };
                DraftKind::List(items)
            }
            Kind::Object => {
                if cases.len() > 1
                    && cases.iter().all(|(_, flat)| !flat.properties.is_empty())
                    && let Some((tag, cases)) = self.tags_of(cases, None)
                {
                    return self.tagged(&tag, cases);
                }
                if self.are_told_by_keys(cases) {
                    let nodes = cases.iter().map(|(spec, _)| self.place(spec));
                    let cases = nodes.map(|node| DraftCase { tag: None, node }).collect();
                    return DraftKind::Union { tag: None, cases };
                }
                self.flattening.note(at, NoteKind::MergedObjects);
                self.object(&mut merged(cases), at)
            }
            // Being null is a side of a type, not a type.
            Kind::Null => DraftKind::Any,
        }
    }

    /// Whether each case but one requires a key that no other case knows, and that is never null.
    fn are_told_by_keys(&mut self, cases: &[(Spec<'d>, Flat<'d>)]) -> bool {
        let mut untold = 0;
        for (at, (_, flat)) in cases.iter().enumerate() {
            let is_elsewhere = |key: &str| {
                let mut others = cases.iter().enumerate().filter(|(other, _)| *other != at);
                others.any(|(_, (_, other))| other.properties.contains_key(key))
            };
            let own: Vec<&Spec<'d>> = flat
                .properties
                .iter()
                .filter(|(key, _)| flat.required.contains(*key) && !is_elsewhere(key))
                .map(|(_, property)| &property.spec)
                .collect();
            let is_told = own.into_iter().any(|spec| {
                let flat = self.flattening.flat(spec);
                !flat.is_nullable && kinds_of(&flat).but_null().only().is_some()
            });
            untold += usize::from(!is_told);
        }
        cases.len() > 1 && untold <= 1
    }

    /// The tag that tells cases apart, and each case by its values: by a discriminator, that of what all of them extend
    /// among them, else by a key with a text of its own in each.
    fn tags_of(
        &mut self,
        cases: &[(Spec<'d>, Flat<'d>)],
        discriminator: Option<&'d Value>,
    ) -> Option<(String, Vec<TaggedSpec<'d>>)> {
        let inherited = discriminator.or_else(|| self.discriminator_of_all(cases));
        if let Some(key) = discriminator_key(inherited) {
            let fixed = self.fixed(cases, key);
            let mut named = Some(Vec::new());
            for (spec, _) in cases {
                named = named.zip(self.mapped(inherited, spec)).map(|(mut named, mapped)| {
                    named.extend(mapped.or_name().into_iter().map(|tag| (tag, spec.clone())));
                    named
                });
            }
            let has_mapping = inherited.is_some_and(|said| said.get("mapping").is_some());
            let tagged = if has_mapping { named.or(fixed) } else { fixed.or(named) };
            let tagged = tagged.and_then(told_apart).map(|cases| (key.to_owned(), cases));
            if tagged.is_some() || discriminator.is_some() {
                return tagged;
            }
        }
        let keys: Vec<&str> = cases[0].1.properties.keys().copied().collect();
        keys.into_iter().find_map(|key| {
            let cases = self.fixed(cases, key).and_then(told_apart)?;
            Some((key.to_owned(), cases))
        })
    }

    /// The discriminator of a schema that every case extends.
    fn discriminator_of_all(&self, cases: &[(Spec<'d>, Flat<'d>)]) -> Option<&'d Value> {
        let references = self.flattening.references;
        let bases = |spec: &Spec<'d>| match spec {
            Spec::One(schema) => references.bases(references.target(schema).unwrap_or(schema)),
            Spec::Bare(_) | Spec::All(_) | Spec::Any(_) => Vec::new(),
        };
        let mut of_first = bases(&cases.first()?.0).into_iter();
        let shared = of_first.find(|base| {
            base.get("discriminator").is_some()
                && cases.iter().all(|(spec, _)| bases(spec).iter().any(|other| std::ptr::eq(*other, *base)))
        })?;
        shared.get("discriminator")
    }

    /// The few texts that a key has in each case.
    fn fixed(&mut self, cases: &[(Spec<'d>, Flat<'d>)], key: &str) -> Option<Vec<TaggedSpec<'d>>> {
        /// With more texts than this for one case, they say something of it and do not tell it apart.
        const FEW: usize = 3;
        let mut tags = Vec::new();
        for (spec, flat) in cases {
            let values = self.flattening.flat(&flat.properties.get(key)?.spec).values?;
            if values.len() > FEW || !flat.required.contains(key) {
                return None;
            }
            for value in values {
                tags.push((value.as_str()?.to_owned(), spec.clone()));
            }
        }
        Some(tags)
    }

    /// The tags of a case by the mapping of a discriminator, and by the name of the component.
    pub(super) fn mapped(&self, discriminator: Option<&'d Value>, spec: &Spec<'d>) -> Option<Mapped> {
        let schema = spec.first();
        let target = self.flattening.references.target(schema).unwrap_or(schema);
        let name = self.names.get(&std::ptr::from_ref(target))?;
        let mapping = discriminator?.get("mapping").and_then(Value::as_object);
        let leads_here = |to: &Value| {
            let to = to.as_str().unwrap_or_default();
            // It is a name, or a reference, in which a `/` of the name is written as `~1` (RFC 6901).
            let last = to.rsplit('/').next().unwrap_or(to);
            to == name || last.replace("~1", "/").replace("~0", "~") == *name
        };
        let mapped = mapping.into_iter().flatten().filter(|(_, to)| leads_here(to));
        Some(Mapped { by_mapping: mapped.map(|(tag, _)| tag.to_owned()).collect(), name: name.clone() })
    }

    pub(super) fn tagged(&mut self, key: &str, specs: Vec<TaggedSpec<'d>>) -> DraftKind {
        let mut cases = Vec::new();
        for (tag, spec) in specs {
            let node = self.place(&spec);
            let wanted = (key.to_owned(), tag.clone());
            let node = match self.tags.get(&node) {
                // The same record under two tags is two types.
                Some(known) if *known != wanted => {
                    let copy = self.draft.reserve();
                    self.waiting.push_back((copy, spec));
                    copy
                }
                Some(_) | None => node,
            };
            self.tags.insert(node, wanted);
            cases.push(DraftCase { tag: Some(WireName::new(tag)), node });
        }
        DraftKind::Union { tag: Some(WireName::new(key)), cases }
    }

    /// The tag of a case is always the same text.
    pub(super) fn apply_tags(&mut self) {
        for (id, (key, tag)) in std::mem::take(&mut self.tags) {
            self.apply_tag(id, key, tag);
        }
    }

    fn apply_tag(&mut self, id: DraftId, key: String, tag: String) {
        let DraftKind::Record { mut fields, extras } = self.draft.node(id).kind.clone() else { return };
        let constant = self.draft.add(DraftKind::Constant(WireName::new(tag)), false);
        let wire = WireName::new(key);
        match fields.iter_mut().find(|field| field.wire == wire) {
            Some(field) => {
                field.node = constant;
                field.presence = Presence::Always;
            }
            None => fields.insert(0, DraftField::new(wire, Presence::Always, constant)),
        }
        let nullable = self.draft.node(id).nullable;
        self.draft.set(id, DraftKind::Record { fields, extras }, nullable);
    }
}

/// Cases by their tags, those of one tag as one; none where fewer than two tags are left, or where cases share a tag and
/// have others of their own.
fn told_apart(cases: Vec<TaggedSpec<'_>>) -> Option<Vec<TaggedSpec<'_>>> {
    let mut by_tag: IndexMap<String, Vec<Spec<'_>>> = IndexMap::new();
    for (tag, spec) in cases {
        let specs = by_tag.entry(tag).or_default();
        if !specs.contains(&spec) {
            specs.push(spec);
        }
    }
    let is_told = |spec: &Spec<'_>| by_tag.values().filter(|specs| specs.contains(spec)).count() == 1;
    let mut shared = by_tag.values().filter(|specs| specs.len() > 1).flatten();
    if by_tag.len() < 2 || !shared.all(is_told) {
        return None;
    }
    let one = |mut specs: Vec<_>| if specs.len() == 1 { specs.remove(0) } else { Spec::Any(specs) };
    Some(by_tag.into_iter().map(|(tag, specs)| (tag, one(specs))).collect())
}

/// What tells a case apart.
pub(super) struct Mapped {
    /// The values that a mapping gives it.
    pub(super) by_mapping: Vec<String>,
    /// The name of its component, which tells it where no mapping does.
    name: String,
}

impl Mapped {
    pub(super) fn or_name(self) -> Vec<String> {
        let Self { by_mapping, name } = self;
        if by_mapping.is_empty() { vec![name] } else { by_mapping }
    }
}

fn is_null(flat: &Flat<'_>) -> bool {
    let has_null_only = flat.values.as_ref().is_some_and(|values| values.iter().all(|value| value.is_null()));
    has_null_only || (flat.is_nullable && !flat.has_substance() && flat.alternatives.is_empty())
}

/// The kinds of value that fit a flat schema.
fn kinds_of(flat: &Flat<'_>) -> KindSet {
    let Some(values) = &flat.values else { return flat.likely_kinds() };
    values
        .iter()
        .filter_map(|value| match value {
            Value::Null => None,
            Value::Bool(_) => Some(Kind::Boolean),
            Value::Number(number) if number.is_f64() => Some(Kind::Number),
            Value::Number(_) => Some(Kind::Integer),
            Value::String(_) => Some(Kind::Text),
            Value::Array(_) => Some(Kind::List),
            Value::Object(_) => Some(Kind::Object),
        })
        .collect()
}

/// All properties of several objects; what not all require may be missing.
fn merged<'d>(cases: &[(Spec<'d>, Flat<'d>)]) -> Flat<'d> {
    let mut properties: IndexMap<&'d str, Vec<Spec<'d>>> = IndexMap::new();
    for (_, flat) in cases {
        for (key, property) in &flat.properties {
            properties.entry(*key).or_default().push(property.spec.clone());
        }
    }
    let properties: Properties<'d> = properties
        .into_iter()
        .map(|(key, mut specs)| {
            let spec = if specs.len() == 1 { specs.remove(0) } else { Spec::Any(specs) };
            (key, spec.into())
        })
        .collect();
    let is_required = |key: &&&str| cases.iter().all(|(_, flat)| flat.required.contains(**key));
    let required = cases.first().map(|(_, flat)| flat.required.iter().filter(is_required).copied().collect());
    Flat {
        properties,
        required: required.unwrap_or_default(),
        additional: cases.iter().find_map(|(_, flat)| flat.additional),
        ..Flat::default()
    }
}

//! Library to draft: what each schema is.

use std::collections::{HashMap, HashSet};

use jar_sprout_model::{
    Docs, Draft, DraftCase, DraftField, DraftId, DraftKind, Presence, Problem, Scalar, Spot, Width, WireName,
    Words,
};
use serde_json::Value;

use crate::api::{self, Operation, Sent, Wanted};
use crate::flat::{Flat, Flattening, JsonKind, NoteKind, Spec, pure_reference, says_nullable};
use crate::library::{Library, References};
use crate::names::component_name;

/// A draft with what a document asks for.
pub struct Drafted {
    /// What each schema is.
    pub draft: Draft,
    /// The parts that are asked for; the first one is the document's own, where it has one.
    pub roots: Vec<Root>,
    /// What all of it is called.
    pub title: Option<Words>,
    /// What an API description offers.
    pub operations: Vec<Operation>,
    /// What is not as it could be: errors where nothing can be made of it.
    pub problems: Vec<Problem>,
}

/// A part of a document that is asked for.
#[derive(Debug, Clone)]
pub struct Root {
    /// What it is called.
    pub name: Words,
    /// What it is.
    pub node: DraftId,
}

/// The draft of a document, or of the part that a JSON Pointer (RFC 6901) leads to.
///
/// `name` is what it is called where it does not say so itself.
pub fn draft_document(library: &Library, source: &str, pointer: Option<&str>, name: &Words) -> Drafted {
    let references = library.references();
    let mut drafter = Drafter {
        library,
        flattening: Flattening { references: &references, notes: Vec::new(), broken: Vec::new() },
        references: &references,
        draft: Draft::default(),
        made: HashMap::new(),
        aliases: Vec::new(),
        tags: HashMap::new(),
        filled: HashSet::new(),
        waiting: Vec::new(),
        names: component_names(library),
        heirs: HashMap::new(),
        sent: HashSet::new(),
    };
    drafter.find_heirs();
    let wanted = api::wanted(library, pointer, name, &references);
    let mut problems: Vec<Problem> = Vec::new();
    for (path, fault) in &library.faults {
        let mut problem = Problem::warning(fault.message.clone(), Spot::Path(path.clone()));
        problem.help.clone_from(&fault.help);
        problems.push(problem);
    }
    let Wanted { roots, title, operations, sent, missing } = wanted;
    drafter.find_sent(&sent);
    if let Some((message, help)) = missing {
        let spot = Spot::Path(format!("{source}#{}", pointer.unwrap_or_default()));
        let problem = Problem::error(message, spot);
        problems.push(match help {
            Some(help) => problem.with_help(help),
            None => problem,
        });
    }
    let mut roots: Vec<Root> = roots
        .into_iter()
        .map(|(name, schema)| Root { name, node: drafter.place(&Spec::One(schema)) })
        .collect();
    roots.extend(drafter.sent_variants(&sent));
    drafter.fill_all();
    drafter.resolve_aliases();
    problems.extend(drafter.problems(source));
    Drafted { draft: drafter.draft, roots, title, operations, problems }
}

/// The names of components, by where they stand.
fn component_names(library: &Library) -> HashMap<*const Value, String> {
    let mut names = HashMap::new();
    for (at, (file, document)) in library.documents().enumerate() {
        for holder in ["/components/schemas", "/definitions", "/$defs"] {
            let held = document.pointer(holder).and_then(Value::as_object);
            for (name, schema) in held.into_iter().flatten() {
                names.insert(std::ptr::from_ref(schema), name.clone());
            }
        }
        // A file that is one schema is called after itself; the first one by whoever asks for it.
        if at > 0 && document.get("title").is_none() {
            let file = file.rsplit('/').next().unwrap_or(file);
            let stem = file.split('.').next().unwrap_or(file);
            names.insert(std::ptr::from_ref(document), stem.to_owned());
        }
    }
    names
}

struct Drafter<'l, 'd> {
    library: &'d Library,
    flattening: Flattening<'l, 'd>,
    references: &'l References<'d>,
    draft: Draft,
    made: HashMap<String, DraftId>,
    /// Nodes that are what another node is, though null may stand there.
    aliases: Vec<(DraftId, DraftId)>,
    /// The tag of each record that is a union's case.
    tags: HashMap<DraftId, (String, String)>,
    filled: HashSet<DraftId>,
    waiting: Vec<(DraftId, Spec<'d>)>,
    names: HashMap<*const Value, String>,
    /// The components that are sent.
    sent: HashSet<*const Value>,
    /// The components that extend one with a discriminator.
    heirs: HashMap<*const Value, Vec<&'d Value>>,
}

/// What a schema turns out to be.
enum Made {
    Kind(DraftKind, bool),
    SameAs(DraftId, bool),
}

impl<'d> Drafter<'_, 'd> {
    /// The components that are sent: what is only written is no part of what is read.
    fn find_sent(&mut self, sent: &[Sent<'d>]) {
        let targets = sent.iter().filter_map(|sent| self.target(sent.schema));
        self.sent = targets.map(std::ptr::from_ref).collect();
    }

    /// What is sent of a component, where that is not what is read: what the server makes is no part of it, and of
    /// an update everything may be left out.
    fn sent_variants(&mut self, sent: &[Sent<'d>]) -> Vec<Root> {
        let mut roots = Vec::new();
        let mut made = HashSet::new();
        for Sent { schema, is_update } in sent {
            let Some(target) = self.target(schema) else { continue };
            if !made.insert((std::ptr::from_ref(target), *is_update)) {
                continue;
            }
            let mut flat = self.flattening.flat(&Spec::One(target));
            let known = flat.properties.len();
            flat.properties.retain(|_, spec| !says(first_of(spec), "readOnly"));
            flat.required.retain(|key| flat.properties.contains_key(key));
            let differs = flat.properties.len() < known || (*is_update && !flat.required.is_empty());
            let Some(name) = self.name_of(target).filter(|_| differs && !flat.properties.is_empty()) else {
                continue;
            };
            if *is_update {
                flat.required.clear();
            }
            let name =
                if *is_update { name.with_word("update") } else { name.prefixed(&Words::split("new")) };
            let kind = self.object(&flat, schema);
            let node = self.draft.add(kind, false);
            self.draft.describe(node, Some(name.clone()), docs_of(target));
            roots.push(Root { name, node });
        }
        roots
    }

    fn find_heirs(&mut self) {
        let components = self.library.root().pointer("/components/schemas");
        let components = components.or_else(|| self.library.root().pointer("/definitions"));
        for schema in components.and_then(Value::as_object).into_iter().flat_map(|all| all.values()) {
            for part in schema.get("allOf").and_then(Value::as_array).into_iter().flatten() {
                if let Some(base) = self.target(part)
                    && base.get("discriminator").is_some()
                    && base.get("oneOf").is_none()
                    && base.get("anyOf").is_none()
                {
                    self.heirs.entry(std::ptr::from_ref(base)).or_default().push(schema);
                }
            }
        }
    }

    /// What a schema that is a reference and no more leads to, however many steps it takes.
    fn target(&self, schema: &'d Value) -> Option<&'d Value> {
        let mut target = self.references.follow(pure_reference(schema)?).ok()?.0.value;
        for _ in 0..64 {
            match pure_reference(target).map(|holder| self.references.follow(holder)) {
                Some(Ok((next, _))) if !std::ptr::eq(next.value, target) => target = next.value,
                Some(_) | None => break,
            }
        }
        Some(target)
    }

    /// The name of a component, from where it stands or from where a reference leads.
    fn name_of(&self, schema: &'d Value) -> Option<Words> {
        if let Some(name) = self.names.get(&std::ptr::from_ref(schema)) {
            return Some(component_name(name));
        }
        let title = schema.get("title").and_then(Value::as_str)?;
        let words = Words::split(title);
        let is_name = title.len() <= 40 && words.iter().len() <= 4 && !title.contains(['.', ':', '/']);
        is_name.then_some(words)
    }

    /// The node of a schema, made where it is not there yet.
    fn place(&mut self, spec: &Spec<'d>) -> DraftId {
        let (spec, is_nullable) = self.resolved(spec);
        let key = self.key(&spec);
        let id = match self.made.get(&key) {
            Some(id) => *id,
            None => {
                // Before its parts: a schema may contain itself.
                let id = self.draft.reserve();
                self.made.insert(key, id);
                // Not at once: schemas refer to each other in chains of any length.
                self.waiting.push((id, spec));
                id
            }
        };
        if !is_nullable {
            return id;
        }
        let alias = self.draft.add(DraftKind::Any, true);
        self.aliases.push((alias, id));
        alias
    }

    /// A schema that is a reference and no more is what it leads to.
    fn resolved(&mut self, spec: &Spec<'d>) -> (Spec<'d>, bool) {
        let Spec::One(schema) = spec else { return (spec.clone(), false) };
        match self.target(schema) {
            Some(target) => (Spec::One(target), says_nullable(schema)),
            None => {
                if let Some(holder) = pure_reference(schema)
                    && let Err((message, help)) = self.references.follow(holder)
                {
                    self.flattening.broken.push((holder, message, help));
                }
                (spec.clone(), false)
            }
        }
    }

    /// Tells specs apart by what they are made of.
    fn key(&self, spec: &Spec<'d>) -> String {
        let several = |sign: &str, specs: &[Spec<'d>]| {
            let parts: Vec<String> = specs.iter().map(|spec| self.key(spec)).collect();
            format!("{sign}({})", parts.join(","))
        };
        match spec {
            Spec::One(schema) => {
                let target = self.target(schema).unwrap_or(schema);
                format!("{:p}", std::ptr::from_ref(target))
            }
            Spec::Bare(schema) => format!("bare({:p})", std::ptr::from_ref(*schema)),
            Spec::All(specs) => several("all", specs),
            Spec::Any(specs) => several("any", specs),
        }
    }

    fn fill_all(&mut self) {
        while let Some((id, spec)) = self.waiting.pop() {
            self.fill(id, &spec);
        }
    }

    fn fill(&mut self, id: DraftId, spec: &Spec<'d>) {
        let flat = self.flattening.flat(spec);
        let at = first_of(spec);
        let made = self.heirs_of(at).unwrap_or_else(|| self.made(flat, at));
        match made {
            Made::Kind(kind, is_nullable) => {
                let has_name = matches!(
                    kind,
                    DraftKind::Record(_) | DraftKind::Enumeration(_) | DraftKind::Union { .. }
                );
                self.draft.set(id, kind, is_nullable);
                if has_name && let Spec::One(schema) = spec {
                    let name = self.name_of(schema);
                    // What is said of a part that has no name stands at the field.
                    let docs = if name.is_some() { docs_of(schema) } else { Docs::default() };
                    self.draft.describe(id, name, docs);
                }
            }
            Made::SameAs(other, is_nullable) => {
                self.draft.set(id, DraftKind::Any, is_nullable);
                self.aliases.push((id, other));
            }
        }
        self.filled.insert(id);
        self.apply_tag(id);
    }

    /// A component with a discriminator that others extend is one of them.
    fn heirs_of(&mut self, at: &'d Value) -> Option<Made> {
        let heirs = self.heirs.get(&std::ptr::from_ref(at))?.clone();
        let discriminator = at.get("discriminator");
        let tag = discriminator_key(discriminator)?;
        let specs: Vec<Spec<'d>> = heirs.into_iter().map(Spec::One).collect();
        let tags: Vec<String> =
            specs.iter().map(|spec| self.mapped(discriminator, spec)).collect::<Option<_>>()?;
        Some(Made::Kind(self.tagged(tag, tags, &specs), false))
    }

    fn made(&mut self, flat: Flat<'d>, at: &'d Value) -> Made {
        if let Some(values) = &flat.values {
            return self.of_values(values, flat.is_nullable, at);
        }
        if !flat.alternatives.is_empty() {
            return self.of_alternatives(flat, at);
        }
        let is_nullable = flat.is_nullable;
        let kinds: Vec<JsonKind> = flat.likely_kinds().into_iter().collect();
        let kind = match kinds[..] {
            // Anything is null as well.
            [] => DraftKind::Any,
            [kind] => self.of_kind(kind, &flat, at),
            _ => {
                let cases = kinds.iter().map(|kind| {
                    let kind = self.of_kind(*kind, &flat, at);
                    DraftCase { tag: None, node: self.draft.add(kind, false) }
                });
                let cases = cases.collect();
                DraftKind::Union { tag: None, cases }
            }
        };
        Made::Kind(kind, is_nullable)
    }

    /// What the values of an `enum` are.
    fn of_values(&mut self, values: &[&'d Value], may_be_null: bool, at: &'d Value) -> Made {
        let is_nullable = may_be_null || values.iter().any(|value| value.is_null());
        let mut texts: Vec<WireName> =
            values.iter().filter_map(|value| value.as_str()).map(WireName::new).collect();
        texts.dedup();
        let others: Vec<&&Value> =
            values.iter().filter(|value| !value.is_string() && !value.is_null()).collect();
        let scalars: Option<Vec<Scalar>> = others
            .iter()
            .map(|value| match value {
                Value::Bool(_) => Some(Scalar::Boolean),
                Value::Number(number) if number.is_i64() || number.is_u64() => {
                    Some(Scalar::Integer(Width::Wide))
                }
                Value::Number(_) => Some(Scalar::Float),
                Value::Null | Value::String(_) | Value::Array(_) | Value::Object(_) => None,
            })
            .collect();
        let Some(mut scalars) = scalars else { return Made::Kind(DraftKind::Any, is_nullable) };
        scalars.sort_unstable();
        scalars.dedup();
        if scalars.contains(&Scalar::Float) {
            scalars.retain(|scalar| !matches!(scalar, Scalar::Integer(_)));
        }
        let kinds = scalars.into_iter().map(DraftKind::Scalar);
        let mut kinds: Vec<DraftKind> =
            (!texts.is_empty()).then_some(DraftKind::Enumeration(texts)).into_iter().chain(kinds).collect();
        if kinds.len() > 1 {
            self.flattening.note(at, NoteKind::UnlikeValues);
            let cases =
                kinds.into_iter().map(|kind| DraftCase { tag: None, node: self.draft.add(kind, false) });
            return Made::Kind(DraftKind::Union { tag: None, cases: cases.collect() }, is_nullable);
        }
        Made::Kind(kinds.pop().unwrap_or(DraftKind::Any), is_nullable)
    }

    fn of_kind(&mut self, kind: JsonKind, flat: &Flat<'d>, at: &'d Value) -> DraftKind {
        match kind {
            JsonKind::Boolean => DraftKind::Scalar(Scalar::Boolean),
            JsonKind::Number => DraftKind::Scalar(Scalar::Float),
            JsonKind::Integer => DraftKind::Scalar(Scalar::Integer(width(flat))),
            JsonKind::Text => {
                if matches!(flat.format, Some("time" | "duration")) {
                    self.flattening.note(at, NoteKind::Format);
                }
                DraftKind::Scalar(text_scalar(flat.format))
            }
            JsonKind::List => self.list(flat, at),
            JsonKind::Object => self.object(flat, at),
        }
    }

    fn list(&mut self, flat: &Flat<'d>, at: &'d Value) -> DraftKind {
        if !flat.prefix.is_empty() {
            let are_alike = flat.prefix.iter().all(|item| *item == flat.prefix[0]);
            if are_alike && (flat.is_closed || flat.items.is_none()) {
                // Items of one type are a list, which every language has.
                return DraftKind::List(self.place(&Spec::One(flat.prefix[0])));
            }
            if flat.is_closed && flat.items.is_none() {
                let items = flat.prefix.iter().map(|item| self.place(&Spec::One(item))).collect();
                return DraftKind::Tuple(items);
            }
            self.flattening.note(at, NoteKind::MixedTuple);
            let any = self.draft.add(DraftKind::Any, false);
            return DraftKind::List(any);
        }
        let items = match &flat.items {
            Some(items) => self.place(items),
            None => self.draft.add(DraftKind::Any, false),
        };
        DraftKind::List(items)
    }

    fn object(&mut self, flat: &Flat<'d>, at: &'d Value) -> DraftKind {
        if flat.properties.is_empty() {
            let mut values: Vec<Spec<'d>> = flat.patterns.iter().map(|schema| Spec::One(*schema)).collect();
            values.extend(flat.additional.filter(|schema| schema.is_object()).map(Spec::One));
            let values = match values.len() {
                0 => self.draft.add(DraftKind::Any, false),
                1 => self.place(&values[0]),
                _ => self.place(&Spec::Any(values)),
            };
            return DraftKind::Map(values);
        }
        if flat.additional.is_some_and(Value::is_object) || !flat.patterns.is_empty() {
            self.flattening.note(at, NoteKind::ExtraKeys);
        }
        let is_sent = self.sent.contains(&std::ptr::from_ref(at));
        let mut fields: Vec<DraftField> = flat
            .properties
            .iter()
            .filter(|(_, spec)| !(is_sent && says(first_of(spec), "writeOnly")))
            .map(|(key, spec)| {
                let presence =
                    if flat.required.contains(*key) { Presence::Always } else { Presence::Sometimes };
                let node = self.place(spec);
                DraftField { wire: WireName::new(*key), presence, node, docs: docs_of(first_of(spec)) }
            })
            .collect();
        let unsaid = flat.required.iter().filter(|key| !flat.properties.contains_key(**key));
        for key in unsaid {
            let node = self.draft.add(DraftKind::Any, false);
            fields.push(DraftField {
                wire: WireName::new(*key),
                presence: Presence::Always,
                node,
                docs: Docs::default(),
            });
        }
        DraftKind::Record(fields)
    }

    fn of_alternatives(&mut self, mut flat: Flat<'d>, at: &'d Value) -> Made {
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
            is_nullable |= own.is_nullable && own.values.is_none();
            let is_base = self.heirs.contains_key(&std::ptr::from_ref(first_of(&case)));
            if own.values.is_none() && own.alternatives.len() == 1 && !own.has_substance() && !is_base {
                queue.extend(own.alternatives.into_iter().flatten().rev());
                continue;
            }
            // One that only says which keys must be there is no type.
            if own.has_substance() || !has_shared {
                cases.push((case, own));
            }
        }
        if has_shared {
            if cases.is_empty()
                || cases.iter().all(|(_, own)| own.properties.is_empty() && own.values.is_none())
            {
                let kind = self.made(flat, at);
                return match kind {
                    Made::Kind(kind, nullable) => Made::Kind(kind, nullable || is_nullable),
                    Made::SameAs(id, nullable) => Made::SameAs(id, nullable || is_nullable),
                };
            }
            for (case, own) in &mut cases {
                *case = Spec::All(vec![Spec::Bare(at), case.clone()]);
                let mut both = flat.clone();
                both.properties.extend(own.properties.clone());
                both.required.extend(own.required.iter().copied());
                *own = both;
            }
        }
        self.united(cases, discriminator, is_nullable, at)
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
                && flat.likely_kinds().iter().eq([&JsonKind::Object])
                && !flat.properties.is_empty()
        });
        if are_objects && let Some((tag, tags)) = self.tags_of(&cases, discriminator) {
            let specs: Vec<Spec<'d>> = cases.into_iter().map(|(spec, _)| spec).collect();
            return Made::Kind(self.tagged(&tag, tags, &specs), is_nullable);
        }
        self.by_kind(cases, is_nullable, at)
    }

    fn by_kind(&mut self, cases: Vec<(Spec<'d>, Flat<'d>)>, is_nullable: bool, at: &'d Value) -> Made {
        let mut by_kind: indexmap::IndexMap<JsonKind, Vec<(Spec<'d>, Flat<'d>)>> = indexmap::IndexMap::new();
        for (spec, flat) in cases {
            let kinds = kinds_of(&flat);
            if kinds.is_empty() {
                return Made::Kind(DraftKind::Any, is_nullable);
            }
            for kind in kinds {
                // Whole numbers are numbers.
                let kind = if kind == JsonKind::Integer { JsonKind::Number } else { kind };
                by_kind.entry(kind).or_default().push((spec.clone(), flat.clone()));
            }
        }
        let mut made: Vec<DraftId> = Vec::new();
        for (kind, cases) in by_kind {
            made.push(match &cases[..] {
                [(spec, flat)] if kinds_of(flat).len() == 1 => {
                    let spec = spec.clone();
                    self.place(&spec)
                }
                _ => {
                    let kind = self.one_of_kind(kind, cases, at);
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
    fn one_of_kind(&mut self, kind: JsonKind, cases: Vec<(Spec<'d>, Flat<'d>)>, at: &'d Value) -> DraftKind {
        match kind {
            JsonKind::Boolean => DraftKind::Scalar(Scalar::Boolean),
            JsonKind::Integer | JsonKind::Number => {
                let is_whole = cases.iter().all(|(_, flat)| {
                    kinds_of(flat).contains(&JsonKind::Integer) && !kinds_of(flat).contains(&JsonKind::Number)
                });
                DraftKind::Scalar(if is_whole { Scalar::Integer(Width::Wide) } else { Scalar::Float })
            }
            JsonKind::Text => {
                let values: Option<Vec<&Value>> = cases
                    .iter()
                    .map(|(_, flat)| flat.values.clone())
                    .collect::<Option<Vec<_>>>()
                    .map(|all| all.concat());
                let texts =
                    values.map(|values| values.into_iter().filter_map(Value::as_str).map(WireName::new));
                match texts {
                    Some(texts) => {
                        let known: indexmap::IndexSet<WireName> = texts.collect();
                        DraftKind::Enumeration(known.into_iter().collect())
                    }
                    None => DraftKind::Scalar(Scalar::Text),
                }
            }
            JsonKind::List => {
                let items: Vec<Spec<'d>> = cases.iter().filter_map(|(_, flat)| flat.items.clone()).collect();
                let items = if items.len() == cases.len() {
                    self.place(&Spec::Any(items))
                } else {
                    self.draft.add(DraftKind::Any, false)
                };
                DraftKind::List(items)
            }
            JsonKind::Object => {
                self.flattening.note(at, NoteKind::MergedObjects);
                let merged = merged(&cases);
                self.object(&merged, at)
            }
        }
    }

    /// The tag that tells cases apart, and its value in each.
    fn tags_of(
        &mut self,
        cases: &[(Spec<'d>, Flat<'d>)],
        discriminator: Option<&'d Value>,
    ) -> Option<(String, Vec<String>)> {
        let are_distinct = |tags: &[String]| tags.iter().collect::<HashSet<_>>().len() == tags.len();
        if let Some(key) = discriminator_key(discriminator) {
            let fixed = self.fixed(cases, key);
            let named: Option<Vec<String>> =
                cases.iter().map(|(spec, _)| self.mapped(discriminator, spec)).collect();
            let has_mapping = discriminator.is_some_and(|said| said.get("mapping").is_some());
            let tags = if has_mapping { named.or(fixed) } else { fixed.or(named) };
            return tags.filter(|tags| are_distinct(tags)).map(|tags| (key.to_owned(), tags));
        }
        let keys: Vec<&str> = cases[0].1.properties.keys().copied().collect();
        keys.into_iter().find_map(|key| {
            let tags = self.fixed(cases, key).filter(|tags| are_distinct(tags))?;
            Some((key.to_owned(), tags))
        })
    }

    /// The one text that a key has in each case.
    fn fixed(&mut self, cases: &[(Spec<'d>, Flat<'d>)], key: &str) -> Option<Vec<String>> {
        let mut tags = Vec::new();
        for (_, flat) in cases {
            let values = self.flattening.flat(flat.properties.get(key)?).values?;
            match values[..] {
                [Value::String(text)] => tags.push(text.clone()),
                _ => return None,
            }
        }
        Some(tags)
    }

    /// The tag of a case by the mapping of a discriminator, else by the name of the component.
    fn mapped(&self, discriminator: Option<&'d Value>, spec: &Spec<'d>) -> Option<String> {
        let schema = first_of(spec);
        let target = self.target(schema).unwrap_or(schema);
        let name = self.names.get(&std::ptr::from_ref(target))?;
        let mapping = discriminator?.get("mapping").and_then(Value::as_object);
        let mut mapped = mapping.into_iter().flatten();
        let by_mapping = mapped.find(|(_, to)| {
            let to = to.as_str().unwrap_or_default();
            to.rsplit('/').next().unwrap_or(to) == name
        });
        Some(by_mapping.map_or_else(|| name.clone(), |(tag, _)| tag.clone()))
    }

    fn tagged(&mut self, key: &str, tags: Vec<String>, specs: &[Spec<'d>]) -> DraftKind {
        let mut cases = Vec::new();
        for (tag, spec) in tags.into_iter().zip(specs) {
            let node = self.place(spec);
            let wanted = (key.to_owned(), tag.clone());
            let node = match self.tags.get(&node) {
                // The same record under two tags is two types.
                Some(known) if *known != wanted => {
                    let copy = self.draft.reserve();
                    self.waiting.push((copy, spec.clone()));
                    copy
                }
                Some(_) | None => node,
            };
            self.tags.insert(node, wanted);
            if self.filled.contains(&node) {
                self.apply_tag(node);
            }
            cases.push(DraftCase { tag: Some(WireName::new(tag)), node });
        }
        DraftKind::Union { tag: Some(WireName::new(key)), cases }
    }

    /// The tag of a case is always the same text.
    fn apply_tag(&mut self, id: DraftId) {
        let Some((key, tag)) = self.tags.get(&id).cloned() else { return };
        let DraftKind::Record(mut fields) = self.draft.node(id).kind.clone() else { return };
        let constant = self.draft.add(DraftKind::Constant(WireName::new(tag)), false);
        let wire = WireName::new(key);
        match fields.iter_mut().find(|field| field.wire == wire) {
            Some(field) => {
                field.node = constant;
                field.presence = Presence::Always;
            }
            None => fields.insert(
                0,
                DraftField { wire, presence: Presence::Always, node: constant, docs: Docs::default() },
            ),
        }
        let nullable = self.draft.node(id).nullable;
        self.draft.set(id, DraftKind::Record(fields), nullable);
    }

    /// Makes each alias what it stands for.
    fn resolve_aliases(&mut self) {
        let to: HashMap<DraftId, DraftId> = self.aliases.iter().copied().collect();
        for (alias, _) in self.aliases.clone() {
            let (mut target, mut is_nullable) = (alias, self.draft.node(alias).nullable);
            for _ in 0..to.len() {
                let Some(next) = to.get(&target) else { break };
                target = *next;
                is_nullable |= self.draft.node(target).nullable;
            }
            if target != alias && !to.contains_key(&target) {
                let node = self.draft.node(target).clone();
                self.draft.set(alias, node.kind, is_nullable);
                self.draft.describe(alias, node.name, node.docs);
            }
        }
    }

    /// What was noted, once per kind; what cannot be followed, each.
    fn problems(&self, source: &str) -> Vec<Problem> {
        let place = |at: &Value| {
            Spot::Path(format!("{source}#{}", pointer_to(self.library.root(), at).unwrap_or_default()))
        };
        let mut problems = Vec::new();
        let mut broken = HashSet::new();
        for (at, message, help) in &self.flattening.broken {
            if broken.insert(message.clone()) {
                let problem = Problem::warning(format!("{message}: it becomes any value"), place(at));
                problems.push(match help {
                    Some(help) => problem.with_help(help.clone()),
                    None => problem,
                });
            }
        }
        let mut counts: indexmap::IndexMap<NoteKind, (usize, &Value)> = indexmap::IndexMap::new();
        let mut seen = HashSet::new();
        for note in &self.flattening.notes {
            if seen.insert((note.what, std::ptr::from_ref(note.at))) {
                counts.entry(note.what).or_insert((0, note.at)).0 += 1;
            }
        }
        for (what, (count, at)) in counts {
            let more =
                if count > 1 { format!(" ({count} times, the first one here)") } else { String::new() };
            problems.push(Problem::warning(what.text() + &more, place(at)));
        }
        problems
    }
}

/// The first schema that a spec is made of.
fn first_of<'d>(spec: &Spec<'d>) -> &'d Value {
    match spec {
        Spec::One(schema) | Spec::Bare(schema) => schema,
        Spec::All(specs) | Spec::Any(specs) => specs.last().map_or(&Value::Null, first_of),
    }
}

fn is_null(flat: &Flat<'_>) -> bool {
    let has_null_only = flat.values.as_ref().is_some_and(|values| values.iter().all(|value| value.is_null()));
    has_null_only || (flat.is_nullable && !flat.has_substance() && flat.alternatives.is_empty())
}

/// The kinds of value that fit a flat schema.
fn kinds_of(flat: &Flat<'_>) -> Vec<JsonKind> {
    let Some(values) = &flat.values else { return flat.likely_kinds().into_iter().collect() };
    let mut kinds: Vec<JsonKind> = values
        .iter()
        .filter_map(|value| match value {
            Value::Null => None,
            Value::Bool(_) => Some(JsonKind::Boolean),
            Value::Number(number) if number.is_f64() => Some(JsonKind::Number),
            Value::Number(_) => Some(JsonKind::Integer),
            Value::String(_) => Some(JsonKind::Text),
            Value::Array(_) => Some(JsonKind::List),
            Value::Object(_) => Some(JsonKind::Object),
        })
        .collect();
    kinds.sort_unstable();
    kinds.dedup();
    kinds
}

/// All properties of several objects; what not all require may be missing.
fn merged<'d>(cases: &[(Spec<'d>, Flat<'d>)]) -> Flat<'d> {
    let mut properties: indexmap::IndexMap<&'d str, Vec<Spec<'d>>> = indexmap::IndexMap::new();
    for (_, flat) in cases {
        for (key, spec) in &flat.properties {
            properties.entry(*key).or_default().push(spec.clone());
        }
    }
    let properties = properties.into_iter().map(|(key, mut specs)| {
        let spec = if specs.len() == 1 { specs.remove(0) } else { Spec::Any(specs) };
        (key, spec)
    });
    let is_required = |key: &&&str| cases.iter().all(|(_, flat)| flat.required.contains(**key));
    let required = cases.first().map(|(_, flat)| flat.required.iter().filter(is_required).copied().collect());
    Flat {
        properties: properties.collect(),
        required: required.unwrap_or_default(),
        additional: cases.iter().find_map(|(_, flat)| flat.additional),
        ..Flat::default()
    }
}

/// Whether a schema says `true` of itself.
fn says(schema: &Value, key: &str) -> bool {
    schema.get(key).and_then(Value::as_bool) == Some(true)
}

fn discriminator_key(discriminator: Option<&Value>) -> Option<&str> {
    match discriminator? {
        Value::String(key) => Some(key),
        other => other.get("propertyName")?.as_str(),
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
        Some("date-time") => Scalar::DateTime,
        Some("date") => Scalar::Date,
        Some("uuid") => Scalar::Uuid,
        Some("uri" | "url") => Scalar::Uri,
        _ => Scalar::Text,
    }
}

/// What a schema says of itself, with the bounds it sets.
fn docs_of(schema: &Value) -> Docs {
    let text =
        |key: &str| schema.get(key).and_then(Value::as_str).map(str::trim).filter(|text| !text.is_empty());
    let is_true = |key: &str| schema.get(key).and_then(Value::as_bool) == Some(true);
    let mut said: Vec<String> = text("description").map(str::to_owned).into_iter().collect();
    let bounds = bounds(schema);
    if !bounds.is_empty() {
        said.push(bounds);
    }
    Docs { text: said.join("\n\n"), is_deprecated: is_true("deprecated") || is_true("x-deprecated") }
}

/// `At least 0, at most 10. Read-only.`
fn bounds(schema: &Value) -> String {
    let number = |key: &str| schema.get(key).filter(|value| value.is_number());
    let mut parts: Vec<String> = Vec::new();
    let mut range = |what: &str, least: Option<&Value>, most: Option<&Value>| {
        let least = least.map(|least| format!("at least {least}"));
        let most = most.map(|most| format!("at most {most}"));
        let both: Vec<String> = least.into_iter().chain(most).collect();
        if !both.is_empty() {
            parts.push(capitalised(&format!("{what}{}.", both.join(", "))));
        }
    };
    range("", number("minimum"), number("maximum"));
    range("length ", number("minLength"), number("maxLength"));
    range("items: ", number("minItems"), number("maxItems"));
    let above = number("exclusiveMinimum").map(|above| format!("above {above}"));
    let below = number("exclusiveMaximum").map(|below| format!("below {below}"));
    let open: Vec<String> = above.into_iter().chain(below).collect();
    if !open.is_empty() {
        parts.push(capitalised(&open.join(", ")) + ".");
    }
    if let Some(step) = number("multipleOf") {
        parts.push(format!("A multiple of {step}."));
    }
    let is_true = |key: &str| schema.get(key).and_then(Value::as_bool) == Some(true);
    if is_true("uniqueItems") {
        parts.push("No item twice.".to_owned());
    }
    if let Some(default) = schema.get("default").filter(|default| !default.is_array() && !default.is_object())
    {
        parts.push(format!("{default} where nothing is said."));
    }
    if is_true("readOnly") {
        parts.push("Read-only.".to_owned());
    }
    if is_true("writeOnly") {
        parts.push("Write-only.".to_owned());
    }
    parts.join(" ")
}

fn capitalised(text: &str) -> String {
    let mut chars = text.chars();
    chars.next().map(|first| first.to_uppercase().chain(chars).collect()).unwrap_or_default()
}

/// The JSON Pointer (RFC 6901) to a part of a document.
pub(crate) fn pointer_to(whole: &Value, part: &Value) -> Option<String> {
    let mut queue = vec![(whole, String::new())];
    while let Some((value, pointer)) = queue.pop() {
        if std::ptr::eq(value, part) {
            return Some(pointer);
        }
        match value {
            Value::Object(object) => queue.extend(object.iter().map(|(key, value)| {
                (value, format!("{pointer}/{}", key.replace('~', "~0").replace('/', "~1")))
            })),
            Value::Array(items) => {
                queue.extend(items.iter().enumerate().map(|(at, value)| (value, format!("{pointer}/{at}"))));
            }
            Value::Null | Value::Bool(_) | Value::Number(_) | Value::String(_) => {}
        }
    }
    None
}

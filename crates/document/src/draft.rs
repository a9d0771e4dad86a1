//! Library to draft: what each schema is.

mod cases;
mod directions;
mod endless;
mod values;

use std::collections::hash_map::Entry;
use std::collections::{HashSet, VecDeque};

use foldhash::{HashMap as FastMap, HashSet as FastSet};
use indexmap::IndexMap;
use jar_sprout_model::{
    Docs, Draft, DraftCase, DraftField, DraftId, DraftKind, DraftRoot, Kind, Presence, Problem, Spot,
    WireName, Words, each,
};

use directions::{SentBody, tell_apart};

use crate::api::{self, Carried, CarriedSchema, Described, Operation, Sent, Wanted};
use crate::docs::docs_of;
use crate::fault::Fault;
use crate::flat::resolve::{Declared, Resolved};
use crate::flat::{Flat, Flattening, NoteKind, Property, Spec};
use crate::library::{Library, References};
use crate::names::component_name;
use crate::pointers::pointers_of;
use crate::text::Word;
use crate::value::{Object, Value};

/// A draft with what a document asks for.
pub struct Drafted {
    /// What each schema is.
    pub draft: Draft,
    /// The parts that are asked for; the first one is the document's own, where it has one.
    pub roots: Vec<DraftRoot>,
    /// What all of it is called.
    pub title: Option<Words>,
    /// What an API description offers.
    pub operations: Vec<Operation>,
    /// What is not as it could be: errors where nothing can be made of it.
    pub problems: Vec<Problem>,
}

/// The draft of a document, or of parts of it.
///
/// A part is a JSON Pointer (RFC 6901), the name of a component, a route, or the id of an operation. `name` is what
/// the document is called where it does not say so itself.
pub fn draft_document(library: &Library, source: &str, parts: &[String], name: &Words) -> Drafted {
    let mut references = library.references();
    let kept = kept_cases(library.root(), &references);
    references.keep(kept);
    let mut drafter = Drafter {
        library,
        flattening: Flattening::new(&references),
        draft: Draft::default(),
        made: FastMap::default(),
        aliases: Vec::new(),
        tags: IndexMap::new(),
        waiting: VecDeque::new(),
        names: component_names(library),
        heirs: FastMap::default(),
        bases: Vec::new(),
    };
    drafter.find_heirs();
    let wanted = api::wanted(library, parts, name, &references);
    let mut problems: Vec<Problem> = Vec::new();
    for (path, fault) in &library.faults {
        let mut problem = Problem::warning(fault.message.clone(), Spot::Path(path.clone()));
        problem.help.clone_from(&fault.help);
        problems.push(problem);
    }
    let Wanted { roots, title, operations, sent, read, unread, missing } = wanted;
    if let Some((part, Fault { message, place: _, help })) = missing {
        let spot = Spot::Path(if part.is_empty() { source.to_owned() } else { format!("{source}#{part}") });
        let problem = Problem::error(message, spot);
        problems.push(match help {
            Some(help) => problem.with_help(help),
            None => problem,
        });
    }
    let mut roots: Vec<DraftRoot> = roots
        .into_iter()
        .map(|(name, schema)| DraftRoot { name, node: drafter.place(&Spec::One(schema)) })
        .collect();
    let mut bodies: Vec<SentBody> = Vec::new();
    for Sent { schema, is_update, is_inline } in sent {
        bodies.push(SentBody { node: drafter.place(&Spec::One(schema)), is_update, is_inline });
    }
    let read: Vec<DraftId> = read.into_iter().map(|schema| drafter.place(&Spec::One(schema))).collect();
    let mut carried: Vec<(Operation, [Vec<CarriedNode>; 2])> = Vec::with_capacity(operations.len());
    for Described { operation, takes, gives } in operations {
        let placed = [takes, gives].map(|all| all.into_iter().map(|one| drafter.carried(one)).collect());
        carried.push((operation, placed));
    }
    drafter.fill_all();
    drafter.apply_tags();
    drafter.tell_bases();
    drafter.resolve_aliases();
    let forms = tell_apart(&mut drafter.draft, &mut roots, &bodies, read);
    let operations = carried.into_iter().map(|(operation, [takes, gives])| {
        let [takes, gives] =
            [takes, gives].map(|all| all.into_iter().map(|one| one.in_form(&forms)).collect());
        Operation { takes, gives, ..operation }
    });
    let operations = operations.collect();
    endless::cut(&mut drafter.draft);
    problems.extend(drafter.problems(source));
    problems.extend(unread.into_iter().map(|(media, (count, at))| {
        let more = if count > 1 { format!(" ({count} times, the first one here)") } else { String::new() };
        let message = format!("what is in `{media}` makes no types{more}");
        Problem::warning(message, Spot::Path(format!("{source}#{at}")))
    }));
    Drafted { draft: drafter.draft, roots, title, operations, problems }
}

/// Something that an operation takes or gives, by the position of its schema.
struct CarriedNode {
    what: String,
    node: Option<DraftId>,
    /// Whether it is a body that is sent, and whether that changes what is there.
    sent: Option<bool>,
}

impl CarriedNode {
    /// What is sent of it, where that is another thing.
    fn in_form(self, forms: &FastMap<(DraftId, bool), DraftId>) -> Carried {
        let Self { what, node, sent } = self;
        let form = node.zip(sent).and_then(|at| forms.get(&at).copied());
        Carried { what, node: form.or(node) }
    }
}

/// The components of a document, or its definitions.
fn components(root: &Value) -> impl Iterator<Item = &Value> {
    let held = root.pointer("/components/schemas").or_else(|| root.pointer("/definitions"));
    let held = held.or_else(|| root.pointer("/$defs"));
    held.and_then(Value::as_object).into_iter().flat_map(Object::values)
}

/// The components that are cases of a union and yet only refer to another one: its heirs, and what it lists.
fn kept_cases<'d>(root: &'d Value, references: &References<'d>) -> Vec<&'d Value> {
    let mut kept = Vec::new();
    for schema in components(root) {
        // An heir that adds nothing.
        if schema.get("allOf").is_some()
            && references.bases(schema).iter().any(|base| base.get("discriminator").is_some())
        {
            kept.push(schema);
        }
        if schema.get("discriminator").is_some() {
            let listed = ["oneOf", "anyOf"].iter().filter_map(|key| schema.get(key)?.as_array()).flatten();
            let cases = listed.filter_map(|part| references.follow(part).ok());
            kept.extend(cases.filter(|case| case.get("allOf").is_some()));
        }
    }
    kept
}

/// The names of components, by where they stand.
fn component_names(library: &Library) -> FastMap<*const Value, String> {
    let mut names = FastMap::default();
    for (at, (file, document)) in library.documents().enumerate() {
        for holder in ["/components/schemas", "/definitions", "/$defs"] {
            let held = document.pointer(holder).and_then(Value::as_object);
            for (name, schema) in held.into_iter().flatten() {
                names.insert(std::ptr::from_ref(schema), name.to_owned());
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
    draft: Draft,
    made: FastMap<Key, DraftId>,
    /// Nodes that are what another node is, though null may stand there.
    aliases: Vec<(DraftId, DraftId)>,
    /// The tag of each record that is a union's case.
    tags: IndexMap<DraftId, (String, String)>,
    waiting: VecDeque<(DraftId, Spec<'d>)>,
    names: FastMap<*const Value, String>,
    /// What schemas extend.
    bases: Vec<(DraftId, &'d Value)>,
    /// The components that extend one with a discriminator.
    heirs: FastMap<*const Value, Vec<&'d Value>>,
}

/// What a spec is made of: schemas by where they are.
#[derive(PartialEq, Eq, Hash)]
enum Key {
    One(*const Value),
    Bare(*const Value),
    All(Vec<Key>),
    Any(Vec<Key>),
}

/// A case of a union: the tag's value in it, and its schema.
type TaggedSpec<'d> = (String, Spec<'d>);

/// What a schema turns out to be.
enum Made {
    Kind(DraftKind, bool),
    SameAs(DraftId, bool),
}

impl<'d> Drafter<'_, 'd> {
    /// Finds the components that extend one with a discriminator, directly or through others.
    fn find_heirs(&mut self) {
        for schema in components(self.library.root()) {
            for base in self.flattening.references.bases(schema) {
                if base.get("discriminator").is_some()
                    && base.get("oneOf").is_none()
                    && base.get("anyOf").is_none()
                {
                    self.heirs.entry(std::ptr::from_ref(base)).or_default().push(schema);
                }
            }
        }
    }

    /// The name of a component, from where it stands or from where a reference leads.
    fn name_of(&self, schema: &'d Value) -> Option<Words> {
        if let Some(name) = self.names.get(&std::ptr::from_ref(schema)) {
            return Some(component_name(name));
        }
        let title = schema.said(Word::Title).and_then(Value::as_str)?;
        let words = Words::split(title);
        let is_name = title.len() <= 40 && words.count() <= 4 && !title.contains(['.', ':', '/']);
        is_name.then_some(words)
    }

    /// The node of a schema, made where it is not there yet.
    fn carried(&mut self, CarriedSchema { what, schema, sent }: CarriedSchema<'d>) -> CarriedNode {
        CarriedNode { what, node: schema.map(|schema| self.place(&Spec::One(schema))), sent }
    }

    fn place(&mut self, spec: &Spec<'d>) -> DraftId {
        let resolved = self.flattening.resolve(spec);
        self.place_resolved(resolved)
    }

    fn place_resolved(&mut self, resolved: Resolved<'d>) -> DraftId {
        let (spec, is_nullable) = match resolved {
            Resolved::Plain { scalar, is_nullable } => {
                return self.draft.add(DraftKind::Scalar(scalar), is_nullable);
            }
            Resolved::Schema { spec, is_nullable } => (spec, is_nullable),
        };
        let key = match spec {
            Spec::One(schema) => Key::One(std::ptr::from_ref(schema)),
            _ => self.key(&spec),
        };
        let id = match self.made.entry(key) {
            Entry::Occupied(made) => *made.get(),
            Entry::Vacant(free) => {
                // Before its parts: a schema may contain itself.
                let id = *free.insert(self.draft.reserve());
                // Not at once: schemas refer to each other in chains of any length.
                self.waiting.push_back((id, spec));
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

    /// Tells specs apart by what they are made of.
    fn key(&self, spec: &Spec<'d>) -> Key {
        let several = |specs: &[Spec<'d>]| specs.iter().map(|spec| self.key(spec)).collect();
        match spec {
            Spec::One(schema) => {
                Key::One(std::ptr::from_ref(self.flattening.references.target(schema).unwrap_or(schema)))
            }
            Spec::Bare(schema) => Key::Bare(std::ptr::from_ref(*schema)),
            Spec::All(specs) => Key::All(several(specs)),
            Spec::Any(specs) => Key::Any(several(specs)),
        }
    }

    /// Fills what waits, and what waits because of that.
    fn fill_all(&mut self) {
        /// How many are resolved at a time: enough for all cores, and no more than caches hold.
        const SEVERAL: usize = 256;
        while !self.waiting.is_empty() {
            let several = self.waiting.len().min(SEVERAL);
            let several: Vec<(DraftId, Spec<'d>)> = self.waiting.drain(..several).collect();
            let references = self.flattening.references;
            let resolved = each(several, |(id, spec)| {
                let mut flattening = Flattening::new(references);
                let mut flat = flattening.flat(&spec);
                for (key, property) in &mut flat.properties {
                    property.declared = Some(flattening.declare(key, &property.spec));
                }
                (id, spec, flat, flattening)
            });
            for (id, spec, flat, flattening) in resolved {
                self.flattening.add_found(flattening);
                self.fill(id, &spec, flat);
            }
        }
    }

    fn fill(&mut self, id: DraftId, spec: &Spec<'d>, flat: Flat<'d>) {
        let at = spec.first();
        // Without its alternatives it is what it is by itself.
        let heirs = if matches!(spec, Spec::Bare(_)) { None } else { self.heirs_of(at) };
        let made = heirs.unwrap_or_else(|| self.made(flat, at));
        match made {
            Made::Kind(kind, is_nullable) => {
                // Of a list or a map, what is in it is called after it.
                let has_name = !matches!(
                    kind,
                    DraftKind::Any | DraftKind::Scalar(_) | DraftKind::Constant(_) | DraftKind::Tuple(_)
                );
                self.draft.set(id, kind, is_nullable);
                if has_name && let Spec::One(schema) = spec {
                    let name = self.name_of(schema);
                    // What is said of a part that has no name stands at the field.
                    let docs = if name.is_some() { docs_of(schema) } else { Docs::default() };
                    self.draft.describe(id, name, docs);
                    self.bases.extend(self.base_of(schema).map(|base| (id, base)));
                }
            }
            Made::SameAs(other, is_nullable) => {
                self.draft.set(id, DraftKind::Any, is_nullable);
                self.aliases.push((id, other));
            }
        }
    }

    /// What a schema extends: the first part of its `allOf` that is a reference.
    fn base_of(&self, schema: &'d Value) -> Option<&'d Value> {
        schema.said(Word::AllOf)?.as_array()?.iter().find_map(|part| self.flattening.references.target(part))
    }

    /// Says which schemas extend one that has a place of its own.
    fn tell_bases(&mut self) {
        for (id, base) in &self.bases {
            if let Some(base) = self.made.get(&Key::One(std::ptr::from_ref(*base))) {
                self.draft.extend(*id, *base);
            }
        }
    }

    /// A component with a discriminator that others extend is one of them.
    fn heirs_of(&mut self, at: &'d Value) -> Option<Made> {
        let heirs = self.heirs.get(&std::ptr::from_ref(at))?.clone();
        let discriminator = at.get("discriminator");
        let tag = discriminator_key(discriminator)?;
        let mut cases: Vec<TaggedSpec<'d>> = Vec::new();
        // The base is a case of its own where the mapping says so.
        if discriminator.is_some_and(|said| said.get("mapping").is_some()) {
            let own = self.mapped(discriminator, &Spec::One(at))?;
            cases.extend(own.by_mapping.into_iter().map(|tag| (tag, Spec::Bare(at))));
        }
        for spec in heirs.into_iter().map(Spec::One) {
            let tags = self.mapped(discriminator, &spec)?.or_name();
            cases.extend(tags.into_iter().map(|tag| (tag, spec.clone())));
        }
        Some(Made::Kind(self.tagged(tag, cases), false))
    }

    fn made(&mut self, mut flat: Flat<'d>, at: &'d Value) -> Made {
        if let Some(values) = &flat.values {
            return self.of_values(values, flat.is_nullable, at);
        }
        if !flat.alternatives.is_empty() {
            return self.of_alternatives(flat, at);
        }
        let is_nullable = flat.is_nullable;
        let kinds: Vec<Kind> = flat.likely_kinds().iter().collect();
        let kind = match kinds[..] {
            // Anything is null as well.
            [] => DraftKind::Any,
            [kind] => self.of_kind(kind, &mut flat, at),
            _ => {
                let cases = kinds.iter().map(|kind| {
                    let kind = self.of_kind(*kind, &mut flat, at);
                    DraftCase { tag: None, node: self.draft.add(kind, false) }
                });
                let cases = cases.collect();
                DraftKind::Union { tag: None, cases }
            }
        };
        Made::Kind(kind, is_nullable)
    }

    fn of_kind(&mut self, kind: Kind, flat: &mut Flat<'d>, at: &'d Value) -> DraftKind {
        match kind {
            Kind::List => self.list(flat, at),
            Kind::Object => self.object(flat, at),
            scalar => self.flattening.scalar(scalar, flat, at).map_or(DraftKind::Any, DraftKind::Scalar),
        }
    }

    fn list(&mut self, flat: &Flat<'d>, at: &'d Value) -> DraftKind {
        if !flat.prefix.is_empty() {
            let are_alike = flat.prefix.iter().all(|item| *item == flat.prefix[0]);
            // What may follow one value is not that value again.
            let is_open = flat.items.is_none() && flat.prefix[0].get("const").is_none();
            if are_alike && (flat.is_closed || is_open) {
                if !flat.is_closed {
                    self.flattening.note(at, NoteKind::OpenTuple);
                }
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

    fn object(&mut self, flat: &mut Flat<'d>, at: &'d Value) -> DraftKind {
        if flat.properties.is_empty() {
            let values = self.other_values(flat, at).unwrap_or_else(|| self.draft.add(DraftKind::Any, false));
            return DraftKind::Map(values);
        }
        // That there may be others is so in every object; it is worth keeping them where something is said of them.
        let extras = self.other_values(flat, at);
        let mut fields = Vec::with_capacity(flat.properties.len());
        for (key, Property { spec, declared }) in &mut flat.properties {
            let declared = declared.take().unwrap_or_else(|| self.flattening.declare(key, spec));
            let Declared { wire, name, default, docs, direction, encoding, resolved } = declared;
            let is_required = flat.required.contains(*key);
            let presence = if is_required { Presence::Always } else { Presence::Sometimes };
            fields.push(DraftField {
                wire,
                name,
                presence,
                node: self.place_resolved(resolved),
                encoding,
                default,
                docs,
                direction,
            });
        }
        let unsaid = flat.required.iter().filter(|key| !flat.properties.contains_key(**key));
        for key in unsaid {
            let node = self.draft.add(DraftKind::Any, false);
            fields.push(DraftField::new(WireName::new(*key), Presence::Always, node));
        }
        DraftKind::Record { fields, extras }
    }

    /// What stands under keys that are no properties, where something is said of it.
    fn other_values(&mut self, flat: &Flat<'d>, at: &'d Value) -> Option<DraftId> {
        let says_something = |schema: &&'d Value| schema.as_object().is_some_and(|said| !said.is_empty());
        let patterns = flat.patterns.iter().copied().filter(says_something);
        let others = flat.additional.filter(says_something);
        let values: Vec<Spec<'d>> = patterns.chain(others).map(Spec::One).collect();
        let id = match values.as_slice() {
            // Said in so many words, it is not what every schema allows anyway.
            [] if flat.additional.is_some_and(Value::is_true) && !flat.properties.is_empty() => {
                self.draft.add(DraftKind::Any, false)
            }
            [] => return None,
            [one] => self.place(one),
            _ => self.place(&Spec::Any(values)),
        };
        if !flat.patterns.is_empty() && flat.additional.is_none_or(Value::is_true) {
            self.flattening.note(at, NoteKind::OtherKeys);
        }
        Some(id)
    }

    /// Makes each alias what it stands for.
    fn resolve_aliases(&mut self) {
        let to: FastMap<DraftId, DraftId> = self.aliases.iter().copied().collect();
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
                if let Some(base) = node.base {
                    self.draft.extend(alias, base);
                }
            }
        }
    }

    /// What was noted, once per kind; what cannot be followed, each: in the order of the document.
    fn problems(&self, source: &str) -> Vec<Problem> {
        let Flattening { broken, notes, references: _, followed: _ } = &self.flattening;
        let noted = broken.iter().map(|(at, _)| *at).chain(notes.iter().map(|note| note.at));
        let places = pointers_of(self.library.root(), noted);
        // What stands in another file comes last.
        let place = |at: &Value| places.get(&std::ptr::from_ref(at));
        let order = |at: &Value| place(at).map_or(usize::MAX, |place| place.order);
        let mut told: Vec<(&Value, String, Option<&String>)> = Vec::new();
        let mut broken: Vec<_> = broken.iter().collect();
        broken.sort_by_key(|(at, _)| order(at));
        let mut seen = HashSet::new();
        for (at, Fault { message, place: _, help }) in broken {
            if seen.insert(message) {
                told.push((at, format!("{message}: it becomes any value"), help.as_ref()));
            }
        }
        let mut notes: Vec<_> = notes.iter().collect();
        notes.sort_by_key(|note| order(note.at));
        let mut counts: IndexMap<NoteKind, (usize, &Value)> = IndexMap::new();
        let mut seen = FastSet::default();
        for note in notes {
            if seen.insert((note.what, std::ptr::from_ref(note.at))) {
                counts.entry(note.what).or_insert((0, note.at)).0 += 1;
            }
        }
        for (what, (count, at)) in counts {
            let more =
                if count > 1 { format!(" ({count} times, the first one here)") } else { String::new() };
            told.push((at, what.text() + &more, None));
        }
        told.sort_by_key(|(at, ..)| order(at));
        let problem = |(at, message, help): (&Value, String, Option<&String>)| {
            let pointer = place(at).map_or("", |place| &place.pointer);
            let problem = Problem::warning(message, Spot::Path(format!("{source}#{pointer}")));
            match help {
                Some(help) => problem.with_help(help.clone()),
                None => problem,
            }
        };
        told.into_iter().map(problem).collect()
    }
}

fn discriminator_key(discriminator: Option<&Value>) -> Option<&str> {
    match discriminator? {
        Value::String(key) => Some(key),
        other => other.get("propertyName")?.as_str(),
    }
}

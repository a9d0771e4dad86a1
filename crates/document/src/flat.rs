//! Flat schemas: what a schema says when its references and `allOf` are followed.

mod conditions;
mod keywords;
pub(crate) mod resolve;

use foldhash::HashSet as FastSet;
use foldhash::fast::RandomState;
use indexmap::{IndexMap, IndexSet};
use jar_sprout_model::{Kind, KindSet};

use crate::docs::says;
use crate::fault::Fault;
use crate::flat::conditions::Condition;
use crate::library::References;
use crate::text::{Role, Text, Word};
use crate::value::Value;
use keywords::Keywords;
use resolve::Declared;

/// A schema, or several taken together.
#[derive(Debug, Clone)]
pub(crate) enum Spec<'d> {
    /// As it is written.
    One(&'d Value),
    /// The same without its alternatives.
    Bare(&'d Value),
    /// Everything that these say holds.
    All(Vec<Spec<'d>>),
    /// One of these holds.
    Any(Vec<Spec<'d>>),
}

impl<'d> Spec<'d> {
    /// The first schema that it is made of.
    pub(crate) fn first(&self) -> &'d Value {
        match self {
            Self::One(schema) | Self::Bare(schema) => schema,
            Self::All(specs) | Self::Any(specs) => specs.last().map_or(&Value::Null, Spec::first),
        }
    }
}

/// Two specs that are made of the very same schemas.
impl PartialEq for Spec<'_> {
    fn eq(&self, other: &Self) -> bool {
        match (self, other) {
            (Self::One(a), Self::One(b)) | (Self::Bare(a), Self::Bare(b)) => std::ptr::eq(*a, *b),
            (Self::All(a), Self::All(b)) | (Self::Any(a), Self::Any(b)) => a == b,
            (Self::One(_) | Self::Bare(_) | Self::All(_) | Self::Any(_), _) => false,
        }
    }
}

/// The most specs within specs, however a document puts them together.
const DEEPEST_SPEC: usize = 8;

/// A property of a schema.
#[derive(Debug, Clone)]
pub(crate) struct Property<'d> {
    pub(crate) spec: Spec<'d>,
    /// What it says, if that was found already.
    pub(crate) declared: Option<Declared<'d>>,
}

impl<'d> From<Spec<'d>> for Property<'d> {
    fn from(spec: Spec<'d>) -> Self {
        Self { spec, declared: None }
    }
}

/// The properties of a schema by key, in their order.
pub(crate) type Properties<'d> = IndexMap<&'d str, Property<'d>, RandomState>;

/// What a schema says.
#[derive(Debug, Clone, Default)]
pub(crate) struct Flat<'d> {
    /// The kinds that `type` allows; none where it does not say.
    pub(crate) kinds: Option<KindSet>,
    pub(crate) is_nullable: bool,
    /// Whether those that say a type allow null, and whether one that says none does.
    pub(crate) typed_null: Option<bool>,
    pub(crate) untyped_null: bool,
    pub(crate) properties: Properties<'d>,
    pub(crate) required: IndexSet<&'d str, RandomState>,
    pub(crate) additional: Option<&'d Value>,
    pub(crate) patterns: Vec<&'d Value>,
    pub(crate) items: Option<Spec<'d>>,
    pub(crate) prefix: Vec<&'d Value>,
    /// Whether no item may follow those of the prefix.
    pub(crate) is_closed: bool,
    pub(crate) values: Option<Vec<&'d Value>>,
    pub(crate) format: Option<&'d str>,
    pub(crate) least: Option<f64>,
    pub(crate) greatest: Option<f64>,
    /// `oneOf` and `anyOf`, a group each.
    pub(crate) alternatives: Vec<Vec<Spec<'d>>>,
    /// What holds under a condition, until it is known what all of them are.
    pub(crate) conditions: Vec<Condition<'d>>,
    pub(crate) discriminator: Option<&'d Value>,
}

/// Something in a document that is not as it could be.
#[derive(Debug, Clone, Copy)]
pub(crate) struct Note<'d> {
    pub(crate) at: &'d Value,
    pub(crate) what: NoteKind,
}

#[derive(Debug, Clone, Copy, PartialEq, Eq, Hash)]
pub(crate) enum NoteKind {
    /// A keyword that does not become a part of a model.
    Keyword(Word),
    Circular,
    TooDeep,
    Never,
    ManyGroups,
    MergedObjects,
    MixedTuple,
    OpenTuple,
    OtherKeys,
    UnlikeValues,
    DeepValues,
    Format,
    Condition,
}

impl NoteKind {
    pub(crate) fn text(self) -> String {
        match self {
            Self::Keyword(keyword) => {
                let keyword = keyword.as_str();
                format!("`{keyword}` does not decide a type, and is left to a validator")
            }
            Self::Circular => "references and `allOf` lead from here back to here".to_owned(),
            Self::TooDeep => {
                format!("`allOf` and references of more than {DEEPEST} levels: what is deeper is left out")
            }
            Self::Never => "nothing can fit this schema".to_owned(),
            Self::ManyGroups => "`oneOf` beside `anyOf`: the second one is left to a validator".to_owned(),
            Self::MergedObjects => {
                "nothing tells these alternatives apart: they become one type with all their properties"
                    .to_owned()
            }
            Self::MixedTuple => {
                "items of unlike types, as many as there may be: they become any values".to_owned()
            }
            Self::OpenTuple => {
                "what follows the items that are described may be anything, and is taken for more of the same"
                    .to_owned()
            }
            Self::OtherKeys => {
                "a key that fits no pattern may hold anything, and is taken for one that fits".to_owned()
            }
            Self::UnlikeValues => {
                "the values of this `enum` are of unlike kinds: they become their kinds".to_owned()
            }
            Self::DeepValues => "a value with parts is no type: it becomes any value".to_owned(),
            Self::Condition => {
                "what a property is under a condition is taken for what it is wherever it is there".to_owned()
            }
            Self::Format => "a time of day with an offset, or a duration, stays text".to_owned(),
        }
    }
}

/// The schemas that led to one by reference and `allOf`, the nearest first.
struct Route<'w> {
    at: &'w Value,
    before: Option<&'w Route<'w>>,
    length: usize,
}

impl Route<'_> {
    fn iter(&self) -> impl Iterator<Item = &Route<'_>> {
        std::iter::successors(Some(self), |way| way.before)
    }
}

/// The most schemas that follow each other by reference and `allOf`: each is a call within the one before.
const DEEPEST: usize = 256;

/// Whether a key says something about a schema, not what fits it.
fn is_annotation(key: &Text) -> bool {
    match key {
        Text::Known(word) => matches!(word.role(), Role::Annotation | Role::Address),
        Text::Other(key) => key.starts_with("x-"),
    }
}

/// The object with the reference, where a schema is a reference and no more; a lone one in `allOf` counts, and what says
/// nothing of the type beside it does not.
pub(crate) fn pure_reference(schema: &Value) -> Option<&Value> {
    let entries = schema.as_object()?.entries().iter();
    let mut telling = entries.filter(|(key, value)| !is_annotation(key) && !says_object(key, value));
    let ((key, value), None) = (telling.next()?, telling.next()) else { return None };
    match key.word()? {
        Word::AllOf => {
            let mut parts = value.as_array()?.iter().filter(|part| !is_trivial(part));
            let (part, None) = (parts.next()?, parts.next()) else { return None };
            pure_reference(part)
        }
        Word::OneOf | Word::AnyOf => match value.as_array()? {
            [one] => pure_reference(one),
            _ => None,
        },
        word => (word.is_reference() && value.is_string()).then_some(schema),
    }
}

/// Whether a schema says nothing of a type but that it is of objects, or that null may stand there.
pub(crate) fn is_trivial(schema: &Value) -> bool {
    schema.as_object().is_some_and(|object| {
        object.entries().iter().all(|(key, value)| is_annotation(key) || says_object(key, value))
    })
}

/// `type: object`, which what has properties says anyway.
fn says_object(key: &Text, value: &Value) -> bool {
    let is_object = |value: &Value| matches!(value.as_str(), Some("object" | "null"));
    key.word() == Some(Word::Type)
        && match value {
            Value::Array(several) => {
                several.iter().any(|one| one.as_str() == Some("object")) && several.iter().all(is_object)
            }
            one => one.as_str() == Some("object"),
        }
}

/// The parts of a schema's `allOf` that say nothing of its type.
pub(crate) fn trivial_parts(schema: &Value) -> impl Iterator<Item = &Value> {
    let parts = schema.said(Word::AllOf).and_then(Value::as_array);
    parts.into_iter().flatten().filter(|part| is_trivial(part))
}

impl<'d> References<'d> {
    /// What a schema extends, and what that extends: the parts of its `allOf` that are references.
    pub(crate) fn bases(&self, schema: &'d Value) -> Vec<&'d Value> {
        const MOST: usize = 64;
        let mut bases: Vec<&'d Value> = Vec::new();
        let mut open = vec![schema];
        while let Some(schema) = open.pop()
            && bases.len() < MOST
        {
            for part in schema.said(Word::AllOf).and_then(Value::as_array).into_iter().flatten() {
                if let Some(base) = self.target(part)
                    && !std::ptr::eq(base, schema)
                    && !bases.iter().any(|known| std::ptr::eq(*known, base))
                {
                    bases.push(base);
                    open.push(base);
                }
            }
        }
        // What leads back to itself extends nothing.
        bases.retain(|base| !std::ptr::eq(*base, schema));
        bases
    }

    /// What a schema that is a reference and no more leads to, however many steps it takes.
    pub(crate) fn target(&self, schema: &'d Value) -> Option<&'d Value> {
        if self.is_kept(schema) {
            return None;
        }
        let mut target = self.follow(pure_reference(schema)?).ok()?;
        for _ in 0..64 {
            match pure_reference(target).filter(|_| !self.is_kept(target)).map(|holder| self.follow(holder)) {
                Some(Ok(next)) if !std::ptr::eq(next, target) => target = next,
                Some(_) | None => break,
            }
        }
        Some(target)
    }
}

/// Whether a schema says of itself that null fits it, or a part of it that says no more.
pub(crate) fn says_nullable(schema: &Value) -> bool {
    let says_so = |schema: &Value| says(schema, Word::Nullable) || says(schema, Word::XNullable);
    says_so(schema) || trivial_parts(schema).any(says_so)
}

/// Whether a schema says a kind of value, and nothing that has parts, a name or few values.
pub(crate) fn is_plain(schema: &Value) -> bool {
    let has_parts = |word: Word| matches!(word.role(), Role::Reference | Role::Structure);
    let is_scalar = |word: Word| !matches!(word, Word::Object | Word::Array);
    let ty = schema.said(Word::Type);
    let is_scalar = matches!(ty, Some(Value::String(Text::Known(word))) if is_scalar(*word));
    is_scalar && schema.as_object().is_some_and(|object| !object.words().any(|(word, _)| has_parts(word)))
}

/// Follows references and `allOf`.
pub(crate) struct Flattening<'r, 'd> {
    pub(crate) references: &'r References<'d>,
    pub(crate) notes: Vec<Note<'d>>,
    pub(crate) broken: Vec<(&'d Value, Fault)>,
    /// Where the schemas stand that were followed for the spec at hand: what leads to one twice says nothing new.
    pub(crate) followed: FastSet<usize>,
}

impl<'r, 'd> Flattening<'r, 'd> {
    pub(crate) fn new(references: &'r References<'d>) -> Self {
        Self { references, notes: Vec::new(), broken: Vec::new(), followed: FastSet::default() }
    }

    /// A spec in the one form that all have who say the same: references followed, what all say in one list, nothing
    /// twice, and one alone not in a list. So schemas that lead back to themselves have an end.
    pub(crate) fn canonical(&mut self, spec: &Spec<'d>) -> Spec<'d> {
        self.canonical_within(spec, 0)
    }

    fn canonical_within(&mut self, spec: &Spec<'d>, depth: usize) -> Spec<'d> {
        if depth > DEEPEST_SPEC {
            self.note(spec.first(), NoteKind::TooDeep);
            return Spec::One(&Value::Null);
        }
        match spec {
            // That null may stand there is said beside the reference.
            Spec::One(schema) if !says_nullable(schema) => {
                Spec::One(self.references.target(schema).unwrap_or(schema))
            }
            Spec::One(_) | Spec::Bare(_) => spec.clone(),
            Spec::All(specs) => {
                let mut parts = Vec::new();
                for spec in specs {
                    match self.canonical_within(spec, depth + 1) {
                        Spec::All(inner) => inner.into_iter().for_each(|spec| add_last(&mut parts, spec)),
                        spec => add_last(&mut parts, spec),
                    }
                }
                self.drop_wider(&mut parts);
                alone_or(parts, Spec::All)
            }
            Spec::Any(specs) => {
                let mut parts = Vec::new();
                for spec in specs {
                    let spec = self.canonical_within(spec, depth + 1);
                    if !parts.contains(&spec) {
                        parts.push(spec);
                    }
                }
                alone_or(parts, Spec::Any)
            }
        }
    }

    /// Takes out of several schemas what says nothing beside the others, and what one of the others extends.
    fn drop_wider(&self, parts: &mut Vec<Spec<'d>>) {
        let is_telling = |spec: &Spec<'_>| !matches!(spec, Spec::One(schema) if is_trivial(schema));
        if parts.iter().any(is_telling) {
            parts.retain(is_telling);
        }
        let bases: Vec<&Value> = parts
            .iter()
            .filter_map(|spec| match spec {
                Spec::One(schema) => Some(*schema),
                Spec::Bare(_) | Spec::All(_) | Spec::Any(_) => None,
            })
            .flat_map(|schema| self.references.bases(schema))
            .collect();
        parts.retain(|spec| {
            !matches!(spec, Spec::One(schema) if bases.iter().any(|base| std::ptr::eq(*base, *schema)))
        });
    }

    /// Takes over what another has found.
    pub(crate) fn add_found(&mut self, other: Self) {
        let Self { references: _, notes, broken, followed: _ } = other;
        self.notes.extend(notes);
        self.broken.extend(broken);
    }

    pub(crate) fn flat(&mut self, spec: &Spec<'d>) -> Flat<'d> {
        let mut flat = Flat::default();
        self.followed.clear();
        self.add(spec, &mut flat, None);
        self.add_conditions(&mut flat);
        flat
    }

    fn add(&mut self, spec: &Spec<'d>, flat: &mut Flat<'d>, way: Option<&Route<'_>>) {
        match spec {
            Spec::One(value) => self.add_one(value, flat, way),
            Spec::Bare(value) => {
                let known = flat.alternatives.len();
                self.add_one(value, flat, way);
                // Those that are alternatives are none of what is bare.
                if self.cases_of_conditions(flat).is_some() {
                    flat.conditions.clear();
                }
                flat.alternatives.truncate(known);
                flat.discriminator = None;
            }
            Spec::All(specs) => specs.iter().for_each(|spec| self.add(spec, flat, way)),
            Spec::Any(specs) => flat.alternatives.push(specs.clone()),
        }
    }

    fn add_one(&mut self, value: &'d Value, flat: &mut Flat<'d>, way: Option<&Route<'_>>) {
        let object = match value {
            Value::Object(object) => object,
            Value::Bool(false) => return self.note(value, NoteKind::Never),
            _ => return,
        };
        let leads_here = |way: &Route<'_>| std::ptr::eq(way.at, value);
        if way.is_some_and(|way| way.iter().any(leads_here)) {
            return self.note(value, NoteKind::Circular);
        }
        if way.is_some() && !self.followed.insert(std::ptr::from_ref(value).addr()) {
            return;
        }
        let here = Route { at: value, before: way, length: way.map_or(1, |way| way.length + 1) };
        if here.length > DEEPEST {
            return self.note(value, NoteKind::TooDeep);
        }
        let way = Some(&here);
        let keywords = Keywords::of(object);
        if keywords.has_reference {
            match self.references.follow(value) {
                Ok(target) => self.add_one(target, flat, way),
                Err(fault) => self.broken.push((value, fault)),
            }
        }
        self.add_keywords(value, &keywords, flat, way);
    }

    fn add_keywords(
        &mut self,
        value: &'d Value,
        keywords: &Keywords<'d>,
        flat: &mut Flat<'d>,
        way: Option<&Route<'_>>,
    ) {
        for untyped in &keywords.untyped {
            self.note(value, NoteKind::Keyword(*untyped));
        }
        if !keywords.add_types(flat) {
            self.note(value, NoteKind::Never);
        }
        keywords.add_object(flat);
        keywords.add_list(flat);
        let number = |value: Option<&Value>| value?.as_number()?.as_f64();
        let Keywords { minimum, above, maximum, below, .. } = *keywords;
        flat.least = flat.least.or_else(|| number(minimum).or_else(|| number(above)));
        flat.greatest = flat.greatest.or_else(|| number(maximum).or_else(|| number(below)));
        flat.format = flat.format.or_else(|| keywords.format?.as_str());
        let values = match (keywords.constant, keywords.values.and_then(Value::as_array)) {
            (Some(one), _) => Some(vec![one]),
            (None, Some(values)) => Some(values.iter().collect()),
            (None, None) => None,
        };
        if let Some(values) = values {
            let values = match flat.values.take() {
                // What both say is what fits.
                Some(known) => known.into_iter().filter(|value| values.contains(value)).collect(),
                None => values,
            };
            if values.is_empty() {
                self.note(value, NoteKind::Never);
            }
            flat.values = Some(values);
        }
        flat.discriminator = flat.discriminator.or(keywords.discriminator);
        for part in keywords.all_of.and_then(Value::as_array).into_iter().flatten() {
            self.add_one(part, flat, way);
        }
        flat.conditions.extend(&keywords.conditions);
        for cases in [keywords.one_of, keywords.any_of].into_iter().flatten() {
            if let Some(cases) = cases.as_array().filter(|cases| !cases.is_empty()) {
                flat.alternatives.push(cases.iter().map(Spec::One).collect());
            }
        }
    }

    pub(crate) fn note(&mut self, at: &'d Value, what: NoteKind) {
        self.notes.push(Note { at, what });
    }
}

/// Adds a spec where it counts: what is said last stands above what is said before.
fn add_last<'d>(parts: &mut Vec<Spec<'d>>, spec: Spec<'d>) {
    parts.retain(|known| *known != spec);
    parts.push(spec);
}

fn alone_or<'d>(mut parts: Vec<Spec<'d>>, several: fn(Vec<Spec<'d>>) -> Spec<'d>) -> Spec<'d> {
    match (parts.len(), parts.pop()) {
        (1, Some(one)) => one,
        (_, last) => several(parts.into_iter().chain(last).collect()),
    }
}

impl Flat<'_> {
    /// The kinds that fit: those that are said, else those that the keywords speak of.
    pub(crate) fn likely_kinds(&self) -> KindSet {
        if let Some(mut kinds) = self.kinds {
            if kinds.has(Kind::Number) {
                kinds.remove(Kind::Integer);
            }
            return kinds;
        }
        let mut kinds = KindSet::default();
        if !self.properties.is_empty()
            || self.additional.is_some_and(Value::is_object)
            || !self.patterns.is_empty()
        {
            kinds.insert(Kind::Object);
        }
        if self.items.is_some() || !self.prefix.is_empty() {
            kinds.insert(Kind::List);
        }
        if kinds.is_empty() {
            match self.format {
                Some("int32" | "int64") => kinds.insert(Kind::Integer),
                Some("float" | "double") => kinds.insert(Kind::Number),
                Some(_) => kinds.insert(Kind::Text),
                None => {}
            }
        }
        kinds
    }

    /// Whether it says anything of what fits, its alternatives aside.
    pub(crate) fn has_substance(&self) -> bool {
        self.values.is_some()
            || !self.likely_kinds().is_empty()
            || !self.properties.is_empty()
            || self.items.is_some()
    }
}

//! The library: a document with all that its references lead to.

use std::borrow::Cow;
use std::collections::{BTreeMap, HashMap, HashSet};
use std::sync::Arc;

use foldhash::fast::RandomState;
use foldhash::{HashMap as FastMap, HashSet as FastSet};
use url::Url;

use crate::definitions::{definitions, says_itself};
use crate::fault::Fault;
use crate::parameters::query_objects;
use crate::pointers::escaped;
use crate::read::{DocumentKind, read_document, read_value, recognise};
use crate::text::Word;
use crate::value::{ByPlace, Object, Value};

/// Hands over the files that a document refers to.
pub trait Files {
    /// The text of a file, by its path from the folder of the document; it never leads out of what is allowed.
    ///
    /// # Errors
    /// Why there is none, and the way out.
    fn read(&self, path: &str) -> Result<String, Fault>;
}

/// No files: whatever a document refers to beside itself is not there.
pub struct NoFiles;

impl Files for NoFiles {
    fn read(&self, path: &str) -> Result<String, Fault> {
        Err(Fault::new(format!("no {path}")))
    }
}

/// A document and the files it refers to, all references indexed.
pub struct Library {
    /// What the first document is.
    pub kind: DocumentKind,
    /// The first one is the document itself.
    documents: Vec<Held>,
    /// Which of them holds what the operations of an API take in their queries.
    queries: Option<usize>,
    /// What is wrong with references, in the order they were met.
    pub faults: Vec<(String, Fault)>,
}

struct Held {
    /// What messages call it.
    name: String,
    url: Url,
    value: Value,
}

/// What a path must not have in it as it is, to be a reference.
const ODD: &percent_encoding::AsciiSet = &percent_encoding::CONTROLS
    .add(b' ')
    .add(b'"')
    .add(b'#')
    .add(b'%')
    .add(b'<')
    .add(b'>')
    .add(b'?')
    .add(b':');

/// The scheme of documents that have no address of their own.
const SCHEME: &str = "jar:";

/// Where they stand: so deep that a reference which leads out of the folder is seen to do so.
const HOME: &str = "jar:///a/b/c/d/e/f/g/h/i/j/k/l/m/n/o/p/";

impl Library {
    /// Reads a document, and the files it refers to. `name` is its path from the folder in which files are read.
    ///
    /// # Errors
    /// A text that cannot be read, or is no document.
    pub fn gather(name: &str, text: &str, files: &dyn Files) -> Result<Self, Fault> {
        let (value, leads_elsewhere) = read_document(text)?;
        let Some(kind) = recognise(&value).or_else(|| value.is_boolean().then_some(DocumentKind::Schema))
        else {
            let message = "neither a JSON Schema nor an API description".to_owned();
            return Err(Fault::new(message));
        };
        let mut library = Self::alone(name, kind, value);
        if leads_elsewhere {
            library.load_all(files);
        }
        library.add_queries();
        Ok(library)
    }

    /// Reads several schemas as one document that defines them all, each under the name of its file. They stand under
    /// their paths from the folder in which files are read.
    ///
    /// # Errors
    /// The path of a text that cannot be read, or is no schema, and why.
    pub fn gather_schemas(schemas: &[(String, String)], files: &dyn Files) -> Result<Self, (String, Fault)> {
        let mut defined = serde_json::Map::new();
        let mut held = Vec::with_capacity(schemas.len());
        for (path, text) in schemas {
            let (value, _) = read_document(text).map_err(|fault| (path.clone(), fault))?;
            if recognise(&value) != Some(DocumentKind::Schema) {
                let fault = Fault::new("one document at a time, or several JSON Schemas");
                let help = "a model comes from one document; several models make a jar".to_owned();
                return Err((path.clone(), fault.with_way_out(Some(help))));
            }
            let address = percent_encoding::utf8_percent_encode(path, ODD).to_string();
            let mut define = |name: &str, reference: String| {
                // Of two that have one name, the second has its folder's before it.
                let name = if defined.contains_key(name) { path.replace('/', " ") } else { name.to_owned() };
                defined.insert(name, serde_json::json!({"$ref": reference}));
            };
            if says_itself(&value) {
                define(path.rsplit('/').next().unwrap_or(path), address.clone());
            } else {
                for (holder, name, _) in definitions(&value) {
                    define(name, format!("{address}#/{holder}/{}", escaped(name)));
                }
            }
            held.push((path.clone(), address, value));
        }
        let whole: Value = serde_json::json!({"$defs": defined}).into();
        let mut library = Self::alone(".schemas", DocumentKind::Schema, whole);
        let home = library.documents[0].url.clone();
        let held = held
            .into_iter()
            .filter_map(|(name, address, value)| Some(Held { name, url: home.join(&address).ok()?, value }));
        library.documents.extend(held);
        library.load_all(files);
        Ok(library)
    }

    /// The library of a value that was read already.
    pub fn of(name: &str, kind: DocumentKind, value: impl Into<Value>, files: &dyn Files) -> Self {
        let mut library = Self::alone(name, kind, value.into());
        library.load_all(files);
        library.add_queries();
        library
    }

    fn alone(name: &str, kind: DocumentKind, value: Value) -> Self {
        let mut url = Url::parse(HOME).expect("a fixed address");
        if let Ok(mut parts) = url.path_segments_mut() {
            parts.pop_if_empty().extend(name.split('/').filter(|part| !part.is_empty()));
        }
        let documents = vec![Held { name: name.to_owned(), url, value }];
        Self { kind, documents, queries: None, faults: Vec::new() }
    }

    /// Adds what an API's operations take in their queries, as a document of its own.
    fn add_queries(&mut self) {
        if self.kind == DocumentKind::Schema {
            return;
        }
        let Held { name, url, value } = &self.documents[0];
        let own = Url::parse(&format!("{SCHEME}queries")).ok();
        if let Some((value, own)) = query_objects(value, url.as_str()).zip(own) {
            self.queries = Some(self.documents.len());
            self.documents.push(Held { name: name.clone(), url: own, value });
        }
    }

    /// By the JSON Pointers to operations, the objects of what they take in their queries.
    pub(crate) fn queries(&self) -> Option<&Object> {
        self.documents[self.queries?].value.as_object()
    }

    /// Reads what references lead to, and what the references in that lead to.
    fn load_all(&mut self, files: &dyn Files) {
        let mut next = 0;
        let mut asked = HashSet::new();
        while next < self.documents.len() {
            for (target, is_sure) in self.files_referred_to(next) {
                if asked.insert(target.clone()) {
                    self.load(&target, is_sure, files);
                }
            }
            next += 1;
        }
    }

    /// The files that a document leads to, and whether it says so by where they are; what has an `$id` elsewhere may lead
    /// to files beside it all the same.
    fn files_referred_to(&self, document: usize) -> BTreeMap<String, bool> {
        let Held { url, value, .. } = &self.documents[document];
        let Index { ids, references } = Index::of(value, url);
        let mut own: HashSet<&str> = ids.iter().map(|(address, ..)| &**address).collect();
        own.insert(url.as_str());
        let mut files: BTreeMap<String, bool> = BTreeMap::new();
        for Reference { base, written, .. } in references {
            // A fragment alone leads to no other file.
            if written.starts_with('#') {
                continue;
            }
            let Ok(target) = base.join(written) else { continue };
            let beside = beside(value, url, &base, written);
            for (target, is_sure) in
                [target].into_iter().map(|one| (one, true)).chain(beside.map(|one| (one, false)))
            {
                let target = without_fragment(target.as_str());
                if target.starts_with(HOME) && !own.contains(target) {
                    *files.entry(target.to_owned()).or_default() |= is_sure;
                }
            }
        }
        files
    }

    fn load(&mut self, target: &str, is_sure: bool, files: &dyn Files) {
        let path = target.strip_prefix(HOME).unwrap_or(target);
        let path = percent_decoded(path).into_owned();
        if self.documents.iter().any(|held| held.url.as_str() == target) {
            return;
        }
        let read = files.read(&path);
        match read.and_then(|text| read_value(&text)) {
            Ok(value) => {
                let url = Url::parse(target).expect("it was joined from one");
                self.documents.push(Held { name: path, url, value });
            }
            Err(fault) if is_sure => self.faults.push((path, fault)),
            // Nobody said that there is one.
            Err(_) => {}
        }
    }

    /// The document itself.
    pub(crate) fn root(&self) -> &Value {
        &self.documents[0].value
    }

    /// All documents: what they are called, and what stands in them.
    pub(crate) fn documents(&self) -> impl Iterator<Item = (&str, &Value)> {
        self.documents.iter().map(|held| (held.name.as_str(), &held.value))
    }

    /// Where every reference leads.
    pub(crate) fn references(&self) -> References<'_> {
        let mut all_ids = HashMap::new();
        let mut all_references = Vec::new();
        for Held { url, value, name: _ } in &self.documents {
            let Index { ids, references } = Index::of(value, url);
            for (address, holder) in ids {
                all_ids.entry(address).or_insert(holder);
            }
            let file = Arc::new(url.clone());
            all_references.extend(references.into_iter().map(|reference| (reference, Arc::clone(&file))));
        }
        let documents = self.documents.iter().map(|held| (held.url.as_str().to_owned(), &held.value));
        let (targets, known) = (FastMap::default(), FastMap::default());
        let kept = FastSet::default();
        let mut references =
            References { ids: all_ids, documents: documents.collect(), targets, known, kept };
        references.follow_pointers(all_references);
        references
    }
}

/// Where a file may be that a reference leads to, beside the document that it stands in, whatever that says of where it
/// is: by its own place, and by the way from its `$id` to what is meant.
fn beside<'u>(
    document: &Value,
    file: &'u Url,
    base: &Url,
    written: &str,
) -> impl Iterator<Item = Url> + use<'u> {
    let own_id = document.said(Word::Id).or_else(|| document.said(Word::OldId)).and_then(Value::as_str);
    let own_id = own_id.and_then(|id| file.join(id).ok()).filter(|id| !id.as_str().starts_with(SCHEME));
    let by_id = own_id.and_then(|id| file.join(&id.make_relative(&base.join(written).ok()?)?).ok());
    let by_place = file.join(written).ok();
    [by_place, by_id].into_iter().flatten().filter(|target| target.as_str().starts_with(HOME))
}

fn without_fragment(target: &str) -> &str {
    target.split('#').next().unwrap_or_default()
}

/// A reference.
struct Reference<'d> {
    /// The object that holds it.
    holder: &'d Value,
    /// What it is relative to.
    base: Arc<Url>,
    written: &'d str,
}

/// What the objects of a document say of where they are, and of where others are.
struct Index<'d> {
    /// Addresses, by `$id` and by anchor: those of shallow objects first.
    ids: Vec<(String, &'d Value)>,
    references: Vec<Reference<'d>>,
}

impl<'d> Index<'d> {
    fn of(document: &'d Value, url: &Url) -> Self {
        let mut walk = Walk { ids: Vec::new(), references: Vec::new(), depth: 0 };
        walk.visit(document, &Arc::new(url.clone()), Keys::Words);
        let Walk { mut ids, references, depth: _ } = walk;
        ids.sort_by_key(|(depth, ..)| *depth);
        Self { ids: ids.into_iter().map(|(_, address, holder)| (address, holder)).collect(), references }
    }
}

struct Walk<'d> {
    /// With the depth of their holders.
    ids: Vec<(usize, String, &'d Value)>,
    references: Vec<Reference<'d>>,
    depth: usize,
}

impl<'d> Walk<'d> {
    /// Looks at a value and all in it but for what is data; parsers bound how deep it is.
    fn visit(&mut self, holder: &'d Value, base: &Arc<Url>, keys: Keys) {
        self.depth += 1;
        match holder {
            Value::Array(items) => items.iter().for_each(|item| self.visit(item, base, Keys::Words)),
            Value::Object(object) => {
                let said = if keys == Keys::Names { Identity::default() } else { Identity::of(object) };
                let own = said.id.and_then(|id| base.join(id).ok()).map(Arc::new);
                let base = own.as_ref().unwrap_or(base);
                if own.is_some() {
                    self.ids.push((self.depth, base.as_str().trim_end_matches('#').to_owned(), holder));
                }
                for anchor in said.anchors.into_iter().flatten() {
                    let address = format!("{}#{anchor}", without_fragment(base.as_str()));
                    self.ids.push((self.depth, address, holder));
                }
                let reference =
                    said.reference.map(|written| Reference { holder, base: Arc::clone(base), written });
                self.references.extend(reference);
                for (key, inner) in object {
                    // An example says nothing of a schema, whatever it looks like.
                    if let Some(keys) = Keys::below(keys, key) {
                        self.visit(inner, base, keys);
                    }
                }
            }
            Value::Null | Value::Bool(_) | Value::Number(_) | Value::String(_) => {}
        }
        self.depth -= 1;
    }
}

/// What the keys of an object are.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
enum Keys {
    /// `type`, `$ref`: what the standards say.
    Words,
    /// Names that somebody gave: those of properties, of components, of statuses.
    Names,
}

impl Keys {
    /// What the keys are of what stands under a key; none where that is data.
    fn below(self, key: &str) -> Option<Self> {
        const HOLDERS: &[&str] = &[
            "properties",
            "patternProperties",
            "definitions",
            "$defs",
            "dependentSchemas",
            "dependencies",
            "schemas",
            "responses",
            "parameters",
            "requestBodies",
            "headers",
            "callbacks",
            "paths",
            "webhooks",
            "pathItems",
            "links",
            "content",
        ];
        const DATA: &[&str] = &["example", "examples", "default", "enum", "const", "mapping"];
        match self {
            Self::Names => Some(Self::Words),
            Self::Words if DATA.contains(&key) => None,
            Self::Words if HOLDERS.contains(&key) => Some(Self::Names),
            Self::Words => Some(Self::Words),
        }
    }
}

/// What an object says of where it is, and of where another is.
#[derive(Default)]
struct Identity<'d> {
    id: Option<&'d str>,
    /// `$anchor` and `$dynamicAnchor`.
    anchors: [Option<&'d str>; 2],
    reference: Option<&'d str>,
}

impl<'d> Identity<'d> {
    fn of(object: &'d Object) -> Self {
        let mut said = Self::default();
        for (word, value) in object.words() {
            let Some(text) = value.as_str() else { continue };
            match word {
                Word::Id => said.id = Some(text),
                // Draft 4 says `id`, which elsewhere is a key like any other.
                Word::OldId if is_address(text) => said.id = said.id.or(Some(text)),
                Word::Anchor => said.anchors[0] = Some(text),
                Word::DynamicAnchor => said.anchors[1] = Some(text),
                word if word.is_reference() => said.reference = said.reference.or(Some(text)),
                _ => {}
            }
        }
        said
    }
}

fn is_address(id: &str) -> bool {
    id.contains("://") || id.starts_with('#') || id.ends_with(".json")
}

/// Where every reference leads.
pub(crate) struct References<'d> {
    /// Schemas by their absolute address: by `$id`, and by anchor behind it.
    ids: HashMap<String, &'d Value>,
    /// Whole documents by their address.
    documents: HashMap<String, &'d Value>,
    /// By object with any other reference, that, and the file it stands in.
    targets: FastMap<ByPlace<'d>, (Reference<'d>, Arc<Url>)>,
    /// By object with a reference, what that leads to, where a pointer into what is around it says so.
    known: FastMap<ByPlace<'d>, &'d Value>,
    /// Schemas that are types of their own though they only refer to another one: cases of a union.
    kept: FastSet<ByPlace<'d>>,
}

impl<'d> References<'d> {
    /// Follows those of the form `#/…`, as nearly all are; keeps the others as they stand.
    fn follow_pointers(&mut self, references: Vec<(Reference<'d>, Arc<Url>)>) {
        let mut found: HashMap<(*const Url, &str), Option<&'d Value>, RandomState> = HashMap::default();
        self.known.reserve(references.len());
        for (reference, file) in references {
            let Reference { holder, base, written } = &reference;
            let place = ByPlace(holder);
            let mut follow = |pointer| {
                *found.entry((Arc::as_ptr(base), pointer)).or_insert_with(|| {
                    self.whole(without_fragment(base.as_str()))?.pointer(&percent_decoded(pointer))
                })
            };
            let pointer = written.strip_prefix('#').filter(|pointer| pointer.starts_with('/'));
            match pointer.and_then(&mut follow) {
                Some(target) => drop(self.known.insert(place, target)),
                None => drop(self.targets.insert(place, (reference, file))),
            }
        }
    }

    /// Says that schemas are types of their own, whatever they refer to.
    pub(crate) fn keep(&mut self, schemas: impl IntoIterator<Item = &'d Value>) {
        self.kept.extend(schemas.into_iter().map(ByPlace));
    }

    /// Whether a schema is a type of its own, whatever it refers to.
    pub(crate) fn is_kept(&self, schema: &'d Value) -> bool {
        !self.kept.is_empty() && self.kept.contains(&ByPlace(schema))
    }

    /// The schema or document of an address without a fragment.
    fn whole(&self, address: &str) -> Option<&'d Value> {
        self.ids.get(address).or_else(|| self.documents.get(address)).copied()
    }

    /// What the reference in an object leads to; if to nothing, why.
    pub(crate) fn follow(&self, holder: &'d Value) -> Result<&'d Value, Fault> {
        let place = ByPlace(holder);
        if let Some(target) = self.known.get(&place) {
            return Ok(target);
        }
        let reference = self.targets.get(&place);
        let written = reference.map_or("", |(reference, _)| reference.written);
        let joined = |base: &Url| base.join(written).ok();
        let Some(target) = reference.and_then(|(reference, _)| joined(&reference.base)) else {
            return Err(Fault::new(format!("`{written}` is no reference")));
        };
        let target = target.as_str();
        let (address, fragment) = target.split_once('#').unwrap_or((target, ""));
        let fragment = percent_decoded(fragment);
        let whole = self.ids.get(target).copied().or_else(|| self.whole(address));
        // A file beside the one that it stands in, whatever that says of where it is.
        let beside = || {
            let (reference, file) = reference?;
            let document = self.documents.get(file.as_str())?;
            let mut targets = beside(document, file, &reference.base, written);
            targets.find_map(|target| self.whole(without_fragment(target.as_str())))
        };
        let Some(whole) = whole.or_else(beside) else {
            if address.starts_with(SCHEME) && !address.starts_with(HOME) {
                let help = "name a folder above both: `--refs-from FOLDER`".to_owned();
                let message =
                    format!("`{written}` leads out of the folder of the document, where nothing is read");
                return Err(Fault::new(message).with_way_out(Some(help)));
            }
            if address.starts_with("http") {
                let help = "save what it leads to beside the document, and refer to the file".to_owned();
                let message = format!("`{written}` is on the network, where nothing is fetched from");
                return Err(Fault::new(message).with_way_out(Some(help)));
            }
            return Err(Fault::new(format!("`{written}` leads to no file")));
        };
        let anchor = self.ids.get(&format!("{address}#{fragment}")).copied();
        let found =
            if fragment.is_empty() { Some(whole) } else { anchor.or_else(|| whole.pointer(&fragment)) };
        found.ok_or_else(|| {
            Fault::new(format!("`{written}` leads nowhere")).with_way_out(nearest_pointer(whole, &fragment))
        })
    }
}

/// What there is where a pointer goes wrong.
fn nearest_pointer(whole: &Value, fragment: &str) -> Option<String> {
    let (parent, _) = fragment.rsplit_once('/')?;
    let keys: Vec<&str> = whole.pointer(parent)?.as_object()?.keys().take(8).collect();
    (!keys.is_empty()).then(|| format!("`#{parent}` has {}", keys.join(", ")))
}

fn percent_decoded(text: &str) -> Cow<'_, str> {
    percent_encoding::percent_decode_str(text).decode_utf8_lossy()
}

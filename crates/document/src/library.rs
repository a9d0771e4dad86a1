//! The library: a document with all that its references lead to.

use std::collections::{HashMap, HashSet, VecDeque};
use std::rc::Rc;

use serde_json::Value;
use url::Url;

use crate::read::{Fault, Kind, read_value, recognise};

/// Hands over the files that a document refers to.
pub trait Files {
    /// The text of a file, by its path from the folder of the document; it never leads out of what is allowed.
    ///
    /// # Errors
    /// Why there is none, and the way out.
    fn read(&self, path: &str) -> Result<String, (String, Option<String>)>;
}

/// No files: whatever a document refers to beside itself is not there.
pub struct NoFiles;

impl Files for NoFiles {
    fn read(&self, path: &str) -> Result<String, (String, Option<String>)> {
        Err((format!("no {path}"), None))
    }
}

/// The keys whose text refers to another schema.
pub(crate) const REFERENCES: &[&str] = &["$ref", "$dynamicRef", "$recursiveRef"];

/// A document and the files it refers to, all references indexed.
pub struct Library {
    /// What the first document is.
    pub kind: Kind,
    /// The first one is the document itself.
    documents: Vec<Held>,
    /// What is wrong with references, in the order they were met.
    pub faults: Vec<(String, Fault)>,
}

struct Held {
    /// What messages call it.
    name: String,
    url: Url,
    value: Value,
}

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
        let value = read_value(text)?;
        let Some(kind) = recognise(&value).or_else(|| value.is_boolean().then_some(Kind::Schema)) else {
            let message = "neither a JSON Schema nor an API description".to_owned();
            return Err(Fault { message, place: None, help: None });
        };
        Ok(Self::of(name, kind, value, files))
    }

    /// The library of a value that was read already.
    pub fn of(name: &str, kind: Kind, value: Value, files: &dyn Files) -> Self {
        let mut url = Url::parse(HOME).expect("a fixed address");
        if let Ok(mut parts) = url.path_segments_mut() {
            parts.pop_if_empty().extend(name.split('/').filter(|part| !part.is_empty()));
        }
        let mut library =
            Self { kind, documents: vec![Held { name: name.to_owned(), url, value }], faults: Vec::new() };
        let mut next = 0;
        let mut asked = HashSet::new();
        while next < library.documents.len() {
            for target in library.files_referred_to(next) {
                if asked.insert(target.clone()) {
                    library.load(&target, files);
                }
            }
            next += 1;
        }
        library
    }

    fn files_referred_to(&self, document: usize) -> Vec<String> {
        let Held { url, value, .. } = &self.documents[document];
        let mut index = Index::default();
        index.walk(value, url);
        let own: HashSet<&str> = index.ids.keys().map(String::as_str).collect();
        let mut targets: Vec<String> =
            index.targets.values().map(|target| without_fragment(target)).collect();
        targets.retain(|target| {
            target.starts_with(HOME) && !own.contains(target.as_str()) && target != url.as_str()
        });
        targets.sort();
        targets.dedup();
        targets
    }

    fn load(&mut self, target: &str, files: &dyn Files) {
        let path = target.strip_prefix(HOME).unwrap_or(target);
        let path = percent_decoded(path);
        if self.documents.iter().any(|held| held.url.as_str() == target) {
            return;
        }
        let read = files.read(&path).map_err(|(message, help)| Fault { message, place: None, help });
        match read.and_then(|text| read_value(&text)) {
            Ok(value) => {
                let url = Url::parse(target).expect("it was joined from one");
                self.documents.push(Held { name: path, url, value });
            }
            Err(fault) => self.faults.push((path, fault)),
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
        let mut index = Index::default();
        let mut documents = HashMap::new();
        for Held { url, value, name: _ } in &self.documents {
            index.walk(value, url);
            documents.insert(url.as_str().to_owned(), value);
        }
        References { index, documents }
    }
}

fn without_fragment(target: &str) -> String {
    target.split('#').next().unwrap_or_default().to_owned()
}

/// All identifiers and references of some documents.
#[derive(Default)]
struct Index<'d> {
    /// Schemas by their absolute address: by `$id`, and by anchor behind it.
    ids: HashMap<String, &'d Value>,
    /// The absolute address that each object with a reference means.
    targets: HashMap<*const Value, String>,
}

impl<'d> Index<'d> {
    fn walk(&mut self, value: &'d Value, base: &Url) {
        let mut queue = VecDeque::from([(value, Rc::new(base.clone()))]);
        while let Some((value, base)) = queue.pop_front() {
            match value {
                Value::Array(items) => queue.extend(items.iter().map(|item| (item, Rc::clone(&base)))),
                Value::Object(object) => {
                    let text = |key: &str| object.get(key).and_then(Value::as_str);
                    // Draft 4 says `id`, which elsewhere is a key like any other.
                    let id = text("$id").or_else(|| text("id").filter(|id| is_address(id)));
                    let base = match id.and_then(|id| base.join(id).ok()) {
                        Some(own) => {
                            self.ids.entry(own.as_str().trim_end_matches('#').to_owned()).or_insert(value);
                            Rc::new(own)
                        }
                        None => base,
                    };
                    for anchor in ["$anchor", "$dynamicAnchor"].into_iter().filter_map(text) {
                        let address = format!("{}#{anchor}", without_fragment(base.as_str()));
                        self.ids.entry(address).or_insert(value);
                    }
                    let reference = REFERENCES.iter().find_map(|key| text(key));
                    if let Some(target) = reference.and_then(|reference| base.join(reference).ok()) {
                        self.targets.insert(std::ptr::from_ref(value), target.into());
                    }
                    queue.extend(object.values().map(|inner| (inner, Rc::clone(&base))));
                }
                Value::Null | Value::Bool(_) | Value::Number(_) | Value::String(_) => {}
            }
        }
    }
}

fn is_address(id: &str) -> bool {
    id.contains("://") || id.starts_with('#') || id.ends_with(".json")
}

/// Where every reference leads.
pub(crate) struct References<'d> {
    index: Index<'d>,
    /// Whole documents by their address.
    documents: HashMap<String, &'d Value>,
}

impl<'d> References<'d> {
    /// What the reference in an object leads to; if to nothing, why.
    pub(crate) fn follow(&self, holder: &'d Value) -> Result<&'d Value, (String, Option<String>)> {
        let written = REFERENCES.iter().find_map(|key| holder.get(*key)?.as_str()).unwrap_or_default();
        let Some(target) = self.index.targets.get(&std::ptr::from_ref(holder)) else {
            return Err((format!("`{written}` is no reference"), None));
        };
        let (address, fragment) = target.split_once('#').unwrap_or((target, ""));
        let fragment = percent_decoded(fragment);
        let whole = self
            .index
            .ids
            .get(target)
            .or_else(|| self.index.ids.get(address))
            .copied()
            .or_else(|| self.documents.get(address).copied());
        let Some(whole) = whole else {
            if address.starts_with(SCHEME) && !address.starts_with(HOME) {
                let help = "name a folder above both: `--refs-from FOLDER`".to_owned();
                let message =
                    format!("`{written}` leads out of the folder of the document, where nothing is read");
                return Err((message, Some(help)));
            }
            if address.starts_with("http") {
                let help = "save what it leads to beside the document, and refer to the file".to_owned();
                return Err((
                    format!("`{written}` is on the network, where nothing is fetched from"),
                    Some(help),
                ));
            }
            return Err((format!("`{written}` leads to no file"), None));
        };
        let anchor = self.index.ids.get(&format!("{address}#{fragment}")).copied();
        let found =
            if fragment.is_empty() { Some(whole) } else { anchor.or_else(|| whole.pointer(&fragment)) };
        found.ok_or_else(|| (format!("`{written}` leads nowhere"), nearest_pointer(whole, &fragment)))
    }
}

/// What there is where a pointer goes wrong.
fn nearest_pointer(whole: &Value, fragment: &str) -> Option<String> {
    let (parent, _) = fragment.rsplit_once('/')?;
    let keys: Vec<&str> = whole.pointer(parent)?.as_object()?.keys().map(String::as_str).take(8).collect();
    (!keys.is_empty()).then(|| format!("`#{parent}` has {}", keys.join(", ")))
}

fn percent_decoded(text: &str) -> String {
    percent_encoding::percent_decode_str(text).decode_utf8_lossy().into_owned()
}

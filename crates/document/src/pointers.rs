//! Pointers: where in a document its parts stand (RFC 6901).

use foldhash::{HashMap as FastMap, HashSet as FastSet};

use crate::value::Value;

/// Where a part of a document stands.
pub(crate) struct Pointer {
    /// A number that grows from place to place as the document is read.
    pub(crate) order: usize,
    /// The JSON Pointer (RFC 6901) to it.
    pub(crate) pointer: String,
}

/// Where parts of a document stand, all found in one walk.
pub(crate) fn pointers_of<'d>(
    whole: &'d Value,
    parts: impl Iterator<Item = &'d Value>,
) -> FastMap<*const Value, Pointer> {
    let mut walk = Walk {
        wanted: parts.map(std::ptr::from_ref).collect(),
        found: FastMap::default(),
        pointer: String::new(),
    };
    walk.visit(whole);
    walk.found
}

struct Walk {
    wanted: FastSet<*const Value>,
    found: FastMap<*const Value, Pointer>,
    /// Where the visited part stands.
    pointer: String,
}

/// A key as a step of a JSON Pointer (RFC 6901, section 3).
pub(crate) fn escaped(key: &str) -> String {
    key.replace('~', "~0").replace('/', "~1")
}

impl Walk {
    /// Looks for what is wanted in a value; parsers bound how deep it is.
    fn visit(&mut self, value: &Value) {
        if self.found.len() == self.wanted.len() {
            return;
        }
        let address = std::ptr::from_ref(value);
        if self.wanted.contains(&address) {
            self.found.insert(address, Pointer { order: self.found.len(), pointer: self.pointer.clone() });
        }
        match value {
            Value::Object(object) => {
                for (key, value) in object {
                    self.enter(&escaped(key), value);
                }
            }
            Value::Array(items) => {
                for (at, value) in items.iter().enumerate() {
                    self.enter(&at.to_string(), value);
                }
            }
            Value::Null | Value::Bool(_) | Value::Number(_) | Value::String(_) => {}
        }
    }

    fn enter(&mut self, step: &str, value: &Value) {
        let length = self.pointer.len();
        self.pointer.push('/');
        self.pointer.push_str(step);
        self.visit(value);
        self.pointer.truncate(length);
    }
}

#[cfg(test)]
mod tests {
    use serde_json::json;

    use super::*;

    #[test]
    fn parts_are_found_where_they_stand() {
        let whole = Value::from(json!({"a/b": [{"~": 1}], "c": {"d": null}}));
        let pointers = ["", "/a~1b/0/~0", "/c/d", "/a~1b/0"];
        let parts: Vec<&Value> = pointers.iter().map(|pointer| whole.pointer(pointer).unwrap()).collect();
        let elsewhere = Value::from(json!(1));
        let found = pointers_of(&whole, parts.iter().copied().chain([&elsewhere]));
        assert_eq!(found.len(), pointers.len());
        let order = |at: usize| found[&std::ptr::from_ref(parts[at])].order;
        assert_eq!([0, 3, 1, 2].map(order), [0, 1, 2, 3], "as the document is read");
        for (part, pointer) in parts.iter().copied().zip(pointers) {
            assert_eq!(found[&std::ptr::from_ref(part)].pointer, pointer);
        }
    }
}

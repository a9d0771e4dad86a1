//! Lists a page at a time, in the envelope that the samples have.

use serde_json::{Map, Value};

/// A list that is served in pages.
#[derive(Debug, Clone, PartialEq)]
pub(crate) struct Pages {
    /// The object around the list, and the key that it stands under; none for a bare list.
    envelope: Option<(Map<String, Value>, String)>,
    items: Vec<Value>,
    /// How many items a page has unless somebody asks for others.
    size: usize,
}

/// One page.
#[derive(Debug, Clone, PartialEq)]
pub(crate) struct Page {
    pub(crate) body: Value,
    /// The number of the next one, where there is one.
    pub(crate) next: Option<usize>,
}

impl Pages {
    /// The items of all samples, each once, in the envelope of the first; none where the samples are no lists. `name` is
    /// what the list is called.
    pub(crate) fn of(samples: &[Value], name: &str) -> Option<Self> {
        let mut pages: Option<Self> = None;
        for sample in samples {
            let (envelope, list) = match sample {
                Value::Array(items) => (None, items),
                Value::Object(object) => {
                    let key = list_of(object, name)?;
                    (Some((object.clone(), key.to_owned())), object[key].as_array()?)
                }
                _ => return None,
            };
            let first = pages.get_or_insert_with(|| Self { envelope, items: Vec::new(), size: list.len() });
            for item in list {
                if !first.items.iter().any(|known| is_same(known, item)) {
                    first.items.push(item.clone());
                }
            }
        }
        pages.filter(|pages| pages.items.iter().all(Value::is_object))
    }

    /// The page of this number, from 1; `address` makes the address of another one.
    pub(crate) fn page(&self, number: usize, size: Option<usize>, address: &dyn Fn(usize) -> String) -> Page {
        let size = size.unwrap_or(self.size).max(1);
        let count = self.items.len().div_ceil(size).max(1);
        let start = number.saturating_sub(1).saturating_mul(size).min(self.items.len());
        let items = self.items[start..(start.saturating_add(size)).min(self.items.len())].to_vec();
        let next = (number < count).then_some(number + 1);
        let Some((around, list)) = &self.envelope else { return Page { body: Value::from(items), next } };
        let link = |to: Option<usize>| to.map_or(Value::Null, |number| Value::from(address(number)));
        let previous = number.checked_sub(1).filter(|number| (1..=count).contains(number));
        let mut body = around.clone();
        for (key, value) in &mut body {
            let is_number = value.is_number();
            let is_address = value.is_null() || value.is_string();
            match key.as_str() {
                key if key == list => *value = Value::from(items.clone()),
                "count" | "total" | "total_count" | "totalCount" if is_number => {
                    *value = self.items.len().into();
                }
                "pages" | "total_pages" | "totalPages" | "page_count" if is_number => *value = count.into(),
                "page" | "current_page" if is_number => *value = number.into(),
                "per_page" | "page_size" | "pageSize" | "limit" if is_number => *value = size.into(),
                "next" if is_address => *value = link(next),
                "previous" | "prev" if is_address => *value = link(previous),
                _ => {}
            }
        }
        Page { body: Value::Object(body), next }
    }

    /// How many items there are.
    pub(crate) fn len(&self) -> usize {
        self.items.len()
    }
}

/// The key of the one list of objects in an envelope: an object that is about its list, as its other keys say, or the
/// list's own.
fn list_of<'o>(object: &'o Map<String, Value>, name: &str) -> Option<&'o str> {
    const SIGNS: &[&str] =
        &["count", "total", "total_count", "totalCount", "page", "next", "previous", "prev", "cursor"];
    const LISTS: &[&str] = &["data", "items", "results", "records", "content", "entries", "values"];
    let is_list = |value: &Value| value.as_array().is_some_and(|items| items.iter().all(Value::is_object));
    let mut lists = object.iter().filter(|(_, value)| is_list(value));
    let (key, _) = lists.next()?;
    let is_about_it =
        key == name || LISTS.contains(&key.as_str()) || SIGNS.iter().any(|sign| object.contains_key(*sign));
    (lists.next().is_none() && is_about_it).then_some(key)
}

/// Whether two items are one thing: by their ids, where they have some.
fn is_same(one: &Value, other: &Value) -> bool {
    match (one.get("id"), other.get("id")) {
        (Some(one), Some(other)) => one == other,
        _ => one == other,
    }
}

#[cfg(test)]
mod tests {
    use serde_json::json;

    use super::*;

    fn address(number: usize) -> String {
        format!("/hives?page={number}")
    }

    #[test]
    fn an_envelope_tells_of_its_pages() {
        let sample = |ids: &[u64]| {
            json!({"count": 212, "page": 1, "next": "x", "previous": null, "note": "n",
            "hives": ids.iter().map(|id| json!({"id": id})).collect::<Vec<_>>()})
        };
        let pages = Pages::of(&[sample(&[1, 2]), sample(&[2, 3])], "hives").expect("they are lists");
        let first = pages.page(1, None, &address);
        let expected = json!({"count": 3, "page": 1, "next": "/hives?page=2", "previous": null, "note": "n",
            "hives": [{"id": 1}, {"id": 2}]});
        assert_eq!(first, Page { body: expected, next: Some(2) });
        let last = pages.page(2, None, &address);
        assert_eq!(last.body["hives"], json!([{"id": 3}]));
        assert_eq!(
            (last.body["next"].clone(), last.body["previous"].clone()),
            (json!(null), json!("/hives?page=1"))
        );
        let beyond = pages.page(9, None, &address);
        assert_eq!((beyond.body["hives"].clone(), beyond.next), (json!([]), None));
        assert_eq!(pages.page(1, Some(50), &address).next, None);
    }

    #[test]
    fn a_bare_list_has_pages() {
        let pages = Pages::of(&[json!([{"id": 1}, {"id": 2}, {"id": 3}])], "hives").expect("it is a list");
        assert_eq!(pages.page(2, Some(2), &address), Page { body: json!([{"id": 3}]), next: None });
    }

    #[test]
    fn what_is_no_list_has_none() {
        for sample in [
            json!({"id": 17, "queen": {}, "location": {}, "history": [{"at": 1}]}),
            json!({"a": [{"b": 1}], "c": [{"d": 1}], "next": null}),
            json!({"station": "FNM-02", "warnings": [{"at": 1}]}),
            json!([1, 2]),
            json!("text"),
        ] {
            assert_eq!(Pages::of(&[sample], "hives"), None);
        }
    }
}

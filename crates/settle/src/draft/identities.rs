//! Identities: texts that somebody or something is called by, however often they come again.

use std::collections::BTreeSet;

use jar_sprout_model::Words;
use jar_sprout_shape::Form;

use crate::draft::graph::{Graph, NodeId};

/// Whether a key says that somebody is called so. A name in code is a leak as well.
pub(crate) fn is_called(key: &Words) -> bool {
    const CALLED: &[&str] = &[
        "author",
        "authors",
        "owner",
        "owners",
        "user",
        "users",
        "username",
        "usernames",
        "login",
        "logins",
        "keeper",
        "keepers",
        "member",
        "members",
        "creator",
        "editor",
        "assignee",
        "reviewer",
        "reporter",
        "sender",
        "recipient",
        "customer",
        "contact",
        "person",
        "people",
        "handle",
        "nick",
        "nickname",
        "surname",
        "firstname",
        "lastname",
        "fullname",
        "by",
        "mail",
        "email",
    ];
    // An `event_name` is a kind of event, and a `name` alone is one.
    const NAMES: &[&str] = &["name", "names", "title", "titles"];
    CALLED.contains(&key.last()) || (key.count() == 1 && NAMES.contains(&key.last()))
}

/// The positions of texts that come again in a link beside them: `{"handle": "ada", "url": "https://…/ada"}`.
pub(crate) fn identities(graph: &Graph, root: NodeId) -> BTreeSet<NodeId> {
    let mut found = BTreeSet::new();
    for id in graph.walk(root) {
        let Some(fields) = graph.node(id).fields() else { continue };
        let few = |node: NodeId| {
            let values = graph.node(node).few_texts()?;
            let texts = values.into_iter().map(|(text, _)| text.to_owned()).filter(|text| !text.is_empty());
            Some(texts.collect::<Vec<String>>())
        };
        let links: Vec<Vec<String>> = fields
            .values()
            .filter(|field| {
                let texts = graph.node(field.node).texts.as_ref();
                texts.is_some_and(|texts| texts.of_form(Form::Uri) * 2 > texts.tally.count)
            })
            .filter_map(|field| few(field.node))
            .collect();
        if links.is_empty() {
            continue;
        }
        for field in fields.values() {
            let Some(values) = few(field.node).filter(|values| values.len() >= 2) else { continue };
            let stands_in = |value: &String, links: &[String]| {
                links.iter().any(|link| link.split(['/', '?', '=', '&', '#']).any(|part| part == value))
            };
            let is_linked = |links: &Vec<String>| {
                let linked = values.iter().filter(|value| stands_in(value, links)).count();
                // A link to each: not one list of all that have the same kind.
                linked * 10 >= values.len() * 8 && links.len() >= values.len()
            };
            if links.iter().any(is_linked) {
                found.insert(graph.find(field.node));
            }
        }
    }
    found
}

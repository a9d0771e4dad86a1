//! What messages call the sources.

use jar_sprout_model::SourceId;

/// What a source is called in messages, by its id.
#[derive(Debug, Clone, Default)]
pub(crate) struct SourceNames(Vec<String>);

impl SourceNames {
    /// Names in the order of their ids.
    pub(crate) fn of(names: Vec<String>) -> Self {
        Self(names)
    }

    pub(crate) fn get(&self, id: SourceId) -> &str {
        self.0.get(id.0 as usize).map_or("the input", String::as_str)
    }

    pub(crate) fn len(&self) -> usize {
        self.0.len()
    }
}

//! Helper code that is like another but for some of its text.

/// The text with something else in place of a part of it.
///
/// # Panics
/// Where the text does not have that part: helper code is constant, and a test makes all of it.
#[track_caller]
pub(crate) fn swap(text: &str, part: &str, other: &str) -> String {
    assert!(text.contains(part), "helper code without {part:?}: {text}");
    text.replace(part, other)
}

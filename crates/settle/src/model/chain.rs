//! Chains: lists that grow at one end and share all that is before it.

use std::rc::Rc;

/// A list whose last item stands in front of a list that others may share.
#[derive(Debug, Clone)]
pub(crate) struct Chain<T>(Option<Rc<Link<T>>>);

#[derive(Debug)]
struct Link<T> {
    item: T,
    length: usize,
    before: Chain<T>,
}

impl<T> Chain<T> {
    /// No item.
    pub(crate) fn empty() -> Self {
        Self(None)
    }

    /// This chain with one more item.
    pub(crate) fn with(&self, item: T) -> Self {
        Self(Some(Rc::new(Link { item, length: self.len() + 1, before: Self(self.0.clone()) })))
    }

    /// This chain with another last item.
    pub(crate) fn with_last(&self, item: T) -> Self {
        match &self.0 {
            Some(link) => link.before.with(item),
            None => Self::empty(),
        }
    }

    pub(crate) fn last(&self) -> Option<&T> {
        self.iter().next()
    }

    pub(crate) fn len(&self) -> usize {
        self.0.as_ref().map_or(0, |link| link.length)
    }

    /// All items, the last one first.
    pub(crate) fn iter(&self) -> impl Iterator<Item = &T> {
        let mut next = self.0.as_deref();
        std::iter::from_fn(move || {
            let link = next?;
            next = link.before.0.as_deref();
            Some(&link.item)
        })
    }
}

impl<T> Drop for Chain<T> {
    /// One link after the other: a chain may be longer than calls go deep.
    fn drop(&mut self) {
        let mut next = self.0.take();
        while let Some(Ok(mut link)) = next.map(Rc::try_unwrap) {
            next = link.before.0.take();
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn chains_share_what_is_before() {
        let hive = Chain::empty().with("hive");
        let (queen, site) = (hive.with("queen"), hive.with("site"));
        assert_eq!(queen.iter().collect::<Vec<_>>(), [&"queen", &"hive"]);
        assert_eq!(site.with_last("place").iter().collect::<Vec<_>>(), [&"place", &"hive"]);
        assert_eq!((site.last(), site.len(), Chain::<u8>::empty().len()), (Some(&"site"), 2, 0));
    }

    #[test]
    fn the_longest_chain_is_dropped() {
        let chain = (0..1_000_000).fold(Chain::empty(), |chain, item| chain.with(item));
        assert_eq!(chain.len(), 1_000_000);
    }
}

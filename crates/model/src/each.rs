//! The same work for many things, on all cores.

use rayon::iter::{IntoParallelIterator, ParallelIterator};

/// What becomes of each, in their order; of many, on all cores.
pub fn each<T: Send, R: Send>(items: Vec<T>, make: impl Fn(T) -> R + Sync + Send) -> Vec<R> {
    /// From here on it is worth waking other threads.
    const MANY: usize = 200;
    if items.len() < MANY {
        items.into_iter().map(make).collect()
    } else {
        items.into_par_iter().map(make).collect()
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn few_and_many_stay_in_their_order() {
        for count in [0, 3, 1000] {
            assert_eq!(
                each((0..count).collect(), |item| item * 2),
                (0..count).map(|item| item * 2).collect::<Vec<_>>()
            );
        }
    }
}

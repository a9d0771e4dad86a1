//! Dominators in a graph: through which nodes every way to another leads.

/// For each node the nearest one that every way from a start leads through; none for the starts, for what several of them
/// lead to with nothing in common, and for what none leads to.
///
/// The algorithm of Cooper, Harvey and Kennedy ("A Simple, Fast Dominance Algorithm"), without recursion: a model may be
/// deep.
pub(super) fn dominators(
    edges: &[Vec<usize>],
    starts: impl IntoIterator<Item = usize>,
) -> Vec<Option<usize>> {
    // What leads to all starts.
    let entry = edges.len();
    let starts: Vec<usize> = starts.into_iter().collect();
    let after = |node: usize| if node == entry { &starts } else { &edges[node] };
    let order = postorder(entry, after);
    let mut number = vec![None; edges.len() + 1];
    order.iter().enumerate().for_each(|(at, node)| number[*node] = Some(at));
    let mut before: Vec<Vec<usize>> = vec![Vec::new(); edges.len() + 1];
    for node in &order {
        after(*node).iter().for_each(|next| before[*next].push(*node));
    }
    let mut nearest: Vec<Option<usize>> = vec![None; edges.len() + 1];
    nearest[entry] = Some(entry);
    let mut has_changed = true;
    while has_changed {
        has_changed = false;
        for node in order.iter().rev().filter(|node| **node != entry) {
            let met = before[*node].iter().copied().filter(|from| nearest[*from].is_some());
            let common = met.reduce(|mut one, mut other| {
                while one != other {
                    let behind = if number[one] < number[other] { &mut one } else { &mut other };
                    *behind = nearest[*behind].expect("what was met has one");
                }
                one
            });
            if nearest[*node] != common {
                nearest[*node] = common;
                has_changed = true;
            }
        }
    }
    nearest.truncate(edges.len());
    nearest.into_iter().map(|node| node.filter(|node| *node != entry)).collect()
}

/// The nodes that are met, each behind those that it leads to.
fn postorder<'g>(entry: usize, after: impl Fn(usize) -> &'g Vec<usize>) -> Vec<usize> {
    let mut order = Vec::new();
    let mut is_met = std::collections::HashSet::from([entry]);
    // Each with the next of its edges to follow.
    let mut path = vec![(entry, 0)];
    while let Some((node, next)) = path.last_mut() {
        let Some(to) = after(*node).get(*next).copied() else {
            order.push(*node);
            path.pop();
            continue;
        };
        *next += 1;
        if is_met.insert(to) {
            path.push((to, 0));
        }
    }
    order
}

#[cfg(test)]
mod tests {
    use proptest::prelude::*;

    use super::*;

    #[track_caller]
    fn check(edges: &[&[usize]], starts: &[usize], expected: &[Option<usize>]) {
        let edges: Vec<Vec<usize>> = edges.iter().map(|to| to.to_vec()).collect();
        assert_eq!(dominators(&edges, starts.iter().copied()), expected);
    }

    #[test]
    fn the_nearest_that_every_way_leads_through() {
        check(&[&[1], &[2], &[]], &[0], &[None, Some(0), Some(1)]);
        check(&[&[1, 2], &[3], &[3], &[]], &[0], &[None, Some(0), Some(0), Some(0)]);
        check(&[&[1], &[2, 0], &[1]], &[0], &[None, Some(0), Some(1)]);
        check(&[&[2], &[2], &[3], &[]], &[0, 1], &[None, None, None, Some(2)]);
        check(&[&[], &[0]], &[0], &[None, None]);
    }

    proptest! {
        #[test]
        fn without_it_there_is_no_way(edges in prop::collection::vec(prop::collection::vec(0_usize..8, 0..4), 8)) {
            let nearest = dominators(&edges, [0]);
            for (node, by) in nearest.iter().enumerate() {
                let Some(by) = by else { continue };
                let mut open = vec![0];
                let mut met = vec![false; edges.len()];
                while let Some(one) = open.pop() {
                    if one != *by && !std::mem::replace(&mut met[one], true) {
                        open.extend(&edges[one]);
                    }
                }
                prop_assert!(!met[node], "{by} does not stand before {node}: {edges:?}");
            }
        }
    }
}

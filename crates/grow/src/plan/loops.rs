//! Loops in a graph: which nodes lead back to each other.

/// For each node the number of its strongly connected component (Tarjan's algorithm, without recursion: a model may
/// be deep).
pub(super) fn loops(edges: &[Vec<usize>]) -> Vec<usize> {
    let mut search = Search {
        edges,
        order: vec![None; edges.len()],
        low: vec![0; edges.len()],
        component: vec![None; edges.len()],
        open: Vec::new(),
        met: 0,
        components: 0,
    };
    (0..edges.len()).for_each(|node| search.visit_from(node));
    search.component.into_iter().map(|component| component.expect("every node was visited")).collect()
}

struct Search<'e> {
    edges: &'e [Vec<usize>],
    /// When a node was met.
    order: Vec<Option<usize>>,
    /// The earliest node that one leads back to.
    low: Vec<usize>,
    component: Vec<Option<usize>>,
    /// Nodes whose component is not closed yet.
    open: Vec<usize>,
    met: usize,
    components: usize,
}

impl Search<'_> {
    fn visit_from(&mut self, start: usize) {
        if self.order[start].is_some() {
            return;
        }
        // Each with the next of its edges to follow.
        let mut path = vec![(start, 0)];
        self.meet(start);
        while let Some((node, next)) = path.last_mut() {
            let node = *node;
            if let Some(&target) = self.edges[node].get(*next) {
                *next += 1;
                match self.order[target] {
                    None => {
                        self.meet(target);
                        path.push((target, 0));
                    }
                    Some(order) if self.component[target].is_none() => {
                        self.low[node] = self.low[node].min(order);
                    }
                    Some(_) => {}
                }
            } else {
                path.pop();
                self.leave(node);
                if let Some((above, _)) = path.last() {
                    self.low[*above] = self.low[*above].min(self.low[node]);
                }
            }
        }
    }

    fn meet(&mut self, node: usize) {
        self.order[node] = Some(self.met);
        self.low[node] = self.met;
        self.met += 1;
        self.open.push(node);
    }

    /// Closes a component when its first node is left.
    fn leave(&mut self, node: usize) {
        if self.order[node] != Some(self.low[node]) {
            return;
        }
        while let Some(member) = self.open.pop() {
            self.component[member] = Some(self.components);
            if member == node {
                break;
            }
        }
        self.components += 1;
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn nodes_that_lead_back_to_each_other_share_a_number() {
        let loops = loops(&[vec![1], vec![2], vec![0, 3], vec![4], vec![], vec![5, 4]]);
        assert_eq!(loops[0], loops[1]);
        assert_eq!(loops[1], loops[2]);
        let apart: std::collections::BTreeSet<usize> = loops.iter().copied().collect();
        assert_eq!(apart.len(), 4);
    }
}

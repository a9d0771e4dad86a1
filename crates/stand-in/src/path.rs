//! Paths with variables: `/hives/{id}`.

/// A path, taken apart.
#[derive(Debug, Clone, PartialEq, Eq)]
pub(crate) struct Template(Vec<Part>);

#[derive(Debug, Clone, PartialEq, Eq)]
enum Part {
    Word(String),
    Variable(String),
}

impl Template {
    pub(crate) fn of(path: &str) -> Self {
        let part = |part: &str| match part.strip_prefix('{').and_then(|part| part.strip_suffix('}')) {
            Some(name) => Part::Variable(name.to_owned()),
            None => Part::Word(part.to_owned()),
        };
        Self(parts(path).map(part).collect())
    }

    /// The names of its variables.
    pub(crate) fn variables(&self) -> impl Iterator<Item = &str> {
        self.0.iter().filter_map(|part| match part {
            Part::Variable(name) => Some(name.as_str()),
            Part::Word(_) => None,
        })
    }

    /// How many of its parts are words, where a path is of this kind; the one with the most is meant.
    pub(crate) fn fits(&self, path: &str) -> Option<usize> {
        let asked: Vec<&str> = parts(path).collect();
        let fits = asked.len() == self.0.len()
            && self.0.iter().zip(&asked).all(|(part, asked)| match part {
                Part::Word(word) => word == asked,
                Part::Variable(_) => true,
            });
        fits.then(|| self.0.iter().filter(|part| matches!(part, Part::Word(_))).count())
    }

    /// Which one of several things a path means: its last part, where that is a variable of this.
    pub(crate) fn which<'p>(&self, path: &'p str) -> Option<&'p str> {
        matches!(self.0.last(), Some(Part::Variable(_))).then(|| parts(path).last()).flatten()
    }
}

fn parts(path: &str) -> impl Iterator<Item = &str> {
    path.split('/').filter(|part| !part.is_empty())
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn paths_fit_templates() {
        let hive = Template::of("/v1/hives/{id}");
        assert_eq!(hive.fits("/v1/hives/17"), Some(2));
        assert_eq!(hive.which("/v1/hives/17"), Some("17"));
        assert_eq!(hive.variables().collect::<Vec<_>>(), ["id"]);
        for other in ["/v1/hives", "/v1/queens/17", "/v1/hives/17/queen", "/"] {
            assert_eq!(hive.fits(other), None, "{other}");
        }
        assert_eq!(Template::of("/v1/hives/top").fits("/v1/hives/top/"), Some(3));
        assert_eq!(Template::of("/hives/{id}/queen").which("/hives/17/queen"), None);
    }
}

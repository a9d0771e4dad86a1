//! Trials: samples to be passed through grown code by a driver in the same language.

use super::dialect::Dialect;
use crate::plan::Plan;
use crate::settings::Spread;

/// One root with its samples.
#[derive(Debug, Clone)]
pub struct Trial {
    /// The folder of its code beside the driver, and its package or module: `t0`.
    pub place: String,
    /// The root's type: `HivePage`.
    pub entry: String,
    /// Where the functions stand that read and write it: `HivePageJson`.
    pub home: String,
    /// What reads it from text: `decodeHivePage`.
    pub decode: String,
    /// What writes it as text: `encodeHivePage`.
    pub encode: String,
    /// The file that declares it, as the language names it.
    pub file: String,
    /// What is decoded.
    pub samples: Vec<TrialSample>,
}

/// One sample of a trial.
#[derive(Debug, Clone)]
pub struct TrialSample {
    /// What messages call it; the driver writes its result under this name.
    pub name: String,
    /// One JSON text; without the keys that the model does not know where the compiler judges it, which objects to
    /// them.
    pub text: String,
}

impl Trial {
    /// The trial of a plan's code, which stands in the folder `place` beside the driver.
    pub(crate) fn of(dialect: &dyn Dialect, plan: &Plan<'_>, place: &str, samples: Vec<TrialSample>) -> Self {
        let entry = plan.root_name().to_owned();
        let file = match dialect.abilities().spread {
            Spread::PerType => &entry,
            Spread::Together => plan.title(),
        };
        let file = dialect.file_name(file);
        let home = plan.entry_home().as_str().to_owned();
        let (_, functions) = plan.entries().next().expect("the first root is named");
        let [decode, encode] = functions.each_ref().map(|ident| ident.as_str().to_owned());
        Self { place: place.to_owned(), home, decode, encode, file, entry, samples }
    }
}

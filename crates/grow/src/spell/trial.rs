//! Trials: samples to be passed through grown code by a driver in the same language.

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

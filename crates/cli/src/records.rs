//! Records among the files: what was asked again is a record of the same thing.

use std::collections::BTreeMap;
use std::path::{Path, PathBuf};

use jar_sprout_fetch::Record;

/// The files but for records of what was asked again later: what is gone by now is not asked for.
pub(crate) fn last_records(files: Vec<PathBuf>) -> Vec<PathBuf> {
    let mut last: BTreeMap<PathBuf, PathBuf> = BTreeMap::new();
    for file in files {
        let place = asked(&file).unwrap_or_else(|| file.clone());
        let newest = last.entry(place).or_insert_with(|| file.clone());
        if *newest < file {
            *newest = file;
        }
    }
    last.into_values().collect()
}

/// What was asked that a file is a record of, with the folder that it stands in.
pub(crate) fn asked(file: &Path) -> Option<PathBuf> {
    let stem = file.file_stem()?.to_str()?;
    Some(file.with_file_name(Record::of(stem)?.asked))
}

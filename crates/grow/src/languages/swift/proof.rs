//! The driver that passes samples through grown Swift.

use super::settings::SwiftOptions;
use crate::spell::GrownFile;
use crate::spell::Trial;

const DRIVER: &str = include_str!("main.swift.in");

/// The namespace that the types of a trial stand in.
pub(super) fn namespace(given: Option<&str>, place: &str) -> String {
    format!("{}{}", given.unwrap_or_default(), place.to_uppercase())
}

/// The driver, a table of the trials' types, and a package of one module for all: run it with the jobs on standard
/// input.
pub(super) fn driver(trials: &[Trial], options: &SwiftOptions) -> Vec<GrownFile> {
    let is_encoded = options.is_encoded;
    let branch = |Trial { place, decode, encode, .. }: &Trial| {
        let inside = namespace(options.namespace.as_deref(), place);
        let call = format!("{inside}.{decode}(from: sample)");
        // What is only decoded is taken as it came.
        let call =
            if is_encoded { format!("{inside}.{encode}({call})") } else { format!("({call}, sample).1") };
        format!("    case \"{place}\": return try {call}\n")
    };
    let branches: String = trials.iter().map(branch).collect();
    let table = format!(
        "import Foundation\n\nfunc trial(_ place: String, _ sample: Data) throws -> Data {{\n    switch place {{\n{branches}    default: fatalError(\"no trial \\(place)\")\n    }}\n}}\n"
    );
    vec![
        GrownFile { name: "Driver/main.swift".to_owned(), text: DRIVER.to_owned() },
        GrownFile { name: "Driver/Trials.swift".to_owned(), text: table },
        GrownFile { name: "Package.swift".to_owned(), text: include_str!("Package.swift.in").to_owned() },
    ]
}

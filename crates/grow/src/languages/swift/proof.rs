//! The driver that passes samples through grown Swift.

use super::settings::SwiftOptions;
use crate::spell::GrownFile;
use crate::spell::Trial;

const DRIVER: &str = include_str!("main.swift.in");

/// The driver, a table of the trials' types, and a package of a module for each: run it with the jobs on standard
/// input.
pub(super) fn driver(trials: &[Trial], options: &SwiftOptions) -> Vec<GrownFile> {
    let is_encoded = options.is_encoded;
    let inside = options.namespace.as_ref().map(|name| format!(".{name}")).unwrap_or_default();
    let import = |Trial { place, .. }: &Trial| format!("@testable import {place}\n");
    let branch = |Trial { place, decode, encode, .. }: &Trial| {
        let call = format!("{place}{inside}.{decode}(from: sample)");
        // What is only decoded is taken as it came.
        let call = if is_encoded {
            format!("{place}{inside}.{encode}({call})")
        } else {
            format!("({call}, sample).1")
        };
        format!("    case \"{place}\": return try {call}\n")
    };
    let target = |Trial { place, .. }: &Trial| {
        format!("        .target(name: \"{place}\", path: \"{place}\", swiftSettings: strict),\n")
    };
    let name = |Trial { place, .. }: &Trial| format!("\"{place}\"");
    let imports: String = trials.iter().map(import).collect();
    let branches: String = trials.iter().map(branch).collect();
    let targets: String = trials.iter().map(target).collect();
    let names = trials.iter().map(name).collect::<Vec<_>>().join(", ");
    let table = format!(
        "import Foundation\n{imports}\nfunc trial(_ place: String, _ sample: Data) throws -> Data {{\n    switch place {{\n{branches}    default: fatalError(\"no trial \\(place)\")\n    }}\n}}\n"
    );
    let package = format!(
        "// swift-tools-version: 6.0\nimport PackageDescription\n\nlet strict: [SwiftSetting] = [.unsafeFlags([\"-warnings-as-errors\"])]\n\nlet package = Package(\n    name: \"trials\",\n    targets: [\n{targets}        .executableTarget(name: \"trials\", dependencies: [{names}], path: \"Driver\", swiftSettings: strict),\n    ]\n)\n"
    );
    vec![
        GrownFile { name: "Driver/main.swift".to_owned(), text: DRIVER.to_owned() },
        GrownFile { name: "Driver/Trials.swift".to_owned(), text: table },
        GrownFile { name: "Package.swift".to_owned(), text: package },
    ]
}

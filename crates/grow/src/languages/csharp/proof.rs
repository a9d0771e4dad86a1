//! The driver that passes samples through grown C#.

use crate::spell::GrownFile;
use crate::spell::Trial;

const DRIVER: &str = include_str!("Driver.cs");

/// The namespace of a trial's code.
pub(super) fn namespace(place: &str) -> String {
    format!("TrialsOf.{place}")
}

/// The driver and a table of the trials' functions: run it with the jobs on standard input.
pub(super) fn driver(trials: &[Trial]) -> Vec<GrownFile> {
    let branch = |Trial { place, home, decode, encode, .. }: &Trial| {
        let home = format!("{}.{home}", namespace(place));
        format!(
            "            case \"{place}\":\n                return {home}.{encode}({home}.{decode}(text));\n"
        )
    };
    let branches: String = trials.iter().map(branch).collect();
    let table = format!(
        "internal static class Trials\n{{\n    public static string RoundTrip(string place, string text)\n    {{\n        switch (place)\n        {{\n{branches}            default:\n                throw new System.ArgumentException(place);\n        }}\n    }}\n}}\n"
    );
    vec![
        GrownFile { name: "Driver.cs".to_owned(), text: DRIVER.to_owned() },
        GrownFile { name: "Trials.cs".to_owned(), text: table },
    ]
}

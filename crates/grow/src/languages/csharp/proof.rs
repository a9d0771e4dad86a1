//! The driver that passes samples through grown C#.

use super::settings::{Form, Library};
use crate::code::GrownFile;
use crate::trial::Trial;

const DRIVER: &str = include_str!("Driver.cs");

/// The namespace of a trial's code.
pub(super) fn namespace(place: &str) -> String {
    format!("TrialsOf.{place}")
}

/// The driver and a table of the trials' types: run it with the jobs on standard input.
pub(super) fn driver(trials: &[Trial], form: &Form<'_>) -> Vec<GrownFile> {
    let branch = |trial: &Trial| {
        let entry = format!("{}.{}", namespace(&trial.place), trial.entry);
        let call = match (trial.is_alias, form.library) {
            (true, _) => format!("{entry}.ToJson({entry}.FromJson(text))"),
            (false, Library::SystemTextJson) => {
                format!(
                    "System.Text.Json.JsonSerializer.Serialize(System.Text.Json.JsonSerializer.Deserialize<{entry}>(text))"
                )
            }
            (false, Library::Newtonsoft) => format!(
                "Newtonsoft.Json.JsonConvert.SerializeObject(Newtonsoft.Json.JsonConvert.DeserializeObject<{entry}>(text, new Newtonsoft.Json.JsonSerializerSettings {{ DateParseHandling = Newtonsoft.Json.DateParseHandling.None }}))"
            ),
        };
        format!("            case \"{}\":\n                return {call};\n", trial.place)
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

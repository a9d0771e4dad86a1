//! The samples that every language must carry.

use std::fs;
use std::path::{Path, PathBuf};

use jar_sprout_document::{Drafted as DraftedDocument, Library, NoFiles, draft_document};
use jar_sprout_model::{DefaultValue, Definition, Docs, Model, SourceId, TypeId, WireName, Words};
use jar_sprout_prove::{Proof, Sample};
use jar_sprout_settle::{
    Bodies, Decision, Derivation, Drafted, FieldType, FieldVerdict, Inferred, Policies, Purpose, RootName,
    Settled, Subject, TypeVerdict, Verdict, bodies, decide, infer, root_name, settle_document,
};
use jar_sprout_shape::{Shape, observe};
use serde_json::Value;

/// What might be said of a thing.
const PLAIN_DOCS: &[&str] = &[
    "One hive.",
    "",
    "What a keeper saw, in their own words; it is kept for as long as the hive stands, and may be read by all.",
    "Weight in kilograms.\n\nMeasured in the evening, when the bees are home, and rounded to a tenth of a kilogram.",
    "One of:\n- the strong ones\n- the weak ones",
    "Less than 4 & more than 2.",
];

/// What should not be said of anything.
const EVIL_DOCS: &[&str] = &[
    "*/ class Evil {} /*",
    "\"\"\" + evil() + \"\"\"",
    "</summary><evil/>&amp;<!-- -->",
    "\\u002a/ \\u000a {@link Evil} @param evil \\",
    "a\u{2028}evil()\u{202e}b\0c\rd\n    indented();\n```\nevil();\n```\n# head\n===\n---",
    "${evil} $evil #{evil} `evil` [evil](evil): //go:build evil",
    "ends in a quote \"",
    "ends in a backslash \\",
    "https://honey.example/a/very/long/address/that/no/line/has/room/for/and/that/nothing/can/break/anywhere/at/all.html",
];

fn here() -> PathBuf {
    Path::new(env!("JAR_SPROUT_ROOT")).join("crates/prove")
}

/// All that every language must carry.
pub(crate) fn proofs() -> Vec<Proof> {
    let mut proofs = from_folder(&here().join("../cli/demo"));
    let documented = |name: &str, said: &[&str]| -> Vec<Proof> {
        proofs.iter().map(|proof| documented(name, proof, said)).collect()
    };
    let documented: Vec<Proof> =
        [documented("documented", PLAIN_DOCS), documented("torture-docs", EVIL_DOCS)].concat();
    proofs.extend(documented);
    proofs.extend(from_folder(&here().join("tests/awkward")));
    proofs.extend(sent());
    proofs.extend([numbers(), coded(), nothing(), defaults()]);
    let closed: Vec<Proof> = proofs.iter().filter_map(closed).collect();
    proofs.extend(closed);
    proofs.extend(from_documents(&here().join("../cli/demo")));
    proofs.extend(from_documents(&here().join("tests/documents")));
    let cases = from_cases(&here().join("../settle/tests/cases"));
    let count = fs::read_to_string(here().join("../settle/tests/cases.count")).unwrap();
    assert_eq!(cases.len().to_string(), count.trim(), "the cases were found");
    assert!(proofs.len() >= 80, "the samples were found");
    proofs.extend(cases);
    proofs
}

fn files_of(folder: &Path) -> Vec<PathBuf> {
    let mut files: Vec<_> = fs::read_dir(folder).unwrap().map(|entry| entry.unwrap().path()).collect();
    files.sort();
    files
}

/// Whether a file is a document, not a sample: by its name, which is ours to choose.
fn is_document(path: &Path) -> bool {
    let name = path.to_string_lossy();
    name.ends_with(".yaml") || name.ends_with(".schema.json")
}

/// A model for each document; what stands beside it under the same name is its samples.
fn from_documents(folder: &Path) -> Vec<Proof> {
    let of_document = |path: PathBuf| {
        let name = stem(&path).trim_end_matches(".schema").to_owned();
        let library = Library::gather(&name, &fs::read_to_string(&path).unwrap(), &NoFiles).unwrap();
        let drafted = draft_document(&library, &name, &[], &Words::split(&name));
        let DraftedDocument { draft, roots, title, .. } = drafted;
        let model = settle_document(&draft, &roots, title.as_ref(), &Policies::default()).model;
        let samples =
            fs::read_to_string(path.with_file_name(format!("{name}.samples.ndjson"))).unwrap_or_default();
        let samples = samples.lines().enumerate();
        let sample = |(number, text): (usize, &str)| Sample {
            name: format!("{name}-{number}"),
            text: text.to_owned(),
        };
        Proof { model, samples: samples.map(sample).collect(), name }
    };
    files_of(folder).into_iter().filter(|path| is_document(path)).map(of_document).collect()
}

fn stem(path: &Path) -> String {
    path.file_stem().unwrap().to_str().unwrap().to_owned()
}

/// A model for each file; files that differ only in their number are samples of the same thing.
fn from_folder(folder: &Path) -> Vec<Proof> {
    let thing =
        |path: &Path| stem(path).trim_end_matches(|c: char| c.is_ascii_digit() || c == '-').to_owned();
    let of_group = |group: &[PathBuf]| {
        let lines = group[0].extension().is_some_and(|extension| extension == "ndjson");
        let split = |text: String| -> Vec<String> {
            if lines { text.lines().map(str::to_owned).collect() } else { vec![text] }
        };
        let samples: Vec<String> =
            group.iter().flat_map(|path| split(fs::read_to_string(path).unwrap())).collect();
        let stems: Vec<String> = group.iter().map(|path| stem(path)).collect();
        proof(&thing(&group[0]), samples, root_name(stems.iter().map(String::as_str), None, false))
    };
    let is_sample = |path: &PathBuf| {
        let name = path.to_string_lossy();
        !is_document(path) && !name.ends_with(".toml") && !name.ends_with(".samples.ndjson")
    };
    let files: Vec<PathBuf> = files_of(folder).into_iter().filter(is_sample).collect();
    files.chunk_by(|a, b| thing(a) == thing(b)).map(of_group).collect()
}

/// The samples of the cases of inference: a line that says what a case shows, the name of its file, samples, `=>`.
fn from_cases(folder: &Path) -> Vec<Proof> {
    let of_case = |path: PathBuf| {
        let text = fs::read_to_string(&path).unwrap();
        let (given, _) = text.split_once("\n=>\n").unwrap();
        let mut lines = given.lines().skip(1).filter(|line| !line.trim().is_empty());
        let words = root_name([lines.next().unwrap()], None, false);
        proof(&stem(&path), lines.map(str::to_owned).collect(), words)
    };
    files_of(folder).into_iter().map(of_case).collect()
}

fn proof(name: &str, samples: Vec<String>, words: Words) -> Proof {
    let model = model(&samples, words);
    let sample = |(number, text)| Sample { name: format!("{name}-{number}"), text };
    // A null at the root is for whoever holds the value.
    let samples = samples.into_iter().filter(|text| text.trim() != "null");
    Proof { name: name.to_owned(), model, samples: samples.enumerate().map(sample).collect() }
}

/// A proof whose model has something said of each type, field and value.
fn documented(name: &str, proof: &Proof, said: &[&str]) -> Proof {
    let mut next = said.iter().cycle().zip(0..);
    let mut docs = |may_be_deprecated: bool| {
        let (text, number) = next.next().expect("it goes on for ever");
        Docs::new(text).deprecated(may_be_deprecated && number % 4 == 3)
    };
    let mut model = proof.model.clone();
    let ids: Vec<TypeId> = model.types().map(|(id, _)| id).collect();
    for id in ids {
        let ty = model.get_mut(id);
        ty.docs = docs(false);
        match &mut ty.definition {
            Definition::Record(record) => record.fields.iter_mut().for_each(|field| field.docs = docs(true)),
            Definition::Enumeration(known) => known.cases.iter_mut().for_each(|case| case.docs = docs(false)),
            Definition::Union(_) => {}
        }
    }
    Proof { name: format!("{name}-{}", proof.name), model, samples: proof.samples.clone() }
}

/// A proof whose enums have no values but those that were seen; none where it has no enum.
fn closed(proof: &Proof) -> Option<Proof> {
    let mut model = proof.model.clone();
    let is_enumeration = |id: &TypeId| matches!(proof.model.get(*id).definition, Definition::Enumeration(_));
    let ids: Vec<TypeId> = model.types().map(|(id, _)| id).filter(is_enumeration).collect();
    for id in &ids {
        if let Definition::Enumeration(known) = &mut model.get_mut(*id).definition {
            known.is_closed = true;
        }
    }
    let name = match proof.name.strip_prefix("torture-") {
        Some(name) => format!("torture-closed-{name}"),
        None => format!("closed-{}", proof.name),
    };
    (!ids.is_empty()).then(|| Proof { name, model, samples: proof.samples.clone() })
}

/// What is sent to make a hive and to change one, with what might be sent.
fn sent() -> Vec<Proof> {
    let hives = concat!(
        r#"[{"id":1,"name":"North","note":null,"queen":{"name":"Ilse","since":"2025-05-01"},"created_at":"2025-05-01T10:00:00Z"},"#,
        r#"{"id":2,"name":"South","note":"strong","queen":null,"honey_kg":12.5,"created_at":"2025-05-02T10:00:00Z"},"#,
        r#"{"id":3,"name":"East","queen":{"name":"Ada","since":"2025-04-01"},"honey_kg":3.5,"created_at":"2025-05-02T11:00:00Z"},"#,
        r#"{"id":4,"name":"West","note":"weak","queen":null,"honey_kg":8.25,"created_at":"2025-05-03T11:00:00Z"}]"#,
    );
    let (drafted, mut settled) = settled(&[hives.to_owned()], Words::split("hives"));
    let derivation = |name: &str, purpose| Decision {
        subject: Subject { type_name: "Hive".to_owned(), key: None },
        verdict: TypeVerdict::Derive(Derivation {
            name: name.to_owned(),
            purpose,
            server_made: vec!["id".to_owned(), "created_at".to_owned()],
        })
        .into(),
    };
    let decisions = [derivation("NewHive", Purpose::Create), derivation("HiveUpdate", Purpose::Update)];
    assert!(decide(&mut settled, &drafted, &decisions).is_empty());
    let proof = |Bodies { model, values }: Bodies| {
        let name = format!("sent-{}", model.root.name.in_capitals());
        let sample = |value: &Value| Sample { name: format!("{name} {value}"), text: value.to_string() };
        let samples: Vec<Sample> = values.iter().map(sample).collect();
        assert!(samples.len() >= 3, "{name} has bodies");
        Proof { name, model, samples }
    };
    bodies(&settled, &[serde_json::from_str(hives).unwrap()]).into_iter().map(proof).collect()
}

/// Numbers in letters that are decided to be numbers, and numbers of which each digit counts.
fn numbers() -> Proof {
    let jars = concat!(
        r#"[{"id":"17","price":"12.50","weight":"0.34","tax":0.07,"lot":"1","deposit":"0.10","rate":null,"sizes":["227","340"],"class":"-3"},"#,
        r#"{"id":"9007199254740993","price":"7.00","weight":"1.5","tax":1234567.25,"lot":null,"rate":"1.1","sizes":[],"class":"0"},"#,
        r#"{"id":"18","price":"-0.05","weight":"-2.25","tax":0.5,"lot":"22","deposit":"15","rate":null,"sizes":["454"],"class":"12"}]"#,
    );
    let decided = [
        ("id", "wide"),
        ("price", "decimal"),
        ("weight", "float"),
        ("tax", "decimal"),
        ("lot", "integer"),
        ("deposit", "decimal"),
        ("rate", "float"),
        ("sizes", "[integer]"),
        ("class", "integer"),
    ];
    let decided = decided.map(|(key, word)| (key, FieldVerdict::parse(word).unwrap()));
    with_decisions("numbers-in-letters", "jars", jars, "Jar", decided)
}

/// Truths in letters, and points in time as numbers since 1970.
fn coded() -> Proof {
    let visits = concat!(
        r#"[{"id":1,"calm":"true","open":"false","paid":null,"at":1777638600,"seen":1777638600123,"left":null,"opened":0,"logged":[1777638600,-1]},"#,
        r#"{"id":2,"calm":"false","paid":"true","at":-86400,"seen":0,"left":1777638600001,"logged":[]}]"#,
    );
    let decided = [
        ("calm", "boolean"),
        ("open", "boolean"),
        ("paid", "boolean"),
        ("at", "epoch-seconds"),
        ("seen", "epoch-milliseconds"),
        ("left", "epoch-milliseconds"),
        ("opened", "epoch-seconds"),
        ("logged", "[epoch-seconds]"),
    ];
    let decided = decided.map(|(key, word)| (key, FieldVerdict::parse(word).unwrap()));
    with_decisions("coded", "visits", visits, "Visit", decided)
}

/// Words that stand for nothing, in the place of all kinds of value.
fn nothing() -> Proof {
    let readings = concat!(
        r#"[{"id":1,"kg":12.5,"bees":3,"weight":"0.34","frames":"8","price":"12.50","open":"true","day":"2026-05-01","#,
        r#""at":"2026-05-01T12:30:00Z","link":"https://honey.example/1","key":"6f1c0a52-8d0e-4c0f-9d5e-0c7f3a1b2d4e","#,
        r#""queen":{"name":"Ilse"},"temper":"calm","tags":["a","b"],"note":"early","left":"2026-05-02","seen":1777638600,"wind":2.5},"#,
        r#"{"id":2,"kg":"N/A","bees":"-","weight":"","frames":"unknown","price":"N/A","open":"","day":"0000-00-00","#,
        r#""at":"never","link":"","key":"none","#,
        r#""queen":"none","temper":"?","tags":"","seen":"N/A","wind":"calm \"all\" day"},"#,
        r#"{"id":3,"kg":3,"bees":7,"weight":"1.5","frames":"10","price":"0.10","open":"false","day":"2026-05-03","#,
        r#""at":"2026-05-03T12:30:00Z","link":"https://honey.example/3","key":"7f1c0a52-8d0e-4c0f-9d5e-0c7f3a1b2d4e","#,
        r#""queen":{"name":"Ada"},"temper":"hot","tags":[],"note":"late","seen":0,"wind":null}]"#,
    );
    let decided = [
        ("kg", r#"float or "N/A""#),
        ("bees", r#"integer or "-""#),
        ("weight", r#"float or """#),
        ("frames", r#"integer or "unknown""#),
        ("price", r#"decimal or "N/A""#),
        ("open", r#"boolean or """#),
        ("day", r#"date or "0000-00-00""#),
        ("at", r#"date-time or "never""#),
        ("link", r#"uri or """#),
        ("key", r#"uuid or "none""#),
        ("queen", r#"Queen or "none""#),
        ("temper", r#"enum or "?""#),
        ("tags", r#"[text] or """#),
        ("note", r#"text or "-""#),
        ("left", r#"date or "N/A""#),
        ("seen", r#"epoch-seconds or "N/A""#),
        ("wind", r#"float or "calm \"all\" day" or "N/A""#),
    ];
    let decided = decided.map(|(key, word)| (key, FieldVerdict::parse(word).unwrap()));
    with_decisions("words-for-nothing", "readings", readings, "Reading", decided)
}

/// Fields that have a value where their key is absent.
fn defaults() -> Proof {
    let hives = concat!(
        r#"[{"id":1,"supers":2,"total":4,"alive":true,"share":0.5,"note":"calm","temper":"hot","type":"tall"},"#,
        r#"{"id":2,"temper":"calm"},{"id":3,"supers":2,"note":"","temper":"calm"},"#,
        r#"{"id":4,"total":9007199254740993,"alive":false,"share":1.25,"temper":"hot","type":"b\"c"},"#,
        r#"{"id":5,"temper":"hot"},{"id":6,"temper":"calm"},{"id":7}]"#,
    );
    let number = |number: &str| FieldVerdict::Default(DefaultValue::Number(number.to_owned()));
    let said = |text: &str| FieldVerdict::Default(DefaultValue::Text(text.to_owned()));
    let decided = [
        ("supers", number("3")),
        ("total", number("-4000000000")),
        ("alive", FieldVerdict::Default(DefaultValue::Boolean(true))),
        ("share", number("1")),
        ("note", said("as \"ever\"\n${x}")),
        ("temper", FieldVerdict::Is(FieldType::Enum)),
        ("temper", said("calm")),
        ("type", said("tall")),
    ];
    with_decisions("default-values", "hives", hives, "Hive", decided)
}

/// A proof of one sample, with decisions on the fields of a type.
fn with_decisions(
    name: &str,
    root: &str,
    sample: &str,
    type_name: &str,
    decided: impl IntoIterator<Item = (&'static str, FieldVerdict)>,
) -> Proof {
    let (drafted, mut settled) = settled(&[sample.to_owned()], Words::split(root));
    let decision = |(key, verdict)| Decision {
        subject: Subject { type_name: type_name.to_owned(), key: Some(WireName::new(key)) },
        verdict: Verdict::Field(verdict),
    };
    let decisions: Vec<Decision> = decided.into_iter().map(decision).collect();
    assert!(decide(&mut settled, &drafted, &decisions).is_empty());
    let samples = vec![Sample { name: format!("{name}-0"), text: sample.to_owned() }];
    Proof { name: name.to_owned(), model: settled.model, samples }
}

fn model(samples: &[String], words: Words) -> Model {
    settled(samples, words).1.model
}

fn settled(samples: &[String], words: Words) -> (Drafted, Settled) {
    let mut shape = Shape::default();
    for (source, text) in (0..).map(SourceId).zip(samples) {
        observe(text.as_bytes(), source, &mut shape).expect("the sample is JSON");
    }
    let Inferred { drafted, settled } =
        infer(&shape, &RootName { words, is_given: false }, &Policies::default());
    (drafted, settled)
}

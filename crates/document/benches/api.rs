//! A big API description to all its models in one language, beside what parsing it takes:
//! `cargo bench -p jar-sprout-document`. The promise is five times.
//!
//! Machines drift: each round does all of it once, and only ratios within a round count. Each stage is a process of its
//! own, as a run of the program is: what one leaves of the memory is not the next one's burden. Words behind `--` choose
//! stages by the end of their name: `-- value draft Kotlin`.

#![allow(clippy::unwrap_used, reason = "a test or a bench that cannot go on should stop")]

use std::hint::black_box;
use std::process::Command;
use std::time::{Duration, Instant};

use jar_sprout_document::{Drafted, Library, NoFiles, draft_document};
use jar_sprout_grow::{Arrangement, LANGUAGES, Settings, grow};
use jar_sprout_model::{Draft, Model, Words};
use jar_sprout_settle::{Policies, settle_document};
use serde_json::{Map, Value, json};

/// As the program has it.
#[global_allocator]
static ALLOCATOR: mimalloc::MiMalloc = mimalloc::MiMalloc;

/// About 10 MB: 5,000 components with what people write into them.
fn document() -> String {
    let component = |index: usize| {
        let property = |at: usize| {
            let schema = match at % 5 {
                0 => {
                    json!({"type": "integer", "format": "int64", "description": "Counted by the keeper, in the evening, when the bees are home."})
                }
                1 => json!({"type": "string", "format": "date-time", "example": "2026-05-01T12:30:00Z"}),
                2 => json!({"$ref": format!("#/components/schemas/Part{}", (index + at) % 5000)}),
                3 => {
                    json!({"type": "array", "items": {"$ref": format!("#/components/schemas/Part{}", (index * 7) % 5000)}})
                }
                _ => {
                    json!({"type": "string", "enum": ["laying", "caged", "virgin", "missing"], "description": "How she does."})
                }
            };
            (format!("property_{at}_of_{index}"), schema)
        };
        let properties: Map<String, Value> = (0..16).map(property).collect();
        let schema = json!({"type": "object", "description": "A part of a hive.", "required": ["property_0"], "properties": properties});
        (format!("Part{index}"), schema)
    };
    let schemas: Map<String, Value> = (0..5000).map(component).collect();
    json!({"openapi": "3.1.0", "info": {"title": "Honey"}, "paths": {}, "components": {"schemas": schemas}})
        .to_string()
}

/// What is timed: how a stage is called, and what does it.
type Stage = (String, Box<dyn Fn(&str) -> Duration>);

/// How long it takes until there is something; not how long it takes to forget it.
fn timed<T>(make: impl FnOnce() -> T) -> Duration {
    let start = Instant::now();
    let made = black_box(make());
    let took = start.elapsed();
    drop(made);
    took
}

fn stages() -> Vec<Stage> {
    let mut stages: Vec<Stage> = vec![
        (
            "parse into a value".to_owned(),
            Box::new(|text| timed(|| serde_json::from_str::<Value>(text).unwrap())),
        ),
        ("to draft".to_owned(), Box::new(|text| timed(|| draft_of(text)))),
        ("to model".to_owned(), Box::new(|text| timed(|| model_of(text)))),
    ];
    for language in LANGUAGES {
        let stage = |text: &str| {
            timed(|| {
                let (library, draft, model) = model_of(text);
                let files = grow(&*language.dialect(&Settings::default()), &model, Arrangement::AsUsual);
                (library, draft, model, files)
            })
        };
        stages.push((format!("to {}", language.title()), Box::new(stage)));
    }
    stages
}

/// The variable that tells a process its stage.
const STAGE: &str = "JAR_SPROUT_BENCH_STAGE";

fn main() {
    const ROUNDS: usize = 15;
    let text = document();
    let stages = stages();
    if let Ok(stage) = std::env::var(STAGE) {
        let (_, run) = stages.iter().find(|(name, _)| *name == stage).unwrap();
        return print!("{}", run(&text).as_secs_f64());
    }
    let asked: Vec<String> = std::env::args().skip(1).filter(|word| !word.starts_with('-')).collect();
    let is_asked = |name: &str| asked.is_empty() || asked.iter().any(|word| name.ends_with(word));
    // The first one is what all are divided by.
    let names = stages.into_iter().map(|(name, _)| name).enumerate();
    let names: Vec<String> =
        names.filter(|(at, name)| *at == 0 || is_asked(name)).map(|(_, name)| name).collect();
    let rounds: Vec<Vec<f64>> = (0..ROUNDS).map(|_| names.iter().map(|name| alone(name)).collect()).collect();
    println!("{:.1} MB, {ROUNDS} rounds\n", text.len() as f64 / 1e6);
    println!("{:<20} {:>10} {:>15}", "stage", "fastest", "median ÷ parse");
    for (at, name) in names.iter().enumerate() {
        let fastest = rounds.iter().map(|round| round[at]).fold(f64::INFINITY, f64::min);
        let mut ratios: Vec<f64> = rounds.iter().map(|round| round[at] / round[0]).collect();
        ratios.sort_by(f64::total_cmp);
        println!("{name:<20} {:>7.0} ms {:>15.2}", fastest * 1e3, ratios[ROUNDS / 2]);
    }
}

/// How many seconds a stage takes in a process of its own.
fn alone(name: &str) -> f64 {
    let mut process = Command::new(std::env::current_exe().unwrap());
    let output = process.env(STAGE, name).output().unwrap();
    String::from_utf8(output.stdout).unwrap().parse().unwrap()
}

fn draft_of(text: &str) -> (Library, Drafted) {
    let library = Library::gather("api.json", text, &NoFiles).unwrap();
    let drafted = draft_document(&library, "api.json", &[], &Words::split("api"));
    (library, drafted)
}

fn model_of(text: &str) -> (Library, Draft, Model) {
    let (library, Drafted { draft, roots, title, .. }) = draft_of(text);
    let model = settle_document(&draft, &roots, title.as_ref(), &Policies::default()).model;
    (library, draft, model)
}

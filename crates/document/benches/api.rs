//! A big API description to all its models in one language, beside what parsing it takes:
//! `cargo bench -p jar-sprout-document`. The promise is five times.

#![allow(clippy::unwrap_used, reason = "a test or a bench that cannot go on should stop")]

use divan::Bencher;
use jar_sprout_document::{Drafted, Library, NoFiles, draft_document};
use jar_sprout_grow::{Arrangement, Settings, find_language, grow};
use jar_sprout_model::Words;
use jar_sprout_settle::{Policies, settle_document};
use serde_json::{Map, Value, json};

/// As the program has it.
#[global_allocator]
static ALLOCATOR: mimalloc::MiMalloc = mimalloc::MiMalloc;

fn main() {
    divan::main();
}

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

#[divan::bench(sample_count = 10)]
fn parse_only(bencher: Bencher<'_, '_>) {
    let text = document();
    bencher.bench(|| serde_json::from_str::<Value>(&text).unwrap());
}

#[divan::bench(sample_count = 10, args = ["kotlin", "typescript", "go"])]
fn to_models(bencher: Bencher<'_, '_>, language: &str) {
    let text = document();
    let language = find_language(language).unwrap();
    bencher.bench(|| {
        let library = Library::gather("api.json", &text, &NoFiles).unwrap();
        let drafted = draft_document(&library, "api.json", None, &Words::split("api"));
        let Drafted { draft, roots, title, .. } = drafted;
        let model = settle_document(&draft, &roots, title.as_ref(), &Policies::default()).model;
        grow(language, &model, &Settings::default(), Arrangement::AsUsual)
    });
}

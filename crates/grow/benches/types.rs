//! A model of 1,000 types in each language: `cargo bench -p jar-sprout-grow`. The promise is 100 ms.

#![allow(clippy::unwrap_used, reason = "a test or a bench that cannot go on should stop")]

use divan::Bencher;
use jar_sprout_grow::{Arrangement, Settings, find_language, grow};
use jar_sprout_model::{
    Case, Definition, Enumeration, Field, Model, NamedType, Presence, Record, Root, Scalar, Slot, TimeForms,
    Type, TypeId, Width, WireName, Words,
};

/// As the program has it.
#[global_allocator]
static ALLOCATOR: mimalloc::MiMalloc = mimalloc::MiMalloc;

fn main() {
    divan::main();
}

/// 800 records of twelve fields each and 200 enums; each record refers to the next ones.
fn model() -> Model {
    let named = |index: usize| Slot::of(Type::Named(TypeId::from_index(index % 1000)));
    let record = |index: usize| {
        let slot = |at: usize| match at {
            0 => Slot::of(Type::Scalar(Scalar::Integer(Width::Wide))),
            1 | 2 => Slot::of(Type::Scalar(Scalar::Text)),
            3 => Slot::of(Type::Scalar(Scalar::DateTime(TimeForms::ALL))),
            4 => Slot { ty: Type::Scalar(Scalar::Float), nullable: true },
            5 => Slot::of(Type::List(Box::new(named(index + 1)))),
            6 => Slot::of(Type::Map(Box::new(named(index + 2)))),
            7 => Slot { nullable: true, ..named(index + 3) },
            8 => named(800 + index % 200),
            _ => Slot::of(Type::Scalar(Scalar::Boolean)),
        };
        let field = |at: usize| {
            let wire = format!("jar_{at}_of_hive");
            let presence = if at % 5 == 4 { Presence::Sometimes } else { Presence::Always };
            Field::new(WireName::new(wire), presence, slot(at))
        };
        Definition::Record(Record::of((0..12).map(field).collect()))
    };
    let enumeration = || {
        let cases = ["laying", "caged", "swarming", "old queen"].map(|text| Case::new(WireName::new(text)));
        let cases = cases.to_vec();
        Definition::Enumeration(Enumeration { cases, is_closed: false })
    };
    let ty = |index: usize| {
        let definition = if index < 800 { record(index) } else { enumeration() };
        NamedType::new(Words::split(&format!("hive part {index}")), definition)
    };
    let name = Words::split("hive part 0");
    Model::new((0..1000).map(ty).collect(), Root { name, slot: named(0) })
}

#[divan::bench(args = ["kotlin", "swift", "dart", "csharp", "java", "typescript", "python", "go", "rust"])]
fn thousand_types(bencher: Bencher, key: &str) {
    let language = find_language(key).unwrap();
    let (model, settings) = (model(), Settings::default());
    bencher.bench_local(|| grow(&*language.dialect(&settings), &model, Arrangement::AsUsual));
}

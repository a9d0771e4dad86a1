//! Observation beside `serde_json`'s reading into nothing and into a tree, on three kinds of data.
//!
//! Only ratios within one run count: `cargo bench -p jar-sprout-shape`.

#![allow(clippy::unwrap_used, reason = "a test or a bench that cannot go on should stop")]

use std::fmt::Write as _;

use divan::Bencher;
use divan::counter::BytesCount;
use jar_sprout_model::SourceId;
use jar_sprout_shape::{Shape, observe};
use serde::de::IgnoredAny;

const SIZE: usize = 20_000_000;
const KINDS: [&str; 3] = ["events", "flat", "deep"];

fn main() {
    divan::main();
}

/// A small generator with a seed: the same data in every run.
struct Seeded(u64);

impl Seeded {
    fn next(&mut self) -> u64 {
        self.0 ^= self.0 << 13;
        self.0 ^= self.0 >> 7;
        self.0 ^= self.0 << 17;
        self.0
    }

    fn below(&mut self, bound: u64) -> u64 {
        self.next() % bound
    }

    fn word(&mut self) -> &'static str {
        const WORDS: [&str; 12] = [
            "clover", "linden", "heather", "brood", "comb", "smoker", "swarm", "nectar", "frame", "veil",
            "drone", "propolis",
        ];
        WORDS[self.below(12) as usize]
    }

    fn sentence(&mut self, words: u64) -> String {
        (0..words).map(|_| self.word()).collect::<Vec<_>>().join(" ")
    }
}

fn data(kind: &str) -> String {
    let mut seeded = Seeded(0x5EED_0B33);
    let mut text = String::with_capacity(SIZE + 4096);
    while text.len() < SIZE {
        match kind {
            "events" => event(&mut seeded, &mut text),
            "flat" => flat(&mut seeded, &mut text),
            _ => deep(&mut seeded, &mut text),
        }
        text.push('\n');
    }
    text
}

fn event(s: &mut Seeded, out: &mut String) {
    let (id, hive, day) = (s.below(1 << 40), s.below(900), 1 + s.below(28));
    write!(
        out,
        r#"{{"id":{id},"type":"{}","created_at":"2026-05-{day:02}T08:30:00Z","public":{},"#,
        s.word(),
        s.below(2) == 0
    )
    .unwrap();
    write!(out, r#""keeper":{{"id":{},"login":"{}","avatar_url":"https://img.honey.example/u/{id}","site_admin":false}},"#, s.below(5000), s.word()).unwrap();
    write!(out, r#""hive":{{"id":{hive},"name":"{}/{}","url":"https://api.honey.example/hives/{hive}"}},"payload":{{"notes":["#, s.word(), s.word()).unwrap();
    for n in 0..s.below(6) {
        if n > 0 {
            out.push(',');
        }
        write!(out, r#"{{"id":"{:016x}","message":"{}","author":{{"name":"{}","email":"{}@honey.example"}},"distinct":true,"kg":{}.{}}}"#, s.next(), s.sentence(12), s.sentence(2), s.word(), s.below(40), s.below(100)).unwrap();
    }
    out.push_str(r#"],"readings":{"#);
    for n in 0..6 {
        if n > 0 {
            out.push(',');
        }
        write!(
            out,
            r#""s-{n}":{{"t":{}.{},"h":{},"ok":true,"note":null}}"#,
            s.below(40),
            s.below(10),
            s.below(100)
        )
        .unwrap();
    }
    write!(out, r#"}},"text":"{}"}}}}"#, s.sentence(40)).unwrap();
}

fn flat(s: &mut Seeded, out: &mut String) {
    write!(
        out,
        r#"{{"id":{},"hive":{},"name":"{}","kg":{}.{},"sold":{},"note":"{}","grade":{},"keeper":null}}"#,
        s.below(1 << 33),
        s.below(900),
        s.word(),
        s.below(40),
        s.below(100),
        s.below(2) == 0,
        s.sentence(3),
        s.below(5)
    )
    .unwrap();
}

fn deep(s: &mut Seeded, out: &mut String) {
    let link = |s: &mut Seeded| {
        format!("https://img.honey.example/{:x}/{}?size={}", s.next(), s.word(), s.below(4000))
    };
    write!(out, r#"{{"id":"{:x}","user":{{"id":{},"name":"{}","links":{{"self":"{}","html":"{}","photos":"{}"}},"profile":{{"image":{{"small":"{}","medium":"{}","large":"{}"}}}}}},"#, s.next(), s.below(1 << 20), s.sentence(2), link(s), link(s), link(s), link(s), link(s), link(s)).unwrap();
    write!(
        out,
        r#""urls":{{"raw":"{}","full":"{}","regular":"{}","thumb":"{}"}},"tags":["#,
        link(s),
        link(s),
        link(s),
        link(s)
    )
    .unwrap();
    for n in 0..5 {
        if n > 0 {
            out.push(',');
        }
        write!(out, r#"{{"title":"{}","source":{{"ancestry":{{"type":{{"slug":"{}","pretty_slug":"{}"}}}},"cover":{{"id":"{:x}","width":{},"urls":{{"raw":"{}","thumb":"{}"}}}}}}}}"#, s.word(), s.word(), s.word(), s.next(), s.below(6000), link(s), link(s)).unwrap();
    }
    out.push_str("]}");
}

#[divan::bench(args = KINDS)]
fn ignored_by_serde_json(bencher: Bencher, kind: &str) {
    let text = data(kind);
    bencher.counter(BytesCount::of_str(&text)).bench(|| {
        serde_json::Deserializer::from_slice(text.as_bytes())
            .into_iter::<IgnoredAny>()
            .filter(Result::is_ok)
            .count()
    });
}

#[divan::bench(args = KINDS)]
fn tree_by_serde_json(bencher: Bencher, kind: &str) {
    let text = data(kind);
    bencher.counter(BytesCount::of_str(&text)).bench(|| {
        serde_json::Deserializer::from_slice(text.as_bytes())
            .into_iter::<serde_json::Value>()
            .filter(Result::is_ok)
            .count()
    });
}

#[divan::bench(args = KINDS)]
fn observed(bencher: Bencher, kind: &str) {
    let text = data(kind);
    bencher.counter(BytesCount::of_str(&text)).bench(|| {
        let mut shape = Shape::default();
        observe(text.as_bytes(), SourceId(0), &mut shape).unwrap();
        shape
    });
}

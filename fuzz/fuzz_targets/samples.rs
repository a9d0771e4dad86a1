//! Whatever bytes a sample is made of, reading it ends; and what is JSON fits the model that is made of it, whose code grows.

#![no_main]

use jar_sprout_grow::{Arrangement, LANGUAGES, Settings, grow};
use jar_sprout_model::{SourceId, Words};
use jar_sprout_settle::{Policies, RootName, infer, misfits};
use jar_sprout_shape::{Shape, observe};
use libfuzzer_sys::fuzz_target;

fuzz_target!(|bytes: &[u8]| {
    let mut shape = Shape::default();
    if observe(bytes, SourceId(0), &mut shape).is_err() {
        return;
    }
    let name = RootName { words: Words::split("hives"), is_given: false };
    let model = infer(&shape, &name, &Policies::default()).settled.model;
    let values = serde_json::Deserializer::from_slice(bytes).into_iter::<serde_json::Value>();
    for value in values.map_while(Result::ok) {
        assert!(misfits(&model, &value).is_empty(), "{value}");
    }
    for language in LANGUAGES {
        grow(&*language.dialect(&Settings::default()), &model, Arrangement::Together);
    }
});

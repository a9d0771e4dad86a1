//! What the Fennimarsh Honey Co-op's API answered, built into the program.

/// What one endpoint of the co-op's API answered.
pub(crate) struct Endpoint {
    /// The folder its code goes to, and its package.
    pub(crate) name: &'static str,
    /// Where it is; empty of what is no part of the API.
    pub(crate) path: &'static str,
    /// What it gives, for the summary.
    pub(crate) gives: &'static str,
    pub(crate) samples: &'static [Sample],
}

/// One saved response.
pub(crate) struct Sample {
    pub(crate) file: &'static str,
    pub(crate) text: &'static str,
}

/// A sample that is built into the program.
macro_rules! sample {
    ($file:literal) => {
        Sample { file: $file, text: include_str!(concat!("../demo/", $file)) }
    };
}

pub(crate) const ENDPOINTS: &[Endpoint] = &[
    Endpoint {
        name: "hives",
        path: "/v1/hives",
        gives: "a page of hives",
        samples: &[sample!("hives.json")],
    },
    Endpoint {
        name: "hive",
        path: "/v1/hives/{id}",
        gives: "one hive, asked twice",
        samples: &[sample!("hive-17.json"), sample!("hive-95.json")],
    },
    Endpoint {
        name: "events",
        path: "/v1/events",
        gives: "a feed of unlike events",
        samples: &[sample!("events.json")],
    },
    Endpoint {
        name: "readings",
        path: "/v1/readings",
        gives: "readings by sensor",
        samples: &[sample!("readings.json")],
    },
    Endpoint {
        name: "harvests",
        path: "/v1/harvests",
        gives: "harvests, prices as text",
        samples: &[sample!("harvests.json")],
    },
    Endpoint {
        name: "members",
        path: "/v1/members",
        gives: "a bare list, many nulls",
        samples: &[sample!("members.json")],
    },
    Endpoint {
        name: "apiaries",
        path: "/v1/apiaries",
        gives: "a list with coordinates",
        samples: &[sample!("apiaries.json")],
    },
    Endpoint {
        name: "comments",
        path: "/v1/comments",
        gives: "a tree of comments",
        samples: &[sample!("comments.json")],
    },
    Endpoint {
        name: "forecast",
        path: "/v1/forecast",
        gives: "parallel lists",
        samples: &[sample!("forecast.json")],
    },
    Endpoint {
        name: "inspections",
        path: "/v1/inspections",
        gives: "one value a line",
        samples: &[sample!("inspections.ndjson")],
    },
];

/// The folder of the samples.
pub(crate) const SAMPLES: &str = "samples";

/// What the co-op's documents describe.
pub(crate) const DOCUMENTS: &[Endpoint] = &[
    Endpoint { name: "api", path: "", gives: "the API as it is described", samples: &[sample!("api.yaml")] },
    Endpoint {
        name: "reading",
        path: "",
        gives: "a schema of a reading",
        samples: &[sample!("reading.schema.json")],
    },
];

/// What a browser recorded of an app that asked the API.
pub(crate) const RECORDING: Sample = sample!("session.har");

/// What a year later came and was described, each under the name that it has then.
pub(crate) const NEXT_YEAR: &[(&str, Sample)] =
    &[("hives.json", sample!("next-hives.json")), ("api.yaml", sample!("next-api.yaml"))];

/// What becomes of them.
pub(crate) const JAR: &str = include_str!("../demo/jar.toml");

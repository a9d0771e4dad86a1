// Grown by Jar Sprout: ce43bd49

use chrono::{DateTime, FixedOffset, NaiveDate};
use serde::{Deserialize, Serialize};

#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct EventPage {
    pub events: Vec<Event>,
    pub cursor: String,
    pub more: bool,
}

#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
#[serde(tag = "kind", rename_all = "lowercase")]
pub enum Event {
    Inspection(InspectionEvent),
    Harvest(HarvestEvent),
    Swarm(SwarmEvent),
    Alarm(AlarmEvent),
    #[serde(untagged)]
    Other(serde_json::Value),
}

#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct InspectionEvent {
    pub id: String,
    pub at: DateTime<FixedOffset>,
    pub hive: i64,
    pub inspection: Inspection,
}

#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct Inspection {
    pub id: String,
    pub date: NaiveDate,
    pub inspector: String,
    pub frames_of_brood: i32,
    pub mites_per_100: i32,
    pub temper: String,
    #[serde(skip_serializing_if = "Option::is_none")]
    pub remarks: Option<String>,
}

#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct HarvestEvent {
    pub id: String,
    pub at: DateTime<FixedOffset>,
    pub hive: i64,
    pub kg: f64,
    pub batch: String,
    pub frames: i32,
}

#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct SwarmEvent {
    pub id: String,
    pub at: DateTime<FixedOffset>,
    pub hive: i64,
    pub caught: bool,
    pub seen_by: Vec<String>,
}

#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct AlarmEvent {
    pub id: String,
    pub at: DateTime<FixedOffset>,
    pub hive: i64,
    pub sensor: String,
    pub reading: Reading,
    pub level: String,
}

#[derive(Debug, Clone, PartialEq, Serialize, Deserialize)]
pub struct Reading {
    pub t: i32,
    pub limit: i32,
}

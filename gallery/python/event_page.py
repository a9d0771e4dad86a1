# Grown by Jar Sprout: 33b3d0b2
from __future__ import annotations

import datetime as dt
from typing import Annotated, Literal

from pydantic import BaseModel, Field, JsonValue, PlainSerializer


def _date_time_optional_millis(value: dt.datetime) -> str:
    timespec = "milliseconds" if value.microsecond else "seconds"
    return value.isoformat(timespec=timespec).replace("+00:00", "Z")


DateTimeOptionalMillis = Annotated[
    dt.datetime, PlainSerializer(_date_time_optional_millis, when_used="json")
]


class Reading(BaseModel):
    t: int
    limit: int


class AlarmEvent(BaseModel):
    id: str
    kind: Literal["alarm"] = "alarm"
    at: DateTimeOptionalMillis
    hive: int
    sensor: str
    reading: Reading
    level: str


class SwarmEvent(BaseModel):
    id: str
    kind: Literal["swarm"] = "swarm"
    at: DateTimeOptionalMillis
    hive: int
    caught: bool
    seen_by: list[str]


class HarvestEvent(BaseModel):
    id: str
    kind: Literal["harvest"] = "harvest"
    at: DateTimeOptionalMillis
    hive: int
    kg: float
    batch: str
    frames: int


class Inspection(BaseModel):
    id: str
    date: dt.date
    inspector: str
    frames_of_brood: int
    mites_per_100: int
    temper: str
    remarks: str | None = None


class InspectionEvent(BaseModel):
    id: str
    kind: Literal["inspection"] = "inspection"
    at: DateTimeOptionalMillis
    hive: int
    inspection: Inspection


class EventPage(BaseModel):
    events: list[Event]
    cursor: str
    more: bool


Event = Annotated[
    InspectionEvent | HarvestEvent | SwarmEvent | AlarmEvent | dict[str, JsonValue],
    Field(union_mode="left_to_right"),
]

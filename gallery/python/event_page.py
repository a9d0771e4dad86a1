# Grown by Jar Sprout: 9612e3a3
from __future__ import annotations

import datetime as dt
from typing import Annotated, Literal

from pydantic import BaseModel, Field, JsonValue


class Reading(BaseModel):
    t: int
    limit: int


class AlarmEvent(BaseModel):
    id: str
    kind: Literal["alarm"] = "alarm"
    at: dt.datetime
    hive: int
    sensor: str
    reading: Reading
    level: str


class SwarmEvent(BaseModel):
    id: str
    kind: Literal["swarm"] = "swarm"
    at: dt.datetime
    hive: int
    caught: bool
    seen_by: list[str]


class HarvestEvent(BaseModel):
    id: str
    kind: Literal["harvest"] = "harvest"
    at: dt.datetime
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
    at: dt.datetime
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

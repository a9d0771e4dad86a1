import datetime as dt
from typing import Annotated

from pydantic import BeforeValidator
from pydantic import PlainSerializer


def read_epoch_milliseconds(value: object) -> object:
    """A point in time from the milliseconds since 1970."""
    if not isinstance(value, int):
        return value
    start = dt.datetime.fromisoformat("1970-01-01T00:00:00+00:00")
    return start + dt.timedelta(milliseconds=value)


def write_epoch_milliseconds(value: dt.datetime) -> int:
    """The milliseconds since 1970."""
    start = dt.datetime.fromisoformat("1970-01-01T00:00:00+00:00")
    return (value - start) // dt.timedelta(milliseconds=1)


EpochMilliseconds = Annotated[
    dt.datetime,
    BeforeValidator(read_epoch_milliseconds),
    PlainSerializer(write_epoch_milliseconds),
]

import datetime as dt
from typing import Annotated

from pydantic import BeforeValidator
from pydantic import PlainSerializer


def read_epoch_seconds(value: object) -> object:
    """Read a point in time from the seconds since 1970."""
    if not isinstance(value, int):
        return value
    start = dt.datetime.fromisoformat("1970-01-01T00:00:00+00:00")
    return start + dt.timedelta(seconds=value)


def write_epoch_seconds(value: dt.datetime) -> int:
    """Write the seconds since 1970."""
    start = dt.datetime.fromisoformat("1970-01-01T00:00:00+00:00")
    return (value - start) // dt.timedelta(seconds=1)


EpochSeconds = Annotated[
    dt.datetime,
    BeforeValidator(read_epoch_seconds),
    PlainSerializer(write_epoch_seconds),
]

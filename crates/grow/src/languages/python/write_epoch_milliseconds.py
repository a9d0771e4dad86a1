import datetime as dt


def write_epoch_milliseconds(value: dt.datetime) -> int:
    """The milliseconds since 1970."""
    start = dt.datetime.fromisoformat("1970-01-01T00:00:00+00:00")
    return (value - start) // dt.timedelta(milliseconds=1)

import datetime as dt


def write_epoch_seconds(value: dt.datetime) -> int:
    """Write the seconds since 1970."""
    start = dt.datetime.fromisoformat("1970-01-01T00:00:00+00:00")
    return (value - start) // dt.timedelta(seconds=1)

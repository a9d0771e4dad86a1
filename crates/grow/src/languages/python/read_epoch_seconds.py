import datetime as dt


def read_epoch_seconds(seconds: int) -> dt.datetime:
    """Read a point in time from the seconds since 1970."""
    start = dt.datetime.fromisoformat("1970-01-01T00:00:00+00:00")
    return start + dt.timedelta(seconds=seconds)

import datetime as dt


def read_epoch_milliseconds(milliseconds: int) -> dt.datetime:
    """A point in time from the milliseconds since 1970."""
    start = dt.datetime.fromisoformat("1970-01-01T00:00:00+00:00")
    return start + dt.timedelta(milliseconds=milliseconds)

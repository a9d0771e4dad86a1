import datetime as dt


def _read_datetime(text: str) -> dt.datetime:
    return dt.datetime.fromisoformat(_spelled_out(text))

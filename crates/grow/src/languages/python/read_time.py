import datetime as dt


def _read_time(text: str) -> dt.time:
    return dt.time.fromisoformat(_spelled_out(text))

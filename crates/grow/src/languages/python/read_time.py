import datetime as dt


def read_time(text: str) -> dt.time:
    return dt.time.fromisoformat(spelled_out(text))

import datetime as dt


def read_datetime(text: str) -> dt.datetime:
    return dt.datetime.fromisoformat(spelled_out(text))

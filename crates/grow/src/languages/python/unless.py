from typing import Any


def unless(value: Any, *words: str) -> Any:
    """Take a value, or none where a word stands for nothing."""
    return None if isinstance(value, str) and value in words else value

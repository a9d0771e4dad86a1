from typing import Any


def or_word(value: Any, word: str) -> Any:
    """Write a word where there is no value."""
    return word if value is None else value

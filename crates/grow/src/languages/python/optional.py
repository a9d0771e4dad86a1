from collections.abc import Callable
from typing import Any
from typing import TypeVar

Read = TypeVar("Read")


def optional(convert: Callable[[Any], Read], value: Any) -> Read | None:
    """Convert what is there; none stays none."""
    return None if value is None else convert(value)

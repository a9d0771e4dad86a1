from collections.abc import Callable
from enum import Enum
from typing import Any
from typing import Final
from typing import TypeVar

Given = TypeVar("Given")


class Unset(Enum):
    """Stands where a key is absent, which is left alone."""

    UNSET = "unset"


UNSET: Final = Unset.UNSET


def given(
    convert: Callable[[Any], Given], data: dict[str, Any], key: str
) -> Given | Unset:
    """Convert what is given, though it be none."""
    return convert(data[key]) if key in data else UNSET

from enum import StrEnum
from typing import Self


class OpenEnum(StrEnum):
    """Known values; one that is not known yet is kept as it is."""

    @classmethod
    def _missing_(cls, value: object) -> Self | None:
        if not isinstance(value, str):
            return None
        member = str.__new__(cls, value)
        member._name_ = value
        member._value_ = value
        return member

from enum import Enum


class TextEnum(str, Enum):
    """An enum whose values are texts."""

    def __str__(self) -> str:
        return str(self.value)

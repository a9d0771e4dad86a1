from enum import Enum


class OpenEnum(str, Enum):
    """Known values; one that is not known yet is kept as it is."""

    def __str__(self) -> str:
        return str(self.value)

    @classmethod
    def _missing_(cls, value: object) -> OpenEnum | None:
        if not isinstance(value, str):
            return None
        member = str.__new__(cls, value)
        member._name_ = value
        member._value_ = value
        return member

"""How a text is passed through a type of pydantic's."""

from collections.abc import Callable
from types import ModuleType
from typing import Any

from pydantic import TypeAdapter

RoundTrip = Callable[[str], bytes]


def round_trip(module: ModuleType, name: str) -> RoundTrip:
    adapter: TypeAdapter[Any] = TypeAdapter(getattr(module, name))

    def pass_through(text: str) -> bytes:
        value = adapter.validate_json(text)
        return adapter.dump_json(value, by_alias=True, exclude_unset=True)

    return pass_through

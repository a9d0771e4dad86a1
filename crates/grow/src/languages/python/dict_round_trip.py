"""How a text is passed through a class with from_dict and to_dict, or through a pair of functions."""

import json
from collections.abc import Callable
from enum import Enum
from types import ModuleType
from typing import Any

RoundTrip = Callable[[str], bytes]


def round_trip(module: ModuleType, name: str) -> RoundTrip:
    kind = getattr(module, name)
    read: Callable[[Any], Any]
    write: Callable[[Any], Any]
    if hasattr(kind, "from_dict"):
        read, write = kind.from_dict, kind.to_dict
    elif isinstance(kind, type) and issubclass(kind, Enum):
        read, write = kind, str
    else:
        functions = {key.replace("_", ""): value for key, value in vars(module).items()}
        start = name.replace("_", "").lower()
        read, write = functions[start + "fromjson"], functions[start + "tojson"]

    def pass_through(text: str) -> bytes:
        return json.dumps(write(read(json.loads(text)))).encode()

    return pass_through

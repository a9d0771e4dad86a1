import json
from typing import Annotated
from typing import Any
from typing import TypeVar

from pydantic import BeforeValidator
from pydantic import SerializerFunctionWrapHandler
from pydantic import WrapSerializer
from pydantic_core import to_json

T = TypeVar("T")


def read_json_text(value: object) -> object:
    """Read what a text says that is JSON itself."""
    return json.loads(value) if isinstance(value, str) else value


def write_json_text(value: Any, handler: SerializerFunctionWrapHandler) -> str:
    """Write a text that is JSON."""
    return to_json(handler(value)).decode()


JsonText = Annotated[
    T, BeforeValidator(read_json_text), WrapSerializer(write_json_text)
]

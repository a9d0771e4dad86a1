from typing import Any

from pydantic import GetCoreSchemaHandler
from pydantic import SerializerFunctionWrapHandler
from pydantic_core import CoreSchema
from pydantic_core import core_schema


class OrNothing:
    """Words that stand where there is no value; the first of them is written."""

    def __init__(self, *words: str) -> None:
        self.words = words

    def __get_pydantic_core_schema__(
        self, source: Any, handler: GetCoreSchemaHandler
    ) -> CoreSchema:
        return core_schema.no_info_before_validator_function(
            self.read,
            handler(source),
            serialization=core_schema.wrap_serializer_function_ser_schema(self.write),
        )

    def read(self, value: object) -> object:
        """Read none for a word."""
        return None if isinstance(value, str) and value in self.words else value

    def write(self, value: Any, handler: SerializerFunctionWrapHandler) -> Any:
        """Write a word for none."""
        return self.words[0] if value is None else handler(value)

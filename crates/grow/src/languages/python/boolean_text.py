from typing import Annotated

from pydantic import PlainSerializer


def write_boolean(value: bool) -> str:
    """Write a truth in letters."""
    return "true" if value else "false"


BooleanText = Annotated[bool, PlainSerializer(write_boolean)]

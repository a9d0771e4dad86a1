from typing import Any

from pydantic import BaseModel
from pydantic import Discriminator


def by_tag(key: str, name: str, *known: str) -> Discriminator:
    """Choose a case by its tag; one that is not known yet stays a dictionary."""

    def tag_of(value: dict[str, Any] | BaseModel) -> str:
        tag = value.get(key) if isinstance(value, dict) else getattr(value, name, "")
        return tag if tag in known else ""

    return Discriminator(tag_of)

from typing import Any
from typing import Literal
from typing import get_origin

from pydantic import BaseModel


class TaggedModel(BaseModel):
    """Its tag is written even where nobody has set it."""

    def model_post_init(self, context: Any, /) -> None:
        fields = type(self).model_fields.items()
        self.model_fields_set.update(
            name for name, field in fields if get_origin(field.annotation) is Literal
        )

from typing import Annotated

from pydantic import PlainSerializer

IntegerText = Annotated[int, PlainSerializer(str)]

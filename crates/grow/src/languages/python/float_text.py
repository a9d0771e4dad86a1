from typing import Annotated

from pydantic import PlainSerializer

FloatText = Annotated[float, PlainSerializer(str)]

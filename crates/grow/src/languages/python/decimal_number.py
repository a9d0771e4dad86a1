from decimal import Decimal
from typing import Annotated

from pydantic import PlainSerializer

DecimalNumber = Annotated[Decimal, PlainSerializer(float)]

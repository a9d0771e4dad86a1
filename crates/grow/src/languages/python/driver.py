"""Every line of standard input names a trial, a sample to read and a result to write."""

import sys
from pathlib import Path

from trials import TRIALS

for line in sys.stdin:
    place, sample, result = line.rstrip("\n").split("\t")
    try:
        value = TRIALS[place].validate_json(Path(sample).read_text("utf-8"))
        encoded = TRIALS[place].dump_json(value, by_alias=True, exclude_unset=True)
        Path(result).write_bytes(encoded)
    except ValueError as error:
        print(place, sample, " ".join(str(error).split()), sep="\t")

"""Every line of standard input names a trial, a sample to read and a result to write."""

import sys
from pathlib import Path

from grown.trials import TRIALS

for line in sys.stdin:
    place, sample, result = line.rstrip("\n").split("\t")
    try:
        Path(result).write_text(TRIALS[place](Path(sample).read_text("utf-8")), "utf-8")
    except (ValueError, LookupError, TypeError) as error:
        print(place, sample, " ".join(str(error).split()), sep="\t")

"""Runs every measurement and prints its figures: `./bench benchmark`; with `--small` little of each."""

import sys

from benchmarks import crib, live_loop, ranking, state
from benchmarks.sizes import FULL, SMALL

for room in (ranking, state, crib, live_loop):
    print(f"\n{room.__doc__}")
    for line in room.measure(SMALL if "--small" in sys.argv else FULL):
        print("  " + line, flush=True)

"""Runs every measurement and prints its figures: `./bench benchmark`; with `--small` little of each."""

import sys

from benchmarks import clinic_rehearsal, crib, doors, holes, kills, live_loop, load, ranking, simulated_shops, state
from benchmarks.sizes import FULL, SMALL
from tests.browser.demo_site import demo_site

with demo_site() as site:
    # the crib comes last: what it imports stays
    for room in (ranking, simulated_shops, clinic_rehearsal, holes, state, live_loop, load, doors, kills, crib):
        print(f"\n{room.__doc__}")
        for line in room.measure(site, SMALL if "--small" in sys.argv else FULL):
            print("  " + line, flush=True)

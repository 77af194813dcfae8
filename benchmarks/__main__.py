"""Runs every measurement and prints its figures: `./bench benchmark`, `--small` little of each. Where one fails, the others go on."""

import sys
import traceback

from benchmarks import clinic_rehearsal, crib, doors, holes, kills, live_loop, load, ranking, simulated_shops, state
from benchmarks.sizes import FULL, SMALL
from tests.browser.demo_site import demo_site

# the crib comes last: what it imports stays
ROOMS = (ranking, simulated_shops, clinic_rehearsal, holes, state, live_loop, load, doors, kills, crib)


def main(small: bool) -> int:
    """How many could not be measured."""
    failed = []
    with demo_site() as site:
        for room in ROOMS:
            print(f"\n{room.__doc__}")
            try:
                for line in room.measure(site, SMALL if small else FULL):
                    print("  " + line, flush=True)
            except Exception:  # whatever it was, what comes behind it is measured all the same
                failed.append(room.__name__.rsplit(".", 1)[-1])
                print(f"  not measured:\n{traceback.format_exc()}", flush=True)
    print(f"\n{len(ROOMS) - len(failed)} of {len(ROOMS)} measured{', not ' + ', '.join(failed) if failed else ''}")
    return len(failed)


if __name__ == "__main__":
    sys.exit(main("--small" in sys.argv))

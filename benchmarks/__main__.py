"""Runs every measurement and prints its figures: `./bench benchmark`."""

from benchmarks import crib, live_loop, ranking

for room in (ranking, crib, live_loop):
    print(f"\n{room.__doc__}")
    for line in room.measure():
        print("  " + line)

"""Runs every measurement and prints its figures: `./bench benchmark`."""

from benchmarks import live_loop, ranking

for room in (ranking, live_loop):
    print(f"\n{room.__doc__}")
    for line in room.measure():
        print("  " + line)

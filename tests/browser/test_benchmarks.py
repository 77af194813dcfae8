"""Every measurement that the README names runs; how fast is measured by hand, never here."""

from __future__ import annotations

from benchmarks import crib, live_loop, load, ranking, state
from benchmarks.sizes import SMALL
from tests.browser.demo_site import demo_site


def test_every_measurement_says_its_figures() -> None:
    with demo_site() as site:
        for room in (ranking, state, live_loop, load, crib):
            lines = room.measure(site, SMALL)
            assert lines, room.__doc__
            assert all(" ms" in line or " s" in line for line in lines)

"""Every measurement that the README names runs; how fast is measured by hand, never here."""

from __future__ import annotations

from types import ModuleType

import pytest

from benchmarks import crib, live_loop, ranking, state
from benchmarks.sizes import SMALL


@pytest.mark.parametrize("room", [ranking, state, crib, live_loop], ids=lambda room: room.__name__.rsplit(".", 1)[-1])
def test_a_measurement_says_its_figures(room: ModuleType) -> None:
    lines = room.measure(SMALL)
    assert lines
    assert all(" ms" in line or " s" in line for line in lines)

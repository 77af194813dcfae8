"""What a spindle really runs, for every kind of operation: steps, lowest and highest speed, the diameter that follows."""

from __future__ import annotations

import math
from dataclasses import replace
from typing import Any

import numpy as np
import pytest

from cutting.doors.json_form import read_setup
from cutting.machine.drive import Drive
from cutting.mechanics.kinematics import facing_time
from cutting.operations.frame.nudges import ladders
from cutting.operations.registry import KINDS, evaluate_quickly
from tests.core.every_kind import EVERY_KIND

GEARS = (100.0, 400.0, 1600.0)


def speeds_run(form: dict[str, Any], speed: float, **machine: Any) -> list[float]:
    setup = read_setup(form)
    setup = setup.with_settings(cutting_speed=speed)
    outcome = evaluate_quickly(replace(setup, machine=replace(setup.machine, **machine)))
    return [one.spindle_speed for one in outcome.passes]


@pytest.mark.parametrize("kind", list(EVERY_KIND))
def test_every_kind_runs_what_the_spindle_has(kind: str) -> None:
    """A gearbox runs its steps; a spindle runs no slower than its lowest speed and no faster than its highest."""
    form = EVERY_KIND[kind]
    fast = 450.0 if kind == "heavy bore" else 190.0  # beyond the second gear on a large bore too
    for speed in (1.0, 60.0, fast):
        assert set(speeds_run(form, speed, speeds=GEARS, speed_min=100.0, constant_surface_speed=False)) <= set(GEARS)
        free = speeds_run(form, speed, speed_min=300.0, speed_max=1200.0)
        assert all(300.0 - 1e-9 <= one <= 1200.0 + 1e-9 for one in free)
    assert len({tuple(speeds_run(form, speed, speeds=GEARS, constant_surface_speed=False)) for speed in (1.0, fast)}) == 2


@pytest.mark.parametrize("kind", [name for name, form in EVERY_KIND.items() if name not in ("tap", "turn thread")])
def test_more_feed_never_runs_slower(kind: str) -> None:
    """Direction: on the same drive more feed takes less time in the cut, and more speed never more."""
    setup = read_setup(EVERY_KIND[kind])
    model = KINDS[kind].model
    feeds = model.over(setup, feed=setup.feed * np.array([[[0.8]], [[1.0]], [[1.2]]])).engaged_time.ravel()
    speeds = model.over(setup, cutting_speed=setup.settings.cutting_speed * np.array([[[0.8]], [[1.0]], [[1.2]]])).engaged_time.ravel()
    assert (np.diff(feeds) < 0).all()
    assert (np.diff(speeds) <= 1e-9).all()


@pytest.mark.parametrize("kind", ["mill hole", "mill thread", "drill", "turn"])
def test_the_keys_walk_a_gearbox_by_its_own_steps(kind: str) -> None:
    """The rung that stands is the step that the spindle runs: a mill's by the mill's diameter, not the hole's."""
    setup = read_setup(EVERY_KIND[kind])
    setup = replace(setup, machine=replace(setup.machine, speeds=GEARS, speed_min=100.0))
    outcome = evaluate_quickly(setup)
    ladder = ladders(setup, outcome, KINDS[kind].nudged, "metric")["cutting_speed"]
    assert [float(text.split()[0]) for text in ladder.rungs] == list(GEARS)
    wanted = 1000.0 * setup.settings.cutting_speed / (np.pi * setup.speed_diameter)
    assert GEARS[ladder.place] == min(GEARS, key=lambda one: abs(one - wanted))


def test_a_face_is_timed_as_its_spindle_follows() -> None:
    """The integral of dr/(f·n(r)) over fine slices, with a lowest and a highest speed."""
    drive = Drive(low=120.0, top=2000.0)
    radii = (np.arange(200_000) + 0.5) / 200_000 * 150.0
    spun = drive.over(60.0, 300.0)
    by_slices = float(np.sum(60.0 * (150.0 / 200_000) / (0.2 * spun.at(60.0, 2.0 * radii))))
    assert float(facing_time(300.0, 0.0, 60.0, 0.2, spun.top, spun.low)) == pytest.approx(by_slices, rel=1e-4)
    fixed = replace(drive, constant=False, steps=GEARS).over(60.0, 300.0)
    assert (float(fixed.low), float(fixed.top)) == (100.0, 100.0)
    assert float(facing_time(300.0, 0.0, 60.0, 0.2, fixed.top, fixed.low)) == pytest.approx(60.0 * 150.0 / (0.2 * 100.0))


def test_a_clamp_below_the_lowest_speed_holds_all_over_a_face() -> None:
    """Whoever clamps at 40 has 40, also where the spindle's own lowest speed is 50; at a kept speed the rim's holds to the middle."""
    clamped = Drive(50.0, 40.0, constant=True).over(150.0, 200.0)
    assert (clamped.low, clamped.top) == (40.0, 40.0)
    free = Drive(50.0, 3000.0, constant=True).over(150.0, 200.0)
    assert (free.low, free.top) == (50.0, 3000.0)
    kept = Drive(50.0, 3000.0, constant=False).over(150.0, 200.0)
    assert kept.low == kept.top == pytest.approx(1000.0 * 150.0 / (math.pi * 200.0))

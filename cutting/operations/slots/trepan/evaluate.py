"""Trepanning as the bench asks for it: its outcome, torque and power against solid drilling, what would move a limit."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any

import numpy as np

from cutting.operations.frame.change import Change, in_words
from cutting.operations.frame.model import Model, Readings
from cutting.operations.frame.over_passes import plain_floats
from cutting.operations.slots.shared.cut import plain
from cutting.operations.slots.shared.otherwise import other_blades, stronger_coolant
from cutting.operations.slots.shared.tool import single_tool
from cutting.operations.slots.shared.usual_speed import usual_speed
from cutting.operations.slots.trepan.limits import RULES
from cutting.operations.slots.trepan.numbers import SLOWER_STILL, Numbers, numbers
from cutting.operations.slots.trepan.readings import cautions, chip, passes, results, scene
from cutting.operations.slots.trepan.setup import Cartridges, TrepanSetup
from cutting.tooling.blades import Blade, TrepanHead

POINTS = 25
NARROWEST = 0.55  # of the present Ø, to which the map goes


def changes(x: Numbers) -> Iterator[Change[TrepanSetup]]:
    """Coolant, arrangement of the cartridges."""
    setup = x.setup
    s = setup.settings
    yield from stronger_coolant(setup)
    if setup.blade.cartridges > 1 and setup.feature.inner_ring is None:
        other = Cartridges.TWO if s.cartridges is Cartridges.SAME else Cartridges.SAME
        yield Change(in_words(other.value), {"settings": {"cartridges": other.value}}, setup.with_settings(cartridges=other))


def _standing(head: Blade) -> dict[str, Any]:
    """How a head's cartridges stand when it is put in."""
    several = isinstance(head, TrepanHead) and head.cartridges > 1
    return {"cartridges": Cartridges.SAME if several else Cartridges.ONE}


MODEL: Model[Numbers] = Model(
    single_tool,
    numbers,
    RULES,
    changes,
    Readings(results, passes, chip, cautions, scene, usual_speed=usual_speed(SLOWER_STILL)),
    lambda x, crib: other_blades(x.setup, crib, "head", _standing),
    read_as=plain,
)


@dataclass(frozen=True)
class OverRings:
    """Torque [N·m] and power [kW] over the head's diameters [mm], of the ring and of drilling from solid at the same feed."""

    diameters: tuple[float, ...]
    ring_torque: tuple[float, ...]
    solid_torque: tuple[float, ...]
    ring_power: tuple[float, ...]
    solid_power: tuple[float, ...]
    available: tuple[float, ...]


def explore(setup: TrepanSetup) -> OverRings:
    """The map: ring against solid over diameter. Raises `CuttingError`."""
    now = setup.feature.diameter
    low = max(2.0 * setup.ring_width + 4.0 + (setup.feature.inner_ring or 0.0), NARROWEST * now)
    diameters = np.linspace(low, 1.45 * now, POINTS)
    x = numbers(setup, single_tool(setup), setup.settings.cutting_speed, setup.feed, setup.silent, diameters)
    series = (x.outer_diameter, x.torque, x.solid_torque, x.power, x.solid_power, x.available)
    return OverRings(*(plain_floats(np.broadcast_to(one, diameters.shape)) for one in series))

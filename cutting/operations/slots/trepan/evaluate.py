"""Trepanning as the bench asks for it: its outcome, torque and power against solid drilling, what would move a limit."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, replace
from typing import Any

import numpy as np

from cutting.operations.frame.change import Change, in_words
from cutting.operations.frame.model import Model
from cutting.operations.slots.shared.otherwise import other_blades, other_feeds_and_speeds, stronger_coolant
from cutting.operations.slots.trepan.limits import RULES
from cutting.operations.slots.trepan.numbers import Numbers, numbers
from cutting.operations.slots.trepan.readings import cautions, chip, passes, results, scene
from cutting.operations.slots.trepan.setup import Cartridges, TrepanSetup
from cutting.operations.turned.over_passes import plain_floats
from cutting.tooling.blades import GrooveBlade

POINTS = 25


def changes(x: Numbers) -> Iterator[Change[TrepanSetup]]:
    """Feed, speed, arrangement of the cartridges."""
    setup = x.setup
    s = setup.settings
    yield from other_feeds_and_speeds(setup, (0.6, 0.8, 1.25, 1.5), "feed per edge")
    yield from stronger_coolant(setup)
    if setup.blade.cartridges > 1:
        other = Cartridges.TWO if s.cartridges is Cartridges.SAME else Cartridges.SAME
        yield Change(in_words(other.value), {"settings": {"cartridges": other.value}}, setup.with_settings(cartridges=other))


def _standing(head: GrooveBlade) -> dict[str, Any]:
    """How a head's cartridges stand when it is put in."""
    return {"cartridges": Cartridges.ONE if head.cartridges < 2 else Cartridges.SAME}


MODEL: Model[Numbers] = Model(
    numbers, RULES, changes, results, passes, chip, cautions, scene, lambda x, crib: other_blades(x.setup, crib, "head", _standing)
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
    low = max(2.0 * setup.ring_width + 4.0, 0.55 * now)
    diameters = np.linspace(low, 1.45 * now, POINTS)
    found = [MODEL.quickly(replace(setup, feature=replace(setup.feature, diameter=float(d)))) for d in diameters]

    def series(name: str) -> tuple[float, ...]:
        return plain_floats([getattr(one, name) for one in found])

    outer = plain_floats([one.setup.outer_diameter for one in found])
    return OverRings(outer, series("torque"), series("solid_torque"), series("power"), series("solid_power"), series("available"))

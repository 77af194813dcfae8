"""Trepanning as the bench asks for it: its outcome, torque and power against solid drilling, what would move a limit."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, replace
from typing import Any

import numpy as np

from cutting.operations.outcome import Outcome, Remedy
from cutting.operations.single_point.over_passes import plain_floats
from cutting.operations.trepan.limits import RULES
from cutting.operations.trepan.numbers import Numbers, numbers
from cutting.operations.trepan.readings import cautions, chip, passes, results, scene
from cutting.operations.trepan.setup import Cartridges, TrepanSetup
from cutting.operations.trial.change import Change, in_words, setting
from cutting.operations.trial.model import Model
from cutting.tooling.blades import NarrowStock

POINTS = 25


def changes(x: Numbers) -> Iterator[Change[TrepanSetup]]:
    """Feed, speed, arrangement of the cartridges, a web at the back."""
    setup = x.setup
    s = setup.settings
    for share in (0.6, 0.8, 1.25, 1.5):
        feed = round(max(s.feed_per_rev * share, 0.01), 3)
        yield setting("feed_per_rev", "feed per edge", s.feed_per_rev, feed, "feed_per_rev", setup.with_settings(feed_per_rev=feed))
    for share in (0.7, 0.85, 1.15):
        speed = float(round(s.cutting_speed * share))
        yield setting("cutting_speed", "speed", s.cutting_speed, speed, "cutting_speed", setup.with_settings(cutting_speed=speed))
    if setup.blade.cartridges > 1:
        other = Cartridges.TWO if s.cartridges is Cartridges.SAME else Cartridges.SAME
        yield Change(in_words(other.value), {"settings": {"cartridges": other.value}}, setup.with_settings(cartridges=other))


MODEL: Model[Numbers] = Model(numbers, RULES, changes, results, passes, chip, cautions, scene)


@dataclass(frozen=True)
class OverRings:
    """Torque [N·m] and power [kW] over the head's diameters [mm], of the ring and of drilling from solid at the same feed."""

    diameters: tuple[float, ...]
    ring_torque: tuple[float, ...]
    solid_torque: tuple[float, ...]
    ring_power: tuple[float, ...]
    solid_power: tuple[float, ...]
    available: tuple[float, ...]


def evaluate(setup: TrepanSetup, with_remedies: bool = True, crib: Any = None) -> Outcome:
    """The outcome of trepanning. Raises `CuttingError` for inputs that cannot be."""
    return _with(crib).evaluate(setup, with_remedies)


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


def relax(setup: TrepanSetup, name: str, crib: Any = None) -> tuple[Remedy, ...]:
    """What would move one limit. Raises `UnknownName` for a limit that does not apply."""
    return _with(crib).relax(setup, name)


def _with(crib: Any) -> Model[Numbers]:
    """The model whose remedies also try the crib's other heads for this insert."""
    if not isinstance(crib, NarrowStock):
        return MODEL

    def all_changes(x: Numbers) -> Iterator[Change[TrepanSetup]]:
        yield from changes(x)
        for head in crib.blades:
            if head.use == "trepan" and head.name != x.setup.blade.name and head.takes(x.setup.insert):
                stand = Cartridges.ONE if head.cartridges < 2 else Cartridges.SAME
                patch = {"tool": {"insert": x.setup.insert.name, "holder": head.name}, "settings": {"cartridges": stand.value}}
                settings = replace(x.setup.settings, cartridges=stand, overhang=None)
                yield Change(in_words(f"head {head.name}"), patch, replace(x.setup, blade=head, settings=settings))

    return Model(numbers, RULES, all_changes, results, passes, chip, cautions, scene)


__all__ = ["MODEL", "OverRings", "evaluate", "explore", "relax"]

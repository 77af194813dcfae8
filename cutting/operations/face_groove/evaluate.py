"""A face groove as the bench asks for it: limits, changes, cautions, readings, and the way in and out."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace
from typing import Any

from cutting.operations.face_groove.limits import RULES
from cutting.operations.face_groove.numbers import Numbers, numbers
from cutting.operations.face_groove.readings import cautions, chip, passes, results, scene
from cutting.operations.face_groove.setup import FaceGrooveSetup, Spindle, Way
from cutting.operations.outcome import Outcome, Remedy
from cutting.operations.trial.change import Change, in_words, setting
from cutting.operations.trial.model import Model
from cutting.tooling.blades import NarrowStock


def changes(x: Numbers) -> Iterator[Change[FaceGrooveSetup]]:
    """Feed, speed, way, reach and the spindle's sense."""
    setup = x.setup
    s = setup.settings
    for share in (0.6, 0.8, 1.25, 1.5):
        feed = round(max(s.feed_per_rev * share, 0.01), 3)
        yield setting("feed_per_rev", "feed", s.feed_per_rev, feed, "feed_per_rev", setup.with_settings(feed_per_rev=feed))
    for share in (0.7, 0.85, 1.15):
        speed = float(round(s.cutting_speed * share))
        yield setting("cutting_speed", "speed", s.cutting_speed, speed, "cutting_speed", setup.with_settings(cutting_speed=speed))
    for way in Way:
        if way is not s.way and setup.feature.width.target > setup.insert.width + 0.02:
            yield Change(in_words(f"way: {way.value}"), {"settings": {"way": way.value}}, setup.with_settings(way=way))
    shortest = setup.blade.shortest(setup.depth)
    if setup.overhang > 1.05 * shortest:
        yield setting("overhang", "reach set", setup.overhang, shortest, "length", setup.with_settings(overhang=shortest))
    turned = Spindle.REVERSE if s.spindle is Spindle.FORWARD else Spindle.FORWARD
    if not setup.hand_fits:
        yield Change(in_words(f"spindle {turned.value}"), {"settings": {"spindle": turned.value}}, setup.with_settings(spindle=turned))


MODEL: Model[Numbers] = Model(numbers, RULES, changes, results, passes, chip, cautions, scene)


def evaluate(setup: FaceGrooveSetup, with_remedies: bool = True, crib: Any = None) -> Outcome:
    """The outcome of a face groove. Raises `CuttingError` for inputs that cannot be."""
    return _with(crib).evaluate(setup, with_remedies)


def explore(setup: FaceGrooveSetup) -> Numbers:
    """The map of a face groove: its strokes, and how the blade stands in the first plunge. Raises `CuttingError`."""
    return MODEL.quickly(setup)


def relax(setup: FaceGrooveSetup, name: str, crib: Any = None) -> tuple[Remedy, ...]:
    """What would move one limit. Raises `UnknownName` for a limit that does not apply."""
    return _with(crib).relax(setup, name)


def _with(crib: Any) -> Model[Numbers]:
    """The model whose remedies also try the crib's other blades for this insert."""
    if not isinstance(crib, NarrowStock):
        return MODEL

    def all_changes(x: Numbers) -> Iterator[Change[FaceGrooveSetup]]:
        yield from changes(x)
        for blade in crib.blades:
            if blade.use == "face" and blade.name != x.setup.blade.name and blade.takes(x.setup.insert):
                patch = {"tool": {"insert": x.setup.insert.name, "holder": blade.name}}
                settings = replace(x.setup.settings, overhang=None)
                yield Change(in_words(f"blade {blade.name}"), patch, replace(x.setup, blade=blade, settings=settings))

    return Model(numbers, RULES, all_changes, results, passes, chip, cautions, scene)

"""A face groove as the bench asks for it: limits, changes, cautions, readings, and the way in and out."""

from __future__ import annotations

from collections.abc import Iterator

from cutting.operations.frame.change import Change, in_words
from cutting.operations.frame.model import Model, Readings
from cutting.operations.slots.face_groove.limits import RULES
from cutting.operations.slots.face_groove.numbers import SLOWER_STILL, Numbers, numbers
from cutting.operations.slots.face_groove.readings import cautions, chip, passes, results, scene
from cutting.operations.slots.face_groove.setup import FaceGrooveSetup, FaceGrooveWay, SpindleSense
from cutting.operations.slots.shared.cut import plain
from cutting.operations.slots.shared.otherwise import other_blades, shorter_overhang, stronger_coolant
from cutting.operations.slots.shared.tool import single_tool
from cutting.operations.slots.shared.usual_speed import usual_speed


def changes(x: Numbers) -> Iterator[Change[FaceGrooveSetup]]:
    """Way, reach and the spindle's sense."""
    setup = x.setup
    s = setup.settings
    yield from stronger_coolant(setup)
    for way in FaceGrooveWay:
        if way is not s.way and setup.widened and not setup.insert.round_edge and way is not FaceGrooveWay.ROUND:
            yield Change(in_words(f"way: {way.value}"), {"settings": {"way": way.value}}, setup.with_settings(way=way))
    yield from shorter_overhang(setup, "blade overhang")
    turned = SpindleSense.REVERSE if s.spindle is SpindleSense.FORWARD else SpindleSense.FORWARD
    if not setup.hand_fits:
        yield Change(in_words(f"spindle {turned.value}"), {"settings": {"spindle": turned.value}}, setup.with_settings(spindle=turned))


MODEL: Model[Numbers] = Model(
    single_tool,
    numbers,
    RULES,
    changes,
    Readings(results, passes, chip, cautions, scene, usual_speed=usual_speed(SLOWER_STILL)),
    lambda x, crib: other_blades(x.setup, crib, "blade"),
    misfits=lambda setup: frozenset() if setup.hand_fits else frozenset({"hand"}),
    read_as=plain,
)


def explore(setup: FaceGrooveSetup) -> Numbers:
    """The map of a face groove: its strokes, and how the blade stands in the first plunge. Raises `CuttingError`."""
    return MODEL.quickly(setup)

"""What can be done otherwise in a cut-off; each is run before it is offered."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace
from typing import Any

from cutting.machine.spindle import SUB
from cutting.operations.frame.change import Change, in_words, setting, step
from cutting.operations.slots.cut_off.numbers import Numbers
from cutting.operations.slots.cut_off.setup import CutOffSetup
from cutting.operations.slots.shared.otherwise import shorter_overhang, stronger_coolant
from cutting.quantities.write import Display, write
from cutting.tooling.slot_stock import SlotStock

HELD = (
    ("sub_spindle", "sub-spindle holds the part", lambda setup: setup.machine.has(SUB)),
    ("y_axis", "blade turned by the Y axis", lambda setup: setup.machine.y_axis),
    ("guide_bush", "guide bush at the cut", lambda setup: setup.machine.guide_bush),
    ("tailstock", "tailstock in until the last millimetres", lambda setup: not setup.holding.sub_spindle),
)

LONG = 0.8  # of its height that a blade stands out, from which it is pulled out on the way (common practice)
DEEP, WIDENED = 4.0, 0.5  # depth over width from which a slot is widened; and by how much of the insert (common practice)
WORTH_MOVING = 1.2  # times as far out as it need be


def changes(x: Numbers) -> Iterator[Change[CutOffSetup]]:
    """Overhang, place, holding, height and squareness of the present tool."""
    setup = x.setup
    s = setup.settings
    yield from stronger_coolant(setup)
    yield from shorter_overhang(setup)
    yield from _nearer(setup)
    yield from in_stages(setup)
    yield from wider_slot(setup)
    for name, words, has in HELD:
        if not getattr(setup.holding, name) and has(setup):
            yield Change(in_words(words), {"holding": {name: True}}, replace(setup, holding=replace(setup.holding, **{name: True})))
    if s.centre_height:
        yield Change(in_words("tip on centre"), {"settings": {"centre_height": "0 mm"}}, setup.with_settings(centre_height=0.0))
    if s.lean:
        yield Change(in_words("blade squared up"), {"settings": {"lean": 0}}, setup.with_settings(lean=0.0))


def in_stages(setup: CutOffSetup) -> Iterator[Change[CutOffSetup]]:
    """The blade short for the first half of the way, then pulled out: only where it slides in its block."""
    halfway = round(setup.feature.diameter - setup.depth, 1)  # half of the depth on either side
    slides = setup.blade.shortest(setup.depth / 2.0) < setup.blade.shortest(setup.depth)
    if setup.settings.pull_out_at is None and slides and setup.overhang > LONG * setup.blade.height:
        staged = setup.with_settings(pull_out_at=halfway)
        words = Display(*(f"blade pulled out at Ø{write(halfway, 'length', system)}" for system in ("metric", "inch")))
        yield Change(words, {"settings": {"pull_out_at": write(halfway, "length")}}, staged)


def wider_slot(setup: CutOffSetup) -> Iterator[Change[CutOffSetup]]:
    """Room for blade and chip where the slot is deep: plunges beside each other, half an insert apart."""
    if not setup.widened and setup.depth > DEEP * setup.insert.width:
        wide = round((1.0 + WIDENED) * setup.insert.width, 2)
        wider = setup.with_settings(slot_width=wide)
        yield setting("slot_width", "slot widened to", setup.slot, wide, "length", wider)


def _nearer(setup: CutOffSetup) -> Iterator[Change[CutOffSetup]]:
    f = setup.feature
    near = round(max(0.3 * f.distance_from_chuck, setup.insert.width + 1.0), 1)
    if f.distance_from_chuck > WORTH_MOVING * near:
        moved = replace(setup, feature=replace(f, distance_from_chuck=near))
        text = step("cut in front of the collet", f.distance_from_chuck, near, "length")
        yield Change(text, {"feature": {"distance_from_chuck": write(near, "length")}}, moved)


def other_inserts(x: Numbers, crib: Any) -> Iterator[Change[CutOffSetup]]:
    """The same blade with another insert of the crib: another lead angle, geometry or grade."""
    setup = x.setup
    letter = setup.work.material.group.letter
    for insert in crib.inserts if isinstance(crib, SlotStock) else ():
        if insert.name != setup.insert.name and setup.blade.takes(insert) and letter in insert.grade.letters:
            patch: dict[str, Any] = {"tool": {**setup.tool_names, "insert": insert.name}}
            lead = f"lead angle {setup.insert.lead_angle:g}° → {insert.lead_angle:g}°: "
            words = (lead if insert.lead_angle != setup.insert.lead_angle else "") + insert.name
            yield Change(in_words(words), patch, replace(setup, insert=insert))

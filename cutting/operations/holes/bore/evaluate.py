"""Boring as the bench asks for it: the turning engine with a bar for its tool."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace
from typing import Any

from cutting.operations.frame.change import Change, in_words, step
from cutting.operations.frame.model import Model
from cutting.operations.holes.bore.limits import NARROWER, RULES, bore_of
from cutting.operations.holes.bore.readings import READINGS
from cutting.operations.turned.case import Cutter, single_cutter
from cutting.operations.turned.changes import near_inserts, quicker, with_passes
from cutting.operations.turned.chip_map import ChipMap, chip_map
from cutting.operations.turned.feature import Bore
from cutting.operations.turned.fit import misfits, warnings_of_fit
from cutting.operations.turned.physics import Cut
from cutting.operations.turned.run import numbers
from cutting.operations.turned.setup import BAR_ROOM, Setup
from cutting.quantities.write import Display, write
from cutting.tooling.bars import body_of
from cutting.tooling.crib import seat

MORE_PASSES, MOST_PASSES = (1, 3), 40
MOST_TOOLS = 14


def changes(x: Cut) -> Iterator[Change[Setup]]:
    """More passes, a bar that stands out less, more coolant."""
    setup = x.setup
    f = bore_of(x)
    if f.there is not None and f.there < f.start_diameter - NARROWER:
        text = Display(*(f"hole Ø{write(f.start_diameter, 'length', side)} before it" for side in ("metric", "inch")))
        yield Change(text, {"before": _hole_before(f)}, replace(setup, feature=replace(f, there=f.start_diameter)))
    for more in MORE_PASSES:
        if setup.pass_count + more <= MOST_PASSES:
            yield with_passes(setup, setup.pass_count + more)
    least = setup.feature.length + BAR_ROOM
    if setup.overhang > least + 0.5:
        text = step("bar out of its sleeve", setup.overhang, least, "length")
        yield Change(text, {"settings": {"overhang": None}}, setup.with_settings(overhang=None))
    share = setup.holding.grip_share
    # a fifth of the size error from the jaws is worth another grip
    if setup.machine.jaw_force > 0 and share > 0.2:
        half = round(share / 2.0, 2)
        softer = replace(setup, holding=replace(setup.holding, grip_share=half))
        yield Change(in_words(f"jaws grip with {half:.0%} of their force"), {"holding": {"grip_share": half}}, softer)
    for delivery, pressure in setup.machine.coolant:
        if pressure > (setup.machine.pressure(setup.settings.coolant) or 0.0):
            text = in_words(f"coolant: {delivery}, {pressure:.0f} bar")
            yield Change(text, {"settings": {"coolant": delivery}}, setup.with_settings(coolant=delivery))


def _hole_before(f: Bore) -> dict[str, str | bool]:
    """The drilled hole that a bore starts from, as an operation is entered."""
    size, through = f"{f.start_diameter:g} mm", not f.shoulder
    return {"operation": "drill", "title": f"Hole Ø{f.start_diameter:g}", "diameter": size, "depth": f"{f.length:g} mm", "through": through}


def other_tools(x: Cut, crib: Any) -> Iterator[Change[Setup]]:
    """The crib's other bars that take this insert, the stiffest first; other inserts in this bar that differ in one thing."""
    setup = x.setup
    bars = [
        one
        for one in crib.holders
        if one.name != setup.holder.name and seat(setup.insert) == (one.code.shape, one.code.clearance, one.code.size)
    ]
    bars.sort(key=lambda one: -body_of(one.code.bar).modulus * one.code.shank_height**4)
    tools: list[tuple[Any, Any, str]] = [
        (
            setup.insert,
            one,
            f"bar of {body_of(one.code.bar).name} Ø{one.code.shank_height:g}: {one.designation}, {write(one.price, 'money')}",
        )
        for one in bars
    ]
    tools += [(insert, setup.holder, text) for insert, text in near_inserts(setup, crib)]
    for insert, bar, text in tools[: 2 * MOST_TOOLS]:
        changed = replace(setup, insert=insert, holder=bar)
        if not warnings_of_fit(changed):
            yield Change(in_words(text), {"tool": changed.tool_names}, changed)


MODEL: Model[Cut] = Model(single_cutter, numbers, RULES, changes, READINGS, other_tools, quicker, misfits=misfits, stacked=Cutter.of)


def explore(setup: Setup) -> ChipMap:
    """The chip map with the limits of boring. Raises `CuttingError`."""
    return chip_map(setup, RULES)

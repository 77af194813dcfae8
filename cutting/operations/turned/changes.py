"""What can be done otherwise in turning and facing; each is run before it is offered."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace
from typing import Any

from cutting.mechanics.deflection import Holding
from cutting.operations.frame.change import SYSTEMS, Change, in_words, step
from cutting.operations.turned.feature import Direction
from cutting.operations.turned.fit import warnings_of_fit
from cutting.operations.turned.part import held_otherwise
from cutting.operations.turned.physics import Cut
from cutting.operations.turned.setup import Setup
from cutting.operations.turned.springing import best_seat
from cutting.operations.turned.surface import Surface
from cutting.quantities.write import Display, write
from cutting.tooling.crib import Crib, seat
from cutting.tooling.items import Holder, Insert

# diameters out of the chuck from which a steady rest is thought of (common practice)
STEADY_FROM = {Holding.CHUCK: 4.0, Holding.CHUCK_AND_CENTRE: 10.0, Holding.BETWEEN_CENTRES: 12.0}
MORE_PASSES, MOST_PASSES = (1, 3), 40
MOST_TOOLS = 14
WORTH_SHORTER = 1.1  # times as far out as it need be


def changes(x: Cut) -> Iterator[Change[Setup]]:
    """More passes, held otherwise, fed the other way, more coolant."""
    setup = x.setup
    for more in MORE_PASSES:
        if 1 <= setup.pass_count + more <= MOST_PASSES:
            yield with_passes(setup, setup.pass_count + more)
    yield from supported(setup)
    yield from _shorter(setup)
    if setup.surface is Surface.OUTSIDE and not setup.away and setup.holding.style is Holding.CHUCK:
        text = in_words("path: feed away from the chuck on the minor edge, κr small")
        yield Change(text, {"settings": {"direction": Direction.AWAY.value}}, setup.with_settings(direction=Direction.AWAY))
    for delivery, pressure in setup.machine.coolant:
        if pressure > (setup.machine.pressure(setup.settings.coolant) or 0.0):
            text = in_words(f"coolant: {delivery}, {pressure:.0f} bar")
            yield Change(text, {"settings": {"coolant": delivery}}, setup.with_settings(coolant=delivery))


def quicker(setup: Setup) -> Iterator[Change[Setup]]:
    """One pass fewer."""
    if setup.pass_count > 1:
        yield with_passes(setup, setup.pass_count - 1)


def supported(setup: Setup) -> Iterator[Change[Setup]]:
    """A centre at the free end, or a steady rest beside the cut; a guide bush is both."""
    if setup.holding.guide_bush:
        return
    if setup.holding.style is Holding.CHUCK and setup.surface is Surface.OUTSIDE:
        held = replace(setup, holding=replace(setup.holding, style=Holding.CHUCK_AND_CENTRE))
        yield Change(in_words("tailstock centre in"), {"holding": {"style": "chuck and centre"}}, held)
    slim = setup.holding.free_length > STEADY_FROM[setup.holding.style] * setup.feature.start_diameter
    if slim and setup.holding.steady is None and (seat := best_seat(setup)) is not None:
        held = held_otherwise(setup, steady=seat)
        yield Change(
            Display(*(f"steady rest {write(seat, 'length', s)} from the chuck" for s in SYSTEMS)),
            {"holding": {"steady": f"{seat:g} mm"}},
            held,
        )


def _shorter(setup: Setup) -> Iterator[Change[Setup]]:
    holding = setup.holding
    shortest = setup.feature.distance_from_chuck + setup.feature.length + 2.0
    if setup.surface is Surface.FACE:
        shortest = 0.5 * holding.free_length
    if holding.free_length > WORTH_SHORTER * shortest:
        shorter = replace(setup, holding=replace(holding, free_length=shortest))
        text = step("stick-out", holding.free_length, shortest, "length")
        yield Change(text, {"holding": {"free_length": write(shortest, "length")}}, shorter)


def with_passes(setup: Setup, passes: int) -> Change[Setup]:
    """So many passes, a planned last one among them."""
    last = setup.last_depth if passes > 1 else None
    depth = (setup.stock_to_remove - (last or 0.0)) / (passes - (last is not None))
    noun = "pass" if passes == 1 else "passes"
    text = Display(*(f"{passes} {noun} of {write(depth, 'length', s)} instead of {setup.pass_count}" for s in SYSTEMS))
    patch = {"settings": {"depth_of_cut": f"{depth:.9g} mm", "pass_depths": None}}
    return Change(text, patch, setup.with_settings(depth_of_cut=depth, pass_depths=()))


def other_tools(x: Cut, crib: Crib) -> Iterator[Change[Setup]]:
    """Tools of the crib that differ in one thing only: geometry, corner radius, grade, or the holder's κr."""
    setup = x.setup
    for insert, holder, text in _near_tools(setup, crib)[:MOST_TOOLS]:
        changed = replace(setup, insert=insert, holder=holder)
        if not warnings_of_fit(changed):
            yield Change(in_words(text), {"tool": changed.tool_names}, changed)


def near_inserts(setup: Setup, crib: Any) -> list[tuple[Insert, str]]:
    """Inserts for the same seat that differ in one thing only, with what that is."""
    own, code = setup.insert, setup.insert.code
    found: list[tuple[Insert, str]] = []
    for one in crib.inserts:
        same_seat = seat(one) == seat(own)
        nose, geometry, grade = one.code.nose_radius == code.nose_radius, one.geometry == own.geometry, one.grade == own.grade
        if not same_seat or nose + geometry + grade != 2:
            continue
        if not nose:
            text = f"corner radius {code.nose_radius:g} → {one.code.nose_radius:g} mm: {one.designation}"
        elif not geometry:
            text = f"geometry {own.geometry.name} → {one.geometry.name}"
        else:
            text = f"grade {own.grade.name} → {one.grade.name}"
        found.append((one, text))
    return found


def _near_tools(setup: Setup, crib: Any) -> list[tuple[Insert, Holder, str]]:
    own = setup.insert
    found = [(insert, setup.holder, text) for insert, text in near_inserts(setup, crib)]
    for holder in crib.holders:
        turned = holder.code.cutting_edge_angle - setup.holder.code.cutting_edge_angle
        if (holder.code.shape, holder.code.clearance, holder.code.size) == seat(own) and abs(turned) > 1:
            text = f"κr {setup.holder.code.cutting_edge_angle:g} → {holder.code.cutting_edge_angle:g}°: {holder.designation}"
            found.append((own, holder, text))
    return found

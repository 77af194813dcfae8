"""The methods of a cut-off or groove with the tool that is in it: each at the feed that suits it, or why it is none; and the saw."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, replace
from typing import Any

import numpy as np

from cutting.errors import CuttingError
from cutting.mechanics.kinematics import facing_time
from cutting.operations.frame.outcome import Outcome
from cutting.operations.frame.setup import Goal
from cutting.operations.registry import evaluate_quickly
from cutting.operations.slots.cut_off.changes import WIDENED
from cutting.operations.slots.cut_off.setup import WIDER, CutOffSetup
from cutting.operations.slots.face_groove.setup import FaceGrooveWay
from cutting.operations.slots.groove.changes import ways_open
from cutting.operations.slots.groove.setup import GrooveWay
from cutting.studies.study import Study

FEED_TRIES = (0.4, 0.55, 0.7, 0.85, 1.0, 1.15, 1.3, 1.6, 2.0)  # × the feed that is set
# what a band saw clears [cm²/min] by ISO 513 letter, its kerf, what each sawn face leaves to be faced [mm], the seconds that a man
# loses at it, and its rate against the lathe's (common practice, no source)
SAWS = {"P": 40.0, "M": 18.0, "K": 40.0, "N": 120.0, "S": 8.0}
SAW_KERF, SAW_STOCK, SAW_HANDLED, SAW_RATE = 1.5, 1.5, 30.0, 0.25
FACING_FEED, FACED_IN = 0.2, 0.3  # mm/rev; and of the speed that the slot runs on, faster: a face is open (common practice)


@dataclass(frozen=True)
class SlotMethod:
    """A method: its words, when it is the right one (common practice), what it sets, and how it comes out, or why it does not.

    `seconds` and `cost` a piece on the machine; `note` says what is lost or gained beside it.
    """

    title: str
    when: str
    patch: dict[str, Any]
    outcome: Outcome | None = None
    feed: float = 0.0
    seconds: float = 0.0
    cost: float = 0.0
    why_not: str = ""
    present: bool = False
    note: str = ""


Tried = tuple[str, str, dict[str, Any], Any]  # title, when, patch, the set-up or why there is none


def slot_ways(setup: Any, stock: Any = None) -> tuple[SlotMethod, ...]:
    """Every method of the set-up's kind with its own tool, in the goal's order; those that cannot be come last. Raises `CuttingError`."""
    found = [_tried(title, when, patch, other) for title, when, patch, other in _OF_KIND[setup.operation](setup)]
    found = [replace(found[0], present=True), *found[1:]]
    if isinstance(setup, CutOffSetup):
        found.append(_sawn(setup))
    keys = {
        Goal.FASTEST: lambda one: one.seconds,
        Goal.MOST_SECURE: lambda one: -one.outcome.results["secure"].value if one.outcome else 0.0,
    }
    key = keys.get(setup.goal, lambda one: one.cost)
    return (*sorted((one for one in found if not one.why_not), key=key), *(one for one in found if one.why_not))


def _tried(title: str, when: str, patch: dict[str, Any], setup: Any) -> SlotMethod:
    """The method at the feed at which it serves the goal best within its hard limits."""
    if isinstance(setup, str):
        return SlotMethod(title, when, patch, why_not=setup)
    runs, refusal = [], ""
    for share in FEED_TRIES:
        feed = round(share * setup.settings.feed_per_rev, 3)
        try:
            runs.append((feed, evaluate_quickly(setup.with_settings(feed_per_rev=feed))))
        except CuttingError as error:
            refusal = error.message
    held = [run for run in runs if run[1].feasible]
    if not runs:
        return SlotMethod(title, when, patch, why_not=refusal)
    if not held:
        feed, outcome = min(runs, key=lambda run: max(limit.utilisation for limit in run[1].limits))
        worst = max(outcome.limits, key=lambda limit: limit.utilisation)
        return SlotMethod(
            title, when, patch, outcome, feed, why_not=f"{worst.label} at {worst.utilisation:.0%} of its limit at the best feed"
        )
    by = "operation_time" if setup.goal is Goal.FASTEST else "operation_cost"
    feed, outcome = min(held, key=lambda run: run[1].results[by].value)
    seconds, cost = (outcome.results[name].value for name in ("operation_time", "operation_cost"))
    return SlotMethod(title, when, patch, outcome, feed, seconds, cost)


def _cut_off(setup: CutOffSetup) -> Iterator[Tried]:
    straight = setup.with_settings(pull_out_at=None, slot_width=None)
    yield AS_SET, "", {}, setup
    plain = {"settings": {"pull_out_at": None, "slot_width": None}}
    if setup != straight:
        yield "straight in, one overhang", "shallow cuts", plain, straight
    halfway = round(setup.feature.diameter - setup.depth, 1)
    slides = setup.blade.shortest(setup.depth / 2.0) < setup.blade.shortest(setup.depth)
    staged = straight.with_settings(pull_out_at=halfway) if slides else "this blade does not slide in its block"
    yield (
        "blade pulled out halfway", "a deep cut that chatters at the rim: the spindle stands while the blade is set further out",
        {"settings": {"pull_out_at": f"{halfway:g} mm", "slot_width": None}}, staged,
    )  # fmt: skip
    wide = round((1.0 + WIDENED) * setup.insert.width, 2)
    yield (
        "slot widened", "a deep slot in which chips jam or the blade rubs; costs bar, and twice the cut",
        {"settings": {"slot_width": f"{wide:g} mm", "pull_out_at": None}}, straight.with_settings(slot_width=wide),
    )  # fmt: skip
    turned = setup.machine.y_axis and not setup.holding.y_axis
    yield (
        TURNED, ALONG, {"holding": {"y_axis": True}},
        replace(setup, holding=replace(setup.holding, y_axis=True)) if turned
        else "the blade is turned already" if setup.holding.y_axis else f"{setup.machine.name} has no Y axis",
    )  # fmt: skip


def _sawn(setup: CutOffSetup) -> SlotMethod:
    """The blank sawn off outside, and its face turned on the machine afterwards."""
    f, letter = setup.feature, setup.work.material.group.letter
    title, when = "sawn outside, then faced", "large bars, single pieces, blades that do not reach"
    if letter not in SAWS:
        return SlotMethod(title, when, {}, why_not="too hard for a band saw: an abrasive disc, or erode it")
    area = np.pi / 4.0 * (f.diameter**2 - f.bore**2) / 100.0
    sawing = 60.0 * area / SAWS[letter] + SAW_HANDLED
    speed = setup.settings.cutting_speed * (1.0 + FACED_IN)
    spun = setup.machine.drive(setup.settings.spindle_clamp).over(speed, f.diameter)
    facing = 2.0 * float(facing_time(f.diameter, max(f.bore, 0.1), speed, FACING_FEED, spun.top, spun.low))
    metal = (SAW_KERF + 2.0 * SAW_STOCK) / setup.bar.length * setup.bar_price
    cost = (facing + SAW_RATE * sawing) * setup.machine.rate / 3600.0 + metal
    note = f"saw {sawing:.0f} s beside the machine; both faces {facing:.0f} s on it; more bar for kerf and faces"
    return SlotMethod(title, when, {}, seconds=facing, cost=cost, note=note)


def _groove(setup: Any) -> Iterator[Tried]:
    yield f"{AS_SET}: {setup.settings.way.value}", "", {}, setup
    for way in GrooveWay:
        if way is not setup.settings.way:
            wants = "wants an insert with a full radius" if way is GrooveWay.ROUND else "wants a straight edge"
            other = setup.with_settings(way=way) if way in ways_open(setup.insert) else wants
            if way is GrooveWay.ONE and setup.insert.width < setup.feature.narrowest - WIDER:
                other = "the groove is wider than its insert"
            yield way.value, WHEN[way.value], {"settings": {"way": way.value}}, other
    if setup.machine.y_axis and not setup.inside and not setup.settings.y_axis:
        yield TURNED, ALONG, {"settings": {"y_axis": True}}, setup.with_settings(y_axis=True)


def _face_groove(setup: Any) -> Iterator[Tried]:
    if not setup.widened:
        yield "one plunge", "as wide as the insert", {}, setup
        return
    yield f"{AS_SET}: {setup.settings.way.value}", "", {}, setup
    for way in FaceGrooveWay:
        if way is not setup.settings.way:
            wants = "wants an insert with a full radius" if way is FaceGrooveWay.ROUND else "wants a straight edge"
            other = setup.with_settings(way=way) if setup.insert.round_edge == (way is FaceGrooveWay.ROUND) else wants
            yield way.value, WHEN[way.value], {"settings": {"way": way.value}}, other


AS_SET = "as it is set, at its best feed"
TURNED, ALONG = "blade turned by the Y axis", "the force runs along the blade: more feed, less chatter"
WHEN = {  # when each is the right one (common practice, no source)
    "one plunge": "as wide as the insert",
    "side by side": "deep and not much wider than the insert; its chip breaks well",
    "plunge and turn": "shallow and wide: layers turned sideways",
    "ramp": "wide, with a tough edge: down on a slant, no stop at the floor",
    "round path": "heat-resistant metals, weak parts: a chip of even thickness, no notch, low push; corners are left",
    "from the outside in": "the first plunge at the largest Ø, then inwards beside it: the blade clears best",
    "turned across": "wide and shallow: layers turned across the face",
}
_OF_KIND = {"cut off": _cut_off, "groove": _groove, "face groove": _face_groove}
STUDY = Study("slot ways", "methods", "t", tuple(_OF_KIND), ask=slot_ways)

"""Which blades compete for a groove in a face."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import replace
from typing import Any

from cutting.advice.best import Best
from cutting.advice.contest import Check, Contest, Entrants, Try
from cutting.advice.contests.slots import (
    FEED_STEP,
    SPEED_SHARES,
    as_tried,
    by_width,
    entered,
    feeds,
    neutral,
    speeds,
    standing_for,
    usual_checks,
)
from cutting.operations.slots.face_groove.evaluate import MODEL
from cutting.operations.slots.face_groove.numbers import FACE_SHARE, SLOWER_STILL, Numbers
from cutting.operations.slots.face_groove.setup import WIDER, FaceGrooveSetup, FaceGrooveWay, SpindleSense
from cutting.operations.slots.shared.tool import SlotTool
from cutting.quantities.write import Display, display
from cutting.tooling.slot_stock import SlotStock

ONCE = "one plunge"
ROLLS = 1.5  # × its width from which an edge has room to roll in and out (common practice)


def enter(setup: FaceGrooveSetup, stock: SlotStock) -> Entrants:
    """Every pair whose curve enters the first plunge and that reaches the floor, in each way that widens it."""
    setup, f = neutral(setup), setup.feature
    widest = f.width.nominal + (f.width.upper_deviation if f.width.upper_deviation is not None else 0.1)
    first, radius = f.outer_diameter.target, f.corner_radius

    def checks(tool: SlotTool) -> list[Check]:
        return [
            *usual_checks(setup, stock, tool),
            ("width", "wider than the groove", tool.width <= widest + 1e-9),
            ("reach", "does not reach the floor", tool.reach >= f.depth - 1e-9),
            ("range", "curved for other diameters: it would rub", (tool.own["face_low"] <= first) & (first <= tool.own["face_high"])),
            ("inside", "needs a larger diameter inside", first - 2.0 * tool.width >= tool.own["face_inner"]),
            (
                "corner",
                "corner radius larger than the drawing's",
                True if radius is None else tool.round_edge | (tool.corner_radius <= radius + 1e-9),
            ),
            ("edge", "slanted edge", tool.round_edge | (tool.lead_angle == 0)),
        ]

    def ways(tool: SlotTool) -> list[tuple[str, Any]]:
        wide = f.width.target > tool.width + WIDER
        rolls = {FaceGrooveWay.ROUND: tool.round_edge & (f.width.target >= ROLLS * tool.width)}
        return [(ONCE, ~wide & ~tool.round_edge), *((way.value, wide & rolls.get(way, ~tool.round_edge)) for way in FaceGrooveWay)]

    return entered(setup, stock, checks, ways)


def tries(setup: FaceGrooveSetup, field: Entrants, best: Best, part: slice) -> Iterator[Try]:
    """Each way with each width."""
    for way, rows in by_width(field, part):
        chosen = FaceGrooveWay.INWARDS if way == ONCE else FaceGrooveWay(way)
        yield rows, standing_for(neutral(setup).with_settings(way=chosen), field, rows)


def fitted(setup: FaceGrooveSetup, tool: Mapping[str, Any]) -> FaceGrooveSetup:
    """The set-up with a tool put in, and the spindle's sense that its hand wants."""
    spindle = SpindleSense.REVERSE if tool["blade"].hand == "L" else SpindleSense.FORWARD
    return replace(setup, **tool, settings=replace(setup.settings, spindle=spindle))


def columns(x: Numbers) -> tuple[Display, ...]:
    """Way, width, and the least clearance of the blade's curve."""
    way = x.setup.settings.way.value
    room = min(x.standing.outer, x.standing.inner)
    return (
        Display(way, way),
        display(x.setup.insert.width, "length", False),
        display(round(room, 2), "length", False),
    )


def patch(setup: FaceGrooveSetup) -> dict[str, str]:
    """The settings of its own that a candidate sets."""
    s = setup.settings
    return {"way": s.way.value, "spindle": s.spindle.value, "overhang": f"{setup.overhang:g} mm"}


CONTEST = Contest(
    MODEL,
    enter,
    tries,
    as_tried,
    feeds(share=FACE_SHARE),
    speeds(MODEL, SLOWER_STILL),
    frozenset(),
    FEED_STEP,
    SPEED_SHARES,
    ("way", "width", "room"),
    columns,
    patch,
    fitted=fitted,
)

"""Which tools and ways compete for a groove; where its walls lean enough, turning competes too."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace
from typing import Any

import numpy as np

from cutting.advice.best import Best
from cutting.advice.candidate import Candidate
from cutting.advice.contest import Check, Contest, Entrants, Try
from cutting.advice.contests import turned
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
)  # fmt: skip
from cutting.advice.rank import rank
from cutting.errors import CuttingError
from cutting.mechanics.tool_setting import reach_angle
from cutting.operations.slots.groove.evaluate import MODEL
from cutting.operations.slots.groove.numbers import Numbers
from cutting.operations.slots.groove.setup import GrooveSetup, GrooveWay
from cutting.operations.slots.shared.tool import SlotTool
from cutting.operations.turned.feature import Feature
from cutting.quantities.write import Display, display, write
from cutting.tooling.crib import Crib
from cutting.tooling.items import Holder
from cutting.tooling.shapes import SHAPES
from cutting.tooling.slot_stock import SlotStock

MOST_GUESTS = 3
# × the insert's width that a groove is wide before it pays to cut sideways in it, and to ramp to and fro (common practice)
ROOM, RAMP_ROOM = 1.25, 2.0
DEEP_LAYER = 0.6  # of the insert's width: the deeper of the two layers that are tried
WIDE = 2.0  # × its depth: from here on a person would think of turning (common practice)
TOO_SQUARE = (
    "Turning not considered: with walls {:g}° out of square one edge cannot follow both, it would take a right and a left hand "
    "tool; from {:g}° on one slim insert does it."
)
LEAST_WALL = 25.0  # degrees out of square from which a slim turning insert follows both walls (common practice)


def enter(setup: GrooveSetup, stock: SlotStock) -> Entrants:
    """Every pair that reaches and fits the groove, in each way that its insert can go."""
    setup, f = neutral(setup), setup.feature
    radius = f.corner

    def checks(tool: SlotTool) -> list[Check]:
        return [
            *usual_checks(setup, stock, tool),
            ("reach", "does not reach the floor past what stands beside it", tool.reach >= setup.way_down - 1e-9),
            ("width", "wider than the groove", tool.width <= f.widest + 1e-9),
            ("bore", "bar does not pass the bore", tool.own["least_bore"] <= f.diameter if setup.inside else True),
            # a full radius may leave its corners to a second tool; any other corner must fit the drawing's
            (
                "corner",
                "corner radius larger than the drawing's",
                tool.round_edge | (tool.corner_radius <= radius + 1e-9),
            ),
            ("lead", "slanted edge leaves a slanted floor", tool.lead_angle == 0),
        ]

    def ways(tool: SlotTool) -> list[tuple[str, Any]]:
        """As wide as the groove: plunge once; narrower: anything but; a full radius only rolls."""
        one = (f.narrowest <= tool.width + 1e-9) & (tool.width + tool.width_tolerance <= f.widest + 1e-9)
        room = f.width.target >= ROOM * tool.width
        square = ~one & ~tool.round_edge
        ramps = square & (f.width.target >= RAMP_ROOM * tool.width)
        open_to = {
            GrooveWay.ONE: one & ~tool.round_edge,
            GrooveWay.SIDE_BY_SIDE: square,
            GrooveWay.ROUND: tool.round_edge & room,
            GrooveWay.RAMP: ramps,
        }
        return [(way.value, open_to.get(way, square & room)) for way in GrooveWay]

    return entered(setup, stock, checks, ways)


def tries(setup: GrooveSetup, field: Entrants, best: Best, part: slice) -> Iterator[Try]:
    """Each way with each width; layers that are turned in two depths."""
    for name, rows in by_width(field, part):
        way = GrooveWay(name)
        shown = standing_for(neutral(setup), field, rows)
        for layer in (None, DEEP_LAYER * shown.insert.width) if way in (GrooveWay.TURNED, GrooveWay.RAMP) else (None,):
            yield rows, shown.with_settings(way=way, side_depth=layer, side_feed=None)


def columns(x: Numbers) -> tuple[Display, ...]:
    """Way and width."""
    way = x.setup.settings.way.value
    return (
        Display(way, way),
        display(x.setup.insert.width, "length", False),
    )


def patch(setup: GrooveSetup) -> dict[str, str]:
    """The settings of its own that a candidate sets."""
    return {"way": setup.settings.way.value, "overhang": f"{setup.overhang:g} mm", "side_depth": write(setup.layer, "length")}


def turned_feature(setup: GrooveSetup) -> Feature:
    """The groove as a neck to turn: from the surface to the floor, over its mean width."""
    f = setup.feature
    lean = float(np.tan(np.radians(f.wall_angle))) * f.depth
    return Feature(f.diameter, f.floor, f.width.target + lean, max(f.distance_from_chuck - lean / 2.0, 0.0), roughness=f.roughness)


def enters(holder: Holder, wall_angle: float) -> bool:
    """Whether the edges of an insert in this holder clear both walls on the way down and up."""
    major = holder.code.cutting_edge_angle
    minor = float(reach_angle(major, SHAPES[holder.code.shape].included_angle))
    steep = 90.0 - wall_angle
    return minor >= steep and major >= steep


def guests(setup: GrooveSetup, stock: SlotStock, sound: bool) -> tuple[list[Candidate], str]:
    """The best turning tools for a groove whose walls they can follow; or why turning not considered where one would think of it."""
    f = setup.feature
    if setup.inside or f.distance_from_chuck <= 0 or "turn" not in stock.guests:
        return [], ""
    if f.wall_angle < LEAST_WALL:
        return [], TOO_SQUARE.format(f.wall_angle, LEAST_WALL) if f.width.target >= WIDE * setup.depth else ""
    whole: Crib = stock.guests["turn"]()
    corner = f.corner_radius if f.corner_radius is not None else f.depth  # unsaid, a neck may round out
    slim = tuple(insert for insert in whole.inserts if insert.code.shape != "R" and insert.code.nose_radius <= corner)
    crib = Crib(slim, tuple(holder for holder in whole.holders if enters(holder, f.wall_angle)))
    if not crib.inserts or not crib.holders:
        return [], "Turning not considered: no insert of the crib clears both walls with this corner."
    feature = turned_feature(setup)
    try:
        neck = turned.turned_for(setup, crib, feature)
        found = rank(neck, crib, turned.CONTEST, MOST_GUESTS).candidates
    except CuttingError as refused:
        return [], f"Turning not considered: {refused.message}"
    return [_guest(row, feature, setup) for row in found], ""


def _guest(row: Candidate, feature: Feature, setup: GrooveSetup) -> Candidate:
    drawn: dict[str, Any] = {
        "start_diameter": f"{feature.start_diameter:g} mm",
        "end_diameter": setup.feature.floor.entered or f"{feature.end_diameter.nominal:g}",
        "length": f"{feature.length:.6g} mm",
        "distance_from_chuck": f"{feature.distance_from_chuck:.6g} mm",
        "shoulder": False,  # its walls lean
    }
    if feature.roughness is not None:
        drawn["roughness"] = f"{feature.roughness:g} µm"
    way = "turned as a neck"
    settings = {
        "cutting_speed": write(row.cutting_speed, "cutting_speed"),
        "feed_per_rev": write(row.feed, "feed_per_rev"),
        "depth_of_cut": f"{float(np.ceil(row.depth_of_cut * 1e4)) / 1e4:g} mm",
    }
    more = (Display(way, way), Display("–", "–"))
    return replace(row, way=way, more=more, settings=settings, becomes={"operation": "turn", "feature": drawn})


CONTEST = Contest(
    MODEL,
    enter,
    tries,
    as_tried,
    feeds(),
    speeds(MODEL),
    frozenset({"settings.side_depth", "settings.dwell"}),
    FEED_STEP,
    SPEED_SHARES,
    ("way", "width"),
    columns,
    patch,
    guests=guests,
)

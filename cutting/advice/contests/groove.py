"""Which tools and ways compete for a groove; where its walls lean enough, turning competes too."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace
from typing import Any

import numpy as np

from cutting.advice.rank import Candidate, advise
from cutting.advice.rank_trials import Contest, Entry, Field, fitting
from cutting.errors import CuttingError
from cutting.mechanics.tool_setting import reach_angle
from cutting.operations.slots.groove.changes import ways_open
from cutting.operations.slots.groove.evaluate import MODEL
from cutting.operations.slots.groove.numbers import Numbers
from cutting.operations.slots.groove.setup import GrooveSetup, Way
from cutting.operations.slots.shared.fit import usual_rules
from cutting.operations.turned.setup import Feature, Settings, Setup
from cutting.quantities.write import Display, display, write
from cutting.tooling.blades import GrooveBlade, GrooveInsert, NarrowStock
from cutting.tooling.crib import Crib
from cutting.tooling.items import Holder
from cutting.tooling.shapes import SHAPES

MOST_GUESTS = 3
DEEP_LAYER = 0.6  # of the insert's width: the deeper of the two layers that are tried
WIDE = 2.0  # × its depth: from here on a person would think of turning (common practice)
TOO_SQUARE = (
    "Turning does not compete: with walls {:g}° out of square one edge cannot follow both, it would take a right and a left hand "
    "tool; from {:g}° on one slim insert does it."
)
LEAST_WALL = 25.0  # degrees out of square from which a slim turning insert follows both walls (common practice)


def enter(setup: GrooveSetup, stock: NarrowStock) -> Field:
    """Every pair that reaches and fits the groove, in each way that its insert can go."""
    f = setup.feature
    rules = (
        *usual_rules(setup.work, setup.machine),
        ("reach", "does not reach the floor past what stands beside it", lambda i, b: min(i.reach, b.reach) >= setup.way_down - 1e-9),
        ("width", "wider than the groove", lambda i, b: i.width <= f.widest + 1e-9),
        ("bore", "bar does not pass the bore", lambda i, b: not setup.inside or b.least_bore <= f.diameter),
        ("corner", "corner radius larger than the drawing's", lambda i, b: _corner(setup, i)),
        ("lead", "slanted edge leaves a slanted floor", lambda i, b: i.lead_angle == 0),
    )
    pairs, refused = fitting(stock, rules)
    return Field(tuple(_entries(setup, pairs)), refused, len(stock.pairs))


def _corner(setup: GrooveSetup, insert: GrooveInsert) -> bool:
    """A full radius may leave its corners to a second tool; any other corner must fit the drawing's."""
    radius = setup.feature.corner_radius
    return radius is None or insert.round_edge or insert.corner_radius <= radius + 1e-9


def _entries(setup: GrooveSetup, pairs: list[tuple[GrooveInsert, GrooveBlade]]) -> Iterator[Entry]:
    f = setup.feature
    for insert, blade in pairs:
        one = f.narrowest + insert.width_tolerance <= insert.width <= f.widest - insert.width_tolerance
        for way in ways_open(insert):
            if (way is Way.ONE) != (one and way is not Way.ROUND):
                continue  # as wide as the groove: plunge once; narrower: anything but
            deeper = (None, DEEP_LAYER * insert.width) if way in (Way.TURNED, Way.RAMP) else (None,)
            for layer in deeper:
                settings = replace(setup.settings, way=way, overhang=None, side_depth=layer, side_feed=None)
                yield Entry(replace(setup, insert=insert, blade=blade, settings=settings), insert, blade, way.value)


def columns(x: Numbers) -> tuple[Display, ...]:
    """Way and width."""
    way = x.setup.settings.way.value
    return (
        Display(way, way),
        display(x.setup.insert.width, "length", False),
    )


def patch(x: Numbers) -> dict[str, str]:
    """The settings of its own that a candidate sets."""
    return {"way": x.setup.settings.way.value, "overhang": f"{x.setup.overhang:g} mm", "side_depth": write(x.setup.layer, "length")}


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


def guests(setup: GrooveSetup, stock: NarrowStock) -> tuple[list[Candidate], str]:
    """The best turning tools for a groove whose walls they can follow; or why turning does not compete where one would think of it."""
    f = setup.feature
    if setup.inside or f.distance_from_chuck <= 0 or stock.turning is None:
        return [], ""
    if f.wall_angle < LEAST_WALL:
        return [], TOO_SQUARE.format(f.wall_angle, LEAST_WALL) if f.width.target >= WIDE * setup.depth else ""
    whole: Crib = stock.turning()
    corner = f.corner_radius if f.corner_radius is not None else f.depth
    slim = tuple(insert for insert in whole.inserts if insert.code.shape != "R" and insert.code.nose_radius <= corner)
    crib = Crib(slim, tuple(holder for holder in whole.holders if enters(holder, f.wall_angle)))
    if not crib.inserts or not crib.holders:
        return [], "Turning does not compete: no insert of the crib clears both walls with this corner."
    feature = turned_feature(setup)
    try:
        turned = Setup(
            "turn",
            setup.work,
            setup.machine,
            crib.inserts[0],
            crib.holders[0],
            feature,
            Settings(100.0, 0.1, 30.0, setup.settings.coolant),
            setup.holding,
            setup.house,
            setup.batch,
            setup.goal,
            setup.skin,
        )
        found = advise(turned, crib, MOST_GUESTS).candidates
    except CuttingError as refused:
        return [], f"Turning does not compete: {refused.message}"
    return [_guest(row, feature, setup) for row in found], ""


def _guest(row: Candidate, feature: Feature, setup: GrooveSetup) -> Candidate:
    drawn: dict[str, Any] = {
        "start_diameter": f"{feature.start_diameter:g} mm",
        "end_diameter": setup.feature.floor.entered or f"{feature.end.nominal:g}",
        "length": f"{feature.length:.6g} mm",
        "distance_from_chuck": f"{feature.distance_from_chuck:.6g} mm",
        "shoulder": False,  # its walls lean
    }
    if feature.roughness is not None:
        drawn["roughness"] = f"{feature.roughness:g} µm"
    way = "turned as a neck"
    settings = {
        "cutting_speed": write(row.cutting_speed, "cutting_speed"),
        "feed_per_rev": write(row.feed_per_rev, "feed_per_rev"),
        "depth_of_cut": f"{float(np.ceil(row.depth_of_cut * 1e4)) / 1e4:g} mm",
    }
    more = (Display(way, way), Display("–", "–"))
    return replace(row, way=way, more=more, settings=settings, becomes={"operation": "turn", "feature": drawn})


CONTEST = Contest(MODEL, enter, ("way", "width"), columns, patch, guests=guests)

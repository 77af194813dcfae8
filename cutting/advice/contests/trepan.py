"""Which heads and inserts compete for a trepanned ring."""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np

from cutting.advice.best import Best
from cutting.advice.contest import Check, Contest, Entrants, Try
from cutting.advice.contests.slots import (
    FEED_STEP,
    SPEED_SHARES,
    as_tried,
    entered,
    feeds,
    masked,
    neutral,
    speeds,
    standing_for,
    usual_checks,
)
from cutting.operations.slots.shared.tool import SlotTool
from cutting.operations.slots.trepan.evaluate import MODEL
from cutting.operations.slots.trepan.numbers import FACE_SHARE, SLOWER_STILL, Numbers
from cutting.operations.slots.trepan.setup import Cartridges, TrepanFeature, TrepanSetup, room_within
from cutting.quantities.write import Display, display
from cutting.tooling.slot_stock import SlotStock


def enter(setup: TrepanSetup, stock: SlotStock) -> Entrants:
    """Every head that reaches through and cuts the diameter, in each way that its cartridges stand."""
    setup = neutral(setup)

    def checks(tool: SlotTool) -> list[Check]:
        diameter = setup.feature.diameter
        return [
            *(check for check in usual_checks(setup, stock, tool) if check[0] != "seat"),
            ("reach", "does not reach through", tool.reach >= setup.depth - 1e-9),
            ("range", "the head does not cut this diameter", (tool.own["head_low"] <= diameter) & (diameter <= tool.own["head_high"])),
            ("edge", "full radius or slanted edge", ~tool.round_edge & (tool.lead_angle == 0)),
            ("core", "the ring would leave no core", diameter - 2.0 * tool.width > 1.0),
            *second_ring(setup.feature, tool),
        ]

    def ways(tool: SlotTool) -> list[tuple[str, object]]:
        two = tool.own["cartridges"] > 1
        if setup.feature.inner_ring is not None:
            return masked((Cartridges.SAME,), (two,))
        return masked((Cartridges.ONE, Cartridges.SAME, Cartridges.TWO), (~two, two, two))

    return entered(setup, stock, checks, ways)


def second_ring(feature: TrepanFeature, tool: SlotTool) -> list[Check]:
    """What a second ring in the same pass asks of a head: another cartridge, its range, walls that stand."""
    if (second := feature.inner_ring) is None:
        return []
    least, most = room_within(feature.diameter, tool.width)
    return [
        ("cartridges", "one cartridge cuts one ring", tool.own["cartridges"] > 1),
        ("second", "the head does not cut the second ring", tool.own["head_low"] <= second),
        ("wall", "no wall or core would be left", (least <= second) & (second <= most)),
    ]


def tries(setup: TrepanSetup, field: Entrants, best: Best, part: slice) -> Iterator[Try]:
    """Each way that cartridges stand."""
    places = np.arange(part.start, part.stop)
    ways = np.array([field.way(k) for k in places])
    for way in dict.fromkeys(ways.tolist()):
        rows = places[ways == way]
        yield rows, standing_for(neutral(setup).with_settings(cartridges=Cartridges(way)), field, rows)


def columns(x: Numbers) -> tuple[Display, ...]:
    """Cartridges, ring and torque."""
    stand = x.setup.standing.value
    return (
        Display(stand, stand),
        display(x.setup.ring_width, "length", False),
        display(float(x.torque), "torque", False),
    )


def patch(setup: TrepanSetup) -> dict[str, str]:
    """The settings of its own that a candidate sets."""
    return {"cartridges": setup.settings.cartridges.value, "overhang": f"{setup.overhang:g} mm"}


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
    ("cartridges", "ring", "torque"),
    columns,
    patch,
)

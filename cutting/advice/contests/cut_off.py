"""Which blades and inserts compete for a cut-off."""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np

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
from cutting.operations.slots.cut_off.evaluate import MODEL
from cutting.operations.slots.cut_off.numbers import Numbers
from cutting.operations.slots.cut_off.setup import BESIDE, CutOffSetup
from cutting.operations.slots.shared.tool import SlotTool
from cutting.quantities.write import Display, display
from cutting.tooling.slot_stock import SlotStock

# of the feed window, that are tried: a blade starts in the middle, and goes up when its first pieces have been seen (common practice)
MIDDLE = np.array([0.02, 0.15, 0.3, 0.45, 0.6])


def enter(setup: CutOffSetup, stock: SlotStock) -> Entrants:
    """Every pair that reaches, clears the bar, and suits metal and machine; a blade that slides stands out as little as it may."""
    setup = neutral(setup)

    def checks(tool: SlotTool) -> list[Check]:
        return [
            *usual_checks(setup, stock, tool),
            ("reach", "does not reach the centre or the bore", tool.reach >= setup.depth - 1e-9),
            ("edge", "a full radius does not cut off", ~tool.round_edge),
            ("slot", "too narrow: two plunges do not make the slot", (1.0 + BESIDE) * tool.width >= (setup.settings.slot_width or 0.0)),
            ("relief", "support does not clear the bar", tool.own["largest_bar"] >= setup.feature.diameter),
        ]

    return entered(setup, stock, checks)


def tries(setup: CutOffSetup, field: Entrants, best: Best, part: slice) -> Iterator[Try]:
    """One way for all; where the slot is widened each width by itself, for its layers."""
    every = np.arange(part.start, part.stop)
    for rows in (rows for _, rows in by_width(field, part)) if setup.settings.slot_width else (every,):
        yield rows, standing_for(neutral(setup), field, rows)


def columns(x: Numbers) -> tuple[Display, ...]:
    """Width, dish and pip."""
    return (
        display(x.setup.insert.width, "length", False),
        display(1000 * float(x.flatness), "small_length", False),
        display(round(float(x.pip_on_part), 2), "length", False),
    )


CONTEST = Contest(
    MODEL,
    enter,
    tries,
    as_tried,
    feeds(MIDDLE),
    speeds(MODEL),
    frozenset(),
    FEED_STEP,
    SPEED_SHARES,
    ("width", "dish", "pip Ø"),
    columns,
    lambda setup: {"overhang": f"{setup.overhang:g} mm"},
    lambda x: x.kerf_per_piece,
)

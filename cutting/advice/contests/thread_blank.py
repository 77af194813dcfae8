"""A thread outside on a diameter that is still too wide: turned to its blank first, then cut."""

from __future__ import annotations

from contextlib import suppress
from dataclasses import replace
from typing import Any

from cutting.advice.candidate import Before, Candidate
from cutting.advice.contest import Contest
from cutting.advice.contests import turned
from cutting.advice.rank import rank
from cutting.errors import CuttingError
from cutting.operations.threads.shared.feature import ThreadFeature, blank_diameter
from cutting.operations.turned.feature import Feature
from cutting.quantities.dimension import Dimension
from cutting.quantities.write import write

WAY = "turn, thread"
SHOWN = 6


def turned_first(setup: Any, stock: Any, contest: Contest) -> list[Candidate]:
    """Rows with the cut that makes the blank before them; none where the blank is there, or nothing turns it."""
    f: ThreadFeature = setup.feature
    high = f.limits.major.high
    if f.internal or high is None or f.there <= high or "turn" not in stock.guests:
        return []
    blank = blank_diameter(f.thread)
    with suppress(CuttingError):  # what cannot be turned like this is no way
        crib = stock.guests["turn"]()
        feature = Feature(f.there, Dimension(blank, entered=f"{blank:g} mm"), f.length, f.distance, roughing=True)
        cut = turned.turned_for(setup, crib, feature)
        opener = next(iter(rank(cut, crib, turned.CONTEST, 1, False).candidates), None)
        if opener is None:
            return []
        last = replace(setup, feature=replace(f, there=blank))
        return [_joined(row, opener, f, blank) for row in rank(last, stock, contest, SHOWN, False).candidates]
    return []


def _joined(row: Candidate, opener: Candidate, f: ThreadFeature, blank: float) -> Candidate:
    told = {"end_diameter": write(blank, "length"), "length": write(f.length, "length"), "distance_from_chuck": write(f.distance, "length")}
    return replace(
        row,
        way=WAY,
        before=(Before.by(opener, "turn", f"Turn Ø{blank:g}", told),),
        seconds=row.seconds + opener.seconds,
        cost=row.cost + opener.cost,
        left_over=row.left_over + opener.left_over,
        secure=row.secure * opener.secure,
    )

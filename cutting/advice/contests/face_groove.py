"""Which blades compete for a groove in a face."""

from __future__ import annotations

from dataclasses import replace

from cutting.advice.rank_trials import Contest, Entry, Field, fitting
from cutting.operations.slots.face_groove.evaluate import MODEL
from cutting.operations.slots.face_groove.numbers import Numbers
from cutting.operations.slots.face_groove.setup import FaceGrooveSetup, Spindle, Way
from cutting.operations.slots.shared.fit import usual_rules
from cutting.quantities.write import Display, display
from cutting.tooling.blades import NarrowStock


def enter(setup: FaceGrooveSetup, stock: NarrowStock) -> Field:
    """Every pair whose curve enters the first plunge and that reaches the floor, with the spindle's sense that its hand wants."""
    f = setup.feature
    widest = f.width.nominal + (f.width.upper_deviation if f.width.upper_deviation is not None else 0.1)
    first = f.outer_diameter.target
    radius = f.corner_radius
    rules = (
        *usual_rules(setup.work, setup.machine),
        ("width", "wider than the groove", lambda i, b: i.width <= widest + 1e-9),
        ("reach", "does not reach the floor", lambda i, b: min(i.reach, b.reach) >= f.depth - 1e-9),
        ("range", "curved for other diameters: it would rub", lambda i, b: b.face_low <= first <= b.face_high),
        ("inside", "needs a larger diameter inside", lambda i, b: first - 2 * i.width >= b.face_inner),
        ("corner", "corner radius larger than the drawing's", lambda i, b: radius is None or i.corner_radius <= radius + 1e-9),
        ("edge", "full radius or slanted edge", lambda i, b: not i.round_edge and i.lead_angle == 0),
    )
    pairs, refused = fitting(stock, rules)
    entries = []
    for insert, blade in pairs:
        spindle = Spindle.REVERSE if blade.hand == "L" else Spindle.FORWARD
        wide = f.width.target > insert.width + 0.02
        for way in Way if wide else (Way.INWARDS,):
            settings = replace(setup.settings, way=way, spindle=spindle, overhang=None)
            entries.append(
                Entry(replace(setup, insert=insert, blade=blade, settings=settings), insert, blade, way.value if wide else "one plunge")
            )
    return Field(tuple(entries), refused, len(stock.pairs))


def columns(x: Numbers) -> tuple[Display, ...]:
    """Way, width, and the least clearance of the blade's curve."""
    way = x.setup.settings.way.value
    room = min(x.standing.outer, x.standing.inner)
    return (
        Display(way, way),
        display(x.setup.insert.width, "length", False),
        display(round(room, 2), "length", False),
    )


def patch(x: Numbers) -> dict[str, str]:
    """The settings of its own that a candidate sets."""
    s = x.setup.settings
    return {"way": s.way.value, "spindle": s.spindle.value, "overhang": f"{x.setup.overhang:g} mm"}


CONTEST = Contest(MODEL, enter, ("way", "width", "room"), columns, patch)

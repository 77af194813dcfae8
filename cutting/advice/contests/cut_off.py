"""Which blades and inserts compete for a cut-off."""

from __future__ import annotations

from dataclasses import replace

from cutting.advice.rank_trials import Contest, Entry, Field, fitting
from cutting.operations.slots.cut_off.evaluate import MODEL
from cutting.operations.slots.cut_off.numbers import Numbers
from cutting.operations.slots.cut_off.setup import CutOffSetup
from cutting.operations.slots.shared.fit import usual_rules
from cutting.quantities.write import Display, display
from cutting.tooling.blades import NarrowStock


def enter(setup: CutOffSetup, stock: NarrowStock) -> Field:
    """Every pair that reaches, clears the bar, and suits metal and machine; the blade stands at its own shortest overhang."""
    rules = (
        *usual_rules(setup.work, setup.machine),
        ("reach", "does not reach the centre or the bore", lambda i, b: min(i.reach, b.reach) >= setup.depth - 1e-9),
        ("edge", "a full radius does not cut off", lambda i, b: not i.round_edge),
        ("relief", "support does not clear the bar", lambda i, b: b.largest_bar >= setup.feature.diameter),
    )
    pairs, refused = fitting(stock, rules)
    entries = tuple(Entry(replace(setup, insert=i, blade=b, settings=replace(setup.settings, overhang=None)), i, b) for i, b in pairs)
    return Field(entries, refused, len(stock.pairs))


def columns(x: Numbers) -> tuple[Display, ...]:
    """Width, dish and pip."""
    return (
        display(x.setup.insert.width, "length", False),
        display(1000 * x.run.flatness, "small_length", False),
        display(round(x.run.pip_on_part, 2), "length", False),
    )


CONTEST = Contest(
    MODEL,
    enter,
    ("width", "dish", "pip Ø"),
    columns,
    lambda x: {"overhang": f"{x.setup.overhang:g} mm"},
    beside=lambda x: x.kerf.kerf_per_piece if x.kerf else 0.0,
)

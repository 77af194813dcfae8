"""Which heads and inserts compete for a trepanned ring."""

from __future__ import annotations

from dataclasses import replace

from cutting.advice.rank_trials import Contest, Entry, Field, fitting
from cutting.operations.slots.shared.fit import usual_rules
from cutting.operations.slots.trepan.evaluate import MODEL
from cutting.operations.slots.trepan.numbers import Numbers
from cutting.operations.slots.trepan.setup import Cartridges, TrepanSetup
from cutting.quantities.write import Display, display
from cutting.tooling.blades import NarrowStock


def enter(setup: TrepanSetup, stock: NarrowStock) -> Field:
    """Every head that reaches through and cuts the diameter, in each way that its cartridges stand."""
    rules = (
        *(rule for rule in usual_rules(setup.work, setup.machine) if rule[0] != "seat"),
        ("reach", "does not reach through", lambda i, b: min(i.reach, b.reach) >= setup.depth - 1e-9),
        ("range", "the head does not cut this diameter", lambda i, b: b.head_low <= setup.feature.diameter <= b.head_high),
        ("edge", "full radius or slanted edge", lambda i, b: not i.round_edge and i.lead_angle == 0),
    )
    pairs, refused = fitting(stock, rules)
    entries = [
        Entry(replace(setup, insert=i, blade=b, settings=replace(setup.settings, cartridges=stand, overhang=None)), i, b, stand.value)
        for i, b in pairs
        for stand in ((Cartridges.ONE,) if b.cartridges < 2 else (Cartridges.SAME, Cartridges.TWO))
    ]
    return Field(tuple(entries), refused, len(stock.pairs))


def columns(x: Numbers) -> tuple[Display, ...]:
    """Cartridges, ring and torque."""
    stand = x.setup.settings.cartridges.value
    return (
        Display(stand, stand),
        display(x.setup.ring_width, "length", False),
        display(x.torque, "torque", False),
    )


def patch(x: Numbers) -> dict[str, str]:
    """The settings of its own that a candidate sets."""
    return {"cartridges": x.setup.settings.cartridges.value, "overhang": f"{x.setup.overhang:g} mm"}


CONTEST = Contest(MODEL, enter, ("cartridges", "ring", "torque"), columns, patch)

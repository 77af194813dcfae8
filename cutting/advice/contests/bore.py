"""Which inserts in which bars compete for a bore: turning's own contest, each bar as short as the depth lets it be."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

import numpy as np

from cutting.advice.contests.turned import CONTEST as TURNED
from cutting.operations.frame.over_passes import of_one
from cutting.operations.holes.bore.evaluate import MODEL
from cutting.operations.holes.bore.limits import chip_room, jaw_lobes
from cutting.operations.turned.physics import Cut
from cutting.quantities.write import Display, display
from cutting.tooling.bars import body_of

HEADS = ("bar", "out", "springs")
FURTHER = ("price of the bar", "stiffness", "natural frequency", "stands in width of cut", "room for chips", "jaws' lobes on Ø")


def columns(x: Cut) -> tuple[Display, ...]:
    """What the bar is of, how far it stands out and springs; and further its price, what makes it sing, and what it leaves the chips."""
    bar = x.setup.holder.code
    slender = f"{x.setup.overhang / bar.shank_height:.1f}×D"
    name = f"{body_of(bar.bar).name} Ø{bar.shank_height:g}"
    springs = display(1000.0 * float(np.ravel(x.size_error)[-1]), "small_length", False)
    stiffness = f"{0.001 / float(np.ravel(x.cutter.bar_compliance)[0]):.3g} N/µm"
    frequency = f"{float(np.ravel(x.cutter.bar_frequency)[0]):.0f} Hz"
    room = f"{100.0 * float(np.ravel(chip_room(x))[0]):.0f} %"
    return (
        Display(name, name),
        Display(slender, slender),
        springs,
        display(x.setup.holder.price, "money"),
        Display(stiffness, stiffness),
        Display(frequency, frequency),
        display(float(np.ravel(np.minimum(x.stable_part, x.stable_tool))[-1]), "length"),
        Display(room, room),
        display(1000.0 * jaw_lobes(x.setup), "small_length"),
    )


def one_of(x: Cut, k: int, setup: Any) -> Cut:
    """The numbers of one of many pairs, in its own set-up."""
    own: dict[str, Any] = dict(of_one(x, k))
    return replace(x, case=replace(x.case, setup=setup), cutter=x.cutter.take(k), **own)


CONTEST = replace(TURNED, model=MODEL, heads=HEADS, columns=columns, apart=one_of, further=FURTHER)

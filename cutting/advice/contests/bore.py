"""Which inserts in which bars compete for a bore: turning's own contest, each bar as short as the depth lets it be."""

from __future__ import annotations

from dataclasses import replace

import numpy as np

from cutting.advice.contests.turned import CONTEST as TURNED
from cutting.operations.holes.bore.evaluate import MODEL
from cutting.operations.turned.physics import Cut
from cutting.quantities.write import Display, display
from cutting.tooling.bars import body_of

HEADS = ("bar", "out", "springs")


def columns(x: Cut) -> tuple[Display, ...]:
    """What the bar is of, how many diameters it stands out, and how far it springs on the diameter."""
    bar = x.setup.holder.code
    slender = f"{x.setup.overhang / bar.shank_height:.1f}×D"
    name = f"{body_of(bar.bar).name} Ø{bar.shank_height:g}"
    springs = display(1000.0 * float(np.ravel(x.size_error)[-1]), "small_length", False)
    return Display(name, name), Display(slender, slender), springs


CONTEST = replace(TURNED, model=MODEL, heads=HEADS, columns=columns)

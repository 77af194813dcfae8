"""The ladder of the depth of cut."""

from __future__ import annotations

import numpy as np

from cutting.operations.frame.nudges import Ladder, trim
from cutting.operations.turned.setup import Setup
from cutting.quantities.kinds import KINDS, factor

MOST = 24  # passes at the ladder's foot


def depths(setup: Setup, system: str) -> Ladder:
    """The ladder of the depth of cut: depths that make whole numbers of equal cuts."""
    # rounded up a hair so that the text still gives the same number of passes
    last = setup.last_depth  # a planned last cut keeps its depth
    depths = [(setup.stock_to_remove - (last or 0.0)) / passes for passes in range(MOST, 0, -1)]
    unit = KINDS["length"]
    scale = factor(unit.unit, unit.inch_unit) if system == "inch" else 1.0
    decimals, label = (5, "in") if system == "inch" else (4, "mm")
    rungs = tuple(f"{trim(float(np.ceil(d * scale * 10**decimals) / 10**decimals), decimals)} {label}" for d in depths)
    return Ladder(rungs, max(0, MOST - min(setup.pass_count - (last is not None), MOST)), 1, 3)

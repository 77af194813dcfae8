"""Runs a set-up's own tool and settings through the physics."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from cutting.operations.setup import Setup
from cutting.operations.single_point.case import Case, Cutter, case_of, single_cutter
from cutting.operations.single_point.physics import Cut, cut
from cutting.working import Silent

Array = NDArray[np.float64]


def pass_diameters(setup: Setup) -> Array:
    """Uncut diameter of every pass [mm]; equal cuts."""
    start = setup.feature.start_diameter
    if setup.operation == "face":
        return np.full(setup.pass_count, start)
    return start - 2.0 * actual_depth(setup) * np.arange(setup.pass_count, dtype=np.float64)


def actual_depth(setup: Setup) -> float:
    """Depth of each of the equal cuts [mm]."""
    return setup.stock_to_remove / setup.pass_count


def run(setup: Setup, record: Silent) -> tuple[Case, Cutter, Cut]:
    """Evaluate a set-up with a recorder of choice."""
    case, cutter = case_of(setup), single_cutter(setup)
    s = setup.settings
    return case, cutter, cut(case, cutter, s.cutting_speed, s.feed_per_rev, actual_depth(setup), pass_diameters(setup), record)

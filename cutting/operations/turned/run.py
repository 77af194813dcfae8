"""The numbers of turning and facing: a set-up's passes through the physics, for its own tool or for many."""

from __future__ import annotations

from typing import Any

import numpy as np

from cutting.operations.turned.case import Cutter, case_of, single_cutter
from cutting.operations.turned.physics import Cut, cut
from cutting.operations.turned.plan import pass_depths, pass_diameters
from cutting.operations.turned.setup import Setup
from cutting.working import Silent


def numbers(setup: Setup, cutter: Cutter, speed: Any, feed: Any, record: Silent) -> Cut:
    """Everything computed at speeds [m/min] and feeds [mm/rev] over the set-up's passes. Raises `CuttingError`."""
    depths = pass_depths(setup)
    alike = depths[:1] if np.all(depths == depths[0]) else depths  # equal passes differ in their diameter alone
    return cut(case_of(setup), cutter, speed, feed, alike, pass_diameters(setup), record)


def run(setup: Setup, record: Silent) -> Cut:
    """The set-up's own tool at its own settings. Raises `CuttingError`."""
    return numbers(setup, single_cutter(setup), setup.settings.cutting_speed, setup.settings.feed_per_rev, record)

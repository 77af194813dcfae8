"""Runs a set-up's own tool and settings through the physics."""

from __future__ import annotations

from cutting.operations.turned.case import Case, Cutter, case_of, single_cutter
from cutting.operations.turned.physics import Cut, cut
from cutting.operations.turned.plan import pass_depths, pass_diameters
from cutting.operations.turned.setup import Setup
from cutting.working import Silent


def run(setup: Setup, record: Silent) -> tuple[Case, Cutter, Cut]:
    """Evaluate a set-up with a recorder of choice."""
    case, cutter = case_of(setup), single_cutter(setup)
    s = setup.settings
    return case, cutter, cut(case, cutter, s.cutting_speed, s.feed_per_rev, pass_depths(setup), pass_diameters(setup), record)

"""An operation as the bench paints it: its outcome, with the part that it is cut from and what it leaves."""

from __future__ import annotations

from typing import Any

from cutting.operations.registry import explore
from server.jobs.document.outcomes import outcome_of
from server.jobs.kinds import VIEWERS
from server.jobs.shown.present import evaluation
from server.jobs.shown.state import part_before, stages_of
from server.shop import Shop


def evaluated(document: dict[str, Any], entry: dict[str, Any], setup: Any, units: str, stock: Shop) -> dict[str, Any]:
    """What repaints at once. Raises `CuttingError`."""
    outcome = outcome_of(setup)
    staged = VIEWERS[setup.operation].staged
    drawn = stages_of(document, entry, setup, outcome.passes, stock) if staged else ()
    part = () if staged else part_before(document, entry, stock).outline
    return evaluation(setup, outcome, explore(setup), entry["settings"], units, part, drawn)

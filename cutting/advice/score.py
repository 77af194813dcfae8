"""What the goal orders candidates by, of whatever kind of operation."""

from __future__ import annotations

from typing import TYPE_CHECKING, Any

from cutting.operations.frame.setup import Goal

if TYPE_CHECKING:
    from cutting.advice.rank import Candidate

STOP_MINUTES = 45.0  # what an unplanned stop takes from an unattended machine (common practice)


def score(setup: Any, row: Candidate) -> float:
    """Money, seconds, or security with a stop weighed as what it costs: less is better."""
    if setup.goal is Goal.FASTEST:
        return row.seconds + 1e-3 * row.cost
    if setup.goal is Goal.MOST_SECURE:
        shortfall = max(setup.house.secure_probability - 0.02 - row.secure, 0.0)
        stop = STOP_MINUTES / 60.0 * setup.machine.rate * (1.0 - row.secure) / max(row.change_parts, 1.0)
        return float(shortfall * 1e4 + stop + row.cost + row.beside)
    return row.cost + row.beside

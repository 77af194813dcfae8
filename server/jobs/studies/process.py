"""The present process of an operation against another, or against the plan, as the API gives it."""

from __future__ import annotations

from typing import Any

import numpy as np

from cutting.money.drivers import DRIVERS, Process, pieces_to_match, saving_by_driver
from cutting.operations.registry import judged
from cutting.quantities import Display, display

WORDS = {
    "seconds": ("seconds per piece, without edge changes", "duration"),
    "price": ("price of an insert or tool", "money"),
    "edges": ("edges on it", "count"),
    "pieces": ("pieces per edge", "count"),
    "change": ("edge change, s", "duration"),
    "rate": ("machine rate per hour", "money"),
}
SHARES = {"machine": "machine, per piece", "edge changes": "edge changes, per piece", "edges": "edges, per piece"}


def planned(setup: Any) -> Process:
    """The drivers of the operation as it is planned: an edge at its own price, changed as planned."""
    outcome, x = judged(setup)
    pieces = outcome.results["change_parts"].value
    change = 60.0 * setup.machine.edge_change_time  # the machine tells it in minutes
    seconds = outcome.results["operation_time"].value - change / pieces
    return Process(seconds, float(np.ravel(x.edge_cost)[-1]), 1.0, pieces, change, setup.machine.rate)


def process_out(setup: Any, given: dict[str, Any] | None) -> dict[str, Any]:
    """Both processes driver by driver, what each driver saves, and from how many pieces per edge the other way pays."""
    plan = planned(setup)
    if not given:
        nothing = dict.fromkeys(("present", "proposed", "saving"))
        return {"rows": [], "shares": [], **nothing, "says": [], "of_plan": True, "plan": _typed(plan)}
    present = Process(**given["present"])
    proposed = Process(**given["proposed"]) if given["proposed"] else plan
    saved, saving = saving_by_driver(present, proposed), present.cost - proposed.cost
    return {
        "rows": [
            {
                "label": label,
                "present": _told(getattr(present, name), kind),
                "proposed": _told(getattr(proposed, name), kind),
                "saves": display(saved[name], "money"),
            }
            for name, (label, kind) in WORDS.items()
        ],
        "shares": [
            {"label": label, "present": display(present.shares[name], "money"), "proposed": display(proposed.shares[name], "money"),
             "saves": display(present.shares[name] - proposed.shares[name], "money")}
            for name, label in SHARES.items()
        ],
        "present": display(present.cost, "money"),
        "proposed": display(proposed.cost, "money"),
        "saving": display(saving, "money"),
        "says": _says(present, proposed),
        "of_plan": given["proposed"] is None,
        "plan": _typed(plan),
    }  # fmt: skip


def _told(value: float, kind: str) -> Display:
    return display(round(value, 2), kind)


def _typed(process: Process) -> dict[str, str]:
    """The plan's drivers as they are typed, to begin a proposal from."""
    return {name: f"{getattr(process, name):.4g}" for name in DRIVERS}


def _says(present: Process, proposed: Process) -> list[str]:
    least = pieces_to_match(present, proposed)
    if least is None:
        return ["No edge lasts long enough for the other way to pay: its machine time alone costs more."]
    held = "more than it makes" if least > proposed.pieces else f"of the {proposed.pieces:.0f} that it makes"
    return [f"The other way costs no more from {least:.1f} pieces per edge, {held}."]

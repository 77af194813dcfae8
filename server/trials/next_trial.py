"""What to try next: of the tools that come close to the chosen one, the trial that is worth most."""

from __future__ import annotations

from typing import Any

import numpy as np

from cutting.belief.bands import band
from cutting.errors import CuttingError
from cutting.learning.worth import worth_of_trial
from cutting.quantities import write
from server.jobs.choice.rankings import ranked
from server.jobs.document.plan import entry_of, request_of
from server.jobs.kept import actions
from server.shop import shop

LOOKED_AT = 12  # rows of the ranking
EDGES = 3  # edges that a trial takes to their end
HANDLING_HOURS = 0.25  # for setting it up and looking (common practice, no source)
SHAPE = 3.0  # of the scatter of lives, where it is not known better


def what_to_try(job_id: int, operation: str) -> list[str]:
    """In sentences: which tool against the first choice, how many edges, what it would decide, save a year and cost."""
    revision, stock = actions.newest(job_id), shop()
    document, entry = entry_of(revision.document, operation)
    try:
        setup, crib = request_of(document, entry, None, stock)
        rows = ranked(setup, crib, stock).candidates[:LOOKED_AT]
    except CuttingError as error:
        return [f"Nothing can be compared: {error.message}"]
    if len(rows) < 2:
        return ["There is one choice only: nothing to decide between."]
    yearly = float(document["batch"].get("yearly") or document["batch"]["pieces"])
    rate = setup.machine.rate
    before = band("life", setup.operation).spread
    after = float((before**-2 + EDGES * SHAPE**2) ** -0.5)
    first = rows[0]
    found = []
    for other in rows[1:]:
        if other.grade == first.grade and other.geometry == first.geometry:
            continue
        edges = [one.edge_cost / max(one.change_parts, 1.0) for one in (first, other)]
        # what is not known of one grade is mostly not known of the other too; half of the variance is its own
        own = float(np.sqrt(0.5))
        known, told = (own * float(np.hypot(edges[0] * s0, edges[1] * s1)) for s0, s1 in ((before, before), (before, after)))
        costs = EDGES * other.edge_cost + HANDLING_HOURS * rate
        found.append((worth_of_trial(other.cost - first.cost, known, told, yearly, costs), other))
    if not found:
        return ["All that comes close is of the same grade and geometry: nothing to decide between."]
    worth, other = max(found, key=lambda pair: pair[0].net)
    money = [write(value, "money", "metric") for value in (other.cost - first.cost, worth.saves, worth.costs)]
    if worth.net <= 0:
        return [
            f"No trial is worth its cost here: the best, {_called(other)} against {_called(first)}, would save {money[1]} a year "
            f"on average and cost {money[2]}."
        ]
    return [
        f"{EDGES} edges of {_called(other)} to their end, against {_called(first)}, would decide between the two: it is dearer by "
        f"{money[0]} a piece as far as is known, and the trial would change the choice {100 * worth.changes:.0f} times of 100.",
        f"It would save {money[1]} a year on average over {yearly:.0f} pieces, and costs {money[2]}.",
    ]


def _called(one: Any) -> str:
    return " + ".join(dict.fromkeys(one.tool.values()))

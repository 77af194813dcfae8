"""The trouble card: one page for the machine, what may be seen in this operation, where to look, what to do, from its own numbers."""

from __future__ import annotations

from typing import Any

from cutting.clinic.changes import offer
from cutting.clinic.suspects import ClinicCase, case_of, diagnose
from cutting.clinic.words import CAUTIONS, Symptom, look, ward
from cutting.operations.frame.outcome import Outcome
from server.jobs.document.outcomes import outcome_of
from server.jobs.document.plan import setup_of
from server.jobs.models import Revision
from server.jobs.sheet.content import DEFER
from server.shop import Shop

MOST_SEEN = 8  # symptoms that one page holds, with two causes each
CAUSES = 2  # of each symptom


def trouble_card(revision: Revision, entry: dict[str, Any], units: str, stock: Shop) -> dict[str, Any]:
    """What stands on the card. Raises `CuttingError` for an operation that cannot be."""
    system = "inch" if units == "inch" else "metric"
    setup = setup_of(revision.document, entry, None, stock)
    outcome = outcome_of(setup)
    case = case_of(setup, outcome)
    nearest = sorted(ward(case.kind).symptoms, key=lambda one: -_near(one, outcome))[:MOST_SEEN]
    rows = [row for one in nearest for row in _rows(case, setup, outcome, one, system)]
    cautions = dict.fromkeys(row["caution"] for row in rows if row["caution"])
    return {
        "job": revision.document["name"], "revision": revision.number, "sheet": "trouble card",
        "head": [
            ("operation", f"{entry['number']} {entry['title']}"),
            ("tool", " + ".join(setup.tool_names.values())),
            ("material", setup.work.material.name),
            ("machine", setup.machine.name),
        ],
        "rows": rows, "cautions": [CAUTIONS[name] for name in cautions], "defer": DEFER,
    }  # fmt: skip


def _near(one: Symptom, outcome: Outcome) -> float:
    """How near the operation is to what this symptom tells of."""
    used = {limit.name: limit.utilisation for limit in outcome.limits}
    return used.get(one.limit_in(used), 0.0)


def _rows(case: ClinicCase, setup: Any, outcome: Outcome, one: Symptom, system: str) -> list[dict[str, Any]]:
    found: list[dict[str, Any]] = []
    for suspect in diagnose(case, [one.name], {}).suspects:
        cause = suspect.cause
        if cause is None or one.tells not in cause.shows:
            continue
        made = offer(setup, cause, None, outcome)
        told = getattr(made.words, system) if made.words else made.forbidden
        do = f"{cause.change}: {told}" if told else cause.change
        asked = look(case.kind, cause.look)
        found.append({"seen": "" if found else one.title, "cause": cause.title, "look": asked.question, "do": do, "caution": asked.caution})
        if len(found) == CAUSES:
            break
    return found

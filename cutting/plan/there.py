"""What a step finds in the part as it was made before: the hole on its axis or on its circle, whatever it was told of it."""

from __future__ import annotations

from typing import Any

from cutting.plan.plan import Plan, Step
from cutting.plan.values import Values, given
from cutting.workpiece.solid import Solid

OPENS = ("drill", "mill hole", "bore")  # kinds that make a hole
SAME = 1e-3  # mm by which two circles may differ and be one


def hole_there(plan: Plan, step: Step, part: Solid, feature: dict[str, Any]) -> dict[str, float]:
    """The diameter [mm] that a step finds by its own field's name, and no more depth than is there; nothing where no step made it.

    A thread asks for `there` and `hole`, a reamer or a drill for `pilot`.
    """
    name = next((one for one in ("there", "pilot") if step.of.fields.has("feature", one)), "")
    if not name or feature.get("side") == "outside":
        return {}
    circle = feature.get("circle")
    found = _on_circle(plan, step, circle) if circle not in (None, "") else (part.bore, part.bore_depth) if part.bore > 0 else None
    if found is None:
        return {}
    diameter, depth = found
    if name == "pilot" and not diameter < _size(feature.get("diameter")):
        return {}
    there: dict[str, float] = {name: diameter} if name == "there" or circle not in (None, "") else {}
    if step.of.fields.has("feature", "hole") and not feature.get("through"):
        told = feature.get("hole")
        there["hole"] = depth if told is None else min(float(told), depth)
    return there


def _on_circle(plan: Plan, step: Step, circle: Any) -> tuple[float, float] | None:
    """Diameter and depth of the holes that an earlier step made on the same circle, as the last one left them."""
    found = None
    for one in plan.earlier(step):
        if one.kind in OPENS and isinstance(one.told, Values) and one.clamping.turned_round == step.clamping.turned_round:
            told = dict(given(one.told))
            if told.get("circle") not in (None, "") and abs(float(told["circle"]) - float(circle)) < SAME:
                found = (_diameter(told), float(told.get("depth") or 0.0) or 1e6)
    return found


def _diameter(told: dict[str, Any]) -> float:
    return _size(told.get("diameter") or told.get("end_diameter"))


def _size(said: Any) -> float:
    return float(getattr(said, "target", said) or 0.0)

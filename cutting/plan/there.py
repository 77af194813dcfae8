"""What a step finds in the part as it was made before: the hole on its axis or on its circle, whatever it was told of it."""

from __future__ import annotations

from typing import Any

from cutting.errors import CuttingError
from cutting.plan.plan import Plan, Step
from cutting.plan.values import Values, given
from cutting.workpiece.solid import Solid, radius_at

OPENS = ("drill", "mill hole", "bore")  # kinds that make a hole
SAME = 1e-3  # mm by which two circles may differ and be one


def hole_there(plan: Plan, step: Step, part: Solid, feature: dict[str, Any]) -> dict[str, float]:
    """The diameter [mm] that a step finds by its own field's name, and no more depth than is there; nothing where no step made it.

    A thread asks for `there` and `hole`, a reamer or a drill for `pilot`, a bore for the narrowest Ø over its depth. Raises
    `CuttingError` for a bore in a part that is closed there and that nobody said otherwise of.
    """
    if step.kind == "bore":
        if feature.get("start_diameter") in (None, ""):
            raise CuttingError("feature.start_diameter", "is missing: the part is closed. Drill it before, or say how wide the hole is.")
        return {"there": _open_over(part, float(feature.get("length") or 0.0))}
    name = next((one for one in ("there", "pilot") if step.of.fields.has("feature", one)), "")
    if not name or feature.get("side") == "outside":
        return {}
    circle = feature.get("circle")
    if circle not in (None, ""):
        return _found(step, feature, name, _on_circle(plan, step, circle))
    if name == "pilot":
        open_now = _open_over(part, float(feature.get("depth") or 0.0))
        return {"pilot": open_now} if open_now < _size(feature.get("diameter")) else {}
    return _found(step, feature, name, (part.bore, part.bore_depth))


def _found(step: Step, feature: dict[str, Any], name: str, hole: tuple[float, float] | None) -> dict[str, float]:
    """What a hole of a diameter and depth [mm] is to the step; on a circle None where no step made it: it stays as it is told."""
    if hole is None or (name == "pilot" and not hole[0] < _size(feature.get("diameter"))):
        return {}
    there = {name: hole[0]}
    if step.of.fields.has("feature", "hole") and not feature.get("through") and hole[0] > 0:
        told = feature.get("hole")
        there["hole"] = hole[1] if told is None else min(float(told), hole[1])
    return there


def _open_over(part: Solid, depth: float) -> float:
    """The narrowest diameter [mm] that stands open from the face to a depth [mm]; 0 where the part is closed before."""
    floor = max(part.face - depth, part.back_end or 0.0)
    places = [floor + SAME, part.face - SAME, *(p for p, _ in part.inside if floor < p < part.face)]
    return 2.0 * min(radius_at(part.inside, place) for place in places)


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

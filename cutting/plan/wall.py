"""What a step would leave of the part: a cut through the wall into the bore, or a neck that carries nothing, is refused by name."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

from cutting.errors import CuttingError, OutOfRange
from cutting.plan.plan import Step, region
from cutting.workpiece.solid import Region, Side, Solid, radius_at

LEAST_WALL = 0.1  # mm that must stand where a wall stood (below it there is a hole, whatever the tolerance)
NECK = 0.1  # of the diameter that a groove in solid metal leaves at the least: less is a cut-off (common practice)
SIZES = ("floor", "end_diameter", "diameter")  # the field that a cut's size is told in


def check_wall(step: Step, part: Solid, feature: dict[str, Any]) -> None:
    """Raise `CuttingError` where a step would cut through the part that it finds, naming the field and what may be."""
    try:
        taken = region(step.kind, feature)
    except CuttingError:  # what cannot be read is said where it is read
        return
    if taken.side not in (Side.OUTSIDE, Side.INSIDE, Side.BORE):
        return
    if any(near < part.outside[0][0] for near, _, _ in taken.spans):  # not on the part at all: that is said by its place
        return
    after = part.without(taken)
    field = next((f"feature.{one}" for one in SIZES if step.of.fields.has("feature", one)), "feature")
    for place in _places(taken, part):
        inner, outer = radius_at(after.inside, place), radius_at(after.outside, place)
        stood = radius_at(part.outside, place) - radius_at(part.inside, place)
        if taken.side is Side.OUTSIDE and inner > 0 and outer - inner < LEAST_WALL < stood:
            wide = 2.0 * (inner + LEAST_WALL)
            said = f"Ø{2 * outer:.4g} is through the wall: the bore there is Ø{2 * inner:.4g} mm."
            raise OutOfRange(field, said, f"above Ø{wide:.4g} mm")
        if taken.side is not Side.OUTSIDE and outer - inner < LEAST_WALL < stood:
            said = f"Ø{2 * inner:.4g} is through the wall: the part there is Ø{2 * outer:.4g} mm outside."
            raise OutOfRange(field, said, f"below Ø{2.0 * (outer - LEAST_WALL):.4g} mm")
        if step.kind == "groove" and inner <= 0 and outer < NECK * radius_at(part.outside, place):
            least = 2.0 * NECK * radius_at(part.outside, place)
            said = f"Ø{2 * outer:.4g} leaves a neck that does not carry the part: that is a cut-off."
            raise OutOfRange(field, said, f"from Ø{least:.4g} mm")


def _places(taken: Region, part: Solid) -> Iterator[float]:
    """Places on the part where what is left changes, inside the cut."""
    spans = taken.spans
    if taken.side is Side.BORE:
        spans = tuple((part.face - far, part.face - near, d) for near, far, d in taken.spans or ((0.0, taken.depth, taken.outer),))
    least = part.back_end if part.back_end is not None else 0.0
    for near, far, _ in spans:
        low, high = max(near, least), min(far, part.end) - 1e-6
        if low < high:
            yield low
            yield from (p for p, _ in (*part.outside, *part.inside) if low < p < high)

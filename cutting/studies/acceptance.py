"""What is asked of a drilled hole and what each of its layers gets: size, finish, burr, fibres, heat; and other drills of the size."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

import numpy as np

from cutting.errors import CuttingError
from cutting.operations.frame.outcome import Outcome, Severity, Standing
from cutting.operations.holes.drill.changes import from_stock
from cutting.operations.holes.drill.evaluate import MODEL
from cutting.operations.holes.drill.numbers import Numbers
from cutting.operations.holes.drill.setup import DrillSetup
from cutting.studies.study import Study

MOST_DRILLS = 12
# what is measured at a hole, with its kind of quantity
MEASURED = {
    "tolerance": "length", "finish": "small_length", "burr": "length", "position": "length", "straightness": "length", "count": "count",
}  # fmt: skip


@dataclass(frozen=True)
class AskedOfHole:
    """One thing that is asked: its limit's name, label and kind, what is predicted by layer (None: not of that layer), the bounds, the
    chance that it holds, how it stands (None where nothing is asked), and whether something can be measured for it.
    """

    name: str
    label: str
    kind: str
    by_layer: tuple[float | None, ...]
    asked: tuple[float | None, float | None]
    chance: float | None
    standing: Standing | None
    measurable: bool

    def met_by(self, value: float | None) -> bool | None:
        """Whether what was measured is within what is asked; None where nothing is asked or measured."""
        low, high = self.asked
        if value is None or (low is None and high is None):
            return None
        return (low is None or value >= low) and (high is None or value <= high)


@dataclass(frozen=True)
class OtherDrill:
    """A drill of the size at this speed and feed: its point, thrust in the layer that parts soonest over what parts it, the burr [mm],
    holes and money a piece; `harm` names the hard limit that it breaks first, blank for none.
    """

    name: str
    point: str
    thrust: float
    parts: float | None
    burr: float
    holes: float
    cost: float
    harm: str
    present: bool
    patch: dict[str, Any]


@dataclass(frozen=True)
class Acceptance:
    """The list: its layers, what is asked and predicted, what harms, what is only not ideal (label and how far over), other drills."""

    layers: tuple[str, ...]
    asked: tuple[AskedOfHole, ...]
    harms: tuple[str, ...]
    tastes: tuple[tuple[str, float], ...]
    drills: tuple[OtherDrill, ...]


def acceptance(setup: DrillSetup, stock: Any = None) -> Acceptance:
    """What is asked of a hole against what each layer gets. Raises `CuttingError`."""
    outcome, x = MODEL.judged(setup)
    over = [one for one in outcome.limits if one.wanting]
    return Acceptance(
        tuple(layer.name for layer in setup.layers) or (setup.work.material.name,),
        tuple(_asked(setup, outcome, x)),
        tuple(one.label for one in over if one.severity is Severity.HARD),
        tuple((one.label, one.utilisation) for one in over if one.severity is Severity.SOFT),
        _drills(setup, x, stock),
    )


def _asked(setup: DrillSetup, outcome: Outcome, x: Numbers) -> list[AskedOfHole]:
    """The rows in the order of a drawing: size, wall, exits, place, then what harms though nobody drew it."""
    f, limits, count = setup.feature, {one.name: one for one in outcome.limits}, x.layers.count

    def row(name: str, label: str, kind: str, values: Any, low: float | None, high: float | None, where: Any = True) -> AskedOfHole:
        spread = np.broadcast_to(np.asarray(values, float).reshape(-1), (count,)) if np.size(values) in (1, count) else np.ravel(values)
        own = np.broadcast_to(np.asarray(where), (count,))
        shown = tuple(float(value) if there else None for value, there in zip(spread, own, strict=True))
        limit = limits.get(name)
        standing = limit.standing if limit and (low is not None or high is not None) else None
        return AskedOfHole(name, label, kind, shown, (low, high), limit.holds if limit else None, standing, name in MEASURED)

    size = f.diameter
    low, high = (None if off is None else size.nominal + off for off in (size.lower_deviation, size.upper_deviation))
    laminates = x.layers.laminate
    found = [
        row("tolerance", "hole Ø", "length", x.diameter_cut + x.width / 2.0, low, high),
        row("finish", "finish Ra", "small_length", x.roughness, None, f.roughness),
        row("burr", "burr, worn", "length", x.burr, None, f.burr, ~laminates),
        row("position", "position, zone Ø", "length", x.position, None, f.position),
        row("straightness", "straightness", "length", x.straightness, None, f.straightness),
        row("count", "reliable holes, per drill", "count", x.sure_holes, float(f.asked_holes) if f.asked_holes else None, None),
    ]
    if np.isfinite(x.layers.push_out).any():
        held = float(np.min(x.opens))
        found.append(row("push_out", "delamination thrust", "force", x.thrust, None, held, np.isfinite(x.layers.push_out)))
    hottest = float(np.min(np.broadcast_to(x.tool.softening, (count,))))
    found.append(row("corner_heat", "corner heat, °C", "number", x.temperature, None, hottest, ~laminates))
    return found


def _drills(setup: DrillSetup, x: Numbers, stock: Any) -> tuple[OtherDrill, ...]:
    """The drill in work, and the crib's others of its size at the same speed and feed; each once, the cheapest hole first."""
    found = [_drill(setup, {}, True)]
    seen = {setup.drill.name}
    for change in from_stock(x, stock):
        other = change.setup
        if other.drill.name in seen:
            continue
        seen.add(other.drill.name)
        try:
            found.append(_drill(other, change.patch, False))
        except CuttingError:  # a tool material that is not run in one of the layers
            continue
    rest = sorted(found[1:], key=lambda one: (bool(one.harm), one.cost))[: MOST_DRILLS - 1]
    return (found[0], *rest)


def _drill(setup: DrillSetup, patch: dict[str, Any], present: bool) -> OtherDrill:
    outcome, x = MODEL.judged(setup)
    open_ = np.isfinite(x.opens)
    thrust, opens = np.broadcast_arrays(np.ravel(x.thrust), np.ravel(x.opens))
    worst = int(np.argmax(thrust / opens)) if open_.any() else int(np.argmax(thrust))
    parts = float(thrust[worst] / opens[worst]) if open_.any() else None
    hard = [one for one in outcome.limits if one.broken and one.severity is Severity.HARD]
    drill = setup.drill
    return OtherDrill(
        drill.name, f"{drill.point_angle:g}°, chisel edge {100 * drill.chisel_share:.0f} % of the thrust", float(thrust[worst]), parts,
        float(np.max(x.burr)), float(np.min(x.holes)), float(np.min(x.operation_cost)),
        max(hard, key=lambda one: one.utilisation).label if hard else "", present, patch,
    )  # fmt: skip


STUDY = Study("acceptance", "acceptance by layer", "z", ("drill",), ask=acceptance, of_stock=True)

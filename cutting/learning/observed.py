"""What a trial's entries say of the quantities of the model: measured over predicted, with how surely."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from typing import Any

import numpy as np

from cutting.belief.bands import band
from cutting.errors import CuttingError
from cutting.learning.entries import WEAR, Logged, edges_of
from cutting.learning.pool import Seen, life_level
from cutting.operations.frame.learned import UNTAUGHT
from cutting.operations.frame.outcome import Outcome

# standard deviation of the logarithm of one reading: instrument, place and piece to piece (common practice, no source)
READS = {"roughness": 0.12, "load": 0.10, "torque": 0.06, "thrust": 0.06, "burr": 0.25, "pip": 0.30}
TEACHES = {"roughness": "finish", "load": "force", "torque": "force", "thrust": "force", "burr": "burr", "pip": "burr"}
PREDICTS = {"roughness": "roughness", "torque": "torque", "thrust": "thrust", "burr": "burr", "pip": "pip_on_part"}
SAYS_NOTHING = 2.0  # standard deviation of a logarithm, beyond which an observation tells nothing beside any band that ships
LEAST_LOAD = 8.0  # per cent: below it a spindle shows its own friction and no cut


@dataclass(frozen=True)
class Observed:
    """One quantity as a trial saw it, and how it came about in words."""

    quantity: str
    seen: Seen
    said: str


def named(setup: Any, trial: int = 0) -> Seen:
    """For what an observation of a set-up holds: its tool, metal, machine, grade and group, with nothing seen yet."""
    grade = getattr(setup.edge, "grade", None)
    return Seen(
        0.0, 1.0, setup.edge.name, setup.work.material.name, setup.machine.name,
        grade.name if grade is not None else "", setup.work.material.group.called, trial,
    )  # fmt: skip


def as_really_set(setup: Any, one: Logged) -> Any:
    """The set-up at the speed and feed that were really set, as nobody has taught it anything."""
    speed, feed = one.speed or setup.settings.cutting_speed, one.feed or setup.feed
    return replace(setup, learned=UNTAUGHT).with_cut(speed, feed)


Judged = tuple[Outcome, Any]  # an outcome, and the numbers behind it
Predicted = Callable[[Logged], Judged | None]


def observed(setup: Any, logged: Sequence[Logged], judge: Callable[[Any], Judged], trial: int = 0) -> tuple[Observed, ...]:
    """All that a trial teaches of a set-up that was run, by what `judge` predicts. What cannot be predicted teaches nothing."""
    outcomes: dict[tuple[Any, Any], Judged | None] = {}

    def predicted(one: Logged) -> Judged | None:
        key = (one.speed, one.feed)
        if key not in outcomes:
            try:
                outcomes[key] = judge(as_really_set(setup, one))
            except CuttingError:
                outcomes[key] = None
        return outcomes[key]

    of = named(setup, trial)
    found = _readings(logged, predicted, of)
    if (life := _life(setup, logged, predicted, of)) is not None:
        found.append(life)
    return tuple(found)


def _readings(logged: Sequence[Logged], predicted: Predicted, of: Seen) -> list[Observed]:
    """Readings of one kind go together as their mean: a trial's own offset (instrument, bar) stays, however often it is read."""
    found = []
    for name, spread in READS.items():
        ratios = []
        for one in logged:
            value = getattr(one, name)
            judged = predicted(one) if value is not None else None
            said = _said_by(judged[0], name) if judged is not None else None
            if value is None or said is None or said <= 0 or value <= 0 or (name == "load" and value < LEAST_LOAD):
                continue
            ratios.append(float(np.log(value / said)))
        if not ratios:
            continue
        scatter = spread / np.sqrt(2.0)  # half of the variance is the trial's own, half piece to piece
        left = float(np.hypot(scatter, scatter / np.sqrt(len(ratios))))
        mean = float(np.mean(ratios))
        words = f"{name.replace('_', ' ')} × {np.exp(mean):.2f} of what is predicted, {len(ratios)} read"
        found.append(Observed(TEACHES[name], replace(of, value=mean, spread=left), words))
    return found


def _said_by(outcome: Outcome, name: str) -> float | None:
    """What an outcome predicts for a reading, in the reading's own unit; None where it does not."""
    if name == "load":
        return load_share(outcome)
    return _value(outcome, PREDICTS[name])


def _life(setup: Any, logged: Sequence[Logged], predicted: Predicted, of: Seen) -> Observed | None:
    """The level of the life from edges that wore out or were stopped before; an edge that broke only lasted so long."""
    edges = edges_of(logged)
    found = [(k, *judged) for k, name in enumerate(edges.names) if (judged := _of_edge(name, logged, predicted)) is not None]
    if not found:
        return None
    lasted = [edges.lasted[k] for k, _, _ in found]
    worn = [edges.causes[k] == WEAR for k, _, _ in found]
    shape = float(np.ravel(found[0][2].weibull_shape)[0])
    medians = [median_of(numbers) for _, _, numbers in found]
    life = life_level(lasted, worn, medians, shape, band("life", setup.operation).spread, of)
    if life.seen.spread > SAYS_NOTHING:  # edges stopped long before anything could be told
        return None
    factor = float(np.exp(life.seen.value))
    words = f"life × {factor:.2f} of what is predicted, {life.ended} worn out, {life.early} stopped before"
    return Observed("life", life.seen, words)


def _of_edge(edge: str, logged: Sequence[Logged], predicted: Predicted) -> Judged | None:
    """What was predicted for an edge as it last ran."""
    one = next((row for row in reversed(logged) if row.edge == edge), None)
    return predicted(one) if one is not None else None


def median_of(numbers: Any) -> float:
    """Pieces that half of the edges last by the model, beyond the longest life too that is told to people."""
    return float(np.ravel(numbers.median_parts)[0])


def load_share(outcome: Outcome) -> float | None:
    """The spindle's load [%] that an outcome predicts: its power over what the spindle has at that speed; None where no limit tells."""
    limit = next((one for one in outcome.limits if one.name == "spindle_power"), None)
    return 100.0 * float(limit.value) / float(limit.upper) if limit is not None and limit.upper else None


def _value(outcome: Outcome, name: str) -> float | None:
    found = outcome.results.get(name)
    return None if found is None else float(found.value)

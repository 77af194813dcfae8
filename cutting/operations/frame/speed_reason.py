"""Why a speed stands far off the group's starting value: what corrects it, and what stands in the way of more."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any

import numpy as np

from cutting.operations.frame.outcome import TOUCHING, Warning
from cutting.operations.frame.remedies import Runs
from cutting.operations.frame.rule import all_used, hard_ones
from cutting.wear.reference import SpeedFactor

WORTH = 0.02  # a factor nearer to 1 is not named


@dataclass(frozen=True)
class UsualSpeed:
    """The speed that is reached and the group's starting value [m/min], what corrects that, and what else tells.

    Beyond the share `far` off the starting value a speed needs its reason on the screen.
    """

    reached: float
    row: float
    factors: tuple[SpeedFactor, ...]
    more: tuple[str, ...] = ()
    far: float = 0.35


def speed_reason(model: Runs, setup: Any, usual: UsualSpeed) -> Iterator[Warning]:
    """A note where a speed stands far off its row's; limits are named that the corrected row would break."""
    ratio = usual.reached / usual.row
    if abs(ratio - 1.0) <= usual.far:
        return
    corrected = usual.row * float(np.prod([one.factor for one in usual.factors]))
    held = _held(model, setup, corrected) if ratio < 1.0 and corrected > usual.reached else []
    said = [f"{one.label} ×{one.factor:.2f}" for one in usual.factors if abs(one.factor - 1.0) > WORTH]
    said += [f"limited by {' and '.join(held)}"] if held else [*usual.more, "the goal"]
    side = "above" if ratio > 1.0 else "below"
    text = f"Speed is {abs(ratio - 1.0):.0%} {side} the starting value of {usual.row:.0f} m/min for this group: {', '.join(said)}."
    yield Warning("speed_off_row", text, "note")


def _held(model: Runs, setup: Any, speed: float) -> list[str]:
    """The hard limits that the set-up would break at a speed [m/min], in the words of the bench; two at most."""
    both = all_used(model.rules, model.over(setup, cutting_speed=np.array([[speed], [setup.settings.cutting_speed]])))
    used, now = ({name: float(np.broadcast_to(level, (2, 1))[row, 0]) for name, level in both.items()} for row in (0, 1))
    hard = [name for name in hard_ones(model.rules, both, setup.house) if now[name] <= 1.0 + TOUCHING < used[name]]
    return [
        next(rule.label.split(",")[0] for rule in model.rules if rule.name == name)
        for name in sorted(hard, key=lambda name: -used[name])[:2]
    ]

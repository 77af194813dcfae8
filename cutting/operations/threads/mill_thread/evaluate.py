"""A milled thread as the bench asks for it: its outcome, what each number of passes gives, what would move a limit."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from cutting.operations.frame.model import Model, Readings
from cutting.operations.frame.over_passes import last_pass
from cutting.operations.frame.rule import all_used, hard_ones
from cutting.operations.holes.shared.held import misfits, row_speed
from cutting.operations.threads.mill_thread.changes import MOST_PASSES, changes, from_stock, quicker
from cutting.operations.threads.mill_thread.limits import RULES
from cutting.operations.threads.mill_thread.numbers import Numbers, numbers
from cutting.operations.threads.mill_thread.readings import cautions, chip, passes, results, scene
from cutting.operations.threads.mill_thread.setup import MillThreadSetup
from cutting.operations.threads.mill_thread.tool import single_tool

MODEL: Model[Numbers] = Model(
    single_tool,
    numbers,
    RULES,
    changes,
    Readings(results, passes, chip, cautions, scene, usual_speed=row_speed),
    from_stock,
    quicker,
    misfits=misfits,
)


@dataclass(frozen=True)
class ByPasses:
    """What a number of radial passes gives: s, N, mm, shares; whether every hard limit stands."""

    passes: int
    repeats: int
    seconds: float
    push_off: float
    taper: float
    width: float
    certainty: float
    sound: bool


def explore(setup: MillThreadSetup) -> tuple[ByPasses, ...]:
    """The map: passes and repeats, each run. Raises `CuttingError`."""
    found = []
    for repeats in (0, 1):
        for count in range(1, MOST_PASSES + 1):
            x = MODEL.quickly(setup.with_settings(passes=count, repeats=repeats))
            used = all_used(RULES, x)
            hard = hard_ones(RULES, used, setup.house)
            sound = all(float(np.max(used[name])) <= 1.0 + 1e-9 for name in hard)
            time, push, taper, width, sure = (last_pass(one) for one in (x.helix_time, x.push_off, x.taper, x.width, x.certainty))
            found.append(ByPasses(count, repeats, time, push, taper, width, sure, sound))
    return tuple(found)

"""What turning a thread brings to the house."""

from __future__ import annotations

import numpy as np

from cutting.operations.frame.fields import Nudged
from cutting.operations.frame.kind import Kind
from cutting.operations.frame.nudges import Ladder, steps, trim
from cutting.operations.threads.shared.feature import area, either_side_of, removes, settles
from cutting.operations.threads.turn_thread.evaluate import MODEL, explore
from cutting.operations.threads.turn_thread.groove import depths
from cutting.operations.threads.turn_thread.path import path
from cutting.operations.threads.turn_thread.setup import FIELDS, MOST_PASSES, TurnThreadSetup, build
from cutting.tooling.roles import Parts, Role
from cutting.tooling.thread_inserts import HOLDER_KINDS, INSERT_KINDS
from cutting.tooling.thread_turn_stock import ThreadTurnStock


def gather(parts: Parts, note: str) -> ThreadTurnStock:
    """The threading inserts and holders to choose from."""
    return ThreadTurnStock(tuple(parts["insert"]), tuple(parts["holder"]), note)


def speeds(setup: TurnThreadSetup, system: str) -> Ladder:
    """Rungs of the speed: the gearbox's own, else 5 m/min."""
    if gears := setup.machine.drive().steps:
        return steps("spindle_speed", gears, 1000.0 * setup.settings.cutting_speed / (np.pi * setup.feature.thread.diameter))
    # feet in a metre
    unit, step, factor = ("m/min", 1.0, 1.0) if system == "metric" else ("sfm", 5.0, 3.28084)
    middle = max(round(setup.settings.cutting_speed * factor / step), 1)
    first = max(1, middle - 60)
    return Ladder(tuple(f"{trim(k * step, 0)} {unit}" for k in range(first, middle + 61)), middle - first, 5, 20)  # rungs above


def passes(setup: TurnThreadSetup, system: str) -> Ladder:
    """Rungs of the passes: whole ones."""
    now = int(depths(setup).size)
    return Ladder(tuple(str(k) for k in range(2, MOST_PASSES + 1)), now - 2, 1, 4)


KIND = Kind(
    "turn thread",
    "Turn a thread",
    MODEL,
    explore,
    FIELDS,
    (
        Nudged("cutting_speed", "speed", "cutting_speed", "book_speed", lambda setup, outcome: setup.settings.cutting_speed, speeds),
        Nudged("passes", "passes", "count", "tip_load", lambda setup, outcome: float(depths(setup).size), passes),
    ),
    ("operation_time", "operation_cost", "holes", "certainty", "risk", "secure", "cutting_force"),
    (Role("insert", "threading insert", INSERT_KINDS), Role("holder", "holder or bar", HOLDER_KINDS)),
    gather,
    build,
    either_side_of,
    path,
    guests=("drill", "tap", "mill thread", "turn"),
    removes=removes,
    settles=settles,
    area=area,
    choices=("infeed", "schedule", "turning", "feeding"),
    typed=lambda setup: ("infeeds", "spring", "tilt", "off_flank", "overhang"),
    ranked=("passes", "infeeds", "tilt", "overhang"),
    shape="thread",
    neutral=(("cutting_speed", 60.0),),
    risky=True,
)

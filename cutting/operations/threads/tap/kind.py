"""What tapping brings to the house."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from cutting.machine.machines import Machine
from cutting.machine.spindle import DRIVEN
from cutting.operations.frame.fields import Nudged
from cutting.operations.frame.kind import Kind
from cutting.operations.threads.shared.feature import area, feature_of, removes, runs_on_axis, settles
from cutting.operations.threads.tap.evaluate import MODEL, explore
from cutting.operations.threads.tap.path import path
from cutting.operations.threads.tap.setup import FIELDS, build
from cutting.tooling.drills import CHUCK_KIND
from cutting.tooling.roles import Parts, Role
from cutting.tooling.tap_stock import TapStock
from cutting.tooling.taps import TAP_KINDS


def runs_on(feature: Mapping[str, Any], machine: Machine) -> str:
    """Threads beside the axis of a turning part want driven tools."""
    return DRIVEN if machine.turns and not runs_on_axis(feature) and machine.has(DRIVEN) else ""


def gather(parts: Parts, note: str) -> TapStock:
    """The taps and chucks to choose from."""
    return TapStock(tuple(parts["tap"]), tuple(parts["chuck"]), note)


KIND = Kind(
    "tap",
    "Tap a thread",
    MODEL,
    explore,
    FIELDS,
    (Nudged("cutting_speed", "speed", "cutting_speed", "book_speed", lambda setup, outcome: setup.settings.cutting_speed),),
    ("operation_time", "operation_cost", "holes", "margin", "risk", "secure", "torque"),
    (Role("tap", "tap", TAP_KINDS), Role("chuck", "chuck", (CHUCK_KIND,))),
    gather,
    build,
    feature_of,
    path,
    guests=("drill", "mill thread", "turn thread"),
    removes=removes,
    settles=settles,
    runs_on=runs_on,
    area=area,
    choices=("held",),
    typed=lambda setup: ("clutch",),
    shape="thread",
    neutral=(("cutting_speed", 10.0),),
    risky=True,
)

"""What milling a hole brings to the house."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from cutting.machine.machines import Machine
from cutting.machine.spindle import DRIVEN
from cutting.operations.frame.fields import Nudged
from cutting.operations.frame.kind import Kind
from cutting.operations.frame.nudges import REACH, Ladder, trim
from cutting.operations.holes.drill.kind import area, removes, settles
from cutting.operations.holes.mill_hole.evaluate import MODEL, explore
from cutting.operations.holes.mill_hole.numbers import pitch_of
from cutting.operations.holes.mill_hole.path import path
from cutting.operations.holes.mill_hole.setup import FIELDS, Descent, MillHoleSetup, build, feature_of
from cutting.operations.holes.mill_hole.tool import single_tool
from cutting.tooling.drills import CHUCK_KIND
from cutting.tooling.mill_stock import MillStock
from cutting.tooling.mills import MILL_KINDS
from cutting.tooling.roles import Parts, Role

INCH = 25.4


def runs_on(feature: Mapping[str, Any], machine: Machine) -> str:
    """On a turning machine its driven tools mill."""
    return DRIVEN if machine.turns and machine.has(DRIVEN) else ""


def pitches(setup: MillHoleSetup, system: str) -> Ladder:
    """Rungs of the pitch: finer than lengths are walked, as a tenth of a millimetre is much here."""
    unit, step, decimals = ("mm", 0.02, 2) if system == "metric" else ("in", 0.001, 3)  # a nudge of pitch
    present = float(pitch_of(setup, single_tool(setup))[0]) / (1.0 if system == "metric" else INCH)
    middle = max(round(present / step), 1)
    first = max(1, middle - REACH)
    return Ladder(tuple(f"{trim(k * step, decimals)} {unit}" for k in range(first, middle + REACH + 1)), middle - first, 5, 20)


def typed(setup: MillHoleSetup) -> tuple[str, ...]:
    """The settings that matter here."""
    return () if setup.settings.path is Descent.PLUNGE else ("finish", "offset")


def gather(parts: Parts, note: str) -> MillStock:
    """The mills and chucks to choose from."""
    return MillStock(tuple(parts["mill"]), tuple(parts["chuck"]), note)


KIND = Kind(
    "mill hole",
    "Mill a hole",
    MODEL,
    explore,
    FIELDS,
    (
        Nudged("cutting_speed", "speed", "cutting_speed", "book_speed", lambda setup, outcome: setup.settings.cutting_speed),
        Nudged("feed_per_tooth", "feed at the wall", "feed_per_tooth", "book_feed", lambda setup, outcome: setup.settings.feed_per_tooth),
        Nudged("pitch", "pitch", "length", "pitch", lambda setup, outcome: outcome.results["pitch"].value, pitches,
               applies=lambda setup: setup.settings.path is Descent.HELIX),
    ),
    ("operation_time", "operation_cost", "holes", "change_parts", "secure", "ramp", "size_error"),
    (Role("mill", "end mill", MILL_KINDS), Role("chuck", "chuck", (CHUCK_KIND,))),
    gather,
    build,
    feature_of,
    path,
    removes=removes,
    settles=settles,
    runs_on=runs_on,
    area=area,
    choices=("path", "sense"),
    typed=typed,
    ranked=("path", "pitch", "finish"),
    shape="hole",
    neutral=(("cutting_speed", 60.0), ("feed_per_tooth", 0.02)),
)  # fmt: skip

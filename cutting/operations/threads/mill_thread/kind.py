"""What milling a thread brings to the house."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from cutting.machine.machines import Machine
from cutting.machine.spindle import DRIVEN
from cutting.operations.frame.fields import Nudged
from cutting.operations.frame.kind import Kind
from cutting.operations.threads.mill_thread.evaluate import MODEL, explore
from cutting.operations.threads.mill_thread.path import path
from cutting.operations.threads.mill_thread.setup import FIELDS, build
from cutting.operations.threads.shared.feature import area, feature_of, removes, settles
from cutting.tooling.drills import CHUCK_KIND
from cutting.tooling.roles import Parts, Role
from cutting.tooling.thread_mill_stock import ThreadMillStock
from cutting.tooling.thread_mills import THREAD_MILL_KINDS


def runs_on(feature: Mapping[str, Any], machine: Machine) -> str:
    """On a turning machine its driven tools mill."""
    return DRIVEN if machine.turns and machine.has(DRIVEN) else ""


def gather(parts: Parts, note: str) -> ThreadMillStock:
    """The thread mills and chucks to choose from."""
    return ThreadMillStock(tuple(parts["mill"]), tuple(parts["chuck"]), note)


KIND = Kind(
    "mill thread",
    "Mill a thread",
    MODEL,
    explore,
    FIELDS,
    (
        Nudged("cutting_speed", "speed", "cutting_speed", "book_speed", lambda setup, outcome: setup.settings.cutting_speed),
        Nudged("feed_per_tooth", "feed at the wall", "feed_per_tooth", "book_feed", lambda setup, outcome: setup.settings.feed_per_tooth),
    ),
    ("operation_time", "operation_cost", "holes", "certainty", "risk", "secure", "offset_wanted"),
    (Role("mill", "thread mill", THREAD_MILL_KINDS), Role("chuck", "chuck", (CHUCK_KIND,))),
    gather,
    build,
    feature_of,
    path,
    guests=("drill", "tap", "turn thread"),
    removes=removes,
    settles=settles,
    runs_on=runs_on,
    area=area,
    choices=("sense", "along"),
    typed=lambda setup: ("passes", "repeats", "offset", "arc"),
    ranked=("passes", "repeats", "offset"),
    shape="thread",
    neutral=(("cutting_speed", 60.0), ("feed_per_tooth", 0.02)),
    risky=True,
)

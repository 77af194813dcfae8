"""Every way to a thread in one ranked list, whichever of them the operation is: tapped or formed, milled, turned."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

from cutting.advice.contests import mill_thread, tap, turn_thread
from cutting.advice.contests.thread_ways import other_ways
from cutting.errors import CuttingError
from cutting.machine.spindle import DRIVEN
from cutting.operations.threads.mill_thread.setup import MillThreadSettings, MillThreadSetup
from cutting.operations.threads.tap.setup import TapSettings, TapSetup
from cutting.operations.threads.turn_thread.setup import TurnThreadSettings, TurnThreadSetup

BASE = ("work", "holding", "house", "batch", "goal", "skin")


def _base(setup: Any) -> dict[str, Any]:
    return {name: getattr(setup, name) for name in BASE}


def _as_tap(setup: Any, crib: Any) -> TapSetup:
    settings = TapSettings(10.0, setup.settings.coolant)
    return TapSetup(**_base(setup), machine=setup.machine, feature=setup.feature, settings=settings, tap=crib.taps[0], chuck=crib.chucks[0])


def _as_mill(setup: Any, crib: Any) -> MillThreadSetup:
    machine = setup.machine
    if machine.turns:
        if not machine.has(DRIVEN):
            raise CuttingError("machine", f"{machine.name} has no driven tools.")
        machine = machine.on(DRIVEN)
    # a cut to start from; what is tried replaces it
    settings = MillThreadSettings(60.0, 0.02, setup.settings.coolant)
    return MillThreadSetup(
        **_base(setup), machine=machine, feature=setup.feature, settings=settings, mill=crib.mills[0], chuck=crib.chucks[0]
    )


def _as_turned(setup: Any, crib: Any) -> TurnThreadSetup:
    if not setup.machine.turns:
        raise CuttingError("machine", f"{setup.machine.name} does not turn the part here.")
    settings = TurnThreadSettings(60.0, coolant=setup.settings.coolant)
    return TurnThreadSetup(
        **_base(setup), machine=setup.machine, feature=setup.feature, settings=settings, insert=crib.inserts[0], holder=crib.holders[0]
    )


WAYS = {
    "tap": (_as_tap, lambda: tap.BARE),
    "mill thread": (_as_mill, lambda: mill_thread.BARE),
    "turn thread": (_as_turned, lambda: turn_thread.BARE),
}


def _others(name: str) -> Any:
    return other_ways({other: way for other, way in WAYS.items() if other != name})


TAP = replace(tap.BARE, guests=_others("tap"))
MILL = replace(mill_thread.BARE, guests=_others("mill thread"))
TURN = replace(turn_thread.BARE, guests=_others("turn thread"))

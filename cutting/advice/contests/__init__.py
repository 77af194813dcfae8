"""The rankings of the kinds of operation: one line each."""

from __future__ import annotations

from types import MappingProxyType
from typing import Any

from cutting.advice.candidate import Advice
from cutting.advice.contest import Contest
from cutting.advice.contests import bore, cut_off, face_groove, groove, heavy_bore, hole, mill_hole, thread, trepan, turned
from cutting.advice.rank import rank

CONTESTS: MappingProxyType[str, Contest] = MappingProxyType(
    {
        "turn": turned.CONTEST,
        "face": turned.CONTEST,
        "groove": groove.CONTEST,
        "face groove": face_groove.CONTEST,
        "trepan": trepan.CONTEST,
        "bore": bore.CONTEST,
        "heavy bore": heavy_bore.CONTEST,
        "drill": hole.CONTEST,
        "mill hole": mill_hole.CONTEST,
        "turn thread": thread.TURN,
        "tap": thread.TAP,
        "mill thread": thread.MILL,
        "cut off": cut_off.CONTEST,
    }
)


def advise(setup: Any, stock: Any, top: int = 40) -> Advice:
    """Rank a stock for a set-up of any kind of operation; its own tool, speed and feed do not matter. Raises `CuttingError`."""
    return rank(setup, stock, CONTESTS[setup.operation], top)

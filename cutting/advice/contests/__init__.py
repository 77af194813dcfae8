"""The rankings of kinds of operation that are judged set-up by set-up: one line each."""

from __future__ import annotations

from types import MappingProxyType
from typing import Any

from cutting.advice.contests import cut_off, face_groove, groove, trepan
from cutting.advice.rank import Advice, advise
from cutting.advice.rank_trials import Contest, rank

CONTESTS: MappingProxyType[str, Contest] = MappingProxyType(
    {"groove": groove.CONTEST, "face groove": face_groove.CONTEST, "trepan": trepan.CONTEST, "cut off": cut_off.CONTEST}
)


def advise_any(setup: Any, stock: Any) -> Advice:
    """Rank a stock for a set-up of any kind of operation. Raises `CuttingError`."""
    if (contest := CONTESTS.get(setup.operation)) is not None:
        return rank(setup, stock, contest)
    return advise(setup, stock)

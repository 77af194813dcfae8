"""The kinds of operation: one line each."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from types import MappingProxyType
from typing import Any

from cutting.errors import UnknownName
from cutting.operations import cut_off, facing, turning
from cutting.operations.cut_off.setup import CutOffSetup
from cutting.operations.outcome import Outcome, Remedy
from cutting.operations.setup import Setup
from cutting.tooling.crib import Crib

AnySetup = Setup | CutOffSetup


@dataclass(frozen=True)
class Kind:
    """What a kind of operation brings: its evaluation, its map, and what would move a limit."""

    name: str
    title: str
    evaluate: Callable[..., Outcome]
    explore: Callable[..., Any]
    relax: Callable[..., tuple[Remedy, ...]]


KINDS = MappingProxyType(
    {
        kind.name: kind
        for kind in (
            Kind("turn", turning.TITLE, turning.evaluate, turning.explore, turning.relax),
            Kind("cut off", cut_off.TITLE, cut_off.evaluate, cut_off.explore, cut_off.relax),
            Kind("face", facing.TITLE, facing.evaluate, facing.explore, facing.relax),
        )
    }
)


def kind_of(name: str) -> Kind:
    """The kind of that name. Raises `UnknownName`."""
    if name not in KINDS:
        raise UnknownName("operation", f"no operation is called '{name}'; there are {', '.join(KINDS)}.", None, tuple(KINDS))
    return KINDS[name]


def evaluate(setup: AnySetup, crib: Crib | None = None) -> Outcome:
    """The outcome of a set-up of any kind, with remedies from the crib where one is given. Raises `CuttingError`."""
    return kind_of(setup.operation).evaluate(setup, True, crib)


def evaluate_quickly(setup: AnySetup) -> Outcome:
    """The outcome without remedies, for lists and tapes. Raises `CuttingError`."""
    return kind_of(setup.operation).evaluate(setup, False)


def explore(setup: AnySetup) -> Any:
    """The map of a set-up of any kind. Raises `CuttingError`."""
    return kind_of(setup.operation).explore(setup)


def relax(setup: AnySetup, limit: str, crib: Crib | None = None) -> tuple[Remedy, ...]:
    """What would move a limit of a set-up of any kind, found by trying. Raises `CuttingError`."""
    return kind_of(setup.operation).relax(setup, limit, crib)

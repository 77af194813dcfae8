"""The parts of a tool by what each is for: an insert and its holder, a drill and its chuck."""

from __future__ import annotations

import copy
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from typing import Any, Protocol

import numpy as np
from numpy.typing import NDArray

Index = NDArray[np.intp]
Parts = Mapping[str, Sequence[Any]]  # what there is to choose from, by role


@dataclass(frozen=True)
class Role:
    """One part of a tool: its name in documents, its words, and the kinds of tool in the crib that may play it."""

    name: str
    title: str
    kinds: tuple[str, ...]


class Stock(Protocol):
    """What there is to choose from: the parts by role, and which of them go together.

    `places` holds one array for each role, in the roles' order: the n-th entries are the places of one tool's parts. `note` says
    how the parts were chosen from a larger stock. The first role carries the edge and names the tool.
    """

    @property
    def note(self) -> str: ...

    @property
    def parts(self) -> Parts: ...

    @property
    def places(self) -> tuple[Index, ...]: ...


def with_guests(stock: Stock, guests: Mapping[str, Callable[[], Stock]]) -> Stock:
    """The stock with the tools of other kinds of operation, which are gathered where they are asked for."""
    if not guests:
        return stock
    found = copy.copy(stock)  # its columns stay reckoned
    object.__setattr__(found, "guests", guests)
    return found


@dataclass(frozen=True)
class Gathered:
    """Tools that were gathered already, where they are asked for."""

    stock: Stock

    def __call__(self) -> Stock:
        return self.stock


def to_go(stock: Stock) -> Stock:
    """The stock with what it would ask the shop for gathered now, so that it can be ranked in another process or on another machine."""
    return with_guests(stock, {name: Gathered(ask()) for name, ask in getattr(stock, "guests", {}).items()})


def tool_at(parts: Parts, places: Sequence[Index], k: int) -> dict[str, Any]:
    """The parts of one tool by role."""
    return {role: of[int(place[k])] for (role, of), place in zip(parts.items(), places, strict=True)}


def spoken(tool: Mapping[str, str]) -> str:
    """A tool in words: what carries the edge, on the rest."""
    edge, *rest = tool.values()
    return " on ".join([edge, *rest])

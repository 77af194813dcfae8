"""What a kind of operation brings to its ranking: who may compete, in which ways, at which feeds and speeds."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass, field, replace
from typing import Any

import numpy as np
from numpy.typing import NDArray

from cutting.advice.best import Best
from cutting.advice.candidate import Candidate, Refused
from cutting.operations.frame.model import Model
from cutting.quantities.write import Display
from cutting.tooling.roles import Index, Parts, tool_at

Array = NDArray[np.float64]
Mask = NDArray[np.bool_]
Check = tuple[str, str, Any]  # name, reason, and where a pair may be used
Try = tuple[Index, Any]  # entries, and the set-up in which they are tried; its own tool stands for theirs


@dataclass(frozen=True)
class Entrants:
    """Who may compete: one entry for each tool, and where a kind knows several ways for each of them.

    `tool` are the entries' numbers, arrays (entries, 1); `places` those of their parts among `parts`, one array for each role.
    """

    parts: Parts
    places: tuple[Index, ...]
    tool: Any
    refused: tuple[Refused, ...]
    pairs: int
    ways: tuple[str, ...] = ()

    def way(self, k: int) -> str:
        """The way of an entry, blank where the kind knows one."""
        return self.ways[k] if self.ways else ""

    @property
    def count(self) -> int:
        return len(self.places[0])

    @property
    def edges(self) -> Index:
        """Places of what carries the edge."""
        return self.places[0]

    def tool_of(self, k: int) -> dict[str, Any]:
        """The parts of an entry's tool by role."""
        return tool_at(self.parts, self.places, k)


def no_guests(setup: Any, stock: Any, sound: bool) -> tuple[list[Candidate], str]:
    """Rows of no other kind."""
    return [], ""


def as_they_are(setup: Any, stock: Any, rows: list[Candidate]) -> list[Candidate]:
    """Rows that need nothing before them."""
    return rows


def put_in(setup: Any, tool: Mapping[str, Any]) -> Any:
    """The set-up with another tool."""
    return replace(setup, **tool)


@dataclass(frozen=True)
class Contest:
    """A kind's part of its ranking.

    `enter` applies its exact rules to a stock; `tries` the set-ups in which entries are tried, while `best` fills; `eased` those
    before they are refused. `feeds` are those to try (entries, feeds) and the least of each entry (entries, 1), `speeds` at which
    the goal would run at feeds (entries, feeds, 1), whose `speed_shares` are tried. `feed_step` is how finely people set a feed
    [mm/rev], `free` what a remedy may change before a tool is refused. `fitted` puts a tool into a set-up; `columns` are figures of
    the kind's own under `heads` and, told only where rows are compared, `further`; `patch` the settings of its own that a candidate
    sets, `beside` money a piece beside the operation that the choice moves. `guests` brings rows of other kinds or of chains, told
    whether one of its own is sound, or says why none. `apart` takes the numbers of one of many into its own set-up,
    where they can be computed together for `columns`. `completed` puts what must come before them to its own sound rows, `beside_words`
    say what is beside.
    """

    model: Model[Any]
    enter: Callable[[Any, Any], Entrants]
    tries: Callable[[Any, Entrants, Best, slice], Iterable[Try]]
    eased: Callable[[Any, Entrants, Best, Index], Iterable[Try]]
    feeds: Callable[[Any, Any], tuple[Array, Array]]
    speeds: Callable[[Any, Any, Array], Array]
    free: frozenset[str]
    feed_step: float = 0.005
    speed_shares: Array = field(default_factory=lambda: np.ones(1))
    heads: tuple[str, ...] = ()
    columns: Callable[[Any], tuple[Display, ...]] | None = None
    patch: Callable[[Any], dict[str, str]] | None = None  # of the set-up
    beside: Callable[[Any], Any] = lambda x: 0.0
    guests: Callable[[Any, Any, bool], tuple[list[Candidate], str]] = no_guests
    fitted: Callable[[Any, Mapping[str, Any]], Any] = put_in
    further: tuple[str, ...] = ()
    apart: Callable[[Any, int, Any], Any] | None = None
    completed: Callable[[Any, Any, list[Candidate]], list[Candidate]] = as_they_are
    beside_words: str = "its kerf costs {} more per piece"


def sieve(checks: Iterable[Check], count: int) -> tuple[Mask, tuple[Refused, ...]]:
    """Which of so many pairs satisfy every rule; each other pair is counted at the first rule that it breaks."""
    fits: Mask = np.ones(count, bool)
    refused = []
    for name, reason, mask in checks:
        allowed = np.broadcast_to(np.asarray(mask, bool).reshape(-1) if np.ndim(mask) else mask, fits.shape)
        if lost := int(np.count_nonzero(fits & ~allowed)):
            refused.append(Refused(name, reason, lost))
        fits = fits & allowed
    return fits, tuple(refused)

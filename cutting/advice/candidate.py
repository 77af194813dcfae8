"""What a ranking says: candidates, near misses, and why the rest is refused."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Any

from cutting.quantities.write import Display, write


@dataclass(frozen=True)
class Before:
    """An operation that comes before the one that a candidate is for, as it is entered, and what it takes [s, money a piece]."""

    operation: str
    title: str
    feature: dict[str, Any]
    tool: dict[str, str]
    settings: dict[str, str]
    seconds: float
    cost: float

    @staticmethod
    def by(row: Candidate, operation: str, title: str, feature: dict[str, Any]) -> Before:
        """The step that a row of the step's own ranking makes."""
        return Before(operation, title, feature, dict(row.tool), dict(row.settings or {}), row.seconds, row.cost)


@dataclass(frozen=True)
class Candidate:
    """A tool that can do it, at its best settings."""

    tool: dict[str, str]  # names of its parts by role, what carries the edge first
    designation: str
    geometry: str
    grade: str
    passes: int
    cutting_speed: float
    feed: float  # mm, as its kind is set: per revolution or per tooth
    depth_of_cut: float
    seconds: float
    cost: float
    change_parts: float
    median_parts: float
    secure: float
    chip_index: float
    edge_cost: float
    edges: int
    roughness: float
    speed_reached: float
    binding: str
    utilisation: float
    reason: str
    feed_kind: str = "feed_per_rev"
    run_parts: float = 1.0  # pieces between two looks at the machine
    width: float = 0.0  # of a narrow edge, mm
    beside: float = 0.0  # money a piece beside the operation that the choice moves
    left_over: float = 0.0  # money a piece of what the batch leaves of its last edge, as far as the house charges it
    way: str = ""  # where a kind of operation knows several
    more: tuple[Display, ...] = ()  # figures of the kind's own, under the heads of the ranking and the further ones
    settings: dict[str, str] | None = None  # what taking it sets; None: speed, feed and depth
    becomes: dict[str, Any] | None = None  # operation and feature, where another kind of operation makes it
    before: tuple[Before, ...] = ()  # the steps of a chain whose last one this is
    coating: str = ""  # of a round tool
    side_use: float = 0.0  # 1 where its grade is made for another letter of ISO 513
    unusual: str = ""  # why people take it only where it saves well
    strain: float = 0.0  # of the soft limit that costs most, where it is used beyond its bound; `strained` says which
    strained: str = ""
    risk: float = 0.0  # of all soft limits: their shares of the operation, each times how far it is missed on average
    close: str = ""  # a hard limit that holds less surely than is asked, though at least half as surely
    chance: float = 1.0  # that the hard limit holds which holds least surely
    holds_feed: str = ""  # the limit that a higher feed would break, blank where money or time says enough
    holds_speed: str = ""
    miss: Display | None = None  # of a tool that breaks a limit: what it reaches, where, and what is asked

    @property
    def seldom(self) -> float:
        """1 where it must save well to stand first: a grade made for another metal, or a way that people seldom take."""
        return max(self.side_use, float(bool(self.unusual)))

    @property
    def edge(self) -> str:
        """The part that carries the edge: it names the tool."""
        return next(iter(self.tool.values()))

    @property
    def key(self) -> tuple[str, ...]:
        """What tells a tool from another."""
        return tuple(self.tool.values())


def entries_set(row: Candidate) -> dict[str, str]:
    """What taking a candidate sets, as it is entered."""
    return row.settings or {
        "cutting_speed": write(row.cutting_speed, "cutting_speed"),
        row.feed_kind: write(row.feed, row.feed_kind),
        # rounded up a hair, so that the text still gives the same number of passes
        "depth_of_cut": f"{math.ceil(row.depth_of_cut * 1e4) / 1e4:g} mm",
    }


@dataclass(frozen=True)
class Refused:
    """Why tools are not candidates: a rule with its reason and how many pairs it excluded."""

    name: str
    reason: str
    pairs: int


@dataclass(frozen=True)
class Advice:
    """The ranking: candidates in the goal's order, and the second list with reasons."""

    candidates: tuple[Candidate, ...]
    nearly: tuple[Candidate, ...]
    refused: tuple[Refused, ...]
    pairs: int
    fitting: int
    feasible: int
    note: str = ""
    heads: tuple[str, ...] = ()
    further: tuple[str, ...] = ()  # heads of what is told only where rows are compared
    missed: int = 0  # tools that fit and break a limit; `nearly` shows the nearest of them

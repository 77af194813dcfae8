"""How a control wants its program written, as data."""

from __future__ import annotations

import json
from dataclasses import dataclass
from functools import cache
from pathlib import Path

from cutting.errors import UnknownName


@dataclass(frozen=True)
class Dialect:
    """The words of a control: `diameter` tells whether X is a diameter, `per_turn` and `per_minute` how a feed is meant, `clamp` the word
    that holds the spindle's highest speed, `thread` the word of a pass tied to the spindle with its lead under `thread_lead`, `dwell` the
    word of a standstill in units of which a second has `dwell_in`, `numbered` the step of block numbers (0: none).
    """

    name: str
    title: str
    turns: bool
    diameter: bool
    per_turn: str
    per_minute: str
    clamp: str
    tool: str
    thread: str
    thread_lead: str
    dwell: str
    dwell_in: int
    numbered: int
    decimals: int
    feed_decimals: int
    comment: tuple[str, str]
    stop: str
    end: str
    start: tuple[str, ...]
    source: str
    cycles: bool = False  # whether holes are written by fixed cycles

    @property
    def fineness(self) -> float:
        """The finest step of a coordinate [mm or in]."""
        return 10.0**-self.decimals


@cache
def dialects() -> tuple[Dialect, ...]:
    """The dialects that ship."""
    rows = json.loads((Path(__file__).parent / "dialects.json").read_text())
    return tuple(Dialect(**{**row, "comment": tuple(row["comment"]), "start": tuple(row["start"])}) for row in rows)


def dialects_for(turns: bool) -> tuple[Dialect, ...]:
    """Those for a machine that turns the part, or for one that turns the tool."""
    return tuple(one for one in dialects() if one.turns == turns)


def find_dialect(name: str, among: tuple[Dialect, ...] | None = None) -> Dialect:
    """The dialect of a name, of those that ship or of those told. Raises `UnknownName`."""
    every = dialects() if among is None else among
    found = next((one for one in every if one.name == name), None)
    if found is None:
        raise UnknownName("dialect", f"there is no control '{name[:40]}'; there are {', '.join(one.name for one in every)}.")
    return found

"""What is logged at the machine: words of the trade, entries, and the lives of edges that they tell."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field
from functools import cache

import numpy as np

from cutting.errors import UnknownName
from cutting.learning.lives import Lives
from cutting.tables import read_table

WEAR, BREAKAGE = "wear", "breakage"


@dataclass(frozen=True)
class LoggedWord:
    """One word of a list, what it means, and of a reason to stop whether the edge came to its end, and by what."""

    word: str
    meaning: str
    ended: bool = False
    cause: str = ""


@cache
def words(of: str) -> Mapping[str, LoggedWord]:
    """The words of a list: chip, length, colour, went, sound, marks, wear, stop. Raises `UnknownName` for another list.

    >>> words("stop")["early"].ended, words("stop")["broken"].cause
    (False, 'breakage')
    """
    found = {
        row["word"]: LoggedWord(row["word"], row["meaning"], row["ended"] == "yes", row["cause"])
        for row in read_table("learning/words.csv")
        if row["list"] == of
    }
    if not found:
        raise UnknownName("list", f"there is no list of words for '{of}'.")
    return found


@dataclass(frozen=True)
class Size:
    """One size [mm] with where it was read along the piece and at what temperature of the part [°C]."""

    value: float
    at: str = ""
    temperature: float = 20.0


@dataclass(frozen=True)
class Logged:
    """One entry of a trial; what was not looked at is None or blank.

    `edge` names the corner or drill, `count` how many it has made; speed, feed and depth as they were really set; Ra in µm,
    burr, wear land and pip in mm; load in per cent of the spindle's, torque N·m, thrust N.
    """

    edge: str
    count: int
    speed: float | None = None
    feed: float | None = None
    depth: float | None = None
    roughness: float | None = None
    burr: float | None = None
    pip: float | None = None
    wear_land: float | None = None
    load: float | None = None
    torque: float | None = None
    thrust: float | None = None
    sizes: tuple[Size, ...] = ()
    stop: str = ""
    wear: str = ""

    def __post_init__(self) -> None:
        if self.stop and self.stop not in words("stop"):
            known = tuple(words("stop"))
            raise UnknownName("stop", f"'{self.stop}' is no reason to stop; there are {', '.join(known)}.", None, known)


@dataclass(frozen=True)
class Edges:
    """Lives of a trial's edges in pieces, with what ended each: blank for those that run on or were stopped before their end."""

    names: tuple[str, ...]
    lasted: tuple[int, ...]
    causes: tuple[str, ...]
    running: tuple[bool, ...] = field(default=())

    @property
    def ended(self) -> tuple[bool, ...]:
        return tuple(bool(cause) for cause in self.causes)

    @property
    def lives(self) -> Lives:
        """All ends alike. Raises `CuttingError` where no edge was logged."""
        return Lives.of(self.lasted, self.ended)


def edges_of(logged: Iterable[Logged]) -> Edges:
    """The edges in the order in which they came: an edge ends with a reason to stop; the same name afterwards is a new one.

    >>> edges_of([Logged("1", 12), Logged("1", 40, stop="worn"), Logged("2", 25, stop="early"), Logged("3", 8)]).causes
    ('wear', '', '')
    """
    open_now: dict[str, int] = {}
    names: list[str] = []
    lasted: list[int] = []
    causes: list[str] = []
    running: list[bool] = []
    for one in logged:
        if one.edge not in open_now:
            open_now[one.edge] = len(names)
            names.append(one.edge)
            lasted.append(0)
            causes.append("")
            running.append(True)
        place = open_now[one.edge]
        lasted[place] = max(lasted[place], one.count)
        if one.stop:
            causes[place] = words("stop")[one.stop].cause
            running[place] = False
            del open_now[one.edge]
    rows = [row for row in zip(names, lasted, causes, running, strict=True) if row[1] > 0]
    return Edges(tuple(r[0] for r in rows), tuple(r[1] for r in rows), tuple(r[2] for r in rows), tuple(r[3] for r in rows))


@dataclass(frozen=True)
class StopRule:
    """When a trial has its answer: what is watched, and the bound."""

    watched: str
    bound: float

    def said(self, logged: Iterable[Logged]) -> tuple[bool, str]:
        """Whether it is met, and by what."""
        rows = list(logged)
        if self.watched == "edges":
            done = sum(edges_of(rows).ended)
            return done >= self.bound, f"{done} of {self.bound:g} edges to their end"
        if self.watched == "count":
            most = max((one.count for one in rows), default=0)
            return most >= self.bound, f"{most} of {self.bound:g} pieces on one edge"
        read = [value for one in rows if (value := getattr(one, self.watched)) is not None]
        worst = max(read, default=None)
        if worst is None:
            return False, "not read yet"
        unit = UNITS[self.watched]
        return bool(worst >= self.bound - 1e-12), f"worst {worst:g} {unit} of {self.bound:g} {unit}"


UNITS = {"wear_land": "mm", "roughness": "µm", "burr": "mm"}
WATCHED = ("edges", "count", "wear_land", "roughness", "burr")


def by_count(logged: Iterable[Logged], what: str) -> tuple[tuple[str, np.ndarray, np.ndarray], ...]:
    """A reading over the pieces of each edge: `wear_land`, `roughness`, `burr`, `load`, `torque`, `thrust`."""
    found: dict[str, list[tuple[int, float]]] = {}
    for one in logged:
        value = getattr(one, what)
        if value is not None:
            found.setdefault(one.edge, []).append((one.count, value))
    columns = {edge: np.array(sorted(points), float) for edge, points in found.items()}
    return tuple((edge, table[:, 0], table[:, 1]) for edge, table in columns.items())

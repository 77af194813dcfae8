"""Thread mills: which pitches and bores each covers, how far it reaches, and whether it opens its own hole."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from functools import cache
from types import MappingProxyType
from typing import Any

from cutting.errors import CuttingError
from cutting.tables import read_table
from cutting.tooling.drills import MODULUS
from cutting.tooling.items import Grade
from cutting.workpiece.threads.spelling import read_thread
from cutting.workpiece.threads.thread import Thread


@dataclass(frozen=True)
class ThreadMillType:
    """What thread mills of one kind usually do; all common practice.

    `rows` are many, three or one; speeds are shares of the turning row, `feed` of an end mill's feed a tooth, `life` [min] in the
    middle of the speeds. `deepest` in diameters, `hardest` in HRC; `drills` first, down its helix, or not; `covers` in words.
    """

    kind: str
    tool_class: str
    rows: str
    speed_low: float
    speed_high: float
    feed: float
    life: float
    deepest: float
    hardest: float
    drills: str
    covers: str
    bends_at: float

    @property
    def opens(self) -> bool:
        """Whether it makes its own hole."""
        return self.drills != "no"


@cache
def thread_mill_types() -> MappingProxyType[tuple[str, str], ThreadMillType]:
    """The types by kind and tool material."""
    words = ("kind", "tool_class", "rows", "drills", "covers")
    names = [name for name in ThreadMillType.__dataclass_fields__ if name not in words]
    rows = read_table("tooling/thread_mill_types.csv")
    return MappingProxyType(
        {
            (row["kind"], row["tool_class"]): ThreadMillType(**{w: row[w] for w in words}, **{n: row.number(n) for n in names})  # type: ignore[arg-type]
            for row in rows
        }
    )


THREAD_MILL_KINDS = tuple(dict.fromkeys(row["kind"] for row in read_table("tooling/thread_mill_types.csv")))


@dataclass(frozen=True)
class ThreadMill:
    """A thread mill; lengths mm, angles °, money of one piece (of one edge where it is indexable).

    `pitch_low` to `pitch_high` is what its teeth cut, one pitch for a full profile; `teeth` stand along its axis. `thread` is the
    one that it is made for, where it is made for one; `step` how deep it drills before its chamfer touches.
    """

    name: str
    designation: str
    type: ThreadMillType
    grade: Grade
    diameter: float
    flutes: int
    pitch_low: float
    pitch_high: float
    angle: float
    teeth: float
    reach: float
    neck: float
    hardest: float
    left_cutting: bool
    thread: Thread | None
    step: float
    price: float
    edges: int
    shank: float
    through: bool
    taper: str = ""
    source: str = ""

    geometry = None

    @property
    def full(self) -> bool:
        """Whether its crest is cut with it: one pitch alone."""
        return self.pitch_low == self.pitch_high

    @property
    def modulus(self) -> float:
        return MODULUS["hss" if self.edges > 1 else self.grade.tool_class]

    @property
    def life_price(self) -> float:
        return self.price / self.edges

    def turns_for(self, length: float, pitch: float) -> float:
        """Turns of its helix for a length of full thread [mm]."""
        if self.type.rows == "many":
            return float(max(1.0, -(-length // (self.teeth * pitch))))
        return length / pitch + 1.0


def thread_mill_of(
    kind: str, name: str, designation: str, grade: Grade | None, coolant: str, price: float, given: Mapping[str, Any], source: str = ""
) -> ThreadMill:
    """A thread mill from its ISO 13399 properties [mm, °]. Raises `CuttingError` for what cannot be."""
    if grade is None or (kind, grade.tool_class) not in thread_mill_types():
        raise CuttingError("grade", f"a {kind} is not made of {grade.tool_class if grade else 'nothing'}.")
    made = thread_mill_types()[kind, grade.tool_class]

    def number(symbol: str, otherwise: float) -> float:
        found = given.get(symbol)
        return otherwise if found in (None, "") else float(found)

    thread = read_thread(str(given["TDZ"]), "TDZ") if given.get("TDZ") else None
    pitch = number("TP", thread.pitch if thread else 0.0)
    low, high = number("TPN", pitch), number("TPX", pitch)
    if low <= 0:
        raise CuttingError("TP", "a thread mill needs its pitch, or the least and the largest.")
    diameter, hand = float(given["DC"]), str(given.get("HAND") or "R").upper()
    return ThreadMill(
        name, designation, made, grade, diameter, int(number("NOF", 4)), low, high, number("PNA", thread.angle if thread else 60.0),
        number("NT", {"many": 12.0, "three": 3.0, "one": 1.0}[made.rows]), float(given["LU"]), number("DN", diameter - 1.3 * high),
        number("HRCX", made.hardest), hand.startswith("L"), thread, number("SDL1", 0.0), price, int(number("CEDC", 1)),
        number("DCONMS", diameter), coolant == "through", source=source,
    )  # fmt: skip

"""Taps: what they are made for, how they carry chips, what twists them off."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from functools import cache
from types import MappingProxyType
from typing import Any

from cutting.errors import CuttingError
from cutting.tables import read_table
from cutting.tooling.drills import SHEAR
from cutting.tooling.items import Grade
from cutting.workpiece.threads.spelling import read_thread
from cutting.workpiece.threads.thread import Thread

# threads of a chamfer by its letter: the middle of what the trade means (DIN 2197, from memory)
CHAMFERS = MappingProxyType({"A": 7.0, "B": 4.5, "C": 2.5, "D": 4.5, "E": 1.75})


@dataclass(frozen=True)
class TapType:
    """What taps of one kind and tool material usually do; all common practice.

    `core` is a share of the thread's diameter, `torque` against cutting, `friction` on top of it; speeds are shares of the turning
    row, in the middle of which it lasts `life` [min] of cutting. `chips` go down, up, stay or are none; `deepest` is in diameters,
    `hardest` in HRC, `ductility` what forming wants of the metal.
    """

    kind: str
    tool_class: str
    core: float
    torque: float
    friction: float
    speed_low: float
    speed_high: float
    life: float
    chips: str
    deepest: float
    hardest: float
    ductility: float

    @property
    def forms(self) -> bool:
        """Whether it presses the thread instead of cutting it."""
        return self.chips == "none"


@cache
def tap_types() -> MappingProxyType[tuple[str, str], TapType]:
    """The types by kind and tool material."""
    words = ("kind", "tool_class", "chips")
    names = [name for name in TapType.__dataclass_fields__ if name not in words]
    rows = read_table("tooling/tap_types.csv")
    return MappingProxyType(
        {
            (row["kind"], row["tool_class"]): TapType(**{w: row[w] for w in words}, **{n: row.number(n) for n in names})  # type: ignore[arg-type]
            for row in rows
        }
    )


TAP_KINDS = tuple(dict.fromkeys(row["kind"] for row in read_table("tooling/tap_types.csv")))


@dataclass(frozen=True)
class Tap:
    """A tap; lengths mm, money of one piece. `class_name` is the class that it cuts, `chamfer` its letter, `hardest` in HRC."""

    name: str
    designation: str
    type: TapType
    grade: Grade
    thread: Thread
    class_name: str
    chamfer: str
    flutes: int
    reach: float
    hardest: float
    price: float
    shank: float
    through: bool
    taper: str = ""
    source: str = ""

    geometry = None
    edges = 1

    @property
    def diameter(self) -> float:
        return self.thread.diameter

    @property
    def pitch(self) -> float:
        return self.thread.pitch

    @property
    def chamfer_threads(self) -> float:
        """Threads of its chamfer, where it does not cut to size."""
        return CHAMFERS[self.chamfer]

    @property
    def core(self) -> float:
        """Core that carries its torque [mm]."""
        return self.type.core * self.thread.diameter

    @property
    def shear(self) -> float:
        return SHEAR[self.grade.tool_class]

    @property
    def life_price(self) -> float:
        return self.price


def tap_of(
    kind: str, name: str, designation: str, grade: Grade | None, coolant: str, price: float, given: Mapping[str, Any], source: str = ""
) -> Tap:
    """A tap from its ISO 13399 properties; `price` of one. Raises `CuttingError` for a thread or a tool material that is not."""
    if grade is None or (kind, grade.tool_class) not in tap_types():
        raise CuttingError("grade", f"a {kind} is not made of {grade.tool_class if grade else 'nothing'}.")
    made = tap_types()[kind, grade.tool_class]
    thread = read_thread(str(given["TDZ"]), "TDZ")
    usual = {"down": "B", "up": "C", "stay": "C", "none": "C"}[made.chips]
    chamfer = str(given.get("THCHT") or usual).upper()
    if chamfer not in CHAMFERS:
        raise CuttingError("THCHT", f"'{chamfer}' is no chamfer of a tap; there are {', '.join(CHAMFERS)}.", ", ".join(CHAMFERS))
    return Tap(
        name, designation, made, grade, thread, str(given.get("TCTR") or thread.of.inside_class), chamfer,
        int(float(given.get("NOF") or 3)), float(given["LU"]), float(given.get("HRCX") or made.hardest), price,
        float(given.get("DCONMS") or thread.diameter), coolant == "through", source=source,
    )  # fmt: skip

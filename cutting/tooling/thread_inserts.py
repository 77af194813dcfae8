"""Threading inserts, laydown and stand-up, and what holds them outside and inside: profile, pitches, tilt of the seat."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from types import MappingProxyType
from typing import Any

from cutting.tooling.bars import body_of
from cutting.tooling.designations.threading_code import read_threading_code
from cutting.tooling.items import Geometry, Grade
from cutting.workpiece.threads.thread import Thread

INSERT_KINDS = ("laydown threading insert", "stand-up threading insert")
HOLDER_KINDS = ("threading holder", "threading bar")
USUAL_TILT = 1.5  # ° that seats of laydown inserts lean (common practice)
SHIMS = (-1.5, -0.5, 0.5, 1.5, 2.5, 3.5, 4.5)  # ° of tilt that shims give (common practice)
UNDER_NOSE = MappingProxyType({False: 10.0, True: 15.0})  # ° of clearance under the nose, outside and inside (common practice)
# N per mm of edge that a tip of 1 mm pitch stands, by tool material: brittle CBN takes thin chips of hard metal; by the root of its
# pitch, so that the trade's own number of passes holds from 0.5 to 4 mm (common practice)
POINTED, WIDE_TIP, FINEST, COARSEST = 50.0, 1.0, 0.5, 4.0
STANDS = MappingProxyType({"carbide": 850.0, "cermet": 650.0, "hss": 800.0, "cbn": 1400.0, "ceramic": 1200.0, "pcd": 600.0})
NOSE_OF_PITCH = 0.125  # flat of a partial profile's tip over its least pitch (common practice)
# profile in the code -> the systems whose form it cuts, and the angle of the flanks
PROFILES: MappingProxyType[str, tuple[tuple[str, ...], float]] = MappingProxyType(
    {
        "ISO": (("metric",), 60.0),
        "M": (("metric",), 60.0),
        "UN": (("unified",), 60.0),
        "W": (("pipe",), 55.0),
        "BSPT": (("taper pipe",), 55.0),
        "NPT": (("npt",), 60.0),
        "TR": (("trapezoidal",), 30.0),
        "ACME": (("acme",), 29.0),
        "60": (("metric", "unified", "special"), 60.0),
        "55": (("pipe", "special"), 55.0),
    }
)


@dataclass(frozen=True)
class ThreadInsert:
    """A threading insert; lengths mm. A full profile has one pitch and cuts the crest too; a partial one a range, and leaves it."""

    name: str
    designation: str
    geometry: Geometry
    grade: Grade
    profile: str
    systems: tuple[str, ...]
    angle: float
    pitch_low: float
    pitch_high: float
    internal: bool | None  # None: both
    hand: str
    seat: str
    edges: int
    hardest: float
    price: float  # of one insert
    source: str = ""

    @property
    def full(self) -> bool:
        return self.pitch_low == self.pitch_high

    @property
    def tip(self) -> float:
        """Flat of a partial profile's tip [mm]; a full profile has the thread's own."""
        return NOSE_OF_PITCH * self.pitch_low

    @property
    def clearance(self) -> float:
        """Clearance under the nose in its seat [°]."""
        return UNDER_NOSE[bool(self.internal)]

    @property
    def stands(self) -> float:
        """Load of its tip that it stands [N per mm of edge]: the thicker, the more; that of a trapeze is wide from the beginning."""
        size = self.pitch_low if self.angle >= POINTED else max(self.pitch_low, WIDE_TIP)
        return STANDS[self.grade.tool_class] * min(max(size, FINEST), COARSEST) ** 0.5

    @property
    def edge_price(self) -> float:
        return self.price / self.edges

    def cuts(self, thread: Thread) -> bool:
        """Whether it has the form and the pitch of a thread."""
        form = thread.system in self.systems and abs(thread.angle - self.angle) < 0.1
        return (
            form
            and self.pitch_low - 1e-3 <= thread.pitch <= self.pitch_high + 1e-3
            and (not thread.flanks or thread.flanks[0] == thread.flanks[1])
        )


@dataclass(frozen=True)
class ThreadHolder:
    """What holds a threading insert; lengths mm. `tilt` is the lean of its seat [°], which shims change where it takes them."""

    name: str
    designation: str
    kind: str
    seat: str
    height: float
    width: float
    overhang: float
    hand: str
    tilt: float
    shims: bool
    least_bore: float
    coolant: str
    price: float
    source: str = ""

    @property
    def internal(self) -> bool:
        return self.kind == "threading bar"

    @property
    def body(self) -> Any:
        """What a bar is made of, by the first letter of its designation; an outside holder is of steel."""
        return body_of(self.designation[:1] if self.internal else "")

    def takes(self, insert: ThreadInsert) -> bool:
        return self.seat == insert.seat


def thread_insert_of(
    kind: str, name: str, designation: str, geometry: Geometry, grade: Grade, price: float, given: Mapping[str, Any], source: str = ""
) -> ThreadInsert:
    """A threading insert from its designation and properties; `price` of one insert. Raises `CuttingError`."""

    def number(symbol: str, otherwise: float) -> float:
        found = given.get(symbol)
        return otherwise if found in (None, "") else float(found)

    hardest = number("HRCX", 62.0 if grade.tool_class == "cbn" else 50.0)
    if kind == "laydown threading insert":
        code = read_threading_code(designation)
        systems, angle = PROFILES.get(code.profile, ((), 60.0))
        low, high = code.pitch_range or (code.pitch or 0.0, code.pitch or 0.0)
        seat = f"thread {code.inscribed_circle:g} {'I' if code.internal else 'E'}"
        return ThreadInsert(
            name, designation, geometry, grade, code.profile, systems, angle, round(low, 6), round(high, 6), code.internal, code.hand, seat,
            int(number("CEDC", 3)), hardest, price, source,
        )  # fmt: skip
    pitch, angle = number("TP", 0.0), number("PNA", 60.0)
    # Whitworth form
    systems = ("metric", "unified", "special") if angle == 60.0 else ("pipe", "special") if angle == 55.0 else ("special",)
    low, high = number("TPN", pitch), number("TPX", pitch)
    seat = str(given.get("SSC") or "")
    return ThreadInsert(
        name, designation, geometry, grade, f"{angle:g}", systems, angle, low, high, None, "N", seat, int(number("CEDC", 1)), hardest,
        price, source,
    )  # fmt: skip


def thread_holder_of(kind: str, designation: str, coolant: str, price: float, given: Mapping[str, Any], source: str = "") -> ThreadHolder:
    """A holder or bar from its ISO 13399 properties [mm, °]."""
    tilt, seat = given.get("LAMS"), str(given["SSC"])
    size = float(given["DCONMS"] if kind == "threading bar" else given["H"])
    width = size if kind == "threading bar" else float(given["B"])
    lays = seat.startswith("thread")
    return ThreadHolder(
        designation, designation, kind, seat, size, width, float(given["OHN"]), str(given.get("HAND") or "R").upper()[:1],
        float(tilt) if tilt not in (None, "") else (USUAL_TILT if lays else 0.0), lays and size >= 16.0, float(given.get("DMIN1") or 0.0),
        coolant, price, source,
    )  # fmt: skip

"""Drills, reamers and what holds them: their sizes, what each type usually reaches, and the shop's own numbers for it."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from functools import cache
from types import MappingProxyType
from typing import Any, Protocol

from cutting.errors import CuttingError
from cutting.mechanics.drilling import cone_length
from cutting.tables import Row, read_table
from cutting.tooling.items import Grade

POINT = {"hss": 118.0, "carbide": 140.0, "pcd": 130.0}  # ° where a row is silent (common practice)
THINNED = {"none": 1.0, "thinned": 0.55, "split": 0.4}  # of the type's chisel share that a web's thinning leaves (common practice)
REGRIND_SHARE = 0.2  # of the price that a regrind costs, where the shop has not said (common practice)
MODULUS = {"hss": 210_000.0, "carbide": 580_000.0, "pcd": 580_000.0}  # N/mm²
STEEL_BODIED = ("brazed drill", "head drill", "indexable drill", "gun drill")
SHEAR = {"hss": 900.0, "carbide": 650.0, "pcd": 600.0}  # N/mm² at which the body twists off (common practice)


LEAD_SHARE, LEAST_LEAD = 0.1, 1.0  # of a reamer's diameter that its chamfer is long, mm at the least (common practice)


def reamer_lead(diameter: float) -> float:
    """Length [mm] of a reamer's chamfer (common practice)."""
    return max(LEAD_SHARE * diameter, LEAST_LEAD)


@dataclass(frozen=True)
class DrillType:
    """What a kind of drill of one tool material usually does; all common practice.

    `feeds` names its family of feeds, `feed_scale` its share of them; speeds are shares of the turning row, in the middle of which
    it lasts `life` [min]: about 30 to 40 m of carbide in steel; `it` and `finish` [µm]
    what it reaches; straightness µm/mm, position and `runout` [mm] that it stands; `flute` share of the hole that its flutes leave,
    `chisel` thrust of the full chisel edge over the lips'; edge radius µm.
    `least_pressure` [bar] is what must come through it for it to work at all.
    """

    kind: str
    tool_class: str
    feeds: str
    feed_scale: float
    least_feed: float
    speed_low: float
    speed_high: float
    life: float
    it: float
    finish: float
    straightness: float
    position: float
    runout: float
    flute: float
    chisel: float
    edge_radius: float
    web: float
    least_pressure: float
    enlarges: bool
    spots: bool

    @property
    def reams(self) -> bool:
        return self.kind == "reamer"

    @property
    def opens(self) -> bool:
        """Whether it makes a hole in solid metal."""
        return not self.enlarges and not self.spots


@cache
def drill_types() -> MappingProxyType[tuple[str, str], DrillType]:
    """The types by kind of tool and tool material."""
    return MappingProxyType({(row["kind"], row["tool_class"]): _type(row) for row in read_table("tooling/drill_types.csv")})


def _type(row: Row) -> DrillType:
    words, flags = ("kind", "tool_class", "feeds"), ("enlarges", "spots")
    values: dict[str, Any] = {name: row.number(name) for name in DrillType.__dataclass_fields__ if name not in (*words, *flags)}
    return DrillType(**values | {name: row[name] for name in words} | {name: row.flag(name) for name in flags})


@dataclass(frozen=True)
class Drill:
    """A drill, core drill, reamer or the like; lengths mm, angles °, money of one piece.

    `least_pilot` and `most_allowance` bound what an enlarging tool takes on the diameter. `shank` is its diameter, `taper` a Morse
    taper in words. `step` is the diameter of a chamfering step that begins at `step_length`.
    """

    name: str
    designation: str
    type: DrillType
    grade: Grade
    diameter: float
    point_angle: float
    flutes: int
    reach: float
    flute_length: float
    web: float
    chisel_share: float
    margins: int
    helix: float
    coolant_holes: int
    coolant_hole: float
    it: float
    price: float
    regrinds: int
    regrind_price: float
    edges: int
    shank: float
    taper: str
    through: bool
    step: float = 0.0
    step_length: float = 0.0
    source: str = ""

    geometry = None  # a drill's point is its own; no chipbreaker stands beside it

    @property
    def cone(self) -> float:
        """Length of the point, of a reamer of its chamfer [mm]: what it cuts less than full size."""
        return reamer_lead(self.diameter) if self.type.reams else float(cone_length(self.diameter, self.point_angle))

    @property
    def _body(self) -> str:
        """What its body is of: heads, inserts and brazed tips sit on tough steel."""
        return "hss" if self.type.kind in STEEL_BODIED else self.grade.tool_class

    @property
    def modulus(self) -> float:
        return MODULUS[self._body]

    @property
    def shear(self) -> float:
        return SHEAR[self._body]

    @property
    def life_price(self) -> float:
        """Money of one life: with its regrinds, or of one of its edges."""
        if self.edges > 1:
            return self.price / self.edges
        return (self.price + self.regrinds * self.regrind_price) / (self.regrinds + 1)


class Shanked(Protocol):
    """A round tool: the diameter of its shank [mm], or its Morse taper in words."""

    @property
    def shank(self) -> float: ...
    @property
    def taper(self) -> str: ...


@dataclass(frozen=True)
class Chuck:
    """What holds a drill: the shanks that it takes [mm], what it sits in, its runout [mm] and grip.

    `grip` is the torque that it holds over the square of the shank's diameter [N·m/mm²].
    """

    name: str
    designation: str
    style: str
    low: float
    high: float
    takes_taper: str
    sits_in: str
    runout: float
    grip: float
    through: bool
    length: float
    price: float
    source: str = ""

    @property
    def squares(self) -> bool:
        """Whether it drives a tap by the square of its shank: collets for taps have one, what grips a round shank alone has none."""
        return self.style == "collet"

    def takes(self, tool: Shanked) -> bool:
        """Whether it holds a round tool's shank."""
        if tool.taper or self.takes_taper:
            return tool.taper == self.takes_taper
        return self.low - 1e-9 <= tool.shank <= self.high + 1e-9


# runout [mm] at the drill's corner and grip [N·m per mm² of shank diameter squared] of a way of holding (common practice)
STYLES: MappingProxyType[str, tuple[float, float]] = MappingProxyType(
    {
        "shrink": (0.003, 0.9),
        "hydraulic": (0.004, 0.7),
        "collet": (0.012, 0.5),
        "sleeve": (0.02, 1.0),
        "taper": (0.03, 1.5),
        "keyless": (0.05, 0.12),
    }
)
CHUCK_KIND = "drill chuck"
DRILL_KINDS = tuple(dict.fromkeys(row["kind"] for row in read_table("tooling/drill_types.csv")))


def style_of(designation: str) -> str:
    """The way of holding that a chuck's own words name."""
    said = designation.lower()
    return next((style for style in STYLES if style in said), "keyless")


def chuck_of(designation: str, coolant: str, price: float, given: Mapping[str, Any], source: str = "") -> Chuck:
    """A chuck or sleeve from its ISO 13399 properties [mm]."""
    style = style_of(designation)
    runout, grip = STYLES[style]
    high = float(given.get("DCONWSX") or given.get("DCONWSN") or 0.0)
    low = float(given.get("DCONWSN") or 0.0)
    return Chuck(
        designation, designation, style, low, high, str(given.get("ADINTWS") or ""), str(given.get("ADINTMS") or ""),
        float(given.get("RUNOUT") or runout), grip, coolant == "through", float(given.get("LPR") or 60.0), price, source,
    )  # fmt: skip


def drill_of(
    kind: str, name: str, designation: str, grade: Grade | None, coolant: str, price: float, given: Mapping[str, Any], source: str = ""
) -> Drill:
    """A drill from its ISO 13399 properties [mm, °]; `price` of one. Raises `CuttingError` for a tool material that its kind has not."""
    if grade is None or (kind, grade.tool_class) not in drill_types():
        raise CuttingError("grade", f"a {kind} is not made of {grade.tool_class if grade else 'nothing'}.")
    made = drill_types()[kind, grade.tool_class]

    def number(symbol: str, otherwise: float) -> float:
        found = given.get(symbol)
        return otherwise if found in (None, "") else float(found)

    diameter = float(given["DC"])
    reach = float(given["LU"])
    taper = str(given.get("ADINTMS") or "")
    regrinds = int(number("NORGMX", 0))
    return Drill(
        name=name,
        designation=designation,
        type=made,
        grade=grade,
        diameter=diameter,
        point_angle=number("SIG", POINT[grade.tool_class]),
        flutes=int(number("NOF", 2)),
        reach=reach,
        flute_length=number("LCF", reach + diameter),
        web=made.web * diameter,
        chisel_share=0.0 if made.enlarges else made.chisel * THINNED.get(str(given.get("THIN") or "none"), 1.0),
        margins=int(number("MARG", 2)),
        helix=number("FHA", 30.0),
        coolant_holes=int(number("NCX", 2 if coolant == "through" else 0)),
        coolant_hole=number("CXD", 0.12 * diameter if coolant == "through" else 0.0),
        it=number("ITR", made.it),
        price=price,
        regrinds=regrinds,
        regrind_price=number("REGP", REGRIND_SHARE * price),
        edges=int(number("CEDC", 1)),
        shank=number("DCONMS", 0.0 if taper else diameter),
        taper=taper,
        through=coolant == "through",
        step=number("SD1", 0.0),
        step_length=number("SDL1", 0.0),
        source=source,
    )

"""What carries a grooving insert: a blade for cut-off and grooves, a bar for the bore, a blade for the face, a trepanning head."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from types import MappingProxyType
from typing import Any, ClassVar

import numpy as np

from cutting.tooling.groove_inserts import GrooveInsert

# stiffness of a way of holding the insert against a solid steel blade: a pocket weakens it, a cassette that reaches under the
# insert carries it (common practice, no source: a face dished by 10 µm where a plain blade leaves about 55)
STYLES = {"reinforced": 1.0, "screw": 0.9, "self-clamping": 0.75, "cassette": 4.0, "bar": 0.9, "head": 0.8}
# side load that a style holds [N per mm² of the square of its width]: a pocket that only grips gives way (common practice)
SIDE_RATING = {"reinforced": 90.0, "screw": 90.0, "cassette": 60.0, "self-clamping": 12.0, "bar": 70.0, "head": 60.0}
# how an edge drifts in its seat on its way in [mm for each mm of depth at 0.1 mm/rev]: play, location, wear of the seat; a straight edge
# on a blade dishes a face of Ø40 by 60 µm and in a cassette by 10 (common practice, no source)
SEAT_DRIFT = {"reinforced": 1.0e-3, "screw": 1.2e-3, "self-clamping": 3.0e-3, "cassette": 0.5e-3, "bar": 1.2e-3, "head": 1.0e-3}
# where coolant comes out: how many times longer an edge lasts in its slot at 3, 5, 20 and 70 bar than flooded from beside it
# (common practice: 120 pieces beside the slot and 720 through the insert at the same data in one shop, 1.5 to 2 times in others)
PATHS = {
    "flood": (1.0, 1.0, 1.0, 1.0),
    "jet": (1.0, 1.05, 1.15, 1.3),
    "clamp": (1.0, 1.15, 1.4, 1.8),
    "through": (1.1, 1.3, 2.2, 3.5),
    "through both": (1.15, 1.4, 2.8, 5.0),
}
PATH_PRESSURES = (3.0, 5.0, 20.0, 70.0)
SEAT_PLAY = 0.05  # mm by which an insert's width may differ from its pocket's
CARTRIDGE_ROOM, LEAST_CARTRIDGE = 5.0, 20.0  # mm that a head's cartridge stands out beyond its depth, and at the least (common practice)
BEFORE_BLOCK = 1.0  # mm that a blade stands out beyond its depth, so that its block clears the bar (common practice)
ANY_BAR = 3000.0  # mm: the relief of a blade whose row names none
OTHER_STYLE = 0.75  # of a solid one, of a clamp that is not listed
OTHER_DRIFT = 3.0e-3  # mm, of a clamp that is not listed


@dataclass(frozen=True, kw_only=True)
class Blade:
    """What every holder of grooving inserts says; lengths mm. A class of its own says where it works and what that takes."""

    KIND: ClassVar[str]  # of tool in the crib
    WORK: ClassVar[str]  # where it works, in words
    STYLE: ClassVar[str] = "self-clamping"  # where the designation names none
    NUMBERS: ClassVar[tuple[str, ...]] = ()  # its own, beside those of every blade

    name: str
    designation: str
    style: str
    width: float
    reach: float
    thickness: float
    height: float
    overhang: float
    coolant: str
    price: float
    source: str = ""
    seat: str = ""

    def takes(self, insert: GrooveInsert) -> bool:
        """A named seat takes its own inserts of any width; any other blade is made for one width."""
        if self.seat or insert.seat:
            return self.seat == insert.seat and insert.width <= self.width + SEAT_PLAY
        return abs(self.width - insert.width) < SEAT_PLAY

    @property
    def stiffness_share(self) -> float:
        return STYLES.get(self.style, OTHER_STYLE)

    @property
    def seat_drift(self) -> float:
        """How its edge drifts in its seat [mm for each mm of depth at 0.1 mm/rev]."""
        return SEAT_DRIFT.get(self.style, OTHER_DRIFT)

    @property
    def through(self) -> bool:
        """Whether coolant comes out at the edge."""
        return self.coolant.startswith("through")

    def lasts_by_coolant(self, pressure: float) -> float:
        """How many times longer an edge lasts by the way that coolant takes at a pressure [bar]; 1 from beside the slot, and dry."""
        gains = PATHS.get(self.coolant, PATHS["flood"])
        return float(np.interp(pressure, (0.0, *PATH_PRESSURES), (1.0, *gains)))

    @property
    def round_shank(self) -> float:
        """Diameter of a bar [mm] that bends as a whole; 0 for a blade."""
        return 0.0

    def shortest(self, depth: float) -> float:
        """The least overhang [mm] for a depth [mm]: a holder with its head in one piece stands out as it is."""
        return max(self.overhang, depth)

    @property
    def side_share(self) -> float:
        """Side load that this style holds, N per mm² of the square of its insert's width (common practice)."""
        return SIDE_RATING.get(self.style, 12.0)


@dataclass(frozen=True, kw_only=True)
class CutOffBlade(Blade):
    """A blade for cut-off and outside grooves; `largest_bar` is what its support relief clears (CUTDIA)."""

    KIND, WORK = "cut-off blade", "outside"
    NUMBERS = ("largest_bar",)

    largest_bar: float = ANY_BAR

    def shortest(self, depth: float) -> float:
        """A blade slides in its block; a holder with its head in one piece does not."""
        slides = self.style in ("reinforced", "self-clamping")
        return round(max(depth + BEFORE_BLOCK, 3.0), 1) if slides else super().shortest(depth)


@dataclass(frozen=True, kw_only=True)
class GrooveBar(Blade):
    """A bar for grooves in a bore; `least_bore` is what it enters (DMIN1), `longest` how far it may stand out (OHX)."""

    KIND, WORK, STYLE = "inside groove bar", "inside", "bar"
    NUMBERS = ("least_bore", "bar_diameter")

    least_bore: float
    bar_diameter: float
    longest: float = 0.0

    @property
    def round_shank(self) -> float:
        return self.bar_diameter


@dataclass(frozen=True, kw_only=True)
class FaceBlade(Blade):
    """A curved blade for grooves in a face: the diameters of its first plunge (DAXN, DAXX, DAXIN) and its hand."""

    KIND, WORK, STYLE = "face groove blade", "face", "screw"
    NUMBERS = ("face_low", "face_high", "face_inner")

    face_low: float
    face_high: float
    face_inner: float = 0.0
    hand: str = "N"


@dataclass(frozen=True, kw_only=True)
class TrepanHead(Blade):
    """A trepanning head: the diameters that it is set to (DCN, DCX), its edges, its mass [kg]."""

    KIND, WORK, STYLE = "trepanning head", "trepan", "head"
    NUMBERS = ("head_low", "head_high", "cartridges", "mass")

    head_low: float
    head_high: float
    cartridges: int = 1
    mass: float = 0.0

    def shortest(self, depth: float) -> float:
        """Cartridges come in lengths: as long as the depth wants, and no longer than its own."""
        return min(max(depth + CARTRIDGE_ROOM, LEAST_CARTRIDGE), max(self.overhang, depth))


BLADE_NUMBERS = ("reach", "thickness", "height", "overhang", "price", "round_shank", "stiffness_share", "side_share", "seat_drift")
BLADES: MappingProxyType[str, type[Blade]] = MappingProxyType({one.KIND: one for one in (CutOffBlade, GrooveBar, FaceBlade, TrepanHead)})
OWN = MappingProxyType(  # ISO 13399 symbols of what a class adds: symbol and what stands where a row is silent
    {
        "largest_bar": ("CUTDIA", ANY_BAR),
        "least_bore": ("DMIN1", 0.0),
        "bar_diameter": ("DCONMS", 0.0),
        "longest": ("OHX", 0.0),
        "face_low": ("DAXN", 0.0),
        "face_high": ("DAXX", 0.0),
        "face_inner": ("DAXIN", 0.0),
        "hand": ("HAND", "N"),
        "head_low": ("DCN", 0.0),
        "head_high": ("DCX", 0.0),
        "cartridges": ("ZEFF", 1),
        "mass": ("WT", 0.0),
    }
)


def style_of(designation: str, kind: str = CutOffBlade.KIND) -> str:
    """The way of holding that a blade's own words name; its class's usual one where they name none."""
    said = designation.lower()
    return next((style for style in STYLES if style in said), BLADES[kind].STYLE)


def _like(usual: Any, value: Any) -> Any:
    """A value as a number or a word, as the usual one is."""
    return str(value) if isinstance(usual, str) else type(usual)(float(value))


def blade_of(kind: str, designation: str, coolant: str, price: float, given: Mapping[str, Any], source: str = "") -> Blade:
    """A blade, bar or head from its ISO 13399 properties [mm, kg]."""

    def number(symbol: str, otherwise: float = 0.0) -> float:
        return float(given.get(symbol) or otherwise)

    made = BLADES[kind]
    shank = number("DCONMS")
    wanted = {name: OWN[name] for name in made.__dataclass_fields__ if name in OWN}
    own: dict[str, Any] = {name: _like(usual, given.get(symbol) or usual) for name, (symbol, usual) in wanted.items()}
    return made(
        name=designation,
        designation=designation,
        style=style_of(designation, kind),
        width=number("CW"),
        reach=number("CDX"),
        thickness=number("B", shank or 0.8 * number("CW")),
        height=number("H", shank),
        overhang=number("OHN"),
        coolant=coolant or "flood",
        price=price,
        source=source,
        seat=str(given.get("SSC") or ""),
        **own,
    )

"""A heavy boring tool: its holder, the solids of its body, and the steps that cut."""

from __future__ import annotations

import math
from dataclasses import dataclass
from functools import cache, cached_property
from types import MappingProxyType

from cutting.errors import CuttingError, UnknownName, require_between
from cutting.tables import read_table
from cutting.tooling.heavy.bending import BodyBending
from cutting.tooling.heavy.solids import Lump, MassOf, Segment, mass_of
from cutting.tooling.items import Grade

HEAVY_KIND = "heavy tool"
SAME_BORE = 0.005  # mm that a step may be off a bore's nominal size and still be meant for it
CARTRIDGE, PAD = 0.09, 0.025  # kg of a cartridge with its insert and of a guide pad (common practice)


@dataclass(frozen=True)
class HeavyHolder:
    """What joins the body to the spindle: kg, mm from the gripper, `face` where the body begins, `stiffness` of its seat kN·m/rad."""

    name: str
    interface: str
    mass: float
    lever: float
    face: float
    seat_diameter: float
    stiffness: float


@cache
def heavy_holders() -> MappingProxyType[str, HeavyHolder]:
    """The holders of the shipped table by name."""
    numbers = ("mass", "lever", "face", "seat_diameter", "stiffness")
    rows = read_table("tooling/heavy/holders.csv")
    return MappingProxyType(
        {row["name"]: HeavyHolder(row["name"], row["interface"], *(row.number(name) for name in numbers)) for row in rows}
    )


def heavy_holder(name: str, field: str) -> HeavyHolder:
    """The holder of that name. Raises `UnknownName`."""
    found = {one.lower(): holder for one, holder in heavy_holders().items()}.get(name.strip().lower())
    if found is None:
        known = tuple(heavy_holders())
        raise UnknownName(field, f"no holder is called '{name[:40]}'; there are {', '.join(known)}.", None, known)
    return found


@dataclass(frozen=True)
class BoringStep:
    """One diameter that the tool bores: mm. `at` is the place of its edges from the gripper.

    `allowance` on the diameter, that it is made for; `cutting_edge_angle` κr in degrees; `outlets` of `outlet_diameter` bring coolant
    to its edges.
    """

    name: str
    diameter: float
    at: float
    inserts: int = 2
    allowance: float = 0.5
    cutting_edge_angle: float = 90.0
    nose_radius: float = 0.8
    pads: int = 0
    outlets: int = 2
    outlet_diameter: float = 1.5

    def check(self, field: str) -> None:
        """Raise `CuttingError` for a step that cannot be."""
        require_between(f"{field}.diameter", self.diameter, 5.0, 1500.0, "mm")
        require_between(f"{field}.inserts", self.inserts, 1, 24, "")
        require_between(f"{field}.allowance", self.allowance, 0.02, 40.0, "mm")
        require_between(f"{field}.cutting_edge_angle", self.cutting_edge_angle, 15.0, 95.0, "°")
        require_between(f"{field}.nose_radius", self.nose_radius, 0.0, 5.0, "mm")
        require_between(f"{field}.pads", self.pads, 0, 12, "")
        require_between(f"{field}.outlets", self.outlets, 0, 24, "")
        require_between(f"{field}.outlet_diameter", self.outlet_diameter, 0.3, 20.0, "mm")


TOUCH = 0.02  # mm that solids may be apart by rounding


def touches(one: Segment, other: Segment) -> bool:
    """Whether two solids meet: side by side along the axis or one on the other, with metal against metal."""
    along = one.start <= other.end + TOUCH and other.start <= one.end + TOUCH
    return along and one.inner <= other.outer + TOUCH and other.inner <= one.outer + TOUCH


@dataclass(frozen=True)
class HeavyTool:
    """A tool as it hangs on the gripper. `eccentricity` [µm] is how far its centre of gravity lies off the axis, as balanced.

    Its inserts are of one `grade`, `insert_price` each, with so many `corners`. Its steps run true to each other within
    `between_steps` [mm].
    """

    name: str
    holder: HeavyHolder
    segments: tuple[Segment, ...]
    steps: tuple[BoringStep, ...]
    grade: Grade
    insert_price: float = 9.0
    corners: int = 2
    between_steps: float = 0.003
    balance_grade: float = 6.3
    eccentricity: float = 5.0
    source: str = ""

    geometry = None  # its cartridges take inserts of several

    @property
    def designation(self) -> str:
        """What it is called where tools are listed."""
        return self.name

    @property
    def edges(self) -> int:
        """How often its inserts are turned before they are new ones."""
        return self.corners

    @property
    def edge_price(self) -> float:
        """Money that one change of all its edges takes in inserts."""
        return self.insert_price / self.corners * sum(step.inserts for step in self.steps)

    @property
    def diameter(self) -> float:
        """Its widest step [mm], at which its cutting speed is stated."""
        return max(step.diameter for step in self.steps)

    def step_for(self, diameter: float) -> BoringStep | None:
        """The step that bores a diameter [mm], None where it has none."""
        return next((one for one in self.steps if abs(one.diameter - diameter) < SAME_BORE), None)

    def check(self) -> None:
        """Raise `CuttingError` for the first part that cannot be."""
        require_between("balance_grade", self.balance_grade, 0.4, 100.0, "mm/s")
        require_between("eccentricity", self.eccentricity, 0.0, 1000.0, "µm")
        require_between("insert_price", self.insert_price, 0.0, 10_000.0, "")
        require_between("corners", self.corners, 1, 16, "")
        require_between("between_steps", self.between_steps, 0.0, 1.0, "mm")
        if not self.segments:
            raise CuttingError("segments", "a body wants at least one solid.")
        if not self.steps:
            raise CuttingError("steps", "a boring tool wants at least one step.")
        for k, one in enumerate(self.segments):
            one.check(f"segments.{k}")
        if all(one.arms for one in self.segments):
            raise CuttingError("segments", "arms want a round body that carries them.")
        self._check_carried()
        for k, step in enumerate(self.steps):
            step.check(f"steps.{k}")
            if any(abs(step.diameter - other.diameter) < SAME_BORE for other in self.steps[:k]):
                raise CuttingError(f"steps.{k}.diameter", f"Ø{step.diameter:g} is bored by a step before it.", "each diameter once")
            if not self.holder.face < step.at <= self.length + 50.0:  # mm beyond the end, where a slipped-on piece may stand
                low, high = self.holder.face, self.length + 50.0
                raise CuttingError(f"steps.{k}.at", f"{step.at:g} mm is outside the body, {low:g} to {high:g}.", f"{low:g} to {high:g} mm")

    def _check_carried(self) -> None:
        """Raise `CuttingError` for a solid that nothing holds: metal must touch metal, from the holder's face outward."""
        held = [Segment("holder", 0.0, self.holder.face, self.holder.seat_diameter, 0.0, self.segments[0].material)]
        waiting = list(enumerate(self.segments))
        while touching := [(k, one) for k, one in waiting if any(touches(one, other) for other in held)]:
            held += [one for _, one in touching if not one.arms]
            waiting = [(k, one) for k, one in waiting if (k, one) not in touching]
        if waiting:
            k, one = waiting[0]
            raise CuttingError(f"segments.{k}", f"nothing carries {one.name} at {one.start:g} mm, Ø{one.inner:g} to Ø{one.outer:g}.",
                               "metal that it touches")  # fmt: skip

    @property
    def length(self) -> float:
        """From the gripper to the end of its body [mm]."""
        return max(one.end for one in self.segments)

    @property
    def largest_diameter(self) -> float:
        """What the changer must swing past its neighbours [mm]."""
        return max(self.diameter, *(one.outer for one in self.segments))

    @property
    def cartridges(self) -> tuple[Lump, ...]:
        """Cartridges and pads as masses at their places."""
        return tuple(Lump(step.name, step.inserts * CARTRIDGE + step.pads * PAD, step.at, step.diameter / 2.0) for step in self.steps)

    @cached_property
    def whole(self) -> MassOf:
        """Mass, centre of gravity, inertia of all of it."""
        holder = Lump(self.holder.name, self.holder.mass, self.holder.lever, self.holder.seat_diameter / 2.0 / math.sqrt(2.0))
        return mass_of(self.segments, (holder, *self.cartridges))

    @cached_property
    def bending(self) -> BodyBending:
        """Its body as a beam that stands out of the spindle."""
        return BodyBending(self.segments, self.cartridges, self.holder.face, self.holder.stiffness)

"""Solids of a tool that turns: tubes, discs and arms with their mass, centre of gravity and inertia."""

from __future__ import annotations

import math
from collections.abc import Iterable
from dataclasses import dataclass
from functools import cache
from types import MappingProxyType

from cutting.errors import CuttingError, UnknownName, require_between
from cutting.tables import read_table


@dataclass(frozen=True)
class BodyMaterial:
    """What a body is made of: g/cm³, N/mm², 1e−6/K; `share` of solid metal that is usual, one where it is not hollow inside."""

    name: str
    density: float
    elastic_modulus: float
    expansion: float
    share: float
    price_factor: float


@cache
def body_materials() -> MappingProxyType[str, BodyMaterial]:
    """The materials of the shipped table by name."""
    numbers = ("density", "elastic_modulus", "expansion", "share", "price_factor")
    rows = read_table("tooling/heavy/materials.csv")
    return MappingProxyType({row["name"]: BodyMaterial(row["name"], *(row.number(name) for name in numbers)) for row in rows})


def body_material(name: str, field: str) -> BodyMaterial:
    """The material of that name. Raises `UnknownName`."""
    found = body_materials().get(name.strip().lower())
    if found is None:
        known = tuple(body_materials())
        raise UnknownName(field, f"no body is made of '{name[:40]}'; there are {', '.join(known)}.", None, known)
    return found


@dataclass(frozen=True)
class Segment:
    """A stretch of the tool, mm from the gripper outward: a round with a bore, or some arms from hub to rim.

    `share` is how much of its room is metal; `arms` of `width` reach from `inner` to `outer`, and carry no bending.
    """

    name: str
    start: float
    length: float
    outer: float
    inner: float
    material: BodyMaterial
    share: float = 1.0
    arms: int = 0
    width: float = 0.0

    def check(self, field: str) -> None:
        """Raise `CuttingError` for a solid that cannot be."""
        require_between(f"{field}.length", self.length, 0.5, 2000.0, "mm")
        require_between(f"{field}.outer", self.outer, 1.0, 2000.0, "mm")
        require_between(f"{field}.inner", self.inner, 0.0, 2000.0, "mm")
        require_between(f"{field}.share", 100.0 * self.share, 5.0, 100.0, "%")
        if self.inner >= self.outer:
            raise CuttingError(f"{field}.inner", f"Ø{self.inner:g} is not below the outside Ø{self.outer:g}.", f"below {self.outer:g} mm")
        if self.arms and not 0.0 < self.width <= self.outer:
            raise CuttingError(f"{field}.width", f"{self.width:g} mm is no width of an arm here.", f"above 0 to {self.outer:g} mm")
        if self.arms < 0 or self.arms > 24:
            raise CuttingError(f"{field}.arms", f"{self.arms} is outside 0 to 24.", "0 to 24")

    @property
    def end(self) -> float:
        return self.start + self.length

    @property
    def volume(self) -> float:
        """Metal [mm³]."""
        if self.arms:
            return self.share * self.arms * self.width * (self.outer - self.inner) / 2.0 * self.length
        return self.share * math.pi / 4.0 * (self.outer**2 - self.inner**2) * self.length

    @property
    def mass(self) -> float:
        """Mass [kg]."""
        return self.volume * self.material.density * 1e-6

    @property
    def middle(self) -> float:
        """Its own centre of gravity [mm from the gripper]."""
        return self.start + self.length / 2.0

    @property
    def inertia(self) -> float:
        """Inertia about the axis [kg·m²]: of a ring m·(R² + r²)/2, of arms as bars from r to R."""
        outer, inner = self.outer / 2000.0, self.inner / 2000.0
        if self.arms:
            return self.mass * ((outer**2 + outer * inner + inner**2) / 3.0 + (self.width / 1000.0) ** 2 / 12.0)
        return self.mass * (outer**2 + inner**2) / 2.0


@dataclass(frozen=True)
class Lump:
    """A mass [kg] at a place [mm from the gripper] and a radius [mm]: cartridges, pads, the holder."""

    name: str
    mass: float
    place: float
    radius: float = 0.0


@dataclass(frozen=True)
class MassOf:
    """Mass [kg], centre of gravity [mm from the gripper], inertia about the axis [kg·m²]."""

    mass: float
    lever: float
    inertia: float


def mass_of(segments: Iterable[Segment], lumps: Iterable[Lump] = ()) -> MassOf:
    """The whole of solids and lumps: masses and their moments add up."""
    rows = [(one.mass, one.middle, one.inertia) for one in segments]
    rows += [(one.mass, one.place, one.mass * (one.radius / 1000.0) ** 2) for one in lumps]
    whole = sum(mass for mass, _, _ in rows)
    moment = sum(mass * place for mass, place, _ in rows)
    return MassOf(whole, moment / whole if whole > 0 else 0.0, sum(inertia for _, _, inertia in rows))

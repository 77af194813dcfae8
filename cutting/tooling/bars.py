"""What boring bars are made of, by the first letter of their ISO 6261 designation: how stiff, how heavy, how far they may stand out."""

from __future__ import annotations

from dataclasses import dataclass
from types import MappingProxyType

from cutting.mechanics.chatter import DAMPING
from cutting.mechanics.deflection import SHANK_MODULUS


@dataclass(frozen=True)
class BarBody:
    """A bar's body: E [N/mm²], density [g/cm³], damping ratio, and how many diameters it usually stands out; common practice."""

    name: str
    modulus: float
    density: float
    damping: float
    reach: float


STEEL = BarBody("steel", SHANK_MODULUS, 7.85, DAMPING, 4.0)
HEAVY_METAL = BarBody("heavy metal", 330_000.0, 17.5, 0.04, 5.0)
CARBIDE = BarBody("carbide", 600_000.0, 14.5, DAMPING, 6.0)
DAMPED_STEEL = BarBody("damped steel", SHANK_MODULUS, 7.85, 0.15, 8.0)
DAMPED_CARBIDE = BarBody("damped carbide", 600_000.0, 14.5, 0.15, 12.0)
BODIES: MappingProxyType[str, BarBody] = MappingProxyType(
    {
        **dict.fromkeys("SA", STEEL),
        **dict.fromkeys("BD", DAMPED_STEEL),
        **dict.fromkeys("CE", CARBIDE),
        **dict.fromkeys("FG", DAMPED_CARBIDE),
        **dict.fromkeys("HJ", HEAVY_METAL),
    }
)


def body_of(bar: str) -> BarBody:
    """The body of a bar by its letter; an outside holder, which has none, is of steel."""
    return BODIES.get(bar, STEEL)

"""How hot a hardened metal gets in the cut before it gives way, by how it was hardened and tempered."""

from __future__ import annotations

from types import MappingProxyType

from cutting.workpiece.materials import Material

# °C in the zone at which the work gives way under the edge, by the first figures of its number (EN 10027-2): the later its hardness
# leaves it in the tempering curve, the hotter (common practice; the order from tempering curves, from memory)
GIVES_WAY = MappingProxyType(
    {
        "1.71": 600.0,  # case-hardened, tempered at 180 °C: the case loses its hardness first
        "1.35": 650.0,  # bearing steel, hardened through
        "1.72": 650.0,  # quenched and tempered alloy steel
        "1.40": 680.0,  # martensitic stainless
        "1.20": 650.0,  # cold-work steel without carbides of its own
        "1.2379": 720.0,  # 12 % chromium: carbides, tempered high
        "1.23": 750.0,  # hot-work steel, with its second hardness at 520 °C
        "1.33": 800.0,  # high-speed steel, hard up to 560 °C
        "5.": 800.0,  # chilled and hardened iron: carbides carry it
    }
)
USUAL = 650.0  # °C of hardened steel of which nothing more is known (common practice)


def gives_way_at(material: Material) -> float:
    """Temperature [°C] of the zone at which a hardened metal gives way under the edge.

    >>> from cutting.workpiece.materials import find_material
    >>> gives_way_at(find_material("16MnCr5 case-hardened 60 HRC")) < gives_way_at(find_material("HS6-5-3C PM hardened 64 HRC"))
    True
    """
    known = [start for start in GIVES_WAY if material.number.startswith(start)]
    return GIVES_WAY[max(known, key=len)] if known else USUAL

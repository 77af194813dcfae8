"""What a metal does to tools and chips, in words with their numbers, and which metals are like it (common practice, no source)."""

from __future__ import annotations

import math
from collections.abc import Iterable
from dataclasses import dataclass

from cutting.workpiece.materials import Material

CONDUCTS, INSULATES = 0.4, 0.7  # on the way from copper to titanium, below and above which heat is a trait
BEST, WORST = 200, 6  # W/(m·K), aluminium and titanium


@dataclass(frozen=True)
class Trait:
    """One behaviour: a share from 0 to 1 and what it means at the machine."""

    name: str
    share: float
    says: str


@dataclass(frozen=True)
class Neighbour:
    """A metal that behaves alike, and in what it differs most."""

    name: str
    distance: float
    differs: str


_WORDS = {
    "ductility": (
        (0.3, "chips break by themselves; a flat land will do"),
        (0.6, "chips curl and break in a breaker that suits the feed"),
        (1.01, "chips string: a tight breaker, enough feed, or a jet of coolant"),
    ),
    "adhesion": (
        (0.3, "does not stick"),
        (0.6, "builds up edge at low speed: keep the speed up or the edge sharp"),
        (1.01, "sticks and smears: sharp, smooth edges, rich coolant"),
    ),
    "abrasion": (
        (0.3, "wears the flank slowly"),
        (0.6, "wears the flank: a hard grade pays"),
        (1.01, "grinds edges away: hardest grade, lower speed, diamond or CBN where it is allowed"),
    ),
    "work_hardening": (
        (0.3, "stays as it is under the cut"),
        (0.6, "hardens a little: no rubbing, no dwell"),
        (1.01, "hardens under the edge: cut below the last skin, never dwell, notch wear at the depth line"),
    ),
}


def traits(material: Material) -> tuple[Trait, ...]:
    """Ductility, adhesion, abrasion, work hardening and heat, each with what it means."""
    found = [
        Trait(name.replace("_", " "), getattr(material, name), next(says for top, says in words if getattr(material, name) < top))
        for name, words in _WORDS.items()
    ]
    share = min(1.0, max(0.0, math.log10(BEST / material.conductivity) / math.log10(BEST / WORST)))
    heat = "some heat stays at the edge"
    if share < CONDUCTS:
        heat = "heat goes into the chip and the part"
    elif share > INSULATES:
        heat = "heat stays at the edge: lower speed, rich coolant"
    return (*found, Trait("heat at the edge", share, f"{heat} ({material.conductivity:g} W/(m·K))"))


def neighbours(material: Material, others: Iterable[Material], count: int = 6) -> tuple[Neighbour, ...]:
    """The metals nearest in behaviour, hardness and cutting force; what differs most is named."""
    found = []
    for other in others:
        if other.name == material.name:
            continue
        parts = _differences(material, other)
        worst = max(parts, key=lambda part: part[0])
        distance = math.sqrt(sum(weight**2 for weight, _ in parts)) + (0.5 if other.group.letter != material.group.letter else 0.0)
        found.append(Neighbour(other.name, round(distance, 3), worst[1]))
    return tuple(sorted(found, key=lambda n: n.distance)[:count])


def _differences(a: Material, b: Material) -> list[tuple[float, str]]:
    hardness = b.usual_hardness - a.usual_hardness
    force = b.specific_force_1 / a.specific_force_1
    parts = [
        (abs(math.log(b.usual_hardness / a.usual_hardness)), f"{'harder' if hardness > 0 else 'softer'} by {abs(hardness):.0f} HB"),
        (abs(math.log(force)), f"cutting force {abs(force - 1):.0%} {'higher' if force > 1 else 'lower'}"),
        # as much as a third of hardness
        (0.3 * abs(math.log(b.conductivity / a.conductivity)), f"conducts heat {'better' if b.conductivity > a.conductivity else 'worse'}"),
    ]
    for name in ("ductility", "adhesion", "abrasion", "work_hardening"):
        gap = getattr(b, name) - getattr(a, name)
        parts.append(
            (abs(gap), f"{name.replace('_', ' ')} {'more' if gap > 0 else 'less'} ({getattr(b, name):.2f} against {getattr(a, name):.2f})")
        )
    return parts

"""How to cool a cut, with the reason: a rule of material, tool material and interruption, jet speed and flow budget."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

from cutting.machine.machines import Machine
from cutting.mechanics.jet import jet_speed, nozzle_flow, pump_power
from cutting.operations.frame.fire import WATER, WET_MAGNESIUM, is_magnesium
from cutting.operations.turned.setup import Setup


@dataclass(frozen=True)
class CoolantRule:
    """Common practice: when it applies, the deliveries wanted in order, and why. The first that applies counts."""

    name: str
    applies: Callable[[Setup], bool]
    wanted: tuple[str, ...]
    never: tuple[str, ...]
    why: str


@dataclass(frozen=True)
class Delivery:
    """One delivery of the machine: bar, m/s, l/min wanted by the nozzles and left of the pump."""

    name: str
    pressure: float
    jet_speed: float
    flow: float
    left: float | None
    power: float
    fits: str  # wanted, allowed, forbidden
    says: str


@dataclass(frozen=True)
class CoolantAdvice:
    """The rule that applies with its reason, and every delivery of the machine against it."""

    rule: str
    why: str
    wanted: str
    present_fits: bool
    deliveries: tuple[Delivery, ...]
    notes: tuple[str, ...]


def _letter(setup: Setup) -> str:
    return setup.work.material.group.letter


def _tool_class(setup: Any) -> str:
    grade = setup.edge.grade
    return grade.tool_class if grade else ""


def _interrupted(setup: Any) -> bool:
    return bool(getattr(setup.holding, "interrupted", False))


MAGNESIUM = "magnesium"  # the rule that comes before all others
# diameters of depth from which coolant goes through the drill, by the letter of the metal; else five (common practice)
WASHED_FROM = {"M": 3.0, "S": 2.0}


def _deep(setup: Any) -> float:
    """Diameters of depth of a drilled hole, 0 of any other cut."""
    return float(setup.depth / setup.feature.diameter.nominal) if setup.operation == "drill" else 0.0


RULES: tuple[CoolantRule, ...] = (
    CoolantRule(MAGNESIUM, lambda s: is_magnesium(s.work.material), ("dry", "air", "cold air"), WATER, WET_MAGNESIUM),
    CoolantRule(
        "hard edges",
        lambda s: _tool_class(s) in ("cbn", "ceramic") and (_letter(s) == "H" or _interrupted(s)),
        ("dry", "air", "cold air"),
        ("jet", "high", "mist"),
        "CBN and ceramics on hardened work run dry: the heat softens the chip, and an edge wetted now and then cracks.",
    ),
    CoolantRule(
        "interrupted carbide",
        lambda s: _interrupted(s) and _tool_class(s) in ("carbide", "cermet") and s.settings.cutting_speed > 120,
        ("dry", "air", "minimal oil", "flood"),
        (),
        "A hot edge that enters and leaves the cut is quenched at every turn: dry, or full flood that never stops.",
    ),
    CoolantRule(
        "deep holes",
        lambda s: _deep(s) >= WASHED_FROM.get(_letter(s), 5.0),
        ("through", "high", "jet", "flood"),
        (),
        "The deeper the hole, the less reaches its end from outside: through the drill the chips are washed out, and it needs no pecks.",
    ),
    CoolantRule(
        "titanium and heat-resistant",
        lambda s: _letter(s) == "S",
        ("high", "jet", "through", "flood"),
        ("dry",),
        "The heat stays at the edge: pressure that reaches it gives speed, life and shorter chips.",
    ),
    CoolantRule(
        "stainless",
        lambda s: _letter(s) == "M",
        ("high", "jet", "flood"),
        (),
        "Tough, sticking chips: a jet under the chip breaks it and keeps the edge cool.",
    ),
    CoolantRule(
        "cast iron",
        lambda s: _letter(s) == "K",
        ("dry", "air", "flood"),
        ("mist",),
        "Dust and short chips: dry with extraction, or full flood with a filter; a little coolant makes abrasive paste.",
    ),
    CoolantRule(
        "aluminium and copper",
        lambda s: _letter(s) == "N",
        ("flood", "jet", "high", "minimal oil"),
        (),
        "Enough lubrication, or the chip welds to the edge.",
    ),
    CoolantRule(
        "stringing steel",
        lambda s: s.work.material.ductility > 0.6,
        ("jet", "high", "flood"),
        (),
        "A ductile steel strings: a jet bends the chip tighter and moves the window to smaller feeds.",
    ),
    CoolantRule("steel", lambda s: True, ("flood", "jet", "high"), (), "Flood carries heat and chips away and keeps the part at size."),
)


def wanted_deliveries(setup: Any) -> tuple[str, ...]:
    """The deliveries of the machine that suit a set-up of any kind, the most wanted first; never empty."""
    rule = next(rule for rule in RULES if rule.applies(setup))
    has = [name for name, _ in setup.machine.coolant]
    return tuple(name for name in rule.wanted if name in has) or tuple(name for name in has if name not in rule.never) or tuple(has)


def advise_coolant(setup: Setup) -> CoolantAdvice:
    """Which delivery of the machine suits a set-up, and what its pump and nozzles do."""
    rule = next(rule for rule in RULES if rule.applies(setup))
    has = dict(setup.machine.coolant)
    wanted = next((name for name in rule.wanted if name in has), "dry" if "dry" in has else next(iter(has)))
    deliveries = tuple(_delivery(setup, rule, wanted, name, bar) for name, bar in setup.machine.coolant)
    present = setup.settings.coolant
    return CoolantAdvice(
        rule.name, rule.why, wanted, present == wanted or present in rule.wanted, deliveries, tuple(_notes(setup, deliveries))
    )


def _delivery(setup: Setup, rule: CoolantRule, wanted: str, name: str, pressure: float) -> Delivery:
    s, machine = setup.settings, setup.machine
    flow = float(nozzle_flow(s.nozzles, s.nozzle_diameter, pressure)) if pressure > 0 else 0.0
    left = _budget(machine, pressure) - flow if pressure >= 10 and machine.pump_flow > 0 else None
    fits = "forbidden" if name in rule.never else "wanted" if name == wanted else "allowed"
    says = "pump cannot keep the pressure: fewer or smaller nozzles" if left is not None and left < 0 else ""
    return Delivery(name, pressure, float(jet_speed(pressure)), flow, left, float(pump_power(flow, pressure)), fits, says)


def _budget(machine: Machine, pressure: float) -> float:
    """What the pump delivers at a pressure: its flow at the highest, more in proportion below, up to double."""
    highest = max(bar for _, bar in machine.coolant)
    return machine.pump_flow * min(highest / pressure, 2.0)


def _notes(setup: Setup, deliveries: tuple[Delivery, ...]) -> list[str]:
    found = []
    present = next(d for d in deliveries if d.name == setup.settings.coolant)
    if present.left is not None and present.left < 0:
        found.append(
            f"{present.name} at {present.pressure:.0f} bar wants {present.flow:.1f} l/min, {-present.left:.1f} more than the pump has."
        )
    if present.pressure >= 20:
        found.append("Pressurised coolant: doors closed, no hands near nozzles or hoses under pressure.")
    return found

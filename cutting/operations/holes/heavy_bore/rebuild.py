"""What makes a heavy tool lighter, shorter or stiffer, and which machine carries it: every offer is a tool that is run."""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from dataclasses import dataclass, replace

import numpy as np

from cutting.errors import CuttingError
from cutting.machine.machines import Machine
from cutting.operations.frame.outcome import TOUCHING, Severity
from cutting.operations.holes.heavy_bore.evaluate import MODEL
from cutting.operations.holes.heavy_bore.limits import RULES, carried
from cutting.operations.holes.heavy_bore.numbers import Numbers, coaxialities
from cutting.operations.holes.heavy_bore.setup import HeavyBoreSetup
from cutting.tooling.heavy.solids import Segment, body_materials
from cutting.tooling.heavy.tool import HeavyHolder, HeavyTool, heavy_holders

HOLLOW = 0.45  # share of metal that hollow arms keep (common practice)
TUBED = 0.72  # of its outside that a solid round is bored to: most of its stiffness stays (common practice)
PLATE = 0.3  # of its diameter that a plate is long at most
SHORTER = 0.85  # of its length
CLAMPED = 60.0  # s that a second clamping takes at least (common practice)
BEYOND_EDGES = 10.0  # mm that a body reaches beyond its last edges
NEARLY_SOLID = 0.3  # of its Ø: a hole that takes no weight worth boring


@dataclass(frozen=True)
class Rebuilt:
    """A tool done otherwise: its words, its set-up and numbers, which hard limits it still breaks, what its coaxiality costs."""

    text: str
    setup: HeavyBoreSetup
    x: Numbers
    broken: tuple[str, ...]
    coaxiality: float

    @property
    def moment(self) -> float:
        return float(np.ravel(self.x.moment)[0])


@dataclass(frozen=True)
class BoringWay:
    """A way to bore all steps: zone of their coaxiality [mm], seconds more than with one tool, places in the magazine."""

    name: str
    coaxiality: float
    more_seconds: float
    places: int
    fits: bool


@dataclass(frozen=True)
class Carrier:
    """Whether a machine's changer carries the tool, and why not."""

    machine: str
    carries: bool
    why: tuple[str, ...]


def rebuilt(setup: HeavyBoreSetup, machines: Iterable[Machine] = ()) -> tuple[Rebuilt, ...]:
    """Every change that was run, those that leave no hard limit broken first, then by the moment that is left. Raises `CuttingError`."""
    found = []
    for text, there, tools in _changes(setup, MODEL.quickly(setup), machines):
        try:
            x = MODEL.quickly(there)
        except CuttingError:
            continue
        zones = dict(coaxialities(there.heavy_tool.between_steps, there.holding))
        found.append(Rebuilt(text, there, x, broken(x), zones["one tool" if tools == 1 else "two tools"]))
    return tuple(sorted(found, key=lambda one: (len(one.broken), one.moment)))


def broken(x: Numbers) -> tuple[str, ...]:
    """Labels of the hard limits that are broken."""
    hard = (rule for rule in RULES if rule.severity is Severity.HARD and np.any(rule.applies(x)))
    return tuple(rule.label for rule in hard if float(np.max(rule.used(x))) > 1.0 + TOUCHING)


def ways(setup: HeavyBoreSetup) -> tuple[BoringWay, ...]:
    """The bores with one tool, two tools, two clampings. Raises `CuttingError`."""
    x, asked = MODEL.quickly(setup), setup.feature.coaxiality
    change = float(np.ravel(x.chip_to_chip)[0] + np.ravel(x.engaged_time)[0])
    more = {"one tool": (0.0, 1), "two tools": (change, 2), "two clampings": (change + CLAMPED, 2)}
    found = coaxialities(setup.heavy_tool.between_steps, setup.holding)
    return tuple(BoringWay(name, wide, *more[name], asked is None or wide <= asked + 1e-9) for name, wide in found)


def carriers(setup: HeavyBoreSetup, machines: Iterable[Machine]) -> tuple[Carrier, ...]:
    """Which machines' changers carry the tool, of those that say what they carry. Raises `CuttingError`."""
    x = MODEL.quickly(setup)
    asked = (one for one in machines if one.changer_mass > 0 or one.changer_moment > 0)
    return tuple(Carrier(one.name, not (why := carried(x, one)), why) for one in asked)


def solid(one: Segment) -> bool:
    """Whether a body is long and full enough to be bored; plates hold what stands on them."""
    return not one.arms and one.inner < NEARLY_SOLID * one.outer and one.length > PLATE * one.outer


def _changes(setup: HeavyBoreSetup, x: Numbers, machines: Iterable[Machine]) -> Iterator[tuple[str, HeavyBoreSetup, int]]:
    tool, metals = setup.heavy_tool, body_materials()

    def of(segments: Iterable[Segment]) -> HeavyBoreSetup:
        return replace(setup, heavy_tool=replace(tool, segments=tuple(segments)))

    if any(one.arms and one.share > HOLLOW + 0.01 for one in tool.segments):  # of the ring
        yield "hollow arms", of(replace(one, share=min(one.share, HOLLOW)) if one.arms else one for one in tool.segments), 1
    if any(solid(one) for one in tool.segments):
        bored = (replace(one, inner=TUBED * one.outer) if solid(one) else one for one in tool.segments)
        yield "bodies bored to tubes", of(bored), 1
    for name in ("aluminium", "printed steel"):
        metal = metals[name]
        if any(one.material.name == "steel" for one in tool.segments):
            made = (replace(one, material=metal, share=min(one.share, metal.share)) if one.material.name == "steel" else one
                    for one in tool.segments)  # fmt: skip
            yield f"body of {name}", of(made), 1
    yield "a seventh shorter", replace(setup, heavy_tool=_shorter(tool)), 1
    for holder in heavy_holders().values():
        if holder.interface == tool.holder.interface and holder.name != tool.holder.name:
            yield f"{holder.name}", replace(setup, heavy_tool=_on_holder(tool, holder)), 1
    if len(tool.steps) > 1:
        yield from _split(setup)
    for machine in machines:
        if machine.name != setup.machine.name and not machine.turns and not carried(x, machine):
            moved = replace(setup, machine=machine)
            if machine.pressure(setup.settings.coolant) is None:
                moved = moved.with_settings(coolant=machine.usual_coolant)
            yield f"on {machine.name}", moved, 1


def _shorter(tool: HeavyTool) -> HeavyTool:
    """All before the first edges a seventh shorter; the steps' distances to each other stay, as the bores' do."""
    by = (1.0 - SHORTER) * (min(one.at for one in tool.steps) - tool.holder.face)
    first = min(one.at for one in tool.steps) - by

    def near(place: float) -> float:
        """Before the first edges all is drawn together, beyond them it moves as it is."""
        face = tool.holder.face
        return place - by if place - by >= first else face + (place - face) * (first - face) / (first + by - face)

    segments = tuple(replace(one, start=near(one.start), length=max(near(one.end) - near(one.start), 0.5)) for one in tool.segments)
    return replace(tool, segments=segments, steps=tuple(replace(one, at=one.at - by) for one in tool.steps))


def _on_holder(tool: HeavyTool, holder: HeavyHolder) -> HeavyTool:
    """The same body on another holder's face."""
    by = holder.face - tool.holder.face
    segments = tuple(replace(one, start=one.start + by) for one in tool.segments)
    return replace(tool, holder=holder, segments=segments, steps=tuple(replace(one, at=one.at + by) for one in tool.steps))


def _split(setup: HeavyBoreSetup) -> Iterator[tuple[str, HeavyBoreSetup, int]]:
    """The heavier of two tools: one bores the widest step, the other the rest; what reaches further out goes with its steps."""
    tool, bores = setup.heavy_tool, setup.feature.bores
    at_face = tool.holder.face + 0.1
    ways_apart = (("two tools: this one without its widest step", bores[1:], setup.feature.through),
                  ("two tools: this one for its widest step alone", bores[:1], False))  # fmt: skip
    for words, kept, through in ways_apart:
        steps = tuple(step for step in tool.steps if any(abs(step.diameter - one.diameter.nominal) < 1e-3 for one in kept))
        if not steps:
            continue
        reach, wide = max(one.at for one in steps) + BEYOND_EDGES, max(one.diameter for one in steps)
        segments = tuple(
            replace(one, length=min(one.length, reach - one.start), outer=one.outer if one.start <= at_face else min(one.outer, wide))
            for one in tool.segments
            if one.start < reach and (one.outer <= wide + 1e-6 or (not one.arms and one.inner < wide))
        )
        if any(not one.arms for one in segments):
            feature = replace(setup.feature, bores=kept, through=through)
            yield words, replace(setup, feature=feature, heavy_tool=replace(tool, steps=steps, segments=segments)), 2

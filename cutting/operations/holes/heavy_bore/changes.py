"""What makes a heavy tool lighter, shorter or stiffer: every remedy is a tool that is run."""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from dataclasses import dataclass, replace

from cutting.errors import CuttingError
from cutting.machine.machines import Machine
from cutting.operations.frame.outcome import TOUCHING, Severity
from cutting.operations.holes.heavy_bore.limits import RULES, carried
from cutting.operations.holes.heavy_bore.numbers import Numbers, coaxialities, numbers
from cutting.operations.holes.heavy_bore.setup import HeavySetup
from cutting.tooling.heavy.solids import Segment, body_materials
from cutting.tooling.heavy.tool import HeavyHolder, heavy_holders
from cutting.working import Silent

HOLLOW = 0.45  # share of metal that hollow arms keep (common practice)
TUBED = 0.72  # of its outside that a solid round is bored to: most of its stiffness stays (common practice)
PLATE = 0.3  # of its diameter that a plate is long at most
SHORTER = 0.85  # of its length
SILENT = Silent()


@dataclass(frozen=True)
class HeavyRemedy:
    """A tool done otherwise: its words, what it weighs then, which hard limits it still breaks, what its coaxiality costs."""

    text: str
    setup: HeavySetup
    x: Numbers
    broken: tuple[str, ...]
    coaxiality: float


def remedies(x: Numbers, machines: Iterable[Machine] = ()) -> tuple[HeavyRemedy, ...]:
    """Every change that was run, those that leave no hard limit broken first, then by the moment that is left."""
    found = []
    for text, setup, tools in _changes(x, machines):
        try:
            there = numbers(setup, SILENT)
        except CuttingError:
            continue
        zone = dict(coaxialities(setup.chain))["one tool" if tools == 1 else "two tools"]
        found.append(HeavyRemedy(text, setup, there, broken(there), zone))
    return tuple(sorted(found, key=lambda one: (len(one.broken), one.x.moment)))


def broken(x: Numbers) -> tuple[str, ...]:
    """Labels of the hard limits that are broken."""
    hard = (rule for rule in RULES if rule.severity is Severity.HARD and rule.applies(x))
    return tuple(rule.label for rule in hard if float(rule.used(x)) > 1.0 + TOUCHING)


def solid(one: Segment) -> bool:
    """Whether a body is long and full enough to be bored; plates hold what stands on them."""
    return not one.arms and one.inner < 0.3 * one.outer and one.length > PLATE * one.outer


def _changes(x: Numbers, machines: Iterable[Machine]) -> Iterator[tuple[str, HeavySetup, int]]:
    setup, tool = x.setup, x.setup.tool
    metals = body_materials()

    def with_segments(segments: Iterable[Segment]) -> HeavySetup:
        return replace(setup, tool=replace(tool, segments=tuple(segments)))

    if any(one.arms and one.share > HOLLOW + 0.01 for one in tool.segments):
        yield "hollow arms", with_segments(replace(one, share=min(one.share, HOLLOW)) if one.arms else one for one in tool.segments), 1
    if any(solid(one) for one in tool.segments):
        bored = (replace(one, inner=TUBED * one.outer) if solid(one) else one for one in tool.segments)
        yield "bodies bored to tubes", with_segments(bored), 1
    for name in ("aluminium", "printed steel"):
        metal = metals[name]
        if any(one.material.name == "steel" for one in tool.segments):
            made = (replace(one, material=metal, share=min(one.share, metal.share)) if one.material.name == "steel" else one
                    for one in tool.segments)  # fmt: skip
            yield f"body of {name}", with_segments(made), 1
    yield "a seventh shorter", _shorter(setup), 1
    for holder in heavy_holders().values():
        if holder.interface == tool.holder.interface and holder.name != tool.holder.name:
            yield f"{holder.name}", _on_holder(setup, holder), 1
    if len(tool.steps) > 1:
        yield from _split(setup)
    for machine in machines:
        if machine.name != setup.machine.name and not machine.turns and not carried(x, machine):
            try:
                moved = replace(setup, machine=machine)
                moved.check()
            except CuttingError:
                continue
            yield f"on {machine.name}", moved, 1


def _shorter(setup: HeavySetup) -> HeavySetup:
    """Everything nearer to the face by a seventh; the bores' own lengths stay."""
    tool, face = setup.tool, setup.tool.holder.face

    def near(place: float) -> float:
        return face + (place - face) * SHORTER

    segments = tuple(replace(one, start=near(one.start), length=one.length * SHORTER) for one in tool.segments)
    return replace(setup, tool=replace(tool, segments=segments, steps=tuple(replace(one, at=near(one.at)) for one in tool.steps)))


def _on_holder(setup: HeavySetup, holder: HeavyHolder) -> HeavySetup:
    """The same body on another holder's face."""
    tool = setup.tool
    by = holder.face - tool.holder.face
    segments = tuple(replace(one, start=one.start + by) for one in tool.segments)
    steps = tuple(replace(one, at=one.at + by) for one in tool.steps)
    return replace(setup, tool=replace(tool, holder=holder, segments=segments, steps=steps))


def _split(setup: HeavySetup) -> Iterator[tuple[str, HeavySetup, int]]:
    """The heavier of two tools: one bores the widest step, the other the rest; what reaches further out goes with its steps."""
    tool = setup.tool
    widest, at_face = max(tool.steps, key=lambda one: one.diameter.nominal), tool.holder.face + 0.1
    for words, kept in (("two tools: this one without its widest step", [one for one in tool.steps if one is not widest]),
                        ("two tools: this one for its widest step alone", [widest])):  # fmt: skip
        reach, wide = max(one.at for one in kept) + 10.0, max(one.diameter.nominal for one in kept)
        segments = tuple(
            replace(one, length=min(one.length, reach - one.start), outer=one.outer if one.start <= at_face else min(one.outer, wide))
            for one in tool.segments
            if one.start < reach and (one.outer <= wide + 1e-6 or (not one.arms and one.inner < wide))
        )
        if any(not one.arms for one in segments):
            yield words, replace(setup, tool=replace(tool, steps=tuple(kept), segments=segments)), 2

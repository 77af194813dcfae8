"""`Plan`: a part from its blank to the last step, and the body before and after each of them."""

from __future__ import annotations

import itertools
from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from functools import lru_cache
from typing import Any

from cutting.errors import CuttingError
from cutting.operations.frame.kind import Kind
from cutting.operations.frame.setup import Batch, Goal, HouseRules, Skin
from cutting.operations.registry import kind_of
from cutting.plan.values import Read, Values, given, settled_as_read
from cutting.workpiece.layers import Layer, layers_cut
from cutting.workpiece.solid import BENT, Blank, Region, Solid, blank_solid


@dataclass(frozen=True)
class Ask:
    """What the drawing asks of one feature."""

    identity: str
    shape: str
    values: Read
    title: str = ""


@dataclass(frozen=True)
class Clamping:
    """Which end of the part is held: as it was first held, or turned round; and how far it then stands out [mm], where that is said."""

    turned_round: bool = False
    stands_out: float | None = None


@dataclass(frozen=True)
class Step:
    """One operation of a plan. `told` is what it is told of its feature: what the drawing asks, and over that its own.

    `tool` names the parts by role; `spindle` is the one that it runs on (blank: the first). `makes` is the feature of the drawing
    that it makes or, where it only `prepares`, leads up to. `locked` are the settings that nothing but a person changes.
    """

    identity: str
    kind: str
    told: Read
    settings: Read = field(default_factory=Values)
    holding: Read = field(default_factory=Values)
    tool: tuple[tuple[str, str], ...] = ()
    clamping: Clamping = field(default_factory=Clamping)
    spindle: str = ""
    skin: Skin = Skin.CLEAN
    makes: str = ""
    prepares: bool = False
    locked: frozenset[str] = frozenset()

    @property
    def of(self) -> Kind:
        """Its kind of operation."""
        return kind_of(self.kind)


@dataclass(frozen=True)
class Plan:
    """A part: blank, material, machine, what the drawing asks, the steps in their order, and what it is made for.

    `layers` are metals of the blank from its free face on; `bar` what the pieces are cut from, by the fields of a bar.
    """

    blank: Blank
    material: str
    machine: str
    steps: tuple[Step, ...]
    asks: tuple[Ask, ...] = ()
    layers: tuple[Layer, ...] = ()
    hardness: float | None = None
    goal: Goal = Goal.CHEAPEST
    batch: Batch = field(default_factory=Batch)
    house: HouseRules = field(default_factory=HouseRules)
    bar: Values = field(default_factory=Values)
    blank_price: float = 0.0

    def step(self, identity: str) -> Step:
        """The step of that identity. Raises `KeyError`."""
        return next(one for one in self.steps if one.identity == identity)

    def with_step(self, step: Step) -> Plan:
        """The plan with a step in place of the one of its identity."""
        return replace(self, steps=tuple(step if one.identity == step.identity else one for one in self.steps))

    def earlier(self, step: Step | None) -> tuple[Step, ...]:
        """The steps before one; all of them for None."""
        return tuple(itertools.takewhile(lambda one: step is None or one.identity != step.identity, self.steps))


@dataclass(frozen=True)
class PlannedCut:
    """A step as the part sees it."""

    kind: str
    told: Values
    clamping: Clamping


def before(plan: Plan, step: Step | None, stands_out: float | None = None, slices: int = BENT) -> Solid:
    """The part as a step finds it, after the earlier ones that can be read; behind all of them for None.

    It stands out by `stands_out` [mm] for this step, or as the plan says. A shaped blank comes in so many slices: few for a beam, more
    for a drawing. Raises `CuttingError` where it cannot be turned round.
    """
    cuts = tuple(PlannedCut(one.kind, one.told, one.clamping) for one in plan.earlier(step) if isinstance(one.told, Values))
    part = _behind(plan.blank, cuts, slices)
    if step is None or not step.clamping.turned_round:
        return part.pulled_out(pulled_out(plan, step, stands_out))
    return _seen(part, replace(step.clamping, stands_out=stands_out if stands_out is not None else step.clamping.stands_out))


def pulled_out(plan: Plan, step: Step | None, stands_out: float | None) -> float:
    """How much further the part stands out for a step than it is first held [mm]: every place goes with it."""
    if step is None or step.clamping.turned_round or stands_out is None:
        return 0.0
    return stands_out - plan.blank.free_length


def bodies(plan: Plan, slices: int = BENT) -> tuple[Solid, ...]:
    """The body before each step and after the last, each told as it was first held."""
    cuts = [PlannedCut(one.kind, one.told, one.clamping) if isinstance(one.told, Values) else None for one in plan.steps]
    upto = (tuple(filter(None, cuts[:k])) for k in range(len(cuts) + 1))
    return tuple(_behind(plan.blank, some, slices) for some in upto)


@lru_cache(maxsize=4096)
def _behind(blank: Blank, cuts: tuple[PlannedCut, ...], slices: int) -> Solid:
    """The part behind cuts, told as it was first held; what was walked once is kept."""
    if not cuts:
        return blank_solid(blank, slices)
    part, last = _behind(blank, cuts[:-1], slices), cuts[-1]
    try:
        there = _seen(part, last.clamping)
        taken = region(last.kind, complete(last.kind, last.told, there))
        return part.without(replace(taken, around=there.free_length) if last.clamping.turned_round else taken)
    except CuttingError:  # what cannot be read takes nothing away
        return part


def _seen(part: Solid, clamping: Clamping) -> Solid:
    """The part as it is clamped. Raises `CuttingError` where it cannot be turned round."""
    if not clamping.turned_round:
        return part
    return part.turned_round(part.usual_free_length if clamping.stands_out is None else clamping.stands_out)


def settled(kind: str, told: Values, part: Solid) -> dict[str, float | bool]:
    """The values [mm] of a feature that are not given and that the part as it stands settles, by field name.

    Turning starts at the free face where it is not said where it ends, on the diameter that stands there, and leaves a square wall
    where one is left; facing takes the whole face; grooves and cut-off are cut into the diameter at their place.
    """
    return {name: value for name, value in kind_of(kind).settles(told, part).items() if name not in told}


def complete(kind: str, told: Values, part: Solid, further: float = 0.0) -> dict[str, Any]:
    """What a step is told, with what the part settles: numbers as they are, not as they are written.

    `further` [mm] is how much more the part stands out than where its places were told.
    """
    fields = kind_of(kind).fields.feature
    dimensions = [one.name for one in fields if one.kind == "dimension"]
    told = told.moved([one.name for one in fields if one.place], further)
    found = {name: settled_as_read(name, value, dimensions) for name, value in settled(kind, told, part).items()}
    return {**told, **found}


def region(kind: str, feature: Mapping[str, Any]) -> Region:
    """What a step takes from the part, by its complete values. Raises `CuttingError` for what is missing."""
    of = kind_of(kind)
    of.fields.require("feature", feature)
    return of.removes(of.read_feature(dict(feature)))


def cut_layers(plan: Plan, step: Step, part: Solid) -> tuple[Layer, ...]:
    """The layers of the blank that a step goes through, from the face that it is cut from. Raises `CuttingError`."""
    layers = plan.layers
    if not layers:
        return ()
    further = part.free_length - plan.blank.free_length
    if step.clamping.turned_round:  # told from the chuck that holds it now, as the part in front of it is
        at = (part.butt or 0.0) + layers[0].far
        layers = tuple(Layer(one.material, at - one.far, at - one.near) for one in reversed(layers))
    else:
        layers = tuple(Layer(one.material, one.near + further, one.far + further) for one in layers)
    moved = 0.0 if step.clamping.turned_round else further
    return layers_cut(layers, region(step.kind, complete(step.kind, given(step.told), part, moved)), part)

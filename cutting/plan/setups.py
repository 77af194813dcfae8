"""The set-up of each step of a plan: what it is told, how it finds the part and how that is held, what it is judged in."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from contextlib import suppress
from dataclasses import dataclass, replace
from typing import Any

from cutting.doors.assemble import Library, assembled, requested
from cutting.errors import CuttingError
from cutting.operations.frame.fields import Base
from cutting.operations.frame.outcome import Outcome
from cutting.operations.frame.setup import Goal
from cutting.operations.registry import evaluate_quickly, kind_of
from cutting.plan.plan import Plan, Step, before, complete, cut_layers, pulled_out
from cutting.plan.there import hole_there
from cutting.plan.values import given
from cutting.plan.wall import check_wall
from cutting.workpiece.layers import slowest_first
from cutting.workpiece.materials import deliver
from cutting.workpiece.solid import Solid
from cutting.workpiece.stack import StackLayer, delivered

Judge = Callable[[Any], Outcome]


AT_THE_BUSH = ("turn", "groove", "turn thread", "cut off")  # kinds that a sliding head makes beside its guide bush


@dataclass(frozen=True)
class Tried:
    """What is tried on a step beside its own entries: another goal, the whole piece's time [s], the part's worth when it begins.

    `operations` is of how many its plan is taken to be, which share the risk.
    """

    goal: Goal | None = None
    piece_seconds: float | None = None
    part_value: float | None = None
    operations: int | None = None


AS_PLANNED = Tried()


def setup_of(plan: Plan, step: Step, library: Library, tried: Tried = AS_PLANNED, judge: Judge = evaluate_quickly) -> Any:
    """The checked set-up of a step. `judge` gives the outcomes of what is done before, where the part's worth counts.

    Raises `CuttingError`.
    """
    kind = step.of
    base, sections = _base_and_sections(plan, step, library, tried, judge)
    return assembled(kind, base, dict(step.tool), sections, library)


def request_of(plan: Plan, step: Step, library: Library, tried: Tried = AS_PLANNED, judge: Judge = evaluate_quickly) -> tuple[Any, Any]:
    """The advice request of a step: its set-up, whose tool stands in for the tools that compete, and these. Raises `CuttingError`."""
    kind = step.of
    found = (*(name for name, _ in kind.neutral), *kind.ranked)  # speed, feed and depth are what the ranking finds
    base, sections = _base_and_sections(plan, step, library, tried, judge, of_tool=False)
    sections["settings"] = {name: value for name, value in sections["settings"].items() if name not in found}
    return requested(kind, base, sections, library)


def judged(plan: Plan, library: Library, judge: Judge = evaluate_quickly) -> tuple[Outcome | CuttingError, ...]:
    """The outcome of every step, or why it cannot be run.

    Twice where the machine runs alone: how many pieces an edge must last depends on the whole piece's time.
    """
    found = _judged(plan, library, AS_PLANNED, judge)
    if plan.batch.unattended_hours > 0:
        machine = library.machine(plan.machine)
        whole = sum(one.results["operation_time"].value for one in found if isinstance(one, Outcome)) + machine.handling_time
        found = _judged(plan, library, Tried(piece_seconds=whole), judge)
    return found


def setups(plan: Plan, library: Library, judge: Judge = evaluate_quickly) -> tuple[Any, ...]:
    """The set-up of every step, or the `CuttingError` why there is none."""
    return tuple(_or_error(lambda step=step: setup_of(plan, step, library, AS_PLANNED, judge)) for step in plan.steps)  # type: ignore[misc]


def _judged(plan: Plan, library: Library, tried: Tried, judge: Judge) -> tuple[Outcome | CuttingError, ...]:
    return tuple(_or_error(lambda step=step: judge(setup_of(plan, step, library, tried, judge))) for step in plan.steps)  # type: ignore[misc]


def _or_error(make: Callable[[], Any]) -> Any:
    try:
        return make()
    except CuttingError as error:
        return error


def found_by(plan: Plan, step: Step, library: Library) -> tuple[Solid, dict[str, Any]]:
    """The part in front of a step, and how it is held [mm]: as the plan says, and as the step itself changes it. Raises `CuttingError`."""
    own = dict(given(step.holding))
    if not step.clamping.turned_round:
        sizes = {"free_length": plan.blank.free_length, "grip_diameter": plan.blank.diameter, "bore": plan.blank.bore}
        holding = {**sizes, **own}
        part = before(plan, step, float(holding["free_length"]))
        if part.kerf:
            raise CuttingError("operation", "the part is cut off before: run this earlier, or turn the part round for it.")
        return part, holding
    if step.spindle:
        library.machine(plan.machine).on(step.spindle)  # one that is not there is said first
    if not step.of.fields.has("holding", "free_length"):
        raise CuttingError("turned_round", "this kind of operation is not made on a part that is turned round.")
    part = before(plan, step, own.get("free_length"))
    return part, {"free_length": part.free_length, "grip_diameter": part.at(0.0), "bore": part.bore, **own}


def metals(plan: Plan, step: Step, part: Solid, library: Library) -> tuple[str, ...]:
    """The metals that a step cuts, the slowest to cut first; none where the blank is of one. Raises `CuttingError`."""
    cut = cut_layers(plan, step, part)
    return tuple(one.name for one in slowest_first(library.material(name) for name in dict.fromkeys(one.material for one in cut)))


def _base_and_sections(
    plan: Plan, step: Step, library: Library, tried: Tried, judge: Judge, of_tool: bool = True
) -> tuple[Base, dict[str, dict[str, Any]]]:
    kind = step.of
    part, holding = found_by(plan, step, library)
    holding["steps"] = part.steps
    if part.face < part.free_length:
        holding["face"] = part.face
    further = pulled_out(plan, step, holding["free_length"])
    feature = {**complete(step.kind, given(step.told), part, further), **_stack(plan, step, part)}
    feature |= hole_there(plan, step, part, feature)
    if step.kind in AT_THE_BUSH and not step.clamping.turned_round and library.machine(plan.machine).on(step.spindle).guide_bush:
        holding.setdefault("guide_bush", True)
    kind.fields.require("feature", feature)
    check_wall(step, part, feature)
    several = metals(plan, step, part, library)
    material = library.material(several[0] if several else plan.material)
    _deliver_stack(kind, feature, library)
    worth = _worth(plan, step, library, tried, judge)
    batch = replace(plan.batch, piece_seconds=tried.piece_seconds, part_value=worth, operations=tried.operations or max(len(plan.steps), 1))
    work = deliver(material, None if several else plan.hardness)
    names = _metal_names(feature, work.material.name)
    base = Base(
        work=work,
        machine=library.machine(plan.machine).on(step.spindle),
        house=plan.house,
        batch=batch,
        goal=tried.goal or plan.goal,
        skin=step.skin,
        learned=library.learned(dict(step.tool), names) if of_tool else library.learned({}, names),
    )
    sections = {
        "feature": feature,
        "settings": dict(given(step.settings)),
        # what the plan says of its holding and this kind of operation does not ask is left out
        "holding": {name: value for name, value in holding.items() if kind.fields.has("holding", name)},
        "bar": dict(plan.bar) if kind.fields.bar else {},
    }
    return base, sections


def _stack(plan: Plan, step: Step, part: Solid) -> dict[str, Any]:
    """A blank of layers as the stack that a drill goes through, where its feature says none."""
    told = given(step.told)
    if not any(one.kind == "stack" for one in step.of.fields.feature) or told.get("stack"):
        return {}
    cut = cut_layers(plan, step, part)
    if len(cut) < 2:
        return {}
    of = step.of
    depth = of.removes(of.read_feature(complete(step.kind, told, part))).depth
    floor = max(part.face - depth, part.back if part.back is not None else 0.0)
    found = [StackLayer(one.material, round(min(one.far, part.face) - max(one.near, floor), 6)) for one in cut]
    return {"stack": tuple(one for one in found if one.thickness > 0)}


def _deliver_stack(kind: Any, feature: dict[str, Any], library: Library) -> None:
    for one in kind.fields.feature:
        if one.kind == "stack" and one.name in feature:
            feature[one.name] = delivered(feature[one.name], library.material, f"feature.{one.name}")


def _metal_names(feature: Mapping[str, Any], own: str) -> tuple[str, ...]:
    stack = feature.get("stack") or ()
    return tuple(dict.fromkeys(one.material.name for one in stack)) or (own,)


def _worth(plan: Plan, step: Step, library: Library, tried: Tried, judge: Judge) -> float | None:
    """What the part is worth when a step begins that may lose it: its blank, and what was done before. None for others."""
    if not kind_of(step.kind).risky:
        return None
    if tried.part_value is not None:
        return round(tried.part_value, 4)
    value = plan.blank_price
    for one in plan.earlier(step):
        with suppress(CuttingError):  # what cannot be read has cost nothing yet
            value += judge(setup_of(plan, one, library, Tried(part_value=value), judge)).results["operation_cost"].value
    return round(value, 4)

"""Remedies found by running them: each lever is tried, and what it brings is what is said."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace
from typing import Any

import numpy as np

from cutting.errors import CuttingError
from cutting.mechanics.deflection import Holding
from cutting.operations.frame.outcome import Limit, Remedy
from cutting.operations.turned import limits as rules
from cutting.operations.turned.case import case_of, single_cutter
from cutting.operations.turned.fit import warnings_of_fit
from cutting.operations.turned.physics import Cut, cut
from cutting.operations.turned.plan import pass_depths, pass_diameters
from cutting.operations.turned.run import run
from cutting.operations.turned.setup import Direction, Setup
from cutting.quantities.kinds import currency
from cutting.quantities.write import Display, write
from cutting.tooling.crib import Crib, seat
from cutting.tooling.items import Holder, Insert
from cutting.working import Silent

SILENT = Silent()
RANKED = ("cutting_speed", "feed_per_rev", "depth_of_cut")  # what a ranking sets
STEPS = np.geomspace(0.2, 4.0, 97)  # shares of the present value that a lever tries


class Trial:
    """A changed set-up, run: is it sound, how close is a limit, what does it take."""

    def __init__(self, setup: Setup, name: str, text: Display, patch: dict[str, Any]) -> None:
        self.setup, self.text, self.patch = setup, text, patch
        self.kind = next(iter(patch), "")
        case, cutter, done = run(setup, SILENT)
        used = rules.all_utilisations(case, cutter, done)
        self.used = float(used[name].ravel()[0]) if name in used else 0.0
        self.sound = not bool(np.any(rules.excluded(case, cutter, done, used)))
        self.seconds = float(done.operation_time.ravel()[0])
        self.cost = float(done.operation_cost.ravel()[0])


def remedies_for(limit: Limit, setup: Setup, crib: Crib | None = None) -> tuple[Remedy, ...]:
    """Up to four changes that bring a limit below its bound, or nearest to it; sound and quick ones first."""
    base = Trial(setup, limit.name, Display("", ""), {})
    target = 1.0 if limit.broken else 0.9 * limit.utilisation
    tried = list(_trials(setup, limit.name))
    if crib is not None:
        tried += tool_trials(setup, limit.name, crib)
    better = [t for t in tried if t.used < min(base.used * 0.98, target + 0.005)]
    if not better:  # nothing brings it below: the nearest is still worth knowing
        better = [t for t in tried if t.used < base.used * 0.9]
    # a change that breaks something else is offered only where no sound one is known
    better = [t for t in better if t.sound] or better
    # what is set on the bench comes before another tool
    better.sort(key=lambda t: (t.used > 1, t.kind == "tool", t.cost))
    return tuple(Remedy(t.text, _effect(limit, base, t), t.patch) for t in _mixed(better))


def _mixed(better: list[Trial]) -> list[Trial]:
    """The first four of different kinds: at most two that change settings, one that holds otherwise, one other tool."""
    kept: list[Trial] = []
    for one in better:
        alike = sum(1 for other in kept if other.kind == one.kind)
        if alike < (2 if one.kind == "settings" else 1):
            kept.append(one)
    return kept[:4]


def mended(setup: Setup, limits: tuple[Limit, ...]) -> Setup | None:
    """The cheapest change of speed, feed or passes alone that makes a set-up sound, None where none does."""
    tried = [trial for limit in limits for trial in _trials(setup, limit.name) if set(trial.patch) == {"settings"}]
    sound = [trial for trial in tried if trial.sound and set(trial.patch["settings"]) <= {*RANKED, "pass_depths"}]
    return min(sound, key=lambda trial: trial.cost).setup if sound else None


def ways_to_go_faster(setup: Setup, found: tuple[Limit, ...]) -> tuple[Remedy, ...]:
    """Up to two sound changes that save the most time, each up to the next limit."""
    base = Trial(setup, found[0].name, Display("", ""), {})
    sound = [t for t in _faster_trials(setup, found[0].name) if t.sound and t.seconds < base.seconds * 0.985]
    sound.sort(key=lambda t: t.seconds)
    return tuple(Remedy(t.text, _gain(base, t), t.patch) for t in sound[:2])


def _trials(setup: Setup, name: str) -> Iterator[Trial]:
    yield from _scan(setup, name, "feed_per_rev", "feed")
    yield from _scan(setup, name, "cutting_speed", "speed")
    for passes in (setup.pass_count + 1, setup.pass_count + 3):
        if 1 <= passes <= 40:
            yield from _try(
                _with_passes(setup, passes),
                name,
                _pass_text(setup, passes),
                {"settings": {"depth_of_cut": _depth_of(setup, passes), "pass_depths": None}},
            )
    yield from _holding_trials(setup, name)


def _holding_trials(setup: Setup, name: str) -> Iterator[Trial]:
    holding = setup.holding
    if holding.style is Holding.CHUCK and setup.operation == "turn":
        supported = replace(setup, holding=replace(holding, style=Holding.CHUCK_AND_CENTRE))
        yield from _try(supported, name, _both("tailstock centre in"), {"holding": {"style": "chuck and centre"}})
    shortest = setup.feature.distance_from_chuck + setup.feature.length + 2.0
    if setup.operation == "face":
        shortest = 0.5 * holding.free_length
    if holding.free_length > 1.1 * shortest:
        shorter = replace(setup, holding=replace(holding, free_length=shortest))
        text = Display(
            *(
                f"part out of the chuck {write(holding.free_length, 'length', s, False)} → {write(shortest, 'length', s)}"
                for s in ("metric", "inch")
            )
        )
        yield from _try(shorter, name, text, {"holding": {"free_length": shortest}})
    if setup.operation == "turn" and not setup.away and holding.style is Holding.CHUCK:
        yield from _try(
            setup.with_settings(direction=Direction.AWAY),
            name,
            _both("path: feed away from the chuck on the minor edge, κr small"),
            {"settings": {"direction": Direction.AWAY.value}},
        )
    for delivery, pressure in setup.machine.coolant:
        if pressure > (setup.machine.pressure(setup.settings.coolant) or 0.0):
            yield from _try(
                setup.with_settings(coolant=delivery),
                name,
                _both(f"coolant: {delivery}, {pressure:.0f} bar"),
                {"settings": {"coolant": delivery}},
            )


MOST_TOOLS = 14


def tool_trials(setup: Setup, name: str, crib: Crib) -> list[Trial]:
    """Tools of the crib that differ in one thing only: geometry, corner radius, grade, or the holder's κr."""
    found = []
    for insert, holder, text in _near_tools(setup, crib)[:MOST_TOOLS]:
        changed = replace(setup, insert=insert, holder=holder)
        if warnings_of_fit(changed):
            continue
        found += list(_try(changed, name, _both(text), {"tool": {"insert": insert.name, "holder": holder.designation}}))
    return found


def _near_tools(setup: Setup, crib: Crib) -> list[tuple[Insert, Holder, str]]:
    own, code = setup.insert, setup.insert.code
    found: list[tuple[Insert, Holder, str]] = []
    for one in crib.inserts:
        same_seat = seat(one) == seat(own)
        nose, geometry, grade = one.code.nose_radius == code.nose_radius, one.geometry == own.geometry, one.grade == own.grade
        if not same_seat or nose + geometry + grade != 2:
            continue
        if not nose:
            text = f"corner radius {code.nose_radius:g} → {one.code.nose_radius:g} mm: {one.designation}"
        elif not geometry:
            text = f"geometry {own.geometry.name} → {one.geometry.name}"
        else:
            text = f"grade {own.grade.name} → {one.grade.name}"
        found.append((one, setup.holder, text))
    for holder in crib.holders:
        turned = holder.code.cutting_edge_angle - setup.holder.code.cutting_edge_angle
        if (holder.code.shape, holder.code.clearance, holder.code.size) == seat(own) and abs(turned) > 1:
            text = f"κr {setup.holder.code.cutting_edge_angle:g} → {holder.code.cutting_edge_angle:g}°: {holder.designation}"
            found.append((own, holder, text))
    return found


def _scan(setup: Setup, name: str, field: str, label: str) -> Iterator[Trial]:
    """The smallest change of one setting that brings the limit just below its bound, from one vectorised run."""
    present = getattr(setup.settings, field)
    values = (present * STEPS)[:, None]
    used, _ = _used_over(setup, field, values, pass_depths(setup), pass_diameters(setup))
    level = used[name].ravel()
    good = np.flatnonzero(level <= min(0.97, 0.85 * _now(setup, name)))
    # where nothing brings it below the bound, the value that comes nearest is still worth knowing
    nearest = good[np.argmin(np.abs(np.log(STEPS[good])))] if len(good) else int(np.argmin(level))
    value = _tidy(float(values[nearest, 0]), field, up=STEPS[nearest] > 1)
    yield from _try(setup.with_settings(**{field: value}), name, _change_text(label, present, value, field), {"settings": {field: value}})


def _now(setup: Setup, name: str) -> float:
    case, cutter, done = run(setup, SILENT)
    return max(float(rules.all_utilisations(case, cutter, done)[name].ravel()[0]), 0.1)


def _faster_trials(setup: Setup, name: str) -> Iterator[Trial]:
    if setup.pass_count > 1:
        fewer = setup.pass_count - 1
        yield from _try(
            _with_passes(setup, fewer),
            name,
            _pass_text(setup, fewer),
            {"settings": {"depth_of_cut": _depth_of(setup, fewer), "pass_depths": None}},
        )
    for field, label in (("feed_per_rev", "feed"), ("cutting_speed", "speed")):
        yield from _furthest(setup, name, field, label, "", {})
    if setup.holding.style is Holding.CHUCK and setup.operation == "turn":
        supported = replace(setup, holding=replace(setup.holding, style=Holding.CHUCK_AND_CENTRE))
        yield from _furthest(supported, name, "feed_per_rev", "feed", "tailstock centre in → ", {"holding": {"style": "chuck and centre"}})


def _furthest(setup: Setup, name: str, field: str, label: str, before: str, patch: dict[str, Any]) -> Iterator[Trial]:
    present = getattr(setup.settings, field)
    values = (present * np.linspace(1.02, 3.0, 100))[:, None]
    try:
        _, bad = _used_over(setup, field, values, pass_depths(setup), pass_diameters(setup))
    except CuttingError:
        return
    good = np.flatnonzero(~bad.ravel())
    if not len(good):
        return
    value = _tidy(float(values[good[-1], 0]), field, up=False)
    text = _change_text(label, present, value, field)
    yield from _try(
        setup.with_settings(**{field: value}),
        name,
        Display(before + text.metric, before + text.inch),
        {**patch, "settings": {field: value}},
    )


def _used_over(setup: Setup, field: str, values: Any, depth: Any, diameters: Any) -> tuple[dict[str, Any], Any]:
    case, cutter = case_of(setup), single_cutter(setup)
    speed = values if field == "cutting_speed" else setup.settings.cutting_speed
    feed = values if field == "feed_per_rev" else setup.settings.feed_per_rev
    done: Cut = cut(case, cutter, speed, feed, depth, diameters, SILENT)
    used = rules.all_utilisations(case, cutter, done)
    shape = (len(values), 1)
    return (
        {key: np.broadcast_to(one, shape) for key, one in used.items()},
        np.broadcast_to(rules.excluded(case, cutter, done, used), shape),
    )


def _try(setup: Setup, name: str, text: Display, patch: dict[str, Any]) -> Iterator[Trial]:
    try:
        yield Trial(setup, name, text, patch)
    except CuttingError:
        return


def _with_passes(setup: Setup, passes: int) -> Setup:
    return setup.with_settings(depth_of_cut=_depth_of(setup, passes), pass_depths=())


def _depth_of(setup: Setup, passes: int) -> float:
    """Depth that gives so many passes, a planned last one among them."""
    last = setup.last_depth if passes > 1 else None
    return (setup.stock_to_remove - (last or 0.0)) / (passes - (last is not None))


def _tidy(value: float, field: str, up: bool) -> float:
    step = 0.005 if field == "feed_per_rev" else 1.0
    rounded = np.ceil(value / step) if up else np.floor(value / step)
    return round(max(float(rounded), 1.0) * step, 4)


def _change_text(label: str, present: float, value: float, kind: str) -> Display:
    return Display(*(f"{label} {write(present, kind, s, False)} → {write(value, kind, s)}" for s in ("metric", "inch")))


def _pass_text(setup: Setup, passes: int) -> Display:
    depth = _depth_of(setup, passes)
    return Display(
        *(
            f"{passes} {'pass' if passes == 1 else 'passes'} of {write(depth, 'length', s)} instead of {setup.pass_count}"
            for s in ("metric", "inch")
        )
    )


def _both(text: str) -> Display:
    return Display(text, text)


def _effect(limit: Limit, base: Trial, trial: Trial) -> Display:
    tail = "" if trial.sound else ", but breaks another limit"
    text = (
        f"{limit.label.split(',')[0]} {base.used:.0%} → {trial.used:.0%} of its bound, "
        f"{_signed(trial.seconds - base.seconds, 's')}, {_signed(trial.cost - base.cost, currency())}{tail}"
    )
    return _both(text)


def _gain(base: Trial, trial: Trial) -> Display:
    return _both(f"{_signed(trial.seconds - base.seconds, 's')}, {_signed(trial.cost - base.cost, currency())}")


def _signed(value: float, unit: str) -> str:
    digits = 2 if unit == currency() else 0 if abs(value) >= 10 else 1
    text = f"{value:+.{digits}f} {unit}"
    return text.replace("-", "−") if round(value, digits) else f"±0 {unit}"

"""One set-up to its outcome: the recorded evaluation."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

import numpy as np
from numpy.typing import NDArray

from cutting.chips.verdict import chip_form
from cutting.chips.window import depth_scale, span_at_depth, window_sides
from cutting.errors import UnknownName
from cutting.nomenclature import source_label
from cutting.operations.outcome import ChipVerdict, Limit, Outcome, Pass, Remedy, Severity, Value, Warning, shown
from cutting.operations.setup import Setup
from cutting.operations.single_point import limits as rules
from cutting.operations.single_point.case import Case, Cutter
from cutting.operations.single_point.cautions import cautions
from cutting.operations.single_point.fit import warnings_of_fit
from cutting.operations.single_point.physics import Cut
from cutting.operations.single_point.remedies import remedies_for, ways_to_go_faster
from cutting.operations.single_point.run import actual_depth, run
from cutting.quantities.write import Display, display, write
from cutting.wear.reference import speed_factors
from cutting.working import Recorder

Array = NDArray[np.float64]

LIFE_FACTOR = 2.0  # a factor of two either way until a trial has calibrated it


def evaluate(setup: Setup, with_remedies: bool = True) -> Outcome:
    """The outcome of a set-up: results, limits sorted by how close they are, passes, chip, warnings, working.

    Raises `CuttingError` for inputs that cannot be; broken limits are part of the outcome, not errors.
    """
    record = Recorder()
    case, cutter, done = run(setup, record)
    found = limit_list(case, cutter, done, record)
    if with_remedies:
        found = tuple(
            replace(limit, remedies=remedies_for(limit, setup)) if limit.broken or k == 0 else limit for k, limit in enumerate(found)
        )
    chip = chip_verdict(case, cutter, done, setup)
    faster = ways_to_go_faster(setup, found) if with_remedies and not any(limit.broken for limit in found) else ()
    warnings = _gravest_first((*warnings_of_fit(setup), *cautions(setup, done), *_speed_reason(setup, cutter)))
    return Outcome(
        setup.operation, results(case, done, record), found, passes(setup, done), chip, warnings, faster, scene(setup, case, done)
    )


def relax(setup: Setup, name: str) -> tuple[Remedy, ...]:
    """What would move one limit, whether it is broken or not. Raises `UnknownName` for a limit that does not apply."""
    record = Recorder()
    found = {limit.name: limit for limit in limit_list(*run(setup, record), record)}
    if name not in found:
        raise UnknownName("limit", f"no limit is called '{name}' here.", None, tuple(found))
    return remedies_for(found[name], setup)


def _gravest_first(found: tuple[Warning, ...]) -> tuple[Warning, ...]:
    return tuple(sorted(found, key=lambda one: ("blocks", "care", "note").index(one.severity)))


def limit_list(case: Case, cutter: Cutter, done: Cut, record: Recorder) -> tuple[Limit, ...]:
    """All limits that apply, the closest first."""
    found = [_limit(rule, case, cutter, done, record) for rule in rules.RULES if rule.applies(case)]
    return tuple(sorted(found, key=lambda limit: (not _breaks_hard(limit), -limit.utilisation)))


def _breaks_hard(limit: Limit) -> bool:
    return limit.broken and limit.severity is Severity.HARD


def _limit(rule: rules.Rule, case: Case, cutter: Cutter, done: Cut, record: Recorder) -> Limit:
    value, lower, upper = rule.read(case, cutter, done)
    used = np.atleast_1d(rules.utilisation(rule, value, lower, upper))
    worst = int(np.argmax(used))

    def at(number: Any) -> float | None:
        return (
            None
            if number is None
            else float(
                np.broadcast_to(np.ravel(number), used.shape if np.size(number) == 1 else np.shape(np.ravel(number)))[
                    worst if np.size(number) > 1 else 0
                ]
            )
        )

    v, lo, hi = at(value), at(lower), at(upper)
    assert v is not None
    kind, label = rule.kind, rule.label
    if rule.name == "chip_window":
        v, lo, hi, kind, label = _window_numbers(case, cutter, done)
    severity = rule.severity
    if rule.name == "book_speed" and (not case.setup.house.never_above_book or v <= (hi or v)):
        severity = Severity.SOFT  # below the book is free, above it by the house rule
    return Limit(
        rule.name,
        label,
        kind,
        rule.bound,
        v,
        lo,
        hi,
        display(v, kind),
        _bound_display(lo, hi, kind),
        float(used[worst]),
        severity,
        source_label(rule.source),
        rule.why,
        (),
        record.trail(*rule.working),
    )


def _window_numbers(case: Case, cutter: Cutter, done: Cut) -> tuple[float, float | None, float | None, str, str]:
    """The window as the user reads it: feed span at this depth, or depth span where the depth is outside."""
    sides = window_sides(case.setup.insert.geometry.window)
    across, along = float(done.window_feed_scale.ravel()[-1]), float(depth_scale(cutter.inscribed_circle).ravel()[0])
    depth = float(np.ravel(done.depth_of_cut)[0])
    span = span_at_depth(sides, depth, across, along)
    if span:
        return float(np.ravel(done.feed_per_rev)[0]), *span, "feed_per_rev", "chip window"
    low, high = (bound([p[1] for p in sides.hull]) * along for bound in (min, max))
    return depth, low, high, "length", "chip window"


def _bound_display(lower: float | None, upper: float | None, kind: str) -> Display:
    if lower is not None and upper is not None:
        return Display(*(f"{write(lower, kind, s, False)} – {write(upper, kind, s, False)}" for s in ("metric", "inch")))
    if upper is not None:
        return Display(*(f"≤ {write(upper, kind, s, False)}" for s in ("metric", "inch")))
    return Display(*(f"≥ {write(lower or 0, kind, s, False)}" for s in ("metric", "inch")))


def results(case: Case, done: Cut, record: Recorder) -> dict[str, Value]:
    """The numbers that a person takes away, with band and working; of several passes the last."""

    def last(array: Array) -> float:
        return float(np.ravel(array)[-1])

    def banded(name: str, label: str, value: float, kind: str, share: float, *trail: str) -> Value:
        return shown(name, label, value, kind, "model", (value * (1 - share), value * (1 + share)), record.trail(*trail))

    seconds, cost = last(done.operation_time), last(done.operation_cost)
    life_cost = last(done.edge_cost / done.change_parts)
    median, change = last(done.median_parts), last(done.change_parts)
    life = last(done.tool_life)
    error = last(done.size_error)
    found = [
        shown(
            "operation_time",
            "this operation",
            seconds,
            "duration",
            "model",
            (seconds * 0.97, seconds * 1.05),
            record.trail("engaged_time", "operation_time"),
        ),
        shown(
            "operation_cost",
            "cost",
            cost,
            "money",
            "model",
            (cost - life_cost * (1 - 1 / LIFE_FACTOR), cost + life_cost * (LIFE_FACTOR - 1)),
            record.trail("operation_time", "operation_cost"),
        ),
        shown(
            "median_parts",
            "edge lasts, pieces",
            median,
            "count",
            "model",
            (median / LIFE_FACTOR, median * LIFE_FACTOR),
            record.trail("chip_thickness", "tool_life"),
        ),
        shown(
            "change_parts",
            "change edge every",
            change,
            "count",
            "model",
            (change / LIFE_FACTOR, change * LIFE_FACTOR),
            record.trail("tool_life", "weibull_shape"),
        ),
        shown(
            "tool_life",
            "life in cut",
            life,
            "life",
            "model",
            (life / LIFE_FACTOR, life * LIFE_FACTOR),
            record.trail("chip_thickness", "tool_life"),
        ),
        shown(
            "secure",
            "secure",
            100 * last(done.secure),
            "share",
            "rule",
            None,
            record.trail("weibull_shape", "completion_probability"),
        ),
        banded(
            "roughness", "finish Ra", last(done.roughness), "small_length", 0.3, "minimum_chip", "peak_height", "finish_factor", "roughness"
        ),
        banded(
            "cutting_force",
            "cutting force",
            last(done.cutting_force),
            "force",
            0.25,
            "chip_area",
            "chip_thickness",
            "specific_force",
            "cutting_force",
        ),
        banded("feed_force", "feed force", last(done.feed_force), "force", 0.4, "in_plane_ratio", "chord_angle", "feed_force"),
        banded("passive_force", "push-off force", last(done.passive_force), "force", 0.4, "in_plane_ratio", "chord_angle", "passive_force"),
        banded("cutting_power", "power at the spindle", last(done.cutting_power), "power", 0.25, "cutting_force", "cutting_power"),
        banded("size_error", "springs, on diameter", error, "length", 0.4, "passive_force", "deflection", "size_error"),
        shown("spindle_speed", "spindle speed", last(done.spindle_speed), "spindle_speed", "exact", None, record.trail("spindle_speed")),
        shown(
            "cutting_speed",
            "cutting speed reached",
            last(done.cutting_speed),
            "cutting_speed",
            "exact",
            None,
            record.trail("cutting_speed"),
        ),
        shown(
            "chip_thickness",
            "mean chip thickness",
            last(done.chip_thickness),
            "length",
            "exact",
            None,
            record.trail("chip_area", "engaged_edge", "chip_thickness"),
        ),
    ]
    if not case.facing:
        size = case.setup.feature.end_diameter
        found.append(
            shown(
                "size_after",
                "size after",
                size + error / 2,
                "length",
                "model",
                (size, size + error * 1.4),
                record.trail("deflection", "size_error"),
            )
        )
    return {value.name: value for value in found}


def passes(setup: Setup, done: Cut) -> tuple[Pass, ...]:
    """The passes as they will be taken."""
    depth = actual_depth(setup)
    diameters = done.diameter.ravel()

    def row(array: Array, k: int) -> float:
        flat = np.ravel(array)
        return float(flat[k] if flat.size > 1 else flat[0])

    return tuple(
        Pass(
            k + 1,
            float(d),
            setup.feature.end.nominal if setup.operation == "face" else float(d - 2 * depth),
            depth,
            row(done.spindle_speed, k),
            row(done.cutting_speed, k),
            row(done.feed_per_rev, k),
            row(done.pass_seconds, k),
            row(done.chip_index, k),
        )
        for k, d in enumerate(diameters)
    )


def chip_verdict(case: Case, cutter: Cutter, done: Cut, setup: Setup) -> ChipVerdict:
    """Form, verdict and index of the chip of the last pass."""
    sides = window_sides(setup.insert.geometry.window)
    feeds, depths = [p[0] for p in sides.hull], [p[1] for p in sides.hull]
    f = float(np.ravel(done.feed_per_rev)[-1]) / float(np.ravel(done.window_feed_scale)[-1])
    a = float(np.ravel(done.depth_of_cut)[-1]) / float(np.ravel(depth_scale(cutter.inscribed_circle))[0])
    span = span_at_depth(sides, a, 1.0, 1.0) or (min(feeds), max(feeds))
    place_f = 2 * (f - span[0]) / (span[1] - span[0]) - 1
    place_a = 2 * (a - min(depths)) / (max(depths) - min(depths)) - 1
    gauge = float(np.ravel(done.window_gauge)[-1])
    form = chip_form(gauge, place_f, place_a, case.ductility, setup.insert.geometry.breaker)
    return ChipVerdict(
        form.form, form.length, form.code, form.verdict, float(done.chip_index.min()), float(np.ravel(done.chip_thickness)[-1]), form.why
    )


def scene(setup: Setup, case: Case, done: Cut) -> dict[str, float | str]:
    """What the drawing needs, mm and N."""
    code = setup.holder.code
    return {
        "cutting_force": float(done.cutting_force.ravel()[-1]),
        "feed_force": float(done.feed_force.ravel()[-1]),
        "passive_force": float(done.passive_force.ravel()[-1]),
        "cutting_edge_angle": code.cutting_edge_angle,
        "shape": code.shape,
        "inscribed_circle": setup.insert.code.inscribed_circle,
        "edge_length": setup.insert.code.edge_length,
        "nose_radius": setup.insert.code.nose_radius,
        "shank_height": code.shank_height,
        "shank_width": code.shank_width,
        "overhang": setup.settings.overhang or setup.holder.overhang,
        "free_length": setup.holding.free_length,
        "overhang_ratio": setup.holding.free_length / setup.feature.start_diameter,
        "holding": setup.holding.style.value,
        "span_position": case.span_position,
        "depth": float(np.ravel(done.depth_of_cut)[-1]),
        "length": setup.feature.length,
        "distance_from_chuck": setup.feature.distance_from_chuck,
        "start_diameter": setup.feature.start_diameter,
        "end_diameter": setup.feature.end_diameter,
        "grip_diameter": setup.holding.grip_diameter,
        "operation": setup.operation,
        "bore": setup.holding.bore,
    }


def _speed_reason(setup: Setup, cutter: Cutter) -> tuple[Warning, ...]:
    """A speed further than 35 % from the group's row needs its reason on the screen."""
    row = float(cutter.reference_speed.ravel()[0])
    ratio = setup.settings.cutting_speed / row
    if abs(ratio - 1) <= 0.35:
        return ()
    pressure = setup.machine.pressure(setup.settings.coolant) or 0.0
    factors = speed_factors(setup.work, setup.insert.grade, pressure, setup.holding.interrupted, setup.skin, setup.holding.weak)
    reasons = ", ".join(f"{f.label} ×{f.factor:.2f}" for f in factors if abs(f.factor - 1) > 0.02)
    text = f"Speed is {abs(ratio - 1):.0%} {'above' if ratio > 1 else 'below'} the starting value of {row:.0f} m/min for this group" + (
        f": {reasons}, chip thickness, and the goal." if reasons else ": chip thickness and the goal."
    )
    return (Warning("speed_off_row", text, "note"),)

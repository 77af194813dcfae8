"""What a person takes away from a cut: results with their bands, passes, the chip, and what the drawing needs."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace

import numpy as np
from numpy.typing import NDArray

from cutting.chips.curl import chip_after, chip_length, chip_strain, compression_ratio, fracture_strain, friction_angle, shear_angle
from cutting.chips.verdict import chip_form
from cutting.chips.window import softest_index, span_at_depth, window_sides
from cutting.mechanics.tool_setting import height_size_error, pip_diameter
from cutting.operations.frame.change import in_words
from cutting.operations.frame.money import change_shown, life_shown, parts_shown
from cutting.operations.frame.outcome import Bow, ChipVerdict, Pass, Value, shown
from cutting.operations.frame.over_passes import last_pass
from cutting.operations.turned.fit import fouled
from cutting.operations.turned.physics import Cut
from cutting.operations.turned.plan import pass_depths
from cutting.operations.turned.springing import springing
from cutting.sizing.drift import WEAR_LIMIT, correct_every, drift_per_piece, nose_recession
from cutting.working import Recorder

Array = NDArray[np.float64]

LIFE_FACTOR = 2.0  # a factor of two either way until a trial has calibrated it


def results(done: Cut, record: Recorder) -> dict[str, Value]:
    """The numbers that a person takes away, with band and working; of several passes the last."""

    def banded(name: str, label: str, value: float, kind: str, share: float, *trail: str) -> Value:
        return shown(name, label, value, kind, "model", (value * (1 - share), value * (1 + share)), record.trail(*trail))

    seconds, cost = last_pass(done.operation_time), last_pass(done.operation_cost)
    life_cost = last_pass(done.edge_cost / done.change_parts)
    median, change = last_pass(done.median_parts), last_pass(done.change_parts)
    life = last_pass(done.tool_life)
    error = last_pass(done.size_error)
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
        replace(
            shown(
                "median_parts",
                "edge lasts, pieces",
                median,
                "count",
                "model",
                (median / LIFE_FACTOR, median * LIFE_FACTOR),
                record.trail("chip_thickness", "tool_life"),
            ),
            display=parts_shown(median, life),
        ),
        replace(
            shown(
                "change_parts",
                "change edge every",
                change,
                "count",
                "model",
                (change / LIFE_FACTOR, change * LIFE_FACTOR),
                record.trail("tool_life", "weibull_shape"),
            ),
            display=change_shown(done.setup, change),
        ),
        replace(
            shown(
                "tool_life",
                "life in cut",
                life,
                "life",
                "model",
                (life / LIFE_FACTOR, life * LIFE_FACTOR),
                record.trail("chip_thickness", "tool_life"),
            ),
            display=life_shown(life),
        ),
        shown(
            "secure",
            "secure",
            100 * last_pass(done.secure),
            "share",
            "rule",
            None,
            record.trail("weibull_shape", "completion_probability"),
        ),
        _finish(done, banded),
        banded(
            "cutting_force",
            "cutting force",
            last_pass(done.cutting_force),
            "force",
            0.25,
            "chip_area",
            "chip_thickness",
            "specific_force",
            "cutting_force",
        ),
        banded("feed_force", "feed force", last_pass(done.feed_force), "force", 0.4, "in_plane_ratio", "chord_angle", "feed_force"),
        banded(
            "passive_force", "push-off force", last_pass(done.passive_force), "force", 0.4, "in_plane_ratio", "chord_angle", "passive_force"
        ),
        banded("cutting_power", "power at the spindle", last_pass(done.cutting_power), "power", 0.25, "cutting_force", "cutting_power"),
        banded("size_error", "springs, on diameter", error, "length", 0.4, "passive_force", "deflection", "size_error"),
        shown(
            "spindle_speed", "spindle speed", last_pass(done.spindle_speed), "spindle_speed", "exact", None, record.trail("spindle_speed")
        ),
        shown(
            "cutting_speed",
            "cutting speed reached",
            last_pass(done.cutting_speed),
            "cutting_speed",
            "exact",
            None,
            record.trail("cutting_speed"),
        ),
        shown(
            "chip_thickness",
            "mean chip thickness",
            last_pass(done.chip_thickness),
            "length",
            "exact",
            None,
            record.trail("chip_area", "engaged_edge", "chip_thickness"),
        ),
    ]
    found += _edge_readings(done, record)
    if not done.case.facing:
        size = done.setup.target_diameter
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


def _finish(done: Cut, banded: Callable[..., Value]) -> Value:
    """The finish; where the edge only rubs no law says what it leaves."""
    ra = last_pass(done.roughness)
    trail = ("minimum_chip", "peak_height", "finish_factor", "roughness")
    found: Value = banded("roughness", "finish Ra", ra, "small_length", 0.3, *trail)
    rubs = last_pass(done.chip_thickness) < last_pass(done.minimum_chip)
    return replace(found, display=in_words("unknown: it rubs"), low=None, high=None) if rubs else found


def _edge_readings(done: Cut, record: Recorder) -> list[Value]:
    """How the edge stands, how far a worn one misses the size, and what a low or high tip leaves."""
    case, cutter, setup = done.case, done.cutter, done.setup
    back = last_pass(record(nose_recession, wear_land=WEAR_LIMIT, clearance=cutter.clearance))
    drift = float(drift_per_piece(back, last_pass(done.median_parts)))
    rake, clearance, height = last_pass(done.effective_rake), last_pass(done.effective_clearance), setup.centre_height
    angles = (
        ("effective_rake", "working rake", rake),
        ("effective_clearance", "working clearance", clearance),
        ("cutting_edge_angle", "κr in this cut", last_pass(cutter.cutting_edge_angle)),
    )
    trail = record.trail("height_angle", "effective_rake", "effective_clearance")
    found = [shown(name, label, value, "angle", "exact", None, trail) for name, label, value in angles]
    band, wear = (drift * 500.0, drift * 2000.0), record.trail("tool_life", "nose_recession")
    found.append(shown("drift", "size grows by wear, a piece", drift * 1000.0, "small_length", "model", band, wear))
    tolerance = setup.feature.end_diameter.tolerance
    if tolerance and not case.facing:
        every = float(correct_every(drift, tolerance))
        found.append(shown("correct_every", "correct the size every", every, "count", "model", (max(every / 2, 1.0), every * 2), wear))
    if case.facing and setup.feature.end_diameter.nominal == 0:
        found.append(shown("pip", "pip left at the centre", float(pip_diameter(height)), "length", "exact"))
    if height and not case.facing:
        found.append(
            shown("height_error", "larger by the tip's height", float(height_size_error(height, setup.target_diameter)), "length", "exact")
        )
    return found


def passes(done: Cut) -> tuple[Pass, ...]:
    """The passes as they will be taken, each with its chip."""
    setup, chips = done.setup, chip_verdicts(done)
    depths = pass_depths(setup)
    return tuple(
        Pass(
            k + 1,
            float(d),
            setup.feature.end_diameter.nominal if setup.operation == "face" else float(d - 2 * depths[k]),
            float(depths[k]),
            _of_pass(done.spindle_speed, k),
            _of_pass(done.cutting_speed, k),
            _of_pass(done.feed_per_rev, k),
            _of_pass(done.pass_seconds, k),
            chips[k],
            _of_pass(done.passive_force, k),
            _of_pass(done.size_error, k),
        )
        for k, d in enumerate(done.diameter.ravel())
    )


def chip_verdicts(done: Cut) -> tuple[ChipVerdict, ...]:
    """Form, thickness, curl and length of the chip of every pass."""
    case = done.case
    geometry, material = case.setup.insert.geometry, case.setup.work.material
    sides = window_sides(geometry.window)
    feeds, depths = [p[0] for p in sides.hull], [p[1] for p in sides.hull]
    phi = shear_angle(done.effective_rake, friction_angle(material.adhesion))
    ratio = compression_ratio(phi, done.effective_rake)
    after = chip_after(ratio, done.chip_thickness)
    curl = geometry.curl_radius
    strain = chip_strain(after, curl) if curl else None
    best = float(softest_index(case.ductility, case.pressure))
    found = []
    for k in range(done.diameter.size):
        f = _of_pass(done.feed_per_rev, k) / _of_pass(done.window_feed_scale, k)
        a = _of_pass(done.depth_of_cut, k) / _of_pass(done.window_depth_scale, k)
        span = span_at_depth(sides, a, 1.0, 1.0) or (min(feeds), max(feeds))
        place_f = 2 * (f - span[0]) / (span[1] - span[0]) - 1
        place_a = 2 * (a - min(depths)) / (max(depths) - min(depths)) - 1
        form = chip_form(_of_pass(done.window_gauge, k), place_f, place_a, case.ductility, geometry.breaker, best)
        dense = form.verdict == "packs" and case.sticky > 0.3
        found.append(
            ChipVerdict(
                form.form,
                form.length,
                form.code,
                form.verdict,
                _of_pass(done.chip_index, k),
                _of_pass(done.chip_thickness, k),
                _of_pass(after, k),
                curl,
                _of_pass(strain, k) if strain is not None else None,
                float(fracture_strain(material.ductility)),
                chip_length(form.code, curl),
                form.why + ("; in a dense, sticky metal big chips are the trouble: less feed, a jet" if dense else ""),
            )
        )
    return tuple(found)


def worst_chip(done: Cut) -> ChipVerdict:
    """The chip that decides: the one with the lowest index."""
    return min(chip_verdicts(done), key=lambda chip: chip.index)


def _of_pass(array: Array, k: int) -> float:
    flat = np.ravel(array)
    return float(flat[k] if flat.size > 1 else flat[0])


def bow(done: Cut) -> Bow:
    """How the part springs along the last cut."""
    return springing(done.setup, done, done.case.beam)


def scene(done: Cut) -> dict[str, float | str]:
    """What the drawing needs, mm and N."""
    setup = done.setup
    code = setup.holder.code
    fouls = fouled(setup) or (0.0, 0.0, "")
    return {
        "fouls_at": fouls[0],
        "fouls_diameter": fouls[1],
        "fouls_with": fouls[2],
        "cutting_force": float(done.cutting_force.ravel()[-1]),
        "feed_force": float(done.feed_force.ravel()[-1]),
        "passive_force": float(done.passive_force.ravel()[-1]),
        "cutting_edge_angle": code.cutting_edge_angle,
        "centre_height": setup.centre_height,
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
        "depth": float(np.ravel(done.depth_of_cut)[-1]),
        "length": setup.feature.length,
        "distance_from_chuck": setup.feature.distance_from_chuck,
        "start_diameter": setup.feature.start_diameter,
        "end_diameter": setup.feature.turned_diameter,
        "grip_diameter": setup.holding.grip_diameter,
        "operation": setup.operation,
        "bore": setup.holding.bore,
    }

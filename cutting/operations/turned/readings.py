"""What a person takes away from a cut: results with their bands, passes, the chip, and what the drawing needs."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
from numpy.typing import NDArray
from typing_extensions import TypedDict

from cutting.chips.curl import chip_after, chip_length, chip_strain, compression_ratio, fracture_strain, friction_angle, shear_angle
from cutting.chips.verdict import chip_form
from cutting.chips.window import light_index, softest_index, span_at_depth, window_sides
from cutting.mechanics.tool_setting import height_size_error, pip_diameter
from cutting.operations.frame.change import in_words
from cutting.operations.frame.common_limits import spindle_runs
from cutting.operations.frame.outcome import Bow, ChipVerdict, Pass, Value
from cutting.operations.frame.over_passes import last_pass
from cutting.operations.frame.results import ResultsSaid
from cutting.operations.frame.spent_lines import trusted
from cutting.operations.turned.fit import fouled
from cutting.operations.turned.physics import Cut
from cutting.operations.turned.plan import pass_depths
from cutting.operations.turned.setup import Setup
from cutting.operations.turned.springing import springing
from cutting.operations.turned.surface import Surface
from cutting.sizing.drift import DRIFT_SHARE, correct_every, drift_per_piece, nose_recession, wear_limit
from cutting.working import Recorder, line
from cutting.working.line import COMMON

Array = NDArray[np.float64]


AS_MADE = "as the insert is made and stands in its holder"
STICKY = 0.3  # from which a packed chip welds


def results(done: Cut, record: Recorder) -> dict[str, Value]:
    """The numbers that a person takes away, with band and working; of several passes the last."""
    say = ResultsSaid(record)
    say.money(done)
    say.life(done)
    say.banded(
        "roughness", "finish Ra", done.roughness, "small_length", "finish", "minimum_chip", "peak_height", "finish_factor", "roughness"
    )
    if last_pass(done.chip_thickness) < last_pass(done.minimum_chip):  # where the edge only rubs no law says what it leaves
        say.keep(replace(say.found["roughness"], display=in_words("unknown: it rubs"), low=None, high=None))
    area, turned = ("chip_area", "chip_thickness", "specific_force"), ("in_plane_ratio", "chord_angle")
    say.banded("cutting_force", "cutting force", done.cutting_force, "force", "cutting force", *area, "cutting_force")
    say.banded("feed_force", "feed force", done.feed_force, "force", "push-off", *turned, "feed_force")
    say.banded("passive_force", "passive force", done.passive_force, "force", "push-off", *turned, "passive_force")
    say.banded("cutting_power", "power at the spindle", done.cutting_power, "power", "cutting force", "cutting_force", "cutting_power")
    say.banded("size_error", "deflection, on Ø", done.size_error, "length", "springing", "passive_force", "deflection", "size_error")
    runs = spindle_runs(done.setup.settings.cutting_speed, last_pass(done.diameter), last_pass(done.spindle_speed))
    say.plain("spindle_speed", "spindle speed", done.spindle_speed, "spindle_speed", "exact", "spindle_speed", ends=runs)
    say.plain("cutting_speed", "actual speed", done.cutting_speed, "cutting_speed", "exact", "cutting_speed")
    thickness = ("chip_area", "engaged_edge", "chip_thickness")
    say.plain("chip_thickness", "mean chip thickness", done.chip_thickness, "length", "exact", *thickness)
    _edge_stands(done, say)
    if not done.case.facing:
        size, error = done.setup.target_diameter, done.setup.shrinks * last_pass(done.size_error)
        low, high = sorted((size, size + error * say.record.band("springing").high))
        ends = line("{size_asked} + {size_error}/2", size_asked=size, size_error=error)
        say.between("size_after", "size after", size + error / 2, "length", low, high, "deflection", "size_error", ends=ends)
    return say.found


def _edge_stands(done: Cut, say: ResultsSaid) -> None:
    """How the edge stands, how far a worn one misses the size, and what a low or high tip leaves."""
    case, cutter, setup, height = done.case, done.cutter, done.setup, done.setup.centre_height
    back = last_pass(say.record(nose_recession, wear_land=wear_limit(setup.work.material.group.letter), clearance=cutter.clearance))
    pieces = trusted(done) * last_pass(done.median_parts)
    drift = float(drift_per_piece(back, pieces))
    turned = ("height_angle", "effective_rake") if height else ()
    say.plain("effective_rake", "working rake", done.effective_rake, "angle", "exact", *turned, ends=None if height else AS_MADE)
    theta = last_pass(cutter.clearance) - last_pass(done.effective_clearance)
    left = line("{clearance} − {height_angle}", clearance=cutter.clearance, height_angle=theta) if height else AS_MADE
    say.plain("effective_clearance", "working clearance", done.effective_clearance, "angle", "exact", *turned[:1], ends=left)
    say.plain("cutting_edge_angle", "κr in this cut", cutter.cutting_edge_angle, "angle", ends=AS_MADE)
    wear, grows = ("tool_life", "nose_recession"), drift * 1000.0  # µm
    moved = line("2·1000·{nose_recession}/{half_of_them_last}", nose_recession=back, half_of_them_last=pieces)
    told = f"size {'shrinks' if setup.inside else 'grows'} by wear, per piece"
    say.banded("drift", told, grows, "small_length", "life", *wear, ends=moved)
    tolerance = setup.feature.end_diameter.tolerance
    if tolerance and not case.facing:
        every = float(correct_every(drift, tolerance))
        low, high = say.record.band("life").about(every)
        ends = line("whole({share}·1000·{tolerance}/{drift})", COMMON, share=DRIFT_SHARE, tolerance=tolerance, drift=grows)
        first = line("max(1, {whole})", whole=every) if every <= 1.0 else ends
        say.between("correct_every", "offset interval", every, "count", max(low, 1.0), high, *wear, ends=first)
    if case.facing and setup.feature.end_diameter.nominal == 0:
        say.plain("pip", "pip left at the centre", float(pip_diameter(height)), "length")
    if height and not case.facing:
        say.plain("height_error", "larger by the tip's height", float(height_size_error(height, setup.target_diameter)), "length")


def passes(done: Cut) -> tuple[Pass, ...]:
    """The passes as they will be taken, each with its chip."""
    setup, chips = done.setup, chip_verdicts(done)
    depths = pass_depths(setup)
    return tuple(
        Pass(
            k + 1,
            *_from_and_to(setup, float(d), float(depths[k])),
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


def _from_and_to(setup: Setup, larger: float, depth: float) -> tuple[float, float]:
    """Diameters before and after a pass [mm] from the larger of them."""
    if setup.surface is Surface.FACE:
        return larger, setup.feature.end_diameter.nominal
    ends = larger, larger - 2.0 * depth
    return (ends[1], ends[0]) if setup.inside else ends


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
        light = float(light_index(_of_pass(done.chip_area, k)))
        form = chip_form(_of_pass(done.window_gauge, k), place_f, place_a, case.ductility, geometry.breaker, best, light)
        dense = form.verdict == "packs" and case.sticky > STICKY
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


class TurnedScene(TypedDict):
    """Tool and part as they are drawn: mm, degrees, N; the last pass."""

    fouls_at: float
    fouls_diameter: float
    fouls_with: str
    cutting_force: float
    feed_force: float
    passive_force: float
    cutting_edge_angle: float
    centre_height: float
    shape: str
    inscribed_circle: float
    edge_length: float
    nose_radius: float
    shank_height: float
    shank_width: float
    overhang: float
    free_length: float
    overhang_ratio: float
    holding: str
    depth: float
    length: float
    distance_from_chuck: float
    start_diameter: float
    end_diameter: float
    grip_diameter: float
    operation: str
    bore: float
    steady: float
    direction: str


def scene(done: Cut) -> TurnedScene:
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
        "steady": setup.holding.steady or 0.0,
        "direction": setup.settings.direction.value,
    }

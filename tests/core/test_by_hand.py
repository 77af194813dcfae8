"""Every formula of the cut at a point that was worked out with a pocket calculator, so that no constant can drift unseen.

The numbers are round ones, chosen so that the working fits in the comment beside them; formulae as their functions name them.
"""

from __future__ import annotations

import math
from collections.abc import Callable
from typing import Any

import numpy as np
import pytest

from cutting.chips import curl
from cutting.chips.verdict import chip_form
from cutting.chips.window import window_gauge
from cutting.mechanics import (
    blade,
    chatter,
    chip_section,
    deflection,
    finish,
    force,
    grip,
    heat,
    jet,
    kinematics,
    ring,
    stepped_beam,
    tool_setting,
)
from cutting.mechanics.deflection import Holding
from cutting.money import cost, kerf
from cutting.tooling.items import grades
from cutting.wear import life, spread
from cutting.wear.reference import speed_factors
from cutting.workpiece.materials import deliver, find_material

BY_HAND: list[tuple[Callable[..., Any], tuple[Any, ...], float]] = [
    # force: 1 kN and 2 kN make the arithmetic plain
    (force.rake_factor, (10, 6), 0.94),  # 4° × 1.5 %
    (force.rake_factor, (60, 6), 0.5),  # held
    (force.specific_cutting_force, (2000, 1.0, 0.25, 1.1, 1.2, 0.5), 1320.0),
    (force.specific_cutting_force, (2000, 0.0625, 0.25), 4000.0),  # 1/16 to the quarter is one half
    (force.cutting_force, (2000, 0.5), 1000.0),
    (force.in_plane_ratio, (1.0,), 0.22365),  # √(0.176² + 0.138²)
    (force.in_plane_ratio, (0.1,), 0.5384),  # √(0.4847² + 0.2344²): thin chips push more than they pull
    (force.feed_force, (1000, 0.5, 30), 250.0),
    (force.passive_force, (1000, 0.5, 60, 12), 262.0),
    (force.passive_force, (1000, 0.5, 120, 12), 12.0),  # a chord beyond square pulls nobody apart
    (force.ploughing_force, (2000, 0.04, 2.0, 0.025), 80.0),  # half way below 0.05 mm
    (force.ploughing_force, (2000, 0.04, 2.0, 0.06), 0.0),
    (force.cutting_power, (2000, 150), 5.0),
    (force.motor_power, (5.0, 0.8), 6.25),
    (force.torque, (2000, 100), 100.0),
    # jaws: 3 of 1 kg at 100 mm, 3000 1/min = 314.16 rad/s: 0.3 · 98 696 = 29 609 N
    (grip.grip_torque, (0.2, 40_000, 1.0, 100, 3000, 50), 51.955),  # 0.2 · 10 391 · 0.025
    (grip.grip_torque, (0.2, 20_000, 1.0, 100, 3000, 50), 0.0),
    (grip.speed_that_holds, (51.955, 0.2, 40_000, 1.0, 100, 50), 3000.0),
    (grip.speed_that_holds, (300.0, 0.2, 40_000, 1.0, 100, 50), 0.0),
    # heat: 3 N·m/mm³ · 0.4 / 0.004 = 300, and the cube root of 1000 mm/s · 0.1 mm / 12.5 mm²/s = 8
    (heat.cook_temperature_rise, (3000, 0.004, 60, 0.1, 12.5), 600.0),
    (heat.zone_temperature, (620, 300, 600), 320.0),
    # a jet of 80 bar: √(2e5 · 80 / 1000) = 126.49 m/s
    (jet.jet_speed, (80, 1.0), 126.49),
    (jet.nozzle_flow, (2, 1.0, 80, 0.7), 8.344),  # 2 · 0.7 · 0.7854 mm² · 126.49 m/s
    (jet.pump_power, (21, 70, 0.7), 3.5),
    # speeds and times
    (kinematics.spindle_speed, (100 * math.pi, 100), 1000.0),
    (kinematics.cutting_speed, (1000, 100), 314.159),
    (kinematics.feed_rate, (0.2, 1000), 200.0),
    (kinematics.turning_time, (100, 0.2, 1000), 30.0),
    (kinematics.facing_time_at_fixed_speed, (100, 20, 0.2, 1000), 12.0),
    # 100 m/min · π under a clamp of 1000 1/min: constant down to Ø100, then a fixed speed to the centre
    (kinematics.facing_time, (200, 0, 100 * math.pi, 0.25, 1000), 30.0),  # 18 s from 200 to 100, 12 s from there
    (kinematics.facing_time, (80, 20, 100 * math.pi, 0.25, 1000), 7.2),  # clamped from the start
    # finish: f² / 8r = 0.16 / 3.2 mm = 50 µm, exactly 50.8
    (finish.feed_mark_height, (0.4, 0.4), 53.59),  # r − √(r² − f²/4) = 0.4 · (1 − √0.75)
    (finish.feed_mark_height, (2.0, 0.4), 400.0),  # arcs end at twice the radius
    (finish.brammertz_height, (10.0, 0.2, 0.8, 0.01), 16.0),  # 500 · 0.01 · (1 + 0.008 / 0.04)
    (finish.arithmetic_roughness, (10.0, 2.0), 5.132),
    (finish.finish_factor, (60, 1.0), 1.7),
    (finish.finish_factor, (60, 0.5), 1.575),
    *((finish.finish_factor, (v, 1.0), k) for v, k in ((20, 2.3), (30, 2.15), (90, 1.3), (120, 1.15), (160, 1.1), (500, 1.05))),
    *((finish.finish_factor, (v, 0.0), k) for v, k in ((10, 1.6), (40, 1.525), (120, 1.3), (300, 1.25))),
    (finish.minimum_chip_thickness, (0.04, 0.25), 0.01),
    (finish.minimum_chip_share, (115,), 0.235),  # half way from 30 to 200 m/min: half way from 0.32 to 0.15
    (finish.minimum_chip_share, (20,), 0.32),
    (finish.minimum_chip_share, (300,), 0.15),
    (finish.minimum_chip_share, (20, 0.0), 0.15),
    (finish.hard_turned_height, (0.39,), 0.94),  # f 0.05, rε 0.8: Rz 0.95 µm held over 20 parts (common practice)
    # a shank of 20 × 20 that stands out 40 mm: 1000 N · 64 000 / (3 · 210 000 · 13 333)
    (deflection.shank_second_moment, (20, 20), 13_333.3),
    (deflection.tool_deflection, (1000, 40, 13_333.3), 0.007619),
    (deflection.round_second_moment, (20,), 7853.98),  # π · 160 000 / 64
    (deflection.round_second_moment, (20, 10), 7363.1),  # one sixteenth less
    (deflection.part_deflection, (500, 2e-5), 0.01),
    (deflection.size_error, (0.01,), 0.02),
    # blades
    (blade.plunge_force, (1000, 1.0), 176.0),
    (blade.plunge_force, (1000, 0.1), 484.7),  # 0.176 · 10 to the 0.44
    (blade.side_force, (200, 45), 200.0),
    (blade.side_slope, (100, 20, 40, 210_000), 0.002381),  # 40 000 / 16.8e6
    (blade.side_bend, (100, 20, 40, 210_000), 0.031746),  # 800 000 / 25.2e6
    # rings
    (ring.ring_torque, (2000, 0.1, 100, 80), 90.0),  # 200 · 3600 / 8000
    (ring.feed_of_head, (0.1, 2, True), 0.2),
    (ring.feed_of_head, (0.1, 2, False), 0.1),
    (ring.feed_of_head, (0.1, 1, True), 0.1),
    # chatter
    (chatter.force_slope, (2000, 0.25), 1500.0),
    (chatter.mode_share, (0.4, 0.25), 0.1),
    (chatter.process_damping, (2.0, 1500, 0.5), 1.6726),  # 603.19 / 1500 = 0.4021; 1 / 0.5979
    # a second program at 240 m/min and 600 Hz: 3.00 mm for 2.06 with 2·10⁵ N/m; with 0.96·10⁵ the lost 0.3133 of K·µ are 0.1504
    (chatter.process_damping, (6.6667, 2000, 0.3), 1.177),
    (chatter.process_damping, (0.01, 1500, 0.5), 3.0),
    (chatter.stable_width, (10_000, 0.05, 1500, 0.1), 7.0),  # 2 · 500 · 1.05 / 150
    # the tip's height: 2 · 5 / 20 is the sine of 30°
    (tool_setting.height_angle, (5, 20), 30.0),
    (tool_setting.height_angle, (15, 20), 90.0),
    (tool_setting.effective_rake, (6, 2), 8.0),
    (tool_setting.effective_rake, (6, 2, True), 4.0),
    (tool_setting.effective_clearance, (6, 2), 4.0),
    (tool_setting.effective_clearance, (6, 2, True), 8.0),
    (tool_setting.pip_diameter, (-0.4,), 0.8),
    (tool_setting.height_size_error, (3, 8), 2.0),  # 3, 4, 5
    (tool_setting.reach_angle, (95, 80), 5.0),
    # a straight edge at 60° of a sharp corner: its chord is the edge itself; the feed turns it towards the feed
    (chip_section.chord_angle, (0.0, 2.0, 60, 1e-6), 60.0),
    (chip_section.chord_angle, (0.4, 2.0, 60, 1e-6), 55.89),  # atan(2 / 1.3547)
    (chip_section.engaged_edge, (2.0, 30, 1e-6), 4.0),
    # cos² of 60° on a sharp edge; a quarter circle of corner alone: half; with as long a square edge behind it: a quarter
    (chip_section.radial_direction, (2.0, 60, 1e-6), 0.25),
    (chip_section.radial_direction, (1.0, 90, 1.0), 0.5),
    (chip_section.radial_direction, (2.5708, 90, 1.0), 0.25),
    (chip_section.axial_direction, (2.0, 60, 1e-6), 0.75),
    (chip_section.axial_direction, (2.5708, 90, 1.0), 0.75),
    # the chip
    (curl.friction_angle, (0.4,), 35.0),
    (curl.shear_angle, (6, 36), 30.0),
    (curl.shear_angle, (-60, 50), 8.0),
    (curl.compression_ratio, (30, 0), 1.7321),  # cos 30° / sin 30°
    (curl.chip_after, (2.5, 0.2), 0.5),
    (curl.chip_strain, (0.5, 2.5), 0.1),
    (curl.fracture_strain, (0.5,), 0.045),
    (curl.chip_length, ("6.2", 2.0), 9.4),
    *(
        (curl.chip_length, (code, None), long)
        for code, long in (("7", 2), ("5.2", 40), ("2.1", 150), ("1.3", 200), ("1.1", 300), ("2.3", 300))
    ),
    # edges: half the speed at n = 0.25 lasts 16 times as long
    (life.taylor_life, (200, 1.0, 100, 0.25, 0.3, 0.3, 0.5, 2.0, 2.0, 0.2), 240.0),
    (life.taylor_life, (100, 2.0, 200, 0.25, 0.36, 0.3, 1.0, 2.0, 2.0, 0.2), 31.104),  # 15 · 1.2⁴
    (life.taylor_life, (200, 1.0, 200, 0.25, 0.3, 0.3, 0.5, 2.2, 2.0, 1.0), 21.9615),  # 15 · 1.1⁴
    (life.taylor_life, (100, 1.0, 100, 0.5, 9.0, 0.1, 1.0, 2.0, 2.0, 0.2), 25.35),  # held at 1.3² of the speed
    (spread.completion_probability, (10, 10, 4.0), 0.5),  # the median, by its name
    (spread.completion_probability, (5, 10, 2.0), 0.8409),  # 2 to the −¼
    # money
    (cost.insert_edge_cost, (10, 4, 100), 2.75),
    (cost.solid_tool_cost, (60, 5, 12), 20.0),
    (cost.operation_time, (60, 20, 3, 10), 98.0),
    (cost.operation_cost, (72, 60, 20, 3, 5, 10), 2.46),  # 98 s at 0.02 a second, and half a unit of edge
    (cost.optimum_life_for_cost, (0.25, 2, 4, 60), 18.0),
    (cost.optimum_life_for_time, (0.2, 3), 12.0),
    (kerf.bar_price_of, (20, 0, 1000, 8.0, 2.0), 5.0265),  # π · 100 mm² · 1 m · 8 = 2.513 kg
]


@pytest.mark.parametrize(("formula", "given", "by_hand"), BY_HAND, ids=lambda value: getattr(value, "__name__", ""))
def test_a_formula_at_a_point_of_a_pocket_calculator(formula: Callable[..., Any], given: tuple[Any, ...], by_hand: float) -> None:
    assert float(formula(*given)) == pytest.approx(by_hand, rel=6e-4, abs=1e-9)


def test_a_bar_cut_into_pieces() -> None:
    """3000 − 120 over 38 + 2 is 72 pieces; a bar of 60 costs 0.02 a millimetre."""
    cut = kerf.kerf(20, 0, 3000, 38, 2, 120, 60, 10_000)
    assert (cut.pieces_per_bar, cut.remnant) == (72, 120)
    assert cut.kerf_per_piece == pytest.approx(0.04)
    assert cut.kerf_per_year == pytest.approx(400)
    assert cut.bar_per_piece == pytest.approx(0.76)
    assert cut.remnant_per_piece == pytest.approx(120 * 0.02 / 72)


def test_beams_by_the_book() -> None:
    """E·I of 1e9 N·mm² over 100 mm: l³/3EI, l³/48EI and 7l³/768EI are Roark's cantilever, simple and propped beam."""
    nodes = np.linspace(0.0, 100.0, 101)
    beam = stepped_beam.Sections(nodes, np.full(100, 1e9))

    def gives(holding: Holding, at: float, **springs: float) -> float:
        return float(stepped_beam.compliance(beam, stepped_beam.Supports(holding, 100.0, **springs), np.array([at]))[0])

    assert gives(Holding.CHUCK, 100) == pytest.approx(1e6 / 3e9)
    assert gives(Holding.BETWEEN_CENTRES, 50) == pytest.approx(1e6 / 48e9)
    assert gives(Holding.CHUCK_AND_CENTRE, 50) == pytest.approx(7e6 / 768e9)
    # springs alone: jaws of 1e5 N/mm give 1e-5; a tilt of 1e9 N·mm/rad gives 100²/1e9 at the end
    assert gives(Holding.CHUCK, 100, jaw=1e5) == pytest.approx(1e6 / 3e9 + 1e-5)
    assert gives(Holding.CHUCK, 100, tilt=1e9) == pytest.approx(1e6 / 3e9 + 1e-5)
    assert gives(Holding.BETWEEN_CENTRES, 50, jaw=1e5, centre=2e5) == pytest.approx(1e6 / 48e9 + 0.25 / 1e5 + 0.25 / 2e5)
    # a centre with give takes its share as a spring beside the cantilever's own: 1/(1/3.33e-4 + k)
    assert gives(Holding.CHUCK_AND_CENTRE, 100, centre=3000) == pytest.approx(1 / (3000 + 3000))


def test_a_support_bends_the_whole_shape_as_it_holds_one_place() -> None:
    """The bow under a load agrees with the give at each place taken by itself, with one support and with two; loads swap places."""
    nodes = np.linspace(0.0, 100.0, 41)
    beam = stepped_beam.Sections(nodes, np.where(nodes[1:] < 50, 2e9, 1e9))
    for steady in (None, 40.0):
        held = stepped_beam.Supports(Holding.CHUCK_AND_CENTRE, 100.0, jaw=2e5, tilt=4e9, centre=5e4, steady=steady, steady_stiffness=8e4)
        shapes = {at: stepped_beam.deflected_shape(beam, held, at) for at in (30.0, 75.0)}
        for at, shape in shapes.items():
            assert shape[nodes == at][0] == pytest.approx(float(stepped_beam.compliance(beam, held, np.array([at]))[0]), rel=1e-6)
        assert shapes[30.0][nodes == 75.0][0] == pytest.approx(shapes[75.0][nodes == 30.0][0], rel=1e-9)  # Maxwell


def test_a_cantilever_swings_with_a_quarter_of_its_mass() -> None:
    """33/140 of the mass, Rayleigh: Ø20 × 100 of 7.85 g/cm³ weighs 0.2466 kg."""
    nodes = np.linspace(0.0, 100.0, 201)
    beam = stepped_beam.sections(nodes, np.full(200, 20.0), 210_000.0)
    swings = stepped_beam.effective_mass(beam, stepped_beam.Supports(Holding.CHUCK, 100.0), 100.0, np.full(200, 20.0), 0.0, 7.85)
    assert swings == pytest.approx(33 / 140 * 0.2466, rel=0.002)
    hollow = stepped_beam.effective_mass(beam, stepped_beam.Supports(Holding.CHUCK, 100.0), 100.0, np.full(200, 20.0), 10.0, 7.85)
    assert hollow == pytest.approx(0.75 * swings)


def test_the_clamp_joins_both_halves_of_a_face_without_a_step() -> None:
    """Constant cutting speed and fixed speed agree where they meet, so moving the inner diameter past the clamp's is smooth."""
    times = [float(kinematics.facing_time(200, d, 100 * math.pi, 0.25, 1000)) for d in (101, 100, 99)]
    assert times[0] < times[1] < times[2]
    assert times[2] - times[1] == pytest.approx(times[1] - times[0], rel=0.02)


def test_lobes_never_promise_less_than_the_worst_nor_more_near_it() -> None:
    turns = np.geomspace(0.05, 3.0, 200)
    gain, sure = chatter.lobe_gain(turns, 0.03), chatter.sure_gain(turns, 0.03)
    assert gain.min() == pytest.approx(1.0, abs=0.02)
    assert np.all(sure <= gain + 1e-9)
    assert np.all(sure >= 1.0 - 1e-9)
    assert float(chatter.lobe_gain(3.0, 0.03)) > 3 > float(chatter.lobe_gain(0.06, 0.03))  # free above the last lobe, not below many
    # the widest gap is the first lobe's: one wave in a turn, so n near 60·f_n
    middle = turns[(turns > 0.6) & (turns < 1.3)]
    assert middle[np.argmax(chatter.lobe_gain(middle, 0.03))] == pytest.approx(1.0, abs=0.12)


@pytest.mark.parametrize(
    ("gauge", "feed", "depth", "form", "verdict"),
    [
        # inside: thin side, middle, thick side; each a hair on either side of its line
        (0.8, -0.36, 0.0, "5.2", "breaks"), (0.8, -0.34, 0.0, "6.2", "breaks"), (0.8, 0.44, 0.0, "6.2", "breaks"),
        (0.8, 0.46, 0.0, "6.1", "breaks"), (1.0, 0.0, 0.0, "6.2", "breaks"),
        # outside: right of or above it the breaker is overfilled, below it the chip passes, left of it the chip is not bent
        (1.01, 0.61, 0.0, "6.1", "packs"), (1.2, 0.0, 1.01, "6.1", "packs"), (1.2, -0.51, 1.01, "2.1", "strings"),
        (1.2, 0.0, -0.61, "1.3", "strings"), (1.34, -1.2, 0.0, "2.1", "strings"), (1.36, -1.2, 0.0, "2.3", "strings"),
    ],
)  # fmt: skip
def test_the_form_of_a_chip_by_its_place(gauge: float, feed: float, depth: float, form: str, verdict: str) -> None:
    """Forms of ISO 3685, annex G; which falls where is common practice, no source: the order is what is held here."""
    found = chip_form(gauge, feed, depth, 0.5, True)
    assert (found.code, found.verdict) == (form, verdict)


def test_brittle_metals_crumble_and_ductile_ones_string_off_a_bare_edge() -> None:
    assert chip_form(3.0, -1.0, 0.0, 0.14, False).code == "7"
    assert chip_form(0.5, 0.0, 0.0, 0.16, True).code == "6.2"
    assert [chip_form(0.5, 0.0, depth, 0.31, False).code for depth in (-0.1, 0.1)] == ["1.3", "1.1"]
    assert chip_form(0.5, 0.0, 0.0, 0.29, False).code == "6.2"


@pytest.mark.parametrize(
    ("feed", "depth", "ductility", "gauge"),
    [
        (0.30, 2.0, 0.35, 0.0), (0.35, 2.0, 0.35, 0.5), (0.25, 2.0, 0.35, 0.5), (0.30, 2.5, 0.35, 0.5), (0.30, 1.5, 0.35, 0.5),
        # half as ductile: too thin and too shallow count half, too thick and too deep as much as ever; never less than 0.35 of it
        (0.25, 2.0, 0.175, 0.25), (0.30, 1.5, 0.175, 0.25), (0.35, 2.0, 0.175, 0.5), (0.30, 2.5, 0.175, 0.5), (0.25, 2.0, 0.01, 0.175),
        (0.15, 2.0, 0.9, 1.5),
    ],
)  # fmt: skip
def test_the_gauge_of_a_square_window(feed: float, depth: float, ductility: float, gauge: float) -> None:
    """0.2 to 0.4 mm/rev and 1 to 3 mm: each side is one away from the middle."""
    normals = np.array([[10.0, 0.0], [-10.0, 0.0], [0.0, 1.0], [0.0, -1.0]])
    assert float(window_gauge(feed, depth, normals, np.array([0.3, 2.0]), 1.0, 1.0, ductility)) == pytest.approx(gauge)


@pytest.mark.parametrize(
    ("material", "pressure", "factor"),
    [("C45", 4, None), ("C45", 25, 1.05), ("C45", 70, 1.1), ("C45", 0, 0.8), ("EN-GJL-250", 70, None), ("EN-GJL-250", 0, None)],
)
def test_what_coolant_does_to_the_speed(material: str, pressure: float, factor: float | None) -> None:
    """Common practice: a jet pays in steel, iron is cut dry."""
    said = speed_factors(deliver(find_material(material)), grades()["P20 CVD"], pressure, False, "clean", False)
    assert next((one.factor for one in said if one.label == "coolant"), None) == factor

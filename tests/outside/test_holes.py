"""Drilling against textbooks, standards and other libraries: torque and thrust, times, stacks, laminates, coolant, drill sizes."""

from __future__ import annotations

import subprocess
from pathlib import Path

import numpy as np
import pytest
from fluids.flow_meter import differential_pressure_meter_solver
from scipy.integrate import quad
from scipy.optimize import brentq

from cutting.mechanics import drill_body, drilling
from cutting.mechanics.jet import jet_speed, nozzle_flow
from cutting.mechanics.kinematics import spindle_speed
from cutting.mechanics.laminate import critical_thrust
from cutting.mechanics.ring import ring_torque
from cutting.operations.holes.drill.simulation import Cutting, DepthPoint, cutting_of, simulate, trace
from cutting.operations.holes.shared.reached import tolerance_width
from cutting.quantities import read_dimension
from cutting.quantities.drill_gauges import gauge_name
from cutting.tooling.drills import drill_types
from cutting.wear.drilling import drill_feeds, drill_speeds
from cutting.workpiece.fits import tolerance_grade
from cutting.workpiece.materials import find_material
from tests.core.holes import HOLE, STACK, hole, numbers_of


@pytest.mark.parametrize(("diameter", "angle", "cone"), [(6, 118, 1.80), (10, 118, 3.00), (10, 140, 1.82), (6.35, 135, 1.32)])
def test_the_length_of_a_point(diameter: float, angle: float, cone: float) -> None:
    """Plane geometry, (D/2)/tan(σ/2), reckoned by a second program."""
    assert float(drilling.cone_length(diameter, angle)) == pytest.approx(cone, abs=0.005)


def test_torque_thrust_and_power_of_a_textbook_drill() -> None:
    """Tschätsch's procedure for Ø10, f 0.2, σ 118°, kc1.1 2220, mc 0.14, 80 m/min: 7.8 N·m, 2.1 kW; lips 1342 N (second program)."""
    h = float(drilling.lip_chip_thickness(0.2, 2, 118.0))
    kc = 2220 * h**-0.14
    torque = float(ring_torque(kc, 0.2, 10.0, 0.0))
    assert (h, kc, torque) == pytest.approx((0.0857, 3131, 7.83), rel=1e-3)
    assert torque * float(spindle_speed(80.0, 10.0)) / 9549.3 == pytest.approx(2.1, rel=0.01)
    assert float(drilling.lip_thrust(kc, 0.2, 10.0, 0.0, 118.0)) == pytest.approx(1342, rel=1e-3)
    # from a web of 0.15·D outward: 97.8 % of it, as the square of the radius says
    assert float(ring_torque(kc, 0.2, 10.0, 1.5)) == pytest.approx(0.978 * torque, rel=1e-3)


@pytest.mark.parametrize(("diameter", "feed", "torque", "thrust"), [(10.0, 0.2, 11.0, 2950), (6.35, 0.1, 2.80, 1180)])
def test_the_second_model_is_shaw_and_oxfords(diameter: float, feed: float, torque: float, thrust: float) -> None:
    """Shaw & Oxford 1957, 200 HB steel: M = 25 200 f^0.8 d^1.8 in·lb, 57 500 f^0.8 d^0.8 + 625 d² lbf, in inches (from memory)."""
    assert float(drilling.oxford_torque(200.0, feed, diameter)) == pytest.approx(torque, rel=0.01)
    assert float(drilling.oxford_thrust(200.0, feed, diameter)) == pytest.approx(thrust, rel=0.01)
    inches = feed / 25.4, diameter / 25.4
    pounds = 57_500 * inches[0] ** 0.8 * inches[1] ** 0.8 + 625 * inches[1] ** 2
    assert float(drilling.oxford_thrust(200.0, feed, diameter)) == pytest.approx(pounds * 4.44822, rel=1e-4)


def test_both_models_stand_within_the_band_that_is_shown() -> None:
    """A twist drill of high-speed steel in a steel of 190 to 210 HB: Kienzle's and Shaw and Oxford's numbers are in one band."""
    from cutting.operations.registry import evaluate

    setup = hole(HOLE, tool={"drill": "jobber 8.5 HSS bright"}, settings={"cutting_speed": "22 m/min"}, feature={"diameter": "8.5 mm"})
    found = evaluate(setup).results
    for name, other in (("torque", drilling.oxford_torque), ("thrust", drilling.oxford_thrust)):
        second = float(other(setup.work.hardness, 0.18, 8.5))
        shown = found[name]
        low, high = (float(one.metric.split()[0].replace("\u202f", "")) for one in (shown.low, shown.high) if one)
        assert low <= second * 1.001
        assert high >= second * 0.999


def test_drilling_magnesium_takes_the_textbooks_power() -> None:
    """Kalpakjian & Schmid: Ø10, f 0.2, 800 1/min, 0.5 W·s/mm³: 105 W and 1.25 N·m. The specific energy is kc/1000."""
    torque = float(ring_torque(500.0, 0.2, 10.0, 0.0))
    assert torque == pytest.approx(1.25, rel=1e-6)
    assert torque * 2 * np.pi * 800 / 60 == pytest.approx(105, rel=0.01)


def test_the_time_of_a_through_hole_is_the_textbooks() -> None:
    """Groover: Ø20, 118°, 15 mm, 0.5 m/s, f 0.22: 7.96 turns a second; depth and point allowance at feed, 12.0 s.

    The book's allowance is half of the diameter over tan(σ/2); approach and overrun are ours and taken off.
    """
    n = float(spindle_speed(30.0, 20.0)) / 60
    cone = float(drilling.cone_length(20.0, 118.0))
    assert n == pytest.approx(7.96, abs=0.01)
    assert (15.0 + cone) / (0.22 * n) == pytest.approx(12.0, abs=0.05)
    x = numbers_of(HOLE, settings={"cutting_speed": "90 m/min"})
    rate = float(x.feed_rate.ravel()[0]) / 60
    own = float(x.engaged_time.ravel()[0])
    assert own - 2.0 / rate == pytest.approx((30.0 + x.setup.drill.cone) / rate, rel=1e-9)  # 1 mm before and 1 mm behind the metal


@pytest.mark.parametrize(
    ("modulus", "poisson", "energy", "uncut", "thrust"),
    [(16_000, 0.3, 250, 0.25, 42.5), (16_000, 0.3, 250, 0.125, 15.0), (20_000, 0.15, 700, 0.5, 217)],
)
def test_the_thrust_that_parts_plies(modulus: float, poisson: float, energy: float, uncut: float, thrust: float) -> None:
    """Hocheng & Dharan 1990, π·√(8·G·E·h³/(3(1−ν²))): three points reckoned by a second program."""
    assert float(critical_thrust(energy, modulus, uncut, poisson)) == pytest.approx(thrust, rel=0.005)


def test_plies_part_where_the_strain_energy_pays_for_the_crack() -> None:
    """The same law from its balance: a clamped plate of radius a under P gives w = P·a²/(16·π·D), and G·2·π·a = dU/da."""
    modulus, poisson, energy, uncut = 16_000.0, 0.3, 250.0, 0.5
    stiff = modulus * uncut**3 / (12 * (1 - poisson**2))

    def balance(load: float, a: float = 3.0) -> float:
        def strain(radius: float) -> float:
            return load**2 * radius**2 / (32 * np.pi * stiff)

        release = (strain(a + 1e-4) - strain(a - 1e-4)) / 2e-4
        return release - energy / 1000 * 2 * np.pi * a

    found = brentq(balance, 1.0, 5000.0)
    assert float(critical_thrust(energy, modulus, uncut, poisson)) == pytest.approx(found, rel=1e-3)


@pytest.mark.parametrize(("pressure", "litres"), [(20.0, 9.4), (40.0, 13.3)])
def test_two_coolant_holes_carry_what_bernoulli_says(pressure: float, litres: float) -> None:
    """Two holes of 1.5 mm, Cd 0.7 (second program); and jet speed √(2·p/ρ)·Cv, 87 m/s at 40 bar."""
    assert float(nozzle_flow(2, 1.5, pressure, 0.7)) == pytest.approx(litres, abs=0.06)
    assert float(jet_speed(40.0)) == pytest.approx(87, abs=0.5)


def test_an_orifice_flows_as_a_library_of_fluids_has_it() -> None:
    """`fluids` 1.3, ISO 5167 orifice in a wide pipe: the discharge coefficient of a sharp hole is about 0.6, ours for a drilled one 0.7."""
    mass = differential_pressure_meter_solver(
        D=0.2, D2=0.0105, P1=21e5, P2=1e5, rho=1000.0, mu=1e-3, k=1.3, meter_type="ISO 5167 orifice", taps="corner", epsilon_specified=1.0
    )
    litres = mass / 1000.0 * 60_000
    sharp = float(nozzle_flow(1, 10.5, 20.0, 0.6))
    assert sharp == pytest.approx(litres, rel=0.03)


UNITS = Path("/usr/bin/units")  # a check beside the others, where it is there


@pytest.mark.parametrize("name", [*range(1, 81, 7), *"AFKQZ"] if UNITS.exists() else [])
def test_drill_sizes_are_those_of_gnu_units(name: int | str) -> None:
    """GNU units, drillgauge(n) and drillA to drillZ."""
    asked, typed = (f"drillgauge({name})", f"#{name}") if isinstance(name, int) else (f"drill{name}", f"letter {name}")
    said = subprocess.run([str(UNITS), "-t", asked, "mm"], capture_output=True, text=True, check=True).stdout
    assert read_dimension(typed).nominal == pytest.approx(float(said), abs=2e-4)
    assert gauge_name(float(said)).split()[-1] == str(name)


@pytest.mark.parametrize("grade", [6, 7, 8, 9, 10, 11, 12])
@pytest.mark.parametrize("diameter", [2.0, 5.0, 8.5, 15.0, 25.0, 40.0, 60.0])
def test_a_grade_between_two_lies_where_iso_286_has_its_neighbours(diameter: float, grade: int) -> None:
    """ISO 286-1 rounds i = 0.45·∛D + 0.001·D: the continuous width stays within 8 % of its table up to IT12, 14 % below 3 mm."""
    assert float(tolerance_width(diameter, grade)) == pytest.approx(tolerance_grade(diameter, grade), rel=0.14 if diameter < 3 else 0.08)


def test_a_slender_drill_buckles_as_eulers_column_does() -> None:
    """Fixed at one end and guided at the other: the first root of tan x = x, 4.4934, squared; by quadrature of the beam here."""
    root = brentq(lambda x: np.tan(x) - x, 4.4, 4.55)
    inertia = float(drill_body.drill_second_moment(6.0))
    assert inertia == pytest.approx(0.15 * np.pi / 64 * 6.0**4)  # the share of the fluted body is common practice
    force = float(drill_body.buckling_force(210_000.0, inertia, 100.0))
    assert force == pytest.approx(root**2 * 210_000 * inertia / 100.0**2, rel=1e-4)
    assert force / float(drill_body.buckling_force(210_000.0, inertia, 200.0)) == pytest.approx(4.0)


def test_a_floor_bends_as_roarks_plate() -> None:
    """Roark, clamped circular plate with a load at its middle: P·a²/(16·π·D)."""
    stiff = 71_000 * 2.0**3 / (12 * (1 - 0.09))
    assert float(drill_body.floor_deflection(800.0, 30.0, 71_000.0, 2.0)) == pytest.approx(800 * 30**2 / (16 * np.pi * stiff))


def test_the_stack_integral_is_the_closed_form_for_one_layer() -> None:
    """Fully engaged in one layer every ring is in it: kc·f·D²/8000 and half of kc·f·D/2·sin(σ/2) with its chisel."""
    x = numbers_of()
    point, cutting = cutting_of(x)
    depth = np.array([x.setup.drill.cone + 5.0])
    thrust, torque, margin = trace(depth, point, x.layers.near, x.layers.far, cutting)
    assert torque[0] == pytest.approx(float(x.lip_torque.ravel()[0]))
    assert thrust[0] == pytest.approx(float(x.lip_thrust.ravel()[0]) * (1 + x.setup.drill.chisel_share))
    # margins: the limit's number at the end of the layer, five thirtieths of it here
    assert margin[0] == pytest.approx(float(x.margin_torque.ravel()[0]) * 5 / 30)


@pytest.mark.parametrize("tip", [0.4, 1.0, 1.7, 2.6, 5.0])
def test_at_every_depth_the_rings_add_up_to_the_integral_along_the_lip(tip: float) -> None:
    """Quadrature along the lip, each element with the layer that it is in: kc·f·r dr for torque, its axial half for thrust."""
    near, far, forces = np.array([0.0, 1.0, 1.8]), np.array([1.0, 1.8, 6.0]), np.array([300.0, 900.0, 120.0])
    point = DepthPoint(4.0, 0.0, 0.0, float(np.tan(np.radians(59))))
    thrust, torque, _ = trace(np.array([tip]), point, near, far, Cutting(forces, 0.43, 0.0, np.zeros(3)))

    def force(r: float) -> float:
        z = tip - r / point.tangent
        inside = [f for a, b, f in zip(near, far, forces, strict=True) if a <= z < b]
        return float(inside[0]) if inside else 0.0

    bends = [(tip - z) * point.tangent for z in (*near, *far)]
    breaks = [r for r in bends if 0 < r < 4.0]
    assert torque[0] == pytest.approx(quad(lambda r: force(r) * r / 1000, 0, 4.0, points=breaks)[0], rel=1e-6)
    assert thrust[0] == pytest.approx(0.43 * quad(force, 0, 4.0, points=breaks)[0], rel=1e-6)


def test_two_layers_under_a_flat_point_are_one_after_the_other() -> None:
    """With a flat point the whole lip is in one layer at a time: a step from the closed form of one to that of the other."""
    near, far, forces = np.array([0.0, 2.0]), np.array([2.0, 5.0]), np.array([300.0, 900.0])
    flat = DepthPoint(5.0, 0.0, 0.0, 1e6)
    thrust, torque, _ = trace(np.array([1.0, 1.99, 2.01, 4.0]), flat, near, far, Cutting(forces, 0.5, 0.0, np.zeros(2)))
    assert torque == pytest.approx(np.array([300, 300, 900, 900]) * 25 / 2000, rel=1e-4)
    assert thrust == pytest.approx(np.array([300, 300, 900, 900]) * 5 * 0.5, rel=1e-4)


STARTS = [
    # common practice, rows of handbooks from memory: feed over diameter and speed against the turning row
    ("twist drill", "hss", "C45", 10.0, (0.18, 0.25), (21.0, 24.0)),
    ("twist drill", "carbide", "C45", 10.0, (0.18, 0.28), (96.0, 132.0)),
    ("twist drill", "carbide", "X5CrNi18-10", 10.0, (0.10, 0.16), (64.0, 88.0)),
    ("twist drill", "hss", "Ti-6Al-4V", 10.0, (0.10, 0.13), (8.4, 9.6)),
    ("twist drill", "carbide", "EN AW-6082 T6", 10.0, (0.25, 0.40), (210.0, 300.0)),
    ("indexable drill", "carbide", "C45", 25.0, (0.06, 0.14), (168.0, 240.0)),
    ("indexable drill", "carbide", "EN-GJL-250", 40.0, (0.10, 0.20), (182.0, 260.0)),
    ("head drill", "carbide", "C45", 20.0, (0.33, 0.51), (96.0, 120.0)),
]


@pytest.mark.parametrize(("kind", "tool_class", "metal", "diameter", "feeds", "speeds"), STARTS)
def test_starting_values_are_the_trades(
    kind: str, tool_class: str, metal: str, diameter: float, feeds: tuple[float, float], speeds: tuple[float, float]
) -> None:
    made, material = drill_types()[kind, tool_class], find_material(metal)
    low, high, _ = drill_speeds(made, tool_class, material) or (0.0, 0.0, None)
    assert drill_feeds(made, diameter, material) == pytest.approx(feeds, rel=0.01)
    assert (low, high) == pytest.approx(speeds, rel=0.01)


@pytest.mark.parametrize(
    ("kind", "tool_class", "metal"),
    [("twist drill", "pcd", "C45"), ("gun drill", "carbide", "GFRP"), ("twist drill", "hss", "X20Cr13 hardened 50 HRC")],
)
def test_nobody_runs_these_drills(kind: str, tool_class: str, metal: str) -> None:
    # common practice: no starting value, so no advice
    made, material = drill_types()[kind, tool_class], find_material(metal)
    assert drill_feeds(made, 10.0, material) is None or drill_speeds(made, tool_class, material) is None


def test_a_flute_cannot_store_what_a_hole_makes() -> None:
    """Ø10 × 50 at a bulk of 5 makes 19.6 cm³ of loose chips against 2.0 cm³ of flute (second program): chips must flow."""
    loose, flute = 5 * np.pi / 4 * 100 * 50 / 1000, 0.5 * np.pi / 4 * 100 * 50 / 1000
    assert (loose, flute) == pytest.approx((19.6, 2.0), abs=0.05)
    x = numbers_of(HOLE, settings={"coolant": "flood"}, feature={"depth": "42 mm"})
    assert float(x.packing.max()) > 1.0  # five diameters of steel from outside: this drill packs
    assert float(numbers_of(HOLE, feature={"depth": "42 mm"}).packing.max()) < float(x.packing.max())


def test_a_trace_of_the_panel_goes_through_its_layers_in_order() -> None:
    """Thrust in stainless stands above that in laminate and aluminium, whose specific forces are a third of it (Kienzle)."""
    run = simulate(numbers_of(STACK))
    cone = run.depth[-1] - 13.0 - 1.0
    at = [float(np.interp(z, run.depth, run.thrust)) for z in (2.0 + cone, 5.5 + cone, 11.0)]
    assert at[1] > 2.0 * at[0]
    assert at[1] > 2.0 * at[2]
    assert run.thrust.min() >= 0
    assert run.torque.min() >= 0
    assert run.thrust[0] == 0.0
    assert run.thrust[-1] == pytest.approx(0.0, abs=0.02 * run.thrust.max())

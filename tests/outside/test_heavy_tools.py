"""Heavy boring tools against closed forms, the balancing standard, a frame library, and what the trade weighs."""

from __future__ import annotations

import itertools
import math

import pytest
from Pynite import FEModel3D
from scipy.integrate import quad

from cutting.machine.machines import machines
from cutting.mechanics import rotor
from cutting.operations.holes.heavy_bore.rebuild import carriers
from cutting.operations.registry import evaluate_quickly
from cutting.sizing.warmth import growth
from cutting.tooling.heavy.bending import BodyBending
from cutting.tooling.heavy.solids import Lump, Segment, body_material, mass_of
from cutting.workpiece.fits import tolerance_grade
from tests.core.heavy import heavy, limits_of, numbers_of

STEEL, CARBIDE = (body_material(name, "") for name in ("steel", "carbide"))


def rod(diameter: float, long: float, metal=STEEL, bore: float = 0.0, start: float = 0.0) -> Segment:  # type: ignore[no-untyped-def]
    return Segment("rod", start, long, diameter, bore, metal)


@pytest.mark.parametrize(("name", "mass", "moment", "lever"), [("cup-tool", 10.5, 13.0, 126), ("cup-tool-light", 9.5, 11.0, 118)])
def test_what_such_tools_weigh(name: str, mass: float, moment: float, lever: float) -> None:
    """Common practice, no source: 10.5 kg with 13 N·m, 9.5 kg with 11 N·m, of plausible solids."""
    whole = heavy(name).heavy_tool.whole
    assert (whole.mass, float(numbers_of(name).moment[0]), whole.lever) == pytest.approx((mass, moment, lever), rel=0.02)
    assert evaluate_quickly(heavy(name)).feasible


def test_the_same_in_solid_steel_falls_out_of_the_changer() -> None:
    """Common practice, no source: 20 to 25 kg, which a gripper of 10 to 15 N·m does not hold."""
    setup = heavy("cup-tool-solid")
    assert 20 <= setup.heavy_tool.whole.mass <= 25
    assert {"changer_mass", "changer_moment"} <= {name for name, one in limits_of("cup-tool-solid").items() if one.broken}
    assert not any(one.carries for one in carriers(setup, machines()))


@pytest.mark.parametrize(("mass", "lever", "moment"), [(10.5, 126.0, 13.0), (9.5, 118.0, 11.0), (1.0, 1000.0, 9.81)])
def test_tilting_moment(mass: float, lever: float, moment: float) -> None:
    """m·g·x."""
    assert float(rotor.tilting_moment(mass, lever)) == pytest.approx(moment, rel=5e-3)


@pytest.mark.parametrize(("mass", "seconds"), [(20.0, 0.63), (10.0, 0.316)])
def test_spin_up_of_a_disc(mass: float, seconds: float) -> None:
    """Textbook: J = m·r²/2 at r 110 mm, to 3000 1/min at 60 N·m."""
    disc = Segment("disc", 0.0, mass / (7.85e-6 * math.pi * 110.0**2), 220.0, 0.0, STEEL)
    assert disc.mass == pytest.approx(mass)
    assert disc.inertia == pytest.approx(mass * 0.110**2 / 2)
    assert float(rotor.spin_up_time(disc.inertia, 3000.0, 60.0)) == pytest.approx(seconds, rel=0.01)


@pytest.mark.parametrize(("grade", "speed", "permits"), [(6.3, 10_000, 6.0), (2.5, 8000, 2.98), (6.3, 950, 63.3)])
def test_unbalance_by_the_standard(grade: float, speed: float, permits: float) -> None:
    """ISO 21940-11, from memory: U_per/m = 9549·G/n; the last from its diagram, G 6.3 at 950 1/min."""
    assert float(rotor.permissible_unbalance(grade, speed, 1.0)) == pytest.approx(permits, rel=0.01)


def test_the_grade_is_the_speed_of_the_centre_of_gravity() -> None:
    """ISO 21940-11: G = e·ω, so the force at the permitted unbalance is m·G·ω."""
    omega = 2 * math.pi * 3000 / 60
    unbalance = float(rotor.permissible_unbalance(6.3, 3000.0, 10.0))
    assert float(rotor.unbalance_force(unbalance, 3000.0)) == pytest.approx(10.0 * 6.3e-3 * omega, rel=1e-3)


def test_a_tube_and_arms_against_integration() -> None:
    """Inertia by quadrature over radius; arms as bars of their width."""
    tube = Segment("tube", 0.0, 100.0, 90.0, 70.0, STEEL)
    ring, _ = quad(lambda r: 2 * math.pi * r**3 * 100.0 * 7.85e-6, 35.0, 45.0)
    assert tube.inertia == pytest.approx(ring * 1e-6, rel=1e-9)
    arms = Segment("arms", 0.0, 20.0, 200.0, 90.0, STEEL, 1.0, 3, 30.0)
    along, _ = quad(lambda r: r**2, 45.0, 100.0)
    bars = 3 * 20.0 * 7.85e-6 * (30.0 * along + 55.0 * 30.0**3 / 12.0)
    assert arms.inertia == pytest.approx(bars * 1e-6, rel=1e-6)
    assert arms.mass == pytest.approx(3 * 30 * 55 * 20 * 7.85e-6)


@pytest.mark.parametrize(("metal", "long", "hertz"), [(STEEL, 100.0, 1809.0), (STEEL, 200.0, 452.0), (CARBIDE, 150.0, 983.0)])
def test_first_bending_frequency_of_a_cantilever(metal, long: float, hertz: float) -> None:  # type: ignore[no-untyped-def]
    """Textbook: 1.8751²/(2π)·√(E·I/(ρ·A·l⁴)); Ø25."""
    closed = 1.8751**2 / (2 * math.pi) * math.sqrt(metal.elastic_modulus * 25.0**2 / 16 / (metal.density * 1e-9 * long**4))
    assert closed == pytest.approx(hertz, rel=2e-3)
    assert BodyBending([rod(25.0, long, metal)], [], 0.0).frequency() == pytest.approx(closed, rel=1e-3)


def test_a_mass_at_the_end_of_a_rod() -> None:
    """Rayleigh: √(3·E·I/((M + 0.243·m)·l³))."""
    bar = rod(40.0, 200.0)
    stiff = 3 * STEEL.elastic_modulus * math.pi / 64 * 40.0**4 / 200.0**3
    closed = math.sqrt(stiff * 1e3 / (5.0 + 0.2427 * bar.mass)) / (2 * math.pi)
    assert BodyBending([bar], [Lump("head", 5.0, 200.0)], 0.0).frequency() == pytest.approx(closed, rel=3e-3)


def test_a_seat_that_tilts() -> None:
    """A stiff rod on a spring that tilts: √(k/J), J of a rod about its end."""
    bar = Segment("bar", 0.0, 200.0, 80.0, 0.0, STEEL)
    inertia = bar.mass * 0.2**2 / 3 + bar.mass * 0.04**2 * 0
    closed = math.sqrt(50e3 / inertia) / (2 * math.pi)
    assert BodyBending([bar], [], 0.0, 50.0).frequency() == pytest.approx(closed, rel=0.02)


@pytest.mark.parametrize("where", [90.0, 140.0, 200.0])
def test_a_stepped_tool_bends_as_a_frame_library_says(where: float) -> None:
    """PyNiteFEA 3.2 as the oracle: a tube of 90/78 over 120 mm, a nose of 58/30 over 80, pushed by 400 N."""
    solids = [Segment("tube", 0.0, 120.0, 90.0, 78.0, STEEL), Segment("nose", 120.0, 80.0, 58.0, 30.0, STEEL)]
    model = FEModel3D()
    model.add_material("steel", 210_000, 80_000, 0.3, 7.85e-6)
    for name, outer, inner in (("tube", 90, 78), ("nose", 58, 30)):
        second = math.pi / 64 * (outer**4 - inner**4)
        model.add_section(name, math.pi / 4 * (outer**2 - inner**2), second, second, 2 * second)
    spots = sorted({0.0, 120.0, 200.0, where})
    for x in spots:
        model.add_node(f"{x:g}", x, 0, 0)
    for a, b in itertools.pairwise(spots):
        model.add_member(f"{a:g}", f"{a:g}", f"{b:g}", "steel", "tube" if b <= 120 else "nose")
    model.def_support("0", True, True, True, True, True, True)
    model.add_node_load(f"{where:g}", "FY", -400.0)
    model.analyze_linear()
    bent = -model.nodes["200"].DY["Combo 1"]
    assert BodyBending(solids, [], 0.0).given(400.0, where, 200.0) == pytest.approx(bent, rel=2e-3)


def test_a_warm_bore_in_aluminium() -> None:
    """ISO 1 and ISO 286: Ø200 grows 48 µm for 10 K (α 23.8), its IT6 is 29 µm."""
    assert 1000 * float(growth(200.0, 23.8, 30.0)) == pytest.approx(47.6, abs=0.5)
    assert 1000 * tolerance_grade(200.0, 6) == pytest.approx(29.0)
    said = evaluate_quickly(heavy(settings={"temperature": "34"}))
    assert any(one.name == "warm" for one in said.warnings)


def test_centre_of_gravity_of_two_rods() -> None:
    """Textbook: masses and their moments add up."""
    a, b = rod(20.0, 100.0), rod(40.0, 50.0, start=100.0)
    whole = mass_of([a, b], [Lump("head", 1.0, 160.0, 30.0)])
    weight = [math.pi / 4 * 20**2 * 100 * 7.85e-6, math.pi / 4 * 40**2 * 50 * 7.85e-6, 1.0]
    assert whole.mass == pytest.approx(sum(weight))
    assert whole.lever == pytest.approx((weight[0] * 50 + weight[1] * 125 + 160) / sum(weight))


@pytest.mark.parametrize(("pushed", "seen"), [(37.3, 61.9), (61.9, 37.3), (12.0, 99.0)])
def test_between_its_nodes_it_bends_as_a_cantilever(pushed: float, seen: float) -> None:
    """Roark: a load anywhere, F·a²·(3x − a)/(6EI); and what one place does to another the other does to it (Maxwell)."""
    second = math.pi / 64 * 25.0**4
    near, far = sorted((pushed, seen))
    closed = 500.0 * near**2 * (3 * far - near) / (6 * STEEL.elastic_modulus * second)
    assert BodyBending([rod(25.0, 100.0)], [], 0.0).given(500.0, pushed, seen) == pytest.approx(closed, rel=1e-6)


def test_a_pass_and_a_change_take_their_time() -> None:
    """Groover: T = L/(f·n); chip to chip is the changer, and the spindle down and up."""
    x = numbers_of()
    way = 25.0 + 2.0  # the bore's length and the run-in
    assert float(x.engaged_time[0]) == pytest.approx(60 * way / (0.2 * float(x.spindle_speed[0])), rel=0.01)
    assert float(x.chip_to_chip[0]) == pytest.approx(4.0 + 2 * float(x.spin_up[0]))


def test_what_pushes_a_step_aside() -> None:
    """Common practice, no source: one edge pushes inward with about a third of its force, two leave a tenth of that between them."""
    moved = {}
    for edges in (1, 2):
        x = numbers_of(steps={1: {"inserts": edges}})
        at = x.setup.steps[1].at
        moved[edges] = float(x.moved[1]) / x.setup.heavy_tool.bending.given(float(x.cutting_force[1]), at, at)
    assert 0.3 < moved[1] < 0.42
    assert 0.05 < moved[2] / moved[1] < 0.15

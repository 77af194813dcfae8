"""Boring against beams by textbook and by a library, frequencies in closed form, handbook times and the standard's sizes."""

from __future__ import annotations

import math

import numpy as np
import pytest
from Pynite import FEModel3D

from cutting.mechanics.chatter import natural_frequency
from cutting.mechanics.deflection import round_second_moment, tool_deflection
from cutting.mechanics.thin_ring import lobing
from cutting.mechanics.tool_setting import effective_clearance, effective_rake
from cutting.operations.holes.bore.limits import jaw_lobes
from cutting.operations.turned.case import SWINGING
from cutting.sizing.warmth import growth
from cutting.tooling.bars import BODIES, CARBIDE, HEAVY_METAL, STEEL, BarBody
from cutting.tooling.designations.holder_code import BAR_TYPES
from cutting.workpiece.materials import find_material
from tests.core.bores import bore, cut_of


@pytest.mark.parametrize(("body", "long", "micrometres"), [(STEEL, 100, 8.3), (CARBIDE, 150, 9.8), (HEAVY_METAL, 125, 10.3)])
def test_how_far_a_bar_gives(body: BarBody, long: float, micrometres: float) -> None:
    # cantilever with an end load, Roark: Ø25 under 100 N; E of carbide and heavy metal from memory
    found = 1000 * float(tool_deflection(100.0, long, round_second_moment(25.0), body.modulus))
    assert found == pytest.approx(micrometres, abs=0.06)


@pytest.mark.parametrize(("body", "long"), [(STEEL, 100.0), (CARBIDE, 150.0), (HEAVY_METAL, 80.0)])
def test_how_fast_a_bar_swings(body: BarBody, long: float) -> None:
    # Blevins, cantilever: f = 1.8751²/(2π·L²)·√(EI/ρA); steel Ø25 × 100 swings at 1809 Hz, carbide Ø25 × 150 at 1000
    area, moment = math.pi * 25.0**2 / 4.0, float(round_second_moment(25.0))
    line = body.density * 1e-9 * area  # t/mm
    exact = 1.8751**2 / (2 * math.pi * long**2) * math.sqrt(body.modulus * moment / line)
    stiffness = 1.0 / tool_deflection(1.0, long, moment, body.modulus)
    found = float(natural_frequency(stiffness, body.density * 1e-6 * area * long * SWINGING))
    assert found == pytest.approx(exact, rel=0.005)
    if body is not HEAVY_METAL:
        assert exact == pytest.approx({100.0: 1809.0, 150.0: 1000.0}[long], rel=0.01)


def test_a_bar_in_its_sleeve_against_a_beam_library() -> None:
    # PyNiteFEA 3.2 as the oracle: Ø25 steel, 65 mm out, on a spring as stiff as the post, pushed off by the cut's own force
    x = cut_of()
    machine, push = x.setup.machine, float(np.ravel(x.passive_force)[-1])
    model = FEModel3D()
    model.add_material("steel", 210_000, 80_000, 0.3, 7.85e-6)
    moment = float(round_second_moment(25.0))
    model.add_section("bar", math.pi * 25.0**2 / 4, moment, moment, 2 * moment)
    model.add_node("sleeve", 0, 0, 0)
    model.add_node("tip", x.setup.overhang, 0, 0)
    model.add_member("bar", "sleeve", "tip", "steel", "bar")
    model.def_support("sleeve", True, False, True, True, True, True)
    model.def_support_spring("sleeve", "DY", machine.post_stiffness * machine.rigidity * 1e3)
    model.add_node_load("tip", "FY", -push)
    model.analyze_linear()
    part = float(x.case.beam.spring(np.array([1e6]), np.array([1e6]))[0])
    bar = float(np.ravel(x.size_error)[-1]) / 2.0 - push * part
    assert bar == pytest.approx(-model.nodes["tip"].DY["Combo 1"], rel=0.002)


def test_how_long_a_bore_takes() -> None:
    # Groover, Fundamentals of Modern Manufacturing: T = π·D·L/(v·f), boring as turning, on the finished diameter
    x = cut_of(feature={"start_diameter": "61 mm"})
    speed, feed, way = 240_000.0, 0.1, 60.0
    seconds = 60 * math.pi * x.setup.target_diameter * way / (speed * feed)
    run_in = 62.0 / 60.0  # 2 mm at feed in front of the bore
    assert float(x.pass_seconds.sum()) == pytest.approx(seconds * run_in, rel=0.01)


@pytest.mark.parametrize(("fit", "upper"), [("62 H7", 0.030), ("62 H6", 0.019), ("60 H8", 0.046), ("90 H7", 0.035)])
def test_the_bore_ends_in_its_zone(fit: str, upper: float) -> None:
    # ISO 286-2, limits of holes: H from its size upwards
    setup = bore(feature={"end_diameter": fit})
    size = setup.feature.end_diameter
    assert (size.lower_deviation, size.upper_deviation) == (0.0, pytest.approx(upper))
    assert setup.target_diameter == pytest.approx(size.nominal + upper / 2)


@pytest.mark.parametrize(("metal", "diameter", "warmer", "micrometres"), [("EN AW-6082", 200.0, 10.0, 47.0), ("C45", 62.0, 10.0, 7.1)])
def test_a_warm_bore_measures_wider(metal: str, diameter: float, warmer: float, micrometres: float) -> None:
    # handbook expansion: aluminium 23.5, steel 11.5 µm a metre and kelvin; more than IT6 of Ø200, 29 µm
    found = 1000.0 * float(growth(diameter, find_material(metal).expansion, 20.0 + warmer))
    assert found == pytest.approx(micrometres, rel=0.05)


@pytest.mark.parametrize("height", [0.3, -0.3])
def test_a_tip_off_centre_turns_the_planes_the_other_way_inside(height: float) -> None:
    # ISO 3002-1, working angles: above centre inside takes rake and gives clearance
    x = cut_of(settings={"centre_height": f"{height} mm"})
    theta = math.degrees(math.asin(2 * height / float(np.ravel(x.diameter)[-1])))
    rake, clearance = (float(np.ravel(one)[-1]) for one in (x.cutter.rake, x.cutter.clearance))
    assert float(np.ravel(x.effective_rake)[-1]) == pytest.approx(float(effective_rake(rake, theta, inside=True)), abs=1e-6)
    assert float(np.ravel(x.effective_clearance)[-1]) == pytest.approx(float(effective_clearance(clearance, theta, inside=True)), abs=1e-6)


def test_every_letter_of_a_bar_has_a_body() -> None:
    # ISO 6261 (from memory): S A steel, B D damped, C E carbide, F G damped carbide, H J heavy metal
    assert set(BODIES) == set(BAR_TYPES)
    # a damper in the head changes neither metal: E and density are the plain bar's, and it damps several times as well
    for damped, plain in (("B", "S"), ("F", "C")):
        assert (BODIES[damped].modulus, BODIES[damped].density) == (BODIES[plain].modulus, BODIES[plain].density)
        assert BODIES[damped].damping > 3 * BODIES[plain].damping
    # ASTM B777, class 1 (from memory): tungsten heavy metal of 90 % weighs 16.85 to 17.25, of 95 % 17.75 to 18.35 g/cm³
    assert 16.85 <= HEAVY_METAL.density <= 18.35
    for letter, words in BAR_TYPES.items():
        said = "heavy metal" if "heavy" in words else "carbide" if "carbide" in words else "steel"
        assert said in BODIES[letter].name
        assert ("damped" in words) == BODIES[letter].name.startswith("damped")


def test_how_far_jaws_press_a_ring() -> None:
    # Roark, table 9.2 (from memory): of two opposite loads the ring gives 0.149·F·R³/(E·I) under them, 0.137 across, on the diameter
    unit = {"mean_radius": 50.0, "elastic_modulus": 210_000.0, "second_moment": 500.0}
    scale = 50.0**3 / (210_000.0 * 500.0)
    assert float(lobing(1.0, **unit, jaws=2)) == pytest.approx((0.149 + 0.137) / 2 * scale, rel=0.005)
    # three jaws: 0.0159 under a jaw and 0.0143 between, on the radius
    assert float(lobing(1.0, **unit)) == pytest.approx((0.0159 + 0.0143) * scale, rel=0.005)
    assert float(lobing(1.0, **unit, jaws=6)) < 0.15 * float(lobing(1.0, **unit))  # six jaws press evenly


def test_how_far_the_jaws_press_a_carrier() -> None:
    # by hand from Roark's 0.0159 + 0.0143: Ø100 on Ø62, the machine's grip on three jaws, 20 mm of jaw and a mean radius beside it
    setup = bore()
    radius, wall = 40.504, 18.9925
    moment = (20.0 + radius) * wall**3 / 12.0
    expected = 2 * 0.0302 * setup.machine.jaw_force / 3.0 * radius**3 / (setup.work.material.elastic_modulus * moment)
    assert jaw_lobes(setup) == pytest.approx(expected, rel=0.005)


def test_a_ring_in_three_jaws_against_a_frame_library() -> None:
    # PyNiteFEA 3.2 as the oracle: a ring of 120 straight pieces, Ø100 in the middle of its wall, three loads of 1000 N
    model, count, radius, push = FEModel3D(), 120, 50.0, 1000.0
    moment = 12.0 * 5.0**3 / 12.0
    model.add_material("steel", 210_000, 80_000, 0.3, 7.85e-6)
    model.add_section("wall", 60.0 * 100, moment, moment, 1e4)  # the wall bends and hardly stretches, as in the table
    angles = [2 * math.pi * k / count for k in range(count)]
    for k, angle in enumerate(angles):
        model.add_node(f"N{k}", radius * math.cos(angle), radius * math.sin(angle), 0)
        model.def_support(f"N{k}", False, k in (0, 60), True, True, True, False)
    for k in range(count):
        model.add_member(f"M{k}", f"N{k}", f"N{(k + 1) % count}", "steel", "wall")
    model.def_support_spring("N30", "DX", 1.0)  # holds it where nothing pulls
    for k in (0, 40, 80):
        model.add_node_load(f"N{k}", "FX", -push * math.cos(angles[k]))
        model.add_node_load(f"N{k}", "FY", -push * math.sin(angles[k]))
    model.analyze_linear()

    def outward(*places: int) -> float:
        nodes = [(model.nodes[f"N{k}"], angles[k]) for k in places]
        return sum(float(n.DX["Combo 1"] * math.cos(a) + n.DY["Combo 1"] * math.sin(a)) for n, a in nodes) / len(nodes)

    pressed = outward(20, 60, 100) - outward(0, 40, 80)
    assert float(lobing(push, radius, 210_000.0, moment)) == pytest.approx(pressed, rel=0.01)

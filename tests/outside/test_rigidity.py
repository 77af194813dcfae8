"""Stepped beams and chatter against a structures library, handbook cases and simulation. Keys as in docs/sources.md."""

from __future__ import annotations

import numpy as np
import pytest
from Pynite import FEModel3D

from cutting.mechanics import chatter
from cutting.mechanics.chip_section import axial_direction, radial_direction
from cutting.mechanics.deflection import Holding
from cutting.mechanics.stepped_beam import Supports, compliance, deflected_shape, effective_mass, sections

STEEL = 210_000.0


def uniform(holding: Holding, places: list[float], diameter: float, length: float) -> np.ndarray:
    nodes = np.unique([0.0, length, *places])
    return compliance(sections(nodes, np.full(len(nodes) - 1, diameter), STEEL), Supports(holding, length), places)


@pytest.mark.parametrize(
    ("holding", "microns"), [(Holding.CHUCK, 174.6), (Holding.CHUCK_AND_CENTRE, 23.7), (Holding.BETWEEN_CENTRES, 46.6)]
)
def test_uniform_part_as_in_the_handbook(holding: Holding, microns: float) -> None:
    # roark, table 8.1 (from memory) for Ø20 × 200, 500 N at 120 from the chuck
    assert 500e3 * uniform(holding, [120.0], 20.0, 200.0)[0] == pytest.approx(microns, rel=3e-3)


def test_a_propped_part_gives_most_near_six_tenths_of_its_length() -> None:
    # roark, table 8.1: fixed at one end, supported at the other
    places = list(np.linspace(5, 195, 77))
    assert places[int(np.argmax(uniform(Holding.CHUCK_AND_CENTRE, places, 20.0, 200.0)))] / 200 == pytest.approx(0.6, abs=0.03)


def _library(nodes: list[float], diameters: list[float], supports: Supports, load_at: float) -> float:
    """The same part in PyNiteFEA 3.2: one member per step, springs where the supports give."""
    model = FEModel3D()
    model.add_material("steel", STEEL, 80_000, 0.3, 7.85e-6)
    for k, place in enumerate(nodes):
        model.add_node(f"n{k}", place, 0, 0)
    for k, diameter in enumerate(diameters):
        second = np.pi * diameter**4 / 64
        model.add_section(f"s{k}", np.pi / 4 * diameter**2, second, second, 2 * second)
        model.add_member(f"m{k}", f"n{k}", f"n{k + 1}", "steel", f"s{k}")
    clamped = supports.holding is not Holding.BETWEEN_CENTRES
    rigid = np.isinf(supports.jaw)
    model.def_support("n0", True, rigid, True, True, clamped, clamped and np.isinf(supports.tilt))
    if not rigid:
        model.def_support_spring("n0", "DY", supports.jaw)
    if clamped and not np.isinf(supports.tilt):
        model.def_support_spring("n0", "RZ", supports.tilt)
    last = f"n{len(nodes) - 1}"
    if supports.holding is not Holding.CHUCK:
        model.def_support(last, False, np.isinf(supports.centre), True, False, False, False)
        if not np.isinf(supports.centre):
            model.def_support_spring(last, "DY", supports.centre)
    if supports.steady is not None:
        seat = f"n{nodes.index(supports.steady)}"
        model.def_support(seat, False, False, True, False, False, False)
        model.def_support_spring(seat, "DY", supports.steady_stiffness)
    spot = f"n{nodes.index(load_at)}"
    model.add_node_load(spot, "FY", -1000.0)
    model.analyze()
    return float(-model.nodes[spot].DY["Combo 1"]) / 1000.0


STEPS = ([0.0, 40.0, 90.0, 130.0, 180.0, 268.0], [64.0, 57.0, 49.5, 49.5, 35.0])


@pytest.mark.parametrize("steady", [None, 130.0])
@pytest.mark.parametrize("holding", list(Holding))
def test_stepped_part_on_springs_against_a_structures_library(holding: Holding, steady: float | None) -> None:
    # PyNiteFEA 3.2 (MIT) as the oracle: real steps, jaws that give and tilt, a centre and a steady that give
    nodes, diameters = STEPS
    supports = Supports(holding, 268.0, jaw=150e3, tilt=1.5e9, centre=60e3, steady=steady, steady_stiffness=60e3)
    for load_at in (90.0, 180.0):
        found = float(compliance(sections(nodes, diameters, STEEL), supports, [load_at])[0])
        assert found == pytest.approx(_library(nodes, diameters, supports, load_at), rel=1e-6)


def test_the_bow_is_reciprocal() -> None:
    """Maxwell and Betti: the deflection at A under a load at B is that at B under the same load at A."""
    nodes = np.array(STEPS[0])
    supports = Supports(Holding.CHUCK_AND_CENTRE, 268.0, 150e3, 1.5e9, 60e3)
    beam = sections(nodes, STEPS[1], STEEL)
    assert deflected_shape(beam, supports, 90.0)[4] == pytest.approx(deflected_shape(beam, supports, 180.0)[2], rel=1e-9)


def test_swinging_mass_of_a_cantilever() -> None:
    """Rayleigh's 33/140 of the mass, and a frequency 1.5 % above the exact 3.516/2π·√(EI/ρAL⁴) (any textbook of vibration)."""
    nodes = np.linspace(0, 200, 41)
    diameters = np.full(40, 20.0)
    supports = Supports(Holding.CHUCK, 200.0)
    beam = sections(nodes, diameters, STEEL)
    mass = effective_mass(beam, supports, 200.0, diameters, 0.0, 7.85)
    whole = np.pi / 4 * 20**2 * 200 * 7.85e-6
    assert mass == pytest.approx(33 / 140 * whole, rel=1e-3)
    stiffness = 1 / float(compliance(beam, supports, [200.0])[0])
    exact = 3.516 / (2 * np.pi) * np.sqrt(STEEL * 1e6 * np.pi * 0.02**4 / 64 / (7850 * np.pi / 4 * 0.02**2 * 0.2**4))
    assert float(chatter.natural_frequency(stiffness, mass)) == pytest.approx(exact, rel=0.02)


@pytest.mark.parametrize("damping", [0.02, 0.03, 0.05])
def test_width_that_is_stable_at_every_speed(damping: float) -> None:
    # altintas-2012 and Merritt 1965 (from memory): borderline 2ζ(1+ζ) of the stiffness, which is −1/(2·min Re G)
    ratio = np.linspace(0.9, 1.4, 400_001)
    real = (1 - ratio**2) / ((1 - ratio**2) ** 2 + (2 * damping * ratio) ** 2)
    found = float(chatter.stable_width(1000.0, damping, 2000.0, 0.4)) * 2000.0 * 0.4
    assert found == pytest.approx(1000.0 * -1 / (2 * real.min()), rel=1e-4)


def _grows(width_share: float, turns_per_wave: float, damping: float) -> bool:
    """Simulates x'' + 2ζx' + x = −w·(x − x one turn ago) and tells whether a knock grows; w in units of the stiffness."""
    step = 0.02
    turn = 2 * np.pi / turns_per_wave
    back = round(turn / step)
    x = np.zeros(back + round(90 * 2 * np.pi / step))
    speed, x[back] = 0.0, 1e-3
    for k in range(back, len(x) - 1):
        acceleration = -2 * damping * speed - x[k] - width_share * (x[k] - x[k - back])
        speed += step * acceleration
        x[k + 1] = x[k] + step * speed
    early, late = x[back : back + round(20 * 2 * np.pi / step)], x[-round(20 * 2 * np.pi / step) :]
    return bool(np.abs(late).max() > np.abs(early).max())


@pytest.mark.parametrize("turns_per_wave", [0.23, 0.42, 0.5, 0.62, 0.95])
def test_lobes_against_a_simulated_cut(turns_per_wave: float) -> None:
    """The textbook's boundary against the delay equation itself: quiet 8 % below, singing 8 % above (semi-implicit Euler)."""
    damping = 0.05
    limit = 2 * damping * (1 + damping) * float(chatter.lobe_gain(turns_per_wave, damping))
    assert not _grows(0.92 * limit, turns_per_wave, damping)
    assert _grows(1.08 * limit, turns_per_wave, damping)


def test_a_square_sharp_edge_does_not_push_its_own_waves() -> None:
    # altintas-2012: with κr 90° and no nose a radial mode does not regenerate; a feed mode does fully
    assert float(chatter.mode_share(0.5, radial_direction(2.0, 90.0, 1e-9))) == pytest.approx(0.0, abs=1e-5)
    assert float(chatter.mode_share(0.5, axial_direction(2.0, 90.0, 1e-9))) == pytest.approx(0.5)
    assert float(chatter.sure_gain(0.03, 0.03)) == pytest.approx(1.0, abs=0.02)

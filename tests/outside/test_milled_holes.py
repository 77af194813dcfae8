"""Milled holes against geometry worked elsewhere, closed forms and a beam program: nothing here is taken from the code.

Helix, feeds and times marked "handbook" are worked examples of helical interpolation, computed by hand with the formulas of any
milling handbook; the beam is solved by PyNiteFEA.
"""

from __future__ import annotations

import itertools
import math

import numpy as np
import pytest
from Pynite import FEModel3D
from scipy.integrate import quad

from cutting.mechanics import hole_milling as milling
from tests.core.mills import numbers_of


@pytest.mark.parametrize(
    ("hole", "tool", "pitch", "angle"),
    [(30, 20, 2, 3.64), (24, 16, 1, 2.28), (20, 12, 1.5, 3.42), (24, 16, 2.20, 5.0), (24, 16, 25.13, 45.0)],
)
def test_the_ramp_of_a_helix(hole: float, tool: float, pitch: float, angle: float) -> None:
    """Handbook: atan of the pitch over the middle's way round."""
    assert float(milling.ramp_angle(pitch, hole, tool)) == pytest.approx(angle, abs=0.02)
    assert float(milling.pitch_at(angle, hole, tool)) == pytest.approx(pitch, rel=0.006)


def test_the_worked_example_of_time() -> None:
    """Handbook: Ø16 of three teeth, 0.06 mm, 120 m/min, Ø24 × 20 at a pitch of 1: 2387 1/min, 430 at the wall, 143, 211 s."""
    n = 1000 * 120 / (math.pi * 16)
    wall = float(milling.edge_feed_rate(0.06, 3, n))
    middle = float(milling.centre_feed_rate(wall, 24, 16))
    assert (n, wall, middle) == pytest.approx((2387, 430, 143), rel=2e-3)
    assert 60 * float(milling.helix_length(20, 24, 16, 1.0)) / middle == pytest.approx(211, rel=2e-3)


@pytest.mark.parametrize(("hole", "tool", "inner"), [(24, 16, 22), (40, 16, 30), (60, 20, 21), (24, 16, 18)])
def test_the_engagement_is_where_the_circles_cross(hole: float, tool: float, inner: float) -> None:
    """By looking round the tool's circle for the places that lie outside the hole that is there."""
    e, r = (hole - tool) / 2, tool / 2
    turns = np.linspace(0, math.pi, 200_001)
    out = np.hypot(e + r * np.cos(turns), r * np.sin(turns)) >= inner / 2
    assert float(milling.engagement_angle(hole, tool, inner)) == pytest.approx(math.degrees(out.mean() * math.pi), abs=0.01)


@pytest.mark.parametrize(("hole", "tool", "inner"), [(24, 16, 22), (40, 16, 30), (50, 20, 12)])
def test_chips_are_all_that_goes(hole: float, tool: float, inner: float) -> None:
    """Continuity: mean chip × arc × teeth × turns is the ring that one round takes, whatever the shape of the chip."""
    feed, teeth, n = 0.05, 4, 2000.0
    angle = float(milling.engagement_angle(hole, tool, inner))
    section = float(milling.mean_chip_thickness(feed, angle)) * math.radians(angle) * tool / 2
    rounds = feed * teeth * n / (math.pi * (hole - tool))
    assert section * teeth * n / rounds == pytest.approx(math.pi / 4 * (hole**2 - inner**2), rel=1e-9)


def test_inside_a_hole_more_is_engaged_than_on_a_flat() -> None:
    """For one width of cut: on a flat cos φ = 1 − ae/r."""
    for width in (0.5, 1.0, 2.0):
        flat = math.degrees(math.acos(1 - width / 8))
        assert float(milling.engagement_angle(24, 16, 24 - 2 * width)) > 1.3 * flat
        assert float(milling.engagement_angle(2400, 16, 2400 - 2 * width)) == pytest.approx(flat, rel=0.02)  # a wide hole is a flat


@pytest.mark.parametrize("ratio", [0.05, 0.1, 0.2])
def test_a_light_cut_has_the_book_s_mean_chip(ratio: float) -> None:
    """Handbook: h_m ≈ f_z·√(ae/d) for light cuts on a flat."""
    angle = math.degrees(math.acos(1 - 2 * ratio))
    assert float(milling.mean_chip_thickness(0.1, angle)) == pytest.approx(0.1 * math.sqrt(ratio), rel=0.06)


@pytest.mark.parametrize("climb", [True, False])
@pytest.mark.parametrize("angle", [25.0, 90.0, 180.0])
def test_the_push_off_is_the_sum_over_a_turn(angle: float, climb: bool) -> None:
    """Altintas: kc·h·b along the tooth and 0.4 of it across, turned into the wall's direction and averaged over a turn, by quadrature."""
    kc, feed, teeth, height = 2500.0, 0.04, 4, 3.0

    def off(turn: float) -> float:
        force = kc * feed * math.sin(turn) * height
        return force * (0.4 * math.cos(turn) + (1 if climb else -1) * math.sin(turn))

    whole, _ = quad(off, 0, math.radians(angle))
    assert float(milling.push_off(kc, feed, teeth, height, angle, climb)) == pytest.approx(teeth * whole / (2 * math.pi), rel=1e-6)


@pytest.mark.parametrize(("place", "at"), [(40.0, 40.0), (30.0, 40.0), (30.0, 15.0)])
def test_the_mill_bends_as_a_beam_does(place: float, at: float) -> None:
    """PyNiteFEA 3.2 as the oracle: a cantilever of 40 mm with 100 N somewhere."""
    second, modulus = float(milling.mill_second_moment(10.0, 9.5)), 580_000.0
    model = FEModel3D()
    model.add_material("carbide", modulus, 240_000, 0.22, 14e-6)
    model.add_section("body", 50.0, second, second, 2 * second)
    spots = sorted({0.0, place, at, 40.0})
    for x in spots:
        model.add_node(f"{x:g}", x, 0, 0)
    for a, b in itertools.pairwise(spots):
        model.add_member(f"{a:g} to {b:g}", f"{a:g}", f"{b:g}", "carbide", "body")
    model.def_support("0", True, True, True, True, True, True)
    model.add_node_load(f"{place:g}", "FY", -100.0)
    model.analyze_linear()
    bent = -model.nodes[f"{at:g}"].DY["Combo 1"]
    assert float(milling.bent_by(100.0, place, at, modulus, second)) == pytest.approx(bent, rel=1e-4)


def test_the_body_is_as_stiff_as_four_fifths_of_its_diameter() -> None:
    """Common practice, no source: 0.8 of the diameter over the teeth, the neck where it is thinner."""
    assert float(milling.mill_second_moment(10.0, 9.9)) == pytest.approx(math.pi / 64 * 8.0**4)
    assert float(milling.mill_second_moment(10.0, 7.0)) == pytest.approx(math.pi / 64 * 7.0**4)


def test_power_is_removal_times_specific_force() -> None:
    """Handbook: 60 cm³/min at 2000 N/mm² are 2 kW."""
    assert float(milling.milled_power(2000.0, 60_000.0)) == pytest.approx(2.0)


def test_a_milled_hole_takes_many_times_a_drilled_one() -> None:
    """Common practice, no source: minutes or at least half one, where a drill takes 4 to 8 s; it pays for pockets, not for time."""
    assert float(numbers_of().engaged_time[0]) > 60.0
    assert (
        float(
            numbers_of(tool={"mill": "mill 16 gashed K30 fine PVD"}, settings={"pitch": None, "feed_per_tooth": "0.13 mm/z"}).engaged_time[
                0
            ]
        )
        > 20.0
    )


def test_torque_of_a_power() -> None:
    """Handbook: M = 9549·P/n."""
    x = numbers_of()
    assert float(x.torque[0]) == pytest.approx(9549 * float(x.power[0]) / float(x.spindle_speed[0]), rel=1e-3)

"""Forces, beams, heat, finish and time against books, closed forms and other libraries. Keys as in docs/sources.md."""

from __future__ import annotations

import numpy as np
import pytest
from scipy.integrate import quad

from cutting.mechanics import chip_section, deflection, finish, force, grip, heat, kinematics
from cutting.workpiece.materials import find_material, materials


def test_kienzle_force_and_power_of_e295() -> None:
    # tschaetsch, worked example for E295 (from memory): kc 2721 N/mm², Fc 2449 N, 7.35 kW at 180 m/min; rounding only
    kc = force.specific_cutting_force(1990, 0.3, 0.26)
    fc = force.cutting_force(kc, chip_section.chip_area(0.3, 3.0))
    assert kc == pytest.approx(2721, rel=1e-3)
    assert fc == pytest.approx(2449, rel=1e-3)
    assert force.cutting_power(fc, 180) == pytest.approx(7.35, rel=1e-3)


def test_c45_lies_among_three_textbooks() -> None:
    # tschaetsch, koenig-essel, degner: 2628, 2298 and 2136 N/mm² for C45 at h 0.3 (from memory)
    steel = find_material("C45")
    kc = force.specific_cutting_force(steel.specific_force_1, 0.3, steel.force_exponent)
    assert 2136 * 0.995 <= kc <= 2628 * 1.005


def test_in_plane_ratio_of_e295() -> None:
    # koenig-essel: kf1.1 351/0.70, kp1.1 274/0.49, kc1.1 1990/0.26; the ratio is their quotient at any h
    h = np.array([0.05, 0.1, 0.3, 0.6])
    separate = np.hypot(351 * h**-0.70, 274 * h**-0.49) / (1990 * h**-0.26)
    assert force.in_plane_ratio(h) == pytest.approx(separate, rel=0.01)


# kalpakjian, table of energy at the drive motor (from memory), W·s/mm³; the spindle sees 0.8 of it
ENERGY = {
    "aluminium": (0.4, 1.1),
    "cast iron": (1.6, 5.5),
    "copper": (1.4, 3.3),
    "stainless": (3.0, 5.2),
    "steel": (2.7, 9.3),
    "titanium": (3.0, 4.1),
    "nickel": (4.9, 6.8),
}
FAMILY = {
    **dict.fromkeys(range(1, 12), "steel"),
    14: "stainless",
    15: "cast iron",
    16: "cast iron",
    17: "cast iron",
    21: "aluminium",
    22: "aluminium",
    23: "aluminium",
}


# leaded and free-cutting varieties are below the table by purpose
TEXTBOOK_METALS = [m for m in materials() if m.group.number in FAMILY and m.speed_factor == 1]


@pytest.mark.parametrize("material", TEXTBOOK_METALS, ids=lambda m: m.name)
def test_specific_energy_is_in_the_textbook_range(material) -> None:  # type: ignore[no-untyped-def]
    low, high = ENERGY[FAMILY[material.group.number]]
    # small chips of light turning, h 0.1 mm; a quarter for the band of Kienzle pairs
    energy = force.specific_cutting_force(material.specific_force_1, 0.1, material.force_exponent) / 1000
    assert 0.8 * low * 0.75 <= energy <= high * 1.25


def test_small_angle_thins_the_chip() -> None:
    # iso-3002-3, geometry: f 0.7 at κr 30° is as thick as 0.35 at 90°
    thin = chip_section.mean_chip_thickness(chip_section.chip_area(0.7, 3), chip_section.engaged_edge(3, 30, 0.0))
    assert thin == pytest.approx(0.35, rel=1e-6)


@pytest.mark.parametrize(("depth", "angle", "nose"), [(0.3, 95, 0.8), (2.0, 95, 0.8), (3.0, 45, 1.2), (1.5, 90, 6.0)])
def test_engaged_edge_against_integration(depth: float, angle: float, nose: float) -> None:
    """Arc length of the profile from the tip to the depth, integrated numerically (scipy)."""
    kappa = np.radians(angle)
    top = min(np.arccos(max(1 - depth / nose, -1)), kappa)
    arc, _ = quad(lambda t: nose, 0, top)
    straight = max(depth - nose * (1 - np.cos(kappa)), 0) / np.sin(kappa)
    assert chip_section.engaged_edge(depth, angle, nose) == pytest.approx(arc + straight, rel=1e-9)


def test_chord_turns_from_nose_to_edge() -> None:
    # limiting cases, colwell-1954: deep cuts push along the feed, shallow ones on a big nose push the part away
    deep = chip_section.chord_angle(0.2, 8.0, 90, 0.4)
    shallow = chip_section.chord_angle(0.1, 0.1, 90, 1.2)
    assert deep > 80
    assert shallow < 25


@pytest.mark.parametrize(("modulus", "microns"), [(210_000, 31.0), (600_000, 10.9)])
def test_round_bar_deflection(modulus: float, microns: float) -> None:
    # roark, cantilever: Ø20 × 80, 300 N: steel 31 µm, carbide (600 GPa) 10.9 µm
    found = deflection.tool_deflection(300, 80, deflection.round_second_moment(20.0), modulus)
    assert float(found) * 1000 == pytest.approx(microns, rel=0.01)


def test_cook_temperature() -> None:
    # groover, ch. 20 worked example: 353 K rise (the exponent is printed 0.333 there)
    rise = heat.cook_temperature_rise(1038, 3.0e-3, 100, 0.5, 50)
    assert float(rise) == pytest.approx(353, rel=5e-3)


def test_feed_marks() -> None:
    # groover, ch. 24: f 0.2, r 0.8: Rt 6.25 µm, Ra 1.6 µm; arcs against the parabola differ by a few parts in a thousand
    height = finish.feed_mark_height(0.2, 0.8)
    assert float(height) == pytest.approx(6.25, rel=0.005)
    assert float(finish.arithmetic_roughness(height)) == pytest.approx(1.6, rel=0.01)


def test_groover_roughness_with_its_ratio() -> None:
    # groover, ch. 24 example: r 1.2, f 0.25: Ri 1.6 µm (there f²/32r, a mean), with ratio 1.25 Ra 2.0 µm; 3 % between the two means
    height = finish.feed_mark_height(0.25, 1.2)
    assert float(finish.arithmetic_roughness(height)) == pytest.approx(1.628, rel=0.03)
    assert float(finish.arithmetic_roughness(height, 1.25)) == pytest.approx(2.035, rel=0.03)


def test_mean_over_height_of_a_row_of_parabolas() -> None:
    """RA_OF_RT against the integral of |z − mean| over one feed mark (definition of Ra, ISO 21920)."""
    mean = 1 / 3
    ra, _ = quad(lambda x: abs(x**2 - mean), 0, 1, points=[mean**0.5])
    assert pytest.approx(ra, abs=1e-4) == finish.RA_OF_RT


def test_brammertz_least_feed_and_turn_back() -> None:
    # brammertz-1961: √(2·0.8·0.01) = 0.126; below it a finer feed makes the surface rougher
    assert float(finish.least_useful_feed(0.8, 0.01)) == pytest.approx(0.126, abs=5e-4)
    heights = [float(finish.brammertz_height(finish.feed_mark_height(f, 0.8), f, 0.8, 0.01)) for f in (0.02, 0.05, 0.126, 0.2)]
    assert heights[0] > heights[1] > heights[2] < heights[3]


def test_turning_time() -> None:
    # groover, ch. 22: Ø120 × 450 at 2 m/s, f 0.25: 339.3 s
    n = kinematics.spindle_speed(120, 120)
    assert float(kinematics.turning_time(450, 0.25, n)) == pytest.approx(339.3, rel=1e-3)


def test_inch_speed() -> None:
    # common practice: Ø1.375 in at 600 rpm is 216 sfm
    assert float(kinematics.cutting_speed(600, 1.375 * 25.4)) / 0.3048 == pytest.approx(216, rel=1e-3)


@pytest.mark.parametrize(
    ("outer", "inner", "speed", "feed", "clamp"), [(50, 0, 150, 0.1, 3000), (40, 0, 300, 0.2, 1500), (100, 60, 120, 0.25, 3000)]
)
def test_facing_time_against_integration(outer: float, inner: float, speed: float, feed: float, clamp: float) -> None:
    """Closed form against ∫ dr/(f·n(r)); the cases clamp inside, clamped from the start, never clamped."""
    seconds, _ = quad(lambda r: 60 / (feed * min(1000 * speed / (np.pi * 2 * r), clamp)), max(inner / 2, 1e-9), outer / 2, limit=400)
    assert float(kinematics.facing_time(outer, inner, speed, feed, clamp)) == pytest.approx(seconds, rel=1e-4)
    if clamp == 3000 and inner == 0:
        assert seconds == pytest.approx(8.65, abs=0.01)


def test_grip_falls_with_the_square_of_speed() -> None:
    # vdi-3106 by hand: 3 jaws of 1.4 kg at 70 mm, 2000 1/min: Fc = 3·1.4·0.07·209.4² = 12 896 N of 42 000
    held = float(grip.grip_torque(0.2, 42_000, 1.4, 70, 2000, 60))
    assert held == pytest.approx(0.2 * (42_000 - 12_896) * 0.03, rel=1e-3)
    assert float(grip.grip_torque(0.2, 42_000, 1.4, 70, 5000, 60)) == 0.0

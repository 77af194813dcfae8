"""Slots against closed forms, a structures library and formulae of the books: plunges, face blades, rings, Y axis."""

from __future__ import annotations

import numpy as np
import pytest
from Pynite import FEModel3D
from scipy.integrate import quad

from cutting.mechanics import blade as blades
from cutting.mechanics.force import specific_cutting_force
from cutting.operations.registry import KINDS, evaluate
from cutting.operations.slots.face_groove.blade_fit import standing
from cutting.workpiece.ring_grooves import standard_groove
from tests.core.slots import BORE_RING, FACE, GROOVE, RING, TREPAN, TWO_CARTRIDGES, build
from tests.core.tools import find_groove_blade


def test_a_plunge_takes_the_integral_of_its_way() -> None:
    """Closed form of the trade's books, here by quadrature: ∫ dr/(f·n), constant surface speed with a clamp, and the dwell."""
    for clamp in (None, "1500", "900"):
        setup = build(RING, settings={"spindle_clamp": clamp, "dwell": 2})
        (stroke,) = KINDS["groove"].explore(setup)
        top = float(clamp or setup.machine.top_speed)

        def rate(r: float, top: float = top) -> float:
            return 60.0 / (0.06 * min(1000 * 120 / (np.pi * 2 * r), top))

        floor = setup.feature.floor.target / 2
        dwell = 2 * 60 / min(1000 * 120 / (np.pi * 2 * floor), top)
        assert stroke.seconds == pytest.approx(quad(rate, floor, 17.5)[0] + dwell, rel=1e-6)


def test_inside_a_groove_the_speed_falls_as_the_edge_goes_out() -> None:
    """At constant surface speed n = 1000·vc/(π·d) at the larger diameter: inside that is the floor."""
    inside = build(BORE_RING)
    (stroke,) = KINDS["groove"].explore(inside)
    assert stroke.spindle_speed == pytest.approx(1000 * 120 / (np.pi * inside.feature.floor.target))
    assert inside.feature.floor.nominal == 65.0  # din-472, d2 of a 62 bore, from memory


def test_plunge_and_side_force_by_hand() -> None:
    """Kienzle with Kform 1.3 in the slot and 1.0 sideways; feed force by E295's own pair, kf1.1/mf over kc1.1/mc (König & Essel)."""
    setup = build(GROOVE)
    strokes = KINDS["groove"].explore(setup)
    plunge = next(s for s in strokes if s.move.kind == "plunge")
    kc = setup.work.specific_force_1 * 0.12**-setup.work.material.force_exponent
    assert plunge.cutting_force == pytest.approx(1.3 * kc * 0.12 * 4.0)
    assert plunge.push == pytest.approx(plunge.cutting_force * (351 / 1990) * 0.12 ** (0.26 - 0.70), rel=0.01)
    turn = next(s for s in strokes if s.move.kind == "turn")
    side = specific_cutting_force(setup.work.specific_force_1, turn.feed, setup.work.material.force_exponent)
    assert turn.cutting_force == pytest.approx(float(side) * turn.feed * turn.move.engaged)
    assert turn.side_force == pytest.approx(turn.cutting_force * (351 / 1990) * turn.feed ** (0.26 - 0.70), rel=0.01)


def test_a_rolled_edge_has_the_chip_of_its_arc() -> None:
    """A full radius r at depth ap cuts over the angle φ = acos(1 − ap/r): mean chip f·ap/(r·φ), as for round inserts (Woxén)."""
    tool = {"insert": "edge 4 round middle positive K15 CVD", "blade": "screw holder 4 reach 18"}
    setup = build(GROOVE, tool=tool, settings={"way": "round path"})
    stroke = next(s for s in KINDS["groove"].explore(setup) if s.move.kind == "turn")
    reach = np.arccos(1 - stroke.move.engaged / 2.0)
    assert stroke.thickness == pytest.approx(stroke.feed * stroke.move.engaged / (2.0 * reach))
    assert stroke.thickness < 0.55 * stroke.feed


def test_a_bar_bends_as_a_beam() -> None:
    # PyNiteFEA 3.2 as the oracle: the inside bar of Ø25, 60 mm out, under its worn cutting force
    outcome = evaluate(build(BORE_RING, settings={"overhang": 60}))
    inertia = np.pi * 25**4 / 64
    model = FEModel3D()
    model.add_material("bar", 210_000 * 0.9, 80_000, 0.3, 7.85e-6)
    model.add_section("round", np.pi * 25**2 / 4, inertia, inertia, 2 * inertia)
    model.add_node("a", 0, 0, 0)
    model.add_node("tip", 60, 0, 0)
    model.add_member("m", "a", "tip", "bar", "round")
    model.def_support("a", *[True] * 6)
    model.add_node_load("tip", "FY", -1.3 * outcome.results["cutting_force"].value)
    model.analyze()
    bent = next(limit for limit in outcome.limits if limit.name == "bends_down")
    assert bent.value == pytest.approx(-model.nodes["tip"].DY["Combo 1"], rel=1e-6)


def test_a_face_blade_stands_as_two_circles_say() -> None:
    """Sagitta of a circle: a flank of radius R has come in by R − √(R² − t²) at t below the edge; by hand for Ø80 and 10 mm."""
    blade = find_groove_blade("face blade 4 dia 55 to 90")
    found = standing(blade, 4.0, 80.0)
    across = {round(-down, 6): a for a, down in found.outline[: len(found.outline) // 2]}
    depth = min(across, key=lambda t: abs(t - 10.0))
    flank = 40.0 - 0.4 - (27.5 - np.sqrt(27.5**2 - depth**2))
    assert across[depth] == pytest.approx(flank)
    assert found.outer == pytest.approx(0.4)  # half of what the edge is wider, nearest at the edge itself
    tight = standing(blade, 4.0, 50.0)
    lowest = -found.outline[len(found.outline) // 2 - 1][1]
    wall, own = np.sqrt(25.0**2 - lowest**2), 25.0 - 0.4 - (27.5 - np.sqrt(27.5**2 - lowest**2))
    assert tight.outer == pytest.approx(min(wall - own, 0.4), abs=0.05)


def test_a_ring_takes_its_share_of_solid_drilling() -> None:
    """Torque kc·f·(D² − d²)/8000 against kc·f·D²/8000 at the same feed (Tschätsch, from memory): the share of the metal."""
    for changes in ({}, {**TWO_CARTRIDGES, "settings": {"cartridges": "two on one radius"}}):
        setup = build(TREPAN, **changes)
        results = evaluate(setup).results
        outer, inner, feed = setup.outer_diameter, setup.inner_diameter, results["feed_rev"].value
        assert results["torque"].value / results["solid_torque"].value == pytest.approx(1 - (inner / outer) ** 2)
        kc = 1.3 * 1.3 * setup.work.specific_force_1 * (feed / setup.effective_edges) ** -setup.work.material.force_exponent
        assert results["torque"].value == pytest.approx(kc * feed * (outer**2 - inner**2) / 8000, rel=1e-6)
        assert results["power"].value == pytest.approx(results["torque"].value * results["spindle_speed"].value / 9549.3, rel=1e-4)
    core = np.pi / 4 * 0.1**2 * 0.03 * 2660  # kg of the disc; EN AW-5083 2.66 g/cm³ (handbook)
    assert evaluate(build(TREPAN)).results["core_mass"].value == pytest.approx(core, rel=0.02)


def test_the_y_axis_by_the_section() -> None:
    """E·A/l along the blade over 3·E·I/l³ across it, for the force that is along and the one that is across: about three here.

    Common practice, no source: about six times: the turret carries a force along the blade better, too.
    """
    out, t, h = 30.0, 2.4, 26.0
    along, across = 210_000 * t * h / out, 3 * 210_000 * t * h**3 / 12 / out**3
    expected = np.hypot(900 / across, 300 / along) / np.hypot(900 / along, 300 / across)
    assert float(blades.y_axis_gain(900.0, 300.0, out, t, h)) == pytest.approx(expected)


@pytest.mark.parametrize(
    ("name", "diameter", "width", "depth"),
    # iso-3601-2 (static, radial) and din-509 form F, read again from memory
    [("O-ring 1.78", 20, 2.4, 1.35), ("O-ring 5.33", 80, 7.1, 4.35), ("DIN 509 F", 50, 2.5, 0.3), ("DIN 509 E", 100, 4.0, 0.4)],
)
def test_standard_grooves(name: str, diameter: float, width: float, depth: float) -> None:
    groove = standard_groove(name, diameter)
    assert (groove.width, groove.depth) == (width, depth)


def test_seals_are_squeezed_as_the_trade_does() -> None:
    """Common practice, no source: a cord resting radially is squeezed by 15 to 30 %, and its groove is filled to 60 to 90 %."""
    for cord in (1.78, 2.62, 3.53, 5.33, 6.99):
        groove = standard_groove(f"O-ring {cord}", 50)
        assert groove.depth
        assert 0.15 < 1 - groove.depth / cord < 0.30
        assert 0.6 < np.pi / 4 * cord**2 / (groove.width * groove.depth) < 0.9


def test_face_feeds_are_seven_tenths() -> None:
    # starting values of the trade (common practice, no source): stainless takes the lower half, a face 0.7 of it
    limit = next(one for one in evaluate(build(FACE)).limits if one.name == "plunge_feed")
    assert (limit.lower, limit.upper) == (pytest.approx(0.7 * 0.8 * 0.08), pytest.approx(0.7 * 0.8 * 0.22))

"""The part as a body: what is left after each thing taken away, held against points that are tried one by one."""

from __future__ import annotations

import random
from dataclasses import replace

import numpy as np
import pytest

from cutting.doors.json_form import read_setup
from cutting.errors import CuttingError
from cutting.operations.registry import KINDS
from cutting.process.outline import Made, outline
from cutting.workpiece.solid import Blank, Region, Side, blank_solid, corners, radius_at, solid_after
from tests.core.slots import BORE_RING, FACE, TREPAN, form

LENGTH, RADIUS, BORE = 100.0, 30.0, 10.0


def some_region(rng: random.Random) -> Region:
    side = rng.choice([side for side in Side if side is not Side.END])
    near = rng.uniform(5, 80)
    far = near + rng.uniform(2, 30)
    match side:
        case Side.OUTSIDE:
            return Region(side, ((near, far, rng.uniform(30, 58)),))
        case Side.INSIDE:
            return Region(side, ((near, far, rng.uniform(12, 28)),))
        case Side.FACE:
            return Region(side, depth=rng.uniform(0.5, 4), inner=rng.choice([0.0, 25.0]))
        case Side.RING:
            inner = rng.uniform(12, 20)
            return Region(side, depth=rng.uniform(1, 6), inner=2 * inner, outer=2 * (inner + 3))
        case Side.BORE:
            return Region(side, depth=rng.choice([rng.uniform(5, 60), 1e6]), outer=rng.uniform(12, 28))


def metal_by_points(regions: list[Region], places: np.ndarray, radii: np.ndarray) -> np.ndarray:
    """Which points of a half section are metal, region by region: the plain definition."""
    z, r = np.meshgrid(places, radii, indexing="ij")
    metal, face = (r < RADIUS) & (r > BORE / 2) & (z < LENGTH), LENGTH
    for one in regions:
        if one.side is Side.FACE:
            face -= one.depth
            gone = (z > face) & (r > one.inner / 2)
        elif one.side is Side.RING:
            gone = (z > face - one.depth) & (z < face) & (r > one.inner / 2) & (r < one.outer / 2)
        elif one.side is Side.BORE:
            gone = (z > face - one.depth) & (r < one.outer / 2)
        else:
            (near, far, diameter), out = one.spans[0], one.side is Side.OUTSIDE
            gone = (z > near) & (z < far) & ((r > diameter / 2) if out else (r < diameter / 2))
        metal &= ~gone
    return metal


@pytest.mark.parametrize("seed", range(25))
def test_what_is_left_is_what_no_region_took(seed: int) -> None:
    rng = random.Random(seed)
    regions = [some_region(rng) for _ in range(rng.randint(1, 7))]
    part = solid_after(Blank(2 * RADIUS, LENGTH, BORE), tuple(regions))
    places, radii = np.sort([rng.uniform(0, LENGTH) for _ in range(150)]), np.sort([rng.uniform(0, RADIUS + 1) for _ in range(80)])
    metal = metal_by_points(regions, places, radii)
    for k, z in enumerate(places):
        outer, inner = radius_at(part.outside, z), radius_at(part.inside, z)
        inside = (radii < outer) & (radii > inner) & (z < part.end)
        for ring in part.rings:
            inside &= ~((ring.near < z < ring.far) & (radii > ring.inner) & (radii < ring.outer))
        assert np.array_equal(inside, metal[k]), (seed, z)
    assert part.largest(0, LENGTH) == pytest.approx(2 * max(r for _, r in part.outside))
    thinnest = min(radius_at(part.outside, z) - radius_at(part.inside, z) for z in places if z < part.face)
    assert part.wall(0, part.face) <= thinnest + 1e-9
    assert part.face <= part.end <= LENGTH


@pytest.mark.parametrize("seed", range(25))
def test_both_ends_are_machined_and_the_part_is_what_no_cut_took(seed: int) -> None:
    """The same cuts in a plain model that is mirrored point by point whenever the part is turned round."""
    rng = random.Random(seed)
    gripped, out = 40.0, 110.0
    part = blank_solid(Blank(2 * RADIUS, LENGTH, BORE, (), LENGTH + gripped))
    places, radii = np.sort([rng.uniform(-gripped, LENGTH) for _ in range(150)]), np.sort([rng.uniform(0, RADIUS) for _ in range(60)])
    regions = [(some_region(rng), rng.random() < 0.5) for _ in range(rng.randint(2, 7))]
    metal = np.ones((len(places), len(radii)), bool) & (radii > BORE / 2)
    faces = [LENGTH, out]  # of the end that was free first, and of the other, each in its own clamping
    for one, turned in regions:
        part = part.without(replace(one, around=out) if turned else one)
        told = out - gripped - places if turned else places  # the other end stands at -gripped, and 110 mm out once turned round
        z, r = np.meshgrid(told, radii, indexing="ij")
        if one.side is Side.FACE:
            faces[turned] -= one.depth
            gone = (z > faces[turned]) & (r > one.inner / 2)
        elif one.side is Side.RING:
            gone = (z > faces[turned] - one.depth) & (z < faces[turned]) & (r > one.inner / 2) & (r < one.outer / 2)
        elif one.side is Side.BORE:
            gone = (z > faces[turned] - one.depth) & (r < one.outer / 2)
        else:
            (near, far, diameter), outside = one.spans[0], one.side is Side.OUTSIDE
            gone = (z > near) & (z < far) & ((r > diameter / 2) if outside else (r < diameter / 2))
        metal &= ~gone
    for k, place in enumerate(places):
        inside = (radii < radius_at(part.outside, place)) & (radii > radius_at(part.inside, place))
        inside &= (place < part.end) & (place > part.back_end)
        for ring in part.rings:
            inside &= ~((ring.near < place < ring.far) & (radii > ring.inner) & (radii < ring.outer))
        assert np.array_equal(inside, metal[k]), (seed, place)


def test_a_part_turned_round_twice_is_the_same_part() -> None:
    part = blank_solid(Blank(60.0, 100.0, 10.0, (), 140.0)).without(Region(Side.OUTSIDE, ((30.0, 100.0, 50.0),)))
    there = part.turned_round(90.0)
    assert (there.free_length, there.face, there.butt) == (90.0, 90.0, -50.0)
    # the shoulder at 30 of 140 mm: the thin end is gripped 50 mm, the thick end is 70 long and stands out
    assert there.steps == ((0.0, 50.0), (20.0, 60.0))
    assert there.turned_round(100.0) == part
    assert part.usual_free_length == 115.0
    assert blank_solid(Blank(60.0, 30.0, 0.0, (), 36.0)).usual_free_length == 24.0
    with pytest.raises(CuttingError, match=r"stock\.length.*how long"):
        blank_solid(Blank(60.0, 100.0)).turned_round(90.0)
    with pytest.raises(CuttingError, match=r"0 to 140 mm"):
        part.turned_round(141.0)


def test_a_part_that_is_cut_off_is_turned_round_without_its_bar() -> None:
    bar = blank_solid(Blank(40.0, 60.0)).without(Region(Side.OUTSIDE, ((20.0, 60.0, 30.0),)))
    off = bar.without(Region(Side.END, ((8.0, 8.0, 0.0),), 49.0))
    assert off.kerf == (8.0, 11.0)
    assert [r for place, r in off.outline_from(0.0) if 8.0 < place < 11.0] == []
    assert (9.0 - 1.0, 0.0) in off.outline_from(0.0)
    there = off.turned_round(30.0)
    assert there.steps == ((0.0, 30.0), (21.0, 40.0))  # 9 mm of Ø40 were left behind the shoulder
    faced = off.without(Region(Side.FACE, depth=0.5, around=30.0))
    assert (faced.back, faced.face) == (11.5, 60.0)


def test_nothing_grows_back() -> None:
    rng = random.Random(7)
    part = blank_solid(Blank(2 * RADIUS, LENGTH, BORE))
    for _ in range(20):
        smaller = part.without(some_region(rng))
        assert smaller.face <= part.face
        assert all(radius_at(smaller.outside, z) <= radius_at(part.outside, z) for z in np.linspace(0, LENGTH, 60))
        assert all(radius_at(smaller.inside, z) >= radius_at(part.inside, z) for z in np.linspace(0, LENGTH, 60))
        part = smaller


def test_inside_grooves_bores_and_rings_are_in_the_drawing() -> None:
    ring, seal = read_setup(BORE_RING), read_setup(form(FACE, holding={"free_length": "70 mm"}))
    drawn = outline(Blank(90.0, 70.0, 62.0), [Made("a", ring), Made("b", seal)])
    assert max(r for _, r in drawn.inside) == pytest.approx(ring.feature.floor.target / 2)
    assert [place for place, r in drawn.inside if r > 32][:1] == [pytest.approx(ring.feature.distance_from_chuck)]
    assert len(drawn.rings) == 1
    assert {r for _, r in drawn.rings[0]} == {seal.feature.inner_diameter / 2, seal.feature.outer_diameter.target / 2}
    assert min(z for z, _ in drawn.rings[0]) == pytest.approx(70 - seal.feature.depth)
    assert outline(Blank(90.0, 70.0, 0.0), []).inside == ()
    assert KINDS["groove"].removes(ring.feature).side is Side.INSIDE


def test_corners_end_at_the_face() -> None:
    assert corners(((0.0, 10.0), (40.0, 8.0)), 60.0) == ((0.0, 10.0), (40.0, 10.0), (40.0, 8.0), (60.0, 8.0))
    assert corners(((0.0, 10.0), (70.0, 8.0)), 60.0)[-1] == (60.0, 10.0)


def test_diameters_are_read_where_they_stand() -> None:
    part = blank_solid(Blank(60.0, 100.0)).without(Region(Side.OUTSIDE, ((40.0, 100.0, 50.0),)))
    assert (part.at(39.9), part.at(40.0), part.at(99.0), part.at(-1.0)) == (60.0, 50.0, 50.0, 60.0)  # at a step the one to the face
    assert (part.largest(0, 40.0), part.largest(40.0, 80.0), part.largest(39.0, 41.0)) == (60.0, 50.0, 60.0)
    assert part.largest(40.0 - 1e-12, 80.0) == 50.0  # a hair before a step is at it
    assert part.largest(101.0, 120.0) == 0.0


def test_a_cone_comes_in_slices_of_its_middle_diameters() -> None:
    """Ø60 to Ø40 over 100 mm by hand: the middle of the first of 10 slices is 5 mm in, Ø59; their volume is the cone's within 0.1 %."""
    part = blank_solid(Blank(60.0, 100.0, 0.0, ((0.0, 60.0), (100.0, 40.0))), 10)
    assert part.at(0.0) == pytest.approx(59.0)
    assert part.at(99.0) == pytest.approx(41.0)
    volume = sum(np.pi / 4 * d**2 * 10.0 for _, d in part.steps)
    assert volume == pytest.approx(np.pi / 12 * 100 * (60**2 + 60 * 40 + 40**2), rel=1e-3)


def test_a_ring_through_a_plate_leaves_its_hole_or_its_disc() -> None:
    plate = blank_solid(Blank(150.0, 30.0))
    rings = {keeps: read_setup(form(TREPAN, feature={"keeps": keeps})).feature for keeps in ("the hole", "the disc")}
    left = {keeps: plate.without(KINDS["trepan"].removes(ring)) for keeps, ring in rings.items()}
    assert (left["the hole"].bore, left["the hole"].at(10)) == (100, 150)
    assert (left["the disc"].bore, left["the disc"].at(10)) == (0, 100)
    blind = read_setup(form(TREPAN, feature={"through": False, "keeps": "the hole", "web": None, "depth": "20 mm"})).feature
    assert plate.without(KINDS["trepan"].removes(blind)) == plate


def test_a_part_of_no_length_is_still_a_part() -> None:
    assert blank_solid(Blank(50.0, 0.0, 10.0)).bore == 10.0

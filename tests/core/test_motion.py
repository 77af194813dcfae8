"""Paths: how every kind's tool goes, the seconds that it takes, and that it takes away what the kind says."""

from __future__ import annotations

import math
from dataclasses import replace
from typing import Any

import numpy as np
import pytest
from shapely.geometry import Polygon, box

from cutting.doors.json_form import read_setup
from cutting.machine.machines import find_machine
from cutting.motion.clock import clock, rapid_seconds, way_of
from cutting.motion.drawn import drawn
from cutting.motion.moves import (
    Arc,
    Coolant,
    CuttingOutline,
    Dwell,
    Feed,
    Frame,
    Helix,
    Path,
    Per,
    Plane,
    Rapid,
    SpindleOn,
    Sync,
    ThreadPass,
    ToolChange,
)
from cutting.motion.places import between_seconds, places
from cutting.motion.swept import arc_points, half_section, swept, turned_volume
from cutting.operations.registry import KINDS
from cutting.operations.threads.shared.core_hole import thread_area
from cutting.workpiece.solid import Blank, blank_solid
from tests.core.every_kind import EVERY_KIND
from tests.core.holes import DEEP, STACK
from tests.core.slots import form
from tests.core.test_one_engine import EVERY
from tests.core.thread_setups import SPINDLE

LATHE = find_machine("two-axis lathe")
MORE = {
    **EVERY,
    "deep": DEEP,
    "stack": STACK,
    "spindle": SPINDLE,
    "holes on a circle": form(EVERY_KIND["drill"], feature={"circle": 80, "count": 6}),
    "taps on a circle": form(EVERY_KIND["tap"], feature={"circle": 80, "count": 4}),
    "finished hole": form(EVERY_KIND["mill hole"], settings={"finish": 0.2}),
    "plunged hole": form(EVERY_KIND["mill hole"], feature={"diameter": "16 mm"}, settings={"path": "plunge", "pitch": None}),
    "bar of one speed": form(EVERY_KIND["face"], machine="geared lathe"),
    "away": form(EVERY_KIND["turn"], settings={"direction": "away from the chuck"}),
    "copied": form(EVERY_KIND["turn"], feature={"profile": [[20, 49], [80, 49], [100, 40], [140, 40]], "end_diameter": "49 mm"}),
}


def told(one: dict[str, Any]) -> tuple[Any, Any, Path]:
    setup = read_setup(one)
    kind = KINDS[setup.operation]
    x = kind.model.quickly(setup)
    return setup, x, kind.path(x, None)


# the corners that a full radius leaves are a second tool's, with a path of its own
@pytest.mark.parametrize("name", [name for name in (*EVERY_KIND, *MORE) if name != "groove, round path"])
def test_the_clock_tells_what_the_numbers_say(name: str) -> None:
    """Seconds at feed and beside it, of the path's moves and of the kind's own sums: a blade's last 0.2 mm of way in is the difference."""
    setup, x, path = told({**EVERY_KIND, **MORE}[name])
    times = clock(path, setup.machine)
    engaged, idle = (float(np.ravel(one)[-1]) for one in (x.engaged_time, x.idle_time))
    assert times.engaged == pytest.approx(engaged, rel=0.05, abs=0.35)
    assert times.total == pytest.approx(engaged + idle, rel=0.04, abs=0.6)
    assert len(times.moves) == len(path.steps)
    assert sum(times.moves) == pytest.approx(times.total)


@pytest.mark.parametrize("name", [*EVERY_KIND, *MORE])
def test_a_path_begins_and_ends_away_from_the_work(name: str) -> None:
    """Tool, spindle and coolant come first; what is at feed begins where a rapid way ended; the tool goes home."""
    setup, _, path = told({**EVERY_KIND, **MORE}[name])
    kinds = [type(one) for one in path.steps[:3]]
    assert kinds == [ToolChange, SpindleOn, Coolant]
    assert path.steps[0].name == setup.edge.name  # type: ignore[union-attr]
    assert isinstance(path.steps[-1], Rapid)
    assert path.steps[-1].to == path.start
    tied = [one.on for one in path.steps if isinstance(one, Sync)]
    assert tied == [True, False] * (len(tied) // 2)
    assert bool(tied) == any(isinstance(one, ThreadPass) for one in path.steps)


def volume_of(name: str, blank: Blank, volume: float, centre: tuple[float, float] = (0.0, 0.0), **sections: Any) -> None:
    base = {**EVERY_KIND, **MORE}[name]
    setup = read_setup(form(base, **sections))
    kind = KINDS[setup.operation]
    part = blank_solid(blank)
    path = kind.path(kind.model.quickly(setup), part)
    assert swept(path, half_section(part), centre).volume == pytest.approx(volume, rel=2e-3)


def test_turning_takes_what_it_says() -> None:
    """π/4·(D² − d²)·L of plane geometry, for shafts, faces, bores, contours, either way."""
    volume_of("turn", Blank(57.0, 140.0), math.pi / 4 * (57.0**2 - 48.969**2) * 120.0)
    volume_of("away", Blank(57.0, 140.0), math.pi / 4 * (57.0**2 - 48.969**2) * 120.0)
    volume_of("face", Blank(57.0, 60.0), math.pi / 4 * 57.0**2 * 2.0)
    volume_of("bore", Blank(100.0, 90.0, 59.0), math.pi / 4 * (62.015**2 - 59.0**2) * 60.0)
    cone = math.pi * 20.0 / 12.0 * (49.0**2 + 49.0 * 40.0 + 40.0**2)
    copied = math.pi / 4 * 57.0**2 * 120.0 - math.pi / 4 * (49.0**2 * 60.0 + 40.0**2 * 40.0) - cone
    volume_of("copied", Blank(57.0, 140.0), copied, feature={"distance_from_chuck": 20, "length": 120})


@pytest.mark.parametrize("way", ["side by side", "plunge and turn", "ramp"])
def test_grooves_take_what_they_say(way: str) -> None:
    setup = read_setup(form(EVERY_KIND["groove"], settings={"way": way}))
    f = setup.feature
    ring = math.pi / 4 * (f.diameter**2 - f.floor.target**2) * f.width.target
    volume_of("groove", Blank(f.diameter, f.distance_from_chuck + f.width.target + 20.0), ring, settings={"way": way})


def test_narrow_cuts_take_what_they_say() -> None:
    face = read_setup(EVERY_KIND["face groove"]).feature
    outer, inner = face.outer_diameter.target, face.outer_diameter.target - 2.0 * face.width.target
    volume_of("face groove", Blank(outer + 40.0, 80.0), math.pi / 4 * (outer**2 - inner**2) * face.depth)
    cut = read_setup(EVERY_KIND["cut off"])
    kerf = math.pi / 4 * cut.feature.diameter**2 * cut.insert.width
    volume_of("cut off", Blank(cut.feature.diameter, 80.0), kerf)
    ring = read_setup(EVERY_KIND["trepan"])
    hole, core = ring.outer_diameter, ring.inner_diameter
    path = told(EVERY_KIND["trepan"])[2]
    plate = box(0.0, -ring.depth, hole, 0.0)
    assert swept(path, plate, places(ring.feature.circle, ring.feature.count)[0]).volume == pytest.approx(
        math.pi / 4 * (hole**2 - core**2) * ring.depth, rel=2e-3
    )


@pytest.mark.parametrize("name", ["drill", "deep", "holes on a circle", "mill hole", "finished hole", "plunged hole"])
def test_holes_take_what_they_say(name: str) -> None:
    """A cylinder, with the cone of a blind drilled one below its shoulder."""
    setup, _, path = told({**EVERY_KIND, **MORE}[name])
    f = setup.feature
    size = setup.drill.diameter if setup.operation == "drill" else f.diameter.nominal
    cone = 0.0
    if setup.operation == "drill" and not f.through:
        cone = math.pi / 12 * size**3 / 2.0 / math.tan(math.radians(setup.drill.point_angle) / 2.0)
    metal = box(0.0, -f.depth if f.through else -1000.0, 200.0, 0.0)
    for centre in places(f.circle, f.count):
        assert swept(path, metal, centre).volume == pytest.approx(math.pi / 4 * size**2 * f.depth + cone, rel=4e-3)


def test_threads_take_the_groove_along_its_helix() -> None:
    """The groove's area times the length of its helix, as all passes together leave it; a tooth of the thread's own form (ISO 68-1)."""
    for name in ("tap", "mill thread"):
        setup, _, path = told(EVERY_KIND[name])
        f, t = setup.feature, setup.feature.thread
        metal = box(setup.hole / 2.0, -f.length, t.diameter, 0.0)
        radius = (2.0 * setup.hole / 2.0 + t.inside_root / 2.0) / 3.0  # of a triangle that stands on the hole's wall
        along = thread_area(t, setup.hole) * 2.0 * math.pi * radius * f.length / t.lead
        assert swept(path, metal).volume == pytest.approx(along, rel=0.1), name
    setup, x, path = told(EVERY_KIND["turn thread"])
    f, t = setup.feature, setup.feature.thread
    metal = box(1.0, f.distance, setup.there / 2.0, f.distance + f.length)
    deep = float(np.max(x.groove.depth))
    groove = deep * (t.pitch / 4.0 + deep * math.tan(math.radians(30.0)))  # ISO 68-1: a quarter of the pitch flat at the root
    along = groove * 2.0 * math.pi * (setup.there / 2.0 - deep / 2.2) * f.length / t.lead
    assert swept(path, metal).volume == pytest.approx(along, rel=0.03)


def test_rapid_ways_by_hand() -> None:
    """20 m/min at 4 m/s²: the rate is reached after 13.9 mm, t = s/v + v/a; before it t = 2·√(s/a)."""
    assert float(rapid_seconds(100.0, LATHE)) == pytest.approx(0.1 / (20 / 60) + (20 / 60) / 4.0)
    assert float(rapid_seconds(10.0, LATHE)) == pytest.approx(2.0 * math.sqrt(0.010 / 4.0))
    reached = 1000.0 * (20 / 60) ** 2 / 4.0
    assert float(rapid_seconds(reached * (1 - 1e-9), LATHE)) == pytest.approx(float(rapid_seconds(reached, LATHE)))
    assert (np.diff(rapid_seconds(np.linspace(0.0, 200.0, 400), LATHE)) > 0).all()
    assert (rapid_seconds([5.0, 500.0], replace(LATHE, acceleration=8.0)) < rapid_seconds([5.0, 500.0], LATHE)).all()
    square = [(40.0, 0.0), (0.0, 40.0), (-40.0, 0.0), (0.0, -40.0)]
    assert places(80.0, 4) == tuple(pytest.approx(one, abs=1e-9) for one in square)
    assert between_seconds(LATHE, 80.0, 4) == pytest.approx(3.0 * float(rapid_seconds(40.0, LATHE)))
    assert between_seconds(LATHE, None, 1) == 0.0


def on(*steps: Any, start: tuple[float, float, float] = (0.0, 0.0, 0.0), frame: Frame = Frame.HOLE) -> Path:
    return Path(frame, "tip", start, (SpindleOn(1000.0, 1000.0), *steps), CuttingOutline(((0.0, 0.0), (1.0, 0.0), (1.0, 1.0))))


def test_moves_by_hand() -> None:
    """Lengths of plane geometry; seconds 60·L/(f·n), 60·L/vf and turns over n."""
    seconds = {
        60.0 * 10.0 / (0.2 * 1000.0): Feed((0.0, 0.0, -10.0), 0.2),
        60.0 * 10.0 / 500.0: Feed((0.0, 0.0, -10.0), 500.0, Per.MINUTE),
        60.0 * 12.0 / (1.5 * 1000.0): ThreadPass((0.0, 0.0, -12.0), 1.5),
    }
    for wanted, move in seconds.items():
        assert clock(on(move), LATHE).engaged == pytest.approx(wanted)
    helix = Helix((5.0, 0.0, -4.0), (0.0, 0.0, 0.0), 4.0, False, 300.0)
    assert way_of((5.0, 0.0, 0.0), helix) == pytest.approx(math.hypot(4 * 2 * math.pi * 5.0, 4.0))
    for clockwise, quarter in ((False, 0.25), (True, 0.75)):
        arc = Arc((0.0, 5.0, 0.0), (0.0, 0.0, 0.0), clockwise, 100.0, Per.MINUTE, Plane.XY)
        assert way_of((5.0, 0.0, 0.0), arc) == pytest.approx(quarter * 2 * math.pi * 5.0)
    whole = Arc((5.0, 0.0, 0.0), (0.0, 0.0, 0.0), True, 100.0, Per.MINUTE, Plane.XY)
    assert way_of((5.0, 0.0, 0.0), whole) == pytest.approx(2 * math.pi * 5.0)
    round_corner = Arc((10.0, 0.0, -5.0), (10.0, 0.0, 0.0), False, 0.1)
    assert way_of((15.0, 0.0, 0.0), round_corner) == pytest.approx(0.75 * 2 * math.pi * 5.0)


def test_an_arc_is_swept_to_its_chord() -> None:
    """A ball of 10 mm radius turned off a bar: half a sphere's volume stays (2/3·π·r³)."""
    bar = box(0.0, 0.0, 10.0, 10.0)
    quarter = Arc((10.0, 0.0, 0.0), (0.0, 0.0, 0.0), True, 0.1)
    path = Path(Frame.TURNED, "tip", (0.0, 0.0, 10.0), (quarter,), CuttingOutline(((0.0, 0.0), (50.0, 0.0), (50.0, 50.0), (0.0, 50.0))))
    left = turned_volume(bar) - swept(path, bar).volume
    assert left == pytest.approx(2.0 / 3.0 * math.pi * 10.0**3, rel=3e-3)


def test_a_dwell_takes_its_seconds_and_its_turns() -> None:
    assert clock(on(Dwell(2.0, 5.0)), LATHE).dwell == pytest.approx(2.0 + 5.0 * 60.0 / 1000.0)


@pytest.mark.parametrize("clockwise", [True, False])
def test_a_helix_is_drawn_as_it_is_run(clockwise: bool) -> None:
    """On its cylinder, falling evenly, in its own sense, over the seconds that the clock tells."""
    middle = (20.0, 5.0, 0.0)
    helix = Helix((25.0, 5.0, -4.0), middle, 4.0, clockwise, 300.0)
    path = on(helix, start=(25.0, 5.0, 0.0))
    seconds, x, y, z = (np.array(one) for one in zip(*drawn(path, LATHE), strict=True))
    assert np.allclose(np.hypot(x - 20.0, y - 5.0), 5.0)
    assert seconds[-1] == pytest.approx(clock(path, LATHE).engaged)
    assert (np.diff(seconds) > 0).all()
    assert np.allclose(z, -4.0 * seconds / seconds[-1])
    angle = np.unwrap(np.arctan2(y - 5.0, x - 20.0))
    assert angle[-1] - angle[0] == pytest.approx((-1 if clockwise else 1) * 4.0 * 2.0 * math.pi)
    assert np.allclose(np.diff(angle), (angle[-1] - angle[0]) / (len(angle) - 1)), "even steps, fine enough to look round"
    assert abs(angle[1] - angle[0]) < math.radians(20.0)


def test_of_several_holes_the_first_alone_is_drawn_where_one_is_shown() -> None:
    _, x, path = told(MORE["holes on a circle"])
    machine = find_machine("machining centre")
    first, every = drawn(path, machine, first_hole=True), drawn(path, machine)
    assert {one[1:3] for one in first} == {every[0][1:3]}
    assert len({(round(one[1], 3), round(one[2], 3)) for one in every}) == 6
    assert first[-1][0] == pytest.approx(float(np.ravel(x.engaged_time)[0]) / 6.0, rel=0.05)
    assert min(one[3] for one in first) == min(one[3] for one in every), "to the full depth, pecks and all"


def test_what_goes_round_leaves_the_core_that_it_does_not_reach() -> None:
    """A mill of radius 4 on a circle of 10 takes a ring from 6 to 14 (π·(14² − 6²)·h); on a circle of 3 it takes the middle too."""
    for off, inner in ((10.0, 6.0), (3.0, 0.0)):
        helix = Helix((off, 0.0, -8.0), (0.0, 0.0, 0.0), 8.0, False, 300.0)
        edge = CuttingOutline(((0.0, 0.0), (4.0, 0.0), (4.0, 20.0), (0.0, 20.0)))
        path = Path(Frame.HOLE, "tip", (off, 0.0, 0.0), (SpindleOn(1000.0, 1000.0), helix), edge)
        found = swept(path, box(0.0, -8.0, 50.0, 0.0)).volume
        assert found == pytest.approx(math.pi * ((off + 4.0) ** 2 - inner**2) * 8.0, rel=0.01)


@pytest.mark.parametrize("clockwise", [True, False])
def test_a_whole_turn_is_a_whole_turn(clockwise: bool) -> None:
    whole = np.array(arc_points((5.0, 0.0, 0.0), Arc((5.0, 0.0, 0.0), (0.0, 0.0, 0.0), clockwise, 100.0, Per.MINUTE, Plane.XY)))
    chords = np.linalg.norm(np.diff(whole, axis=0), axis=1)
    assert chords.sum() == pytest.approx(2.0 * math.pi * 5.0, rel=2e-3)
    assert (whole[1, 1] < 0.0) == clockwise
    assert 5.0 - np.linalg.norm((whole[0] + whole[1]) / 2.0) <= 0.01 + 1e-9
    three = np.array(arc_points((5.0, 0.0, 0.0), Arc((0.0, 5.0, 0.0), (0.0, 0.0, 0.0), clockwise, 100.0, Per.MINUTE, Plane.XY)))
    assert np.linalg.norm(np.diff(three, axis=0), axis=1).sum() == pytest.approx((0.75 if clockwise else 0.25) * 10.0 * math.pi, rel=2e-3)


@pytest.mark.parametrize("name", ["turn", "face", "copied"])
def test_the_area_that_is_drawn_is_what_goes(name: str) -> None:
    """Turned about the axis, the area that a scene shows is what the part loses."""
    setup = read_setup({**EVERY_KIND, **MORE}[name])
    kind, f = KINDS[setup.operation], setup.feature
    end = 60.0 if name == "face" else f.distance_from_chuck + f.length
    before = blank_solid(Blank(57.0, end))
    after = before.without(kind.removes(f))
    area = Polygon([(x, z) for z, x in kind.area(setup, before)])
    gone = turned_volume(half_section(before)) - turned_volume(half_section(after))
    assert turned_volume(area) == pytest.approx(gone, rel=2e-3)


@pytest.mark.parametrize(("plane", "clockwise", "share"), [(Plane.XY, False, 0.25), (Plane.XY, True, 0.75), (Plane.XZ, False, 0.25)])
def test_an_arc_away_from_the_axis_is_as_long(plane: Plane, clockwise: bool, share: float) -> None:
    """A quarter round (3, 4) at radius 5 is as long as one round the axis."""

    def put(x: float, other: float) -> tuple[float, float, float]:
        return (x, other, 0.0) if plane is Plane.XY else (x, 0.0, other)

    arc = Arc(put(3.0, 9.0), put(3.0, 4.0), clockwise, 100.0, Per.MINUTE, plane)
    assert way_of(put(8.0, 4.0), arc) == pytest.approx(share * 2.0 * math.pi * 5.0)


@pytest.mark.parametrize("name", [*EVERY_KIND, *MORE])
def test_what_goes_round_keeps_its_distance_and_ends_where_its_turns_end(name: str) -> None:
    """Both ends of a helix lie on its cylinder, as far round from each other as its turns say."""
    _, _, path = told({**EVERY_KIND, **MORE}[name])
    at = path.start
    for step in path.steps:
        if isinstance(step, Helix):
            begin, end = ((place[0] - step.centre[0], place[1] - step.centre[1]) for place in (at, step.to))
            assert math.hypot(*begin) == pytest.approx(math.hypot(*end), abs=1e-6)
            turned = (math.atan2(end[1], end[0]) - math.atan2(begin[1], begin[0])) / (2.0 * math.pi) * (-1.0 if step.clockwise else 1.0)
            assert math.cos(2.0 * math.pi * (turned - step.turns)) == pytest.approx(1.0, abs=1e-6)
        at = getattr(step, "to", at)

"""The part in half section: stock, what each operation takes away, and what is left."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Any

from cutting.operations.frame.outcome import Pass
from cutting.operations.registry import kind_of
from cutting.operations.turned.contour import diameter_at, slices
from cutting.operations.turned.regions import band_over
from cutting.operations.turned.setup import Setup
from cutting.operations.turned.surface import Surface
from cutting.workpiece.solid import DRAWN, Blank, Corner, Region, Solid, Steps, blank_solid, corners, lowered, solid_after

PLACE_IN_CUT = 0.36  # share of a pass that is done where it is drawn


@dataclass(frozen=True)
class Removed:
    """What one operation takes away: corners of a half-section area."""

    identity: str
    corners: tuple[Corner, ...]


@dataclass(frozen=True)
class ThreadDrawn:
    """A thread as ISO 6410 draws it: from where to where, radii of its crests (thick) and roots (thin), and how far its axis lies off
    the part's. Inside, the crests are the smaller."""

    identity: str
    near: float
    far: float
    crest: float
    root: float
    off: float


@dataclass(frozen=True)
class Outline:
    """Half-section outlines from the chuck, or of the `whole` part, mm; `inside` of one with a bore, `rings` in its faces."""

    stock: tuple[Corner, ...]
    finished: tuple[Corner, ...]
    removed: tuple[Removed, ...]
    length: float
    radius: float
    bore: float
    inside: tuple[Corner, ...] = ()
    rings: tuple[tuple[Corner, ...], ...] = ()
    whole: bool = False  # with what is gripped at first
    held: float = 0.0  # how much of what is drawn is in the jaws at first, mm
    threads: tuple[ThreadDrawn, ...] = ()


@dataclass(frozen=True)
class Made:
    """An operation as the part sees it: its set-up, and how far the part stands out that was turned round for it."""

    identity: str
    setup: Any
    around: float | None = None

    @property
    def region(self) -> Region:
        """What it takes away."""
        return replace(kind_of(self.setup.operation).removes(self.setup.feature), around=self.around)

    def area(self, part: Solid) -> tuple[Corner, ...]:
        """Corners of what goes, told as the part was first held."""
        area = kind_of(self.setup.operation).area
        if self.around is None:
            return area(self.setup, part)
        there = part.turned_round(self.around)
        return tuple((self.around + (part.butt or 0.0) - place, radius) for place, radius in area(self.setup, there))


def part_after(blank: Blank, operations: list[Made]) -> Solid:
    """The part after operations in run order."""
    return solid_after(blank, tuple(one.region for one in operations), DRAWN)


def outline(blank: Blank, operations: list[Made]) -> Outline:
    """Outline of a part after its operations in run order: as it stands out of the chuck, whole where it is turned round."""
    start = part = blank_solid(blank, DRAWN)
    removed, threads = [], list[ThreadDrawn]()
    for k, one in enumerate(operations):
        removed.append(Removed(one.identity, one.area(part)))
        threads += _thread(one, removed[-1].corners)
        part = part_after(blank, operations[: k + 1])
    whole = any(one.around is not None for one in operations)
    first = min((part.kerf or (0.0,))[0], start.butt or 0.0) if whole else 0.0

    def told(corners: tuple[Corner, ...]) -> tuple[Corner, ...]:
        return tuple((place - first, radius) for place, radius in corners)

    return Outline(
        told(start.outline_from(first)),
        told(part.outline_from(first)),
        tuple(Removed(one.identity, told(one.corners)) for one in removed),
        blank.free_length - first,
        max(radius for _, radius in (*start.outside, *part.outside)),
        blank.bore,
        told(part.inner_outline_from(first)),
        tuple(told(((r.near, r.inner), (r.near, r.outer), (r.far, r.outer), (r.far, r.inner))) for r in part.rings),
        whole,
        abs(first),
        tuple(replace(one, near=one.near - first, far=one.far - first) for one in threads),
    )


def _thread(one: Made, corners: tuple[Corner, ...]) -> list[ThreadDrawn]:
    """The thread that an operation cuts, none of one that cuts no thread."""
    thread = getattr(one.setup.feature, "thread", None)
    if thread is None or not corners:
        return []
    f, places = one.setup.feature, [place for place, _ in corners]
    crest, root = (thread.inside_diameter, thread.diameter) if f.internal else (thread.diameter, thread.root_diameter)
    return [ThreadDrawn(one.identity, min(places), max(places), crest / 2.0, root / 2.0, (f.circle or 0.0) / 2.0)]


@dataclass(frozen=True)
class Stretch:
    """A length of the outside with one line as its edge: places and radii at both its ends [mm]."""

    near: float
    far: float
    near_radius: float
    far_radius: float


def stretches_of(outside: tuple[Corner, ...]) -> tuple[Stretch, ...]:
    """The outside as a drawing tells it: its corners in pairs, each a cylinder; the many thin steps of a taper are one slope.

    >>> steps = tuple((place, 10.0 - 0.5 * k) for k in range(4) for place in (2.0 * k, 2.0 * k + 2.0))
    >>> stretches_of(((-9.0, 12.0), (0.0, 12.0), *steps))
    (Stretch(near=-9.0, far=0.0, near_radius=12.0, far_radius=12.0), Stretch(near=0.0, far=8.0, near_radius=10.25, far_radius=8.25))
    """
    runs = list(zip(outside[::2], outside[1::2], strict=False))
    found: list[Stretch] = []
    k = 0
    while k < len(runs):
        last = k
        while last + 1 < len(runs) and _steps_on(runs, k, last):
            last += 1
        if last - k + 1 < SLOPE:
            last = k
        (near, first), (far, end) = runs[k][0], runs[last][1]
        half = (runs[k + 1][0][1] - first) / 2.0 if last > k else 0.0  # a step stands at the middle of its slope
        found.append(Stretch(near, far, first - half, end + half))
        k = last + 1
    return tuple(found)


def _steps_on(runs: list[tuple[Corner, Corner]], first: int, last: int) -> bool:
    """Whether the run after the last goes on as the first two do: as long, with the same step of radius."""
    (a, here), (b, _) = runs[last]
    (c, there), (d, _) = runs[last + 1]
    step = runs[first + 1][0][1] - runs[first][0][1]
    long = runs[first][1][0] - runs[first][0][0]
    return bool(step) and max(abs(c - b), abs(d - c - long), abs(b - a - long), abs(there - here - step)) < 1e-6


SLOPE = 3  # like steps from which they are a slope


@dataclass(frozen=True)
class OutlineStage:
    """The part in the middle of one pass: its outline, where the tip stands, and the band this pass takes away."""

    corners: tuple[Corner, ...]
    tip: Corner
    band: tuple[Corner, ...]


def stages_from(before: Solid, setup: Setup, passes: tuple[Pass, ...]) -> tuple[OutlineStage, ...]:
    """The part in the middle of each pass of an operation that finds it as it stands."""
    steps, end = before.standing, before.end
    return tuple(_facing(steps, end, setup, one) if setup.surface is Surface.FACE else _turning(steps, end, setup, one) for one in passes)


def _turning(steps: Steps, end: float, setup: Setup, one: Pass) -> OutlineStage:
    f = setup.feature
    near, far = f.distance_from_chuck, min(f.distance_from_chuck + f.length, end)
    done = PLACE_IN_CUT * (far - near)
    tip = near + done if setup.away else far - done
    left, depth = (one.to_diameter - setup.target_diameter) / 2, one.depth
    cuts = [(a, b, diameter / 2 + left) for a, b, diameter in slices(f, far, DRAWN)]
    for a, b, radius in cuts:
        steps = lowered(steps, a, b, radius + depth)
    waiting = [cut for cut in _parted(cuts, tip) if (cut[0] >= tip - 1e-9) == setup.away]
    band = band_over(steps, [(a, b, 2 * radius) for a, b, radius in waiting])
    for a, b, radius in _parted(cuts, tip):
        if (a >= tip - 1e-9) != setup.away:
            steps = lowered(steps, a, b, radius)
    return OutlineStage(corners(steps, end), (tip, diameter_at(f, tip) / 2 + left), band)


def _parted(cuts: list[tuple[float, float, float]], place: float) -> list[tuple[float, float, float]]:
    """The cuts with the one that holds a place parted there."""
    found = []
    for a, b, radius in cuts:
        found += [(a, place, radius), (place, b, radius)] if a < place < b else [(a, b, radius)]
    return found


def _facing(steps: Steps, end: float, setup: Setup, one: Pass) -> OutlineStage:
    outer, inner = setup.feature.start_diameter / 2, setup.feature.end_diameter.nominal / 2
    old = end - (one.number - 1) * one.depth
    new = old - one.depth
    radius = outer - PLACE_IN_CUT * (outer - inner)
    return OutlineStage(
        (*corners(steps, new), (new, radius), (old, radius)), (new, radius), ((new, inner), (new, radius), (old, radius), (old, inner))
    )

"""The part as a body in half section: its outside, its inside, rings in its face; what is left after each thing that is taken away.

Lengths in mm from the chuck; radii from the axis. A body does not change: taking something away makes another. A part that is
turned round to machine its other end is the same body, told from there.
"""

from __future__ import annotations

import itertools
from dataclasses import dataclass, replace
from enum import StrEnum
from functools import lru_cache

import numpy as np

from cutting.errors import CuttingError, OutOfRange

Span = tuple[float, float, float]  # from and to, and the diameter that is left between
Shape = tuple[tuple[float, float], ...]  # (from the chuck, diameter)
Corner = tuple[float, float]  # (from the chuck, radius)
Steps = tuple[tuple[float, float], ...]  # (from, radius to the next)
AT_THE_FACE = 1e-6  # mm inside the free face, where a hole that ends there still is
DRAWN, BENT = 48, 24  # slices of a contour on a drawing, and of a shaped blank as a beam
GRIPPED_SHARE, GRIPPED_MOST = 1.0 / 3.0, 25.0  # of a part turned round that the jaws take, and mm at the most (common practice)


class Side(StrEnum):
    """Where metal goes."""

    OUTSIDE = "outside"
    INSIDE = "inside"
    FACE = "face"
    RING = "ring"
    BORE = "bore"
    END = "end"


@dataclass(frozen=True)
class Region:
    """What an operation takes away. Outside and inside: spans with the diameter that is left; of a face its depth and, where a
    boss stays, its diameter; of a ring in the face its depth, inner and outer diameter, of a bore from the face its depth and its
    diameter as the outer one; of what is cut off the length that comes
    off as `depth`, and the kerf as a span. A bore of several steps has spans told inward from the face.

    `around` is how far the part stands out that was turned round for it: places are told from there.
    """

    side: Side
    spans: tuple[Span, ...] = ()
    depth: float = 0.0
    inner: float = 0.0
    outer: float = 0.0
    around: float | None = None


NOTHING = Region(Side.OUTSIDE)


@dataclass(frozen=True)
class Ring:
    """A ring that is cut into the face, or what a hole beside the axis takes of the half section: from, to, inner and outer radius."""

    near: float
    far: float
    inner: float
    outer: float


@dataclass(frozen=True)
class Blank:
    """What a part is made from: a bar or tube of a diameter, or a shaped blank by its points; as far as it stands out.

    `length` is its whole length with what is gripped, where that is known.
    """

    diameter: float
    free_length: float
    bore: float = 0.0
    shape: Shape = ()
    length: float | None = None


def stands_out_of(long: float) -> float:
    """How far a part of a length [mm] stands out of the jaws once turned round: a third is gripped, 25 mm at most (common practice)."""
    return long - min(long * GRIPPED_SHARE, GRIPPED_MOST)


@dataclass(frozen=True)
class Solid:
    """The part as it stands: `outside` and `inside` as breakpoints with the radius to the next, the last one's up to `until`.

    `face` is its free face, from which drawings measure, `end` where metal ends: further out where a boss stays. At its other end,
    in the jaws or where it was cut off the bar, `butt` is where the part began, `back` and `back_end` as `face` and `end`; None
    while nobody said how long it is. `kerf` is the slot that cut it off.
    """

    free_length: float
    face: float
    end: float
    outside: Steps
    inside: Steps
    until: float
    rings: tuple[Ring, ...] = ()
    butt: float | None = None
    back: float | None = None
    back_end: float | None = None
    kerf: tuple[float, float] | None = None

    @property
    def bore(self) -> float:
        """Diameter of the hole at the free end, 0 for a solid part."""
        return 2.0 * _radius_at(self.inside, max(self.face - AT_THE_FACE, 0.0))

    @property
    def bore_depth(self) -> float:
        """How deep that hole goes without growing narrower [mm], to the other end where it goes through; 0 for a solid part."""
        radius, deepest = _radius_at(self.inside, max(self.face - AT_THE_FACE, 0.0)), 0.0
        if radius <= 0:
            return 0.0
        for (start, own), (end, _) in reversed(list(itertools.pairwise((*self.inside, (self.face, 0.0))))):
            if end <= start:
                continue
            if own < radius - 1e-9:
                break
            deepest = self.face - start
        return deepest

    @property
    def steps(self) -> Shape:
        """The outside that stands out: (from the chuck, diameter to the next)."""
        return tuple((place, 2.0 * radius) for place, radius in self.standing)

    @property
    def standing(self) -> Steps:
        """The outside that stands out of the chuck, without what is gripped and what lies beyond the part."""
        beyond = tuple((place, radius) for place, radius in self.outside if 0.0 < place < self.free_length)
        return ((0.0, _radius_at(self.outside, 0.0)), *beyond)

    def largest(self, near: float, far: float) -> float:
        """The largest outside diameter between two places, 0 beyond the blank."""
        ends = [start for start, _ in self.outside[1:]] + [self.until]
        inside = [2.0 * r for (start, r), end in zip(self.outside, ends, strict=True) if start < far - 1e-9 and end > near + 1e-9]
        return max(inside, default=0.0)

    def at(self, place: float) -> float:
        """The outside diameter at a place; at a step the one towards the face."""
        return 2.0 * _radius_at(self.outside, max(place, 0.0))

    def wall(self, near: float, far: float) -> float:
        """The thinnest wall between two places, outside to inside; the radius where there is no bore."""
        places = sorted({near, *(p for p, _ in (*self.outside, *self.inside) if near < p < far)})
        return min(_radius_at(self.outside, p) - _radius_at(self.inside, p) for p in places)

    def without(self, region: Region) -> Solid:
        """The part without a region. Raises `CuttingError` for a part that cannot be turned round for it."""
        if region.around is not None:
            there = self.turned_round(region.around)
            return there.without(replace(region, around=None))._seen_from(region.around + (self.butt or 0.0))
        if region.side is Side.END:
            cut = self.face - region.depth
            return replace(self, butt=cut, back=cut, back_end=cut, kerf=(min(region.spans[0][0], cut), cut))
        if region.side is Side.FACE:
            face = max(self.face - region.depth, 0.0)
            if region.inner <= max(1.0, self.bore + 0.02):  # mm: a wall of nothing
                return replace(self, face=face, end=face)  # faced to the bore or the centre: the part is shorter
            return replace(self, face=face, outside=lowered(self.outside, face, self.end, region.inner / 2.0))  # a boss stays
        if region.side is Side.RING:
            near = max(self.face - region.depth, self.back_end or 0.0)
            ring = Ring(near, self.face, max(region.inner, 0.0) / 2.0, region.outer / 2.0)
            return replace(self, rings=(*self.rings, ring))
        if region.side is Side.BORE:
            least, inside = self.back_end if self.back_end is not None else 0.0, self.inside
            for near, far, diameter in region.spans or ((0.0, region.depth, region.outer),):
                mouth = self.free_length if near <= 0.0 else self.face - near
                inside = raised(inside, max(self.face - far, least), mouth, diameter / 2.0)
            return replace(self, inside=inside)
        found = self
        for near, far, diameter in region.spans:
            stop = min(far, self.free_length)
            if region.side is Side.INSIDE:
                found = replace(found, inside=raised(found.inside, near, stop, diameter / 2.0))
            else:
                found = replace(found, outside=lowered(found.outside, near, stop, diameter / 2.0))
        return found

    def pulled_out(self, by: float) -> Solid:
        """The part standing out of the chuck by so much more [mm], less for a negative length; what was gripped comes out as it is."""
        if by == 0.0:
            return self

        def moved(steps: Steps) -> Steps:
            (first, radius), *rest = ((start + by, radius) for start, radius in steps)
            return ((min(first, 0.0), radius), *rest)  # a bar goes on behind

        def far(place: float | None) -> float | None:
            return None if place is None else place + by

        return replace(
            self,
            free_length=self.free_length + by,
            face=self.face + by,
            end=self.end + by,
            outside=moved(self.outside),
            inside=moved(self.inside),
            until=self.until + by,
            rings=tuple(replace(ring, near=ring.near + by, far=ring.far + by) for ring in self.rings),
            butt=far(self.butt),
            back=far(self.back),
            back_end=far(self.back_end),
            kerf=None if self.kerf is None else (self.kerf[0] + by, self.kerf[1] + by),
        )

    def turned_round(self, free_length: float) -> Solid:
        """The part told from its other end, which now stands out by a length; turned round again it is as it was.

        Raises `CuttingError` where nobody said how long it is, or where it does not stand out that far.
        """
        if self.butt is None or self.back is None or self.back_end is None:
            raise CuttingError("stock.length", "how long is the whole blank? Only then it can be turned round.")
        long = self.face - self.butt
        if not 0 < free_length <= long + 1e-9:
            raise OutOfRange("holding.free_length", f"{free_length:g} is outside 0 to {long:g} mm, the part's length.", f"0 to {long:g} mm")
        return self._seen_from(free_length + self.butt)

    def _seen_from(self, at: float) -> Solid:
        """The part told from a place backwards; told from there once more it is as it was."""
        assert self.butt is not None
        assert self.back is not None
        assert self.back_end is not None
        return Solid(
            free_length=at - self.butt,
            face=at - self.back,
            end=at - self.back_end,
            outside=_mirrored(self.outside, self.until, at),
            inside=_mirrored(self.inside, self.until, at),
            until=at - self.outside[0][0],
            rings=tuple(replace(ring, near=at - ring.far, far=at - ring.near) for ring in self.rings),
            butt=at - self.free_length,
            back=at - self.face,
            back_end=at - self.end,
            kerf=(at - self.kerf[1], at - self.kerf[0]) if self.kerf else None,
        )

    @property
    def usual_free_length(self) -> float:
        """How far it usually stands out once turned round [mm]."""
        return stands_out_of(0.0 if self.butt is None else self.face - self.butt)

    @property
    def outline(self) -> tuple[Corner, ...]:
        """Corners of the outside from the chuck to the free end."""
        return self.outline_from(0.0)

    def outline_from(self, start: float) -> tuple[Corner, ...]:
        """Corners of the outside from a place to the free end, with the gap where it was cut off."""
        steps = self.outside
        for near, far in (self.kerf or (0.0, 0.0), (self.butt or 0.0, self.back_end or 0.0)):
            if far > near:
                steps = lowered(steps, near, far, 0.0)
        return corners(_from(steps, start), self.end)

    def inner_outline_from(self, start: float) -> tuple[Corner, ...]:
        """Corners of the inside from a place to the free end, empty for a solid part."""
        return corners(_from(self.inside, start), self.end) if any(radius > 0 for _, radius in self.inside) else ()


def _mirrored(steps: Steps, until: float, at: float) -> Steps:
    """Breakpoints told from the other end."""
    ends = [start for start, _ in steps[1:]] + [until]
    return tuple((at - end, radius) for (_, radius), end in reversed(list(zip(steps, ends, strict=True))))


def _from(steps: Steps, start: float) -> Steps:
    """Breakpoints from a place on."""
    return ((start, _radius_at(steps, start)), *(step for step in steps if step[0] > start))


def blank_steps(diameter: float, free_length: float, shape: Shape = (), count: int = DRAWN) -> Steps:
    """The blank as breakpoints (from the chuck, radius to the next): a bar, or a shaped one by its points (place, diameter)."""
    if not shape or free_length <= 0:
        return ((0.0, diameter / 2.0),)
    places, diameters = zip(*shape, strict=True)
    edges = np.linspace(0.0, free_length, count + 1)
    return tuple((float(a), float(np.interp((a + b) / 2.0, places, diameters)) / 2.0) for a, b in itertools.pairwise(edges))


@lru_cache(maxsize=256)
def blank_solid(blank: Blank, slices: int = BENT) -> Solid:
    """The blank before anything is taken away."""
    length = max(blank.free_length, 0.0)  # one that cannot be is refused by the set-up that asks
    gripped = None if blank.length is None else max(blank.length - length, 0.0)
    outside, inside = blank_steps(blank.diameter, length, blank.shape, slices), ((0.0, blank.bore / 2.0),)
    if not gripped:
        butt = None if gripped is None else 0.0
        return Solid(length, length, length, outside, inside, length, (), butt, butt, butt)
    held = ((-gripped, outside[0][1]), *outside[1:]), ((-gripped, blank.bore / 2.0),)
    return Solid(length, length, length, *held, length, (), -gripped, -gripped, -gripped)


@lru_cache(maxsize=4096)
def solid_after(blank: Blank, regions: tuple[Region, ...], slices: int = BENT) -> Solid:
    """The part after regions were taken away in order; what was walked once is kept."""
    if not regions:
        return blank_solid(blank, slices)
    return solid_after(blank, regions[:-1], slices).without(regions[-1])


def radius_at(steps: Steps, place: float) -> float:
    """Radius of breakpoints at a place; at a step the one towards the face."""
    return _radius_at(steps, place)


def _radius_at(steps: Steps, place: float) -> float:
    return [radius for start, radius in steps if start <= place + 1e-9][-1]


def lowered(steps: Steps, near: float, far: float, radius: float) -> Steps:
    """Breakpoints with no more than a radius between two places."""
    places = sorted({start for start, _ in steps} | {near, far})
    return tuple((p, min(_radius_at(steps, p), radius) if near - 1e-9 <= p < far - 1e-9 else _radius_at(steps, p)) for p in places)


def raised(steps: Steps, near: float, far: float, radius: float) -> Steps:
    """Breakpoints with no less than a radius between two places."""
    places = sorted({start for start, _ in steps} | {near, far})
    return tuple((p, max(_radius_at(steps, p), radius) if near - 1e-9 <= p < far - 1e-9 else _radius_at(steps, p)) for p in places)


def corners(steps: Steps, end: float) -> tuple[Corner, ...]:
    """Corners of breakpoints up to an end."""
    found: list[Corner] = []
    ordered = [step for step in steps if step[0] < end]
    for k, (start, radius) in enumerate(ordered):
        stop = ordered[k + 1][0] if k + 1 < len(ordered) else end
        found += [(start, radius), (stop, radius)]
    return tuple(found)

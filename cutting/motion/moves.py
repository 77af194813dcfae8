"""The moves of a tool, and the switches between them."""

from __future__ import annotations

import math
from dataclasses import dataclass
from enum import IntEnum, StrEnum

Point = tuple[float, float, float]  # x, y, z [mm] in the path's frame


class Per(StrEnum):
    """What a feed is told by."""

    TURN = "per revolution"
    MINUTE = "per minute"


@dataclass(frozen=True)
class Rapid:
    """Straight to a place as fast as the axes go, clear of the metal."""

    to: Point


@dataclass(frozen=True)
class Feed:
    """Straight to a place at a feed [mm/rev or mm/min]."""

    to: Point
    feed: float
    per: Per = Per.TURN


class Plane(IntEnum):
    """The plane of an arc, by the coordinate beside x: with the axis of the part or hole, or across it."""

    XY = 1
    XZ = 2


@dataclass(frozen=True)
class Arc:
    """Round a centre to a place at a feed, in its plane; an arc that ends where it begins goes once round."""

    to: Point
    centre: Point
    clockwise: bool
    feed: float
    per: Per = Per.TURN
    plane: Plane = Plane.XZ


@dataclass(frozen=True)
class Helix:
    """Round an axis along z through `centre` and along it to a place: `turns` in all, at a feed of the tool's middle [mm/min]."""

    to: Point
    centre: Point
    turns: float
    clockwise: bool
    feed: float


@dataclass(frozen=True)
class ThreadPass:
    """Along a thread at its lead [mm/rev], the axis tied to the spindle."""

    to: Point
    lead: float


@dataclass(frozen=True)
class Dwell:
    """Standing still: so many seconds, or so many turns of the spindle."""

    seconds: float = 0.0
    turns: float = 0.0


@dataclass(frozen=True)
class SpindleOn:
    """The spindle's speed: `low` and `top` [1/min] between which a cutting speed [m/min] is kept, one and the same where it is fixed.

    `seconds` are lost while it comes to speed or turns round.
    """

    low: float
    top: float
    cutting_speed: float = 0.0
    seconds: float = 0.0
    backwards: bool = False

    def at(self, diameter: float) -> float:
        """Spindle speed n [1/min] at a diameter [mm]."""
        wanted = 1000.0 * self.cutting_speed / (math.pi * diameter) if diameter > 0 else math.inf
        return min(max(wanted if self.cutting_speed > 0 else self.top, self.low), self.top)


@dataclass(frozen=True)
class Coolant:
    """Coolant on, by its delivery; blank: off."""

    delivery: str


@dataclass(frozen=True)
class ToolChange:
    """A tool comes into work, by its name; it takes its seconds."""

    name: str
    seconds: float


@dataclass(frozen=True)
class Sync:
    """The feed tied to the turning of the spindle, or let go."""

    on: bool


Move = Rapid | Feed | Arc | Helix | ThreadPass | Dwell
Switch = SpindleOn | Coolant | ToolChange | Sync
Step = Move | Switch


class Frame(StrEnum):
    """What the coordinates of a path are told from."""

    TURNED = "part's axis: x the radius, z from the chuck towards the free face"
    HOLE = "hole's axis: x and y across, z from its entry, downwards negative"


@dataclass(frozen=True)
class CuttingOutline:
    """What of a tool cuts: a convex outline (radius, along) [mm] about the reference point, in half section.

    Of a turned path `radius` is told from the reference point; of one in a hole from the tool's own axis. `rows` alike stand
    `apart` along the axis (a thread's teeth); `further` are the outlines of other edges that go with it (a tool of several steps).
    """

    outline: tuple[tuple[float, float], ...]
    rows: int = 1
    apart: float = 0.0
    further: tuple[tuple[tuple[float, float], ...], ...] = ()


@dataclass(frozen=True)
class Path:
    """How a tool goes: from `start`, with its reference point `tip` in words, step by step; `edge` is what of it cuts."""

    frame: Frame
    tip: str
    start: Point
    steps: tuple[Step, ...]
    edge: CuttingOutline

"""What the drawing says of a turned or faced feature, and what the user sets to make it."""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum

from cutting.quantities.dimension import Dimension


class Direction(StrEnum):
    """Which way the tool feeds along the part."""

    TOWARDS = "towards the chuck"
    AWAY = "away from the chuck"


@dataclass(frozen=True)
class Feature:
    """What the drawing says, mm and µm.

    Turning goes from `start_diameter` to `end_diameter` over `length`; facing from `start_diameter` to
    `inner_diameter` (bore or boss, 0 for the centre) and takes `length` off the face.
    """

    start_diameter: float
    end_diameter: Dimension
    length: float
    distance_from_chuck: float = 5.0
    shoulder: bool = False
    fillet: float | None = None
    profile: tuple[tuple[float, float], ...] = ()  # contour to copy: (from the chuck, diameter), mm
    skin_depth: float | None = None  # of scale, hardened layer or uneven build-up, mm on radius
    polish: bool = False  # polished to size afterwards, by the house's allowance
    roughness: float | None = None  # Ra, µm
    grinding_allowance: float = 0.0  # on diameter
    roughing: bool = False  # a later cut finishes it

    @property
    def turned_diameter(self) -> float:
        """The diameter to turn to: the middle of the limits, with what is left for grinding."""
        return self.end_diameter.target + self.grinding_allowance


@dataclass(frozen=True)
class Bore(Feature):
    """A bore that is made wider from the free face on: `length` deep, to a square floor or a step where there is a `shoulder`.

    `there` is the narrowest Ø that stands open over that depth, None where nobody says: then it is as told.
    """

    there: float | None = None

    @property
    def turned_diameter(self) -> float:
        """The diameter to bore to: the middle of the limits, without what is left for grinding or honing."""
        return self.end_diameter.target - self.grinding_allowance


@dataclass(frozen=True)
class Settings:
    """What the user sets: m/min, mm/rev, mm. `spindle_clamp` 1/min is the program's own speed limit."""

    cutting_speed: float
    feed_per_rev: float
    depth_of_cut: float
    coolant: str = "flood"
    spindle_clamp: float | None = None
    overhang: float | None = None
    last_depth: float | None = None  # a planned last cut; None: like the others
    pass_depths: tuple[float, ...] = ()  # the passes one by one; the last takes what is left
    centre_height: float | None = None  # of the tip over the axis; None: as the house sets it
    direction: Direction = Direction.TOWARDS
    swivel: float | None = None  # how far the post is turned, degrees: κr grows by it; None: square
    relief: float | None = None  # clearance ground on the edge by hand, degrees; None: as the insert and its seat give it
    nozzles: int = 2
    nozzle_diameter: float = 1.0

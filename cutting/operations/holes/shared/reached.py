"""What a drilled hole usually reaches: tolerance, position, burr; all common practice beside ISO 286's own unit."""

from __future__ import annotations

from typing import Any

import numpy as np
from numpy.typing import NDArray

from cutting.workpiece.fits import RANGES

Array = NDArray[np.float64]
WANDERS = 0.015  # mm off its place for each degree that the entry leans (common practice)
SPOTTED = 0.35  # of the wandering that a spot or a pilot leaves (common practice)
BURR = 1.1  # × feed × ductility: height of the exit burr of a sharp corner at 118° (common practice)
BLUNT = 1.6  # × that of a worn corner (common practice)
USUAL_POINT = 118.0  # ° of a point that the burr's figures hold for
LOW, LOW_SHARE = 0.08, 0.015  # mm, and of the hole's Ø: a burr that a scraper takes off
CROWNED, CROWN_SHARE = 0.7, 0.03  # ductility, and of the hole's Ø: from there the cap tears into a crown (Ko and Dornfeld, from memory)


def tolerance_width(diameter: Any, grade: Any) -> Array:
    """Width [mm] of an ISO 286 grade, whole or between two: IT7 is 16 i, each grade 10^(1/5) more, i = 0.45·∛D + 0.001·D.

    D is the middle of the standard's range; the standard rounds what comes out.

    >>> round(float(tolerance_width(10.0, 9)), 3)
    0.036
    """
    edges = np.array((1.0, *RANGES))  # up to 3 mm the standard takes the range from 1
    place = np.clip(np.searchsorted(edges, np.asarray(diameter, float)), 1, len(edges) - 1)
    middle = np.sqrt(edges[place - 1] * edges[place])
    unit = (0.45 * np.cbrt(middle) + 0.001 * middle) / 1000.0
    return np.asarray(16.0 * unit * 10.0 ** ((np.asarray(grade, float) - 7.0) / 5.0))


def tolerance_grade(width: float, diameter: float) -> float:
    """The ISO 286 grade whose width [mm] this is, whole or between two."""
    return float(7.0 + 5.0 * np.log10(width / tolerance_width(diameter, 7)))


def position(usual: Any, guided: bool, entry_angle: float, runout: Any) -> Array:
    """Diameter [mm] of the zone in which the hole's axis lies: the drill's own wandering, a leaning entry, and the runout."""
    return np.asarray(2.0 * (np.asarray(usual) + WANDERS * entry_angle) * (SPOTTED if guided else 1.0) + np.asarray(runout))


def burr_height(feed: Any, ductility: Any, point_angle: Any) -> Array:
    """Height [mm] of the burr at the exit of a worn corner: more with feed and ductility, less behind a flatter point."""
    flat = USUAL_POINT / np.asarray(point_angle, float)
    return np.asarray(BURR * BLUNT * np.asarray(feed) * np.asarray(ductility) * flat)


def burr_class(height: float, diameter: float, ductility: float) -> str:
    """The type of burr in the words of Ko and Dornfeld: uniform, uniform with a cap, crown."""
    if height < LOW_SHARE * diameter or height < LOW:
        return "uniform, low"
    return "crown" if ductility > CROWNED and height > CROWN_SHARE * diameter else "uniform with a cap"


def deburr_seconds(height: float, diameter: float, holes: int) -> float:
    """Seconds of deburring by hand [s]: 2 a hole where a low burr breaks off, more with height and circumference (common practice)."""
    if height <= 0.0:
        return 0.0
    return holes * (2.0 + 0.05 * diameter + 20.0 * max(height - LOW, 0.0))

"""What the height of the tip does: rake and clearance turn with it, facing leaves a pip, the size is missed."""

from __future__ import annotations

import numpy as np
from numpy.typing import ArrayLike, NDArray

from cutting.working import formula

Array = NDArray[np.float64]


@formula("height_angle", "asin(2·{centre_height}/{diameter})", "iso-3002-1")
def height_angle(centre_height: ArrayLike, diameter: ArrayLike) -> Array:
    """Angle θ [°] by which the reference plane turns for a tip h_c [mm] above the axis at a diameter d [mm].

    Held at ±90° where the tip stands higher than the work's radius. Source: ISO 3002-1, working angles.

    >>> round(float(height_angle(0.5, 20.0)), 3)
    2.866
    """
    return np.degrees(np.arcsin(np.clip(2.0 * np.asarray(centre_height, float) / np.asarray(diameter, float), -1.0, 1.0)))


@formula("effective_rake", "{rake} + {height_angle}", "iso-3002-1")
def effective_rake(rake: ArrayLike, height_angle: ArrayLike, inside: bool = False) -> Array:
    """Working rake γe [°]: outside a tip above centre adds θ [°], inside it takes θ away.

    >>> round(float(effective_rake(6.0, 2.0)), 1)
    8.0
    """
    return np.asarray(rake) + np.asarray(height_angle) * (-1.0 if inside else 1.0)


@formula("effective_clearance", "{clearance} − {height_angle}", "iso-3002-1")
def effective_clearance(clearance: ArrayLike, height_angle: ArrayLike, inside: bool = False) -> Array:
    """Working clearance αe [°]: outside a tip above centre loses θ [°], inside it gains θ.

    >>> round(float(effective_clearance(6.0, 2.0)), 1)
    4.0
    """
    return np.asarray(clearance) - np.asarray(height_angle) * (-1.0 if inside else 1.0)


def pip_diameter(centre_height: ArrayLike) -> Array:
    """Diameter [mm] of the stub left at the centre of a face: twice the height error.

    >>> round(float(pip_diameter(-0.1)), 2)
    0.2
    """
    return 2.0 * np.abs(np.asarray(centre_height, float))


def height_size_error(centre_height: ArrayLike, diameter: ArrayLike) -> Array:
    """By how much a diameter [mm] comes out larger: √(d² + 4·h²) − d, the same inside and outside.

    >>> round(float(height_size_error(1.0, 20.0)), 4)
    0.0998
    """
    h, d = np.asarray(centre_height, float), np.asarray(diameter, float)
    return np.sqrt(d**2 + 4.0 * h**2) - d


def reach_angle(cutting_edge_angle: ArrayLike, included_angle: ArrayLike) -> Array:
    """Steepest descent [°] that the minor edge follows without rubbing: 180 − κr − εr. Source: ISO 3002-1 (κr').

    >>> float(reach_angle(93, 55))
    32.0
    """
    return 180.0 - np.asarray(cutting_edge_angle, float) - np.asarray(included_angle, float)

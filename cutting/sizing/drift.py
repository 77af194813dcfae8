"""How the size wanders over a batch as the nose wears back."""

from __future__ import annotations

import numpy as np
from numpy.typing import ArrayLike, NDArray

from cutting.working import Honesty, formula

Array = NDArray[np.float64]
DRIFT_SHARE = 0.25  # of the tolerance that the drift may use before the size is corrected (common practice)
WEAR_LIMIT = 0.3  # mm of flank wear land at the end of an edge's life, ISO 3685
# of an edge that finishes hardened metal: 0.1 to 0.15, beyond it the surface burns and shows tension (common practice)
HARD_WEAR_LIMIT = 0.12


def wear_limit(letter: str) -> float:
    """Flank wear land [mm] at the end of an edge's life in a main group of ISO 513.

    >>> wear_limit("P"), wear_limit("H")
    (0.3, 0.12)
    """
    return HARD_WEAR_LIMIT if letter == "H" else WEAR_LIMIT


@formula("nose_recession", "{wear_land}·tan({clearance})", "iso-3685", Honesty.MODEL, "wear of the nose")
def nose_recession(wear_land: ArrayLike, clearance: ArrayLike) -> Array:
    """How far Δr [mm] a nose with a wear land VB [mm] and clearance α [°] stands back: geometry of the ground-off wedge.

    >>> round(float(nose_recession(0.2, 6.0)), 4)
    0.021
    """
    return np.asarray(wear_land) * np.tan(np.radians(np.asarray(clearance, float)))


def drift_per_piece(recession: ArrayLike, median_parts: ArrayLike) -> Array:
    """Growth of a turned diameter [mm] from piece to piece, wear taken as even over the edge's pieces.

    >>> round(float(drift_per_piece(0.021, 100.0)), 5)
    0.00042
    """
    return 2.0 * np.asarray(recession) / np.maximum(np.asarray(median_parts, float), 1e-9)


def correct_every(drift: ArrayLike, tolerance: ArrayLike, share: float = DRIFT_SHARE) -> Array:
    """Pieces after which the drift has used a share of the tolerance [mm]: time to correct the offset.

    >>> round(float(correct_every(0.0005, 0.02)), 1)
    10.0
    """
    return np.maximum(np.floor(share * np.asarray(tolerance) / np.maximum(np.asarray(drift, float), 1e-12)), 1.0)

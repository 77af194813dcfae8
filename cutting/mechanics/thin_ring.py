"""A thin ring in jaws: how far it is pressed out of round, and so how far a bore that was cut round comes out lobed."""

from __future__ import annotations

import numpy as np
from numpy.typing import ArrayLike, NDArray

Array = NDArray[np.float64]


def lobing(force: ArrayLike, mean_radius: ArrayLike, elastic_modulus: ArrayLike, second_moment: ArrayLike, jaws: int = 3) -> Array:
    """How much further in a ring stands at its jaws than between them [mm], on the radius.

    `force` of each of so many jaws evenly around [N], mean radius R [mm], E [N/mm²], I of the wall's section [mm⁴]. Of two jaws it
    is what a ring gives between two points: 0.0744 + 0.0683 of F·R³/(E·I). Source: Roark, table 9.2, rings under equal radial
    loads; Timoshenko, Strength of Materials II (both from memory).

    >>> round(float(lobing(1.0, 1.0, 1.0, 1.0, jaws=2)), 4)  # 0.0744 + 0.0683
    0.1427
    """
    half = np.pi / jaws  # between a jaw and the middle of its gap
    sine, cosine = np.sin(half), np.cos(half)
    at_jaw = (half + sine * cosine) / sine**2 - 2.0 / half
    between = 2.0 / half - (half * cosine + sine) / sine**2
    scale = np.asarray(force, float) * np.asarray(mean_radius) ** 3 / (4.0 * np.asarray(elastic_modulus) * np.asarray(second_moment))
    return np.asarray(scale * (at_jaw + between))

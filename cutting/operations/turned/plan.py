"""Which passes are taken: equal cuts, a planned last one, or the user's own list."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from cutting.operations.frame.setup import Skin
from cutting.operations.turned.setup import Setup
from cutting.operations.turned.surface import Surface

Array = NDArray[np.float64]
FIRST_CUT = 0.75  # mm, where the height of a build-up is not known (common practice)
SKIN_DEPTH = {Skin.FORGED: 1.0, Skin.CAST: 0.8, Skin.BAR: 0.2}  # mm on radius (common practice)


def shared_depths(stock: float, count: int, last: float | None) -> Array:
    """Depths [mm] of `count` passes over `stock` [mm]: equal, or equal before a planned last one."""
    if last is None or count < 2:
        return np.full(count, stock / count)
    return np.append(np.full(count - 1, (stock - last) / (count - 1)), last)


def pass_depths(setup: Setup) -> Array:
    """Depth of every pass [mm]; of the user's own list the last takes what is left."""
    given, stock = setup.settings.pass_depths, setup.stock_to_remove
    if given:
        return np.array([*given[:-1], stock - sum(given[:-1])])
    return shared_depths(stock, setup.pass_count, setup.last_depth)


def pass_diameters(setup: Setup) -> Array:
    """The larger diameter of every pass [mm], at which its speed counts: uncut outside, cut inside."""
    if setup.surface is Surface.FACE:
        return np.full(setup.pass_count, setup.feature.start_diameter)
    depths = pass_depths(setup)
    if setup.inside:
        return np.asarray(setup.feature.start_diameter + 2.0 * np.cumsum(depths))
    return uncut_diameters(setup.feature.start_diameter, depths)


def uncut_diameters(start: float, depths: Array) -> Array:
    """Diameter [mm] in front of each cut of the given depths [mm], outside."""
    return np.asarray(start - 2.0 * (np.cumsum(depths) - depths))


def one_pass_diameters(setup: Setup, depths: Array) -> Array:
    """The larger diameter [mm] of one pass of any depth [mm] that ends at the size, or in facing begins at the start."""
    if setup.surface is Surface.FACE:
        return np.full_like(depths, setup.feature.start_diameter)
    return np.asarray(setup.target_diameter + (0.0 if setup.inside else 2.0) * depths)


def skin_depth(setup: Setup) -> float:
    """How deep [mm] the stock's skin reaches: as the drawing says, or as is usual for its kind; 0 for none."""
    given = setup.feature.skin_depth
    return given if given is not None else SKIN_DEPTH.get(setup.skin, 0.0)


def main_depth(setup: Setup) -> float:
    """Depth of the heaviest pass [mm]: where the set-up stands on the map."""
    return float(pass_depths(setup).max())

"""Cut-off and grooving blades: force of a straight narrow edge, and how the blade bends in height and sideways."""

from __future__ import annotations

import numpy as np
from numpy.typing import ArrayLike, NDArray

from cutting.working import Honesty, formula

Array = NDArray[np.float64]
STEEL_BLADE = 210_000.0  # N/mm²
STRAIGHT = 4.0  # times stiffer a turret is when it is pushed straight, not aside (common practice: turret and block leave 2 to 6 in all)
PUSH_SHARE, PUSH_EXPONENT = 0.176, 0.44  # kf1.1/kc1.1 and mf − mc of E295 (König and Essel)
GROOVE_FORM = 1.3  # Kform of grooving and cut-off: both walls hold the chip (Tschätsch)


@formula("feed_force", "{cutting_force}·0.176·{chip_thickness}^−0.44", "koenig-essel", Honesty.MODEL, "push-off", states="push")
def plunge_force(cutting_force: ArrayLike, chip_thickness: ArrayLike) -> Array:
    """Force Ff [N] against the plunge, from Fc [N] and h [mm]: kf1.1/mf over kc1.1/mc of E295, carried over to other metals.

    >>> float(plunge_force(1000.0, 1.0))  # a chip 1 mm thick pushes with 0.176 of what it cuts with
    176.0
    """
    return np.asarray(cutting_force) * PUSH_SHARE * np.asarray(chip_thickness, float) ** -PUSH_EXPONENT


@formula("side_force", "{feed_force}·tan({lead_angle})", "iso-3002-4", Honesty.MODEL, "push-off")
def side_force(feed_force: ArrayLike, lead_angle: ArrayLike) -> Array:
    """Force Fs [N] along the bar's axis that a slanted front edge makes of the plunge force; ψr [°].

    The force stands square to the edge, so its side share is the tangent of the slant.

    >>> round(float(side_force(400.0, 5.0)), 1)
    35.0
    """
    return np.asarray(feed_force) * np.tan(np.radians(np.asarray(lead_angle, float)))


def blade_second_moments(thickness: ArrayLike, height: ArrayLike) -> tuple[Array, Array]:
    """Second moments [mm⁴] of a blade section of thickness and height [mm]: bent in height, bent sideways.

    >>> round(float(blade_second_moments(2.4, 26.0)[1]), 2)
    29.95
    """
    t, h = np.asarray(thickness, float), np.asarray(height, float)
    return t * h**3 / 12.0, h * t**3 / 12.0


@formula("deflection", "{side_force}·{overhang}³/(3·{elastic_modulus}·{second_moment})", "roark", Honesty.MODEL, "springing", states="give")
def side_bend(side_force: ArrayLike, overhang: ArrayLike, second_moment: ArrayLike, elastic_modulus: ArrayLike = STEEL_BLADE) -> Array:
    """How far the tip goes sideways δ [mm]: cantilever of overhang l_o [mm] under Fs [N], I [mm⁴] across its thickness.

    >>> round(float(side_bend(35.0, 30.0, 29.95, 210000.0)), 4)
    0.0501
    """
    return np.asarray(side_force) * np.asarray(overhang, float) ** 3 / (3.0 * np.asarray(elastic_modulus) * np.asarray(second_moment))


def side_slope(side_force: ArrayLike, overhang: ArrayLike, second_moment: ArrayLike, elastic_modulus: ArrayLike = STEEL_BLADE) -> Array:
    """How far the tip leans [rad] under a side force [N]: F·l²/(2·E·I). Source: Roark, cantilever with end load.

    >>> round(float(side_slope(35.0, 30.0, 29.95, 210000.0)), 5)
    0.0025
    """
    return np.asarray(side_force) * np.asarray(overhang, float) ** 2 / (2.0 * np.asarray(elastic_modulus) * np.asarray(second_moment))


def stiffness_along_and_across(
    overhang: ArrayLike, thickness: ArrayLike, height: ArrayLike, elastic_modulus: float = STEEL_BLADE
) -> tuple[Array, Array]:
    """Stiffness [N/mm] of a blade along its length and across its height: E·A/l and 3·E·I/l³, lengths in mm.

    A blade turned by a Y axis takes the cutting force along its length and only the smaller plunge force across it.

    >>> along, across = stiffness_along_and_across(50.0, 2.0, 25.0, 200_000.0)  # E·A/l; 3·E·t·h³/12/l³
    >>> round(float(along)), round(float(across))
    (200000, 12500)
    """
    across, _ = blade_second_moments(thickness, height)
    length = np.asarray(overhang, float)
    return elastic_modulus * np.asarray(thickness) * np.asarray(height) / length, 3.0 * elastic_modulus * across / length**3


def y_axis_gain(
    cutting_force: ArrayLike, feed_force: ArrayLike, overhang: ArrayLike, thickness: ArrayLike, height: ArrayLike, post: ArrayLike = np.inf
) -> Array:
    """How many times less the tip of a blade turned by a Y axis moves, both forces on each.

    Computed from the section, and from the stiffness of turret and block in series [N/mm] that are pushed sideways, or straight when
    the force runs along the blade; without a post of the blade alone. Common practice: about six times.

    >>> round(float(y_axis_gain(1000.0, 0.0, 30.0, 3.0, 25.0)))  # Fc alone, along instead of across: 4·l²/h²
    6
    """
    along, across = stiffness_along_and_across(overhang, thickness, height)
    fc, ff, aside = np.asarray(cutting_force, float), np.asarray(feed_force, float), 1.0 / np.asarray(post, float)
    straight = aside / STRAIGHT
    upright = np.hypot(fc * (1.0 / across + aside), ff * (1.0 / along + straight))
    turned = np.hypot(fc * (1.0 / along + straight), ff * (1.0 / across + aside))
    return np.asarray(upright / turned)

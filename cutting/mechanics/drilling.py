"""A drill's point in the metal: chip thickness, torque and thrust of lips, chisel edge and margins; a second model beside them."""

from __future__ import annotations

import numpy as np
from numpy.typing import ArrayLike, NDArray

from cutting.working import Honesty, formula

Array = NDArray[np.float64]
# in·lb and lbf of Shaw and Oxford's law for steel of 200 HB, feed and diameter in inches
OXFORD_TORQUE, OXFORD_LIPS, OXFORD_CHISEL, OXFORD_HARDNESS = 25_200.0, 57_500.0, 625.0, 200.0
INCH, INCH_POUND, POUND = 25.4, 0.1129848, 4.448222
CLOSES, STICKS = 8.0, 0.04  # of springing back, of hardening and sticking: fitted to the three metals of `margin_share`


@formula("cone_length", "{diameter}/2/tan({point_angle}/2)", "iso-5419")
def cone_length(diameter: ArrayLike, point_angle: ArrayLike) -> Array:
    """Length l_c [mm] of the point of a drill: D [mm], σ [°]; 0 for a flat one.

    >>> round(float(cone_length(10.0, 118.0)), 2)
    3.0
    """
    return np.asarray(diameter, float) / 2.0 / np.tan(np.radians(np.asarray(point_angle, float)) / 2.0)


@formula("chip_thickness", "{feed_per_rev}/{flutes}·sin({point_angle}/2)", "iso-3002-3")
def lip_chip_thickness(feed_per_rev: ArrayLike, flutes: ArrayLike, point_angle: ArrayLike) -> Array:
    """Uncut chip thickness h [mm] of one lip: f [mm/rev], z lips, σ [°].

    >>> round(float(lip_chip_thickness(0.2, 2, 118.0)), 4)
    0.0857
    """
    return np.asarray(feed_per_rev) / np.asarray(flutes) * np.sin(np.radians(np.asarray(point_angle, float)) / 2.0)


@formula(
    "lip_thrust",
    "0.5·{specific_force}·{feed_per_rev}·({diameter} − {inner_diameter})/2·sin({point_angle}/2)",
    "tschaetsch",
    Honesty.MODEL,
    "drilling",
)
def lip_thrust(
    specific_force: ArrayLike, feed_per_rev: ArrayLike, diameter: ArrayLike, inner_diameter: ArrayLike, point_angle: ArrayLike
) -> Array:
    """Thrust F_L [N] of all lips between d2 and d [mm]: kc [N/mm²], f [mm/rev], σ [°]. Half of the force on the lips pushes back.

    >>> round(float(lip_thrust(2000.0, 0.2, 10.0, 0.0, 118.0)), 1)
    857.2
    """
    ring = (np.asarray(diameter, float) - np.asarray(inner_diameter)) / 2.0
    return 0.5 * np.asarray(specific_force) * np.asarray(feed_per_rev) * ring * np.sin(np.radians(np.asarray(point_angle, float)) / 2.0)


@formula("thrust", "{lip_thrust}·(1 + {chisel_share})", "common-practice", Honesty.RULE, "drilling")
def drill_thrust(lip_thrust: ArrayLike, chisel_share: ArrayLike) -> Array:
    """Thrust F_f [N] of lips and chisel edge. A full web adds 40 to 100 % of the lips', a thinned one 20 to 40 % (common practice).

    >>> round(float(drill_thrust(857.0, 0.5)), 1)
    1285.5
    """
    return np.asarray(lip_thrust) * (1.0 + np.asarray(chisel_share))


@formula("margin_torque", "{torque}·{margin_share}·{margin_depth}/{diameter}", "common-practice", Honesty.RULE, states="margins")
def margin_torque(torque: ArrayLike, margin_share: ArrayLike, margin_depth: ArrayLike, diameter: ArrayLike) -> Array:
    """Torque M_m [N·m] that the margins rub over the depth that they are in: M of the lips [N·m], l_m and D [mm].

    >>> round(float(margin_torque(10.0, 0.02, 30.0, 10.0)), 3)
    0.6
    """
    return np.asarray(torque) * np.asarray(margin_share) * np.asarray(margin_depth) / np.asarray(diameter)


def margin_share(strength_over_modulus: ArrayLike, work_hardening: ArrayLike, adhesion: ArrayLike) -> Array:
    """Torque of the margins per diameter of depth over that of the lips.

    A hole springs back by strength over modulus and closes on the drill; metals that harden and stick rub more. Common practice:
    steel 2 to 3 % a diameter, stainless 5, titanium and nickel 8.

    >>> bool(0.02 < margin_share(600 / 210_000, 0.2, 0.5) < 0.04 < margin_share(0.9e-2, 0.3, 0.8))  # steel, then titanium
    True
    """
    return CLOSES * np.asarray(strength_over_modulus, float) + STICKS * np.asarray(work_hardening) * np.asarray(adhesion)


def oxford_torque(hardness: ArrayLike, feed_per_rev: ArrayLike, diameter: ArrayLike) -> Array:
    """Torque [N·m] of a twist drill in steel by Shaw and Oxford: HB, f [mm/rev], D [mm]; in proportion to hardness from 200 HB.

    >>> round(float(oxford_torque(200.0, 0.2, 10.0)), 1)
    11.0
    """
    feed, diameter = np.asarray(feed_per_rev, float) / INCH, np.asarray(diameter, float) / INCH
    return INCH_POUND * OXFORD_TORQUE * np.asarray(hardness) / OXFORD_HARDNESS * feed**0.8 * diameter**1.8


def oxford_thrust(hardness: ArrayLike, feed_per_rev: ArrayLike, diameter: ArrayLike) -> Array:
    """Thrust [N] of a twist drill with its chisel edge in steel by Shaw and Oxford: HB, f [mm/rev], D [mm].

    >>> round(float(oxford_thrust(300.0, 0.25, 12.7) / oxford_thrust(200.0, 0.25, 12.7)), 3)  # by the hardness
    1.5
    """
    feed, diameter = np.asarray(feed_per_rev, float) / INCH, np.asarray(diameter, float) / INCH
    pounds = OXFORD_LIPS * feed**0.8 * diameter**0.8 + OXFORD_CHISEL * diameter**2
    return POUND * pounds * np.asarray(hardness) / OXFORD_HARDNESS

"""Regenerative chatter of one dominant mode: the width of cut that stays stable, and its lobes over spindle speed."""

from __future__ import annotations

from functools import lru_cache

import numpy as np
from numpy.typing import ArrayLike, NDArray

from cutting.working import Honesty, formula

Array = NDArray[np.float64]

DAMPING = 0.03  # plain steel shanks and blades; 0.02 to 0.05 are met (common practice)
PART_DAMPING = 0.05  # parts in jaws and on centres, whose joints damp too; 0.03 to 0.08 are met (common practice)
# N/mm³ of metal pushed aside by a flank; its land in an edge that is run in, mm: together a damping of 10⁵ N/m, of the 1 to 6·10⁵ that
# are told of sharp to worn edges (Altintas 2012, from memory)
INDENTATION, RUBBING_LAND = 30_000.0, 0.08
MOST_DAMPED = 3.0
SPEED_MARGIN = 0.1  # the mode's frequency is known to about ten per cent: the lobe is read at its worst within
FREE = 40.0  # times the least depth: where no lobe reaches, depth is held by something else


def wave_length(cutting_speed: ArrayLike, frequency: ArrayLike) -> Array:
    """Length λ [mm] of the wave that a swing f [Hz] leaves on the part at a cutting speed vc [m/min].

    >>> round(float(wave_length(150.0, 500.0)), 2)
    5.0
    """
    return 1000.0 * np.asarray(cutting_speed) / (60.0 * np.asarray(frequency))


@formula("force_slope", "(1 − {force_exponent})·{specific_force}", "kienzle-1952", Honesty.MODEL, "cutting force")
def force_slope(specific_force: ArrayLike, force_exponent: ArrayLike) -> Array:
    """How fast the force per width grows with chip thickness, K = d(kc·h)/dh [N/mm²], from kc and mc.

    >>> round(float(force_slope(2000.0, 0.25)), 1)
    1500.0
    """
    return (1.0 - np.asarray(force_exponent)) * np.asarray(specific_force)


@formula("mode_share", "{in_plane_ratio}·{direction_factor}", "altintas-2012", Honesty.MODEL, "push-off")
def mode_share(in_plane_ratio: ArrayLike, direction_factor: ArrayLike) -> Array:
    """Share μ [–] of a mode: force along it times what it adds to the chip, summed over the edge.

    A part that is pushed away swings along the radius, a shank that bends sideways along the feed. q the in-plane force over
    Fc, D the mean of cos²κ or sin²κ.

    >>> round(float(mode_share(0.4, 0.5)), 2)
    0.2
    """
    return np.asarray(in_plane_ratio) * np.asarray(direction_factor)


@formula(
    "damping_gain",
    "1/(1 − π·C_i·V_b²/({wave_length}·{force_slope}·{in_plane_ratio})), at most 3",
    "altintas-2012",
    Honesty.RULE,
    "stable width",
)
def process_damping(wave_length: ArrayLike, force_slope: ArrayLike, in_plane_ratio: ArrayLike) -> Array:
    """How much wider a slow cut may be because the flank rubs in its own short waves; 1 at high speed.

    λ the wave left on the part [mm], K [N/mm²], q. The land that rubs presses with C_i [N/mm³] times its volume in the wave
    (Tobias; Wu 1989; Altintas 2012, from memory); held at 3, since nobody knows the land that well.

    >>> round(float(process_damping(1e9, 2000.0, 0.4)), 6)  # at a very long wave nothing rubs
    1.0
    """
    rubbed = np.pi * INDENTATION * RUBBING_LAND**2 / (np.asarray(wave_length) * np.asarray(force_slope) * np.asarray(in_plane_ratio))
    return 1.0 / (1.0 - np.minimum(rubbed, 1.0 - 1.0 / MOST_DAMPED))


@formula(
    "stable_width",
    "2·{stiffness}·{damping_ratio}·(1 + {damping_ratio})/({force_slope}·{mode_share})",
    "altintas-2012",
    Honesty.MODEL,
    "stable width",
    "damping",
)
def stable_width(stiffness: ArrayLike, damping_ratio: ArrayLike, force_slope: ArrayLike, mode_share: ArrayLike) -> Array:
    """Width of cut b_lim [mm] that is stable at every speed.

    Mode stiffness k [N/mm], damping ratio ζ, slope of the force K [N/mm²], share μ. Source: Tobias; Tlusty; Altintas,
    Manufacturing Automation, 2012 (from memory): −1/(2·K·μ·min Re G).

    >>> round(float(stable_width(20000.0, 0.03, 1500.0, 0.4)), 3)
    2.06
    """
    slope = np.maximum(np.asarray(force_slope) * np.asarray(mode_share), 1e-9)
    return 2.0 * np.asarray(stiffness) * np.asarray(damping_ratio) * (1.0 + np.asarray(damping_ratio)) / slope


def natural_frequency(stiffness: ArrayLike, mass: ArrayLike) -> Array:
    """Natural frequency f_n [Hz] of a stiffness k [N/mm] with the swinging mass m [kg]: √(1000·k/m)/2π.

    >>> round(float(natural_frequency(1000.0, 1.0)), 1)
    159.2
    """
    return np.sqrt(1000.0 * np.asarray(stiffness) / np.asarray(mass)) / (2.0 * np.pi)


def lobe_gain(turns_per_wave: ArrayLike, damping_ratio: float) -> Array:
    """How much wider than `stable_width` a cut may be at a speed: 1 at worst, more between the lobes.

    `turns_per_wave` = n/(60·f_n), spindle speed n [1/min] over the mode's frequency f_n [Hz]; ζ the damping ratio. Exact
    boundary of 1 + K·μ·b·(1 − e^(−iωT))·G = 0 for one mode, over all lobes. Source: Altintas 2012 (from memory).

    >>> bool(lobe_gain(1.0, 0.03) > 3.0)  # one wave a turn: between the lobes a cut may be several times wider
    True
    """
    speeds, gains = _lobes(damping_ratio)
    return np.interp(np.asarray(turns_per_wave, float), speeds, gains)


def sure_gain(turns_per_wave: ArrayLike, damping_ratio: float) -> Array:
    """`lobe_gain` at its worst within ± 10 % of the speed, since the frequency is known no better.

    >>> bool(sure_gain(1.0, 0.03) < lobe_gain(1.0, 0.03))
    True
    """
    speeds, gains = _sure_lobes(damping_ratio)
    return np.interp(np.asarray(turns_per_wave, float), speeds, gains)


@lru_cache(maxsize=16)
def _sure_lobes(damping: float) -> tuple[Array, Array]:
    speeds, _ = _lobes(damping)
    spread = np.linspace(1.0 - SPEED_MARGIN, 1.0 + SPEED_MARGIN, 41)
    return speeds, np.min(lobe_gain(speeds[:, None] * spread, damping), axis=-1)


@lru_cache(maxsize=16)
def _lobes(damping: float) -> tuple[Array, Array]:
    """Gain over turns per wave, the lowest of all lobes; above the first lobe's speed the gain keeps growing."""
    ratio = 1.0 + np.geomspace(1e-4, 3.0, 4000)  # chatter frequency over natural frequency
    real, imaginary = 1.0 - ratio**2, -2.0 * damping * ratio
    size = real**2 + imaginary**2
    gain = -size / real / (4.0 * damping * (1.0 + damping))  # b over b_min, from b = −1/(2·K·Re G)
    phase = 3.0 * np.pi + 2.0 * np.arctan2(imaginary, real)  # of the wave left against the wave cut
    speeds = np.geomspace(0.02, 4.0, 2400)
    lowest = np.full(speeds.shape, FREE)
    for lobe in range(60):
        at = ratio * 2.0 * np.pi / (2.0 * np.pi * lobe + phase)
        order = np.argsort(at)
        lowest = np.minimum(lowest, np.interp(speeds, at[order], gain[order], left=FREE, right=FREE))
    return speeds, np.maximum(lowest, 1.0)

"""The scatter of tool life as a Weibull law: completion probability and planned edge changes."""

from __future__ import annotations

import numpy as np
from numpy.typing import ArrayLike, NDArray
from scipy.special import gamma

from cutting.working import Honesty, formula

Array = NDArray[np.float64]
NEGLIGIBLE = 1e-10  # share of an interval below which further terms say nothing

_SHAPES = np.linspace(1.2, 14.0, 257)
_VARIATIONS = np.sqrt(gamma(1 + 2 / _SHAPES) / gamma(1 + 1 / _SHAPES) ** 2 - 1)


@formula("weibull_shape", "the shape whose scatter is {coefficient_of_variation}", "weibull-1951")
def weibull_shape(coefficient_of_variation: ArrayLike) -> Array:
    """Weibull shape β for a coefficient of variation CV, by inverting CV(β); held between 1.2 and 14.

    >>> round(float(weibull_shape(1.0 / 1.0)), 1), round(float(weibull_shape(0.363)), 1)  # CV 0.363 is a shape of 3
    (1.2, 3.0)
    """
    return np.interp(np.asarray(coefficient_of_variation, float), _VARIATIONS[::-1], _SHAPES[::-1])


@formula("completion_probability", "2^(−({time_in_cut}/{tool_life})^{weibull_shape})", "weibull-1951", Honesty.MODEL, "life")
def completion_probability(time_in_cut: ArrayLike, tool_life: ArrayLike, weibull_shape: ArrayLike) -> Array:
    """Probability p that an edge of median life T [min] lasts a time in cut [min], shape β. Source: Weibull 1951.

    >>> round(float(completion_probability(7.5, 15.0, 3.0)), 4)
    0.917
    """
    return np.exp2(-((np.asarray(time_in_cut) / np.asarray(tool_life)) ** np.asarray(weibull_shape)))


def mean_used(share_of_median: ArrayLike, weibull_shape: ArrayLike) -> Array:
    """Share of a planned interval that edges last on average, those that fail before its end counted as far as they came.

    The interval as a share of the median life, shape β: ∫₀¹ 2^(−(s·u)^β) du, by its series; the interval is planned so that most
    edges last it. Source: Weibull 1951, expected value of the shorter of life and interval.

    >>> round(float(mean_used(0.75, 4.0)), 4)
    0.9587
    """
    shape = np.asarray(weibull_shape, float)
    a = np.minimum(np.log(2.0) * np.asarray(share_of_median, float) ** shape, 3.0)
    total, term, most = np.ones(np.broadcast_shapes(a.shape, shape.shape)), np.ones_like(a), float(np.max(a, initial=0.0))
    least = 1.0
    for k in range(1, 14):  # enough for the last digit, as the argument stays below 3
        term *= a / -k
        total += term / (k * shape + 1.0)
        least *= most / k
        if least < NEGLIGIBLE:
            break
    return total


def life_quantile(probability: ArrayLike, weibull_shape: ArrayLike) -> Array:
    """Share of the median life that is reached with a probability p: (−log2 p)^(1/β).

    >>> round(float(life_quantile(0.99, 4.0)), 2)
    0.35
    """
    return (-np.log2(np.asarray(probability, float))) ** (1.0 / np.asarray(weibull_shape))

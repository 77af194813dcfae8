"""Reductions over the passes, the short last axis, where NumPy's own are slow; and the plain numbers at the end."""

from __future__ import annotations

from typing import Any

import numpy as np
from numpy.typing import ArrayLike, NDArray


def over_passes(values: Any, join: np.ufunc = np.maximum) -> NDArray[Any]:
    """Join the last axis with a binary function (maximum, minimum, add, logical_or); it is kept with length one."""
    array = np.atleast_1d(values)
    joined = array[..., :1]
    for k in range(1, array.shape[-1]):
        joined = join(joined, array[..., k : k + 1])
    return joined


def last_pass(values: ArrayLike) -> float:
    """The value of the last pass, or the only one."""
    return float(np.ravel(np.asarray(values, float))[-1])


def plain_floats(values: ArrayLike) -> tuple[float, ...]:
    """An array as the plain numbers of a curve."""
    return tuple(float(v) for v in np.ravel(np.asarray(values, float)))


def of_one(x: Any, k: int) -> dict[str, NDArray[Any]]:
    """The arrays of one of many entries by name, from a dataclass of numbers whose arrays are (entries, steps)."""
    values = {name: getattr(x, name) for name in x.__dataclass_fields__}
    return {name: value[k] for name, value in values.items() if isinstance(value, np.ndarray) and value.ndim > 1}

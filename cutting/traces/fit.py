"""What a recorded trace teaches: force of each layer, chisel edge, margins; each with its interval, and what is left over."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Any

import numpy as np
from numpy.typing import NDArray
from scipy.optimize import least_squares
from scipy.stats import t as student

from cutting.errors import CuttingError
from cutting.operations.holes.drill.numbers import Numbers
from cutting.operations.holes.drill.simulation import Cutting, DepthPoint, cutting_of, trace
from cutting.traces.table import Trace

Array = NDArray[np.float64]
SURE = 0.95
STATIONS = 600  # at most: a denser record is thinned evenly
CONTACT = 0.06  # share of the full thrust that counts as the first contact
LEAST_ENGAGED, ABOVE_NOISE = 12, 6.0


@dataclass(frozen=True)
class Parameter:
    """One number that was fitted: in which terms, its value with the interval, and what the tables say."""

    name: str
    label: str
    value: float
    low: float
    high: float
    before: float


@dataclass(frozen=True)
class Fit:
    """Parameters, the shift [mm] from the recorder's zero to the first contact, the residual [N, N·m], and the record laid over."""

    parameters: tuple[Parameter, ...]
    shift: float
    thrust_residual: float
    torque_residual: float
    explained: float  # share of the variation that the fitted prediction explains
    depth: Array
    thrust: Array  # as recorded, without zero and drift
    torque: Array
    fitted_thrust: Array
    fitted_torque: Array


def fit_trace(found: Trace, x: Numbers) -> Fit:
    """The prediction of a set-up, fitted to a record of a sharp drill. Raises `CuttingError` for a record that shows no cut.

    Unknown are the force of every material, the chisel edge's share, a factor on the margins' friction, where the recorder's zero
    lies, and zero and drift of both channels; all at once by least squares, each channel weighed by its noise.
    """
    thin = _thinned(found)
    point, cutting = cutting_of(x)
    layers = x.layers
    names = [one.material.name for one in x.setup.layers]
    metals = list(dict.fromkeys(names))
    place = np.array([metals.index(name) for name in names])
    noise = _noise(thin.thrust), _noise(thin.torque)
    first = _contact(thin)
    guess = _start(thin, first, point, layers, cutting, len(metals))

    def predict(theta: Array) -> tuple[Array, Array]:
        force, chisel, margin, shift = np.exp(theta[: len(metals)])[place], theta[-6], theta[-5], theta[-7]
        model = Cutting(cutting.force * force, cutting.back, chisel, cutting.margin_share * margin)
        thrust, lips, rubbed = trace(thin.depth - shift, point, layers.near, layers.far, model)
        along = (thin.depth - thin.depth[0]) / (thin.depth[-1] - thin.depth[0])
        return thrust + theta[-4] + theta[-3] * along, lips + rubbed + theta[-2] + theta[-1] * along

    def misses(theta: Array) -> Array:
        thrust, torque = predict(theta)
        return np.concatenate([(thrust - thin.thrust) / noise[0], (torque - thin.torque) / noise[1]])

    least = np.full(len(guess), -np.inf)
    least[[-6, -5]] = 0.0  # nothing pulls the drill in, nothing turns it on
    solved = least_squares(misses, guess, bounds=(least, np.inf), x_scale=np.maximum(np.abs(guess), 0.05), max_nfev=200)
    theta, spare = solved.x, max(2 * len(thin.depth) - len(guess), 1)
    width = float(student.ppf(0.5 + SURE / 2, spare)) * _errors(solved, spare)
    base = np.concatenate([np.zeros(len(metals)), [0.0, x.setup.drill.chisel_share, 1.0, 0, 0, 0, 0]])
    return _told(thin, theta, width, base, metals, predict)


def _told(thin: Trace, theta: Array, width: Array, base: Array, metals: list[str], predict: Any) -> Fit:
    count = len(metals)
    forces = []
    for k, name in enumerate(metals):
        value, low, high = (float(np.exp(theta[k] + side * width[k])) for side in (0, -1, 1))
        forces.append(Parameter(f"force {name}", f"force in {name}", value, low, high, 1.0))
    words = (("chisel share", "chisel edge over the lips' thrust", count + 1), ("margin", "friction of the margins", count + 2))
    others = [
        Parameter(name, label, float(theta[k]), float(theta[k] - width[k]), float(theta[k] + width[k]), float(base[k]))
        for name, label, k in words
    ]
    thrust, torque = predict(theta)
    along = (thin.depth - thin.depth[0]) / (thin.depth[-1] - thin.depth[0])
    zeros = theta[-4] + theta[-3] * along, theta[-2] + theta[-1] * along
    left = thin.thrust - thrust, thin.torque - torque
    spread = float(np.sum((thin.thrust - thin.thrust.mean()) ** 2))
    return Fit(
        (*forces, *others), float(theta[count]), float(np.std(left[0])), float(np.std(left[1])),
        1.0 - float(np.sum(left[0] ** 2)) / max(spread, 1e-12), thin.depth - theta[count],
        thin.thrust - zeros[0], thin.torque - zeros[1], thrust - zeros[0], torque - zeros[1],
    )  # fmt: skip


def _thinned(found: Trace) -> Trace:
    step = max(1, len(found.depth) // STATIONS)
    return replace(found, depth=found.depth[::step], thrust=found.thrust[::step], torque=found.torque[::step])


def _noise(values: Array) -> float:
    """Standard deviation of a channel's noise from its second differences, which a slope does not move."""
    bends = np.diff(values, n=2)
    # the median of deviations is 1/1.4826 of a normal spread; second differences widen it √6 times
    return max(1.4826 * float(np.median(np.abs(bends))) / np.sqrt(6.0), 1e-6 * max(float(np.ptp(values)), 1e-9))


def _contact(found: Trace) -> float:
    """Depth on the recorder at which the thrust first rises for good."""
    quiet = float(np.median(found.thrust[: max(3, len(found.thrust) // 50)]))
    # the height of the cut without its peaks
    level = max(CONTACT * float(np.percentile(found.thrust, 98) - quiet), ABOVE_NOISE * _noise(found.thrust))
    over = np.flatnonzero(found.thrust - quiet > level)
    if len(over) < LEAST_ENGAGED:
        raise CuttingError("text", "shows no cut: the thrust never rises for long.")
    return float(found.depth[max(int(over[0]) - 1, 0)])


def _start(found: Trace, first: float, point: DepthPoint, layers: Any, cutting: Cutting, metals: int) -> Array:
    """Where the search begins: one force factor for all from the means while the drill cuts."""
    _, lips, margin = trace(found.depth - first, point, layers.near, layers.far, cutting)
    cuts = lips > 0.3 * float(lips.max())  # of the full lips
    if not cuts.any():
        raise CuttingError("text", "is shorter than the way to the first layer's full cut.")
    share = float(np.clip(np.mean(found.torque[cuts]) / max(float(np.mean((lips + margin)[cuts])), 1e-9), 0.1, 8.0))
    quiet = [float(np.median(channel[: max(3, len(channel) // 50)])) for channel in (found.thrust, found.torque)]
    return np.concatenate([np.full(metals, np.log(share)), [first, cutting.chisel_share, 1.0, quiet[0], 0.0, quiet[1], 0.0]])


def _errors(solved: Any, spare: int) -> Array:
    """Standard errors of the parameters, from the curvature at the solution and the residual."""
    curvature = solved.jac.T @ solved.jac
    return np.sqrt(np.maximum(np.diag(np.linalg.pinv(curvature)) * 2.0 * solved.cost / spare, 0.0))

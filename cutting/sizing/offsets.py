"""Setting offset and springing, told apart from measured sizes: a linear regression with the beam model as its prior.

measured − commanded = a + c·Fp. The offset a is how the tool was set; c·Fp is what part and tool spring under the passive
force. Only cuts with different forces can tell the two apart: equal cuts teach their sum, and that is enough for one more
equal cut.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

Array = NDArray[np.float64]

OFFSET_SPREAD = 0.5  # mm, standard deviation of an unknown setting: touching off is no better than that
SPRING_SPREAD = 0.4  # of the beam model's own value
PROCESS_SPREAD = 0.002  # mm from cut to cut that nothing here explains (common practice)
TAUGHT = 0.7  # springing counts as taught when its spread has shrunk to this share
UNLIKE = 0.2  # a cut whose force differs by more than this from those that taught is unlike them


@dataclass(frozen=True)
class Observation:
    """One measured cut: commanded and measured diameter at 20 °C [mm], passive force [N], standard uncertainty [mm]."""

    commanded: float
    measured: float
    force: float
    uncertainty: float

    @property
    def offset(self) -> float:
        return self.measured - self.commanded


@dataclass(frozen=True)
class OffsetEstimate:
    """What is known of offset a [mm] and springing c [mm/N]: mean and covariance."""

    mean: Array
    covariance: Array
    prior_spring: float
    forces: tuple[float, ...] = ()

    @property
    def springing_taught(self) -> bool:
        return bool(np.sqrt(self.covariance[1, 1]) < TAUGHT * SPRING_SPREAD * self.prior_spring)

    def predict(self, force: float) -> tuple[float, float]:
        """Expected offset [mm] of a cut with this passive force [N], and its standard deviation."""
        x = np.array([1.0, force])
        return float(x @ self.mean), float(np.sqrt(x @ self.covariance @ x + PROCESS_SPREAD**2))

    def unlike(self, force: float) -> bool:
        """Whether a cut pushes unlike every cut that taught."""
        return bool(self.forces) and all(abs(force - known) > UNLIKE * max(known, 1e-9) for known in self.forces)


def prior(compliance: float) -> OffsetEstimate:
    """The belief before any measurement: setting unknown, springing c = 2·compliance [mm on diameter per N] ± 40 %.

    >>> [round(float(x), 3) for x in prior(0.001).mean]  # 1 µm a newton on the radius is 2 on the diameter
    [0.0, 0.002]
    """
    spring = 2.0 * compliance
    return OffsetEstimate(np.array([0.0, spring]), np.diag([OFFSET_SPREAD**2, (SPRING_SPREAD * spring) ** 2]), spring)


def learn(belief: OffsetEstimate, observations: list[Observation]) -> OffsetEstimate:
    """The belief after measured cuts: the Gaussian posterior of the regression. Source: linear Bayes."""
    precision = np.linalg.inv(belief.covariance)
    weighed = precision @ belief.mean
    for one in observations:
        x = np.array([1.0, one.force])
        weight = 1.0 / (one.uncertainty**2 + PROCESS_SPREAD**2)
        precision = precision + weight * np.outer(x, x)
        weighed = weighed + weight * x * one.offset
    covariance = np.linalg.inv(precision)
    return OffsetEstimate(covariance @ weighed, covariance, belief.prior_spring, (*belief.forces, *(one.force for one in observations)))


def command_for(target: float, expected: float) -> float:
    """What to command [mm] so that the cut comes out at `target` [mm], given its expected offset [mm].

    >>> round(command_for(40.0, 0.02), 2)  # it comes out 0.02 large, so that much less is asked for
    39.98
    """
    return target - expected

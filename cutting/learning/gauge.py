"""What an instrument sees of a zone: repeatability and reproducibility by a crossed study."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from scipy.stats import f as fisher

from cutting.errors import CuttingError

MOST_SHARE = 0.30  # of the zone, above which an instrument cannot see the fit; below 0.10 it is good (common practice, MSA)
GOOD_SHARE = 0.10
WIDTH = 6.0  # standard deviations that are set against the zone


@dataclass(frozen=True)
class Gauge:
    """Standard deviations [mm]: of one person's repeats, between people, and of the parts; share of the zone that the instrument uses."""

    repeatability: float
    reproducibility: float
    parts: float
    share: float | None

    @property
    def both(self) -> float:
        return float(np.hypot(self.repeatability, self.reproducibility))

    @property
    def verdict(self) -> str:
        """What it can be used for."""
        if self.share is None:
            return "no zone is given: nothing to set it against"
        if self.share > MOST_SHARE:
            return "cannot see this fit: take another instrument before the trial"
        return "good" if self.share <= GOOD_SHARE else "usable: take the mean of two readings near the ends of the zone"


def gauge_study(readings: Sequence[Sequence[Sequence[float]]], zone: float | None = None) -> Gauge:
    """Analysis of variance of a crossed study, readings as people × parts × repeats. Raises `CuttingError` for a study that is none.

    The interaction of people and parts goes into the repeatability where it is not seen (F below that of 25 % by luck).
    Source: AIAG Measurement Systems Analysis, 4th edition, ANOVA method; Montgomery, section 8.7.
    """
    try:
        x = np.asarray(readings, float)
    except ValueError as error:
        raise CuttingError("readings", "each person measures each part equally often.") from error
    if x.ndim != 3 or min(x.shape) < 2:
        raise CuttingError("readings", "at least 2 people, 2 parts and 2 repeats are wanted, each part by each person.")
    people, parts, repeats = x.shape
    mean = x.mean()
    of_people, of_parts, of_cells = x.mean(axis=(1, 2)), x.mean(axis=(0, 2)), x.mean(axis=2)
    ss_people = parts * repeats * ((of_people - mean) ** 2).sum()
    ss_parts = people * repeats * ((of_parts - mean) ** 2).sum()
    ss_cells = repeats * ((of_cells - mean) ** 2).sum() - ss_people - ss_parts
    ss_error = ((x - of_cells[:, :, None]) ** 2).sum()
    d_people, d_parts = people - 1, parts - 1
    d_cells, d_error = d_people * d_parts, people * parts * (repeats - 1)
    ms_cells, ms_error = ss_cells / d_cells, ss_error / d_error
    if ms_error > 0 and ms_cells / ms_error < _seen(d_cells, d_error):  # no interaction is seen: it is repeatability too
        ms_error = ms_cells = (ss_cells + ss_error) / (d_cells + d_error)
        of_interaction = 0.0
    else:
        of_interaction = max((ms_cells - ms_error) / repeats, 0.0)
    of_person = max((ss_people / d_people - ms_cells) / (parts * repeats), 0.0)
    of_part = max((ss_parts / d_parts - ms_cells) / (people * repeats), 0.0)
    repeatability, reproducibility = float(np.sqrt(ms_error)), float(np.sqrt(of_person + of_interaction))
    share = WIDTH * float(np.hypot(repeatability, reproducibility)) / zone if zone else None
    return Gauge(repeatability, reproducibility, float(np.sqrt(of_part)), share)


def _seen(above: int, below: int) -> float:
    """F from which an interaction is taken as there."""
    return float(fisher.isf(0.25, above, below))

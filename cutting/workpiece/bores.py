"""Bores of several steps on one axis, from the face inward, as people write them in one line."""

from __future__ import annotations

import itertools
import re
from collections.abc import Iterable
from dataclasses import dataclass, replace

from cutting.errors import CuttingError, OutOfRange
from cutting.quantities import read_quantity
from cutting.quantities.dimension import Dimension, read_dimension, spelled_out

MOST_BORES = 8
DIAMETER, LENGTH, PLACE = (5.0, 1500.0), (0.1, 2000.0), (0.0, 3000.0)  # mm
EXAMPLE = "200 H6 x 14 / 120 H7 x 25 / 62 H6 x 24 at 69"
_SIZE = r"(?:\d+/\d+|\d[\d.,]*)\s*(?:mm|in|inch|\")?"
_BORE = re.compile(rf"(?P<size>.+?)\s*[x×]\s*(?P<long>{_SIZE})(?:\s+at\s+(?P<at>{_SIZE}))?\s*", re.IGNORECASE)
_BETWEEN = re.compile(r"[;\n]|\s/|/\s")  # the slash of two deviations has no blank beside it


@dataclass(frozen=True)
class BoreStep:
    """One bore of several: its size, and from where to where it goes, mm from the face inward."""

    diameter: Dimension
    near: float
    far: float

    @property
    def length(self) -> float:
        return self.far - self.near


def read_bores(text: str, system: str = "mm", field: str = "feature.bores") -> tuple[BoreStep, ...]:
    """Bores such as `200 H6 x 14 / 120 H7 x 25 / 62 H6 x 24 at 69`: each as long as it says, behind the one before, or at a place.

    Each is narrower than the one before it. Raises `CuttingError` that names the bore.

    >>> [(one.diameter.nominal, one.near, one.far) for one in read_bores(EXAMPLE)]
    [(200.0, 0.0, 14.0), (120.0, 14.0, 39.0), (62.0, 69.0, 93.0)]
    """
    found: list[BoreStep] = []
    words = [part.strip() for part in _BETWEEN.split(text) if part.strip()]
    for number, word in enumerate(words, start=1):
        match = _BORE.fullmatch(word)
        if match is None:
            raise CuttingError(field, f"bore {number}, '{word[:40]}', is no size with a length, as in {EXAMPLE}.", EXAMPLE)
        size = read_dimension(match["size"], system, field)
        long = _length(match["long"], system, number, field, LENGTH)
        near = _length(match["at"], system, number, field, PLACE) if match["at"] else found[-1].far if found else 0.0
        found.append(BoreStep(size, near, near + long))
    _check(found, field)
    return tuple(found)


def _check(bores: list[BoreStep], field: str) -> None:
    if not 1 <= len(bores) <= MOST_BORES:
        raise OutOfRange(field, f"{len(bores)} bores are outside 1 to {MOST_BORES}.", f"1 to {MOST_BORES} bores")
    for number, one in enumerate(bores, start=1):
        if not DIAMETER[0] <= one.diameter.nominal <= DIAMETER[1]:
            said = f"{DIAMETER[0]:g} to {DIAMETER[1]:g} mm"
            raise OutOfRange(field, f"bore {number}: Ø{one.diameter.nominal:g} is outside {said}.", said)
    for number, (outer, inner) in enumerate(itertools.pairwise(bores), start=2):
        if inner.diameter.nominal >= outer.diameter.nominal:
            said = f"bore {number}: Ø{inner.diameter.nominal:g} is not below Ø{outer.diameter.nominal:g}, which is bored before it."
            raise CuttingError(field, said, f"below {outer.diameter.nominal:g} mm")
        if inner.near < outer.far - 1e-9:
            raise CuttingError(field, f"bore {number} begins at {inner.near:g} mm, inside the one before it.", f"from {outer.far:g} mm")


def _length(text: str, system: str, number: int, field: str, bounds: tuple[float, float]) -> float:
    try:
        value = read_quantity(text, "length", system=system, field=field).value
    except CuttingError as error:
        error.message = f"bore {number}: {error.message}"
        raise
    if not bounds[0] <= value <= bounds[1]:
        said = f"{bounds[0]:g} to {bounds[1]:g} mm"
        raise OutOfRange(field, f"bore {number}: {text.strip()} is outside {said}.", said)
    return value


def written(bores: Iterable[BoreStep]) -> str:
    """The bores in one line, as they are read again in millimetres."""
    found, end = [], 0.0
    for one in bores:
        place = f" at {one.near:g} mm" if abs(one.near - end) > 1e-9 else ""
        size = one.diameter.entered or f"{one.diameter.nominal:g} mm"
        found.append(f"{size} x {one.length:g} mm{place}")
        end = one.far
    return " / ".join(found)


def with_units(text: str, system: str, field: str = "feature.bores") -> str:
    """The line with the unit that it was typed in beside every number, so that it means the same anywhere. Raises `CuttingError`."""
    bores = read_bores(text, system, field)
    told = (replace(one, diameter=replace(one.diameter, entered=spelled_out(one.diameter.entered, system, field))) for one in bores)
    return written(told)

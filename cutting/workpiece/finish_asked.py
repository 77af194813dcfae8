"""The finish that is asked where a drawing says none: a tolerance implies one, as a size cannot be truer than its surface is smooth."""

from __future__ import annotations

import re

from cutting.quantities.dimension import Dimension

RZ_OF_RA = 5.0  # Rz of a turned face over its Ra (common practice: 4 to 6)
FINEST, COARSEST = 0.4, 6.3  # Ra [µm] between which a tolerance implies one (common practice)
_CLASS = re.compile(r"[A-Za-z]{1,2}\s?\d{1,2}$")


def implied_roughness(size: Dimension, share: float) -> float | None:
    """Ra [µm] that a tolerance implies: Rz is at most a share [–] of its zone. None without a tolerance, or where the share is 0.

    Source: practice after ISO 4288 and the withdrawn DIN 4768, from memory: a quarter to a half of the zone.

    >>> from cutting.quantities.dimension import read_dimension
    >>> round(implied_roughness(read_dimension("40 h6"), 1 / 3), 2)
    1.07
    """
    if not size.tolerance or share <= 0:
        return None
    return min(max(1000.0 * size.tolerance * share / RZ_OF_RA, FINEST), COARSEST)


def implied_by(size: Dimension) -> str:
    """The tolerance in the drawing's word: `h6`, else `its tolerance`."""
    found = _CLASS.search(size.entered.strip())
    return found[0].replace(" ", "") if found else "its tolerance"

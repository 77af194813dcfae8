"""How the part springs along the cut, what would support it, and where it sings."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from cutting.operations.turned.setup import Setup
from cutting.operations.turned.springing import allowed, springing, supports
from cutting.operations.turned.stability import stability
from cutting.studies.study import TURNED, Study


@dataclass(frozen=True)
class Rigidity:
    """How far part and tool spring, how far they may, what would hold them, and up to which width a cut stays quiet."""

    springs: Any
    allowed: Any
    supports: Any
    quiet: Any


def ask(setup: Setup, stock: Any) -> Rigidity:
    """All four of one set-up."""
    return Rigidity(springing(setup), allowed(setup), supports(setup), stability(setup))


STUDY = Study(
    "rigidity",
    "rigidity",
    "r",
    (*TURNED, "bore"),
    elsewhere={
        "drill": "The tool bends, not the part: its limits stand on the bench (buckling, twist, straightness).",
        "mill hole": "The tool bends, not the part: its limits stand on the bench (bending, taper, size off).",
        "heavy bore": "The tool bends, not the part: its limits stand on the bench (bending frequency, cylindricity).",
        "turn thread": "How far tool and part spring stands among the limits; spring passes take it back.",
        "tap": "A tap follows its own thread: what bends it is a hole that lies off its axis.",
        "mill thread": "The tool bends, not the part: push-off, taper and bending stand among the limits.",
    },
    ask=ask,
)

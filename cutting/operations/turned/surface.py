"""The surface that a single point makes on a turning part: its outside, its face, or its inside."""

from __future__ import annotations

from enum import Enum


class Surface(Enum):
    """By the kind of operation that makes it."""

    OUTSIDE = "turn"
    FACE = "face"
    INSIDE = "bore"

    @property
    def shrinks(self) -> float:
        """1 where a cut makes the diameter that is measured smaller, −1 where it makes it larger."""
        return -1.0 if self is Surface.INSIDE else 1.0

    @property
    def keeps_size(self) -> bool:
        """Whether a diameter comes out that is measured after each pass; of a face a length does."""
        return self is not Surface.FACE

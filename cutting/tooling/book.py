"""The window that a shop's own supplier recommends for a tool in a group of metals."""

from __future__ import annotations

import itertools
from dataclasses import dataclass

from cutting.errors import OutOfRange


@dataclass(frozen=True)
class Span:
    """Least, starting and largest value; None where the book says nothing."""

    minimum: float | None = None
    start: float | None = None
    maximum: float | None = None

    def check(self, name: str) -> None:
        """Raise `OutOfRange` where the three are not in rising order."""
        given = [(word, v) for word, v in (("min", self.minimum), ("start", self.start), ("max", self.maximum)) if v is not None]
        for (low_word, low), (high_word, high) in itertools.pairwise(given):
            if low > high:
                raise OutOfRange(
                    f"{name}_{low_word}", f"{low:g} is above {high:g}, which stands as {name}_{high_word}.", f"at most {high:g}"
                )


@dataclass(frozen=True)
class BookWindow:
    """A supplier's recommendation for one machinability group: m/min, mm/rev, mm."""

    group: int
    cutting_speed: Span = Span()
    feed_per_rev: Span = Span()
    depth_of_cut: Span = Span()
    source: str = ""

    def check(self) -> None:
        """Raise `OutOfRange` for a span out of order, `OutOfRange` too where nothing at all is given."""
        spans = {"speed": self.cutting_speed, "feed": self.feed_per_rev, "depth": self.depth_of_cut}
        for name, span in spans.items():
            span.check(name)
        if all(value is None for span in spans.values() for value in (span.minimum, span.start, span.maximum)):
            raise OutOfRange("speed_max", "no number at all is given; at least one of speed, feed or depth is needed.")

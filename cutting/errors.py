"""Every way in which the core refuses an input: which input, which bound, what would be right."""

from __future__ import annotations

from dataclasses import dataclass, field


@dataclass
class CuttingError(ValueError):
    """An input that the core refuses.

    `field` names the input as the caller wrote it (a path such as `settings.feed_per_rev`),
    `message` is one sentence for a person, `bound` the limit that was broken, where there is one.
    """

    field: str
    message: str
    bound: str | None = None

    def __str__(self) -> str:
        return f"{self.field}: {self.message}" if self.field else self.message

    def under(self, prefix: str) -> CuttingError:
        """The same error, seen from one level further out."""
        self.field = f"{prefix}.{self.field}" if self.field else prefix
        return self


@dataclass
class OutOfRange(CuttingError):
    """A value outside its bounds."""


@dataclass
class UnreadableQuantity(CuttingError):
    """Text that is not a quantity of the kind wanted."""


@dataclass
class AmbiguousQuantity(CuttingError):
    """Text with two readings; both are offered."""

    readings: tuple[str, ...] = ()


@dataclass
class UnknownName(CuttingError):
    """A name that no table knows; the nearest known names are offered."""

    suggestions: tuple[str, ...] = field(default=())


def require_between(name: str, value: float, low: float, high: float, unit: str = "") -> float:
    """Return `value` when low <= value <= high, else raise `OutOfRange` naming field and bounds."""
    if not low <= value <= high:  # also refuses NaN
        bound = f"{low:g} to {high:g} {unit}".strip()
        raise OutOfRange(name, f"{value:g} is outside {bound}.", bound)
    return value

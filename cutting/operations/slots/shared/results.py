"""Results with their bands, as every narrow cut shows them."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

from cutting.operations.frame.money import change_shown, life_shown, parts_shown
from cutting.operations.frame.outcome import Value, shown
from cutting.quantities.write import Display
from cutting.working import Recorder

LIFE_BAND, FORCE_BAND = 2.0, 0.25


class Shown:
    """Collects results by name, in the order in which they are said."""

    def __init__(self, record: Recorder) -> None:
        self.record = record
        self.found: dict[str, Value] = {}

    def _keep(self, value: Value) -> None:
        self.found[value.name] = value

    def plain(self, name: str, label: str, value: Any, kind: str, honesty: str = "exact", *trail: str) -> None:
        """A number without a band of its own."""
        self._keep(shown(name, label, value, kind, honesty, None, self.record.trail(*trail)))

    def banded(self, name: str, label: str, value: Any, kind: str, share: float, *trail: str) -> None:
        """A model's number with its band to both sides."""
        self._keep(shown(name, label, value, kind, "model", (value * (1 - share), value * (1 + share)), self.record.trail(*trail)))

    def halved(self, name: str, label: str, value: Any, kind: str, said: Display | None = None) -> None:
        """A number of tool life: a factor of two either way; `said` where it is told otherwise than as the number."""
        trail = self.record.trail("tool_life", "weibull_shape")
        found = shown(name, label, value, kind, "model", (value / LIFE_BAND, value * LIFE_BAND), trail)
        self._keep(replace(found, display=said) if said else found)

    def money(self, x: Any) -> None:
        """Seconds and money of the operation."""
        share = x.edge_cost / x.change_parts
        self._keep(
            shown(
                "operation_time",
                "this operation",
                x.operation_time,
                "duration",
                "model",
                (0.97 * x.operation_time, 1.05 * x.operation_time),
            )
        )
        self._keep(
            shown("operation_cost", "cost", x.operation_cost, "money", "model", (x.operation_cost - share / 2, x.operation_cost + share))
        )

    def life(self, x: Any) -> None:
        """How long an edge lasts, and how surely."""
        self.halved("median_parts", "edge lasts, pieces", x.median_parts, "count", parts_shown(x.median_parts, x.tool_life))
        self.halved("change_parts", "change edge every", x.change_parts, "count", change_shown(x.setup, x.change_parts))
        self.halved("tool_life", "life in cut", x.tool_life, "life", life_shown(x.tool_life))
        self.plain("secure", "secure", 100 * x.secure, "share", "rule", "weibull_shape")

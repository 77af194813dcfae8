"""Results with their bands, as every kind shows them."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

from cutting.operations.frame.money import change_shown, life_shown, parts_shown
from cutting.operations.frame.outcome import Value, shown
from cutting.operations.frame.over_passes import last_pass
from cutting.quantities.write import Display
from cutting.working import Recorder


class ResultsSaid:
    """Collects results by name, in the order in which they are said; of several passes the last one's number."""

    def __init__(self, record: Recorder) -> None:
        self.record = record
        self.found: dict[str, Value] = {}

    def keep(self, value: Value) -> None:
        """A result that is built elsewhere."""
        self.found[value.name] = value

    def plain(self, name: str, label: str, value: Any, kind: str, honesty: str = "exact", *trail: str) -> None:
        """A number without a band of its own."""
        self.keep(shown(name, label, last_pass(value), kind, honesty, None, self.record.trail(*trail)))

    def between(self, name: str, label: str, value: Any, kind: str, low: float, high: float, *trail: str) -> None:
        """A model's number with its band."""
        self.keep(shown(name, label, last_pass(value), kind, "model", (low, high), self.record.trail(*trail)))

    def banded(self, name: str, label: str, value: Any, kind: str, band: str, *trail: str) -> None:
        """A model's number with the band of that name."""
        number = last_pass(value)
        self.between(name, label, number, kind, *self.record.band(band).about(number), *trail)

    def halved(self, name: str, label: str, value: Any, kind: str, said: Display, *trail: str) -> None:
        """A number of tool life with the band of it; `said` is how it is told."""
        number = last_pass(value)
        found = shown(name, label, number, kind, "model", self.record.band("life").about(number), self.record.trail(*trail))
        self.keep(replace(found, display=said))

    def money(self, x: Any) -> None:
        """Seconds and money of the operation."""
        seconds, cost, edges = last_pass(x.operation_time), last_pass(x.operation_cost), last_pass(x.edge_cost / x.change_parts)
        self.banded("operation_time", "this operation", seconds, "duration", "seconds", "engaged_time", "operation_time")
        life = self.record.band("life")
        band = (cost - edges * (1 - 1 / life.high), cost + edges * (1 / life.low - 1))
        self.between("operation_cost", "cost", cost, "money", *band, "operation_time", "operation_cost")

    def life(self, x: Any) -> None:
        """How long an edge lasts, and how surely."""
        median, change, life = last_pass(x.median_parts), last_pass(x.change_parts), last_pass(x.tool_life)
        pieces = ("median_parts", "edge lasts, pieces", median, "count")
        self.halved(*pieces, parts_shown(median, life), "chip_thickness", "tool_life")
        planned = ("change_parts", "change edge every", change, "count")
        self.halved(*planned, change_shown(x.setup, change), "tool_life", "weibull_shape")
        self.halved("tool_life", "life in cut", life, "life", life_shown(life), "chip_thickness", "tool_life")
        self.plain("secure", "secure", 100 * x.secure, "share", "rule", "weibull_shape", "completion_probability")

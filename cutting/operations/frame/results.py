"""Results with their bands, as every kind shows them."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

from cutting.operations.frame.money import TRUSTED_LIFE, life_shown, parts_shown
from cutting.operations.frame.outcome import Value, shown
from cutting.operations.frame.over_passes import last_pass
from cutting.operations.frame.spent_lines import change_planned, lasting, longest_trusted, secured, trusted
from cutting.quantities.kinds import KINDS
from cutting.quantities.write import Display, display
from cutting.working import Line, Recorder, WorkingStep, in_words, last_step, line
from cutting.working.recorder import Pick

Ends = Line | str | None  # how a working ends: a last line, or words


class ResultsSaid:
    """Collects results by name, in the order in which they are said; of several passes the last one's number."""

    def __init__(self, record: Recorder) -> None:
        self.record = record
        self.found: dict[str, Value] = {}

    def keep(self, value: Value) -> None:
        """A result that is built elsewhere."""
        self.found[value.name] = value

    def plain(self, name: str, label: str, value: Any, kind: str, honesty: str = "exact", *trail: str, ends: Ends = None) -> None:
        """A number without a band of its own; `ends` is the last line of its working where no formula ends in it, also in words."""
        number = last_pass(value)
        self.keep(shown(name, label, number, kind, honesty, None, self._led(trail, name, label, number, kind, ends)))

    def between(
        self, name: str, label: str, value: Any, kind: str, low: float, high: float, *trail: str, ends: Ends = None, at: Pick = None
    ) -> None:
        """A model's number with its band; `at` is the pass or layer that its working is of, where that is not the last."""
        number = last_pass(value)
        self.keep(shown(name, label, number, kind, "model", (low, high), self._led(trail, name, label, number, kind, ends, at)))

    def banded(self, name: str, label: str, value: Any, kind: str, band: str, *trail: str, ends: Ends = None, at: Pick = None) -> None:
        """A model's number with the band of that name."""
        number = last_pass(value)
        self.between(name, label, number, kind, *self.record.band(band).about(number), *trail, ends=ends, at=at)

    def halved(
        self, name: str, label: str, value: Any, kind: str, said: Display, *trail: str, ends: Ends = None, known: bool = True
    ) -> None:
        """A number of tool life with the band of it, which nobody knows beyond a trusted life; `said` is how it is told."""
        number = last_pass(value)
        band = self.record.band("life").about(number) if known else None
        working = self._led(trail, name, label, number, kind, ends)
        self.keep(replace(shown(name, label, number, kind, "model", band, working), display=said))

    def _led(
        self, trail: tuple[str, ...], name: str, label: str, number: float, kind: str, ends: Ends, at: Pick = None
    ) -> tuple[WorkingStep, ...]:
        steps = self.record.trail(*trail, at=at)
        if ends is None:
            return steps
        said = in_words(ends) if isinstance(ends, str) else ends
        return (*steps, last_step(name, label, number, KINDS[kind].metric, said, at))

    def money(self, x: Any) -> None:
        """Seconds and money of the operation."""
        seconds, cost, edges = last_pass(x.operation_time), last_pass(x.operation_cost), last_pass(x.edge_cost / x.change_parts)
        self.banded("operation_time", "operation time", seconds, "duration", "seconds", "engaged_time", "operation_time")
        life = self.record.band("life")
        band = (cost - edges * (1 - 1 / life.high), cost + edges * (1 / life.low - 1))
        self.between("operation_cost", "cost", cost, "money", *band, "operation_time", "operation_cost")

    def life(self, x: Any) -> None:
        """How long an edge lasts, and how surely."""
        median, change, life = last_pass(x.median_parts), last_pass(x.change_parts), last_pass(x.tool_life)
        pieces = ("median_parts", "tool life, pieces", trusted(x) * median, "count")
        known = life <= TRUSTED_LIFE
        self.halved(
            *pieces, parts_shown(median, life), "chip_thickness", "speed_factor", "tool_life", ends=lasting(x, self.record), known=known
        )
        planned = ("change_parts", "change interval", change, "count")
        self.halved(*planned, display(change, "count"), "speed_factor", "tool_life", "weibull_shape", ends=change_planned(x))
        minutes = ("tool_life", "tool life in cut", min(life, TRUSTED_LIFE), "life")
        ends = longest_trusted(x, self.record)
        self.halved(*minutes, life_shown(life), "chip_thickness", "speed_factor", "tool_life", ends=ends, known=known)
        self.plain("secure", "reliability", 100 * x.secure, "share", "rule", "weibull_shape", "completion_probability", ends=secured(x))

    def holes(self, label: str, x: Any, count: int) -> None:
        """How many holes or threads a tool lasts, of which a piece has so many."""
        median, life = last_pass(x.median_parts), last_pass(x.tool_life)
        parts = trusted(x) * median
        ends = line("{half_of_them_last}·{in_a_piece}", half_of_them_last=parts, in_a_piece=count)
        holes = ("holes", label, count * parts, "count")
        self.halved(*holes, parts_shown(count * median, life), "tool_life", ends=ends, known=life <= TRUSTED_LIFE)

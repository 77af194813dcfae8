"""What a kind of operation brings to the one way in and out: its numbers, limits, changes and readings."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from dataclasses import dataclass, replace
from typing import Any, Generic

from cutting.errors import UnknownName
from cutting.operations.frame.change import Change, faster, remedies_for
from cutting.operations.frame.outcome import ChipVerdict, Outcome, Pass, Remedy, Value, Warning
from cutting.operations.frame.rule import N, Rule, limits_of
from cutting.working import Recorder, Silent

SILENT = Silent()


def nothing(x: Any, stock: Any) -> tuple[()]:
    """No changes from a stock."""
    return ()


@dataclass(frozen=True)
class Model(Generic[N]):
    """A kind's own part. `numbers` computes everything for a set-up; the rest only reads what it gives.

    `from_stock` brings the changes that need other tools of the shop's stock.
    """

    numbers: Callable[[Any, Silent], N]
    rules: tuple[Rule[N], ...]
    changes: Callable[[N], Iterable[Change[Any]]]
    results: Callable[[N, Recorder], dict[str, Value]]
    passes: Callable[[N], tuple[Pass, ...]]
    chip: Callable[[N], ChipVerdict]
    warnings: Callable[[N], list[Warning]]
    scene: Callable[[N], dict[str, float | str]]
    from_stock: Callable[[N, Any], Iterable[Change[Any]]] = nothing

    def quickly(self, setup: Any) -> N:
        """The numbers without their working."""
        return self.numbers(setup, SILENT)

    def evaluate(self, setup: Any, with_remedies: bool = True, crib: Any = None) -> Outcome:
        """The outcome of a set-up. Raises `CuttingError` for inputs that cannot be; broken limits are part of it."""
        record = Recorder()
        x = self.numbers(setup, record)
        found = limits_of(self.rules, x, record)
        quicker: tuple[Remedy, ...] = ()
        if with_remedies:
            changes = list(self._all_changes(x, crib))
            found = tuple(
                replace(one, remedies=remedies_for(one, x, self.rules, changes, self.quickly)) if one.broken or k == 0 else one
                for k, one in enumerate(found)
            )
            if not any(one.broken for one in found):
                quicker = faster(x, self.rules, changes, self.quickly)
        warnings = sorted(self.warnings(x), key=lambda one: ("blocks", "care", "note").index(one.severity))
        return Outcome(
            setup.operation, self.results(x, record), found, self.passes(x), self.chip(x), tuple(warnings), quicker, self.scene(x)
        )

    def relax(self, setup: Any, name: str, crib: Any = None) -> tuple[Remedy, ...]:
        """What would move one limit. Raises `UnknownName` for a limit that does not apply."""
        record = Recorder()
        x = self.numbers(setup, record)
        found = {one.name: one for one in limits_of(self.rules, x, record)}
        if name not in found:
            raise UnknownName("limit", f"no limit is called '{name}' here.", None, tuple(found))
        return remedies_for(found[name], x, self.rules, self._all_changes(x, crib), self.quickly)

    def _all_changes(self, x: N, crib: Any) -> Iterable[Change[Any]]:
        return (*self.changes(x), *self.from_stock(x, crib))

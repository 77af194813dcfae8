"""What a kind of operation brings to the one engine: its numbers over arrays, limits, changes and readings."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass, replace
from typing import Any, Generic, TypeVar

import numpy as np

from cutting.errors import UnknownName
from cutting.operations.frame.chance import Chance, chances_of, kept_in_hand
from cutting.operations.frame.change import Change
from cutting.operations.frame.fire import fire_warnings
from cutting.operations.frame.money import life_notes
from cutting.operations.frame.outcome import Bow, ChipVerdict, Limit, Moved, Outcome, Pass, Remedy, Value, Warning
from cutting.operations.frame.remedies import Trials
from cutting.operations.frame.rule import Rule, in_order, limits_of
from cutting.operations.frame.speed_reason import UsualSpeed, speed_reason
from cutting.working import Recorder, Silent

N = TypeVar("N")


def nothing(*given: Any) -> tuple[()]:
    """No changes, no misfits."""
    return ()


@dataclass(frozen=True)
class Readings(Generic[N]):
    """How the numbers of one set-up are said."""

    results: Callable[[N, Recorder], dict[str, Value]]
    passes: Callable[[N], tuple[Pass, ...]]
    chip: Callable[[N], ChipVerdict]
    warnings: Callable[[N], Iterable[Warning]]
    scene: Callable[[N], Any]  # a kind's own typed scene
    bow: Callable[[N], Bow | None] = lambda x: None
    usual_speed: Callable[[N], UsualSpeed | None] = lambda x: None


@dataclass(frozen=True)
class Model(Generic[N]):
    """A kind's own part of the engine.

    `tool` gives the numbers of a set-up's own tool; `numbers(setup, tool, cutting_speed, feed, record)` computes
    everything for that tool or for many, at one speed and feed or at many: arrays (..., steps). `changes` are what can be done
    otherwise beside speed and feed, `from_stock` what needs other tools, `quicker` what may save time, `supported` ways to hold
    the part that let it be cut harder. `misfits` name the exact rules that forbid a set-up's tool, `read_as` turns the numbers of
    one set-up into what is read. `stacked` makes one tool of many of single ones, shape (tools, 1), where `from_stock` yields only
    what fits and changes nothing else.
    """

    tool: Callable[[Any], Any]
    numbers: Callable[[Any, Any, Any, Any, Silent], N]
    rules: tuple[Rule[N], ...]
    changes: Callable[[N], Iterable[Change[Any]]]
    readings: Readings[N]
    from_stock: Callable[[N, Any], Iterable[Change[Any]]] = nothing
    quicker: Callable[[Any], Iterable[Change[Any]]] = nothing
    supported: Callable[[Any], Iterable[Change[Any]]] = nothing
    misfits: Callable[[Any], frozenset[str]] = lambda setup: frozenset()
    read_as: Callable[[N], N] = lambda x: x
    stacked: Callable[[Sequence[Any]], Any] | None = None

    def run(self, setup: Any, record: Silent) -> N:
        """The numbers of a set-up. Raises `CuttingError`."""
        return self.read_as(self.numbers(setup, self.tool(setup), setup.settings.cutting_speed, setup.feed, record))

    def quickly(self, setup: Any) -> N:
        """The numbers without their working."""
        return self.run(setup, setup.silent)

    def over(self, setup: Any, cutting_speed: Any = None, feed: Any = None) -> N:
        """The set-up's own tool over arrays of speed [m/min] and feed [mm, as it is set], last axis one."""
        speed = setup.settings.cutting_speed if cutting_speed is None else cutting_speed
        return self.numbers(setup, self.tool(setup), speed, setup.feed if feed is None else feed, setup.silent)

    def evaluate(self, setup: Any, crib: Any = None) -> Outcome:
        """The outcome of a set-up with its remedies; with a `crib`, other tools of it are among them. Raises as `judged` does."""
        found, x = self.judged(setup)
        return self.remedied(found, setup, crib, x)

    def judged(self, setup: Any) -> tuple[Outcome, N]:
        """The outcome without remedies: results, limits sorted by how close they are, passes, chip, warnings, working; and its numbers.

        Raises `CuttingError` for inputs that cannot be; broken limits are part of the outcome, not errors.
        """
        record, tool, say = setup.recorder(), self.tool(setup), self.readings
        x = self.read_as(self.numbers(setup, tool, setup.settings.cutting_speed, setup.feed, record))
        usual = say.usual_speed(x)
        of_speed = speed_reason(self, setup, usual) if usual else ()
        warnings = sorted((*say.warnings(x), *fire_warnings(setup), *_of_life(setup, x), *of_speed), key=lambda one: one.gravity)
        surely = chances_of(self, setup, record.stated, tool)
        limits = in_order(_with_chance(one, surely.get(one.name), setup.asked_chance, record) for one in limits_of(self.rules, x, record))
        found = Outcome(
            setup.operation, say.results(x, record), limits, say.passes(x), say.chip(x), tuple(warnings), (), say.scene(x), say.bow(x)
        )
        return found, x

    def remedied(self, outcome: Outcome, setup: Any, crib: Any = None, numbers: N | None = None) -> Outcome:
        """An outcome with remedies for its broken limits and its closest, and what is quicker where nothing is broken.

        `numbers` of the set-up, where they are at hand. Raises `CuttingError`.
        """
        trials = Trials(self, setup, crib, numbers, {one.name: one.kept for one in outcome.limits})
        asked = [one.wanting or k == 0 for k, one in enumerate(outcome.limits)]
        limits = tuple(replace(one, remedies=trials.remedies(one)) if ask else one for one, ask in zip(outcome.limits, asked, strict=True))
        return replace(outcome, limits=limits, faster=() if any(one.wanting for one in limits) else trials.faster())

    def relax(self, setup: Any, name: str, crib: Any = None) -> tuple[Remedy, ...]:
        """What would move one limit, whether it is broken or not. Raises `UnknownName` for a limit that does not apply."""
        outcome, x = self.judged(setup)
        found = {one.name: one for one in outcome.limits}
        if name not in found:
            raise UnknownName("limit", f"no limit is called '{name}' here.", None, tuple(found))
        return Trials(self, setup, crib, x, {one.name: one.kept for one in outcome.limits}).remedies(found[name])


def _with_chance(limit: Limit, chance: Chance | None, asked: float, record: Recorder) -> Limit:
    """A limit with how surely it holds and what that hangs on."""
    if chance is None:
        return replace(limit, asked=asked)
    said = ((record.band(quantity), share) for quantity, share in chance.moved_by)
    kept = float(kept_in_hand(asked, chance.spread, chance.spare))
    moved = tuple(Moved(one.title, one.words, share) for one, share in said)
    return replace(limit, holds=chance.holds, asked=asked, kept=kept, moved_by=moved)


def _of_life(setup: Any, x: Any) -> list[Warning]:
    """What to know of how long the edge lasts."""

    def last(name: str) -> float:
        return float(np.ravel(getattr(x, name))[-1])

    return life_notes(setup, *(last(name) for name in ("tool_life", "engaged_time", "median_parts", "change_parts", "weibull_shape")))

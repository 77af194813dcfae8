"""Remedies found by running them: each lever is tried, and what it brings is what is said."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator, Mapping, Sequence
from contextlib import suppress
from dataclasses import dataclass, replace
from functools import cached_property
from typing import Any, Protocol

import numpy as np
from numpy.typing import NDArray

from cutting.errors import CuttingError
from cutting.operations.frame.change import Change, in_words, setting
from cutting.operations.frame.outcome import Limit, Remedy, Severity
from cutting.operations.frame.rule import ALL_OF_IT, Rule, all_used, excluded
from cutting.quantities.kinds import currency
from cutting.quantities.write import Display

TIDY = {"feed_per_rev": 0.005, "feed_per_tooth": 0.005, "cutting_speed": 1.0}  # steps that people set
MOST = 3.0  # times the present value that going faster tries
SHARES = np.union1d(np.geomspace(0.2, 4.0, 97), np.linspace(1.0, MOST, 100))  # of the present value that a lever tries
SAME_FEED = 1e-9  # mm; a support that allows no more than this is not worth its while
AS_QUICK = 1.0005  # seconds that are no longer told apart
NEARLY = 0.005  # of a bound by which a change may miss it
QUICKER = 0.985  # a gain below this is not worth a change
WORTHWHILE = 0.9  # of a limit's level: a change that leaves more of it is none
NOTICED = 0.98  # of a limit's level: a change is at least to be seen
CLEARLY_INSIDE, CLEARLY_LESS = 0.97, 0.85  # of what is kept, and of what it is now: where a scan may stop


class Runs(Protocol):
    """What trials need of a kind's model."""

    @property
    def rules(self) -> tuple[Rule[Any], ...]: ...
    @property
    def changes(self) -> Callable[[Any], Iterable[Change[Any]]]: ...
    @property
    def from_stock(self) -> Callable[[Any, Any], Iterable[Change[Any]]]: ...
    @property
    def quicker(self) -> Callable[[Any], Iterable[Change[Any]]]: ...
    @property
    def supported(self) -> Callable[[Any], Iterable[Change[Any]]]: ...
    @property
    def misfits(self) -> Callable[[Any], frozenset[str]]: ...
    @property
    def tool(self) -> Callable[[Any], Any]: ...
    @property
    def numbers(self) -> Callable[..., Any]: ...
    @property
    def stacked(self) -> Callable[[Sequence[Any]], Any] | None: ...
    def quickly(self, setup: Any) -> Any: ...
    def over(self, setup: Any, cutting_speed: Any = None, feed: Any = None) -> Any: ...


@dataclass(frozen=True)
class TrialRun:
    """A change that was run: how close every limit is, whether it is sound, what it takes."""

    change: Change[Any]
    used: dict[str, float]
    sound: bool
    seconds: float
    cost: float

    def level(self, name: str) -> float:
        """Utilisation of a limit, 0 where it does not apply."""
        return self.used.get(name, 0.0)


@dataclass(frozen=True)
class Lever:
    """Speed or feed of a set-up at many values that people set, with how close every limit is there; all shape (values,)."""

    setup: Any
    name: str
    label: str
    values: NDArray[Any]
    used: dict[str, NDArray[Any]]
    sound: NDArray[Any]
    seconds: NDArray[Any]
    cost: NDArray[Any]

    @property
    def present(self) -> float:
        return float(getattr(self.setup.settings, self.name))

    def nearest(self, limit: str, target: float) -> int:
        """The value closest to the present one that brings a limit to `target`; where none does, the one that comes nearest to it."""
        level = self.used.get(limit, np.zeros(len(self.values)))
        good = np.flatnonzero(level <= target)
        return int(good[np.argmin(np.abs(np.log(self.values[good] / self.present)))] if len(good) else np.argmin(level))

    def most(self) -> int | None:
        """The largest value that breaks no limit, None where none is larger; of those as quick the smallest."""
        good = np.flatnonzero(self.sound & (self.values > self.present) & (self.values <= MOST * self.present))
        if not len(good):
            return None
        # beyond a clamp or the last gear more is said than done
        return int(good[np.flatnonzero(self.seconds[good] <= self.seconds[good[-1]] * AS_QUICK)[0]])

    def trial(self, k: int, lead: str = "") -> TrialRun:
        """One of the values as a change. Raises `CuttingError` where the set-up cannot have it."""
        value = round(float(self.values[k]), 4)
        changed = self.setup.with_settings(**{self.name: value})
        changed.check()
        change = setting(self.name, self.label, self.present, value, self.name, changed, lead)
        used = {limit: float(level[k]) for limit, level in self.used.items()}
        return TrialRun(change, used, bool(self.sound[k]), float(self.seconds[k]), float(self.cost[k]))


def levers_of(model: Runs, setup: Any, settable: Iterable[tuple[str, str]], kept: Mapping[str, float] = ALL_OF_IT) -> list[Lever]:
    """Each setting of (name, label) alone over its values, all run as one; sound where each limit is used no further than `kept` says.

    Raises `CuttingError` for a set-up that cannot be.
    """
    named = dict(settable)
    present = {name: float(getattr(setup.settings, name)) for name in named}
    values = [np.unique(np.maximum(np.round(present[name] * SHARES / TIDY[name]), 1.0)) * TIDY[name] for name in named]
    moved = {}
    for k, name in enumerate(named):  # one setting's rows below the other's, each with the others as they are
        rows = [own if k == j else np.full(len(own), present[name]) for j, own in enumerate(values)]
        moved["feed" if name == setup.FEED else name] = np.concatenate(rows)[:, None]
    x = model.over(setup, **moved)
    levels = all_used(model.rules, x)
    ends = np.cumsum([len(own) for own in values])

    def each(numbers: Any) -> list[NDArray[Any]]:
        return np.split(np.broadcast_to(numbers, (ends[-1], 1)).ravel(), ends[:-1])

    used = {limit: each(level) for limit, level in levels.items()}
    found = zip(
        named, values, *(each(one) for one in (~excluded(model.rules, levels, setup.house, kept), x.operation_time, x.operation_cost))
    )
    return [
        Lever(setup, name, named[name], own, {limit: parts[k] for limit, parts in used.items()}, *more)
        for k, (name, own, *more) in enumerate(found)
    ]


class Trials:
    """What can be done otherwise at one set-up; everything is run once, however many limits ask."""

    def __init__(self, model: Runs, setup: Any, crib: Any = None, numbers: Any = None, kept: Mapping[str, float] = ALL_OF_IT) -> None:
        """`numbers` of the set-up, where somebody has them already; `kept` is how far each limit may be used, by name."""
        self.model, self.setup, self.crib, self.kept = model, setup, crib, kept
        self.numbers = model.quickly(setup) if numbers is None else numbers
        self.base = self._trial(Change(Display("", ""), {}, setup), self.numbers)
        feed = ((setup.FEED, "feed"),) if setup.FEED else ()
        self.settable = (*feed, ("cutting_speed", "speed"))

    @cached_property
    def changes(self) -> list[TrialRun]:
        """The kind's own changes, then those that need other tools of the crib."""
        others = self.model.from_stock(self.numbers, self.crib) if self.crib is not None else ()
        known = self.model.misfits(self.setup)
        tools = self._run_tools(others) if self.model.stacked else self.run(others, known)
        return [*self.run(self.model.changes(self.numbers), known), *tools]

    def remedies(self, limit: Limit) -> tuple[Remedy, ...]:
        """Up to four changes that bring a limit below its bound, or nearest to it; sound and quick ones first."""
        wanted = 1.0 if limit.broken else WORTHWHILE * limit.utilisation
        target = limit.kept if limit.wanting and limit.severity is Severity.HARD else wanted
        before = self.base.level(limit.name)
        tried = [*self._scans(limit.name), *self.changes]
        better = [t for t in tried if t.level(limit.name) < min(before * NOTICED, target + NEARLY)]
        if not better:  # nothing brings it below: the nearest is still worth knowing
            better = [t for t in tried if t.level(limit.name) < before * WORTHWHILE]
        # a change that breaks something else is offered only where no sound one is known
        better = [t for t in better if t.sound] or better
        # what is set on the bench comes before another tool
        better.sort(key=lambda t: (t.level(limit.name) > limit.kept + NEARLY, t.change.kind == "tool", t.cost))
        return tuple(Remedy(t.change.text, self._effect(limit, t), t.change.patch) for t in _mixed(better))

    def faster(self) -> tuple[Remedy, ...]:
        """Up to two sound changes that save the most time, each up to the next limit."""
        tried = [*self.run(self.model.quicker(self.setup)), *self._furthest()]
        sound = [t for t in tried if t.sound and t.seconds < self.base.seconds * QUICKER]
        sound.sort(key=lambda t: t.seconds)
        return tuple(Remedy(t.change.text, in_words(self._paid(t)), t.change.patch) for t in sound[:2])

    def mended(self, limits: Iterable[Limit], free: frozenset[str]) -> Any | None:
        """The set-up with the cheapest change of `free` settings alone that makes it sound, None where none does."""
        tried = [trial for limit in limits for trial in self._scans(limit.name)] + self.changes
        sound = [trial for trial in tried if trial.sound and trial.change.sets <= free]
        return min(sound, key=lambda trial: trial.cost).change.setup if sound else None

    def run(self, changes: Iterable[Change[Any]], known: frozenset[str] | None = None) -> Iterator[TrialRun]:
        """Each change run as it comes; what cannot be is left out."""
        for change in changes:
            try:
                yield self._trial(change, self.model.quickly(change.setup), known)
            except CuttingError:
                continue

    def _run_tools(self, changes: Iterable[Change[Any]]) -> list[TrialRun]:
        """Other tools that fit, run as one: the numbers know a set-up's tool by nothing but its own numbers."""
        assert self.model.stacked
        fitting, tools = [], []
        for change in changes:
            with suppress(CuttingError):
                tools.append(self.model.tool(change.setup))
                fitting.append(change)
        if not fitting:
            return []
        setup, each = self.setup, (len(fitting), 1)
        x = self.model.numbers(setup, self.model.stacked(tools), setup.settings.cutting_speed, setup.feed, setup.silent)
        levels = all_used(self.model.rules, x)
        used = {name: np.broadcast_to(level, each) for name, level in levels.items()}
        bad, seconds, cost = (
            np.broadcast_to(one, each).ravel()
            for one in (excluded(self.model.rules, levels, setup.house, self.kept), x.operation_time, x.operation_cost)
        )
        return [
            TrialRun(change, {name: float(level[k, 0]) for name, level in used.items()}, not bad[k], float(seconds[k]), float(cost[k]))
            for k, change in enumerate(fitting)
        ]

    def _trial(self, change: Change[Any], x: Any, known: frozenset[str] | None = None) -> TrialRun:
        """`known` are the misfits that stand already; None: they are not asked for."""
        found = all_used(self.model.rules, x)
        used = {name: float(np.max(level)) for name, level in found.items()}
        levels = {name: np.asarray([level]) for name, level in used.items()}
        sound = not excluded(self.model.rules, levels, change.setup.house, self.kept).any()
        if sound and known is not None:
            sound = self.model.misfits(change.setup) <= known
        return TrialRun(change, used, sound, float(np.ravel(x.operation_time)[0]), float(np.ravel(x.operation_cost)[0]))

    def _scans(self, name: str) -> list[TrialRun]:
        """The smallest change of feed and of speed alone that brings a limit just below its bound."""
        target = min(CLEARLY_INSIDE * self.kept.get(name, 1.0), CLEARLY_LESS * max(self.base.level(name), 0.1))
        found = []
        for lever in self._levers:
            with suppress(CuttingError):
                found.append(lever.trial(lever.nearest(name, target)))
        return found

    @cached_property
    def _levers(self) -> list[Lever]:
        return levers_of(self.model, self.setup, self.settable, self.kept)

    def _furthest(self) -> Iterator[TrialRun]:
        feed = self.setup.feed  # the most that is reached without holding the part otherwise
        for lever in self._levers:
            if (found := _most(lever)) is not None:
                feed = max(feed, found.change.setup.feed)
                yield found
        for held in self.model.supported(self.setup) if self.setup.FEED else ():
            found = None
            with suppress(CuttingError):
                [lever] = levers_of(self.model, held.setup, [(self.setup.FEED, "feed")], self.kept)
                found = _most(lever, f"{held.text.metric} → ")
            if found is not None and found.change.setup.feed > feed + SAME_FEED:
                yield replace(found, change=replace(found.change, patch={**held.patch, **found.change.patch}))

    def _effect(self, limit: Limit, trial: TrialRun) -> Display:
        tail = "" if trial.sound else ", but exceeds another limit"
        said, level = limit.label.split(",")[0], trial.level(limit.name)
        return in_words(f"{said} {self.base.level(limit.name):.0%} → {level:.0%} of its limit, {self._paid(trial)}{tail}")

    def _paid(self, trial: TrialRun) -> str:
        return f"{_signed(trial.seconds - self.base.seconds, 's')}, {_signed(trial.cost - self.base.cost, currency())}"


def _most(lever: Lever, lead: str = "") -> TrialRun | None:
    """The most of a setting that breaks no limit."""
    if (k := lever.most()) is None:
        return None
    try:
        return lever.trial(k, lead)
    except CuttingError:
        return None


def _mixed(better: list[TrialRun]) -> list[TrialRun]:
    """The first four of different kinds: at most two that change settings, one that holds otherwise, one other tool."""
    kept: list[TrialRun] = []
    for one in better:
        alike = sum(1 for other in kept if other.change.kind == one.change.kind)
        if alike < (2 if one.change.kind == "settings" else 1):
            kept.append(one)
    return kept[:4]


def _signed(value: float, unit: str) -> str:
    digits = 2 if unit == currency() else 0 if abs(value) >= 10 else 1
    text = f"{value:+.{digits}f} {unit}"
    return text.replace("-", "−") if round(value, digits) else f"±0 {unit}"

"""Remedies found by running them: each lever is tried, and what it brings is what is said."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator
from dataclasses import replace
from functools import cached_property
from typing import Any, Protocol

import numpy as np
from numpy.typing import NDArray

from cutting.errors import CuttingError
from cutting.operations.frame.change import Change, in_words, setting
from cutting.operations.frame.outcome import Limit, Remedy
from cutting.operations.frame.rule import Array, Mask, Rule, all_used, excluded
from cutting.quantities.kinds import currency
from cutting.quantities.write import Display
from cutting.working import Silent

SILENT = Silent()
TIDY = {"feed_per_rev": 0.005, "feed_per_tooth": 0.005, "cutting_speed": 1.0}  # steps that people set
STEPS = np.geomspace(0.2, 4.0, 97)  # shares of the present value that a lever tries
FURTHER = np.linspace(1.02, 3.0, 100)  # and that going faster tries
SAME_FEED = 1e-9  # mm; a support that allows no more than this is not worth its while
AS_QUICK = 1.0005  # seconds that are no longer told apart
QUICKER = 0.985  # a gain below this is not worth a change


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
    def quickly(self, setup: Any) -> Any: ...
    def over(self, setup: Any, cutting_speed: Any = None, feed: Any = None) -> Any: ...


class Trial:
    """A change that was run: how close every limit is, whether it is sound, what it takes."""

    def __init__(self, model: Runs, change: Change[Any], known: frozenset[str] | None = None) -> None:
        """`known` are the misfits that stand already; None: they are not asked for."""
        self.change = change
        x = model.quickly(change.setup)
        self.used = {name: float(np.max(level)) for name, level in all_used(model.rules, x).items()}
        levels = {name: np.asarray([level]) for name, level in self.used.items()}
        self.sound = not excluded(model.rules, levels, change.setup.house).any()
        if self.sound and known is not None:
            self.sound = model.misfits(change.setup) <= known
        self.seconds, self.cost = float(np.ravel(x.operation_time)[0]), float(np.ravel(x.operation_cost)[0])

    def level(self, name: str) -> float:
        """Utilisation of a limit, 0 where it does not apply."""
        return self.used.get(name, 0.0)


class Trials:
    """What can be done otherwise at one set-up; everything is run once, however many limits ask."""

    def __init__(self, model: Runs, setup: Any, crib: Any = None) -> None:
        self.model, self.setup, self.crib = model, setup, crib
        feed = ((setup.FEED, "feed"),) if setup.FEED else ()
        self.levers = (*feed, ("cutting_speed", "speed"))

    @cached_property
    def base(self) -> Trial:
        return Trial(self.model, Change(Display("", ""), {}, self.setup))

    @cached_property
    def changes(self) -> list[Trial]:
        """The kind's own changes, then those that need other tools of the crib."""
        x = self.model.quickly(self.setup)
        others = self.model.from_stock(x, self.crib) if self.crib is not None else ()
        known = self.model.misfits(self.setup)
        return [*self._run(self.model.changes(x), known), *self._run(others, known)]

    def remedies(self, limit: Limit) -> tuple[Remedy, ...]:
        """Up to four changes that bring a limit below its bound, or nearest to it; sound and quick ones first."""
        target = 1.0 if limit.broken else 0.9 * limit.utilisation
        before = self.base.level(limit.name)
        tried = [*self._scans(limit.name), *self.changes]
        better = [t for t in tried if t.level(limit.name) < min(before * 0.98, target + 0.005)]
        if not better:  # nothing brings it below: the nearest is still worth knowing
            better = [t for t in tried if t.level(limit.name) < before * 0.9]
        # a change that breaks something else is offered only where no sound one is known
        better = [t for t in better if t.sound] or better
        # what is set on the bench comes before another tool
        better.sort(key=lambda t: (t.level(limit.name) > 1, t.change.kind == "tool", t.cost))
        return tuple(Remedy(t.change.text, self._effect(limit, t), t.change.patch) for t in _mixed(better))

    def faster(self) -> tuple[Remedy, ...]:
        """Up to two sound changes that save the most time, each up to the next limit."""
        tried = [*self._run(self.model.quicker(self.setup)), *(t for t in self._run(self._furthest_levers()))]
        sound = [t for t in tried if t.sound and t.seconds < self.base.seconds * QUICKER]
        sound.sort(key=lambda t: t.seconds)
        return tuple(Remedy(t.change.text, in_words(self._paid(t)), t.change.patch) for t in sound[:2])

    def mended(self, limits: Iterable[Limit], free: frozenset[str]) -> Any | None:
        """The set-up with the cheapest change of `free` settings alone that makes it sound, None where none does."""
        tried = [trial for limit in limits for trial in self._scans(limit.name)] + self.changes
        sound = [trial for trial in tried if trial.sound and trial.change.sets <= free]
        return min(sound, key=lambda trial: trial.cost).change.setup if sound else None

    def _run(self, changes: Iterable[Change[Any]], known: frozenset[str] | None = None) -> Iterator[Trial]:
        for change in changes:
            try:
                yield Trial(self.model, change, known)
            except CuttingError:
                continue

    def _scans(self, name: str) -> list[Trial]:
        """The smallest change of feed and of speed alone that brings a limit just below its bound."""
        return list(self._run(self._scan(name, lever, label) for lever, label in self.levers))

    def _scan(self, name: str, lever: str, label: str) -> Change[Any]:
        level = np.broadcast_to(self._levels[lever].get(name, np.zeros(1)), (len(STEPS), 1)).ravel()
        good = np.flatnonzero(level <= min(0.97, 0.85 * max(self.base.level(name), 0.1)))
        # where nothing brings it below the bound, the value that comes nearest is still worth knowing
        nearest = good[np.argmin(np.abs(np.log(STEPS[good])))] if len(good) else int(np.argmin(level))
        present = getattr(self.setup.settings, lever)
        value = _tidy(present * float(STEPS[nearest]), lever, up=bool(STEPS[nearest] > 1))
        return setting(lever, label, present, value, lever, self.setup.with_settings(**{lever: value}))

    @cached_property
    def _levels(self) -> dict[str, dict[str, Array]]:
        return {lever: self._over(self.setup, lever, STEPS)[0] for lever, _ in self.levers}

    def _over(self, setup: Any, lever: str, shares: NDArray[np.float64]) -> tuple[dict[str, Array], Mask, Array]:
        """Utilisations, where a hard limit is broken, and seconds, over shares of one setting: one run."""
        values = (getattr(setup.settings, lever) * shares)[:, None]
        x = self.model.over(setup, **{"feed" if lever == setup.FEED else lever: values})
        used = all_used(self.model.rules, x)
        seconds = np.broadcast_to(x.operation_time, values.shape).ravel()
        return used, np.broadcast_to(excluded(self.model.rules, used, setup.house), values.shape), seconds

    def _furthest_levers(self) -> Iterator[Change[Any]]:
        feed = self.setup.feed  # the most that is reached without holding the part otherwise
        for lever, label in self.levers:
            for change in self.furthest(self.setup, lever, label):
                feed = max(feed, change.setup.feed)
                yield change
        for held in self.model.supported(self.setup) if self.setup.FEED else ():
            for change in self.furthest(held.setup, self.setup.FEED, "feed", f"{held.text.metric} → "):
                if change.setup.feed > feed + SAME_FEED:
                    yield replace(change, patch={**held.patch, **change.patch})

    def furthest(self, setup: Any, lever: str, label: str, lead: str = "") -> Iterator[Change[Any]]:
        """The most of a setting that breaks no limit."""
        present = getattr(setup.settings, lever)
        try:
            _, bad, seconds = self._over(setup, lever, FURTHER)
        except CuttingError:
            return
        good = np.flatnonzero(~bad.ravel())
        if len(good):
            # beyond a clamp or the last gear more is said than done: the first that is as quick
            enough = np.flatnonzero(seconds[good] <= seconds[good[-1]] * AS_QUICK)[0]
            value = _tidy(present * float(FURTHER[good[enough]]), lever, up=False)
            yield setting(lever, label, present, value, lever, setup.with_settings(**{lever: value}), lead)

    def _effect(self, limit: Limit, trial: Trial) -> Display:
        tail = "" if trial.sound else ", but breaks another limit"
        said, level = limit.label.split(",")[0], trial.level(limit.name)
        return in_words(f"{said} {self.base.level(limit.name):.0%} → {level:.0%} of its bound, {self._paid(trial)}{tail}")

    def _paid(self, trial: Trial) -> str:
        return f"{_signed(trial.seconds - self.base.seconds, 's')}, {_signed(trial.cost - self.base.cost, currency())}"


def _mixed(better: list[Trial]) -> list[Trial]:
    """The first four of different kinds: at most two that change settings, one that holds otherwise, one other tool."""
    kept: list[Trial] = []
    for one in better:
        alike = sum(1 for other in kept if other.change.kind == one.change.kind)
        if alike < (2 if one.change.kind == "settings" else 1):
            kept.append(one)
    return kept[:4]


def _tidy(value: float, lever: str, up: bool) -> float:
    rounded = np.ceil(value / TIDY[lever]) if up else np.floor(value / TIDY[lever])
    return round(max(float(rounded), 1.0) * TIDY[lever], 4)


def _signed(value: float, unit: str) -> str:
    digits = 2 if unit == currency() else 0 if abs(value) >= 10 else 1
    text = f"{value:+.{digits}f} {unit}"
    return text.replace("-", "−") if round(value, digits) else f"±0 {unit}"

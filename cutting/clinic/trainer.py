"""Practice on faults without spoiling parts: a sound operation with something hidden wrong, told as somebody at the machine would tell it.

An exercise is its kind of operation, its cause and a seed; all that happens in it follows from these and from what the learner did.
"""

from __future__ import annotations

import json
import zlib
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import cache
from pathlib import Path
from typing import Any

import numpy as np

from cutting.clinic.changes import offer
from cutting.clinic.fault import faulty, run
from cutting.clinic.shop import SimulatedFault, draw_cause, draw_trouble, with_change
from cutting.clinic.suspects import WALK, ClinicCase, case_of, diagnose
from cutting.clinic.words import Cause, cause, limit_words, look, symptom
from cutting.doors.json_form import read_setup
from cutting.errors import CuttingError, UnknownName, require_between
from cutting.tables import read_table

STARTING = 100.0
PER_PART = 8.0  # points that a spoiled part costs; a minute costs one
CHANGE_MINUTES: Mapping[str, float] = {"setting": 3.0, "insert": 6.0, "holder": 15.0, "way": 20.0, "machine": 60.0}  # common practice
LEVELS = (1, 2, 3)
NOTICED = 0.95  # of a number, from which somebody sees that it moved (common practice)
NEAR = 0.7  # of a limit, from which its number is worth telling beside a symptom
SCATTER = 0.04  # of the logarithm of a number that is measured twice (common practice)
MOST_STEPS = 60
MOVED = 0.02  # of a limit, from which it is told that a fault moves it


@dataclass(frozen=True)
class Exercise:
    """What is practised: `cause` is hidden from the learner."""

    kind: str
    cause: str
    seed: int
    level: int = 1
    name: str = ""


@dataclass(frozen=True)
class Event:
    """One thing that the learner did, what came of it, and what it cost."""

    did: str
    words: str
    minutes: float
    parts: int
    yes: bool | None = None
    healed: bool = False


@dataclass(frozen=True)
class ExerciseStanding:
    """An exercise as it stands: what was told at first, what was done, minutes and parts, and whether it is over."""

    told: tuple[str, ...]
    events: tuple[Event, ...]
    minutes: float
    parts: int
    healed: bool
    over: bool
    named: bool | None
    score: float
    explained: tuple[str, ...]


@cache
def practised() -> Mapping[str, Any]:
    """The set-ups on which people practise, by kind, in their JSON form: sound, and invented."""
    found: Mapping[str, Any] = json.loads((Path(__file__).parent / "practice.json").read_text(encoding="utf-8"))
    return found


@cache
def setup_for(kind: str) -> Any:
    """The sound set-up on which a kind is practised: invented. Raises `UnknownName`."""
    told = practised()
    if kind not in told:
        raise UnknownName("kind", f"nothing is practised on '{kind}'; there are {', '.join(told)}.", None, tuple(told))
    return read_setup(told[kind])


@cache
def ward_for(kind: str) -> ClinicCase:
    """The clinic's view of the set-up on which a kind is practised."""
    return case_of(setup_for(kind))


@cache
def shipped() -> tuple[Exercise, ...]:
    """The exercises that ship, easy ones first."""
    return tuple(
        Exercise(row["kind"], row["cause"], int(row["seed"]), int(row["level"]), row["name"]) for row in read_table("clinic/exercises.csv")
    )


def drawn(seed: int, kind: str = "") -> Exercise:
    """An exercise drawn by a seed, of any kind or of one. Raises `CuttingError`."""
    require_between("seed", seed, 0, 2**31 - 1)
    chance = np.random.default_rng(seed)
    kinds = tuple(practised())
    if kind and kind not in kinds:
        raise UnknownName("kind", f"nothing is practised on '{kind}'; there are {', '.join(kinds)}.", None, kinds)
    chosen = kind or str(chance.choice(kinds))
    found = draw_cause(ward_for(chosen), chance)
    return Exercise(chosen, found.name, seed, level_of(chosen, found.name, seed))


def level_of(kind: str, name: str, seed: int) -> int:
    """How hard an exercise is: 1 where what is told names the cause among the first three, 3 where it is not among ten."""
    trouble = _trouble(Exercise(kind, name, seed))
    order = [one.cause.name for one in diagnose(ward_for(kind), trouble.told, {}).suspects if one.cause]
    place = order.index(name)
    return 1 if place < 3 else 2 if place < 10 else 3


def _trouble(exercise: Exercise) -> SimulatedFault:
    case, setup = ward_for(exercise.kind), setup_for(exercise.kind)
    return draw_trouble(case, setup, cause(exercise.kind, exercise.cause), np.random.default_rng(exercise.seed))


def standing(exercise: Exercise, steps: Sequence[Mapping[str, str]]) -> ExerciseStanding:
    """An exercise after what the learner did: `{"look": …}`, `{"change": cause}`, `{"name": cause}`, `{"give up": ""}` in turn.

    Raises `CuttingError` for a step that cannot be.
    """
    require_between("steps", len(steps), 0, MOST_STEPS)
    trouble = _trouble(exercise)
    events: list[Event] = []
    named: bool | None = None
    over = healed = False
    for step in steps:
        if over:
            raise CuttingError("step", "this exercise is over: begin another.")
        [(did, what)] = step.items()
        if did == "look":
            events.append(_looked(exercise, trouble, what))
        elif did == "change":
            events.append(_changed(exercise, trouble, what))
            over = healed = events[-1].healed
        elif did == "name":
            named = cause(exercise.kind, what).name == exercise.cause
            words = "That is it." if named else "That is not it."
            events.append(Event(f"named: {cause(exercise.kind, what).title}", words, 0.0, 0 if named else 1))
            over = named
        elif did == "give up":
            events.append(Event("given up", "", 0.0, 0))
            over, named = True, False
        else:
            raise UnknownName("step", f"'{did}' is no step; there are look, change, name and give up.", None, ("look", "change", "name"))
    minutes, parts = sum(one.minutes for one in events), sum(one.parts for one in events)
    gained = named or healed
    score = max(STARTING - minutes - PER_PART * parts, 0.0) if gained else 0.0
    told = tuple(symptom(exercise.kind, name).title for name in trouble.told)
    return ExerciseStanding(
        told, tuple(events), minutes, parts, healed, over, named, score if over else 0.0, _explained(exercise, trouble) if over else ()
    )


def _looked(exercise: Exercise, trouble: SimulatedFault, name: str) -> Event:
    found = look(exercise.kind, name)
    yes = trouble.answer(found, _dice(exercise, name))
    return Event(found.question, "Yes." if yes else "No.", found.minutes + WALK / 2.0, 0, yes)


def _changed(exercise: Exercise, trouble: SimulatedFault, name: str) -> Event:
    tried = cause(exercise.kind, name)
    right = name == exercise.cause
    words = _measured(exercise, trouble, tried)
    return Event(tried.change, words, CHANGE_MINUTES[tried.undo], 0 if right else 1, healed=right)


def _measured(exercise: Exercise, trouble: SimulatedFault, tried: Cause) -> str:
    """What the next part shows: the number behind the first symptom that has one, run with the change and measured with its scatter."""
    told = [symptom(exercise.kind, name) for name in trouble.told]
    right = tried.name == exercise.cause
    before = run(trouble.there) if trouble.there else None
    near = [one for one in told if before and float(np.max(before.used.get(one.limit_in(before.used), 0.0))) >= NEAR]
    one = near[0] if near else told[0]
    limit = one.limit_in(before.used) if before and near else ""
    if not (before and limit):
        return f"{one.title.capitalize()}: {'gone' if right else 'as before'}."
    was = float(np.max(before.used[limit]))
    now = float(np.max(ward_plan(exercise.kind).get(limit, 0.0))) if right else _with(exercise, trouble, tried, limit, was)
    seen = "gone" if right else "less, and still there" if now < NOTICED * was else "worse" if now > was / NOTICED else "as before"
    noise = float(np.exp(SCATTER * _dice(exercise, f"measured {tried.name}").standard_normal()))
    return f"{one.title.capitalize()}: {seen}; {limit_words(exercise.kind, limit)} at {now * noise:.0%} of its limit, measured."


def _with(exercise: Exercise, trouble: SimulatedFault, tried: Cause, limit: str, was: float) -> float:
    """How much of a limit is used with another cause's change, the fault still at work."""
    there = with_change(trouble, _offered(exercise.kind, tried.name))
    ran = run(there) if there else None
    return float(np.max(ran.used.get(limit, was))) if ran else was


@cache
def _offered(kind: str, name: str) -> Any:
    """The sound set-up with a cause's change; None where nothing that is set changes."""
    return offer(setup_for(kind), cause(kind, name)).setup


@cache
def ward_plan(kind: str) -> Mapping[str, Any]:
    """How much of each limit the sound set-up uses."""
    plain = faulty(setup_for(kind), ())
    ran = run(plain) if plain else None
    return ran.used if ran else {}


def _explained(exercise: Exercise, trouble: SimulatedFault) -> tuple[str, ...]:
    case, true = ward_for(exercise.kind), cause(exercise.kind, exercise.cause)
    row = [one.name for one in case.causes].index(exercise.cause)
    found = [f"It was: {true.title}.", f"What shows it: {look(exercise.kind, true.look).question} {look(exercise.kind, true.look).how}",
             f"What helps: {true.change}."]  # fmt: skip
    for one in (symptom(exercise.kind, name) for name in trouble.told):
        name = one.limit_in(case.engine[row])
        before, after = case.engine[row].get(name, (0.0, 0.0))
        if abs(after - before) >= MOVED:
            found.append(f"The engine: {limit_words(exercise.kind, name)} from {before:.0%} to {after:.0%} of its limit ({one.title}).")
    return tuple(dict.fromkeys(found))


def _dice(exercise: Exercise, what: str) -> np.random.Generator:
    """The same answer to the same look, however often it is asked."""
    return np.random.default_rng([exercise.seed, zlib.crc32(what.encode())])

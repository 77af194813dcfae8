"""Which cause explains what is seen: a small network of causes, states and what tells of them, and the look that parts them best.

One cause is true, or none that the table names. Each cause brings about states (the edge is worn, the part springs), each state shows in
symptoms and answers looks. Two symptoms of one state therefore share their reason and are not counted twice; given the cause, states
are independent of each other. Where the engine can run a fault, what it does to the limit behind a symptom weighs too.
"""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import lru_cache
from typing import Any

import numpy as np
from numpy.typing import NDArray

from cutting.clinic import evidence
from cutting.clinic.evidence import Weighed, weigh
from cutting.clinic.fault import FaultRun, faulty, run
from cutting.clinic.words import Cause, Look, Symptom, limit_words, look, symptom, ward
from cutting.operations.frame.outcome import Outcome
from cutting.operations.registry import evaluate_quickly

Array = NDArray[np.float64]
TOLD, IMAGINED = 0.75, 0.01  # chance that somebody tells of a state that is there, or of one that is not (common practice)
UNASKED = 0.02  # chance of a state that a cause does not bring about
NONE, NONE_SHOWS, NONE_HIDES = (
    0.2,
    0.15,
    0.02,
)  # chance that no cause of the table is true; that it shows a symptom, or what only looks find
MEANT = 0.25  # of a limit's logarithm over which the engine's word on a fault turns
DOUBTED = 0.35  # what is left of a state's chance where the engine says that the fault does not bring it about
WALK = 8.0  # minutes to stop, open and go on, beside the looks themselves (common practice)
AT_ONCE, SHARED = 6, 0.5  # looks of one round, and what each further one takes of its own minutes (common practice)
AS_LIKELY = 0.5  # of the first one's chance, from which the cheapest change goes before the likeliest (common practice)
LEADS = 0.6  # chance from which a cause is looked for itself


@dataclass(frozen=True)
class Reason:
    """Why a cause stands where it does, in this operation's numbers; `speaks` for or against it."""

    speaks: str
    metric: str
    inch: str


@dataclass(frozen=True)
class Suspect:
    """A cause with its chance and its reasons; `cause` is None for none of those in the table."""

    cause: Cause | None
    chance: float
    reasons: tuple[Reason, ...]


@dataclass(frozen=True)
class Question:
    """The round of looks that parts the leaders best: bits that it is worth, minutes that it takes."""

    round: str
    looks: tuple[Look, ...]
    bits: float
    minutes: float


@dataclass(frozen=True)
class Diagnosis:
    """Causes, the likeliest first, and what to look at next; None where nothing is left to ask.

    `fits` tells whether the first has been looked for: found, not found, or None where nobody has looked.
    """

    suspects: tuple[Suspect, ...]
    question: Question | None
    fits: bool | None

    @property
    def none_fits(self) -> bool:
        """Whether none of the named causes explains it: the first was looked for and is not there."""
        return self.suspects[0].cause is None or self.fits is False


def try_first(found: Diagnosis) -> Cause | None:
    """Of the causes that are about as likely as the first, the one whose change is the cheapest to undo. None where none is named.

    >>> try_first(diagnose(case_of_kind("turn"), ["long_chips"], {})).undo
    'setting'
    """
    named = [one for one in found.suspects if one.cause]
    near = [one for one in named if one.chance >= AS_LIKELY * named[0].chance]
    return min(near, key=lambda one: (one.cause.effort, -one.chance)).cause if near else None  # type: ignore[union-attr]


@dataclass(frozen=True)
class ClinicCase:
    """What is known of one kind of operation before anything is seen: weights of causes and chances of states, none of them last."""

    kind: str
    causes: tuple[Cause, ...]
    states: tuple[str, ...]
    prior: Array  # (causes + 1,)
    shows: Array  # (causes + 1, states)
    spoken: tuple[tuple[tuple[Weighed, ...], tuple[Weighed, ...]], ...]  # for and against, by cause
    engine: tuple[Mapping[str, tuple[float, float]], ...]  # limits as planned and with the fault, by cause

    def at(self, state: str) -> int:
        return self.states.index(state)


def case_of(setup: Any, outcome: Outcome | None = None, learned: Mapping[str, float] | None = None) -> ClinicCase:
    """The clinic's view of an operation. `learned` are factors of priors by cause, from how changes turned out. Raises `CuttingError`."""
    judged = evaluate_quickly(setup) if outcome is None else outcome
    return _case(setup.operation, setup, judged, learned or {})


def case_of_kind(kind: str, learned: Mapping[str, float] | None = None) -> ClinicCase:
    """The same of a kind of operation alone, where nothing is known of its numbers. Raises `UnknownName`."""
    return _case(kind, None, None, learned or {})


def _case(kind: str, setup: Any, outcome: Outcome | None, learned: Mapping[str, float]) -> ClinicCase:
    known = ward(kind)
    states = tuple(dict.fromkeys([one.tells for one in known.symptoms] + [one.tells for one in known.looks]))
    visible = {one.tells for one in known.symptoms}
    shows = np.full((len(known.causes) + 1, len(states)), UNASKED)
    shows[-1] = [NONE_SHOWS if state in visible else NONE_HIDES for state in states]
    prior, spoken = [], []
    words = _engine_words(setup) if setup is not None else tuple({} for _ in known.causes)
    for row, cause in enumerate(known.causes):
        said = tuple(_weighed(texts, setup, outcome) for texts in (cause.supports, cause.denies))
        prior.append(cause.prior * evidence.factor(*said) * learned.get(cause.name, 1.0))
        ran = words[row]
        for state, chance in cause.shows.items():
            if state in states:
                shows[row, states.index(state)] = chance
        for one in known.symptoms:
            if one.tells in cause.shows and (limit := one.limit_in(ran)):
                shows[row, states.index(one.tells)] *= believed(ran[limit][1])
        spoken.append((said[0], said[1]))
    weights = np.array(prior)
    weights = np.append(weights / weights.sum() * (1.0 - NONE), NONE)
    return ClinicCase(kind, known.causes, states, weights, shows, tuple(spoken), words)


@lru_cache(maxsize=256)
def _engine_words(setup: Any) -> tuple[Mapping[str, tuple[float, float]], ...]:
    """How much of each limit is used as planned and with the fault of each cause, where the engine can run it. Kept."""
    # answers do not move them
    plain = faulty(setup, ())
    plan = run(plain) if plain else None
    return tuple(_engine_word(one, setup, plan) if plan else {} for one in ward(setup.operation).causes)


def _engine_word(cause: Cause, setup: Any, plan: FaultRun) -> Mapping[str, tuple[float, float]]:
    there = faulty(setup, cause.fault) if cause.fault else None
    ran = run(there) if there else None
    if ran is None:
        return {}
    return {name: (float(np.max(plan.used[name])), float(np.max(level))) for name, level in ran.used.items() if name in plan.used}


def believed(used: float) -> float:
    """What is left of a state's chance by how much of its limit is used with the fault."""
    sure = 1.0 / (1.0 + math.exp(-math.log(max(used, 1e-9)) / MEANT))
    return DOUBTED + (1.0 - DOUBTED) * sure


def _weighed(texts: Sequence[str], setup: Any, outcome: Outcome | None) -> tuple[Weighed, ...]:
    if setup is None or outcome is None:
        return ()
    return tuple(one for one in (weigh(text, setup, outcome) for text in texts) if one is not None)


def diagnose(case: ClinicCase, seen: Sequence[str], answers: Mapping[str, bool]) -> Diagnosis:
    """Causes by their chance, given symptoms that are seen and looks that were answered. Raises `UnknownName`.

    >>> found = diagnose(case_of_kind("tap"), ["tap_breaks"], {"bottom": True})
    >>> found.suspects[0].cause.name
    'tap_bottoms'
    """
    symptoms = [symptom(case.kind, name) for name in dict.fromkeys(seen)]
    looked = {look(case.kind, name): yes for name, yes in answers.items()}
    on, off = _told(case, symptoms, looked)
    each = case.shows * on + (1.0 - case.shows) * off
    chance = _normed(np.log(case.prior) + np.log(each).sum(axis=1) + np.log(_why_asked(case, symptoms)))
    states = case.shows * on / each  # chance of each state, given cause and what is known
    order = np.argsort(-chance, kind="stable")
    suspects = tuple(Suspect(None if k == len(case.causes) else case.causes[k], float(chance[k]), _reasons(case, int(k), symptoms, looked))
                     for k in order)  # fmt: skip
    first = suspects[0].cause
    fits = None if first is None else answers.get(first.look)
    return Diagnosis(suspects, _best_round(case, chance, states, looked, suspects[0]), fits)


def _told(case: ClinicCase, symptoms: Sequence[Symptom], looked: Mapping[Look, bool]) -> tuple[Array, Array]:
    """Chance of all that was told, where each state is there and where it is not."""
    on, off = np.ones(len(case.states)), np.ones(len(case.states))
    told = {one.tells for one in symptoms}
    for state in {one.tells for one in ward(case.kind).symptoms}:
        k = case.at(state)
        on[k] *= TOLD if state in told else 1.0 - TOLD
        off[k] *= IMAGINED if state in told else 1.0 - IMAGINED
    for one, yes in looked.items():
        k = case.at(one.tells)
        on[k] *= one.sure if yes else 1.0 - one.sure
        off[k] *= one.alarm if yes else 1.0 - one.alarm
    return on, off


def _why_asked(case: ClinicCase, symptoms: Sequence[Symptom]) -> Array:
    """Nobody asks but for something that the cause brought about: so much likelier is what was told, by cause.

    A cause that shows nothing of it would have been asked about by chance alone.
    """
    found: Array = np.ones(len(case.causes) + 1)
    if not symptoms:
        return found
    visible, told = {one.tells for one in ward(case.kind).symptoms}, {one.tells for one in symptoms}
    for row, cause in enumerate(case.causes):
        own = [case.shows[row, case.at(state)] for state in cause.shows if state in visible]
        asked = 1.0 - float(np.prod([1.0 - TOLD * one for one in own]))
        found[row] = 1.0 / max(asked, IMAGINED) if told & cause.shows.keys() else IMAGINED
    return found


def _normed(logs: Array) -> Array:
    found: Array = np.exp(logs - logs.max())
    return found / found.sum()


def _best_round(case: ClinicCase, chance: Array, states: Array, looked: Mapping[Look, bool], first: Suspect) -> Question | None:
    """The round of looks with most bits a minute; where one cause leads clearly, the one that shows whether it is there."""
    leader = first.cause.look if first.cause and first.chance > LEADS else ""
    rounds: dict[str, list[tuple[float, Look]]] = {}
    for one in ward(case.kind).looks:
        if one not in looked:
            bits = _worth(chance, _yes(states[:, case.at(one.tells)], one)[:, None])
            rounds.setdefault(one.round, []).append((bits, one))
    found = []
    for name, each in rounds.items():
        looks = tuple(one for _, one in sorted(each, key=lambda pair: (pair[1].name != leader, -pair[0]))[:AT_ONCE])
        yes = np.stack([_yes(states[:, case.at(one.tells)], one) for one in looks], axis=1)
        slowest = max(one.minutes for one in looks)
        minutes = slowest + SHARED * (sum(one.minutes for one in looks) - slowest)
        found.append(Question(name, looks, _worth(chance, yes), minutes))
    return max(found, key=lambda one: (any(a.name == leader for a in one.looks), one.bits / (one.minutes + WALK)), default=None)


def _yes(state: Array, one: Look) -> Array:
    """Chance of a yes by cause, where the state has this chance."""
    return state * one.sure + (1.0 - state) * one.alarm


def _worth(chance: Array, yes: Array) -> float:
    """Bits by which a round of looks narrows the causes on average; `yes` by cause and look.

    Told apart are: none of them, each one alone, and several.
    """
    no = 1.0 - yes
    none = no.prod(axis=1)
    alone = none[:, None] * yes / no
    parts = np.column_stack([none, alone, np.maximum(1.0 - none - alone.sum(axis=1), 0.0)])
    shares = chance @ parts
    after = sum(share * _entropy(chance * parts[:, k] / share) for k, share in enumerate(shares) if share > 0)
    return _entropy(chance) - after


def _entropy(chance: Array) -> float:
    some = chance[chance > 0]
    return float(-(some * np.log2(some)).sum())


def _reasons(case: ClinicCase, row: int, symptoms: Sequence[Symptom], looked: Mapping[Look, bool]) -> tuple[Reason, ...]:
    if row == len(case.causes):
        return ()
    cause = case.causes[row]
    found = [
        Reason("for", f"would show: {one.title}", f"would show: {one.title}") for one in symptoms if cause.shows.get(one.tells, 0) > 0.3
    ]
    found += [
        Reason("against", f"would not show: {one.title}", f"would not show: {one.title}")
        for one in symptoms
        if one.tells not in cause.shows
    ]
    for one, yes in looked.items():
        expected = cause.shows.get(one.tells, 0.0)
        if yes or expected > 0.3:
            speaks = "for" if yes == (expected > 0.3) else "against"
            text = f"{'yes' if yes else 'no'}: {one.question}"
            found.append(Reason(speaks, text, text))
    for speaks, said in zip(("for", "against"), case.spoken[row], strict=True):
        for piece in said:
            if piece.degree > 0.5:
                found.append(Reason(speaks, piece.words.metric, piece.words.inch))
            elif speaks == "for":
                found.append(Reason("against", piece.words.metric, piece.words.inch))
    found += _engine_reasons(case, row, symptoms)
    return tuple(dict.fromkeys(found))


def _engine_reasons(case: ClinicCase, row: int, symptoms: Sequence[Symptom]) -> list[Reason]:
    """What the engine makes of a fault in the limits behind what is seen: `run here it takes finish from 62 to 148 % of its limit`."""
    found = []
    for one in symptoms:
        name = one.limit_in(case.engine[row])
        if name and one.tells in case.causes[row].shows:
            before, after = case.engine[row][name]
            text = f"run here, it takes {limit_words(case.kind, name)} from {before:.0%} to {after:.0%} of its limit"
            found.append(Reason("for" if after > max(before, 1.0) else "against", text, text))
    return found

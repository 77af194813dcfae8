"""What the clinic knows, as tables: symptoms as people say them, looks that part causes, and the causes themselves."""

from __future__ import annotations

import re
from collections.abc import Container, Mapping
from dataclasses import dataclass
from functools import cache
from typing import TypeVar

from cutting.errors import UnknownName
from cutting.operations.registry import KINDS
from cutting.tables import Row, read_table

T = TypeVar("T")
FAMILIES: Mapping[str, tuple[str, ...]] = {
    "turned": ("turn", "face"),
    "slots": ("groove", "face groove", "trepan"),
    "holes": ("drill", "mill hole"),
    "threads": ("turn thread", "tap", "mill thread"),
}
UNDO = ("setting", "insert", "holder", "way", "machine")  # what a change touches, the cheapest to undo first
ROUNDS: Mapping[str, str] = {
    "control": "At the control: what differs from the plan?",
    "edge": "The standing edge under a loupe: what is there?",
    "tool": "Tool and holder: what differs from the plan?",
    "piece": "The piece before it is cut: what differs from the plan?",
    "coolant": "Coolant and chips: what is wrong?",
    "holding": "Jaws, stops and supports: what is wrong?",
    "machine": "Machine and instruments: what is wrong?",
    "marks": "Chip and marks on the part: what do they show?",
    "again": "Once more, or counted: what comes of it?",
    "hole": "The hole before this cut: what is wrong?",
}
FALSE_SHARE = 0.25  # of what a look misses, that it finds where there is nothing
CAUTIONS: Mapping[str, str] = {
    "stopped": "Spindle stopped and locked out before a hand or a gauge goes near; the edge is sharp while it stands, too.",
    "hook": "Chips with a hook and gloves off the revolving part: they are hot and cut; never by hand, never while it turns.",
    "door": "Door shut, through the window: no hand near a revolving part.",
    "hot": "Part and tool may burn: touch thermometer, not a finger.",
    "skin": "Gloves and glasses for old inserts and emulsion; follow its safety data sheet.",
    "air": "Compressed air only with a shield and glasses: chips fly at the eyes.",
    "bar": "A bar that lashes can kill: stay clear of the back of the spindle, stop before looking.",
}


@dataclass(frozen=True)
class Symptom:
    """Something seen, heard or measured; `tells` is the state that it shows, `limits` the ones that speak of it, by preference."""

    name: str
    kinds: tuple[str, ...]
    title: str
    said: tuple[str, ...]
    tells: str
    limits: tuple[str, ...]
    picture: str
    source: str

    def limit_in(self, used: Container[str]) -> str:
        """The limit that speaks of it, of those that there are; blank where none does."""
        return next((name for name in self.limits if name in used), "")


@dataclass(frozen=True)
class Look:
    """A question that somebody at the machine answers with yes or no.

    `sure` is how often it finds what is there, `minutes` what it takes. Looks of one `round` are taken together: who stands
    before the tool looks at all of it.
    """

    name: str
    round: str
    kinds: tuple[str, ...]
    question: str
    tells: str
    how: str
    minutes: float
    sure: float
    caution: str
    source: str

    @property
    def alarm(self) -> float:
        """Chance of a yes where there is nothing: people miss more than they imagine (common practice)."""
        return FALSE_SHARE * (1.0 - self.sure)


@dataclass(frozen=True)
class Cause:
    """What may be wrong.

    `prior` is its weight among its neighbours, `shows` the chance of each state where it is true, `supports` and `denies` what the
    operation's own numbers may say of it. `look` tells it from others. `change` is what to do; `lever` the setting that does it,
    blank where hands do, `aims` the limits that it should ease. `undo` is what the change touches, `fault` how a
    set-up looks in which it is true.
    """

    name: str
    kinds: tuple[str, ...]
    title: str
    prior: float
    shows: Mapping[str, float]
    supports: tuple[str, ...]
    denies: tuple[str, ...]
    look: str
    change: str
    lever: str
    aims: tuple[str, ...]
    side_effects: str
    undo: str
    fault: tuple[str, ...]
    source: str

    @property
    def effort(self) -> int:
        """How dear its change is to undo, 0 the cheapest."""
        return UNDO.index(self.undo)


def _kinds(row: Row) -> tuple[str, ...]:
    named = row.words("kinds")
    found = [kind for name in named for kind in FAMILIES.get(name, ("bore",) if name == "bored" else (name,))]
    return tuple(found) if found else tuple(KINDS)


@cache
def symptoms() -> Mapping[str, Symptom]:
    """Every symptom by name."""
    return {
        row["name"]: Symptom(
            row["name"],
            _kinds(row),
            row["title"],
            row.words("said"),
            row["tells"] or row["name"],
            row.words("limit", "/"),
            row["picture"],
            row["source"],
        )
        for row in read_table("clinic/symptoms.csv")
    }


@cache
def looks() -> Mapping[str, Look]:
    """Every look by name."""
    return {
        row["name"]: Look(
            row["name"],
            row["round"],
            _kinds(row),
            row["question"],
            row["tells"],
            row["how"],
            row.number("minutes"),
            row.number("sure"),
            row["caution"],
            row["source"],
        )
        for row in read_table("clinic/looks.csv")
    }


@cache
def causes() -> Mapping[str, Cause]:
    """Every cause by name."""
    return {
        row["name"]: Cause(
            row["name"], _kinds(row), row["title"], row.number("prior"), _shows(row["shows"]), row.words("for"), row.words("against"),
            row["look"], row["change"], row["lever"], row.words("aims", "/"), row["side"], row["undo"], row.words("fault"), row["source"],
        )
        for row in read_table("clinic/causes.csv")
    }  # fmt: skip


def _shows(text: str) -> Mapping[str, float]:
    """Chances by state: `long_chips .95, thin_chip .9`."""
    found = (re.fullmatch(r"(\w+) (\.\d+)", part.strip()) for part in text.split(","))
    return {one[1]: float(one[2]) for one in found if one}


@dataclass(frozen=True)
class Ward:
    """What the clinic has for one kind of operation."""

    symptoms: tuple[Symptom, ...]
    looks: tuple[Look, ...]
    causes: tuple[Cause, ...]


@cache
def ward(kind: str) -> Ward:
    """Symptoms, looks and causes of a kind of operation. Raises `UnknownName`."""
    if kind not in KINDS:
        raise UnknownName("operation", f"no operation is called '{kind}'; there are {', '.join(KINDS)}.", None, tuple(KINDS))
    own = tuple(one for one in causes().values() if kind in one.kinds)
    shown = {state for one in own for state in one.shows}
    return Ward(
        tuple(one for one in symptoms().values() if kind in one.kinds and one.tells in shown),
        tuple(one for one in looks().values() if kind in one.kinds and one.tells in shown),
        own,
    )


def limit_words(kind: str, name: str) -> str:
    """A limit as it stands on the screen."""
    return next(rule.label for rule in KINDS[kind].model.rules if rule.name == name)


def symptom(kind: str, name: str) -> Symptom:
    """A symptom of a kind of operation. Raises `UnknownName` that names its neighbours."""
    return _of("symptoms", {one.name: one for one in ward(kind).symptoms}, kind, name)


def look(kind: str, name: str) -> Look:
    """A look of a kind of operation. Raises `UnknownName` that names its neighbours."""
    return _of("answers", {one.name: one for one in ward(kind).looks}, kind, name)


def cause(kind: str, name: str) -> Cause:
    """A cause of a kind of operation. Raises `UnknownName` that names its neighbours."""
    return _of("cause", {one.name: one for one in ward(kind).causes}, kind, name)


def _of(field: str, known: Mapping[str, T], kind: str, name: str) -> T:
    if name not in known:
        raise UnknownName(field, f"{kind} knows no '{name}'; there are {', '.join(known)}.", None, tuple(known))
    return known[name]

"""A dialect of the shop's own: read from data, each entry within its bounds, and tried on a sample at once."""

from __future__ import annotations

import re
from collections.abc import Mapping
from dataclasses import asdict, fields
from typing import Any

from cutting.errors import CuttingError, OutOfRange, UnknownName
from cutting.motion.moves import (
    Coolant,
    CuttingOutline,
    Dwell,
    Feed,
    Frame,
    Helix,
    Path,
    Per,
    Rapid,
    SpindleOn,
    Step,
    Sync,
    ThreadPass,
    ToolChange,
)
from cutting.program.dialect import Dialect

WORD = re.compile(r"[GM]\d{1,3}(\.\d)?")
MOTIONS = ("G32", "G33")  # words of a pass that is tied to the spindle
NUMBERS: Mapping[str, tuple[int, int]] = {"dwell_in": (1, 1000), "numbered": (0, 100), "decimals": (3, 6), "feed_decimals": (3, 6)}
FLAGS = ("turns", "diameter", "cycles")
WORDS = ("per_turn", "per_minute", "clamp", "stop", "end")
LONGEST = {"name": 40, "title": 80, "source": 200}
TOOL = re.compile(r"[A-Z0-9. ]*(\{number(:0[1-4]d)?\}[A-Z0-9. ]*){1,2}")


def dialect_of(data: Mapping[str, Any]) -> Dialect:
    """A dialect from its entries, as `asdict` gives them. Raises `CuttingError` that names the entry and its bound."""
    known = {one.name for one in fields(Dialect)}
    for name in data:
        if name not in known:
            raise UnknownName(str(name)[:40], f"no such entry; there are {', '.join(sorted(known))}.")
    for name in known - set(data) - {"cycles", "source"}:
        raise CuttingError(name, "is missing.")
    found = dict(data)
    for name, most in LONGEST.items():
        found[name] = _text(found.get(name, ""), name, most)
    if not re.fullmatch(r"[\w .,/-]+", found["name"]):
        raise CuttingError("name", "needs letters or figures.")
    for name in FLAGS:
        if not isinstance(found.setdefault(name, False), bool):
            raise CuttingError(name, "is yes or no.")
    for name, (low, high) in NUMBERS.items():
        if isinstance(found[name], bool) or not isinstance(found[name], int) or not low <= found[name] <= high:
            raise OutOfRange(name, f"'{found[name]}' is outside {low} to {high}.", f"{low} to {high}")
    for name in WORDS:
        found[name] = _word(found[name], name)
    if found["per_turn"] == found["per_minute"]:
        raise CuttingError("per_minute", "is the word of the feed per revolution too.")
    if found["thread"] not in MOTIONS:
        raise OutOfRange("thread", f"'{str(found['thread'])[:20]}' is neither {' nor '.join(MOTIONS)}.", " or ".join(MOTIONS))
    for name, letters in (("thread_lead", "FKE"), ("dwell", "PXFU")):
        if found[name] not in tuple(letters):
            raise OutOfRange(name, f"'{str(found[name])[:20]}' is none of {', '.join(letters)}.", ", ".join(letters))
    if not isinstance(found["tool"], str) or not TOOL.fullmatch(found["tool"]) or len(found["tool"]) > 40:
        raise CuttingError("tool", "is words with {number}, as T{number:02d}{number:02d} or T{number} M6.")
    found["comment"], found["start"] = _comment(found["comment"]), _start(found["start"])
    return Dialect(**found)


def _text(value: Any, name: str, most: int) -> str:
    if not isinstance(value, str) or len(value) > most or not value.isprintable():
        raise OutOfRange(name, f"is text of at most {most} letters.", f"at most {most} letters")
    return value.strip()


def _word(value: Any, name: str) -> str:
    if not isinstance(value, str) or not WORD.fullmatch(value):
        raise CuttingError(name, f"'{str(value)[:20]}' is no word such as G95 or M30.")
    return value


def _comment(value: Any) -> tuple[str, str]:
    if not isinstance(value, list | tuple) or len(value) != 2 or not all(isinstance(one, str) and len(one) <= 3 for one in value):
        raise CuttingError("comment", "is what opens and what closes a comment, as ( and ).")
    opens = value[0]
    if opens.strip() not in ("(", ";"):  # what the reader leaves out
        raise OutOfRange("comment", "begins with ( or ;.", "( or ;")
    return opens, ")" if opens.strip() == "(" else ""


def _start(value: Any) -> tuple[str, ...]:
    if not isinstance(value, list | tuple) or len(value) > 12:
        raise OutOfRange("start", "is at most 12 words.", "at most 12 words")
    return tuple(_word(one, "start") for one in value)


def as_data(dialect: Dialect) -> dict[str, Any]:
    """A dialect's entries, as they are kept, exported and read again."""
    return {**asdict(dialect), "comment": list(dialect.comment), "start": list(dialect.start)}


def sample(turns: bool) -> Path:
    """A short cut that uses what a dialect says: tool, speed with its clamp, both feeds, a dwell, a thread; an arc on a mill."""
    if turns:
        place = (40.0, 0.0, 40.0)
        steps: tuple[Step, ...] = (
            ToolChange("SAMPLE", 0.0), SpindleOn(0.0, 2000.0, 150.0), Coolant("flood"), Rapid((22.0, 0.0, 2.0)),
            Feed((22.0, 0.0, -30.0), 0.2), Feed((26.0, 0.0, -30.0), 200.0, Per.MINUTE), Dwell(0.5), Rapid(place), SpindleOn(600.0, 600.0),
            Rapid((22.0, 0.0, 5.0)), Sync(True), ThreadPass((22.0, 0.0, -20.0), 1.5), Sync(False), Rapid(place),
        )  # fmt: skip
    else:
        place = (0.0, 0.0, 50.0)
        steps = (
            ToolChange("SAMPLE", 0.0), SpindleOn(1500.0, 1500.0), Coolant("flood"), Rapid((0.0, 0.0, 2.0)), Feed((0.0, 0.0, -5.0), 0.1),
            Dwell(0.5), Rapid((0.0, 0.0, 2.0)), Rapid((5.0, 0.0, 2.0)), Helix((5.0, 0.0, -1.5), (0.0, 0.0, 0.0), 1.0, False, 200.0),
            Rapid(place),
        )  # fmt: skip
    return Path(Frame.TURNED if turns else Frame.HOLE, "", place, steps, CuttingOutline(()))

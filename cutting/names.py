"""Finds a row by any name that people use, and offers the nearest ones where there is none."""

from __future__ import annotations

import difflib
import re
from collections.abc import Iterable, Mapping
from typing import TypeVar

from cutting.errors import UnknownName

Thing = TypeVar("Thing")


def plain(name: str) -> str:
    """A name without case, blanks and dashes: the form in which names are compared."""
    return re.sub(r"[\s\-_./]+", "", name).casefold()


def index(things: Iterable[tuple[Iterable[str], Thing]]) -> dict[str, Thing]:
    """All spellings to the thing; the first thing that claims a spelling keeps it."""
    found: dict[str, Thing] = {}
    for names, thing in things:
        for name in names:
            found.setdefault(plain(name), thing)
    return found


def find(name: str, known: Mapping[str, Thing], field: str, what: str, shown: Iterable[str]) -> Thing:
    """The thing of that name. Raises `UnknownName` with the nearest known names."""
    if (thing := known.get(plain(str(name)))) is not None:
        return thing
    choices = {plain(label): label for label in shown}
    near = difflib.get_close_matches(plain(str(name)), choices, n=3, cutoff=0.4)  # as near as a person slips
    labels = tuple(choices[key] for key in near)
    hint = f" Near it: {', '.join(labels)}." if labels else ""
    raise UnknownName(field, f"no {what} is called '{name}'.{hint}", None, labels)

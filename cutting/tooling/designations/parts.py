"""What all designations share: parts that explain themselves, and refusals that name the position."""

from __future__ import annotations

import re
from collections.abc import Mapping
from dataclasses import dataclass
from typing import NoReturn

from cutting.errors import CuttingError


class UnreadableDesignation(CuttingError):
    """A code that the standard does not allow; the message names the position and what is allowed there."""


@dataclass(frozen=True)
class Part:
    """One position of a designation: the characters as written, what the position is for, and what they say."""

    position: str
    code: str
    name: str
    meaning: str


@dataclass(frozen=True)
class Position:
    """A place in a designation, for refusals: number, name and the whole text."""

    number: int
    name: str
    text: str
    field: str

    def refuse(self, code: str, allowed: str) -> NoReturn:
        shown = f"is '{code}'" if code else "is missing"
        raise UnreadableDesignation(
            self.field, f"in '{self.text}' position {self.number} ({self.name}) {shown}; allowed here: {allowed}.", allowed
        )

    def choose(self, code: str, allowed: Mapping[str, str]) -> Part:
        """The part, when the code is one of those allowed. Raises `UnreadableDesignation`."""
        if code not in allowed:
            self.refuse(code, " ".join(allowed))
        return Part(str(self.number), code, self.name, allowed[code])


def squeeze(text: str) -> str:
    """A designation without blanks, dashes and lower case; a decimal comma is a point."""
    return re.sub(r"[\s\-_–/]+", "", text.replace(",", ".")).upper()


def millimetres(value: float) -> str:
    """A length [mm] in words."""
    return f"{value:g} mm"

"""One thing that can be done otherwise: its words, what to set in the form, and the set-up that it makes."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any, Generic, TypeVar

from cutting.quantities.write import Display, write

S = TypeVar("S")
SYSTEMS = ("metric", "inch")


@dataclass(frozen=True)
class Change(Generic[S]):
    """A set-up done otherwise; `patch` is what to set in its form, section by section."""

    text: Display
    patch: dict[str, Any]
    setup: S

    @property
    def kind(self) -> str:
        """The section that it changes first."""
        return next(iter(self.patch), "")

    @property
    def sets(self) -> frozenset[str]:
        """Every setting that it sets, as `section.name`."""
        return frozenset(f"{section}.{name}" for section, values in self.patch.items() for name in values)


def in_words(text: str) -> Display:
    """The same words in both systems."""
    return Display(text, text)


def step(what: str, before: float, after: float, kind: str) -> Display:
    """`what before → after` in both systems."""
    return Display(*(f"{what} {write(before, kind, s, False)} → {write(after, kind, s)}" for s in SYSTEMS))


def setting(name: str, what: str, before: float, after: float, kind: str, changed: Any, lead: str = "") -> Change[Any]:
    """A change of one setting; `changed` is the set-up with it, `lead` words before it."""
    said = step(what, before, after, kind)
    text = Display(lead + said.metric, lead + said.inch)
    return Change(text, {"settings": {name: write(after, kind)}}, changed)

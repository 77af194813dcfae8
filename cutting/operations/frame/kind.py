"""What a kind of operation brings to the house: one `Kind`, and one line in the registry."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import Any, Protocol

from cutting.machine.machines import Machine
from cutting.motion.moves import Path
from cutting.operations.frame.fields import Base, Fields, Nudged
from cutting.operations.frame.model import Model
from cutting.tooling.roles import Parts, Role, Stock
from cutting.workpiece.solid import NOTHING, Corner, Region, Solid

Settled = dict[str, float | bool]  # values [mm] by field name


class Given(Protocol):
    """What was entered of a feature; a value that cannot be read is none."""

    def has(self, name: str) -> bool: ...
    def text(self, name: str) -> str: ...
    def length(self, name: str) -> float | None: ...
    def dimension(self, name: str) -> float | None: ...


@dataclass(frozen=True)
class Kind:
    """A kind of operation: its evaluation, its map, what would move a limit, and the fields that it asks for.

    `model` is its part of the engine, `explore` draws its map.
    `roles` are the parts of its tool, the one with the edge first; `serves` narrows the kinds of tool that may play a role by the
    feature as it was entered, and `gather` makes a stock of what there is. `build` makes its set-up from what every kind is given,
    the tool's parts by role and the fields, `read_feature` the feature alone. `guests` are kinds whose tools may compete,
    `shape` is that of the features that it makes.
    `headline` are the results that are always in sight, `choices` the settings that are picked from a list, `typed` further ones that
    a set-up asks for in a field, `ranked` those that
    a ranking finds beside speed and feed,
    for which `neutral` values stand in,
    `path` tells how the tool goes, from the numbers of one set-up and the part in front of it (None: nobody said). `removes` is what a
    feature takes away from the part, `settles` what the part in front of it settles of the entries that are not given, `runs_on` the
    spindle that a new one takes by its entries (blank: the first), `area` the corners of what goes in half section, for drawings;
    `stiffness` that of the part at the cut [N/µm]. What is `risky` is told what the part is worth when it begins.
    """

    name: str
    title: str
    model: Model[Any]
    explore: Callable[..., Any]
    fields: Fields
    nudged: tuple[Nudged, ...]
    headline: tuple[str, ...]
    roles: tuple[Role, ...]
    gather: Callable[[Parts, str], Stock]
    build: Callable[[Base, Mapping[str, Any], dict[str, dict[str, Any]]], Any]
    read_feature: Callable[[dict[str, Any]], Any]
    path: Callable[[Any, Solid | None], Path]
    serves: Callable[[dict[str, Any]], dict[str, tuple[str, ...]]] = lambda feature: {}
    guests: tuple[str, ...] = ()
    removes: Callable[[Any], Region] = lambda feature: NOTHING
    settles: Callable[[Given, Solid], Settled] = lambda given, before: {}
    area: Callable[[Any, Solid], tuple[Corner, ...]] = lambda setup, before: ()
    stiffness: Callable[[Any], float | None] = lambda setup: None
    runs_on: Callable[[Mapping[str, Any], Machine], str] = lambda feature, machine: ""
    choices: tuple[str, ...] = ()
    typed: Callable[[Any], tuple[str, ...]] = lambda setup: ("spindle_clamp",)
    ranked: tuple[str, ...] = ()
    neutral: tuple[tuple[str, float], ...] = (("cutting_speed", 100.0), ("feed_per_rev", 0.05))
    shape: str = ""
    risky: bool = False

    def kinds_for(self, role: Role, feature: dict[str, Any]) -> tuple[str, ...]:
        """The kinds of tool in the crib that may play a role for a feature as it was entered."""
        return self.serves(feature).get(role.name, role.kinds)

"""Every number of every kind at nothing, at next to nothing, at far too much: it is refused by name, or all that comes of it is finite.

`BENCH_PHYSICS=all` runs all of them (some 6,000); the usual run draws some by a fixed seed.
"""

from __future__ import annotations

import copy
import math
import os
import random
import time
from typing import Any

import pytest

from cutting.doors.json_form import read_setup
from cutting.errors import CuttingError
from cutting.operations.frame.fields import Field
from cutting.operations.registry import KINDS, evaluate_quickly
from tests.core.every_kind import EVERY_KIND

NUMBERS: tuple[Any, ...] = (
    0, -1, 1e-300, 1e-12, -1e-12, 1e-9, 1e-6, 1e-3, 0.5, 1e3, 2e4, 1e6, 1e12, 1e300, -1e300, "1e300 mm", "0 mm",
)  # fmt: skip
WORDS = {
    "thread": ("M0", "M1e300", "1/0-20 UNC", "M10x0", "M10x1e9", "Tr 20x0", "G 1/0", "M6x-1"),
    "stack": ("1e300", "steel: 1e300", "C45: 0; Al: -1", "x" * 5000, "0"),
    "bores": ("1e300", "Ø1e300 x 5", "0", "x" * 5000),
    "text": ("x" * 5000,),
}
USUAL = 700
LONGEST = 5.0  # s
ALL = os.environ.get("BENCH_PHYSICS") == "all"


def values_for(one: Field) -> list[Any]:
    """What is typed into a field."""
    if one.kind in WORDS:
        return list(WORDS[one.kind])
    plain = [value for value in NUMBERS if not isinstance(value, str)]
    if one.kind == "lengths":
        return [[value, value] for value in plain]
    if one.kind == "points":
        return [[[value, value], [1, value]] for value in plain]
    low, high = one.bounds or (0.0, 0.0)
    return [*NUMBERS, low, high, low * 0.999, high * 1.001]


def everything() -> list[tuple[str, str, str, Any]]:
    """Kind, section, field and what is typed there."""
    return [
        (kind, section, one.name, value)
        for kind in EVERY_KIND
        for section in ("feature", "settings", "holding", "bar")
        for one in getattr(KINDS[kind].fields, section)
        if one.kind not in ("choice", "flag")
        for value in values_for(one)
    ]


@pytest.mark.parametrize("kind", EVERY_KIND)
def test_hostile_physics_is_refused_by_name_or_comes_to_something_finite(kind: str) -> None:
    own = [case for case in everything() if case[0] == kind]
    picked = own if ALL else random.Random(kind).sample(own, min(USUAL // len(EVERY_KIND), len(own)))
    for _, section, name, value in picked:
        told = copy.deepcopy(EVERY_KIND[kind])
        told.setdefault(section, {})[name] = value
        began = time.monotonic()
        outcome = None
        unnamed = []
        try:
            outcome = evaluate_quickly(read_setup(told))
        except CuttingError as refused:
            unnamed = [] if refused.field else [str(refused)]
        assert unnamed == [], (section, name, value)
        if outcome is None:
            continue
        numbers = [one.value for one in outcome.results.values()] + [one.utilisation for one in outcome.limits]
        assert all(math.isfinite(number) for number in numbers), (section, name, value)
        assert time.monotonic() - began < LONGEST, (section, name, value)


@pytest.mark.parametrize("thread", ["1/0-20 UNC", "G 1/0", "0/0-20 UNC"])
def test_a_thread_of_nothing_is_refused_as_a_thread(thread: str) -> None:
    told = copy.deepcopy(EVERY_KIND["tap"])
    told["feature"]["thread"] = thread
    with pytest.raises(CuttingError) as refused:
        read_setup(told)
    assert refused.value.field == "feature.thread"


def test_a_part_of_no_diameter_is_refused_where_it_was_typed() -> None:
    told = copy.deepcopy(EVERY_KIND["face"])
    told["holding"]["steps"] = [[0, 0], [1, 0]]
    with pytest.raises(CuttingError) as refused:
        read_setup(told)
    assert refused.value.field == "holding.steps"

"""Shared by all tests: a set-up to vary."""

from __future__ import annotations

import copy
from collections.abc import Callable
from typing import Any

import pytest

from cutting.doors.json_form import read_setup
from cutting.operations.turned.setup import Setup

BASE: dict[str, Any] = {
    "operation": "turn",
    "material": "34CrNiMo6",
    "machine": "two-axis lathe",
    "tool": {"insert": "CNMG 120408 middle P20", "holder": "PCLNR 2525 M12"},
    "feature": {"start_diameter": 57, "end_diameter": 49, "length": 200, "distance_from_chuck": 20},
    "settings": {"cutting_speed": 150, "feed_per_rev": 0.28, "depth_of_cut": 2, "coolant": "jet"},
    "holding": {"style": "chuck and centre", "free_length": 268, "grip_diameter": 64},
}


@pytest.fixture
def form() -> Callable[..., dict[str, Any]]:
    """The base set-up in its JSON form, with changes merged into it."""

    def build(**changes: Any) -> dict[str, Any]:
        made = copy.deepcopy(BASE)
        for key, value in changes.items():
            if isinstance(value, dict) and key in made:
                made[key].update(value)
            else:
                made[key] = value
        if "feature" in changes and "holding" not in changes:
            made.pop("holding")
        return made

    return build


@pytest.fixture
def setup(form: Callable[..., dict[str, Any]]) -> Callable[..., Setup]:
    return lambda **changes: read_setup(form(**changes))

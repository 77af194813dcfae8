"""The shipped heavy bores in their open form, to vary in tests."""

from __future__ import annotations

import copy
from typing import Any

import numpy as np

from cutting.doors.heavy_tool_form import EXAMPLES, examples
from cutting.doors.json_form import read_setup
from cutting.operations.frame.outcome import Limit
from cutting.operations.holes.heavy_bore.evaluate import MODEL
from cutting.operations.holes.heavy_bore.numbers import Numbers
from cutting.operations.holes.heavy_bore.setup import HeavyBoreSetup
from cutting.operations.registry import evaluate_quickly

NAMES = dict(zip(("cup-tool-light", "cup-tool-solid", "cup-tool"), ("hollow arms", "solid steel", "arms"), strict=True))
HEAVY: dict[str, Any] = next(one for one in examples() if one["tool"]["heavy_tool"]["name"] == "Cup tool, arms")
__all__ = ["EXAMPLES", "HEAVY", "figure", "form_of", "heavy", "limits_of", "numbers_of"]


def form_of(name: str = "cup-tool", **sections: Any) -> dict[str, Any]:
    """A heavy bore with some entries otherwise: a section's values, `tool` those of its tool, `segments` and `steps` as {row: values}."""
    wanted = f"Cup tool, {NAMES[name]}"
    found: dict[str, Any] = copy.deepcopy(next(one for one in examples() if one["tool"]["heavy_tool"]["name"] == wanted))
    tool = found["tool"]["heavy_tool"]
    for section, values in copy.deepcopy(sections).items():
        if section in ("segments", "steps"):
            for row, cells in values.items():
                tool[section][row] |= cells
        elif section == "tool":
            tool |= values
        elif isinstance(values, dict):
            found[section] = {**found.get(section, {}), **values}
        else:
            found[section] = values
    return found


def heavy(name: str = "cup-tool", **sections: Any) -> HeavyBoreSetup:
    found: HeavyBoreSetup = read_setup(form_of(name, **sections))
    return found


def numbers_of(name: str = "cup-tool", **sections: Any) -> Numbers:
    return MODEL.quickly(heavy(name, **sections))


def figure(x: Numbers, name: str) -> float:
    """A number of one set-up by its name, of several bores the largest."""
    value = x.tool.own[name] if name in x.tool.own else getattr(x, name)
    return float(np.max(value))


def limits_of(name: str = "cup-tool", **sections: Any) -> dict[str, Limit]:
    return {one.name: one for one in evaluate_quickly(heavy(name, **sections)).limits}

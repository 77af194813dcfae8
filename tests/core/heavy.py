"""The shipped heavy tools in their open form, to vary in tests."""

from __future__ import annotations

import copy
import json
from pathlib import Path
from typing import Any

import cutting
from cutting.machine.machines import machines
from cutting.operations.holes.heavy_bore.form import read_heavy
from cutting.operations.holes.heavy_bore.numbers import Numbers, numbers
from cutting.operations.holes.heavy_bore.setup import HeavySetup
from cutting.operations.holes.heavy_bore.study import HeavyStudy, study
from cutting.working import Silent

EXAMPLES = Path(cutting.__file__).parent / "tooling" / "heavy" / "examples"
NAMES = ("cup-tool", "cup-tool-light", "cup-tool-solid")


def form_of(name: str = "cup-tool", **sections: Any) -> dict[str, Any]:
    """A tool's form with some entries otherwise: a section's values, or `segments` and `steps` as {row: values}."""
    found: dict[str, Any] = json.loads((EXAMPLES / f"{name}.json").read_text(encoding="utf-8"))
    for section, values in copy.deepcopy(sections).items():
        if section in ("segments", "steps"):
            for row, cells in values.items():
                found[section][row] |= cells
        elif isinstance(values, dict):
            found[section] = {**found.get(section, {}), **values}
        else:
            found[section] = values
    return found


def heavy(name: str = "cup-tool", **sections: Any) -> HeavySetup:
    return read_heavy(form_of(name, **sections))


def numbers_of(name: str = "cup-tool", **sections: Any) -> Numbers:
    return numbers(heavy(name, **sections), Silent())


def sheet_of(name: str = "cup-tool", **sections: Any) -> HeavyStudy:
    return study(heavy(name, **sections), machines())

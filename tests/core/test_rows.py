"""A row of a ranking is what it says: set up and solved it gives its own seconds and money, every kind on every machine."""

from __future__ import annotations

import random

import pytest

from cutting.advice import advise
from cutting.advice.candidate import entries_set
from cutting.doors.json_form import read_request, read_setup
from cutting.errors import CuttingError
from cutting.machine.machines import machines
from cutting.operations.registry import evaluate_quickly
from tests.core.every_kind import EVERY_KIND

METALS = ("C45", "42CrMo4", "X5CrNi18-10", "EN AW-6082 T6", "EN-GJL-250", "Ti-6Al-4V")
ROWS = 6


@pytest.mark.parametrize("machine", [one.name for one in machines()])
@pytest.mark.parametrize("kind", list(EVERY_KIND))
def test_a_row_that_is_taken_gives_its_own_numbers(kind: str, machine: str) -> None:
    base = EVERY_KIND[kind]
    metal = random.Random(f"{kind} {machine}").choice(METALS)
    form = {name: part for name, part in base.items() if name != "tool"} | {"machine": machine, "material": metal}
    form["settings"] = {"coolant": "flood"}
    try:
        found = advise(*read_request(form))
    except CuttingError:  # a machine that does not do it
        return
    for row in found.candidates[:ROWS]:
        if row.becomes or row.before:  # another kind's row is held by that kind
            continue
        taken = {**form, "tool": row.tool, "settings": {"coolant": "flood", **entries_set(row)}}
        results = evaluate_quickly(read_setup(taken)).results
        assert results["operation_time"].value == pytest.approx(row.seconds, rel=1e-9), row.designation
        assert results["operation_cost"].value == pytest.approx(row.cost, rel=1e-9), row.designation

"""A cut through the wall into the bore, or to a neck that carries nothing, is refused; the bound that is told is the bound."""

from __future__ import annotations

import re

import pytest

from cutting.errors import CuttingError
from cutting.plan.plan import Plan, Step, before, complete
from cutting.plan.read import read_entries
from cutting.plan.values import given
from cutting.plan.wall import check_wall
from cutting.workpiece.solid import Blank

TUBE, BAR = Blank(60.0, 100.0, 30.0), Blank(60.0, 100.0)


def cut(kind: str, blank: Blank, **feature: str) -> str:
    """Why a cut in a blank is refused, blank where it is not."""
    step = Step("op1", kind, told=read_entries(kind, "feature", feature))
    plan = Plan(blank, "C45", "two-axis lathe", (step,))
    part = before(plan, step)
    try:
        check_wall(step, part, complete(kind, given(step.told), part))
    except CuttingError as refused:
        return f"{refused.field}: {refused.message} {refused.bound}"
    return ""


GROOVED = {"width": "4 mm", "distance_from_chuck": "50 mm"}


@pytest.mark.parametrize(
    ("kind", "blank", "size", "told", "through"),
    [
        ("groove", TUBE, "floor", {**GROOVED, "where": "outside"}, "29 mm"),
        ("turn", TUBE, "end_diameter", {"length": "20 mm"}, "29.9 mm"),
        ("bore", TUBE, "end_diameter", {"length": "20 mm"}, "60.2 mm"),
        ("groove", TUBE, "floor", {**GROOVED, "where": "inside"}, "61 mm"),
    ],
)
def test_a_cut_through_the_wall_is_refused_up_to_the_bound_that_is_told(
    kind: str, blank: Blank, size: str, told: dict[str, str], through: str
) -> None:
    said = cut(kind, blank, **told, **{size: through})
    assert said.startswith(f"feature.{size}:")
    assert "through the wall" in said
    found = re.search(r"(above|below) Ø([\d.]+) mm", said)
    assert found
    side, bound = (1.0 if found[1] == "above" else -1.0), float(found[2])
    assert "through the wall" in cut(kind, blank, **told, **{size: f"{bound - 0.02 * side:g} mm"})
    assert not cut(kind, blank, **told, **{size: f"{bound + 0.02 * side:g} mm"})


def test_a_neck_that_does_not_carry_is_a_cut_off() -> None:
    """A tenth of the diameter: Ø6 of Ø60; in a tube a deep groove is a matter of its wall."""
    assert "cut-off" in cut("groove", BAR, **GROOVED, floor="5.9 mm")
    assert "from Ø6 mm" in cut("groove", BAR, **GROOVED, floor="5.9 mm")
    assert not cut("groove", BAR, **GROOVED, floor="6.1 mm")


def test_what_stands_beside_the_bore_is_no_matter_of_its_wall() -> None:
    """A groove in the solid part behind a bore of 20 mm may be deeper than the bore is wide; over the bore it may not."""
    bored = Step("op0", "drill", told=read_entries("drill", "feature", {"diameter": "40 mm", "depth": "20 mm", "through": False}))
    for place, refused in (("50 mm", False), ("90 mm", True)):
        step = Step("op1", "groove", told=read_entries("groove", "feature", {**GROOVED, "distance_from_chuck": place, "floor": "38 mm"}))
        plan = Plan(BAR, "C45", "two-axis lathe", (bored, step))
        part = before(plan, step)
        try:
            check_wall(step, part, complete("groove", given(step.told), part))
            assert not refused
        except CuttingError:
            assert refused

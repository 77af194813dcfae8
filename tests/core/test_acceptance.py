"""What is asked of a hole through a stack, layer by layer; what harms it and what is only not ideal; how long its drill lasts there."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

import numpy as np
import pytest

from cutting.doors.json_form import read_request, read_setup
from cutting.operations.frame.outcome import Severity, Standing
from cutting.operations.holes.drill.evaluate import MODEL
from cutting.operations.holes.drill.window import window
from cutting.operations.registry import evaluate_quickly as evaluate
from cutting.studies.acceptance import acceptance

LAYERS = "CFRP laminate 4 / Ti-6Al-4V 2 x4 / EN AW-2024 T4 4"
PANEL: dict[str, Any] = {
    "operation": "drill", "material": "CFRP laminate", "machine": "feed-drilling unit",
    "feature": {"diameter": "6.35 H12", "depth": 16, "through": True, "stack": LAYERS, "asked_holes": 100, "burr": "0.15"},
    "settings": {"coolant": "dry", "cutting_speed": 15, "feed_per_rev": 0.06},
    "tool": {"drill": "stack carbide 6.35 K20 fine plain", "chuck": "collet 13 for the unit"}, "batch": {"pieces": 20},
}  # fmt: skip


def panel(**changed: Any) -> Any:
    return read_setup({**PANEL, **{name: {**PANEL[name], **more} if isinstance(more, dict) else more for name, more in changed.items()}})


def holes(**changed: Any) -> float:
    return float(np.min(MODEL.quickly(panel(**changed)).holes))


def test_one_drill_makes_about_a_hundred_holes_through_laminate_and_titanium() -> None:
    """Common practice: a plain carbide drill on a pneumatic unit at 750 1/min and 0.06 mm/rev makes about a hundred."""
    assert 60 <= holes() <= 160
    assert holes(tool={"drill": "laminate carbide 6.35 K10 diamond"}) > holes()
    metals = "Ti-6Al-4V 2 x4 / EN AW-2024 T4 4"
    # lips that fibres have rounded do less in the metals beneath: more than the two wears together
    alone = [holes(feature={"stack": stack, "depth": None}) for stack in ("CFRP laminate 4 / EN AW-2024 T4 0.1", metals)]
    assert 1.0 / holes() > 1.0 / alone[0] + 1.0 / alone[1]


def test_slower_than_its_speeds_a_drill_makes_no_more_holes() -> None:
    """Below its window an edge is worn by the way it rubs (Taylor's law ends there); within it slower still lasts longer."""
    one = {"feature": {"stack": None, "diameter": "6.35", "depth": 16, "burr": None}, "material": "C45", "machine": "machining centre"}
    tool = {"tool": {"drill": "carbide 5xD 8.5 K30 fine PVD", "chuck": "collet BT40 to 20"}}
    form = {**one, **tool, "feature": {**one["feature"], "diameter": "8.5", "asked_holes": None}}
    wet = {"coolant": "flood", "feed_per_rev": 0.15}
    low = float(np.min(MODEL.quickly(panel(**form, settings=wet)).book_low))
    counts = [holes(**form, settings={**wet, "cutting_speed": share * low}) for share in (1.3, 1.0, 0.7, 0.3)]
    assert counts[0] < 0.7 * counts[1]
    assert counts[2] == pytest.approx(counts[1], rel=0.01)
    assert counts[3] == pytest.approx(counts[1], rel=0.01)


def test_every_layer_is_told_and_what_is_asked_stands_beside_it() -> None:
    setup = panel()
    found = acceptance(setup, read_request(PANEL)[1])
    rows = {one.name: one for one in found.asked}
    limits = {one.name: one for one in evaluate(setup).limits}
    assert found.layers == ("CFRP laminate", *["Ti-6Al-4V"] * 4, "EN AW-2024 T4")
    assert all(len(one.by_layer) == 6 for one in found.asked)
    assert rows["burr"].by_layer[0] is None  # fibres leave no burr
    assert min(value for value in rows["burr"].by_layer if value is not None) > 0  # nor only at the exit: between the sheets too
    assert rows["tolerance"].by_layer[0] < rows["tolerance"].by_layer[1]  # a laminate springs back
    assert (rows["burr"].standing, rows["burr"].chance) == (limits["burr"].standing, limits["burr"].holds)
    assert rows["position"].standing is None
    assert rows["count"].asked == (100.0, None)
    narrow = {one.name: one for one in acceptance(panel(feature={"diameter": "6.35 H7"})).asked}["tolerance"]
    assert narrow.standing is Standing.OVER
    assert [narrow.met_by(value) for value in (6.34, 6.35, 6.36, 6.37, None)] == [False, True, True, False, None]
    assert rows["position"].met_by(0.1) is None


def test_what_harms_is_told_apart_from_what_is_only_not_ideal() -> None:
    setup = panel()
    outcome, found = evaluate(setup), acceptance(setup)
    assert found.harms == tuple(one.label for one in outcome.limits if one.wanting and one.severity is Severity.HARD)
    assert dict(found.tastes).keys() == {one.label for one in outcome.limits if one.broken and one.severity is Severity.SOFT}
    assert any("speed" in label for label, _ in found.tastes)  # aluminium would run faster: a taste, no harm
    there = window(setup)
    assert not there.field.any()
    assert there.workable.any()
    assert there.least_bad is not None
    speed, feed, missed = there.least_bad
    assert missed
    at = evaluate(setup.with_cut(speed, feed))
    drawn = {one.rule.name for one in there.edges}
    assert not [one.name for one in at.limits if one.broken and one.severity is Severity.HARD and one.name in drawn]


def test_points_are_compared_by_what_they_do_to_the_plies_and_cost() -> None:
    """A backing takes the danger away; a point with a longer chisel edge pushes harder (Hocheng & Dharan)."""
    form = {**PANEL, "feature": {"diameter": "6.35", "depth": 4, "through": True, "stack": "GFRP laminate 4"}}
    setup, (_, crib) = read_setup(form), read_request(form)
    drills = acceptance(setup, crib).drills
    assert drills[0].present
    assert len({one.name for one in drills}) == len(drills) > 2
    assert all(one.parts is not None and one.parts > 0 for one in drills)
    ground = replace(setup, drill=replace(setup.drill, chisel_share=0.5 * setup.drill.chisel_share))
    assert acceptance(ground).drills[0].parts < 0.9 * drills[0].parts
    backed = read_setup({**form, "feature": {**form["feature"], "stack": "GFRP laminate 4 backed"}})
    assert acceptance(backed, crib).drills[0].parts is None
    sound = [one.cost for one in drills[1:] if not one.harm]
    assert sound == sorted(sound)

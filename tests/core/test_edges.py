"""Bounds that nobody sees until they are wrong: what a seat takes, what a tool's life costs, what a formed thread's hole may be."""

from __future__ import annotations

from dataclasses import replace

import numpy as np
import pytest

from cutting.doors.json_form import read_setup
from cutting.errors import CuttingError
from cutting.machine.machines import find_machine
from cutting.operations.registry import KINDS, evaluate_quickly
from cutting.operations.threads.shared.core_hole import hole_window
from cutting.tooling.mills import mill_of
from cutting.workpiece.threads.spelling import read_thread
from cutting.workpiece.threads.tap_drills import formed_holes, forming_drill
from tests.core.every_kind import EVERY_KIND
from tests.core.slots import form

TURRET, POST = find_machine("two-axis lathe"), find_machine("geared lathe")


def test_a_turret_takes_one_height_and_a_tool_post_packs_lower_ones_up() -> None:
    """A 25 mm seat: the turret takes 25 alone; the post 16 to 25, not 12 (common practice); bars go by their sleeve."""
    sizes = [12.0, 16.0, 20.0, 25.0, 32.0]
    assert TURRET.shank_height == POST.shank_height == 25.0
    assert TURRET.takes_shank(sizes, False).tolist() == [False, False, False, True, False]
    assert POST.takes_shank(sizes, False).tolist() == [False, True, True, True, False]
    assert TURRET.takes_shank([40.0, 50.0, 51.0], True).tolist() == [True, True, False]


@pytest.mark.parametrize(("height", "on_post", "on_turret"), [(12.0, False, False), (16.0, True, False), (25.0, True, True)])
def test_a_threading_holder_sits_by_the_same_rule(height: float, on_post: bool, on_turret: bool) -> None:
    """The rule of its ranking, the misfit and the caution say one thing."""
    for machine, fits in ((POST, on_post), (TURRET, on_turret)):
        setup = read_setup(EVERY_KIND["turn thread"])
        setup = replace(setup, machine=machine, holder=replace(setup.holder, height=height))
        model = KINDS["turn thread"].model
        assert bool(np.ravel(model.tool(setup).seats)[0]) == fits
        assert (not model.misfits(setup)) == fits
        assert ("seat" in {one.name for one in evaluate_quickly(setup).warnings}) != fits


def test_an_end_mill_is_paid_over_its_lives() -> None:
    """Groover's tool cost of one that is ground again: (price + regrinds · price of one) / lives."""
    mill = read_setup(EVERY_KIND["mill hole"]).edge
    given = {"DC": 10, "APMX": 22, "NORGMX": 3, "REGP": 15}
    made = mill_of("m", "m", mill.grade, "", 60.0, given)
    assert made.life_price == pytest.approx((60.0 + 3 * 15.0) / 4)
    once = mill_of("m", "m", mill.grade, "", 60.0, {**given, "NORGMX": 0})
    dear = mill_of("m", "m", mill.grade, "", 60.0, {**given, "REGP": 45})
    assert made.life_price < dear.life_price < once.life_price == 60.0
    said = mill_of("m", "m", mill.grade, "", 60.0, {"DC": 10, "APMX": 22, "NORGMX": 3})
    assert 60.0 / 4 < said.life_price < 60.0, "a regrind that nobody priced still costs something, and less than a new mill"


def test_a_formed_thread_s_hole_has_a_window_of_its_own() -> None:
    """M10: the trade drills 9.3 (from memory, DIN 13-50: 9.25 to 9.4); 8.5 of a cut thread bursts the tap, 9.6 leaves no crest."""
    thread = read_thread("M10-6H")
    low, high = hole_window(thread, True)
    assert low <= forming_drill(thread).diameter <= high
    assert 8.5 < low < 9.3 < high < 9.6
    cut_low, cut_high = hole_window(thread, False)
    assert cut_low <= 8.5 <= cut_high < low, "what is formed starts larger than what is cut"
    inside = formed_holes(thread)
    assert 9.3 in inside
    assert low - 1e-9 <= inside[0] <= low + 0.05
    assert high - 0.05 <= inside[-1] <= high + 1e-9


@pytest.mark.parametrize(("size", "can_be"), [("0.15 mm", False), ("0.2 mm", True), ("200 mm", True), ("201 mm", False)])
def test_the_smallest_and_the_largest_hole_that_is_drilled(size: str, can_be: bool) -> None:
    """PCB drills begin at some 0.2 mm; beyond 200 mm nobody drills from the solid (common practice, no source)."""
    try:
        read_setup(form(EVERY_KIND["drill"], feature={"diameter": size, "position": None}))
        refused = ""
    except CuttingError as error:
        refused = error.field if "0.2 to 200" in (error.bound or "") else ""
    assert (refused == "feature.diameter") != can_be


@pytest.mark.parametrize(
    "kind", [kind for kind in EVERY_KIND if kind not in ("turn", "face", "bore", "heavy bore")]
)  # their inserts are bought by the pack
def test_a_dearer_tool_makes_a_dearer_piece(kind: str) -> None:
    setup = read_setup(EVERY_KIND[kind])
    role = next(name for name in ("insert", "drill", "mill", "tap") if hasattr(setup, name))
    tool = getattr(setup, role)
    dear = replace(
        setup,
        **{
            role: replace(
                tool, price=tool.price * 2.0, **({"regrind_price": tool.regrind_price * 2.0} if hasattr(tool, "regrind_price") else {})
            )
        },
    )
    model = KINDS[kind].model
    plain, more = (model.quickly(one) for one in (setup, dear))
    for figure in ("edge_cost", "operation_cost"):
        assert np.all(getattr(more, figure) > getattr(plain, figure)), figure
    assert np.all(more.edge_cost <= 2.0 * plain.edge_cost * (1.0 + 1e-6))

"""Supplier's windows, fits with reasons, what a condition forbids, and the choice of tool material."""

from __future__ import annotations

import dataclasses
from collections.abc import Callable
from typing import Any

import pytest

from cutting.advice import advise
from cutting.advice.tool_materials import MaterialOffer, Task, compare_tool_materials
from cutting.doors.json_form import read_request
from cutting.errors import CuttingError
from cutting.machine.machines import find_machine
from cutting.operations.registry import evaluate
from cutting.operations.turned.setup import Setup
from cutting.tooling.book import BookWindow, Span
from cutting.tooling.crib import Crib
from cutting.tooling.fitting import fit_checks
from cutting.tooling.items import holders, inserts
from cutting.workpiece.behaviour import neighbours, traits
from cutting.workpiece.materials import deliver, find_material, materials
from tests.core.tools import find_holder, find_insert

Form = Callable[..., dict[str, Any]]
BOOK = BookWindow(8, Span(110, 130, 145), Span(0.18, 0.22, 0.26), Span(0.5, None, 1.6), "supplier's page 12")


def with_book(setup: Setup) -> Setup:
    return dataclasses.replace(setup, insert=dataclasses.replace(setup.insert, book=(BOOK,)))


def test_the_supplier_s_window_is_a_limit_with_its_source(setup: Callable[..., Setup]) -> None:
    outcome = evaluate(with_book(setup(settings={"cutting_speed": 160, "feed_per_rev": 0.3, "depth_of_cut": 2})))
    found = {limit.name: limit for limit in outcome.limits}
    for name, upper in (("book_speed", 145), ("book_feed", 0.26), ("book_depth", 1.6)):
        assert found[name].upper == upper
        assert found[name].broken
        assert found[name].source == "supplier's page 12"
    assert not outcome.feasible
    free = with_book(setup(settings={"cutting_speed": 160, "feed_per_rev": 0.2, "depth_of_cut": 1.5}, house={"never_above_book": False}))
    speed = next(limit for limit in evaluate(free).limits if limit.name == "book_speed")
    assert speed.broken
    assert speed.severity.value == "soft"


def test_advice_starts_inside_the_supplier_s_window(form: Form) -> None:
    request, _ = read_request({k: v for k, v in form().items() if k not in ("tool", "settings")})
    own = tuple(dataclasses.replace(i, book=(BOOK,)) for i in inserts() if i.designation == "CNMG 120408")
    best = advise(request, Crib(own, holders()))
    assert best.candidates
    for row in best.candidates:
        assert 110 <= row.cutting_speed <= 145
        assert 0.18 <= row.feed <= 0.26
        assert row.depth_of_cut <= 1.6
    silent = advise(request, Crib(tuple(dataclasses.replace(i, book=(dataclasses.replace(BOOK, group=14),)) for i in own), holders()))
    assert silent.candidates[0].cutting_speed != best.candidates[0].cutting_speed  # another group's window says nothing here


def test_a_worn_machine_takes_no_brittle_edge(form: Form) -> None:
    request, crib = read_request({k: v for k, v in form().items() if k not in ("tool", "settings")})
    worn = dataclasses.replace(request, machine=dataclasses.replace(request.machine, condition="worn"))
    cermet = Crib(tuple(i for i in crib.inserts if i.grade.tool_class == "cermet"), crib.holders)
    assert advise(request, cermet).fitting > 0
    loose = advise(worn, cermet)
    assert loose.fitting == 0
    assert any("loose spindle" in refused.reason for refused in loose.refused)
    assert advise(worn, crib).fitting > 0  # carbide still goes, with more scatter of life


def test_a_machine_that_does_not_turn_says_so(form: Form) -> None:
    request, _ = read_request({k: v for k, v in form().items() if k not in ("tool", "settings")})
    with pytest.raises(CuttingError, match="does not turn"):
        advise(dataclasses.replace(request, machine=find_machine("machining centre")), Crib(inserts(), holders()))


def test_fit_gives_each_reason() -> None:
    insert, holder = find_insert("CNMG 120408 middle P20"), find_holder("PCLNR 2525 M12")
    good = fit_checks(insert, holder, find_machine("two-axis lathe"), 25.0)
    assert all(check.fits for check in good)
    bad = {c.name: c for c in fit_checks(insert, find_holder("SCLCR 1616 H09"), find_machine("two-axis lathe"), 60.0)}
    assert {name for name, check in bad.items() if not check.fits} == {"clearance", "size", "shank", "overhang"}
    assert "60" in bad["overhang"].reason
    assert "24" in bad["overhang"].reason
    bar = dataclasses.replace(find_holder("SCLCR 1616 H09"), designation="A16R-SCLCR 09")
    bored = {c.name: c for c in fit_checks(find_insert("CCMT 09T304 light positive P10"), bar, find_machine("two-axis lathe"), 80.0)}
    assert {name for name, check in bored.items() if not check.fits} == {"overhang"}  # 80 mm against 4 × 16
    assert fit_checks(find_insert("CCMT 09T304 light positive P10"), dataclasses.replace(bar, designation="E16R-SCLCR 09"), None, 80.0)[
        -1
    ].fits


def offers(material: str, machine: str = "two-axis lathe", **changes: Any) -> dict[str, MaterialOffer]:
    task = Task(**{"diameter": 60, "length": 100, "feed_per_rev": 0.25, "depth_of_cut": 2, "pieces": 200, **changes})
    found = compare_tool_materials(deliver(find_material(material)), find_machine(machine), task)
    return {o.name: o for o in found} | {"first": found[0]}


def test_the_tool_material_that_the_trade_takes() -> None:
    # common practice, no source: what each is for
    assert offers("C45")["first"].name == "coated carbide"
    assert not offers("C45")["PCD"].suits
    assert "never on iron" in offers("C45")["PCD"].reason
    assert offers("100Cr6 hardened 60 HRC", feed_per_rev=0.1, depth_of_cut=0.2)["first"].name == "CBN"
    assert not offers("C45", interrupted=True)["cermet"].suits
    tiny = offers("C45", diameter=3, length=10, feed_per_rev=0.03, depth_of_cut=0.2)
    assert not tiny["coated carbide"].suits  # 33 m/min at Ø3 and 3500 1/min
    assert tiny["high-speed steel"].suits
    assert "spindle gives 33 m/min" in tiny["coated carbide"].reason


def test_a_slow_metal_does_not_rule_out_what_is_run_slowly_in_it() -> None:
    """Carbide turns aged nickel alloys at 25 to 40 m/min (Machinery's Handbook, from memory): far below where it builds up in steel."""
    row = offers("NiCr19Fe19Nb5Mo3 aged")["coated carbide"]
    assert row.cutting_speed is not None
    assert row.cutting_speed < 50.0
    assert row.suits, row.reason


def test_the_economics_are_groover_s() -> None:
    # groover, ch. 24: cost = rate/3600·(t + 60·tch/N) + Ce/N with N = 60·T/t
    row = offers("C45")["coated carbide"]
    assert row.seconds is not None
    assert row.life is not None
    assert row.cost == pytest.approx(
        58 / 3600 * (row.seconds + 60 * 2 * row.seconds / (60 * row.life)) + 9.2 / 4 * row.seconds / (60 * row.life), rel=1e-6
    )
    assert row.seconds == pytest.approx(60 * 3.14159265 * 60 * 100 / (1000 * (row.cutting_speed or 0) * 0.25), rel=1e-6)
    dear = compare_tool_materials(
        deliver(find_material("C45")), find_machine("two-axis lathe"), Task(60, 100, 0.25, 2), {"coated carbide": (40.0, "x")}
    )
    assert next(o for o in dear if o.name == "coated carbide").life > row.life  # type: ignore[operator]  # a dear edge is run slower


def test_behaviour_and_neighbours() -> None:
    duplex = {t.name: t for t in traits(find_material("2205"))}
    assert "hardens under the edge" in duplex["work hardening"].says or "hardens a little" in duplex["work hardening"].says
    assert "string" in {t.name: t for t in traits(find_material("304"))}["ductility"].says
    assert traits(find_material("Ti-6Al-4V"))[-1].share > 0.9
    near = neighbours(find_material("304"), materials())
    assert near[0].name in {"X6CrNiTi18-10", "X2CrNiMo17-12-2", "X6CrNiMoTi17-12-2"}
    assert find_material("304").name not in [n.name for n in near]

"""What may be off has one name and one size; what was learned acts in every kind; the chance of a limit is what draws give."""

from __future__ import annotations

import math
import pickle
import re
from dataclasses import replace
from pathlib import Path
from typing import Any

import numpy as np
import pytest

import cutting
from cutting.belief.bands import HARDNESS, STATED, band, bands
from cutting.belief.beliefs import Belief
from cutting.doors.json_form import read_request, read_setup
from cutting.errors import CuttingError
from cutting.operations.frame.chance import hardness_factors, spreads_of
from cutting.operations.frame.outcome import TOUCHING, Bound, Outcome
from cutting.operations.registry import KINDS, evaluate_quickly
from cutting.working import Honesty, Noting, Silent
from tests.core.every_kind import EVERY_KIND
from tests.core.holes import STACK
from tests.core.slots import form
from tests.core.test_tables import formulae

CORE = Path(cutting.__file__).parent
SETUPS = {kind: read_setup(one) for kind, one in EVERY_KIND.items()}


def stated(kind: str) -> tuple[str, ...]:
    noting = Noting()
    KINDS[kind].model.run(SETUPS[kind], noting)
    return tuple(noting.stated)


def taught(kind: str, *beliefs: Belief) -> Any:
    setup = SETUPS[kind]
    return replace(setup, learned=replace(setup.learned, beliefs=beliefs))


def numbers(outcome: Outcome) -> dict[str, float]:
    return {name: one.value for name, one in outcome.results.items()} | {f"limit {one.name}": one.utilisation for one in outcome.limits}


def test_every_law_names_how_far_it_may_be_off() -> None:
    """What is exact has no band; what is a model or a rule of the trade has one of the table; each line of the table is used."""
    used = set()
    for function in formulae():
        known = function.formula  # type: ignore[attr-defined]
        assert bool(known.band) == (known.honesty is not Honesty.EXACT), function
        if known.band:
            used |= {band(known.band).quantity}
        assert known.states in (*STATED, "")
    code = "".join(file.read_text(encoding="utf-8") for file in CORE.rglob("*.py"))
    used |= {one.quantity for one in bands() if re.search(rf'"{one.quantity}"', code)}
    assert {one.quantity for one in bands()} == used
    assert {one.quantity for one in bands()} >= STATED


def test_a_number_that_inherits_is_as_wide_as_its_parts_together() -> None:
    """Propagation of error (ISO/IEC Guide 98-3): squares add up; the shipped sizes are rounded to five percent."""
    for one in (one for one in bands() if len(one.of) > 1):
        together = math.hypot(*(band(part).spread for part in one.of))
        assert one.spread == pytest.approx(together, rel=0.12), one.quantity
        narrower = one.narrowed({one.of[0]: 0.0})
        assert 1.0 < narrower.high < one.high
        assert narrower.low > one.low
    assert band("force").narrowed({"life": 0.0}) == band("force")
    assert band("life").narrowed({"life": band("life").spread / 2}).high == pytest.approx(math.sqrt(2.0))


@pytest.mark.parametrize("kind", list(EVERY_KIND))
def test_what_was_learned_acts_in_every_kind(kind: str) -> None:
    """Each quantity that the numbers rest on moves some of them, and nothing else does; the working says so."""
    before = numbers(evaluate_quickly(SETUPS[kind]))
    for quantity in (one for one in stated(kind) if one not in (HARDNESS, "plies")):
        outcome = evaluate_quickly(taught(kind, Belief(quantity, 1.4, note="trial 7")))
        moved = {name for name, value in numbers(outcome).items() if not math.isclose(value, before.get(name, 0.0), rel_tol=1e-9)}
        assert moved, quantity
        elsewhere = evaluate_quickly(taught(kind, Belief(quantity, 1.4, metal="some other metal")))
        assert numbers(elsewhere) == before
    notes = [step.note for one in evaluate_quickly(taught(kind, Belief("life", 0.5, 0.1, note="trial 7"))).limits for step in one.working]
    assert any("× 0.5, learned within ±22 % (trial 7)" in note for note in notes)


@pytest.mark.parametrize("kind", list(EVERY_KIND))
def test_twice_the_force_takes_twice_the_power_and_half_the_life_lasts_half(kind: str) -> None:
    model, setup = KINDS[kind].model, SETUPS[kind]
    before, after = model.quickly(setup), model.quickly(taught(kind, Belief("force", 2.0)))
    name = next(one for one in ("cutting_power", "power") if hasattr(before, one))
    assert np.ravel(getattr(after, name)) == pytest.approx(2.0 * np.ravel(getattr(before, name)), rel=1e-6)
    short = model.quickly(taught(kind, Belief("life", 0.5)))
    assert np.ravel(short.median_parts) == pytest.approx(0.5 * np.ravel(before.median_parts), rel=1e-6)
    assert (np.ravel(short.operation_cost) > np.ravel(before.operation_cost)).all()


def test_the_narrowest_that_holds_stands() -> None:
    setup = SETUPS["turn"]
    tool, machine, metal = setup.tool_names["holder"], setup.machine.name, setup.work.material.name
    wide, narrow = Belief("force", 1.1), Belief("force", 1.3, metal=metal, tool=tool, machine=machine)
    for order in ((wide, narrow), (narrow, wide)):
        assert taught("turn", *order).factors == {"force": 1.3}
    other = replace(
        setup, learned=replace(setup.learned, beliefs=(replace(narrow, tool="another"), Belief("force", 1.2, metal=metal), wide))
    )
    assert other.factors == {"force": 1.2}
    assert replace(setup.learned, beliefs=(wide, narrow), chisel_share=0.3).elsewhere() == replace(setup.learned, beliefs=(wide,))


def test_each_layer_is_believed_by_its_own_metal() -> None:
    learned = {"force": {"1.4301": 1.2}, "beliefs": [{"quantity": "force", "factor": 0.9, "metal": "EN AW-2024"}]}
    plain, moved = (KINDS["drill"].model.quickly(read_setup(one)) for one in (STACK, {**STACK, "learned": learned}))
    ratio = np.ravel(moved.specific_force / plain.specific_force)
    assert ratio == pytest.approx([1.0, 1.2, 1.2, 0.9])  # laminate, twice stainless, aluminium


@pytest.mark.parametrize(
    ("kind", "learned", "field"),
    [
        ("turn", {"margin": 2.0}, "learned.margin"),
        ("turn", {"chisel_share": 0.3}, "learned.chisel_share"),
        ("tap", {"growth": [0.01, 0.7]}, "learned.growth"),
        ("cut off", {"beliefs": [{"quantity": "chips", "factor": 1.2}]}, "learned.chips"),
        ("turn", {"beliefs": [{"quantity": "weather", "factor": 1.2}]}, "learned.beliefs.0.quantity"),
        ("turn", {"beliefs": [{"quantity": "force", "factor": 99}]}, "learned.beliefs.0.force"),
        ("turn", {"beliefs": [{"quantity": "force", "factor": 1.2, "spread": 7}]}, "learned.beliefs.0.force.spread"),
        ("turn", {"beliefs": [{"quantity": "force", "factor": 1.2, "hat": 1}]}, "learned.beliefs.0.hat"),
        ("turn", {"beliefs": [{"quantity": "force"}]}, "learned.beliefs.0.factor"),
        ("turn", {"beliefs": {"quantity": "force"}}, "learned.beliefs"),
        ("drill", {"force": {"unobtainium": 1.2}}, "learned.force.unobtainium"),
    ],
)
def test_what_nothing_rests_on_is_refused_by_name(kind: str, learned: dict[str, Any], field: str) -> None:
    with pytest.raises(CuttingError) as refused:
        read_setup({**EVERY_KIND[kind], "learned": learned})
    assert refused.value.field == field


def test_a_ranking_takes_what_holds_for_every_tool() -> None:
    tool = SETUPS["turn"].tool_names["insert"]
    said = [{"quantity": "life", "factor": 0.5}, {"quantity": "force", "factor": 1.4, "tool": tool}]
    request, _ = read_request({**EVERY_KIND["turn"], "learned": {"beliefs": said}})
    assert request.factors == {"life": 0.5}


OF_ITS_OWN = ("jaw_grip", "chuck_grip", "grip", "twist")  # a safety of their own covers part of what is not known


def drawn(kind: str, setup: Any, count: int = 4000) -> dict[str, float]:
    """The share of draws in which each limit holds, all quantities at once: what the first order stands in for."""
    model, chance = KINDS[kind].model, np.random.default_rng(5)
    spreads = spreads_of(setup, stated(kind))
    factors = {q: np.exp(np.asarray(s) * chance.standard_normal((count, 1))) for q, s in spreads.items() if q != HARDNESS}
    if HARDNESS in spreads:
        hard = np.exp(spreads[HARDNESS] * chance.standard_normal(count))
        rows = np.array([[hardness_factors(setup, float(one))[q] for q in ("force", "life", HARDNESS)] for one in hard])
        for k, q in enumerate(("force", "life", HARDNESS)):
            factors[q] = factors.get(q, np.ones((count, 1))) * rows[:, k : k + 1]
    x = model.numbers(setup, model.tool(setup), setup.settings.cutting_speed, setup.feed, Silent(factors))
    used = {rule.name: np.atleast_1d(rule.used(x)) / rule.spare(x) for rule in model.rules if np.any(rule.applies(x))}
    return {
        name: float(np.mean(np.broadcast_to(level, (count, level.shape[-1])).max(axis=-1) <= 1.0 + TOUCHING))
        for name, level in used.items()
    }


@pytest.mark.parametrize("kind", list(EVERY_KIND))
def test_the_chance_of_a_limit_is_what_draws_give(kind: str) -> None:
    """First order against four thousand draws of everything at once; faster and deeper too, where limits break."""
    for share in (1.0, 1.25):
        setup = SETUPS[kind].with_settings(cutting_speed=share * SETUPS[kind].settings.cutting_speed)
        by_draws = drawn(kind, setup)
        for one in evaluate_quickly(setup).limits:
            assert one.holds == pytest.approx(by_draws[one.name], abs=0.06), one.name
            assert sum(part.share for part in one.moved_by) <= 1.0 + 1e-9
            if one.bound is not Bound.WINDOW and one.name not in OF_ITS_OWN:
                assert (one.holds > 0.5) == (not one.broken) or one.holds == pytest.approx(0.5, abs=0.02), one.name


def test_a_harder_delivery_is_the_harder_metal() -> None:
    """What hardness is taken to move is what a set-up in so much harder metal says, and both ways."""
    setup = SETUPS["turn"]
    model = KINDS["turn"].model
    plain = model.quickly(setup)
    for share in (0.9, 1.1):
        moved = hardness_factors(setup, share)
        there = model.quickly(replace(setup, work=replace(setup.work, hardness=setup.work.hardness * share)))
        for quantity, figure in (("force", "specific_force"), ("life", "tool_life")):
            ratio = float(np.ravel(getattr(there, figure))[-1] / np.ravel(getattr(plain, figure))[-1])
            assert moved[quantity] == pytest.approx(ratio, rel=0.03), quantity


def test_layers_that_are_known_unlike_are_judged_together() -> None:
    """One layer's force is known better: the limits that rest on it are surer, and there is still one chance for each."""
    setup = read_setup(STACK)
    narrow = replace(setup.learned, beliefs=tuple(Belief("force", 1.0, 0.02, metal=metal) for metal in setup.metals))
    one_only = replace(setup.learned, beliefs=(Belief("force", 1.0, 0.02, metal="1.4301"),))
    plain, some, every = (
        {one.name: one for one in evaluate_quickly(replace(setup, learned=learned)).limits} for learned in (setup.learned, one_only, narrow)
    )
    assert plain.keys() == some.keys() == every.keys()
    share = [
        {part.title: part.share for part in found["spindle_power"].moved_by}.get("cutting force", 0.0) for found in (plain, some, every)
    ]
    assert share[0] > 0.0
    assert share[0] >= share[1] >= share[2]


def test_what_is_known_better_holds_more_surely() -> None:
    """Direction: the same limit with a narrower quantity is surer where it holds, and less sure where it does not."""
    setup = read_setup(form(EVERY_KIND["face groove"], settings={"cutting_speed": 160}))
    limits = {one.name: one for one in evaluate_quickly(setup).limits}
    power = limits["spindle_power"]
    assert power.moved_by[0].title == "cutting force"
    assert power.moved_by[0].band == "±25 %"
    for centre in (0.8, 1.0, 1.4):
        wide, narrow = (
            {one.name: one for one in evaluate_quickly(replace(setup, learned=replace(setup.learned, beliefs=(said,)))).limits}[power.name]
            for said in (Belief("force", centre), Belief("force", centre, 0.02))
        )
        assert wide.utilisation == narrow.utilisation
        if wide.broken:
            assert narrow.holds < wide.holds < 0.5
        else:
            assert narrow.holds > wide.holds > 0.5


@pytest.mark.parametrize("kind", list(EVERY_KIND))
def test_a_set_up_is_sent_elsewhere_whole(kind: str) -> None:
    """Studies run on other processes and machines: what was reckoned of a set-up before does not hold it here."""
    setup = taught(kind, Belief("life", 0.5))
    before = KINDS[kind].model.quickly(setup)
    assert KINDS[kind].model.quickly(pickle.loads(pickle.dumps(setup))).operation_cost == pytest.approx(before.operation_cost)

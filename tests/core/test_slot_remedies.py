"""What is offered against a broken limit of a slot is held to its word, and no set-up of a slot ends in anything but a judgement."""

from __future__ import annotations

import math
import re
from typing import Any

import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from cutting.doors.json_form import read_request, read_setup
from cutting.errors import CuttingError
from cutting.machine.machines import machines
from cutting.operations.frame.fields import Field
from cutting.operations.frame.outcome import Outcome, Severity
from cutting.operations.registry import KINDS, evaluate, evaluate_quickly, explore, relax
from cutting.tooling.bought import shipped
from cutting.workpiece.materials import materials
from tests.core.slots import BORE_RING, CUT_OFF, FACE, GROOVE, RING, TREPAN, form, used
from tests.core.test_slot_mistakes import BASES, MADE
from tests.core.tools import groove_blades

# limits whose way out is another tool or another drawing: with this one tool nothing may be on offer
OTHER_TOOL = {
    "reach",
    "support_relief",
    "corner_radius",
    "head_range",
    "second_range",
    "first_plunge",
    "inner_diameter",
    "width",
    "hub",
    "jaws",
    "finish",
    "chip_narrower",
}
SLOW = {"cut off": 0.06, "groove": 0.1, "face groove": 0.06, "trepan": 0.105}
LIMITS = sorted(
    (kind, name)
    for kind, name in MADE
    if name in {limit.name for limit in evaluate_quickly(read_setup(form(BASES[kind], **MADE[kind, name]))).limits}
)


@pytest.mark.parametrize(("kind", "name"), LIMITS)
def test_an_offer_does_what_it_says(kind: str, name: str) -> None:
    broken = form(BASES[kind], **MADE[kind, name])
    setup, (_, stock) = read_setup(broken), read_request(broken)
    before = used(evaluate_quickly(setup), name)
    offers = relax(setup, name, stock)
    assert offers or name in OTHER_TOOL
    for offer in offers:
        after = evaluate_quickly(read_setup(form(broken, **offer.patch)))
        left = {one.name: one.utilisation for one in after.limits}.get(name, 0.0)  # another way may not know this limit
        assert left < 0.97 * before, offer.text
        told = [float(text) / 100 for text in re.findall(r"([\d,]+)%", offer.effect.metric.replace(",", ""))]
        assert told == pytest.approx([before, left], abs=0.0151)
        seconds, cost = (float(text.replace("−", "-")) for text in re.findall(r"([+−±][\d.]+) [s€]", offer.effect.metric.replace("±", "+")))
        now = evaluate_quickly(setup).results
        assert after.results["operation_time"].value - now["operation_time"].value == pytest.approx(
            seconds, abs=0.06 if abs(seconds) < 10 else 0.51
        )
        assert after.results["operation_cost"].value - now["operation_cost"].value == pytest.approx(cost, abs=0.006)
        assert offer.text.metric and offer.text.inch  # noqa: PT018 - both units of one offer


def feed_of(kind: str) -> str:
    return "feed_per_tooth" if kind == "trepan" else "feed_per_rev"


@pytest.mark.parametrize("kind", list(BASES))
def test_what_is_quicker_breaks_nothing(kind: str) -> None:
    slow = form(BASES[kind], settings={feed_of(kind): SLOW[kind]})
    setup, (_, stock) = read_setup(slow), read_request(slow)
    now = evaluate(setup, stock)
    assert now.feasible
    assert now.faster
    for offer in now.faster:
        then = evaluate_quickly(read_setup(form(slow, **offer.patch)))
        assert then.feasible
        assert then.results["operation_time"].value < now.results["operation_time"].value


@pytest.mark.parametrize("kind", list(BASES))
def test_limits_come_sorted_with_their_reason(kind: str) -> None:
    outcome = evaluate_quickly(read_setup(form(BASES[kind], settings={feed_of(kind): 0.5})))
    assert "plunge_feed" in {one.name for one in outcome.limits[:3] if one.broken}
    wanting = [one.severity is Severity.HARD and one.wanting for one in outcome.limits]
    assert wanting == sorted(wanting, reverse=True)
    order = [-one.utilisation / one.kept for one, wants in zip(outcome.limits, wanting, strict=True) if not wants]
    assert order == sorted(order)
    for limit in outcome.limits:
        assert limit.source
        assert limit.why.endswith(".")
        assert limit.bound_display.metric
        assert limit.bound_display.inch
        assert all(step.formula and step.source for step in limit.working)


LENGTHS = st.sampled_from([0, 0.001, 0.1, 0.5, 1, 2, 3, 4, 8, 20, 35, 62, 100, 180, 1000, -3])
WITH_LIMITS = st.sampled_from(["44 h11", "80 H11", "6 +0.1/0", "1.1 +0.14/0", "0", "62 H13", "-2", "abc"])
SPEEDS, FEEDS = st.sampled_from([0, 0.5, 5, 60, 140, 800, 2500]), st.sampled_from([0, 0.005, 0.02, 0.1, 0.3, 1, 3])
BY_KIND: dict[str, st.SearchStrategy[Any]] = {
    "dimension": WITH_LIMITS,
    "cutting_speed": SPEEDS,
    "feed_per_rev": FEEDS,
    "feed_per_tooth": FEEDS,
}


def values(field: Field) -> st.SearchStrategy[Any]:
    """What somebody might type there, sense and nonsense."""
    if field.options:
        return st.sampled_from((*field.options, "something else"))
    if field.kind == "flag":
        return st.booleans()
    return st.sampled_from(["", "mist", "flood"]) if field.kind == "text" else BY_KIND.get(field.kind, LENGTHS)


@st.composite
def forms(draw: st.DrawFn) -> dict[str, Any]:
    """A sound set-up with up to four fields, its tool, machine and metal changed at random."""
    made = form(draw(st.sampled_from([CUT_OFF, GROOVE, RING, BORE_RING, FACE, TREPAN])))
    kind = KINDS[made["operation"]]
    for _ in range(draw(st.integers(1, 4))):
        match draw(st.sampled_from(["tool", "machine", "material", "field", "field", "field"])):
            case "tool":
                insert, blade = draw(st.sampled_from(shipped("grooving insert"))), draw(st.sampled_from(groove_blades()))
                made["tool"] = {"insert": insert.name, "blade": blade.name}
            case "machine":
                made["machine"] = draw(st.sampled_from([machine.name for machine in machines()]))
            case "material":
                made["material"] = draw(st.sampled_from([material.name for material in materials()]))
            case _:
                section = draw(st.sampled_from(["feature", "settings", "holding"]))
                field = draw(st.sampled_from(getattr(kind.fields, section)))
                made.setdefault(section, {})[field.name] = draw(values(field))
    return made


def judged(made: dict[str, Any]) -> Outcome | CuttingError:
    """The outcome with its map, or the refusal."""
    try:
        setup = read_setup(made)
        explore(setup)
        return evaluate_quickly(setup)
    except CuttingError as refused:
        return refused


@pytest.mark.parametrize("kind", [GROOVE, CUT_OFF, FACE])
def test_nothing_stands_between_centres_that_touch(kind: dict[str, Any]) -> None:
    refused = judged(form(kind, holding={"style": "between centres", "free_length": 0}))
    assert isinstance(refused, CuttingError)
    assert refused.field == "holding.free_length" or "style" in refused.field


@settings(max_examples=250, deadline=None, suppress_health_check=[HealthCheck.too_slow])
@given(made=forms())
def test_any_set_up_is_judged_or_refused_by_field(made: dict[str, Any]) -> None:
    found = judged(made)
    if isinstance(found, CuttingError):
        assert found.field.split(".")[0] in {*made, "holding", "bar"}, found
        assert found.message
        return
    outcome = found
    assert all(math.isfinite(value.value) for value in outcome.results.values())
    assert all(math.isfinite(limit.value) and not math.isnan(limit.utilisation) for limit in outcome.limits)
    assert outcome.results["operation_time"].value > 0
    assert outcome.results["operation_cost"].value > 0
    assert 0 <= outcome.results["secure"].value <= 100
    assert outcome.chip.why

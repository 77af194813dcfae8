"""Every working ends in the number that is shown, and its printed arithmetic gives the printed numbers: over all kinds."""

from __future__ import annotations

import math
import re
from collections.abc import Callable, Iterator
from dataclasses import replace

import pytest

from cutting.doors.json_form import read_setup
from cutting.operations.frame.money import TRUSTED_LIFE
from cutting.operations.frame.outcome import Limit, Outcome, Value
from cutting.operations.registry import KINDS, evaluate_quickly
from cutting.working import WorkingStep
from tests.core.every_kind import EVERY_KIND
from tests.core.holes import STACK
from tests.core.test_tables import formulae

FORMS = {**EVERY_KIND, "stack": STACK}
DIGITS, RAISED_DIGITS = 2e-3, 2e-2  # of a value, by numbers that are printed with four digits; where they are raised to powers
# formulae that a person reads in words: a curve, a table, or a sum over an edge or a way
IN_WORDS = {
    "weibull_shape", "finish_factor", "engaged_edge", "chord_angle", "direction_factor", "damping_gain", "engaged_time", "push_off",
    "engagement_angle", "window_gauge", "roughness", "mode_share", "in_plane_ratio",
}  # fmt: skip
AS_MADE = {"cutting_edge_angle", "effective_clearance", "effective_rake"}
# last lines that are told in words: what is read off the tool, the largest on a way, and sums of bent bodies; all others are arithmetic
LAST_IN_WORDS: dict[str, set[str]] = {
    "turn": AS_MADE, "face": AS_MADE, "bore": AS_MADE | {"spring_pass"},
    "groove": {"cutting_force", "feed_force", "side_force", "stable_width"},
    "face groove": {"jaw_grip", "side_force"}, "trepan": {"side_force"}, "drill": {"corner_heat", "tool_life"}, "mill hole": {"taper"},
    "heavy bore": {"spindle_torque", "torque"}, "turn thread": {"bends", "cutting_force", "tip_load"},
    "mill thread": {"angle_left", "offset_wanted", "setting", "size_error", "taper", "tolerance"},
    "cut off": {"bar_support", "bends_down", "flatness"}, "stack": {"corner_heat", "margin_torque", "tool_life"},
}  # fmt: skip
FUNCTIONS: dict[str, Callable[..., float]] = {
    "sin": lambda x: math.sin(math.radians(x)), "cos": lambda x: math.cos(math.radians(x)), "tan": lambda x: math.tan(math.radians(x)),
    "asin": lambda x: math.degrees(math.asin(x)), "atan": lambda x: math.degrees(math.atan(x)),
    "sqrt": math.sqrt, "log2": math.log2, "min": min, "max": max, "abs": abs, "whole": math.floor,
    "held": lambda x, low, high: min(max(x, low), high),
}  # fmt: skip
RAISED = str.maketrans("⁰¹²³⁴⁵⁶⁷⁸⁹⁻", "0123456789-")


def reckoned(printed: str) -> float:
    """The value of printed arithmetic; degrees inside sin, cos and tan. Raises `SyntaxError` or `NameError` for words."""
    text = printed.replace("·", "*").replace("−", "-").replace("π", str(math.pi)).replace("^", "**")
    text = re.sub(r"√\s*(\d[\d.e+-]*)", r"sqrt(\1)", text).replace("√", "sqrt").replace("[", "(").replace("]", ")")
    text = re.sub(r"\|([^|]+)\|", r"abs(\1)", text)
    text = re.sub(r"[⁰¹²³⁴⁵⁶⁷⁸⁹⁻]+", lambda found: f"**({found.group().translate(RAISED)})", text)
    return float(eval(text, {"__builtins__": {}}, FUNCTIONS))


def outcomes(kind: str) -> Iterator[Outcome]:
    setup = read_setup(FORMS[kind])
    yield evaluate_quickly(setup)
    yield evaluate_quickly(replace(setup, house=replace(setup.house, wear_factor=1.45)))


def shown(outcome: Outcome) -> Iterator[tuple[Limit | Value, float]]:
    yield from ((one, one.value) for one in outcome.limits)
    yield from ((one, one.value) for one in outcome.results.values())


def ends_in(steps: tuple[WorkingStep, ...], value: float) -> bool:
    """Whether the last line gives a number, in the unit shown or a thousandth of it."""
    return any(math.isclose(steps[-1].value * scale, value, rel_tol=1e-6, abs_tol=1e-9) for scale in (1.0, 1000.0, 0.001))


@pytest.mark.parametrize("kind", list(FORMS))
def test_the_last_line_is_the_number_that_is_shown(kind: str) -> None:
    for outcome in outcomes(kind):
        for one, value in shown(outcome):
            assert not one.working or ends_in(one.working, value), (one.name, value, one.working[-1])
        for limit in outcome.limits:
            bound = limit.upper if limit.upper is not None else limit.lower
            assert not limit.bound_working or ends_in(limit.bound_working, bound or 0.0), limit.name
            keys = [step.key for step in limit.working]
            assert len(keys) == len(set(keys)), limit.name


@pytest.mark.parametrize("kind", list(FORMS))
def test_the_printed_arithmetic_gives_the_printed_value(kind: str) -> None:
    reckonable = words = 0
    for outcome in outcomes(kind):
        for one, _ in shown(outcome):
            for step in (*one.working, *getattr(one, "bound_working", ())):
                try:
                    value = reckoned(step.substituted)
                except (SyntaxError, NameError, TypeError):
                    words += 1
                    assert step.key.split()[0] in IN_WORDS or step.key.endswith(", as shown"), step
                    continue
                reckonable += 1
                whole = 1.0 if "whole" in step.substituted else 0.0
                near = RAISED_DIGITS if "^" in step.substituted else DIGITS
                assert value == pytest.approx(step.value, rel=near, abs=1e-9 + whole), (one.name, step)
    assert reckonable > words, "most lines are arithmetic"


@pytest.mark.parametrize("kind", list(KINDS))
def test_power_of_the_worn_edge_and_a_secure_run_are_put_into_numbers(kind: str) -> None:
    """The wear of the house, the chance that the edge lasts and the chance that chips stop it all stand in the lines."""
    outcome = evaluate_quickly(read_setup(FORMS[kind]))
    found = {one.name: one for one in outcome.limits}
    secure = found["secure"].working[-1]
    assert secure.substituted.startswith("100·")
    assert reckoned(secure.substituted) == pytest.approx(outcome.results["secure"].value, rel=1e-3)
    assert found["life"].value == outcome.results["change_parts"].value, "one edge, one number"
    if power := found.get("spindle_power"):
        assert power.working[-1].symbol in (power.label, "Pc"), "where the force is the worn edge's already the formula ends in it"
        assert reckoned(power.bound_working[-1].substituted) == pytest.approx(power.upper, rel=DIGITS), "off the machine's curve"


def test_a_life_beyond_what_is_trusted_is_capped_in_value_band_and_pieces() -> None:
    slow = {**EVERY_KIND["turn"], "settings": {**EVERY_KIND["turn"]["settings"], "cutting_speed": 60}}
    found = evaluate_quickly(read_setup(slow)).results
    life, pieces = found["tool_life"], found["median_parts"]
    assert life.value == TRUSTED_LIFE
    assert life.display.metric == "over 120 min"
    assert life.low is None, "a band about what nobody knows says nothing"
    assert pieces.display.metric == f"over {pieces.value:.0f}"
    assert reckoned(pieces.working[-1].substituted) == pytest.approx(pieces.value, rel=1e-3)


@pytest.mark.parametrize("kind", list(FORMS))
def test_a_last_line_takes_its_numbers_from_the_lines_before_it(kind: str) -> None:
    """Where a last line names a quantity that a line before it reckoned, it has that line's number, and not one of its own."""
    for outcome in outcomes(kind):
        for one, _ in shown(outcome):
            *before, last = one.working or (None,)
            if last is None or not last.key.endswith(", as shown"):
                continue
            told: dict[str, set[str]] = {}
            for step in before:
                told.setdefault(step.symbol, set()).add(f"{step.value:.4g}")
            for symbol, values in told.items():
                if re.search(rf"(?<![\w.]){re.escape(symbol)}(?![\w.])", last.formula) and last.substituted != last.formula:
                    assert any(re.search(rf"(?<![\d.]){re.escape(value)}(?![\d.])", last.substituted) for value in values), (
                        one.name,
                        symbol,
                    )


@pytest.mark.parametrize("kind", list(KINDS))
def test_a_rule_names_only_formulae_that_there_are(kind: str) -> None:
    results = {function.formula.result.name for function in formulae()}  # type: ignore[attr-defined]
    for rule in KINDS[kind].model.rules:
        assert {*rule.working, *rule.bounded} <= results, rule.name


@pytest.mark.parametrize("kind", list(FORMS))
def test_only_what_no_line_of_arithmetic_tells_is_told_in_words(kind: str) -> None:
    found = set()
    for one, _ in shown(next(outcomes(kind))):
        if one.working and one.working[-1].key.endswith(", as shown"):
            try:
                reckoned(one.working[-1].substituted)
            except (SyntaxError, NameError, TypeError):
                found.add(one.name)
    assert found == LAST_IN_WORDS.get(kind, set())


def number(text: str) -> float:
    return float(text.split()[0].replace("\u202f", ""))


@pytest.mark.parametrize("kind", list(FORMS))
def test_a_band_stands_about_its_number_and_none_about_what_nobody_knows(kind: str) -> None:
    for outcome in outcomes(kind):
        for name in ("tool_life", "median_parts", "holes"):
            if one := outcome.results.get(name):
                assert (one.low is None) == one.display.metric.startswith("over "), name
        if holes := outcome.results.get("holes"):
            in_a_piece = getattr(read_setup(FORMS[kind]).feature, "count", 1)
            assert holes.value == pytest.approx(in_a_piece * outcome.results["median_parts"].value)
        cost = outcome.results["operation_cost"]
        assert cost.low
        assert cost.high
        assert number(cost.low.metric) <= number(cost.display.metric) <= number(cost.high.metric)


def test_edges_that_last_less_than_thought_cost_more_than_those_that_last_longer_save() -> None:
    """Half the life costs one more edge a piece, twice the life saves half of one: the band of money leans upward."""
    dear = evaluate_quickly(read_setup({**EVERY_KIND["turn"], "settings": {**EVERY_KIND["turn"]["settings"], "cutting_speed": 210}}))
    cost = dear.results["operation_cost"]
    assert cost.low
    assert cost.high
    saved, more = cost.value - number(cost.low.metric), number(cost.high.metric) - cost.value
    assert more > 1.5 * saved > 0.0

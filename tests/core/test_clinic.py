"""The clinic: its tables hold together, evidence and looks move causes the right way, and it is right as often as it says."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

import numpy as np
import pytest

from cutting.clinic import evidence
from cutting.clinic.changes import _moved, offer
from cutting.clinic.evidence import PATTERN, Weighed, weigh
from cutting.clinic.fault import faulty, run
from cutting.clinic.pages import DOCS, PAGES, with_section
from cutting.clinic.rehearsal import Rehearsed, calibration_error, rehearse, unnamed
from cutting.clinic.suspects import NONE, ClinicCase, Diagnosis, case_of, case_of_kind, diagnose
from cutting.clinic.turned_out import weight
from cutting.clinic.words import CAUTIONS, ROUNDS, UNDO, Cause, causes, looks, symptoms, ward
from cutting.doors.json_form import read_setup
from cutting.errors import CuttingError
from cutting.operations.registry import KINDS, evaluate_quickly, kind_of
from tests.core.every_kind import EVERY_KIND

SETUPS = {kind: read_setup(told) for kind, told in EVERY_KIND.items()}
CASES = {kind: case_of(setup) for kind, setup in SETUPS.items()}


def chance_of(found: Diagnosis, name: str) -> float:
    return next(one.chance for one in found.suspects if one.cause and one.cause.name == name)


def test_there_is_enough_of_everything_and_all_of_it_is_used() -> None:
    assert len(symptoms()) >= 45
    assert len(causes()) >= 140
    told = {one.tells for one in (*symptoms().values(), *looks().values())}
    shown = {state for one in causes().values() for state in one.shows}
    assert shown == told  # no state that nobody sees, no sight that nothing explains
    for one in looks().values():
        assert one.round in ROUNDS
        assert not one.caution or one.caution in CAUTIONS
        assert 0 < one.minutes <= 10
        assert 0.8 <= one.sure < 1


@pytest.mark.parametrize("kind", KINDS)
def test_each_cause_has_the_look_that_shows_it_and_speaks_of_what_there_is(kind: str) -> None:
    known = ward(kind)
    asked = {one.name: one for one in known.looks}
    setup = SETUPS[kind]
    limits = {rule.name for rule in kind_of(kind).model.rules}
    for cause in known.causes:
        assert cause.undo in UNDO
        assert cause.prior > 0
        assert cause.change
        assert cause.shows[asked[cause.look].tells] >= 0.7, cause.name
        assert set(cause.aims) <= ALL_LIMITS | {"cost"}, cause.name
        if cause.lever and cause.aims and cause.aims != ("cost",):
            assert any(limits & set(one.aims) for one in [cause]) or len(cause.kinds) > 1, cause.name
        for text in (*cause.supports, *cause.denies):
            place, name, _, _ = PATTERN.fullmatch(text).groups()  # type: ignore[union-attr]
            if place in ("limit", "under", "over"):
                assert name in ALL_LIMITS, text
            elif place == "result":
                assert name in ALL_RESULTS, text
            else:
                assert place in ("skin", "work", "machine", "holding", "settings"), text
                assert name is None or hasattr_anywhere(place, name), text
    assert setup.operation == kind


ALL_LIMITS = {rule.name for kind in KINDS.values() for rule in kind.model.rules}
ALL_RESULTS = {name for setup in SETUPS.values() for name in evaluate_quickly(setup).results}


def hasattr_anywhere(place: str, name: str) -> bool:
    return name == "group" or any(hasattr(getattr(setup, place), name) for setup in SETUPS.values())


def test_every_piece_of_evidence_fires_when_its_number_comes_near_and_never_falls_back() -> None:
    fired = set()
    for kind, setup in SETUPS.items():
        outcome = evaluate_quickly(setup)
        for cause in ward(kind).causes:
            for text in (*cause.supports, *cause.denies):
                match = PATTERN.fullmatch(text)
                assert match
                if match[1] not in ("limit", "under", "over"):
                    continue
                degrees = []
                for used in (0.1, 0.5, 0.8, 1.0, 2.0):
                    scaled = tuple(_used(one, used) if one.name == match[2] else one for one in outcome.limits)
                    if (found := weigh(text, setup, replace(outcome, limits=scaled))) is not None:
                        degrees.append(found.degree)
                if degrees:
                    assert degrees == sorted(degrees, reverse=match[3] == "<")
                    assert max(degrees) > 0.5, text
                    fired.add(text)
    assert len(fired) > 80


def _used(limit: Any, level: float) -> Any:
    """The limit with its value at so much of either bound."""
    bound = limit.upper if limit.upper else limit.lower
    lower = level * limit.value if limit.lower is not None else None
    return replace(limit, utilisation=level, lower=lower, upper=limit.value / level if limit.upper and bound else None)


def test_what_speaks_for_a_cause_raises_it_and_only_the_strongest_counts() -> None:
    def piece(degree: float) -> Weighed:
        return Weighed(degree, evaluate_quickly(SETUPS["turn"]).limits[0].value_display)

    assert evidence.factor((), ()) == 1.0
    assert evidence.factor((piece(1.0),), ()) > evidence.factor((piece(0.5),), ()) == 1.0 > evidence.factor((piece(0.0),), ())
    assert evidence.factor((piece(1.0), piece(0.9)), ()) == evidence.factor((piece(1.0),), ())
    assert evidence.factor((), (piece(1.0),)) < evidence.factor((), (piece(0.2),)) < 1.0


def test_a_plan_near_a_limit_makes_its_cause_likelier() -> None:
    told = EVERY_KIND["turn"]
    slow = read_setup({**told, "settings": {**told["settings"], "cutting_speed": 45}})
    before, after = (chance_of(diagnose(case_of(one), ["torn_surface"], {}), "built_up_slow") for one in (SETUPS["turn"], slow))
    assert after > 2 * before


@pytest.mark.parametrize("kind", KINDS)
def test_a_look_that_finds_a_cause_raises_it_and_one_that_does_not_lowers_it(kind: str) -> None:
    case = CASES[kind]
    for cause in case.causes:
        seen = next(one.name for one in ward(kind).symptoms if one.tells in cause.shows)
        plain, found, missed = (
            chance_of(diagnose(case, [seen], answers), cause.name) for answers in ({}, {cause.look: True}, {cause.look: False})
        )
        assert found > plain > missed, cause.name


def test_two_sights_of_one_state_are_not_counted_twice() -> None:
    case = case_of_kind("turn")

    def odds(seen: list[str]) -> float:
        p = chance_of(diagnose(case, seen, {}), "part_rings")
        return p / (1 - p)

    one, two = odds(["waves"]), odds(["waves", "squeal"])
    assert one / odds(["feed_lines"]) > 10  # a sight that belongs to it
    assert two / one < 4  # another of the same state


def test_chances_add_up_and_none_of_these_stands_among_them() -> None:
    found = diagnose(CASES["drill"], ["packed_flutes"], {})
    assert sum(one.chance for one in found.suspects) == pytest.approx(1.0)
    assert [one.cause for one in found.suspects].count(None) == 1
    assert CASES["drill"].prior[-1] == pytest.approx(NONE)
    with pytest.raises(CuttingError, match="packed_flutes"):
        diagnose(CASES["drill"], ["no such thing"], {})


def test_a_fault_does_on_the_engine_what_it_says() -> None:
    def level(kind: str, name: str, limit: str) -> tuple[float, float]:
        setup = SETUPS[kind]
        plain, there = faulty(setup, ()), faulty(setup, causes()[name].fault)
        assert plain
        assert there
        before, after = run(plain), run(there)
        assert before
        assert after
        return float(before.used[limit].max()), float(after.used[limit].max())

    for kind, name, limit in (
        ("turn", "bar_hard", "life"), ("turn", "part_springs", "part_bends"), ("turn", "feed_for_finish", "finish"),
        ("turn", "built_up_slow", "useful_speed"), ("turn", "grip_light", "jaw_grip"), ("turn", "overhang_long", "tool_bends"),
        ("drill", "chips_past_room", "packing"), ("mill hole", "tooth_overloads", "body"), ("cut off", "cut_off_height", "centre_height"),
        ("heavy bore", "head_unbalanced", "unbalance"), ("groove", "power_short", "spindle_power"),
    ):  # fmt: skip
        before, after = level(kind, name, limit)
        assert after > 1.1 * before, (kind, name)
    graver = faulty(SETUPS["turn"], causes()["bar_hard"].fault, 2.0)
    assert graver
    assert graver.setup.work.hardness > 1.5 * SETUPS["turn"].work.hardness


def test_a_change_moves_the_number_that_it_claims_the_way_it_says() -> None:
    ran = {}
    for kind, setup in SETUPS.items():
        outcome = evaluate_quickly(setup)
        for cause in ward(kind).causes:
            made = offer(setup, cause, None, outcome)
            if not cause.lever:
                assert made.by_hand
                assert not made.patch
            if made.setup is None:
                continue
            ran[(kind, cause.name)] = made
            before, after = (run(plain) for plain in (faulty(setup, ()), faulty(made.setup, ())) if plain)
            assert before
            assert after
            assert made.words
            aim = next((name for name in cause.aims if name in before.used), None)
            if aim:
                assert np.max(after.used.get(aim, 0.0)) < before.used[aim].max(), (kind, cause.name)
            else:
                assert after.cost < before.cost
            hard = [one.name for one in outcome.limits if one.severity == "hard" and one.utilisation <= 1]
            assert all(after.used[name].max() <= 1.0 + 1e-6 for name in hard if name in after.used), (kind, cause.name)
            _follows_its_lever(setup, made.setup, cause)
    assert len(ran) > 90
    assert {cause.lever for cause in causes().values() if cause.lever} <= {
        "feed+", "feed-", "speed+", "speed-", "depth+", "coolant", "tool", "any"
    }  # fmt: skip


def _follows_its_lever(setup: Any, changed: Any, cause: Cause) -> None:
    signs = {"+": 1, "-": -1}
    if cause.lever[-1] in signs:
        name = {"feed": setup.FEED, "speed": "cutting_speed", "depth": "depth_of_cut"}[cause.lever[:-1]]
        moved = getattr(changed.settings, name) - getattr(setup.settings, name)
        assert moved * signs[cause.lever[-1]] > 0, cause.name


def test_what_the_limits_forbid_is_said_with_the_limit() -> None:
    made = offer(SETUPS["turn"], causes()["feed_below_breaker"])  # its Ra stands near the drawing's
    assert made.forbidden == "finish Ra would be over its limit"
    assert not made.patch
    assert not made.by_hand


def test_it_is_right_as_often_as_it_says() -> None:
    setups, cases = list(SETUPS.values()), list(CASES.values())
    found = rehearse(setups, cases, 390, seed=1)
    count = len(found)
    assert sum(one.place == 0 for one in found) / count >= 0.70
    assert sum(one.place < 3 for one in found) / count >= 0.90
    assert sum(one.by_prior == 0 for one in found) / count < 0.2
    assert calibration_error(found) <= 0.05
    healed = [one.healed for one in found if one.healed]
    assert sum(one == 1 for one in healed) / count >= 0.70 > sum(one.habit for one in found) / count
    assert sum(healed) / len(healed) <= 1.6
    assert sum(one.minutes for one in found) / count < 30
    assert unnamed(cases, 390, seed=1) >= 0.70


def test_a_causes_weight_moves_with_how_its_changes_turned_out() -> None:
    # Beta(2, 2): its 5 and 95 % points are 0.1354 and 0.8646 (tables of the incomplete beta function, from memory)
    none = weight(0, 0)
    assert (none.factor, round(none.low / 2, 4), round(none.high / 2, 4)) == (1.0, 0.1354, 0.8646)
    good, bad = weight(8, 0), weight(0, 8)
    assert bad.factor < 1.0 < good.factor < 2.0
    assert good.high - good.low < none.high - none.low
    assert weight(1, 0).factor < 1.3  # one lucky change does not turn the table over
    plain, moved = (case_of_kind("tap", learned) for learned in ({}, {"tap_worn": good.factor}))
    first, then = (chance_of(diagnose(case, ["gauge_no_go"], {}), "tap_worn") for case in (plain, moved))
    assert then > first
    assert isinstance(plain, ClinicCase)


@pytest.mark.parametrize("page", PAGES)
def test_the_pages_of_mistakes_end_in_the_clinics_own_table(page: str) -> None:
    text = (DOCS / f"{page}-mistakes.md").read_text(encoding="utf-8")
    assert text == with_section(text, page), "python -m cutting.clinic.pages writes it"
    assert all(one.change in text for one in causes().values() if set(one.kinds) & set(PAGES[page]))


def test_calibration_by_hand() -> None:
    def one(chance: float, place: int) -> Rehearsed:
        return Rehearsed("turn", "x", place, 0, chance, 0.0, 0, False)

    assert calibration_error([one(0.9, 0), one(0.1, 1)]) == pytest.approx(0.1)  # each a tenth off
    assert calibration_error([one(1.0, 0), one(1.0, 0)]) == 0.0
    assert calibration_error([one(0.75, 0), one(0.75, 0), one(0.75, 0), one(0.75, 2)]) == pytest.approx(0.0)
    assert calibration_error([one(0.2, 0)]) == pytest.approx(0.8)


def test_a_change_that_cannot_do_all_does_the_most_and_one_that_can_does_the_least() -> None:
    most = least = 0
    for kind, setup in SETUPS.items():
        plain = faulty(setup, ())
        before = run(plain) if plain else None
        for cause in ward(kind).causes:
            made = offer(setup, cause)
            aim = next((name for name in cause.aims if before and name in before.used), None)
            if made.setup is None or not aim or cause.lever[:-1] not in ("feed", "speed") or before is None:
                continue
            name = setup.FEED if cause.lever.startswith("feed") else "cutting_speed"
            sign = 1 if cause.lever.endswith("+") else -1
            levels = {step: _level(setup, name, step**sign, aim) for step in (1.1, 1.25, 1.5, 2.0)}
            after = _level(setup, name, getattr(made.setup.settings, name) / getattr(setup.settings, name), aim)
            assert after is not None
            if after > min(0.85 * float(before.used[aim].max()), 1.0) + 1e-6:
                most += 1
                assert all(level is None or after <= level + 1e-6 for level in levels.values()), (kind, cause.name)
            else:
                least += 1
                target = min(0.85 * float(before.used[aim].max()), 1.0)
                chosen = (getattr(made.setup.settings, name) / getattr(setup.settings, name)) ** sign
                assert all(level is None or level > target - 1e-6 for step, level in levels.items() if step < chosen - 0.01), (
                    kind,
                    cause.name,
                )
    assert most > 3
    assert least > 10


def _level(setup: Any, name: str, times: float, aim: str) -> float | None:
    """How much of a limit is used with a setting so many times what it is; None where that breaks a hard limit that holds now."""
    try:
        changed = setup.with_settings(**{name: round(float(getattr(setup.settings, name)) * times, 4)})
        outcome, now = evaluate_quickly(changed), evaluate_quickly(setup)
    except CuttingError:
        return None
    held = {one.name for one in now.limits if one.severity == "hard" and one.utilisation <= 1}
    if any(one.utilisation > 1 and one.name in held for one in outcome.limits):
        return None
    return next((one.utilisation for one in outcome.limits if one.name == aim), 0.0)


def test_rows_tell_what_moves_and_nothing_that_does_not() -> None:
    made = offer(SETUPS["turn"], causes()["feed_for_finish"])
    told = {row.label for row in made.rows}
    assert {"finish Ra", "operation time", "cost"} <= told
    assert all(row.before != row.after for row in made.rows if row.label not in ("operation time", "cost"))
    slower = {row.label for row in offer(SETUPS["turn"], causes()["crater_heat"]).rows}
    assert "passive force" not in slower  # by Kienzle, force does not hang on speed
    small = evaluate_quickly(SETUPS["turn"]).results["roughness"]
    for by, moves in ((1.02, True), (1.002, False), (0.98, True)):
        assert _moved(replace(small, value=0.4), replace(small, value=0.4 * by), "roughness") is moves
        assert _moved(replace(small, value=4000.0), replace(small, value=4000.0 * by), "roughness") is moves
    assert _moved(small, small, "operation_time")
    assert not _moved(small, small, "roughness")


def test_reasons_tell_what_was_found_and_what_was_not_there_and_leave_out_what_says_nothing() -> None:
    def reasons(name: str, answers: dict[str, bool]) -> set[tuple[str, str]]:
        found = diagnose(CASES["turn"], ["long_chips"], answers)
        return {
            (one.speaks, one.metric)
            for suspect in found.suspects
            if suspect.cause and suspect.cause.name == name
            for one in suspect.reasons
        }

    thin, override, speed = (looks()[name].question for name in ("chip_thin", "override", "true_fast"))
    told = reasons("feed_below_breaker", {"chip_thin": True, "override": False, "true_fast": True})
    assert ("for", f"yes: {thin}") in told
    assert ("for", "would show: long chips") in told
    assert ("against", f"yes: {speed}") in told
    assert not any(override in text for _, text in told)  # it would not show, and was not there: that says nothing
    assert ("against", f"no: {thin}") in reasons("feed_below_breaker", {"chip_thin": False})
    assert ("against", "would not show: long chips") in reasons("grip_hard", {})


def test_evidence_reads_what_is_set_held_and_cut() -> None:
    setup = SETUPS["turn"]
    outcome = evaluate_quickly(setup)

    def degree(text: str) -> float | None:
        found = weigh(text, setup, outcome)
        return found.degree if found else None

    hard = setup.work.hardness
    assert degree(f"work.hardness>{hard / 2}") == pytest.approx(1.0, abs=0.02)
    assert degree(f"work.hardness<{hard / 2}") == pytest.approx(0.0, abs=0.02)
    assert degree(f"work.hardness>{hard}") == pytest.approx(0.5)
    assert (degree("work.group=P"), degree("work.group=M")) == (1.0, 0.0)
    assert (degree("settings.coolant=flood"), degree("holding.interrupted=no"), degree("skin=clean")) == (1.0, 1.0, 1.0)
    assert degree("settings.lead_angle>3") is None  # what a kind does not have says nothing
    assert degree("limit.packing>0.5") is None

"""Practice on faults: the same seed is the same case, looks cost minutes, wrong changes cost parts, the right one heals."""

from __future__ import annotations

import pytest

from cutting.clinic.trainer import PER_PART, Exercise, drawn, level_of, shipped, standing
from cutting.clinic.words import cause, ward
from cutting.errors import CuttingError
from tests.core.every_kind import EVERY_KIND


def test_thirty_ship_in_three_levels_over_all_kinds() -> None:
    levels = [one.level for one in shipped()]
    assert len(levels) >= 30
    assert {levels.count(level) for level in (1, 2, 3)} == {10}
    assert {one.kind for one in shipped()} == set(EVERY_KIND)
    for one in shipped():
        told = standing(one, []).told
        assert told
        assert one.name.startswith(one.kind)


@pytest.mark.parametrize("one", shipped()[::5], ids=lambda one: one.name)
def test_the_right_change_heals_and_the_wrong_one_spoils_a_part(one: object) -> None:
    exercise = shipped()[0] if not hasattr(one, "kind") else one
    wrong = next(other.name for other in ward(exercise.kind).causes if other.name != exercise.cause)
    right = cause(exercise.kind, exercise.cause)
    missed = standing(exercise, [{"change": wrong}])
    assert missed.parts == 1
    assert not missed.over
    assert missed.score == 0
    assert not missed.explained
    healed = standing(exercise, [{"change": wrong}, {"change": exercise.cause}])
    assert healed.healed
    assert healed.over
    assert right.title in healed.explained[0]
    assert healed.score == pytest.approx(100 - healed.minutes - PER_PART)
    assert healed.score < standing(exercise, [{"name": exercise.cause}]).score  # named at once, nothing spent
    assert standing(exercise, [{"give up": ""}]).score == 0
    with pytest.raises(CuttingError, match="over"):
        standing(exercise, [{"name": exercise.cause}, {"look": right.look}])


def test_a_look_costs_minutes_and_answers_the_same_when_asked_again() -> None:
    exercise = shipped()[3]
    look = cause(exercise.kind, exercise.cause).look
    once, twice = standing(exercise, [{"look": look}]), standing(exercise, [{"look": look}, {"look": look}])
    assert twice.minutes == 2 * once.minutes > 0
    assert twice.parts == 0
    assert twice.events[0].yes == twice.events[1].yes == once.events[0].yes
    with pytest.raises(CuttingError, match="no such look"):
        standing(exercise, [{"look": "no such look"}])
    with pytest.raises(CuttingError, match="no step"):
        standing(exercise, [{"cheat": ""}])


def test_a_seed_is_a_case_and_the_true_look_tells_most_of_the_time() -> None:
    assert drawn(77) == drawn(77) != drawn(78)
    assert drawn(77, "tap").kind == "tap"
    found = [drawn(seed) for seed in range(60)]
    told = [standing(one, [{"look": cause(one.kind, one.cause).look}]).events[0].yes for one in found]
    assert sum(bool(yes) for yes in told) > 42  # of 60: cause and look are both about nine of ten
    assert len({one.cause for one in found}) > 25
    with pytest.raises(CuttingError, match="nothing is practised"):
        drawn(1, "polish")


def test_the_levels_that_ship_are_what_the_clinic_makes_of_what_is_told() -> None:
    for one in shipped():
        assert level_of(one.kind, one.cause, one.seed) == one.level, one.name


def test_an_exercise_that_is_healed_is_over() -> None:
    exercise = shipped()[0]
    with pytest.raises(CuttingError, match="over"):
        standing(exercise, [{"change": exercise.cause}, {"look": cause(exercise.kind, exercise.cause).look}])


def test_a_wrong_change_is_run_with_the_fault_still_at_work() -> None:
    """What eases the number is seen to ease it, and is still not the cause: less feed under a feed that is too high."""
    exercise = Exercise("turn", "feed_for_finish", 3)
    told = standing(exercise, [{"change": "heat_and_load"}]).events[0]
    assert "less, and still there" in told.words
    assert not told.healed
    other = standing(exercise, [{"change": "warm_part"}]).events[0]
    assert "as before" in other.words
    right = standing(exercise, [{"change": "feed_for_finish"}])
    assert "gone" in right.events[0].words
    assert right.over

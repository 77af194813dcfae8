"""From the first pass to the size on the drawing: which passes, how deep, and what to command."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from typing import Any

import numpy as np
import pytest

from cutting.errors import CuttingError
from cutting.operations.registry import evaluate, evaluate_quickly, explore
from cutting.operations.turned.planner import plan
from cutting.operations.turned.setup import Setup
from cutting.operations.turned.size_control import Ledger, Measured, doubt_of_next, ledger
from cutting.tooling.crib import Crib
from cutting.tooling.items import holders, inserts
from tests.core.tools import find_insert

Build = Callable[..., Setup]
SEAT = {"start_diameter": 91.5, "end_diameter": "90 h7", "length": 66, "distance_from_chuck": 82}


@pytest.fixture
def hub(setup: Build) -> Build:
    """A hub turned to a bearing size in three equal cuts on the geared lathe."""

    def build(**settings: Any) -> Setup:
        return setup(
            material="S235JR",
            machine="geared lathe",
            tool={"insert": "CNMG 120404 light P10", "holder": "PCLNR 2525 M12"},
            feature=SEAT,
            holding={"style": "chuck", "free_length": 150, "grip_diameter": 90, "bore": 32},
            settings={"cutting_speed": 200, "feed_per_rev": 0.12, "depth_of_cut": 0.26, "coolant": "flood", **settings},
        )

    return build


def test_equal_cuts_are_equal_and_end_at_the_size(hub: Build) -> None:
    passes = evaluate_quickly(hub()).passes
    assert [p.depth for p in passes] == pytest.approx([passes[0].depth] * 3)
    assert passes[-1].to_diameter == pytest.approx(90 - 0.0175)
    assert len({round(p.passive_force, 6) for p in passes}) == 1  # equal cuts push alike


def test_a_planned_last_cut_and_a_list_of_ones_own(hub: Build) -> None:
    planned = evaluate_quickly(hub(last_depth="0.1 mm")).passes
    assert planned[-1].depth == pytest.approx(0.1)
    assert sum(p.depth for p in planned) == pytest.approx(0.75 + 0.0175 / 2)
    own = evaluate_quickly(hub(pass_depths="0.4; 0.2; 0.1")).passes
    assert [p.depth for p in own] == pytest.approx([0.4, 0.2, 0.75 + 0.0175 / 2 - 0.6])
    assert len(explore(hub(pass_depths="0.4; 0.2; 0.1")).passes) == 3


@pytest.mark.parametrize(
    ("settings", "field"),
    [({"pass_depths": "0.5; 0.4; 0.1"}, "settings.pass_depths"), ({"pass_depths": "0.5; x"}, "settings.pass_depths"),
     ({"last_depth": "0.001 mm"}, "settings.last_depth"), ({"centre_height": "9 mm"}, "settings.centre_height"),
     ({"nozzles": 40}, "settings.nozzles")],
)  # fmt: skip
def test_bad_plans_are_refused_by_name(hub: Build, settings: dict[str, Any], field: str) -> None:
    with pytest.raises(CuttingError) as refused:
        hub(**settings)
    assert refused.value.field == field


def test_the_planner_bounds_are_where_the_limits_break(setup: Build) -> None:
    """Just inside the deepest pass nothing of the planner's list breaks, just outside its first bound does."""
    base = setup(holding={"style": "chuck", "free_length": 228, "grip_diameter": 64})
    found = plan(base)
    first = found.bounds[0]
    assert found.deepest == pytest.approx(first.depth)

    def used(depth: float) -> float:
        one = setup(
            feature={"start_diameter": 49 + 2 * depth, "end_diameter": 49, "length": 200, "distance_from_chuck": 20},
            holding={"style": "chuck", "free_length": 228, "grip_diameter": 64},
            settings={"depth_of_cut": depth},
        )
        return next(limit.utilisation for limit in evaluate_quickly(one).limits if limit.name == first.name)

    assert used(0.97 * first.depth) < 1 < used(1.03 * first.depth)


def test_fewest_passes_stay_inside_the_deepest(setup: Build) -> None:
    found = plan(setup(feature={"start_diameter": 64, "end_diameter": 49, "length": 200, "distance_from_chuck": 20}))
    assert found.equal_depth <= found.deepest < 7.5 / (found.fewest - 1)


def test_polishing_and_the_school_of_light_cuts(hub: Build, setup: Build) -> None:
    plain = hub()
    polished = setup(
        material="S235JR", feature={**SEAT, "polish": True}, settings={"depth_of_cut": 0.26}, house={"polishing_allowance": 0.02}
    )
    assert polished.target_diameter == pytest.approx(plain.feature.turned_diameter + 0.02)
    light = setup(material="S235JR", feature=SEAT, settings={"depth_of_cut": 0.6}, house={"equal_cuts": False, "light_cut": 0.15})
    assert evaluate_quickly(light).passes[-1].depth == pytest.approx(0.15)


class Lathe:
    """A lathe whose tool stands off by `setting` and which springs `spring` mm on diameter per newton."""

    def __init__(self, setup: Setup, setting: float, spring: float) -> None:
        self.setup, self.setting, self.spring = setup, setting, spring

    def cut(self, commanded: float, force: float) -> float:
        return commanded + self.setting + self.spring * force


def turn_to_size(setup: Setup, lathe: Lathe) -> tuple[list[Measured], list[Ledger]]:
    """Measure and command as the ledger says, pass by pass."""
    readings: list[Measured] = []
    states = [ledger(setup, readings)]
    while (following := states[-1].next) is not None:
        size = lathe.cut(following.command, following.force)
        readings.append(Measured(following.pass_number, following.command, size, uncertainty=0.004))
        states.append(ledger(setup, readings))
    return readings, states


def test_three_measurements_bring_the_hub_to_size(hub: Build) -> None:
    base = hub()
    readings, states = turn_to_size(base, Lathe(base, 0.083, 2.4e-4))
    assert readings[0].measured - readings[0].commanded > 0.08  # the first cut shows how the tool is set
    target, tolerance = base.target_diameter, base.feature.end_diameter.tolerance
    assert tolerance is not None
    assert abs(readings[-1].measured - target) < 0.1 * tolerance
    assert not states[-1].springing_taught
    assert any("equal cuts teach only setting and springing together" in note for note in states[-1].notes)
    before_last = states[-2].next
    assert before_last is not None
    assert before_last.low <= readings[-1].measured - before_last.command <= before_last.high
    assert before_last.high - before_last.low < 0.02


def test_a_lighter_last_cut_is_predicted_and_warned_of(hub: Build) -> None:
    """After equal cuts a light one springs less: the ledger warns, foretells the change from the beam, and widens its interval."""
    equal, light = hub(), hub(pass_depths="0.35; 0.35; 0.05")
    _, steady = turn_to_size(equal, Lathe(equal, 0.05, 2e-4))
    readings, states = turn_to_size(light, Lathe(light, 0.05, 2e-4))
    warned = states[-2]
    assert any("known from the beam model only" in warning for warning in warned.warnings)
    assert not any("known from the beam model only" in warning for warning in steady[-2].warnings)
    following, even = warned.next, steady[-2].next
    assert following is not None
    assert even is not None
    assert following.offset < readings[-2].measured - readings[-2].commanded
    assert following.high - following.low > even.high - even.low
    assert any("equal cuts teach" in note for note in warned.notes)
    assert not any("equal cuts teach" in note for note in states[-1].notes)
    assert states[-1].springing_spread < warned.springing_spread  # the unlike cut has taught a little of the stiffness


def test_cuts_of_different_force_tell_springing_from_setting(hub: Build) -> None:
    base = hub(pass_depths="0.5; 0.2; 0.05")
    spring = ledger(base, []).springing / max(ledger(base, []).next.force, 1e-9)  # type: ignore[union-attr]
    lathe = Lathe(base, 0.04, 1.6 * spring)
    readings: list[Measured] = []
    for number in (1, 2, 3):
        following = ledger(base, readings).next
        assert following is not None
        size = lathe.cut(following.command, following.force)
        readings.append(Measured(number, following.command, size, uncertainty=0.0002))
    learned = ledger(base, readings)
    force = learned.entries[-1].force
    assert learned.springing / force == pytest.approx(1.6 * spring, rel=0.35)
    assert abs(learned.setting - 0.04) < 3 * learned.setting_spread


def test_a_warm_part_is_reckoned_at_20_degrees(hub: Build) -> None:
    warm = ledger(hub(), [Measured(1, 91.0, 91.05, temperature=45.0)])
    expected = 91.05 / (1 + hub().work.material.expansion * 1e-6 * 25)
    assert warm.entries[0].at_20 == pytest.approx(expected)
    assert any("45 °C" in warning and "smaller" in warning for warning in warm.warnings)


@pytest.mark.parametrize(("temperature", "said"), [(20.0, ""), (21.5, ""), (22.5, "smaller"), (17.0, "larger")])
def test_warmth_is_named_from_two_degrees_on(hub: Build, temperature: float, said: str) -> None:
    warnings = ledger(hub(), [Measured(1, 91.0, 91.05, temperature=temperature)]).warnings
    assert [said in warning for warning in warnings if "at 20 °C it is" in warning] == ([True] if said else [])


def test_what_is_left_is_shared_and_a_hair_is_not_worth_a_cut(hub: Build) -> None:
    base = hub()
    planned = ledger(base, []).next
    assert planned is not None
    assert planned.target == pytest.approx(base.feature.start_diameter - 2 * planned.depth)  # a depth is taken on both sides
    thick = ledger(base, [Measured(1, planned.command, planned.target + 0.12)])  # the first cut left 0.12 too much
    assert thick.next is not None
    assert thick.next.target == pytest.approx((planned.target + 0.12 + base.target_diameter) / 2)  # halfway: two equal cuts are left
    assert not any("Almost nothing" in warning for warning in thick.warnings)
    ends = base.target_diameter
    spent = ledger(base, [Measured(1, planned.command, planned.target), Measured(2, ends + 0.05, ends + 0.004)])
    assert any("the edge would only rub" in warning for warning in spent.warnings)


def test_the_next_piece_starts_with_what_the_last_one_taught(hub: Build) -> None:
    base = hub()
    first = [Measured(k, c, c + 0.06) for k, c in ((1, 90.99), (2, 90.43), (3, 89.92))]
    done = ledger(base, first)
    assert done.next is None
    again = ledger(base, [*first, Measured(1, 90.95, 91.01, piece=2)])
    assert again.next is not None
    assert again.next.pass_number == 2
    assert again.next.offset == pytest.approx(0.06, abs=0.01)
    assert again.entries[-1].actual_depth == pytest.approx((91.5 - 91.01) / 2)


@pytest.mark.parametrize(
    ("commanded", "read", "doubted"),
    [(90.99, 91.05, ""), (90.99, 90.80, ""), (90.99, 91.53, "not below"), (90.99, 99.05, "not below"), (90.99, 90.40, "off the"),
     (90.99, 91.35, "off the"), (91.45, 91.44, "")],
)  # fmt: skip
def test_a_reading_that_cannot_be_is_doubted_and_teaches_nothing(hub: Build, commanded: float, read: float, doubted: str) -> None:
    """From Ø91.5: a turned part does not grow, and an offset of half the cut or more is a slip or a wrong scale."""
    one = Measured(1, commanded, read)
    found = ledger(hub(), [one])
    assert [doubted in why for _, why in found.doubtful] == ([True] if doubted else [])
    if doubted:
        assert (found.entries, found.setting) == ((), 0.0)
        assert found.next == ledger(hub(), []).next
        assert "not counted" in found.warnings[0]
    assert bool(doubt_of_next(hub(), [], one)) == bool(doubted)


def test_a_doubtful_pass_does_not_move_the_next_one(hub: Build) -> None:
    good, wrong = Measured(1, 91.0, 91.07), Measured(2, 90.5, 91.09)
    assert ledger(hub(), [good, wrong]).setting == ledger(hub(), [good]).setting
    assert "not below" in doubt_of_next(hub(), [good], wrong)
    assert not doubt_of_next(hub(), [good], Measured(2, 90.5, 90.57))


def test_wear_is_a_line_of_its_own(hub: Build) -> None:
    results = evaluate_quickly(hub()).results
    drift, every = results["drift"].value / 1000, results["correct_every"].value
    assert drift == pytest.approx(2 * 0.3 * np.tan(np.radians(6)) / results["median_parts"].value)
    assert every == max(np.floor(0.25 * 0.035 / drift), 1)


def test_a_remedy_may_be_another_tool_of_the_crib(setup: Build) -> None:
    strings = setup(settings={"feed_per_rev": 0.12, "depth_of_cut": 1.0})
    binding = evaluate(strings, Crib(inserts(), holders())).binding
    assert binding.name == "chip_window"
    tools = [remedy for remedy in binding.remedies if "tool" in remedy.patch]
    assert tools
    taken = replace(strings, insert=find_insert(tools[0].patch["tool"]["insert"]))
    assert next(x for x in evaluate_quickly(taken).limits if x.name == "chip_window").utilisation < binding.utilisation


def test_warm_growth_is_a_limit_against_the_tolerance(setup: Build) -> None:
    """Ø200 h6 (29 µm by ISO 286) of aluminium at 30 °C: 24e-6 · 200 · 10 = 48 µm; half the tolerance is 14.5."""
    form = {
        "material": "EN AW-6082 T6", "tool": {"insert": "CCGT 120408 ground N10", "holder": "SCLCR 2525 M12"},
        "feature": {"start_diameter": 202, "end_diameter": "200 h6", "length": 20, "distance_from_chuck": 10},
        "settings": {"cutting_speed": 300, "feed_per_rev": 0.15, "depth_of_cut": 1},
        "holding": {"style": "chuck", "free_length": 50, "grip_diameter": 202},
    }  # fmt: skip
    warm = ledger(setup(**form), [Measured(1, 200.0, 200.05, temperature=30.0)])
    assert warm.warmth is not None
    expansion = setup(**form).work.material.expansion
    assert warm.warmth.growth == pytest.approx(expansion * 1e-6 * 200.05 * 10, rel=1e-9)
    assert warm.warmth.allowed == pytest.approx(0.0145, rel=1e-6)
    assert warm.warmth.broken
    assert any("its tolerance of 29 µm" in one for one in warm.warnings)
    cool = ledger(setup(**form), [Measured(1, 200.0, 200.05, temperature=22.5)])
    assert cool.warmth is not None
    assert not cool.warmth.broken
    assert cool.warmth.utilisation == pytest.approx(warm.warmth.utilisation / 4)

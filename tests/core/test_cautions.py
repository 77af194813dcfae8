"""Each mistake that costs money or hurts somebody is named before the cut, and only then."""

from __future__ import annotations

import re
from collections.abc import Callable
from dataclasses import replace
from pathlib import Path
from typing import Any

import pytest

import cutting
from cutting import read_setup
from cutting.operations.frame.fire import fire_warnings
from cutting.operations.frame.harm import HARMS, Harm
from cutting.operations.frame.outcome import Warning
from cutting.operations.registry import evaluate_quickly
from cutting.operations.turned.setup import Setup
from cutting.wear.reference import speed_factors
from cutting.workpiece.materials import deliver, find_material
from tests.core.every_kind import EVERY_KIND

Build = Callable[..., Setup]


def named(setup: Setup) -> dict[str, str]:
    return {w.name: w.severity for w in evaluate_quickly(setup).warnings}


CASES: list[tuple[str, dict[str, Any], str]] = [
    ("weld_touch_off", {"skin": "weld"}, "care"),
    ("slender", {"holding": {"style": "chuck", "free_length": 268}}, "care"),
    ("gear_step", {"machine": "geared lathe", "settings": {"coolant": "flood"}}, "note"),
    ("speed_not_reached", {"settings": {"spindle_clamp": 400}}, "care"),
    ("shallow_nose", {"feature": {"start_diameter": 57, "end_diameter": 56.4, "length": 100}}, "note"),
    ("titanium_chips", {"material": "Ti-6Al-4V", "tool": {"insert": "CNMG 120408 hot alloy S15", "holder": "PCLNR 2525 M12"}}, "care"),
    ("thermal_shock", {
        "material": "100Cr6 hardened 60 HRC", "tool": {"insert": "CNGA 120408 bare H10", "holder": "PCLNR 2525 M12"},
        "feature": {"start_diameter": 57, "end_diameter": 56.6, "length": 60}}, "care"),
    ("long_chips", {"settings": {"feed_per_rev": 0.05}}, "care"),
]  # fmt: skip


@pytest.mark.parametrize(("name", "changes", "severity"), CASES, ids=[case[0] for case in CASES])
def test_each_caution_stands_where_it_belongs(setup: Build, name: str, changes: dict[str, Any], severity: str) -> None:
    assert named(setup(**changes)).get(name) == severity
    assert name not in named(setup())


def test_a_worn_spindle_warns_carbide(setup: Build) -> None:
    base = setup()
    worn = replace(base, machine=replace(base.machine, condition="worn"))
    assert named(worn)["worn_machine"] == "care"
    assert "worn_machine" not in named(base)


def test_the_usual_cautions_are_always_there_and_defer(setup: Build) -> None:
    guards = next(w for w in evaluate_quickly(setup()).warnings if w.name == "guards")
    assert "eye protection" in guards.text
    assert "manual" in guards.text


def test_blocking_reasons_come_first(setup: Build) -> None:
    outcome = evaluate_quickly(
        setup(skin="weld", feature={"start_diameter": 57, "end_diameter": 49, "length": 100, "distance_from_chuck": 0})
    )
    order = [w.severity == "blocks" for w in outcome.warnings]
    assert order == sorted(order, reverse=True)
    assert order[0]


# common-practice corrections to speed (from memory of handbooks)
@pytest.mark.parametrize(
    ("changes", "low", "high"),
    [
        ({"interrupted": True}, 0.7, 0.85), ({"skin": "forged"}, 0.7, 0.8), ({"skin": "weld"}, 0.3, 0.3),
        ({"coolant_pressure": 0.0}, 0.8, 0.8), ({"weak": True}, 0.7, 0.8), ({"coolant_pressure": 70.0}, 1.05, 1.15),
    ],
)  # fmt: skip
def test_corrections_to_speed(setup: Build, changes: dict[str, Any], low: float, high: float) -> None:
    base = setup()
    usual = {"coolant_pressure": 5.0, "interrupted": False, "skin": "clean", "weak": False}

    def product(**given: Any) -> float:
        total = 1.0
        for factor in speed_factors(base.work, base.insert.grade, **{**usual, **given}):
            total *= factor.factor
        return total

    assert low - 1e-9 <= product(**changes) / product() <= high + 1e-9


def test_harder_delivery_cuts_slower_and_presses_more() -> None:
    steel = find_material("42CrMo4")
    soft, hard = deliver(steel, 250), deliver(steel, 320)
    # common practice: roughly in proportion to HB^-1
    assert hard.hardness_speed_factor / soft.hardness_speed_factor == pytest.approx(250 / 320, rel=1e-9)
    assert hard.specific_force_1 > soft.specific_force_1
    assert deliver(steel).hardness == 275


@pytest.mark.parametrize("kind", EVERY_KIND)
def test_what_burns_is_said_in_every_kind_and_water_on_magnesium_is_a_danger(kind: str) -> None:
    """Magnesium takes the oxygen of water and leaves hydrogen: class D powder, never water (common practice)."""
    setup = read_setup(EVERY_KIND[kind])
    burning = replace(setup, work=deliver(replace(setup.work.material, name="MgAl9Zn1")))
    wet, dry = (replace(burning, settings=replace(burning.settings, coolant=way)) for way in ("flood", "dry"))
    [said] = fire_warnings(wet)
    assert (said.name, said.harm) == ("magnesium_wet", Harm.DANGER)
    assert said.said.startswith("Danger: Water")
    assert [one.name for one in fire_warnings(dry)] == ["magnesium_chips"]
    assert [one.name for one in fire_warnings(replace(setup, work=deliver(find_material("Ti-6Al-4V"))))] == ["titanium_chips"]
    assert not list(fire_warnings(setup))
    assert {"magnesium_wet"} == {one.name for one in evaluate_quickly(wet).warnings if one.harm is Harm.DANGER} - {
        "bar_behind",
        "no_clamp",
        "broken_tap",
    }


def test_the_safety_word_follows_the_harm_and_the_gravest_comes_first() -> None:
    """ISO 3864 and ANSI Z535: will kill or maim, could, could injure slightly; what only costs money has no such word."""
    core = Path(cutting.__file__).parent
    said = set(re.findall(r'(?:Warning|add)\(\s*"(\w+)"', "\n".join(file.read_text() for file in core.rglob("*.py"))))
    assert HARMS.keys() <= said, "a word for a warning that nobody gives"
    warnings = [
        Warning(name, name, severity)
        for name in ("gear_step", "pressure", "bar_behind", "heavy")
        for severity in ("note", "care", "blocks")
    ]
    ordered = sorted(warnings, key=lambda one: one.gravity)
    assert [one.severity for one in ordered[:4]] == ["blocks"] * 4
    assert [one.name for one in ordered[4::2]] == ["bar_behind", "pressure", "heavy", "gear_step"]
    assert Warning("gear_step", "Steps.", "note").said == "Note: Steps."

"""docs/hole-mistakes.md is held to the code: every mistake is caught by what the page says, and only when it is made."""

from __future__ import annotations

import re
from dataclasses import replace
from pathlib import Path
from typing import Any

import pytest

from cutting.operations.frame.outcome import Standing
from cutting.operations.registry import evaluate_quickly
from tests.core.holes import DEEP, HOLE, PANEL, STACK, hole
from tests.core.slots import alarms, form

PAGE = (Path(__file__).parents[2] / "docs" / "hole-mistakes.md").read_text(encoding="utf-8")
PLAIN: dict[str, Any] = {"feature": {"diameter": "8.5 mm"}}
UNIT: dict[str, Any] = {"machine": "feed-drilling unit", "tool": {"chuck": "keyless 13 of the unit"}, "settings": {"coolant": "dry"}}
LOOSE = {"tool": {"chuck": "keyless BT40 to 13"}}
# what catches it -> the sound set-up, and how the mistake is made of it
MADE: dict[str, tuple[dict[str, Any], dict[str, Any]]] = {
    "reach": (HOLE, {"feature": {"depth": "60 mm"}}),
    "book_speed": (HOLE, {"settings": {"cutting_speed": 200}}),
    "useful_speed": (HOLE, {"settings": {"cutting_speed": 12}}),
    "book_feed": (HOLE, {"settings": {"feed_per_rev": 0.5}}),
    "useful_feed": (HOLE, {"settings": {"feed_per_rev": 0.03}}),
    "minimum_chip": (HOLE, {"settings": {"feed_per_rev": 0.008}}),
    "corner_heat": (HOLE, {"settings": {"cutting_speed": 280}}),
    "push_out": (STACK, {"feature": {"stack": "EN AW-2024 6 / GFRP 4 ply 0.125"}}),
    "twist": (DEEP, {"tool": {"drill": "jobber 2 HSS bright", "chuck": "collet sleeve 25 to 13"}, "settings": {"feed_per_rev": 0.5},
                     "feature": {"diameter": "2 mm", "depth": "10 mm"}}),
    "chuck_grip": (HOLE, {**LOOSE, "settings": {"feed_per_rev": 0.23}}),
    "jaw_grip": (form(DEEP, holding={"grip_diameter": "60 mm"}), {"holding": {"grip_diameter": "60 mm", "grip_share": 0.1}}),
    "spindle_power": (HOLE, {"machine": "sliding-head lathe", "settings": {"coolant": "flood", "cutting_speed": 250, "feed_per_rev": 0.3}}),
    "machine_thrust": (HOLE, {"machine": "sliding-head lathe", "settings": {"coolant": "flood", "feed_per_rev": 0.23}}),
    "buckling": (HOLE, {"tool": {"drill": "gun 8 x 240 K30 fine PVD"}, "feature": {"diameter": "8 mm"}, "settings": {"feed_per_rev": 0.4}}),
    "floor_gives": (STACK, {"feature": {"span": "600 mm"}}),
    "packing": (DEEP, {"settings": {"pecks": "none"}}),
    "least_pressure": (form(HOLE, tool={"drill": "gun 8 x 240 K30 fine PVD"}, feature={"diameter": "8 mm"}),
                       {"settings": {"coolant": "flood"}}),
    "entry": (HOLE, {"feature": {"entry_angle": "12°"}}),
    "broken_exit": (HOLE, {"feature": {"cross_hole": "6 mm"}}),
    "tolerance": (HOLE, {"feature": {"diameter": "8.5 H7"}}),
    "finish": (HOLE, {"feature": {"roughness": "0.8 µm"}}),
    "position": (HOLE, {"feature": {"position": "0.02 mm"}}),
    "straightness": (HOLE, {"feature": {"straightness": "0.01 mm"}}),
    "burr": (HOLE, {"feature": {"burr": "0.05 mm"}}),
    "runout": (HOLE, LOOSE),
    "offset": (DEEP, {"settings": {"offset": "0.3 mm"}}),
    "deep_start": (DEEP, {"feature": {"depth": "120 mm"}}),
    "letters": (form(STACK, feature={"stack": "GFRP 4 / EN AW-2024 6"}), {"feature": {"stack": PANEL}}),
    "toughness": (HOLE, {"feature": {"cross_hole": "6 mm"}, "tool": {"drill": "diamond tipped 10 N05 PCD", "chuck": "shrink BT40 for 10"},
                         "material": "EN AC-48000"}),
    "count": (STACK, {"feature": {"asked_holes": 100_000}}),
    "life": (STACK, {**UNIT, "tool": {"drill": "stub 6.35 split HSS cobalt PVD", **UNIT["tool"]},
                     "settings": {"cutting_speed": 90, "coolant": "dry"}}),
    "seat": (HOLE, {"machine": "two-axis lathe", "settings": {"coolant": "flood"}}),
    "fibre_dust": (HOLE, {"feature": {"stack": "GFRP 4 / C45 3"}}),
    "titanium_chips": (HOLE, {"material": "Ti-6Al-4V"}),
    "pressure": (DEEP, {"machine": "mill-turn", "tool": {"drill": "carbide 12xD 10 K30 fine PVD"}, "settings": {"coolant": "high"}}),
    "whipping": (HOLE, {"tool": {"drill": "gun 8 x 240 K30 fine PVD"}}),
    "kick": (STACK, UNIT),
    "hardens": (DEEP, {"material": "X5CrNi18-10"}),
    "scour": (HOLE, {"feature": {"stack": "GFRP 4 / C45 3"}}),
    "swarf": (form(HOLE, feature={"depth": "12 mm"}), {"feature": {"depth": "30 mm"}}),
}  # fmt: skip


@pytest.mark.parametrize("name", sorted(MADE))
def test_a_mistake_in_a_hole_is_caught(name: str) -> None:
    base, made = MADE[name]
    assert name in alarms(evaluate_quickly(hole(base, **made)))
    assert name not in alarms(evaluate_quickly(hole(base)))


def test_a_pump_too_weak_for_the_coolant_holes() -> None:
    sound = hole(HOLE)
    weak = replace(sound, machine=replace(sound.machine, pump_flow=2.0))
    assert "through_flow" in alarms(evaluate_quickly(weak))
    assert "through_flow" not in alarms(evaluate_quickly(sound))


def test_diamond_in_iron_blocks() -> None:
    tool = {"tool": {"drill": "laminate carbide 6.35 K10 diamond", "chuck": "collet BT40 to 20"}}
    steel = hole(HOLE, **tool, feature={"diameter": "6.35 mm"})
    assert "diamond" in alarms(evaluate_quickly(steel))
    assert "diamond" not in alarms(evaluate_quickly(hole(HOLE, **tool, material="GFRP", feature={"diameter": "6.35 mm"})))


def test_the_page_of_holes_is_whole() -> None:
    said = set(re.findall(r"(?:limit|warning) `(\w+)`", PAGE))
    assert said == set(MADE) | {"through_flow", "diamond"}
    assert all(evaluate_quickly(hole(base)).standing is not Standing.OVER for base in (HOLE, DEEP, STACK))

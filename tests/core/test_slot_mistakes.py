"""docs/slot-mistakes.md is held to the code: every mistake is caught by what the page says, and only when it is made."""

from __future__ import annotations

import re
from dataclasses import replace
from pathlib import Path
from typing import Any

import pytest

from cutting.operations.frame.outcome import Standing
from cutting.operations.registry import evaluate_quickly
from tests.core.slots import CUT_OFF, FACE, GROOVE, RING, TREPAN, TWO_CARTRIDGES, alarms, build

PAGE = (Path(__file__).parents[2] / "docs" / "slot-mistakes.md").read_text(encoding="utf-8")
BASES = {"cut off": CUT_OFF, "groove": GROOVE, "face groove": FACE, "trepan": TREPAN}
NARROW = {"insert": "edge 2 light light positive M15 PVD", "blade": "screw holder 2 reach 12"}
LEAD = {"insert": "edge 2 lead 12 R light positive M15 PVD", "blade": "screw holder 2 reach 12"}
GRIPS = {"insert": "edge 5 middle middle positive P30 CVD", "blade": "self-clamping blade 5 reach 25"}
SLIM = {"diameter": "16 mm", "floor": "12", "width": "4.2 ±0.1", "distance_from_chuck": "190 mm", "corner_radius": "0.5"}
LONG = {"free_length": "220 mm", "grip_diameter": "16 mm"}
STEEL: dict[str, Any] = {"material": "C45", "tool": {"insert": "edge 4 turn middle positive P30 CVD", "blade": "screw holder 4 reach 18"}}
INSIDE = {"insert": "ring three 2.2 light positive M15 PVD", "blade": "inside bar 25 tri 16"}
# kind and what catches it -> how it is made
MADE: dict[tuple[str, str], dict[str, Any]] = {
    ("cut off", "bar_support"): {"feature": {"distance_from_chuck": "150 mm"}},
    ("cut off", "blade_overhang"): {"settings": {"overhang": "60 mm"}},
    ("cut off", "support_relief"): {"feature": {"diameter": "44 mm"}},
    ("cut off", "reach"): {"feature": {"diameter": "44 mm"}},
    ("cut off", "lean"): {"settings": {"lean": "0.5°"}},
    ("cut off", "flatness"): {"settings": {"lean": "0.5°"}},
    ("cut off", "centre_height"): {"settings": {"centre_height": "0.3 mm"}},
    ("cut off", "steep_lead"): {"tool": LEAD, "feature": {"diameter": "20 mm"}, "settings": {"feed_per_rev": 0.08}},
    ("cut off", "pip"): {"feature": {"pip": "0.3 mm"}},
    ("cut off", "full_feed"): {"settings": {"feed_zones": "full"}},
    ("cut off", "no_clamp"): {"settings": {"spindle_clamp": None}},
    ("cut off", "width"): {"tool": NARROW, "feature": {"diameter": "30 mm", "bore": "16 mm"}, "settings": {"feed_per_rev": 0.08}},
    ("cut off", "narrow"): {"tool": NARROW, "feature": {"diameter": "30 mm", "bore": "16 mm"}, "settings": {"feed_per_rev": 0.08}},
    ("cut off", "plunge_feed"): {"settings": {"feed_per_rev": 0.3}},
    ("cut off", "book_speed"): {"settings": {"cutting_speed": 420}},
    ("cut off", "part_falls"): {"holding": {"part_catcher": False}},
    ("cut off", "tailstock"): {"holding": {"tailstock": True}},
    ("cut off", "crowding"): {"settings": {"coolant": "flood"}},
    ("cut off", "chip_narrower"): {
        "tool": {"insert": "hand-ground edge 2.4 hand-ground HSS cobalt", "blade": "screw holder 2.4 reach 16"},
        "feature": {"diameter": "24 mm"}, "settings": {"cutting_speed": 30, "feed_per_rev": 0.04},
    },
    ("cut off", "finish"): {"feature": {"roughness": "0.8 µm"}},
    ("groove", "crowding"): {"feature": {"floor": "70", "width": "9"}, "settings": {"way": "side by side", "coolant": "flood"},
                             "tool": {"insert": "edge 3 turn middle positive K15 CVD", "blade": "screw holder 3 reach 12"}},
    ("groove", "finish"): {"feature": {"roughness": "0.8 µm"}},
    ("face groove", "crowding"): {"feature": {"depth": "30 mm"}, "settings": {"coolant": "flood"}},
    ("groove", "overhang"): {"settings": {"overhang": "60 mm"}},
    ("groove", "reach"): {"feature": {"floor": "70"}},
    ("groove", "relief"): {},
    ("groove", "plunge_feed"): {"settings": {"feed_per_rev": 0.4}},
    ("groove", "book_speed"): {"settings": {"cutting_speed": 300}},
    ("groove", "beside_slot"): {"tool": {"insert": "edge 6 turn middle positive K15 CVD", "blade": "screw holder 6 reach 22"}},
    ("groove", "width_fit"): {"settings": {"way": "one plunge"}},
    ("groove", "corner_radius"): {"feature": {"corner_radius": "0.2 mm"}},
    ("groove", "side_load"): {"material": "C45", "tool": GRIPS, "settings": {"side_depth": "3 mm", "feed_per_rev": 0.2}},
    ("groove", "layer_depth"): {"settings": {"side_depth": "3.4 mm"}},
    ("groove", "bends_sideways"): {**STEEL, "settings": {"side_depth": "3.4 mm", "feed_per_rev": 0.25, "overhang": "26 mm"}},
    ("groove", "chatter"): {**STEEL, "feature": SLIM, "holding": LONG, "settings": {"way": "side by side"}},
    ("groove", "part_bends"): {**STEEL, "feature": SLIM, "holding": LONG, "settings": {"way": "side by side"}},
    ("groove", "dwell"): {"settings": {"dwell": 5}},
    ("face groove", "reach_set"): {"settings": {"overhang": "40 mm"}},
    ("face groove", "reach"): {"feature": {"depth": "20 mm"}},
    ("face groove", "plunge_feed"): {"settings": {"feed_per_rev": 0.3}},
    ("face groove", "book_speed"): {"settings": {"cutting_speed": 140}},
    ("face groove", "corner_radius"): {"feature": {"corner_radius": "0.2 mm"}},
    ("face groove", "first_plunge"): {"feature": {"outer_diameter": "48"}},
    ("face groove", "inner_diameter"): {"feature": {"outer_diameter": "48"}},
    ("face groove", "rubs"): {"feature": {"outer_diameter": "48"}},
    ("face groove", "sense_of_spindle"): {"settings": {"spindle": "reverse"}},
    ("face groove", "hub"): {"feature": {"hub_diameter": "60 mm", "hub_height": "30 mm"}},
    ("face groove", "jaws"): {"feature": {"jaw_diameter": "80.4 mm", "jaw_height": "12 mm"}},
    ("trepan", "reach"): {"feature": {"depth": "60 mm"}},
    ("trepan", "plunge_feed"): {"settings": {"feed_per_tooth": 0.4}},
    ("trepan", "book_speed"): {"settings": {"cutting_speed": 900}},
    ("trepan", "head_range"): {"feature": {"diameter": "150 mm"}},
    ("trepan", "second_range"): {**TWO_CARTRIDGES, "feature": {"keeps": "the hole", "inner_ring": "78 mm"}},
    ("trepan", "slug"): {"feature": {"web": None}},
    ("trepan", "spindle_power"): {**TWO_CARTRIDGES, "settings": {"cartridges": "two on one radius"}},
    ("trepan", "bends_sideways"): {"material": "C45", "tool": {**TREPAN["tool"], "insert": "edge 6 single middle positive P30 CVD"},
                                   "settings": {"cutting_speed": 90, "feed_per_tooth": 0.2, "overhang": "50 mm"}},
}  # fmt: skip
ALWAYS = {("groove", "relief")}  # the base itself is larger than the relief; a smaller bar is not


@pytest.mark.parametrize(("kind", "name"), sorted(MADE))
def test_a_mistake_in_a_slot_is_caught(kind: str, name: str) -> None:
    assert name in alarms(evaluate_quickly(build(BASES[kind], **MADE[kind, name])))
    if (kind, name) not in ALWAYS:
        assert name not in alarms(evaluate_quickly(build(BASES[kind])))


def test_a_bar_too_thick_for_its_bore() -> None:
    tool = {**INSIDE, "insert": "ring three 1.35 light positive M15 PVD"}
    inside = build(RING, tool=tool, feature={"where": "inside", "standard": "DIN 472", "diameter": "30 mm"}, holding={"bore": "30 mm"})
    assert "least_bore" in alarms(evaluate_quickly(inside))


def test_a_head_too_heavy_for_the_changer() -> None:
    base = build(TREPAN)
    weak = replace(base, machine=replace(base.machine, changer_mass=3.0))
    assert "changer_mass" in alarms(evaluate_quickly(weak))
    assert "changer_mass" not in alarms(evaluate_quickly(base))


def test_a_bar_within_the_relief_is_not_warned_of() -> None:
    small = build(RING, feature={"diameter": "35 mm"})
    assert "relief" not in alarms(evaluate_quickly(small))


def test_the_page_of_slots_is_whole() -> None:
    said = set()
    for row in re.findall(r"^\| [^|]+ \| ([^|]+) \|$", PAGE, re.M):
        for part in row.split(";"):
            kind, _, names = part.partition(":")
            said |= {(kind.strip(), name) for name in re.findall(r"(?:limit|warning) `(\w+)`", names)}
    proved = set(MADE) | {("groove", "least_bore"), ("trepan", "changer_mass")}
    assert said == proved
    assert all(evaluate_quickly(build(base)).standing is not Standing.OVER for base in BASES.values())

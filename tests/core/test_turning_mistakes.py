"""docs/turning-mistakes.md is held to the code: every mistake is caught by what the page says, and only when it is made."""

from __future__ import annotations

import re
from collections.abc import Callable
from dataclasses import replace
from pathlib import Path
from typing import Any

import pytest

from cutting.doors.json_form import read_setup
from cutting.operations.registry import evaluate_quickly
from cutting.operations.turned import cautions, fit
from cutting.operations.turned import limits as rules
from cutting.operations.turned.setup import Setup

Build = Callable[..., Setup]
ROOT = Path(__file__).parents[2]
PAGE = (ROOT / "docs" / "turning-mistakes.md").read_text(encoding="utf-8")
CAUGHT = re.findall(r"(limit|warning|fit|study) `([^`]+)`", PAGE)

SLENDER = {"style": "chuck", "free_length": 268, "grip_diameter": 64}
COUPLING = {"start_diameter": 35.4, "end_diameter": "35 k6", "length": 126, "distance_from_chuck": 140}
LIGHT = {"insert": "TNMG 160404 light P10", "holder": "MTJNR 2525 M16"}
HARD = {
    "material": "100Cr6 hardened 60 HRC",
    "tool": {"insert": "CNGA 120408 bare H10", "holder": "PCLNR 2525 M12"},
    "feature": {"start_diameter": 57, "end_diameter": 56.6, "length": 60},
    "settings": {"cutting_speed": 120, "feed_per_rev": 0.1, "depth_of_cut": 0.2, "coolant": "jet"},
}
FACE = {
    "operation": "face",
    "feature": {"start_diameter": 57, "end_diameter": 0, "length": 1},
    "settings": {"depth_of_cut": 1},
    "holding": {"style": "chuck", "free_length": 60},
}
# what catches it -> how it is made
MADE: dict[str, dict[str, Any]] = {
    "thin_chip": {"settings": {"feed_per_rev": 0.012, "depth_of_cut": 0.4}},
    "rubbing_feed": {"feature": {"roughness": 3.2}, "settings": {"feed_per_rev": 0.04}},
    "chip_window": {"settings": {"feed_per_rev": 0.06}},
    "useful_speed": {"settings": {"cutting_speed": 30}},
    "speed_not_reached": {"settings": {"spindle_clamp": 400}},
    "fine_cut": {"settings": {"spindle_clamp": 300}},
    "weld_touch_off": {"skin": "weld"},
    "inside_skin": {"skin": "forged", "settings": {"depth_of_cut": 0.8}},
    "part_bends": {"holding": SLENDER, "feature": COUPLING, "tool": LIGHT, "settings": {"depth_of_cut": 0.2, "feed_per_rev": 0.09}},
    "chatter": {"holding": SLENDER, "feature": COUPLING, "tool": LIGHT, "settings": {"depth_of_cut": 0.2, "feed_per_rev": 0.09}},
    "slender": {"holding": SLENDER},
    "shallow_nose": {"feature": {"start_diameter": 57, "end_diameter": 56.4, "length": 100}},
    "tool_bends": {"settings": {"overhang": 160}},
    "no_clamp": FACE,
    "jaw_grip": {"holding": {"grip_share": 0.05}},
    "jaws_at_speed": {"feature": {"start_diameter": 20, "end_diameter": 16, "length": 30}, "settings": {"cutting_speed": 180}},
    "light_grip": {"holding": {"grip_share": 0.4}},
    "long_chips": {"settings": {"feed_per_rev": 0.05}},
    "thermal_shock": HARD,
    "coolant_forbidden": HARD,
    "book_speed": {"settings": {"cutting_speed": 320}},
    "edge_heat": {"settings": {"cutting_speed": 420}},
    "clearance": {"settings": {"centre_height": "2.5 mm"}},
    "off_centre": {"house": {"off_centre": 0.01}},
    "pip": {**FACE, "settings": {"centre_height": "0.1 mm", "depth_of_cut": 1}},
    "blank_above_contour": {"feature": {"profile": "20:40; 100:49; 220:49"}, "holding": {"steps": [[0, 57]]}},
    "pulls_off_centre": {"settings": {"direction": "away from the chuck"}},
    "pulls_out": {"settings": {"direction": "away from the chuck"}},
    "light_last_cut": {"feature": {"start_diameter": 57, "end_diameter": "49 h8", "length": 150}, "settings": {"last_depth": 0.2}},
}  # fmt: skip


def alarms(setup: Setup) -> set[str]:
    outcome = evaluate_quickly(setup)
    return {limit.name for limit in outcome.limits if limit.broken} | {warning.name for warning in outcome.warnings}


@pytest.mark.parametrize("name", sorted(MADE))
def test_a_mistake_is_caught(setup: Build, form: Callable[..., dict[str, Any]], name: str) -> None:
    made = form()
    for key, value in MADE[name].items():
        made[key] = {**made.get(key, {}), **value} if isinstance(value, dict) and key not in ("holding", "tool") else value
    if "holding" in MADE[name]:
        made["holding"] = {**form()["holding"], **MADE[name]["holding"]}
    elif "feature" in MADE[name] and "profile" not in MADE[name]["feature"]:
        made.pop("holding")
    assert name in alarms(read_setup(made))
    assert name not in alarms(setup())


def test_a_worn_spindle_forbids_brittle_edges(setup: Build) -> None:
    worn = setup(tool={"insert": "CNGA 120408 bare H10", "holder": "PCLNR 2525 M12"}, material="100Cr6 hardened 60 HRC")
    worn = replace(worn, machine=replace(worn.machine, condition="worn"))
    assert {"worn_machine", "fit_condition"} <= alarms(worn)


def test_water_on_magnesium_is_forbidden(setup: Build) -> None:
    base = setup()
    magnesium = replace(base.work, material=replace(base.work.material, name="Magnesium AZ91"))
    assert "magnesium_wet" in alarms(replace(base, work=magnesium))
    dry = replace(base, work=magnesium).with_settings(coolant="dry")
    assert "magnesium_wet" not in alarms(dry)


def test_the_page_names_what_there_is() -> None:
    limits = {rule.name for rule in rules.RULES}
    fits = {rule.name for rule in fit.RULES} | {"condition", "geometry", "grade"}
    said = Path(cautions.__file__).read_text(encoding="utf-8")
    for kind, name in CAUGHT:
        known = {"limit": name in limits, "fit": name in fits, "warning": f'"{name}"' in said, "study": True}[kind]
        assert known, f"{kind} {name}"
    tests = "\n".join(path.read_text(encoding="utf-8") for path in (ROOT / "tests").rglob("test_*.py"))
    for name in set(re.findall(r"\| (test_\w+) \|", PAGE)):
        assert f"def {name}(" in tests, name
    unproved = {name for kind, name in CAUGHT if kind in ("limit", "warning")} - set(MADE) - {"worn_machine"}
    assert not unproved

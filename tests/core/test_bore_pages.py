"""The page of mistakes in reamed and milled holes and with heavy tools: every row is made, and caught."""

from __future__ import annotations

import re
from pathlib import Path
from typing import Any

import pytest

from cutting.operations.registry import evaluate
from tests.core.heavy import heavy
from tests.core.holes import hole
from tests.core.mills import milled
from tests.core.test_settling import REAM

PAGE = (Path(__file__).parents[2] / "docs" / "boring-mistakes.md").read_text(encoding="utf-8")
REAMED: dict[str, dict[str, Any]] = {
    "allowance": {"feature": {"pilot": "9.3 mm"}},
    "no_pilot": {"feature": {"pilot": None}},
    "reamed": {},
    "tolerance": {"feature": {"diameter": "10 H6"}},
}
LONG: dict[str, Any] = {"tool": {"mill": "mill 12 long neck K30 fine PVD"}, "feature": {"diameter": "20 H8", "depth": "55 mm"}}
MILLED: dict[str, dict[str, Any]] = {
    "ramp": {"settings": {"pitch": "2.6 mm"}},
    "pitch": {"tool": {"mill": "mill 16 gashed K30 fine PVD"}, "settings": {"pitch": "4.2 mm"}},
    "room": {"feature": {"diameter": "18 mm"}},
    "core": {"feature": {"diameter": "34 mm"}},
    "plunge": {"feature": {"diameter": "16 mm", "depth": "12 mm"}, "settings": {"path": "plunge", "pitch": None}},
    "setting": {**LONG, "settings": {"pitch": "1.4 mm", "feed_per_tooth": "0.09 mm/z"}},
    "taper": {**LONG, "feature": {"diameter": "20 H6", "depth": "14 mm"}, "settings": {"pitch": "0.6 mm", "finish": "0.9 mm"}},
    "tolerance_milled": {"feature": {"diameter": "24 H6"}, "tool": {"mill": "mill 16 long neck K30 fine PVD"}},
    "chips": {**LONG, "feature": {"diameter": "20 mm", "depth": "58 mm"}},
    "minimum_chip": {"settings": {"feed_per_tooth": "0.005 mm/z"}},
    "sense": {"settings": {"sense": "against the feed"}},
    "diamond": {"tool": {"mill": "mill 10 diamond K10 diamond"}, "feature": {"diameter": "15 mm"}},
}
HEAVY: dict[str, tuple[str, dict[str, Any]]] = {
    "changer_mass": ("cup-tool-solid", {}),
    "changer_moment": ("cup-tool-solid", {}),
    "changer_diameter": ("cup-tool", {"steps": {0: {"diameter": "260 mm"}},
                                      "feature": {"bores": "260 H6 x 14 / 120 H7 x 25 / 62 H6 x 24 at 69"}}),
    "reaches": ("cup-tool", {"steps": {1: {"at": "242 mm"}}}),
    "book_feed": ("cup-tool", {"settings": {"feed_per_rev": "0.6 mm/rev"}}),
    "finish": ("cup-tool", {"feature": {"roughness": "0.4"}, "settings": {"feed_per_rev": "0.4 mm/rev"}}),
    "spindle_torque": ("cup-tool", {"material": "42CrMo4", "steps": {0: {"allowance": "24 mm"}},
                                    "settings": {"feed_per_rev": "0.5 mm/rev", "cutting_speed": "60 m/min"}}),
    "unbalance": ("cup-tool", {"tool": {"eccentricity": "200"}}),
    "resonance": ("cup-tool", {"settings": {"cutting_speed": "3000 m/min"}, "steps": {0: {"inserts": 6}}}),
    "cylindricity": ("cup-tool", {"material": "42CrMo4", "steps": {2: {"inserts": 1, "pads": 0, "allowance": "6 mm"}}}),
    "coaxiality": ("cup-tool", {"feature": {"coaxiality": "0.005 mm"}}),
    "warmth": ("cup-tool", {"settings": {"temperature_known": "4"}}),
    "flow": ("cup-tool", {"steps": {2: {"outlets": 0}}}),
    "interface": ("cup-tool", {"tool": {"holder": "HSK-A63 flange"}, "segments": {2: {"start": "193 mm"}}}),
}  # fmt: skip


def alarms(outcome: Any) -> set[str]:
    return {one.name for one in outcome.limits if one.broken} | {one.name for one in outcome.warnings}


@pytest.mark.parametrize("name", sorted(REAMED))
def test_a_mistake_with_a_reamer_is_caught(name: str) -> None:
    assert name in alarms(evaluate(hole(REAM, **REAMED[name])))
    assert name == "reamed" or name not in alarms(evaluate(hole(REAM)))


@pytest.mark.parametrize("name", sorted(MILLED))
def test_a_mistake_in_a_milled_hole_is_caught(name: str) -> None:
    limit = name.removesuffix("_milled")
    assert limit in alarms(evaluate(milled(**MILLED[name])))
    assert limit not in alarms(evaluate(milled()))


@pytest.mark.parametrize("name", sorted(HEAVY))
def test_a_mistake_with_a_heavy_tool_is_caught(name: str) -> None:
    base, made = HEAVY[name]
    assert name in alarms(evaluate(heavy(base, **made)))
    assert name not in alarms(evaluate(heavy()))


def test_a_point_leaves_its_cone() -> None:
    sections = {"diameter": "8.5 mm", "depth": "20 mm", "through": False}
    assert "flat_floor" in alarms(evaluate(hole(feature={**sections, "flat": True})))
    assert "flat_floor" not in alarms(evaluate(hole(feature=sections)))


def test_the_page_is_whole() -> None:
    after = PAGE.split("## Reamed holes")[1]
    assert set(re.findall(r"(?:limit|warning) `(\w+)`", after)) == {*REAMED, *MILLED, *HEAVY, "flat_floor"}

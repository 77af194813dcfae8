"""docs/thread-mistakes.md is held to the code: every mistake is caught by what the page says, and only when it is made."""

from __future__ import annotations

import re
from pathlib import Path
from typing import Any

import pytest

from cutting.errors import CuttingError
from tests.core.thread_setups import MILL, SOLID, SPINDLE, TAP, TURN, outcome_of, setup_of

PAGE = (Path(__file__).parents[2] / "docs" / "thread-mistakes.md").read_text(encoding="utf-8")
BAR: dict[str, Any] = {
    "tool": {"insert": "16 IR 1.5 ISO light positive M15 PVD", "holder": "S16 thread bar 9.525"},
    "feature": {"thread": "M24x1.5-6H", "side": "inside", "there": "22.4 mm"},
}
Made = tuple[dict[str, Any], dict[str, Any]]
MADE: dict[str, Made] = {
    "core_hole": (TAP, {"feature": {"there": "8.8 mm"}}),
    "core_hole_small": (TAP, {"feature": {"there": "8.2 mm"}}),
    "depth": (TAP, {"feature": {"hole": "18 mm"}}),
    "chips_down": (TAP, {"tool": {"tap": "tap M10 spiral point HSS cobalt PVD"}}),
    "chips": (TAP, {"feature": {"length": "27 mm", "hole": "40 mm"}}),
    "long_chips": (TAP, {"tool": {"tap": "tap M10 straight carbide K30 fine PVD"}}),
    "margin": (TAP, {"material": "34CrNiMo6"}),
    "hardness": (TAP, {"material": "34CrNiMo6", "hardness": "340 HB"}),
    "forming": (TAP, {"material": "EN-GJL-250", "tool": {"tap": "form tap M10 HSS cobalt PVD"}, "feature": {"there": "9.35 mm"}}),
    "clutch": (TAP, {"settings": {"clutch": "5 N·m"}}),
    "clutch_saves": (TAP, {"settings": {"clutch": "60 N·m"}}),
    "book_speed": (TAP, {"settings": {"cutting_speed": "40 m/min"}}),
    "no_hole": (TAP, {"feature": {"there": None}}),
    "class": (TAP, {"feature": {"thread": "M10-6G"}}),
    "synchronised": (TAP, {"machine": "geared lathe", "tool": {"chuck": "sleeve 25 for 6 to 20"}}),
    "hand": (MILL, {"settings": {"along": "down, into the hole"}}),
    "sense": (MILL, {"settings": {"sense": "clockwise"}}),
    "left_cutting": (SOLID, {}),
    "widest": (MILL, {"feature": {"there": None}, "tool": {"mill": "drill thread mill M10 K20 fine plain"}}),
    "setting": (MILL, {"settings": {"offset": "0 mm"}}),
    "taper": (MILL, {"material": "NiCr19Fe19Nb5Mo3 aged",
                     "feature": {"thread": "M20-4H", "length": "30 mm", "hole": "40 mm", "there": "17.5 mm"},
                     "tool": {"mill": "thread mill 15.4 P2.5 K30 fine PVD"}, "settings": {"feed_per_tooth": "0.14 mm/z"}}),
    "reach": (MILL, {"feature": {"length": "21 mm", "hole": "30 mm"}}),
    "depth_milled": (MILL, {"feature": {"hole": "15.5 mm"}}),
    "hardness_milled": (SOLID, {"tool": {"mill": "thread mill 4.6 P1 K30 fine PVD"}, "feature": {"there": "7 mm"}}),
    "deepest": (SOLID, {"feature": {"length": "22 mm", "hole": "28 mm"}}),
    "chill": (SOLID, {"settings": {"coolant": "flood"}}),
    "arc": (MILL, {"settings": {"arc": "60 deg"}}),
    "hand_turned": (TURN, {"settings": {"feeding": "away from the chuck"}}),
    "face": (TURN, {"settings": {"turning": "reverse, clockwise"}}),
    "leading": (SPINDLE, {"settings": {"tilt": "-1.5 deg"}}),
    "trailing": (SPINDLE, {"settings": {"tilt": "8 deg"}}),
    "blank": (TURN, {"feature": {"there": "26 mm"}}),
    "blank_small": (TURN, {"feature": {"there": "23.5 mm"}}),
    "tip_load": (TURN, {"material": "42CrMo4", "settings": {"passes": "2"}}),
    "last_step": (TURN, {"settings": {"passes": "24"}}),
    "depth_share": (TURN, {"settings": {"infeeds": "0.3; 0.2; 0.2"}}),
    "run_out": (TURN, {"feature": {"relief": "1.5 mm"}}),
    "half_nut": (SPINDLE, {"settings": {"cutting_speed": "24 m/min"}}),
    "feed_drive": (SPINDLE, {"settings": {"cutting_speed": "12 m/min"}}),
    "enters": (TURN, {**BAR, "feature": {**BAR["feature"], "thread": "M20x1.5-6H", "there": "18.4 mm"}}),
    "bends": (TURN, {**BAR, "settings": {"overhang": "110 mm", "spring": "0"}}),
    "spring": (TURN, {"material": "X5CrNi18-10"}),
    "hard_edge": (TURN, {"material": "100Cr6 hardened 60 HRC"}),
}  # fmt: skip
REFUSED: dict[str, dict[str, Any]] = {
    "feature.thread": {"feature": {"thread": "M10x9"}},
    "feature.side": {"feature": {"thread": "M10-6g", "side": "inside"}},
    "feature.hole": {"feature": {"hole": "12 mm"}},
}


def _alarms(base: dict[str, Any], **sections: Any) -> set[str]:
    outcome = outcome_of(base, **sections)
    return {one.name for one in outcome.limits if one.broken} | {one.name for one in outcome.warnings}


@pytest.mark.parametrize("name", sorted(MADE))
def test_a_mistake_is_caught_when_it_is_made(name: str) -> None:
    base, sections = MADE[name]
    alarm = re.sub(r"_(small|milled|turned)$", "", name)
    if name == "hard_edge":  # no carbide is turned there at all: it is refused before it is warned of
        with pytest.raises(CuttingError, match="not run"):
            _alarms(base, **sections)
        return
    assert alarm in _alarms(base, **sections)
    if sections:
        assert alarm not in _alarms(base)


@pytest.mark.parametrize("field", sorted(REFUSED))
def test_what_is_refused_names_its_field(field: str) -> None:
    with pytest.raises(CuttingError) as refused:
        setup_of(TAP, **REFUSED[field])
    assert refused.value.field == field


def test_the_page_lists_what_is_made_here_and_nothing_else() -> None:
    assert set(re.findall(r"(?:limit|warning) `(\w+)`", PAGE)) == set(MADE)
    assert set(re.findall(r"refused `([\w.]+)`", PAGE)) == set(REFUSED)

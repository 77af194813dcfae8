"""Sound set-ups of threads in their JSON form, to vary in tests."""

from __future__ import annotations

from typing import Any

from cutting.advice.candidate import Advice, Candidate
from cutting.advice.contests import advise
from cutting.doors.json_form import read_request, read_setup
from cutting.operations.frame.outcome import Outcome
from cutting.operations.registry import evaluate_quickly
from tests.core.slots import form

TAP: dict[str, Any] = {
    "operation": "tap",
    "material": "C45",
    "machine": "machining centre",
    "tool": {"tap": "tap M10 spiral flute HSS cobalt PVD", "chuck": "collet BT40 to 20"},
    "feature": {"thread": "M10-6H", "length": "15 mm", "hole": "22 mm", "there": "8.5 mm"},
    "settings": {"cutting_speed": "12 m/min"},
}
MILL: dict[str, Any] = {
    "operation": "mill thread",
    "material": "C45",
    "machine": "machining centre",
    "tool": {"mill": "thread mill 7.7 P1.5 K30 fine PVD", "chuck": "collet BT40 to 20"},
    "feature": {"thread": "M10-6H", "length": "15 mm", "hole": "22 mm", "there": "8.5 mm"},
    "settings": {"cutting_speed": "100 m/min", "feed_per_tooth": "0.05 mm/z"},
}
SOLID: dict[str, Any] = {
    **MILL,
    "material": "16MnCr5 case-hardened 60 HRC",
    "tool": {"mill": "helical thread mill 5.1 P1 K30 fine PVD", "chuck": "shrink BT40 for 6"},
    "feature": {"thread": "M8x1-6H", "length": "10 mm", "hole": "14 mm"},
    "settings": {"cutting_speed": "40 m/min", "feed_per_tooth": "0.012 mm/z", "coolant": "dry"},
}
TURN: dict[str, Any] = {
    "operation": "turn thread",
    "material": "C45",
    "machine": "two-axis lathe",
    "tool": {"insert": "16 ER 1.5 ISO light positive M15 PVD", "holder": "thread holder 25 9.525 R"},
    "feature": {"thread": "M24x1.5-6g", "side": "outside", "length": "30 mm", "relief": "6 mm"},
    "settings": {"cutting_speed": "120 m/min"},
}
SPINDLE: dict[str, Any] = {
    **TURN,
    "machine": "geared lathe",
    "tool": {"insert": "22 ER 4.0 TR light positive P25 PVD", "holder": "thread holder 25 12.7 R"},
    "feature": {"thread": "Tr 20x4-7e", "side": "outside", "length": "60 mm", "relief": "8 mm"},
    "settings": {"cutting_speed": "8 m/min"},
    "holding": {"free_length": "90 mm"},
}


def setup_of(base: dict[str, Any], **sections: Any) -> Any:
    """A set-up with some entries otherwise; None takes one away."""
    return read_setup(form(base, **sections))


def outcome_of(base: dict[str, Any], **sections: Any) -> Outcome:
    return evaluate_quickly(setup_of(base, **sections))


def value(name: str, base: dict[str, Any], **sections: Any) -> float:
    """One result."""
    return outcome_of(base, **sections).results[name].value


def limit(name: str, base: dict[str, Any], **sections: Any) -> float:
    """How much of a limit is used."""
    return next(one.utilisation for one in outcome_of(base, **sections).limits if one.name == name)


def warned(base: dict[str, Any], **sections: Any) -> dict[str, str]:
    """Warnings by name with their severity."""
    return {one.name: one.severity for one in outcome_of(base, **sections).warnings}


def ranked(base: dict[str, Any], **sections: Any) -> Advice:
    """The ranking of a thread; its own tool and settings do not matter."""
    data = {name: value for name, value in form(base, **sections).items() if name not in ("tool", "settings")}
    return advise(*read_request(data))


def rows_of(advice: Advice, word: str) -> list[Candidate]:
    """Rows whose way or tool has a word."""
    return [row for row in advice.candidates if word in f"{row.way} {row.edge} {row.more[0].metric}"]

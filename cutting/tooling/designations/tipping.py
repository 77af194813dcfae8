"""Positions 8 and on of ISO 1832: edge, hand, chamfer and tips of PCD and CBN inserts. What is not there stays as typed."""

from __future__ import annotations

import re
from dataclasses import dataclass

from cutting.tooling.designations.letters import EDGE_CONDITIONS, HANDS, TIPPINGS
from cutting.tooling.designations.parts import Part


@dataclass(frozen=True)
class Suffix:
    """What follows the corner; `tips` is the number of tipped corners, None where nothing is said; `rest` as typed."""

    edge_condition: str = ""
    hand: str = ""
    chamfer_width: float | None = None  # mm
    chamfer_angle: float | None = None  # degrees
    tips: int | None = None
    rest: str = ""
    parts: tuple[Part, ...] = ()


_CHAMFER = re.compile(r"^([FETSKP])?([RLN])?(\d{3})(\d{2})(?:[\s\-]*([A-Z])(?:\b|(?=\d)))?(.*)$")
_PLAIN = re.compile(r"^([FETSKP])([RLN])?(?:[\s\-]+([A-Z]))?$")


def read_suffix(text: str) -> Suffix:
    """Read what follows position 7, such as `T01020 B`, `EN`, `S01525-L1`; unknown text is kept, never guessed.

    >>> read_suffix("T01020 B").chamfer_width
    0.1
    """
    text = text.strip(" -_")
    if not text:
        return Suffix()
    found = _CHAMFER.match(text)
    if found:
        edge, hand, width, angle, tip, rest = found.groups()
        return _suffix(edge or "", hand or "", (int(width) / 100, float(angle), width + angle), tip or "", rest.strip(" -"))
    plain = _PLAIN.match(text)
    if plain:
        return _suffix(plain[1], plain[2] or "", None, plain[3] or "", "")
    return Suffix(rest=text, parts=(Part("13", text, "maker's own suffix", "kept as typed"),))


def _suffix(edge: str, hand: str, chamfer: tuple[float, float, str] | None, tip: str, rest: str) -> Suffix:
    parts = []
    if edge:
        parts.append(Part("8", edge, "edge condition", EDGE_CONDITIONS[edge]))
    if hand:
        parts.append(Part("9", hand, "cutting direction", HANDS[hand]))
    if chamfer:
        parts.append(Part("10", chamfer[2], "chamfer", f"{chamfer[0]:g} mm wide at {chamfer[1]:g}°"))
    tips = None
    if tip and tip in TIPPINGS:
        count, meaning = TIPPINGS[tip]
        tips = count or None
        parts.append(Part("11", tip, "tips", meaning))
    elif tip:
        rest = f"{tip}{rest}"
    if rest:
        parts.append(Part("13", rest, "maker's own suffix", "kept as typed"))
    return Suffix(edge, hand, chamfer[0] if chamfer else None, chamfer[1] if chamfer else None, tips, rest, tuple(parts))

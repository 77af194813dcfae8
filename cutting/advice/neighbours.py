"""The neighbours of an insert: the same edge in the next tougher and the next harder grade, and the grades for other metals."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Any

LETTERS = "PMKNSH"  # of ISO 513, in its order


def neighbours(grade: Any, others: Iterable[tuple[str, Any]]) -> tuple[tuple[str, str], ...]:
    """What each neighbour is to a grade, in words, and its name; `others` are names with grades of the same edge and geometry.

    Tougher and harder by the grades' toughness, among those for the same main letter of ISO 513; one for each other letter, that which is
    nearest in toughness.
    """
    rest = [(name, one) for name, one in others if one.name != grade.name]
    own = [(name, one) for name, one in rest if one.main_letter == grade.main_letter and one.toughness != grade.toughness]
    found: list[tuple[str, str]] = []
    tougher = [pair for pair in own if pair[1].toughness > grade.toughness]
    harder = [pair for pair in own if pair[1].toughness < grade.toughness]
    if tougher:
        found.append(("tougher", min(tougher, key=lambda pair: pair[1].toughness)[0]))
    if harder:
        found.append(("harder", max(harder, key=lambda pair: pair[1].toughness)[0]))
    for letter in LETTERS:
        there = [pair for pair in rest if pair[1].main_letter == letter != grade.main_letter]
        if there:
            found.append((f"for {letter}", min(there, key=lambda pair: abs(pair[1].toughness - grade.toughness))[0]))
    return tuple(found)

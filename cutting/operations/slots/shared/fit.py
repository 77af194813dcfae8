"""Exact rules that every narrow tool must satisfy before it is run: metal, grade, machine."""

from __future__ import annotations

from collections.abc import Callable

from cutting.machine.machines import Machine
from cutting.tooling.blades import GrooveBlade, GrooveInsert
from cutting.wear.reference import life_law
from cutting.workpiece.materials import Work

FitRule = tuple[str, str, Callable[[GrooveInsert, GrooveBlade], bool]]


def usual_rules(work: Work, machine: Machine) -> tuple[FitRule, ...]:
    """Grade and geometry for the metal's ISO 513 letter, a known starting speed, and a shank that the machine seats."""
    letter = work.material.group.letter
    seat = machine.shank_height * 1.3 + 8.0  # a blade block seats taller blades than a shank (common practice)
    return (
        ("grade", f"grade is not for group {letter}", lambda i, b: letter in i.grade.letters),
        ("geometry", f"geometry is not for group {letter}", lambda i, b: letter in i.geometry.suits),
        (
            "condition",
            "brittle edges in a worn spindle",
            lambda i, b: machine.condition != "worn" or i.grade.tool_class in ("hss", "carbide"),
        ),
        (
            "starting_speed",
            "no starting speed for this tool material in this group",
            lambda i, b: life_law(work.material.speed_row, i.grade.tool_class) is not None,
        ),
        ("seat", "too tall for the machine's turret or tool post", lambda i, b: machine.shank_height <= 0 or b.height <= seat),
    )

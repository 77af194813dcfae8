"""Parts that nobody drew: shafts, bushes and flanges from a seed, planned with the best tools for a machine and a goal."""

from __future__ import annotations

import random
from dataclasses import dataclass

from cutting.doors.json_form import SHIPPED
from cutting.operations.frame.setup import Batch, Goal
from cutting.plan.choose import chosen
from cutting.plan.plan import Plan, Step
from cutting.plan.read import read_entries
from cutting.process.shaft_line import read_shaft_line
from cutting.tooling.bought import shipped
from cutting.tooling.drills import DRILL_KINDS
from cutting.workpiece.solid import Blank

METALS = ("C45", "42CrMo4", "11SMn30", "X5CrNi18-10", "EN-GJS-500-7", "EN AW-6082 T6", "34CrNiMo6", "CuSn12-C")
LATHES = ("two-axis lathe", "mill-turn")
SEATS = ("h9", "h7", "h6", "f7")
TAPPED = ("M6", "M8", "M10", "M12")


@dataclass(frozen=True)
class Part:
    """A part in one line, the bar it is made of [mm], and what it is made for."""

    line: str
    blank: Blank
    metal: str
    machine: str
    goal: Goal
    pieces: int
    steps: tuple[tuple[float, float], ...]  # Ø and length [mm] of its outside, the free end last


def part_of(seed: int) -> Part:
    """The part of a seed: three quarters are shafts, the rest bushes."""
    chance = random.Random(seed)
    large = chance.choice((25, 32, 40, 50, 60))
    steps, sizes, size = list[str](), list[tuple[float, float]](), float(large)
    for k in range(chance.randint(2, 3)):
        size -= chance.choice((2, 4, 6)) if k else chance.choice((1, 2))
        long = chance.choice((15, 20, 30))
        fit = f" {chance.choice(SEATS)}" if chance.random() < 0.4 else ""
        finish = f" Ra {chance.choice((1.6, 3.2))}" if fit or chance.random() < 0.3 else ""
        steps.append(f"Ø{size:g}{fit} x {long}{finish}")
        sizes.append((size, float(long)))
    more = list[str]()
    if chance.random() < 0.35:
        more.append(f"tapped {chance.choice(TAPPED)} x {chance.choice((12, 16, 20))}")
    elif chance.random() < 0.4:
        bore = chance.choice((10, 12, 14)) if large < 40 else chance.choice((16, 20, 24))
        more.append(
            f"bore Ø{bore} H{chance.choice((7, 8))} x {chance.choice((15, 25))}" if chance.random() < 0.5 else f"drill Ø{bore} x 25"
        )
    if chance.random() < 0.4:
        more.append("cut off")
    out = 30.0 + sum(length for _, length in sizes)
    return Part(", ".join([*steps, *more]), Blank(float(large), out), chance.choice(METALS), chance.choice(LATHES),
                chance.choice(list(Goal)), chance.choice((20, 50, 200)), tuple(sizes))  # fmt: skip


def drills() -> list[tuple[float, float]]:
    """Ø and reach of the shipped drills that open solid metal."""
    every = (one for kind in DRILL_KINDS for one in shipped(kind))
    return [(one.diameter, one.reach) for one in every if not (one.type.enlarges or one.type.spots)]


def asked(part: Part) -> Plan:
    """The plan of a part without tools."""
    cuts = read_shaft_line(part.line, part.blank.diameter, part.blank.free_length, "metric", 0.0, drills())
    steps = tuple(
        Step(f"op{10 * k}", one.kind, told=read_entries(one.kind, "feature", one.feature),
             spindle="driven" if one.kind in ("mill hole", "mill thread") else "")
        for k, one in enumerate(cuts, start=1)
    )  # fmt: skip
    return Plan(part.blank, part.metal, part.machine, steps, goal=part.goal, batch=Batch(part.pieces))


def planned(part: Part) -> Plan:
    """The plan with the best tool for every step."""
    return chosen(asked(part), SHIPPED)

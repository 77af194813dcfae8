"""Parts that nobody drew: shafts, bushes and flanges from a seed, planned with the best tools for a machine and a goal."""

from __future__ import annotations

import random
from dataclasses import dataclass, replace

from cutting.doors.json_form import SHIPPED
from cutting.operations.frame.setup import Batch, Goal
from cutting.plan.chosen import chosen
from cutting.plan.plan import Clamping, Plan, Step
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
    circles: tuple[tuple[str, dict[str, str]], ...] = ()  # kinds of operation with features on circles in its face
    other: tuple[tuple[float, float], ...] = ()  # Ø and length [mm] of its other end, the free face first
    floors: tuple[tuple[float, float], ...] = ()  # Ø of a groove's floor and its distance [mm] from the free end


def part_of(seed: int) -> Part:
    """The part of a seed: half are plain shafts and bushes, a quarter have grooves, threads and another end, a quarter are flanges."""
    chance = random.Random(seed)
    return (_plain, _plain, _furnished, _flange)[seed % 4](chance)


def _plain(chance: random.Random) -> Part:
    large = chance.choice((25, 32, 40, 50, 60))
    words, sizes = _outside(chance, large, chance.randint(2, 3))
    if chance.random() < 0.35:
        words.append(f"tapped {chance.choice(TAPPED)} x {chance.choice((12, 16, 20))}")
    elif chance.random() < 0.4:
        bore = chance.choice((10, 12, 14)) if large < 40 else chance.choice((16, 20, 24))
        words.append(
            f"bore Ø{bore} H{chance.choice((7, 8))} x {chance.choice((15, 25))}" if chance.random() < 0.5 else f"drill Ø{bore} x 25"
        )
    if chance.random() < 0.4:
        words.append("cut off")
    return _part(chance, words, large, sizes)


def _furnished(chance: random.Random) -> Part:
    """A shaft with a groove and a thread outside, made from both ends."""
    large = chance.choice((32, 40, 50))
    words, sizes = _outside(chance, large, 2)
    floors = list[tuple[float, float]]()
    if chance.random() < 0.6:
        place, floor = chance.choice((5, 8)), sizes[-1][0] - chance.choice((2, 3, 4))
        words.append(f"groove 3 x Ø{floor:g} at {place}")
        floors.append((floor, place + 1.5))
    else:
        thread = next(size for size in (24, 20, 16) if size < sizes[-1][0])
        words.append(f"Ø{thread} x 20, thread M{thread} x 12")
        sizes.append((float(thread), 20.0))
    end = sizes[0][0] - chance.choice((2, 4))
    words.append("cut off")
    said = f"{', '.join(words)} | Ø{end:g} x 10" + (f", tapped {chance.choice(TAPPED)} x 14" if chance.random() < 0.5 else "")
    return replace(_part(chance, words, large, sizes), line=said, other=((end, 10.0),), floors=tuple(floors))


def _flange(chance: random.Random) -> Part:
    """A flange with a bore and holes or threads on a circle in its face, for a lathe that drives tools."""
    large, hub = chance.choice((80, 100, 120)), chance.choice((40, 50))
    bore = chance.choice((16, 20, 25))
    words = [f"Ø{large - 2} x 15", f"Ø{hub} {chance.choice(SEATS)} x 15 Ra 1.6", f"bore Ø{bore} H{chance.choice((7, 8))} x 30"]
    on = {"circle": f"{(large + hub) / 2:g} mm", "count": str(chance.choice((3, 4, 6)))}
    hole = {"diameter": f"{chance.choice((6.6, 9, 11))} mm", "depth": "15 mm", "through": False, **on}
    thread = {"thread": chance.choice(TAPPED), "side": "inside", "length": "10 mm", **on}
    more = ("drill", hole) if chance.random() < 0.5 else ("tap", thread)
    sizes = [(large - 2.0, 15.0), (float(hub), 15.0)]
    return replace(_part(chance, words, large, sizes), machine="mill-turn", circles=(more,))


def _outside(chance: random.Random, large: float, count: int) -> tuple[list[str], list[tuple[float, float]]]:
    words, sizes, size = list[str](), list[tuple[float, float]](), float(large)
    for k in range(count):
        size -= chance.choice((2, 4, 6)) if k else chance.choice((1, 2))
        long = chance.choice((15, 20, 30))
        fit = f" {chance.choice(SEATS)}" if chance.random() < 0.4 else ""
        finish = f" Ra {chance.choice((1.6, 3.2))}" if fit or chance.random() < 0.3 else ""
        words.append(f"Ø{size:g}{fit} x {long}{finish}")
        sizes.append((size, float(long)))
    return words, sizes


def _part(chance: random.Random, words: list[str], large: float, sizes: list[tuple[float, float]]) -> Part:
    out = 45.0 + sum(length for _, length in sizes)
    return Part(", ".join(words), Blank(float(large), out), chance.choice(METALS), chance.choice(LATHES),
                chance.choice(list(Goal)), chance.choice((20, 50, 200)), tuple(sizes))  # fmt: skip


def drills() -> list[tuple[float, float]]:
    """Ø and reach of the shipped drills that open solid metal."""
    every = (one for kind in DRILL_KINDS for one in shipped(kind))
    return [(one.diameter, one.reach) for one in every if one.type.opens]


def asked(part: Part) -> Plan:
    """The plan of a part without tools."""
    cuts = read_shaft_line(part.line, part.blank.diameter, part.blank.free_length, "metric", 0.0, drills())
    told = [(one.kind, one.feature, one.turned_round) for one in cuts] + [(kind, feature, False) for kind, feature in part.circles]
    told.sort(key=lambda one: one[2])  # what is on a circle is made before the part is turned round
    steps = tuple(
        Step(f"op{10 * k}", kind, told=read_entries(kind, "feature", feature), clamping=Clamping(turned),
             spindle="driven" if "circle" in feature or kind in ("mill hole", "mill thread") else "")
        for k, (kind, feature, turned) in enumerate(told, start=1)
    )  # fmt: skip
    return Plan(part.blank, part.metal, part.machine, steps, goal=part.goal, batch=Batch(part.pieces))


def planned(part: Part) -> Plan:
    """The plan with the best tool for every step."""
    return chosen(asked(part), SHIPPED)

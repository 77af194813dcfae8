"""What a line says behind `|`: the other end of the part, made when it is turned round."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace

from cutting.errors import OutOfRange, UnreadableQuantity
from cutting.process.bore_line import Drills, inside_cuts, split_inside
from cutting.process.groove_line import ring_grooves, split_grooves
from cutting.process.line_words import LineStep, Planned, read_step
from cutting.process.thread_line import blanks_for, holes_of, inside_threads, outside_threads, split_threads
from cutting.process.turned_steps import turned
from cutting.workpiece.solid import Blank, blank_solid, stands_out_of


@dataclass(frozen=True)
class OtherEnd:
    """The other end: its steps from its free face inward, thin ones first, and what is said of its inside and its threads."""

    steps: tuple[LineStep, ...]
    words: tuple[str, ...]
    system: str
    blank: float
    drills: tuple[tuple[float, float], ...]
    turned_about: bool = True  # its words begin at the free face, and its steps are placed from the jaws

    @property
    def length(self) -> float:
        """How long its steps are together [mm]."""
        return sum(step.length for step in self.steps)

    def cuts(self, whole: float, room: float, face: float) -> list[Planned]:
        """Its operations on a part of a length [mm] before it is faced by `face`; `room` is what the first end leaves it [mm].

        Raises `CuttingError` where it does not stand in front of the jaws that then hold the part.
        """
        out = stands_out_of(whole)
        if self.length + face > min(room, out) + 1e-9:
            most = min(room, out) - face
            raise OutOfRange("line", f"the other end is {self.length:g} mm long; {most:.4g} mm of it stand out.", f"at most {most:.4g} mm")
        placed, near = list[LineStep](), out - face - self.length
        for step in reversed(self.steps):
            placed.append(replace(step, near=near))
            near += step.length
        threads, words = split_threads(self.words, self.system)
        grooves, words = split_grooves(words, self.system)
        placed = blanks_for(threads, placed, self.turned_about)
        inside, _ = split_inside(words, self.system)
        deep = [one.length for one in inside.bores] + [one.length for one in threads] + ([inside.hole.length] if inside.hole else [])
        if any(map(math.isinf, deep)):
            raise UnreadableQuantity("line", "goes 'through' from the other end: say it of the end that is made first.")
        cored, tapped = inside_threads(threads, self.drills, holes_of(inside))
        wall = min((step.size.nominal for step in self.steps), default=self.blank)
        opened, bored = inside_cuts(inside, out - face, 0.0, None, 0.0, wall, self.system, self.drills)
        found = [Planned("face", "Face the other end", {"length": f"{face:g} mm"}), *opened, *cored]
        found += [
            *turned(placed, blank_solid(Blank(self.blank, out)), 0.0, self.system),
            *bored,
            *ring_grooves(grooves, placed, threads, self.turned_about, self.system),
            *outside_threads(threads, placed, self.turned_about),
            *tapped,
        ]
        return [replace(one, turned_round=True) for one in found]


def other_end(words: Sequence[str], system: str, blank: float, drills: Drills) -> OtherEnd:
    """The words behind `|`. Raises `CuttingError` that repeats the words it could not read."""
    threads, plain = split_threads(words, system)
    _, plain = split_grooves(plain, system)
    inside, plain = split_inside(plain, system)
    steps = list[LineStep]()
    for word in plain:
        if word.lower() != "face":
            step = read_step(word, system)
            steps.append(replace(step, length=step.length - sum(one.length for one in steps)) if step.absolute else step)
    if not (steps or inside or threads):
        raise UnreadableQuantity("line", "says nothing behind '|'; the other end is for example '| Ø35 x 20'.")
    if any(step.length <= 0 for step in steps):
        raise OutOfRange("line", "a step of the other end ends where the one before it already is.", "above 0 mm")
    if any(step.size.nominal > blank + 1e-9 for step in steps):
        raise OutOfRange("line", f"a step of the other end is thicker than the blank of Ø{blank:g} mm.", f"at most {blank:g} mm")
    thick_first = len(steps) > 1 and steps[0].size.nominal > steps[-1].size.nominal
    if thick_first:
        steps.reverse()
    return OtherEnd(tuple(steps), tuple(words), system, blank, tuple(drills), not thick_first)

"""What a line says of threads: `thread Tr 20x4 x 60` on the step before it, `tapped M10 x 15` in the face."""

from __future__ import annotations

import math
import re
from collections.abc import Collection, Sequence
from dataclasses import dataclass, replace

from cutting.errors import OutOfRange, UnreadableQuantity
from cutting.operations.threads.shared.core_hole import hole_window, usual_hole
from cutting.operations.threads.shared.feature import BELOW, blank_diameter
from cutting.process.bore_line import Inside
from cutting.process.line_words import LineStep, Planned, is_step
from cutting.quantities import read_dimension, read_quantity
from cutting.workpiece.threads.limits import limits
from cutting.workpiece.threads.spelling import read_thread, write_thread
from cutting.workpiece.threads.thread import Thread

_INSIDE = re.compile(r"^(?P<words>.+?)\s+inside\s*(?P<length>[x×*].+|through|thru)$|^(?P<before>.+?\s*[x×*].+?)\s+inside$", re.IGNORECASE)
_WORD = re.compile(
    r"^(?P<what>thread|tapped|tap|inside thread)\s+(?P<words>.+?)(?:\s*[x×*]\s*(?P<length>[\d.,]+\s*(?:mm|in|\"|″)?)|"
    r"\s*(?:[x×*]\s*)?\b(?P<through>through|thru))$",
    re.IGNORECASE,
)
CHAMFER = 0.2  # mm that the mouth is wider (common practice)
LEAST_BELOW = 2.5  # pitches below full thread without which no tap does it (common practice: the shortest chamfer and some room)
NEARLY = 0.005  # mm by which a size is still in its window
CREST = 0.6  # mm by which a step may differ from the thread on it


@dataclass(frozen=True)
class Said:
    """A thread of a line with its length [mm], infinite where it goes through; `step` is the place of its step, None in the face."""

    thread: Thread
    length: float
    step: int | None


def split_threads(words: Sequence[str], system: str) -> tuple[list[Said], list[str]]:
    """The threads, and the other words; a thread outside belongs to the step named before it. Raises `CuttingError`."""
    found, others, steps = list[Said](), list[str](), 0
    for word in map(_spoken, words):
        if not (said := _WORD.match(word)):
            if re.match(r"^(thread|tapped|tap|inside thread)\b", word, re.IGNORECASE):
                raise UnreadableQuantity(
                    "line", f"'{word}': a thread is its words x its length, as 'thread M20x1.5 x 30' or 'tapped M10 x 15'."
                )
            others.append(word)
            steps += is_step(word)
            continue
        thread = read_thread(said["words"], "line")
        length = math.inf if said["through"] else read_quantity(said["length"], "length", system=system, field="line").value
        inside = said["what"].lower() != "thread" or thread.internal is True
        if not inside and not steps:
            raise UnreadableQuantity("line", f"'{word}' stands before any step: name the step that it is cut on first, or say 'tapped'.")
        if not inside and math.isinf(length):
            raise UnreadableQuantity("line", f"'{word}': a thread outside has a length, as 'thread M20x1.5 x 30'.")
        found.append(Said(thread, length, None if inside else steps - 1))
    return found, others


def _spoken(word: str) -> str:
    """`M20x1.5 inside x 20` as `tapped M20x1.5 x 20`; every other word as it is."""
    said = None if re.match(r"^(?:inside|thread|tap)", word, re.IGNORECASE) else _INSIDE.match(word)
    if said is None:
        return word
    return f"tapped {said['before']}" if said["before"] else f"tapped {said['words']} {said['length']}"


def blanks_for(said: Sequence[Said], steps: Sequence[LineStep], turned_about: bool) -> list[LineStep]:
    """The steps, those that a thread is cut on as wide as it wants them: `Ø24 x 20, thread M24 x 12` is turned to 23.7.

    A tenth of the pitch below the thread's own diameter (common practice), or the middle of what its class allows; a size with a
    tolerance stays as it is said.
    """
    found = list(steps)
    for one in said:
        if one.step is None:
            continue
        k = len(steps) - 1 - one.step if turned_about else one.step
        zone = limits(one.thread, False).major
        low, high = zone.low, zone.high
        step = found[k]
        thick = step.size.nominal
        if step.size.tolerance is not None or low is None or high is None or abs(thick - one.thread.diameter) > CREST:
            continue
        if thick == one.thread.diameter or not low <= thick <= high:
            wide = blank_diameter(one.thread)
            note = f"Ø{thick:g} is turned to {wide:g} for {write_thread(one.thread)}"
            found[k] = replace(step, size=read_dimension(f"{wide:g} mm", "metric", "line"), entered=f"{wide:g}", note=note)
    return found


def outside_threads(said: Sequence[Said], placed: Sequence[LineStep], turned_about: bool) -> list[Planned]:
    """The threads on their steps, from each step's free end. Raises `CuttingError` where one does not stand on its step."""
    cuts = []
    for one in said:
        if one.step is None:
            continue
        step = placed[len(placed) - 1 - one.step if turned_about else one.step]
        words = write_thread(one.thread)
        if abs(step.size.nominal - one.thread.diameter) > CREST:
            wanted = limits(one.thread, False).major.high or one.thread.diameter
            raise OutOfRange("line", f"{words} is not cut on Ø{step.size.nominal:g} mm: its step is Ø{wanted:.4g}.", f"Ø{wanted:.4g} mm")
        if one.length > step.length + 1e-9:
            raise OutOfRange(
                "line", f"{words} of {one.length:g} mm does not stand on its step of {step.length:g} mm.", f"at most {step.length:g} mm"
            )
        feature: dict[str, str | bool] = {"thread": words, "side": "outside", "length": f"{one.length:g} mm"}
        cuts.append(Planned("turn thread", f"Thread {words}", {**feature, "distance": f"{step.far - one.length:g} mm"}))
    return cuts


@dataclass(frozen=True)
class Hole:
    """What a line opens in the face: its Ø and depth [mm], infinite where it goes through."""

    diameter: float
    depth: float


def holes_of(inside: Inside, blank_bore: float = 0.0) -> list[Hole]:
    """What a line and its blank open in a face, narrow ones first."""
    said = [*([inside.hole] if inside.hole else []), *inside.bores]
    found = [Hole(blank_bore, math.inf)] if blank_bore > 0 else []
    return sorted([*found, *(Hole(one.size.target, one.length) for one in said)], key=lambda one: one.diameter)


def inside_threads(
    said: Sequence[Said], drills: Collection[tuple[float, float]], holes_there: Sequence[Hole], long: float = 0.0, opens: bool = False
) -> tuple[list[Planned], list[Planned]]:
    """The threads in the face, and their core holes, drilled where what the line opens there is narrower.

    `long` is what goes through [mm], 0 where nobody says; it `opens` there, or metal that is cut off later stands behind it: then the
    core hole goes on into that, so that the chamfer of the tap leaves the part. Raises `CuttingError` for a hole that is too wide for
    its thread, or not deep enough.
    """
    holes, cuts = list[Planned](), list[Planned]()
    for whole in said:
        if whole.step is not None:
            continue
        through = math.isinf(whole.length)
        if through and not long:
            raise UnreadableQuantity("line", f"'through' of {write_thread(whole.thread)} wants the part's length: say its outside too.")
        one, out = (replace(whole, length=long), opens) if through else (whole, False)
        words, deep = write_thread(one.thread), one.length + (0.0 if out else BELOW * one.thread.pitch)
        low, high = hole_window(one.thread, False)
        if not _ready(one, words, deep, low, high, holes_there, out):
            usual = usual_hole(one.thread, False)
            fits = [size for size, reach in drills if low <= size <= high and reach >= deep]
            size = min(fits, key=lambda d: abs(d - usual), default=usual)
            hole: dict[str, str | bool] = {"diameter": f"{size:g} mm", "depth": f"{deep:g} mm", "through": out}
            wider = f", in the Ø{holes_there[-1].diameter:g} that is there" if holes_there else ""
            note = f"not said: the tapping hole of {words}{wider}"
            holes.append(Planned("drill", f"Hole Ø{size:g}", {**hole, "chamfer": f"{one.thread.diameter + CHAMFER:g} mm"}, note))
        feature: dict[str, str | bool] = {"thread": words, "side": "inside", "length": f"{one.length:g} mm"}
        if out:
            feature["through"] = True
        cuts.append(Planned("tap", f"Thread {words}", feature))
    return holes, cuts


def _ready(one: Said, words: str, deep: float, low: float, high: float, there: Sequence[Hole], out: bool) -> bool:
    """Whether the widest hole in the face is the thread's own. Raises `CuttingError` where it leaves it no metal or no room."""
    widest = max(there, key=lambda hole: hole.diameter, default=None)
    if widest is None or widest.diameter < low - NEARLY:
        return False
    if widest.diameter > high + NEARLY:
        raise OutOfRange(
            "line", f"{words} in Ø{widest.diameter:g} mm: its tapping hole is {low:.4g} to {high:.4g} mm.", f"{low:.4g} to {high:.4g} mm"
        )
    if not out and widest.depth < deep - NEARLY and widest.depth < one.length + LEAST_BELOW * one.thread.pitch:
        said = f"{words} of {one.length:g} mm wants a hole {deep:.4g} mm deep; Ø{widest.diameter:g} mm has {widest.depth:g} mm."
        raise OutOfRange("line", said, f"from {deep:.4g} mm")
    return True

"""A whole part in one line, as it is said at the bench: `Ø45 x 120, Ø30 h6 x 50 Ra 0.8 1x45°, bore Ø20 H7 x 40, cut off | Ø35 x 20`."""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import replace

from cutting.errors import OutOfRange, UnreadableQuantity
from cutting.process.bore_line import Drills, inside_cuts, split_inside
from cutting.process.groove_line import ring_grooves, split_grooves
from cutting.process.line_words import LineStep, Planned, read_step
from cutting.process.other_end import OtherEnd, other_end
from cutting.process.thread_line import blanks_for, holes_of, inside_threads, outside_threads, split_threads
from cutting.process.turned_steps import turned
from cutting.workpiece.solid import Blank, blank_solid

FACE_STOCK = 1.0  # mm taken off a face
KERF, KERF_ROOM = 3.0, 6.0  # mm turned beyond the part for the blade; and between jaws and part for it and its clearance
BEYOND = 1.0  # mm that a hole through goes further into metal that stands behind it, so that nothing closes it later
_PARTS = re.compile(r"\s*(?:;|\n|,\s+|,(?=[A-Za-zØø]))\s*")
_PARTED = re.compile(r"(?:cut|part)(?:ed)?[\s-]*off", re.IGNORECASE)
_NOTED = re.compile(r"^(?:key\s*(?:seat|way)|knurl(?:ed|ing)?|cent(?:re|er)(?:\s+hole)?)\b", re.IGNORECASE)


def noted(text: str) -> tuple[str, ...]:
    """What a line says that turning does not make: keyseats, knurls and centre holes, to be noted on the drawing."""
    return tuple(word for word in _words(text) if _NOTED.match(word))


def _words(text: str) -> list[str]:
    return [part for part in _PARTS.split(text.strip().rstrip(".,;")) if part]


def read_shaft_line(
    text: str,
    blank_diameter: float,
    free_length: float,
    system: str = "metric",
    blank_bore: float = 0.0,
    drills: Drills = (),
    blank_length: float | None = None,
) -> tuple[Planned, ...]:
    """The operations that make a part of one line from a bar of `blank_diameter`, `free_length` out of the jaws [mm].

    Bores, a hole and recesses are said from the free face inward; steps from the jaws outwards or from the free end, the thicker
    end goes to the jaws; grooves belong to the step named before them. Behind `|` stands the other end, made on the part turned
    round: that asks to cut it off, or `blank_length` [mm]. Raises `CuttingError` that repeats the words it could not read, or
    says what does not fit the blank. `drills` (Ø, reach) are those that may open what is only bored.
    """
    first, *others = text.split("|")
    if len(others) > 1:
        raise UnreadableQuantity("line", "has more than one '|': a part has two ends.")
    words = [word for word in _words(first) if not _NOTED.match(word)]
    second = [word for word in _words(others[0]) if not _NOTED.match(word)] if others else []
    if not words:
        raise UnreadableQuantity("line", "is empty; write for example Ø45 x 120, Ø30 h6 x 50 Ra 0.8, cut off.")
    parted = any(_PARTED.fullmatch(word) for word in (*words, *second))
    end = other_end([word for word in second if not _PARTED.fullmatch(word)], system, blank_diameter, tuple(drills)) if others else None
    return _one_end(words, parted, end, blank_diameter, free_length, system, blank_bore, tuple(drills), blank_length)


def _one_end(
    words: Sequence[str],
    parted: bool,
    end: OtherEnd | None,
    blank_diameter: float,
    free_length: float,
    system: str,
    blank_bore: float,
    drills: Sequence[tuple[float, float]],
    blank_length: float | None,
) -> tuple[Planned, ...]:
    """The operations of the end that is made first, with the cut-off, and those of the other behind them."""
    threads, words = split_threads(words, system)
    grooves, words = split_grooves(words, system)
    inside, words = split_inside(words, system)
    there = holes_of(inside, blank_bore)
    steps: list[LineStep] = []
    about = False
    for word in words:
        if not (_PARTED.fullmatch(word) or re.fullmatch(r"face", word, re.IGNORECASE)):
            steps.append(read_step(word, system))
    steps = _lengths(steps)
    if not steps and (inside or any(one.step is None for one in threads)) and not parted and end is None:  # the outside is left as it is
        cored, tapped = inside_threads(threads, drills, there)
        if not inside:
            return *cored, *tapped
        opened, bored = inside_cuts(inside, free_length, 0.0, None, blank_bore, blank_diameter, system, drills)
        return *opened, *cored, *bored, *tapped
    if not steps:
        raise UnreadableQuantity("line", "names no step; write for example Ø45 x 120.")
    if len(steps) > 1 and steps[0].size.nominal < steps[-1].size.nominal:
        steps.reverse()
        about = True
    behind = end.length + FACE_STOCK if end is not None else 0.0  # what the other end takes of the bar
    steps = blanks_for(threads, steps, about)
    placed = _placed(steps, blank_diameter, free_length, parted, behind if parted else 0.0)
    long = sum(step.length for step in placed) + behind
    deepest = max((one.length for one in inside.bores), default=0.0)
    wall = min(step.size.nominal for step in placed if placed[-1].far - step.far < deepest) if deepest else blank_diameter
    beyond = KERF + BEYOND if parted else BEYOND if placed[0].near > 0 else None
    cored, tapped = inside_threads(threads, drills, there, long, beyond is None)
    opened, bored = inside_cuts(inside, placed[-1].far, long, beyond, blank_bore, wall, system, drills)
    kerf = KERF if parted and end is None else 0.0
    cuts = [
        Planned("face", "Face", {"length": f"{FACE_STOCK:g} mm"}),
        *opened,
        *cored,
        *turned(placed, blank_solid(Blank(blank_diameter, free_length)), kerf, system),
    ]
    cuts += bored
    cuts += ring_grooves(grooves, placed, threads, about, system) + outside_threads(threads, placed, about) + tapped
    if parted:
        size = placed[0].size.nominal if end is None else blank_diameter
        place = placed[0].near - behind - KERF
        cuts.append(Planned("cut off", f"Cut off Ø{size:g}", {"part_length": f"{long:g} mm", "distance_from_chuck": f"{place:g} mm"}))
    if end is None:
        return tuple(cuts)
    if not parted and blank_length is None:
        raise UnreadableQuantity("line", "has another end behind '|': say 'cut off' before it, or give the overall length of the blank.")
    whole = long if parted else (blank_length or 0.0) - FACE_STOCK
    return (*cuts, *end.cuts(whole, whole - long + behind, FACE_STOCK))


def _lengths(steps: Sequence[LineStep]) -> list[LineStep]:
    """Steps with their lengths, where some are told by the place at which they end. Raises `OutOfRange` for one that ends too soon."""
    found, end = [], 0.0
    for step in steps:
        long = step.length - end if step.absolute else step.length
        if long <= 0:
            raise OutOfRange(
                "line", f"Ø{step.entered} ends at {step.length:g} mm, where the step before it already is.", f"above {end:g} mm"
            )
        found.append(replace(step, length=long, absolute=False))
        end += long
    return found


def _placed(steps: Sequence[LineStep], blank: float, free_length: float, parted: bool, behind: float) -> list[LineStep]:
    """The steps at their places; so much of the other end stands `behind` them out of the jaws [mm]."""
    total = sum(step.length for step in steps) + behind
    room = free_length - FACE_STOCK - total
    if room < (KERF_ROOM if parted else 0.0):
        wanted = total + FACE_STOCK + (KERF_ROOM if parted else 0.0)
        said = f"the shaft is {total:g} mm long and wants {wanted:g} mm out of the jaws; the blank has {free_length:g} mm."
        raise OutOfRange("line", said, f"at most {free_length - wanted + total:g} mm")
    placed, near = [], room + behind
    for step in steps:
        if step.size.nominal > blank + 1e-9:
            raise OutOfRange("line", f"Ø{step.size.nominal:g} mm is thicker than the blank of Ø{blank:g} mm.", f"at most {blank:g} mm")
        placed.append(replace(step, near=near))
        near += step.length
    return placed

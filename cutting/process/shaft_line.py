"""A whole part in one line, as it is said at the bench: `Ø45 x 120, Ø30 h6 x 50 Ra 0.8, bore Ø20 H7 x 40, thread M30x2 x 20, cut off`."""

from __future__ import annotations

import math
import re
from collections.abc import Sequence
from dataclasses import replace
from typing import Any

from cutting.errors import AmbiguousQuantity, CuttingError, OutOfRange, UnreadableQuantity
from cutting.process.bore_line import Drills, Inside, inside_cuts, split_inside
from cutting.process.line_words import FINISH_STOCK, LEAST_CUT, OWN_GROOVE, LineStep, Planned, read_step, spoken
from cutting.process.thread_line import Hole, inside_threads, outside_threads, split_threads
from cutting.quantities import read_dimension, read_quantity, write
from cutting.workpiece.ring_grooves import standard_groove
from cutting.workpiece.solid import Blank, Region, Side, Solid, blank_solid

FACE_STOCK = 1.0  # mm taken off the free face
DEPTH_SAID = 0.5  # of the diameter below which a floor without its Ø may be meant as a depth
RING_ROOM = 3.0  # a ring groove keeps so many of its depths from the end of its step (after the standard's n, from memory)
KERF, KERF_ROOM = 3.0, 6.0  # mm turned beyond the part for the blade; and between jaws and part for it and its clearance
BEYOND = 1.0  # mm that a hole through goes further into metal that stands behind it, so that nothing closes it later
_PARTS = re.compile(r"\s*(?:;|\n|,\s+|,(?=[A-Za-zØø]))\s*")
_GROOVE = re.compile(r"^(?:ring\s+)?groove\s+(?P<what>.+?)(?:\s+(?:at|@)\s*(?P<place>[\d.,]+\s*(?:mm|in|\")?))?$", re.IGNORECASE)


def read_shaft_line(
    text: str, blank_diameter: float, free_length: float, system: str = "metric", blank_bore: float = 0.0, drills: Drills = ()
) -> tuple[Planned, ...]:
    """The operations that make a part of one line from a bar of `blank_diameter`, `free_length` out of the jaws [mm].

    Bores, a hole and recesses are said from the free face inward; steps from the jaws outwards or from the free end, the thicker
    end goes to the jaws; grooves belong to the step named before them. Raises `CuttingError` that repeats the words it could not
    read, or says what does not fit the blank. `drills` (Ø, reach) are those that may open what is only bored.
    """
    words = [part for part in _PARTS.split(text.strip().rstrip(".,;")) if part]
    if not words:
        raise UnreadableQuantity("line", "is empty; write for example Ø45 x 120, Ø30 h6 x 50 Ra 0.8, cut off.")
    threads, words = split_threads(words, system)
    inside, words = split_inside(words, system)
    drills = tuple(drills)
    cored, tapped = inside_threads(threads, drills, _holes(inside, blank_bore))
    steps: list[LineStep] = []
    grooves: list[tuple[int, str, float | None]] = []
    parted = about = False
    for word in words:
        if re.fullmatch(r"(?:cut|part)(?:ed)?[\s-]*off", word, re.IGNORECASE):
            parted = True
        elif found := _GROOVE.match(word):
            if not steps:
                raise UnreadableQuantity("line", f"'{word}' stands before any step: name the step that it is cut into first.")
            place = read_quantity(found["place"], "length", system=system, field="line").value if found["place"] else None
            grooves.append((len(steps) - 1, found["what"].strip(), place))
        elif not re.fullmatch(r"face", word, re.IGNORECASE):
            steps.append(read_step(word, system))
    if not steps and inside and not parted:  # the outside is left as it is
        opened, bored = inside_cuts(inside, free_length, 0.0, None, blank_bore, blank_diameter, system, drills)
        return *opened, *cored, *bored, *tapped
    if not steps and tapped and not parted:
        return *cored, *tapped
    if not steps:
        raise UnreadableQuantity("line", "names no step; write for example Ø45 x 120.")
    if len(steps) > 1 and steps[0].size.nominal < steps[-1].size.nominal:
        steps.reverse()
        about = True
        grooves = [(len(steps) - 1 - k, what, place) for k, what, place in grooves]
    placed = _placed(steps, blank_diameter, free_length, parted)
    long = sum(step.length for step in placed)
    deepest = max((one.length for one in inside.bores), default=0.0)
    wall = min(step.size.nominal for step in placed if placed[-1].far - step.far < deepest) if deepest else blank_diameter
    beyond = KERF + BEYOND if parted else BEYOND if placed[0].near > 0 else None
    opened, bored = inside_cuts(inside, placed[-1].far, long, beyond, blank_bore, wall, system, drills)
    cuts = [
        Planned("face", "Face", {"length": f"{FACE_STOCK:g} mm"}),
        *opened,
        *cored,
        *_turned(placed, blank_solid(Blank(blank_diameter, free_length)), KERF if parted else 0.0, system),
    ]
    cuts += bored
    cuts += [_groove(placed[k], what, place, system) for k, what, place in grooves]
    cuts += outside_threads(threads, placed, about) + tapped
    if parted:
        first = placed[0]
        feature: dict[str, str | bool] = {"part_length": f"{long:g} mm", "distance_from_chuck": f"{first.near - KERF:g} mm"}
        cuts.append(Planned("cut off", f"Cut off Ø{first.size.nominal:g}", feature))
    return tuple(cuts)


def _holes(inside: Inside, blank_bore: float) -> list[Hole]:
    """What the line and the blank open in the free face, narrow ones first."""
    said = [*([inside.hole] if inside.hole else []), *inside.bores]
    found = [Hole(blank_bore, math.inf)] if blank_bore > 0 else []
    return sorted([*found, *(Hole(one.size.target, one.length) for one in said)], key=lambda one: one.diameter)


def _placed(steps: Sequence[LineStep], blank: float, free_length: float, parted: bool) -> list[LineStep]:
    total = sum(step.length for step in steps)
    room = free_length - FACE_STOCK - total
    if room < (KERF_ROOM if parted else 0.0):
        wanted = total + FACE_STOCK + (KERF_ROOM if parted else 0.0)
        said = f"the shaft is {total:g} mm long and wants {wanted:g} mm out of the jaws; the blank has {free_length:g} mm."
        raise OutOfRange("line", said, f"at most {free_length - wanted + total:g} mm")
    placed, near = [], room
    for step in steps:
        if step.size.nominal > blank + 1e-9:
            raise OutOfRange("line", f"Ø{step.size.nominal:g} mm is thicker than the blank of Ø{blank:g} mm.", f"at most {blank:g} mm")
        placed.append(replace(step, near=near))
        near += step.length
    return placed


def _turned(steps: list[LineStep], part: Solid, kerf: float, system: str) -> list[Planned]:
    """Roughing from the thick end to the thin one, each over all that is no thicker beyond it; then the fine steps.

    The first goes on over the kerf, so that the blade meets a turned diameter.
    """
    rough, fine = [], []
    for k, step in enumerate(steps):
        far = steps[-1].far if all(one.size.nominal <= step.size.nominal for one in steps[k:]) else step.far
        to = step.size.nominal + (FINISH_STOCK if step.fine else 0.0)
        if to < part.largest(step.near, far) - LEAST_CUT:
            part = part.without(Region(Side.OUTSIDE, ((step.near, far, to),)))
            said = write(to, "length", system) if system == "inch" else f"{to:g}"
            title = f"{'Rough turn' if step.fine else 'Turn'} Ø{said}"
            longer = replace(step, near=step.near - kerf) if k == 0 else step
            rough.append(Planned("turn", title, _feature(longer, f"{to:g}", far, "" if step.fine else step.finish)))
        if step.fine:
            fine.append(Planned("turn", f"Finish Ø{step.entered}", _feature(step, step.entered, step.far, step.finish)))
    return rough + fine


def _feature(step: LineStep, to: str, far: float, finish: str) -> dict[str, str | bool]:
    given: dict[str, Any] = {"end_diameter": to, "length": f"{far - step.near:g} mm", "distance_from_chuck": f"{step.near:g} mm"}
    if finish:
        given["roughness"] = finish
    if step.fillet is not None:
        given["fillet"] = f"{step.fillet:g} mm"
    return given


def _groove(step: LineStep, what: str, place: float | None, system: str) -> Planned:
    given: dict[str, str | bool] = {"where": "outside", "diameter": f"{step.size.nominal:g} mm"}
    note = ""
    if own := OWN_GROOVE.match(what):
        width, floor = read_dimension(own["width"], system, "line"), read_dimension(own["floor"], system, "line")
        given |= {"width": spoken(width, system), "floor": spoken(floor, system)}
        if not re.search("[Øø]|dia", own.group(0)) and floor.nominal < DEPTH_SAID * step.size.nominal and floor.tolerance is None:
            deep_one = f"{width.nominal:g} x Ø{step.size.nominal - 2 * floor.nominal:g}"
            raise AmbiguousQuantity(
                "line",
                f"'groove {what}': a floor of Ø{floor.nominal:g} (write {width.nominal:g} x Ø{floor.nominal:g}),"
                f" or {floor.nominal:g} deep (write {deep_one})?",
                readings=(f"{width.nominal:g} x Ø{floor.nominal:g}", deep_one),
            )
        wide, deep = width.nominal, (step.size.nominal - floor.nominal) / 2
    else:
        try:
            found = standard_groove(what, step.size.nominal)
        except CuttingError as error:
            raise UnreadableQuantity("line", f"'groove {what}': {error.message}") from error
        given["standard"] = what
        wide, deep = found.widest, found.depth or (step.size.nominal - (found.diameter or step.size.nominal)) / 2
    if place is None:
        room = max(RING_ROOM * deep, wide)
        near = step.far - room - wide
        note = f"its place was not said: {room:.3g} mm from the end of the step"
    else:
        near = step.far - place - wide
    if near < step.near:
        raise OutOfRange("line", f"'groove {what}' does not stand on its step of {step.length:g} mm.", f"within {step.length:g} mm")
    return Planned("groove", f"Groove {what}", {**given, "distance_from_chuck": f"{near:g} mm"}, note)

"""What a line says of the inside: `bore Ø62 H7 x 20 R0.8, bore Ø40 through, recess 5 x Ø66 at 12`."""

from __future__ import annotations

import math
import re
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from itertools import pairwise

from cutting.errors import OutOfRange, UnreadableQuantity
from cutting.process.line_words import FINISH_STOCK, LEAST_CUT, OWN_GROOVE, LineStep, Planned, read_step, spoken
from cutting.quantities import read_dimension, read_quantity

UNDER, UNDER_FINE = 1.0, 2.0  # mm on the diameter that a drill leaves to a bar (common practice)
LEAST_DRILL = 3.0  # mm
LEAST_BORED = 14.0  # mm below which hardly a bar enters (common practice)
WALL = 1.0  # mm of metal that must stay round a bore
_WORD = re.compile(r"^(?P<what>bore|drill|hole|ream)(?:ed)?\s+(?P<rest>.+)$", re.IGNORECASE)
_THROUGH = re.compile(r"^(?P<size>.+?)\s*(?:[x×*]\s*)?(?:through|thru)\b(?P<rest>.*)$", re.IGNORECASE)
_RECESS = re.compile(r"^(?:recess|undercut)\s+(?P<what>.+?)\s+(?:at|@)\s*(?P<place>[\d.,]+\s*(?:mm|in|\")?)$", re.IGNORECASE)


Drills = Iterable[tuple[float, float]]  # Ø and reach [mm] of the drills that there are


@dataclass(frozen=True)
class Inside:
    """What the words say of the inside: bores and a drilled hole with their depth from the face (infinite: through), recesses."""

    bores: tuple[LineStep, ...] = ()
    hole: LineStep | None = None
    recesses: tuple[tuple[str, float], ...] = ()

    def __bool__(self) -> bool:
        return bool(self.bores or self.hole or self.recesses)


def split_inside(words: Sequence[str], system: str) -> tuple[Inside, list[str]]:
    """The inside, and the words that say nothing of it. Raises `CuttingError` with the words that could not be read."""
    bores, recesses, others = list[LineStep](), list[tuple[str, float]](), list[str]()
    hole: LineStep | None = None
    for word in words:
        if found := _RECESS.match(word):
            recesses.append((found["what"].strip(), read_quantity(found["place"], "length", system=system, field="line").value))
        elif re.match(r"^(recess|undercut)\b", word, re.IGNORECASE):
            raise UnreadableQuantity(
                "line", f"'{word}': a recess is width x floor Ø at its distance from the face, as 'recess 5 x Ø66 at 12'."
            )
        elif found := _WORD.match(word):
            through = _THROUGH.match(found["rest"])
            made = read_step(f"{through['size']} x 1 mm{through['rest']}" if through else found["rest"], system)
            made = LineStep(made.size, made.entered, math.inf if through else made.length, made.roughness, made.finish, made.fillet)
            if found["what"].lower() == "bore" and made.size.nominal >= LEAST_BORED:
                bores.append(made)
            elif hole is not None:
                raise UnreadableQuantity("line", f"'{word}': one hole on the axis is drilled; what is wider there is bored.")
            else:
                hole = made
        else:
            others.append(word)
    bores.sort(key=lambda one: one.size.nominal)
    for narrow, wide in pairwise(bores):
        if wide.length >= narrow.length:
            said_of = f"Ø{wide.size.nominal:g} lies as deep as Ø{narrow.size.nominal:g}"
            raise OutOfRange("line", f"{said_of}: what widens behind a narrower bore is a recess.", f"below {narrow.length:g} mm")
    return Inside(tuple(bores), hole, tuple(recesses)), others


def inside_cuts(
    inside: Inside, face: float, long: float, beyond: float | None, bore: float, wall: float, system: str, drills: Drills = ()
) -> tuple[list[Planned], list[Planned]]:
    """What opens the inside, and what bores it and cuts its recesses.

    `face` is the place of the free face, `long` what goes through, `beyond` how much further where metal stands behind it, None
    where it opens, `bore` the blank's [mm]; `wall` the thinnest outside Ø over what is bored; `drills`
    one of which opens it where the line says none. Raises `CuttingError`.
    """
    opened = _opened(inside, long, beyond, bore, drills)
    now = max(bore, inside.hole.size.nominal if inside.hole else 0.0, opened.drilled)
    rough, fine = [], []
    for one in inside.bores:
        deep = _deep(one, long, beyond)
        if one.size.nominal > wall - 2 * WALL:
            most = f"at most {wall - 2 * WALL:g} mm"
            raise OutOfRange("line", f"Ø{one.size.nominal:g} leaves no wall in Ø{wall:g} mm.", most)
        leaves = one.size.nominal - (FINISH_STOCK if one.fine else 0.0)
        if leaves > now + LEAST_CUT:
            title = f"{'Rough bore' if one.fine else 'Bore'} Ø{leaves:g}"
            rough.append(Planned("bore", title, _feature(one, f"{leaves:g} mm", deep, "" if one.fine else one.finish)))
        if one.fine:
            fine.append(Planned("bore", f"Bore Ø{one.entered}", _feature(one, one.entered, deep, one.finish)))
        now = max(now, leaves)
    return opened.cuts, rough + fine + [_recess(one, place, inside, face, bore, system) for one, place in inside.recesses]


@dataclass(frozen=True)
class _Opened:
    cuts: list[Planned]
    drilled: float


def _opened(inside: Inside, long: float, beyond: float | None, bore: float, drills: Drills) -> _Opened:
    """The drilled hole that was said, or the one that the narrowest bore wants."""
    if inside.hole is not None:
        one = inside.hole
        return _Opened([_drilled(one.entered, one, long, beyond, "", one.finish)], one.size.nominal)
    if not inside.bores or bore > 0:
        return _Opened([], 0.0)
    narrow, deepest = inside.bores[0], max(inside.bores, key=lambda one: one.length)
    most, deep = narrow.size.target - (UNDER_FINE if narrow.fine else UNDER), _deep(deepest, long, beyond)
    size = max((one for one, reach in drills if one <= most and reach >= deep), default=float(math.floor(most)))
    if size < LEAST_DRILL:
        raise OutOfRange("line", f"Ø{narrow.size.nominal:g} is too narrow to bore after a drill; say 'drill' instead.", None)
    note = f"not said: a hole for the bars, {narrow.size.nominal - size:.3g} mm below the narrowest bore"
    if not math.isinf(deepest.length):
        note += "; the drill's point stays below its floor"
    return _Opened([_drilled(f"{size:g} mm", deepest, long, beyond, note, "")], size)


def _drilled(entered: str, one: LineStep, long: float, beyond: float | None, note: str, finish: str) -> Planned:
    through = math.isinf(one.length)
    given: dict[str, str | bool] = {"diameter": entered, "depth": f"{_deep(one, long, beyond):g} mm", "through": through and beyond is None}
    if finish:
        given["roughness"] = finish
    return Planned("drill", f"Hole Ø{entered.removesuffix(' mm')}", given, note)


def _deep(one: LineStep, long: float, beyond: float | None) -> float:
    if not math.isinf(one.length):
        return one.length
    if not long:
        raise UnreadableQuantity("line", "'through' wants the part's length: say its outside too, or how deep.")
    return long + (beyond or 0.0)


def _feature(one: LineStep, to: str, deep: float, finish: str) -> dict[str, str | bool]:
    given: dict[str, str | bool] = {"end_diameter": to, "length": f"{deep:g} mm", "shoulder": not math.isinf(one.length)}
    if finish:
        given["roughness"] = finish
    if one.fillet is not None:
        given["fillet"] = f"{one.fillet:g} mm"
    return given


def _recess(what: str, place: float, inside: Inside, face: float, bore: float, system: str) -> Planned:
    own = OWN_GROOVE.match(what)
    if not own:
        raise UnreadableQuantity("line", f"'recess {what}' is no width x floor Ø, as 'recess 5 x Ø66 at 12'.")
    width, floor = read_dimension(own["width"], system, "line"), read_dimension(own["floor"], system, "line")
    wide = width.nominal
    reaching = [one for one in inside.bores if one.length >= place + wide]
    over = max((one.size.nominal for one in reaching), default=max(bore, inside.hole.size.nominal if inside.hole else 0.0))
    if any(place < one.length < place + wide for one in inside.bores):
        raise OutOfRange("line", f"'recess {what}' lies across a step of the bore.", None)
    if not over < floor.nominal:
        raise OutOfRange("line", f"'recess {what}': its floor must be wider than the bore of Ø{over:g} mm.", f"above {over:g} mm")
    given: dict[str, str | bool] = {
        "where": "inside",
        "diameter": f"{over:g} mm",
        "width": spoken(width, system),
        "floor": spoken(floor, system),
        "distance_from_chuck": f"{face - place - wide:g} mm",
    }
    return Planned("groove", f"Recess Ø{floor.nominal:g}", given)

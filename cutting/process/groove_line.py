"""What a line says of grooves: `groove 3 x Ø26 at 10`, `groove DIN 471`, `relief DIN 76` on the step named before them."""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import dataclass

from cutting.errors import AmbiguousQuantity, CuttingError, OutOfRange, UnreadableQuantity
from cutting.process.line_words import OWN_GROOVE, LineStep, Planned, is_step, spoken
from cutting.process.thread_line import Said
from cutting.quantities import read_dimension, read_quantity
from cutting.workpiece.ring_grooves import standard_groove, thread_relief
from cutting.workpiece.threads.thread import Thread

DEPTH_SAID = 0.5  # of the diameter below which a floor without its Ø may be meant as a depth
RING_ROOM = 3.0  # a ring groove keeps so many of its depths from the end of its step (after the standard's n, from memory)
BESIDE_A_SHOULDER = ("DIN 509", "DIN 76")  # grooves that stand where their step ends at a thicker one
_GROOVE = re.compile(
    r"^(?:(?:ring\s+)?groove\s+(?P<what>.+?)(?:\s+(?:at|@)\s*(?P<place>[\d.,]+\s*(?:mm|in|\")?))?|relief\s+(?P<relief>.+))$", re.IGNORECASE
)


@dataclass(frozen=True)
class SaidGroove:
    """A groove of a line on the step that is named before it, its distance from the step's free end [mm] where that is said."""

    what: str
    place: float | None
    step: int


def split_grooves(words: Sequence[str], system: str) -> tuple[list[SaidGroove], list[str]]:
    """The grooves outside, and the other words. Raises `CuttingError` for one that stands before any step."""
    found, others, steps = list[SaidGroove](), list[str](), 0
    for word in words:
        said = _GROOVE.match(word)
        if said is None:
            others.append(word)
            steps += is_step(word)
            continue
        if not steps:
            raise UnreadableQuantity("line", f"'{word}' stands before any step: name the step that it is cut into first.")
        place = read_quantity(said["place"], "length", system=system, field="line").value if said["place"] else None
        found.append(SaidGroove(said["what"].strip() if said["what"] else _relief(said["relief"]), place, steps - 1))
    return found, others


def ring_grooves(
    said: Sequence[SaidGroove], placed: Sequence[LineStep], threads: Sequence[Said], turned_about: bool, system: str
) -> list[Planned]:
    """The grooves on their steps. Raises `CuttingError` where one does not stand on its step."""
    on = {one.step: one.thread for one in threads}
    return [
        _ring_groove(placed[len(placed) - 1 - one.step if turned_about else one.step], one.what, one.place, system, on.get(one.step))
        for one in said
    ]


def _relief(said: str) -> str:
    """`F` and `DIN 509 F` alike; `DIN 76` behind a thread."""
    words = " ".join(said.upper().split())
    return f"DIN 509 {words}" if words in ("E", "F") else words


def _ring_groove(step: LineStep, what: str, place: float | None, system: str, thread: Thread | None) -> Planned:
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
        if not deep > 0:
            most = f"below Ø{step.size.nominal:g} mm"
            raise OutOfRange("line", f"'groove {what}': its floor must be below its step of Ø{step.size.nominal:g} mm.", most)
    else:
        behind_thread = re.fullmatch(r"DIN\s*76(?:-1)?(?:\s+A)?", what, re.IGNORECASE)
        if behind_thread and thread is None:
            raise UnreadableQuantity("line", f"'{what}' stands behind a thread: say the thread after this step, as 'thread M20x1.5 x 30'.")
        try:
            found = thread_relief(thread.pitch) if behind_thread and thread else standard_groove(what, step.size.nominal)
        except CuttingError as error:
            raise UnreadableQuantity("line", f"'groove {what}': {error.message}") from error
        wide, deep = found.widest, found.depth or (step.size.nominal - (found.diameter or step.size.nominal)) / 2
        if behind_thread and thread:
            wide = found.width
            given |= {"width": f"{wide:g} mm", "floor": f"{thread.diameter - 2 * deep:g} mm"}
        else:
            given["standard"] = what
    if place is None and what.upper().startswith(BESIDE_A_SHOULDER):
        near = step.near
    elif place is None:
        room = max(RING_ROOM * deep, wide)
        near = step.far - room - wide
        note = f"its place was not said: {room:.3g} mm from the end of the step"
    else:
        near = step.far - place - wide
    if near < step.near:
        raise OutOfRange("line", f"'groove {what}' does not stand on its step of {step.length:g} mm.", f"within {step.length:g} mm")
    return Planned("groove", f"Groove {what}", {**given, "distance_from_chuck": f"{near:g} mm"}, note)

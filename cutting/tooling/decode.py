"""Explains any designation that people type: its parts, both spellings, the drawing, the edges and why."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from cutting.errors import CuttingError
from cutting.names import plain
from cutting.tooling.designations.holder_code import (
    BAR_TYPES,
    CARBIDE_BARS,
    CLAMPINGS,
    COOLED_BARS,
    looks_like_holder,
    read_holder_code,
    write_holder,
)
from cutting.tooling.designations.insert_code import edges_and_why, seat_size, write_inch, write_metric
from cutting.tooling.designations.insert_text import letters_of, take_apart
from cutting.tooling.designations.parts import Part, UnreadableDesignation
from cutting.tooling.designations.threading_code import looks_like_threading, read_threading_code, write_threading
from cutting.tooling.insert_drawing import InsertDrawing, draw_insert
from cutting.tooling.records import seat_name

FEW_DIGITS = 2  # up to which a designation does not say its sizes yet
ANY_THREAD, KNOWN_OF_THREAD = "1.5ISO", 3  # a thread that stands in for the one that is not said, and the parts before it


@dataclass(frozen=True)
class Decoded:
    """A designation, explained. `kind` is insert, holder, bar or threading; `other` the spelling in the other practice."""

    text: str
    kind: str
    standard: str
    designation: str
    other: str
    parts: tuple[Part, ...]
    edges: int | None
    edges_why: str
    seat: str
    drawing: InsertDrawing | None
    remarks: tuple[str, ...]


def decode(text: str) -> Decoded:
    """Explain a designation. Raises `UnreadableDesignation` naming the position at fault and what is allowed there.

    >>> decode("cnmg432").designation
    'CNMG 120408'
    """
    if len(plain(text)) < 3:
        raise UnreadableDesignation("designation", f"'{text}' is too short for a designation, such as CNMG 120408 or PCLNR 2525 M12.")
    if looks_like_threading(text) or text.strip()[0].isdigit():
        return _as_far_as_it_goes(text, _threading, _thread_so_far)
    if looks_like_holder(text):
        return _holder(text)
    if len(plain(text)) > 4 and plain(text)[:5].isalpha():
        try:
            return _insert(text)
        except CuttingError:
            return _holder(text)  # five letters are a holder: its refusal names the right position
    return _as_far_as_it_goes(text, _insert, _insert_so_far)


def _as_far_as_it_goes(text: str, whole: Callable[[str], Decoded], so_far: Callable[[str, str], Decoded]) -> Decoded:
    """What is readable of a designation, with what is missing as a remark; what is readable of none is refused."""
    try:
        return whole(text)
    except CuttingError as missing:
        if sum(one.isdigit() for one in text) > FEW_DIGITS:  # what says its sizes says them wrongly
            raise
        try:
            return so_far(text, missing.message)
        except CuttingError:
            raise missing from None


def _insert_so_far(text: str, missing: str) -> Decoded:
    """The letters alone: shape, clearance, class and breaker."""
    parts = tuple(letters_of(text))
    said = "".join(part.code for part in parts)
    return Decoded(text.strip(), "insert", "iso-1832", said, "", parts, None, "", "", None, (f"Explained as far as it goes: {missing}",))


def _thread_so_far(text: str, missing: str) -> Decoded:
    """Size and hand alone."""
    known = read_threading_code(f"{text.strip()}{ANY_THREAD}")
    return Decoded(
        text.strip(), "threading", "common-practice", text.strip().upper(), "", known.parts[:KNOWN_OF_THREAD], None, "", "", None,
        (f"Explained as far as it goes: {missing}",),
    )  # fmt: skip


def _insert(text: str) -> Decoded:
    said = take_apart(text)
    count, why = edges_and_why(said)
    metric, inch = write_metric(said), write_inch(said)
    first, second = (metric, inch) if said.system == "metric" else (inch, metric)
    remarks = []
    if said.fixing == "X" or said.clearance == "O":
        remarks.append("X and O stand for what only its maker says: nothing is guessed there.")
    if said.system == "inch":
        remarks.append("Inch practice: size and thickness are counted, the corner in sixty-fourths of an inch.")
    if first is None or second is None:
        remarks.append("The other practice has no code for one of its sizes.")
    seat = seat_name(said.shape, said.clearance, seat_size(said, said.inscribed_circle or 0))
    standard = "iso-1832" if said.system == "metric" else "ansi-b212-4"
    usual = metric or inch or text.upper()
    return Decoded(text.strip(), "insert", standard, usual, inch or "", said.parts, count, why, seat, draw_insert(said), tuple(remarks))


def _holder(text: str) -> Decoded:
    code = read_holder_code(text)
    remarks = [f"Takes {code.shape}{code.clearance}·· inserts of size {code.size}, held by {CLAMPINGS[code.clamping]}."]
    if code.bar:
        remarks.append(f"{BAR_TYPES[code.bar][0].upper()}{BAR_TYPES[code.bar][1:]}.")
        reach = 6 if code.bar in CARBIDE_BARS else 4
        remarks.append(f"Overhang up to about {reach} × the diameter, {reach * code.shank_height:g} mm (common practice, no source).")
        if code.bar in COOLED_BARS:
            remarks.append("Coolant comes through the bar.")
    elif code.hand == "N":
        remarks.append("Neutral: cuts both ways; κr is on each side.")
    standard = "iso-6261" if code.bar else "ansi-b212-5" if len(code.parts) == 8 else "iso-5608"
    seat = seat_name(code.shape, code.clearance, code.size)
    return Decoded(
        text.strip(), "bar" if code.bar else "holder", standard, write_holder(code), "", code.parts, None, "", seat, None, tuple(remarks)
    )


def _threading(text: str) -> Decoded:
    code = read_threading_code(text)
    remarks = ["Laydown threading codes are trade practice without a standard."]
    if code.pitch_range:
        remarks.append("A partial profile does not cut the crest: it fits many pitches, the outside diameter must be turned to size.")
    else:
        remarks.append("A full profile cuts the crest as well, one pitch only.")
    usual, why = write_threading(code), "3 corners of the triangle, lying down"
    return Decoded(text.strip(), "threading", "common-practice", usual, "", code.parts, 3, why, "", None, tuple(remarks))

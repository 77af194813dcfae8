"""Holders to ISO 5608 with the inch practice of ANSI B212.5, and boring bars to ISO 6261."""

from __future__ import annotations

import re
from dataclasses import dataclass
from types import MappingProxyType

from cutting.tooling.designations.letters import CLEARANCE_NAMES, HANDS, SHAPE_NAMES
from cutting.tooling.designations.parts import Part, Position, millimetres, squeeze
from cutting.tooling.shapes import size_code, size_codes


@dataclass(frozen=True)
class HolderCode:
    """What a holder's or bar's designation says; lengths in mm, angle in degrees. `size` is the seat's ISO 1832 size code."""

    text: str
    clamping: str
    shape: str
    style: str
    clearance: str
    hand: str
    shank_height: float  # the diameter of a bar
    shank_width: float
    length: float | None
    size: str
    cutting_edge_angle: float
    operations: tuple[str, ...]
    bar: str = ""  # type letter of a bar, blank for an external holder
    parts: tuple[Part, ...] = ()


# style letter -> (κr, what it can do outside); those that cut on the front only face (iso-5608, from memory)
STYLES: MappingProxyType[str, tuple[float, tuple[str, ...]]] = MappingProxyType(
    {
        "A": (90, ("turn",)),
        "B": (75, ("turn",)),
        "C": (90, ("face",)),
        "D": (45, ("turn",)),
        "E": (60, ("turn",)),
        "F": (90, ("face",)),
        "G": (90, ("turn",)),
        "H": (107.5, ("turn",)),
        "J": (93, ("turn",)),
        "K": (75, ("face",)),
        "L": (95, ("turn", "face")),
        "M": (50, ("turn",)),
        "N": (63, ("turn",)),
        "P": (117.5, ("turn",)),
        "R": (75, ("turn",)),
        "S": (45, ("turn", "face")),
        "T": (60, ("turn",)),
        "U": (93, ("face",)),
        "V": (72.5, ("turn",)),
        "W": (60, ("face",)),
        "Y": (85, ("face",)),
    }
)
# iso-6261 (from memory): the same letters on a bar, with Q
BAR_STYLES: MappingProxyType[str, float] = MappingProxyType(
    {"F": 90, "K": 75, "L": 95, "P": 117.5, "Q": 107.5, "S": 45, "U": 93, "W": 60, "Y": 85, "J": 93}
)
CLAMPINGS = MappingProxyType({"C": "top clamp", "D": "rigid top clamp", "M": "top and hole clamp", "P": "hole clamp", "S": "screw"})
LENGTHS = MappingProxyType(
    {"A": 32, "B": 40, "C": 50, "D": 60, "E": 70, "F": 80, "G": 90, "H": 100, "J": 110, "K": 125, "L": 140, "M": 150, "N": 160, "P": 170,
     "Q": 180, "R": 200, "S": 250, "T": 300, "U": 350, "V": 400, "W": 450, "X": None, "Y": 500}
)  # fmt: skip
# ansi-b212-5 (from memory): length in inches; the second half of the alphabet is qualified at the front
INCH_LENGTHS = MappingProxyType({"A": 4.0, "B": 4.5, "C": 5.0, "D": 6.0, "E": 7.0, "F": 8.0, "G": 5.5, "H": 14.0,
                                 "M": 4.0, "N": 4.5, "P": 5.0, "R": 6.0, "S": 7.0, "T": 8.0})  # fmt: skip
BAR_TYPES = MappingProxyType(
    {
        "S": "solid steel",
        "A": "steel with coolant through",
        "B": "steel, damped",
        "D": "steel, damped, with coolant through",
        "C": "carbide shank with steel head",
        "E": "carbide shank with steel head and coolant through",
        "F": "carbide shank, damped",
        "G": "carbide shank, damped, with coolant through",
        "H": "heavy metal",
        "J": "heavy metal with coolant through",
    }
)
BAR_DIAMETERS = ("06", "08", "10", "12", "16", "20", "25", "32", "40", "50", "60")
COOLED_BARS, CARBIDE_BARS = "ADEGJ", "CEFG"

_SIZE = r"(\d\d|S4|L3|\d(?:\.\d)?)"
_EXTERNAL = re.compile(rf"^([A-Z])([A-Z])([A-Z])([A-Z])([A-Z])(\d\d)(\d\d)([A-Z]){_SIZE}(.*)$")
_EXTERNAL_INCH = re.compile(r"^([A-Z])([A-Z])([A-Z])([A-Z])([A-Z])(\d\d)(\d(?:\.\d)?)([A-Z])(.*)$")
_BAR = re.compile(rf"^([A-Z])(\d\d)([A-Z])([A-Z])([A-Z])([A-Z])([A-Z])([A-Z]){_SIZE}(.*)$")


def looks_like_bar(text: str) -> bool:
    """A letter and two digits first, as S25T."""
    return bool(re.match(r"^[A-Z]\d\d", squeeze(text)))


def looks_like_holder(text: str) -> bool:
    """Five letters before the first digit, or the letter and diameter of a bar."""
    return bool(re.match(r"^[A-Z]{5}\d", squeeze(text))) or looks_like_bar(text)


def read_holder_code(text: str, field: str = "designation") -> HolderCode:
    """Read a holder (`PCLNR 2525 M12`, `DCLNL 16-4D`) or a bar (`S25T-SCLCR 09`).

    Raises `UnreadableDesignation` that names the position at fault and what is allowed there.

    >>> read_holder_code("DCLNL 16-4D").shank_height
    25.4
    """
    if looks_like_bar(text):
        return read_bar_code(text, field)
    code = squeeze(text)
    seat = _seat_parts(text, code[:5], field, 1)
    if found := _EXTERNAL.match(code):
        return _metric(text, found, seat, field)
    if found := _EXTERNAL_INCH.match(code):
        return _inch(text, found, seat, field)
    place = Position(6, "shank", text.strip(), field)
    return place.refuse(code[5:9], "height and width in mm, length letter and insert size, as 2525 M12; in inches, as 16-4D")


def read_bar_code(text: str, field: str = "designation") -> HolderCode:
    """Read an ISO 6261 boring bar such as `S25T-SCLCR 09`. Raises `UnreadableDesignation`.

    >>> read_bar_code("A16R-SCLCR 09").shank_height
    16.0
    """
    code, shown = squeeze(text), text.strip()
    kind = Position(1, "type of bar", shown, field).choose(code[:1], BAR_TYPES)
    found = _BAR.match(code)
    if not found:
        if not code[3:4].isalpha():
            Position(3, "length", shown, field).refuse(code[3:4], " ".join(LENGTHS))
        Position(9, "insert size", shown, field).refuse(
            code[9:], "letters for clamping, shape, style, clearance and hand, then two digits, as SCLCR 09"
        )
        raise AssertionError
    _, diameter, length, *letters, size, _rest = found.groups()
    inch = len(size) != 2 or "." in size
    if not inch and diameter not in BAR_DIAMETERS:
        Position(2, "diameter", shown, field).refuse(diameter, " ".join(BAR_DIAMETERS))
    across = int(diameter) * 25.4 / 16 if inch else float(diameter)
    reach = Position(3, "length", shown, field).choose(length, _length_words(LENGTHS))
    seat = _seat_parts(shown, "".join(letters), field, 4, bar=True)
    seat_size, size_part = _seat_size(shown, letters[1], size, Position(9, "insert size", shown, field))
    style = letters[2]
    return HolderCode(
        shown,
        letters[0],
        letters[1],
        style,
        letters[3],
        letters[4],
        across,
        across,
        None if LENGTHS[length] is None else float(LENGTHS[length] or 0),
        seat_size,
        BAR_STYLES[style] if letters[1] != "R" else 90.0,
        ("bore",),
        kind.code,
        (kind, Part("2", diameter, "diameter", millimetres(across)), reach, *seat, size_part),
    )


def _seat_parts(text: str, letters: str, field: str, first: int, bar: bool = False) -> tuple[Part, ...]:
    styles = (
        {s: f"κr {k:g}°" for s, k in BAR_STYLES.items()} if bar else {s: f"κr {k:g}°, {' and '.join(o)}" for s, (k, o) in STYLES.items()}
    )
    choices = (
        ("clamping", CLAMPINGS),
        ("insert shape", SHAPE_NAMES),
        ("style", styles),
        ("insert clearance", CLEARANCE_NAMES),
        ("hand", HANDS),
    )
    return tuple(
        Position(first + k, name, text.strip(), field).choose(letters[k : k + 1], allowed) for k, (name, allowed) in enumerate(choices)
    )


def _metric(text: str, found: re.Match[str], seat: tuple[Part, ...], field: str) -> HolderCode:
    clamping, shape, style, clearance, hand, height, width, length, size, _ = found.groups()
    shown = text.strip()
    reach = Position(8, "length", shown, field).choose(length, _length_words(LENGTHS))
    seat_size, size_part = _seat_size(shown, shape, size, Position(9, "insert size", shown, field))
    parts = (
        *seat,
        Part("6", height, "shank height", millimetres(float(height))),
        Part("7", width, "shank width", millimetres(float(width))),
        reach,
        size_part,
    )
    angle, operations = _style(shape, style)
    reach_mm = LENGTHS[length]
    return HolderCode(shown, clamping, shape, style, clearance, hand, float(height), float(width),
                      None if reach_mm is None else float(reach_mm), seat_size, angle, operations, "", parts)  # fmt: skip


def _inch(text: str, found: re.Match[str], seat: tuple[Part, ...], field: str) -> HolderCode:
    """ANSI B212.5: a square shank in sixteenths; a rectangular one, from 80 on, as eighths of width and quarters of height."""
    clamping, shape, style, clearance, hand, shank, size, length, _ = found.groups()
    shown = text.strip()
    number = int(shank)
    # 33 and more: shanks of unlike height and width in quarters (ANSI B212.5)
    square = number < 33 or shank[0] == shank[1] == "0"
    width = number / 16 if square else int(shank[0]) / 8
    height = number / 16 if square else int(shank[1]) / 4
    place = Position(6, "shank", shown, field)
    if not 0.25 <= width <= 2.5 or not 0.25 <= height <= 2.5:
        place.refuse(shank, "sixteenths of an inch of a square shank, as 16 for 1 in, or eighths of width and quarters of height, as 86")
    reach = Position(8, "length", shown, field).choose(length, {k: f"{v:g} in" for k, v in INCH_LENGTHS.items()})
    seat_size, size_part = _seat_size(shown, shape, size, Position(7, "insert size", shown, field))
    said = f"{height:g} × {width:g} in" + (" square, counted in sixteenths" if square else ", width in eighths and height in quarters")
    angle, operations = _style(shape, style)
    parts = (*seat, Part("6", shank, "shank", said), size_part, reach)
    return HolderCode(shown, clamping, shape, style, clearance, hand, height * 25.4, width * 25.4, INCH_LENGTHS[length] * 25.4, seat_size,
                      angle, operations, "", parts)  # fmt: skip


def _style(shape: str, style: str) -> tuple[float, tuple[str, ...]]:
    return (90.0, ("turn", "face")) if shape == "R" else STYLES[style]


def _seat_size(text: str, shape: str, size: str, place: Position) -> tuple[str, Part]:
    """The seat's size as ISO 1832 writes it; one digit counts eighths of an inch of the circle."""
    if len(size) == 2 and "." not in size:
        known = size_codes(shape)
        if known and size not in known:
            place.refuse(size, f"for shape {shape} {' '.join(known)}")
        circle = known.get(size)
        return size, Part(str(place.number), size, place.name, f"circle {millimetres(circle)}" if circle else f"size {size}")
    inches = float(size) / 8
    code = size_code(shape, inches * 25.4)
    if code is None:
        place.refuse(size, "eighths of an inch of the insert's circle")
    return code, Part(str(place.number), size, place.name, f"circle {inches:g} in, the metric size {code}")


def _length_words(lengths: MappingProxyType[str, int | None]) -> dict[str, str]:
    return {letter: f"{value} mm" if value else "special length" for letter, value in lengths.items()}


def write_holder(code: HolderCode) -> str:
    """The designation in its usual spacing, metric: `PCLNR 2525 M12`, `S25T-SCLCR 09`; inch ones as they were, upper case."""
    letters = f"{code.clamping}{code.shape}{code.style}{code.clearance}{code.hand}"
    if "in" in code.parts[5].meaning and not code.bar:
        return f"{letters} {code.parts[5].code}-{code.parts[6].code}{code.parts[7].code}"
    if code.bar:
        return f"{code.bar}{code.parts[1].code}{code.parts[2].code}-{letters} {code.parts[-1].code}"
    return f"{letters} {code.parts[5].code}{code.parts[6].code} {code.parts[7].code}{code.parts[8].code}"

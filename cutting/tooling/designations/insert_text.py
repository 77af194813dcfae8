"""Takes an ISO 1832 designation apart: metric or inch practice, with what each position says."""

from __future__ import annotations

import re
from collections.abc import Iterator
from dataclasses import dataclass
from functools import cache, lru_cache

from cutting.tables import read_table
from cutting.tooling.designations.letters import CLEARANCE_NAMES, FIXING_NAMES, SHAPE_NAMES, TOLERANCES
from cutting.tooling.designations.parts import Part, Position, UnreadableDesignation, millimetres, squeeze
from cutting.tooling.designations.tipping import Suffix, read_suffix
from cutting.tooling.shapes import SHAPES, size_code, size_codes

INCH = 25.4
QUARTER_INCH = 6.35
LENGTH_SIZED = "LABK"  # the size is the main edge's length; the width is not in the code
AS_ITS_MAKER_SAYS = "special: as its maker says"
# how thick inserts are for their circle; decides between eighths and thirty-seconds (common practice, no source)
THINNEST, THICKEST = 0.24, 0.55


@dataclass(frozen=True)
class InsertText:
    """A designation taken apart; lengths in mm, None where the code does not say."""

    text: str
    system: str  # metric or inch
    shape: str
    clearance: str
    tolerance: str
    fixing: str
    inscribed_circle: float | None
    edge_length: float | None
    thickness: float | None
    nose_radius: float | None
    metric_round: bool
    suffix: Suffix
    parts: tuple[Part, ...]


@cache
def thickness_codes() -> dict[str, float]:
    """Thickness code of ISO 1832 to thickness S [mm]."""
    return {row["code"]: row.number("thickness") for row in read_table("tooling/designations/thicknesses.csv")}


@cache
def sixteenths() -> dict[str, float]:
    """Thickness in sixteenths of an inch as written to thickness S [mm]."""
    rows = read_table("tooling/designations/thicknesses.csv")
    return {row["sixteenths"]: row.number("thickness") for row in rows if row["sixteenths"]}


@cache
def corner_codes() -> dict[str, float]:
    """Corner code to nose radius rε [mm]; 00 is sharp."""
    return {row["code"]: row.number("nose_radius") for row in read_table("tooling/designations/corners.csv")}


@cache
def sixty_fourths() -> dict[str, float]:
    """Corner in sixty-fourths of an inch as written to nose radius rε [mm]."""
    rows = read_table("tooling/designations/corners.csv")
    return {row["sixty_fourths"]: row.number("nose_radius") for row in rows if row["sixty_fourths"]}


_METRIC = re.compile(r"^(\d\d|S4|L3)([0-9T]\d)(M0|\d\d|X\d|[A-Z][A-Z0-9])(.*)$")
_NUMBER = re.compile(r"^(\d[\d.]*X?)(.*)$")


@lru_cache(maxsize=20_000)
def take_apart(text: str, field: str = "designation") -> InsertText:
    """Take an insert designation apart, metric (`CNMG 120408`) or inch (`CNMG 432`, `CNMG 431.5`).

    Blanks, dashes and lower case are understood; what follows position 7 and is not in the standard is kept as typed.
    Raises `UnreadableDesignation` that names the position at fault and what is allowed there.

    >>> take_apart("cnmg-432").nose_radius
    0.8
    """
    code = re.sub(r"^(.{4}\d\d)\.([0-9T]\d)\.(\d\d|M0)", r"\1\2\3", squeeze(text))
    letters = letters_of(text, field)
    shape, clearance, tolerance, fixing = (part.code for part in letters)
    rest = code[4:]
    size = Position(5, "size", text.strip(), field)
    if not re.match(r"\d|S4|L3", rest):
        size.refuse(rest[:2], _size_words(shape))
    metric = _METRIC.match(rest)
    digits = _NUMBER.match(rest)
    looks_metric = metric is not None and "." not in rest[:6]
    if looks_metric and metric is not None:
        dims, parts, trailing = _metric(shape, fixing == "X", metric, text.strip(), field)
    elif digits is not None and len(digits[1].replace(".", "")) <= 6:
        dims, parts, trailing = _inch(shape, clearance, digits, text.strip(), field)
    else:
        size.refuse(rest[:2], _size_words(shape))
    suffix = read_suffix(_as_typed(text, trailing) if trailing else "")
    circle, edge, thickness, nose, metric_round = dims
    return InsertText(
        text.strip(),
        "metric" if looks_metric else "inch",
        shape,
        clearance,
        tolerance,
        fixing,
        circle,
        edge,
        thickness,
        nose,
        metric_round,
        suffix,
        (*letters, *parts, *suffix.parts),
    )


Dimensions = tuple[float | None, float | None, float | None, float | None, bool]


def letters_of(text: str, field: str = "designation") -> list[Part]:
    """The four letters that a designation begins with, each with what it says. Raises `UnreadableDesignation` for one that is none."""
    code = squeeze(text)
    names = ("shape", "clearance", "tolerance class", "fixing and chipbreaker")
    allowed = (SHAPE_NAMES, CLEARANCE_NAMES, _tolerance_names(), FIXING_NAMES)
    return [
        Position(k + 1, name, text.strip(), field).choose(code[k : k + 1], choices)
        for k, (name, choices) in enumerate(zip(names, allowed, strict=True))
    ]


def _as_typed(text: str, trailing: str) -> str:
    """The end of the text that squeezes to `trailing`, with its blanks and dashes."""
    for start in range(len(text), -1, -1):
        if squeeze(text[start:]) == trailing:
            return text[start:].strip().upper()
    return trailing


def _metric(shape: str, special: bool, found: re.Match[str], text: str, field: str) -> tuple[Dimensions, tuple[Part, ...], str]:
    size, thick, corner, trailing = found.groups()
    edge: float | None = None
    circle: float | None = None
    if shape in LENGTH_SIZED:
        edge = float(size)
        said = f"main edge {size} mm, whole millimetres; the width is not in the code"
    elif shape == "R":
        circle = _round_circle(size, corner)
        said = f"diameter {millimetres(circle)}"
    else:
        circle = size_codes(shape).get(size)
        if circle is None and not special:
            Position(5, "size", text, field).refuse(size, _size_words(shape))
        said = (
            f"inscribed circle {circle:g} mm, edge {(SHAPES[shape].edge_per_circle or 1) * circle:.1f} mm" if circle else AS_ITS_MAKER_SAYS
        )
    thickness = thickness_codes().get(thick)
    if thickness is None and not special:
        Position(6, "thickness", text, field).refuse(thick, " ".join(thickness_codes()))
    nose, words = _corner(shape, corner, circle, text, field)
    parts = (
        Part("5", size, "size", said),
        Part("6", thick, "thickness", f"S = {thickness:g} mm" if thickness else AS_ITS_MAKER_SAYS),
        Part("7", corner, "corner", words),
    )
    return (circle, edge, thickness, nose, corner == "M0"), parts, trailing


def _round_circle(size: str, corner: str) -> float:
    """M0 counts millimetres; 00 counts an inch circle whose whole millimetres are written."""
    if corner != "M0":
        inch_based = {
            int(row.number("inscribed_circle")): row.number("inscribed_circle") for row in read_table("tooling/designations/sizes.csv")
        }
        return inch_based.get(int(size), float(size))
    return float(size)


def _corner(shape: str, corner: str, circle: float | None, text: str, field: str) -> tuple[float | None, str]:
    place = Position(7, "corner", text, field)
    if corner in ("M0", "00") and shape == "R":
        return (circle or 0) / 2, "round: M0 for a metric diameter" if corner == "M0" else "round: 00 for an inch diameter"
    if corner == "M0":
        place.refuse(corner, f"M0 is for round inserts; else {' '.join(corner_codes())}")
    if corner in corner_codes():
        nose = corner_codes()[corner]
        return nose, f"nose radius {millimetres(nose)}" if nose else "sharp corner"
    if corner[0].isalpha():
        return None, "facets instead of a radius, as its maker says"
    place.refuse(corner, " ".join(corner_codes()))


def _inch(shape: str, clearance: str, found: re.Match[str], text: str, field: str) -> tuple[Dimensions, tuple[Part, ...], str]:
    digits, trailing = found[1], found[2]
    readings = list(_splits(shape, digits))
    if not readings:
        _refuse_inch(shape, digits, text, field)
    # circle, thickness, corner, words of each; more than one reading only where thirty-seconds and eighths both make sense
    if len({(r[1][0], r[1][1], r[1][2]) for r in readings}) > 1:
        words = " or ".join(f"{' · '.join(r[0])} (circle {r[1][0]:g} mm, thickness {r[1][1]:g} mm)" for r in readings)
        raise UnreadableDesignation(field, f"'{text}' has two readings: {words}. Write the metric designation.", words)
    split, (circle, thickness, nose) = readings[0]
    unit = "1/32" if _small(split[0], circle) else "1/8"
    counted = f"{split[0]}/{unit.split('/')[1]} in" if "." not in split[0] else f"{split[0]} eighths of an inch"
    parts = [
        Part("5", split[0], "size", f"inscribed circle {counted} = {millimetres(circle)}"),
        Part("6", split[1], "thickness", f"S = {millimetres(thickness)}, counted in 1/{32 if unit == '1/32' else 16} in"),
    ]
    if shape == "R":
        nose = circle / 2
    if len(split) > 2:
        words = (
            "not a plain radius, as its maker says" if nose is None else (f"nose radius {millimetres(nose)}" if nose else "sharp corner")
        )
        parts.append(Part("7", split[2], "corner", words if shape == "R" else f"{words}, counted in 1/64 in"))
    return (circle, None, thickness, nose, False), tuple(parts), trailing


def _small(size: str, circle: float) -> bool:
    return circle < QUARTER_INCH - 0.01 and "." not in size


Split = tuple[tuple[str, ...], tuple[float, float, float | None]]


def _splits(shape: str, digits: str) -> Iterator[Split]:
    """Every way to read the digits as size, thickness and corner that gives an insert that can be."""
    for count in (3, 2) if shape == "R" else (3,):
        for split in _shares(digits, count):
            for circle, thickness in _circles(split[0], split[1]):
                if size_code(shape, circle) is None or not THINNEST <= thickness / circle <= THICKEST:
                    continue
                if count == 2 or split[2] == "X":
                    yield split, (circle, thickness, None)
                elif split[2] in sixty_fourths():
                    yield split, (circle, thickness, sixty_fourths()[split[2]])


def _shares(digits: str, count: int) -> Iterator[tuple[str, ...]]:
    """All ways to share digits among so many places: each takes one digit, one with a decimal, or 10."""
    if count == 0:
        if not digits:
            yield ()
        return
    for shape_of_place in (r"10", r"\d\.\d", r"[\dX]"):
        found = re.match(shape_of_place, digits)
        if found:
            for rest in _shares(digits[found.end() :], count - 1):
                yield (found[0], *rest)


def _circles(size: str, thick: str) -> Iterator[tuple[float, float]]:
    """Circle and thickness [mm]: eighths and sixteenths; below a quarter inch thirty-seconds of both."""
    circles = [row.number("inscribed_circle") for row in read_table("tooling/designations/sizes.csv")]
    by_eighths = {1.2: 3.97, 1.5: 4.76, 1.8: 5.56}  # 1.2, 1.5, 1.8 of an eighth, as they are written
    count = float(size)
    eighths = by_eighths.get(count, count * INCH / 8)
    if (circle := _near(circles, eighths)) and thick in sixteenths():
        yield circle, sixteenths()[thick]
    if "." not in size and (circle := _near(circles, count * INCH / 32)) and circle < QUARTER_INCH - 0.01:
        thickness = _near(list(thickness_codes().values()), float(thick) * INCH / 32)
        if thickness:
            yield circle, thickness


def _near(known: list[float], value: float) -> float | None:
    return next((k for k in known if abs(k - value) < 0.03), None)


def _refuse_inch(shape: str, digits: str, text: str, field: str) -> None:
    if len(digits) in (2, 4) and digits[:2] in size_codes(shape):  # a metric code that stops early
        if len(digits) == 2:
            Position(6, "thickness", text, field).refuse("", " ".join(thickness_codes()))
        Position(7, "corner", text, field).refuse("", " ".join(corner_codes()))
    if len(digits.replace(".", "")) > 4 and "." not in digits:
        Position(5, "size", text, field).refuse(digits[:2], _size_words(shape))
    for split in _shares(digits, 3):
        possible = list(_circles(split[0], split[1]))
        if possible and all(size_code(shape, circle) is None for circle, _ in possible):
            Position(5, "size", text, field).refuse(split[0], _size_words(shape))
        if possible and split[2] not in sixty_fourths():
            Position(7, "corner", text, field).refuse(split[2], f"sixty-fourths of an inch: {' '.join(sixty_fourths())} X")
        if not possible and split[1] not in sixteenths():
            Position(6, "thickness", text, field).refuse(split[1], f"sixteenths of an inch: {' '.join(sixteenths())}")
    Position(5, "size", text, field).refuse(digits, f"{_size_words(shape)}; inch practice writes size, thickness and corner, as 432")


def _size_words(shape: str) -> str:
    if shape == "R":
        return "the diameter, as 08 10 12 16 20 25 32"
    if shape in LENGTH_SIZED:
        return "two digits, the main edge in whole millimetres"
    return f"for shape {shape} " + " ".join(size_codes(shape))


@cache
def _tolerance_names() -> dict[str, str]:
    return {letter: _tolerance_text(letter) for letter in TOLERANCES}


def _tolerance_text(letter: str) -> str:
    tolerance = TOLERANCES[letter]
    circle, corner = tolerance.circle, tolerance.corner
    grows = "; wider for larger circles" if not isinstance(circle, float) else ""
    first = circle if isinstance(circle, float) else circle[0][1]
    height = corner if isinstance(corner, float) else corner[0][1]
    return f"circle ±{first:g}, corner ±{height:g}, thickness ±{tolerance.thickness:g} mm{grows}"

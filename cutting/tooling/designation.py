"""Reads turning insert designations of ISO 1832 and holder designations of ISO 5608."""

from __future__ import annotations

import re
from dataclasses import dataclass
from types import MappingProxyType

from cutting.errors import CuttingError
from cutting.tooling.shapes import CLEARANCES, FIXING_SIDES, SHAPES, THICKNESSES, TOLERANCES, circle_of_size, edge_length


@dataclass(frozen=True)
class InsertCode:
    """What an ISO 1832 designation says; lengths in mm, clearance in degrees."""

    text: str
    shape: str
    clearance: str
    inscribed_circle: float
    thickness: float
    nose_radius: float
    edge_length: float
    sides: int
    corners: int


@dataclass(frozen=True)
class HolderCode:
    """What an ISO 5608 designation says; lengths in mm, angle in degrees."""

    text: str
    clamping: str
    shape: str
    style: str
    clearance: str
    hand: str
    shank_height: float
    shank_width: float
    length: float
    size: str
    cutting_edge_angle: float
    operations: tuple[str, ...]


class UnreadableDesignation(CuttingError):
    """A code that the standard does not allow; the message names the position."""


# style letter -> (κr, what it can do); F, K and the others that cut on the front only face
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
        "N": (63, ("turn",)),
        "R": (75, ("turn",)),
        "S": (45, ("turn", "face")),
        "T": (60, ("turn",)),
        "U": (93, ("face",)),
        "V": (72.5, ("turn",)),
    }
)
CLAMPINGS = MappingProxyType({"C": "top clamp", "D": "rigid top clamp", "M": "top and hole clamp", "P": "hole clamp", "S": "screw"})
LENGTHS = MappingProxyType(
    {"D": 60, "E": 70, "F": 80, "H": 100, "K": 125, "L": 140, "M": 150, "P": 170, "Q": 180, "R": 200, "S": 250, "T": 300}
)

_INSERT = re.compile(r"^([A-Z])([A-Z])([A-Z])([A-Z])(\d\d)([0-9T]\d)(M0|00|\d\d)([A-Z]{0,3})$")
_HOLDER = re.compile(r"^([A-Z])([A-Z])([A-Z])([A-Z])([A-Z])(\d\d)(\d\d)([A-Z])(\d\d)$")


def read_insert_code(text: str, field: str = "designation") -> InsertCode:
    """Read an ISO 1832 metric designation such as `CNMG 120408`, `ccmt-09t304`, `RCMT 1204M0`.

    Raises `UnreadableDesignation` that names the position at fault and what is allowed there.

    >>> read_insert_code("CNMG 120408").nose_radius
    0.8
    """
    found = _INSERT.match(re.sub(r"[\s\-_]+", "", text).upper())
    if not found:
        raise UnreadableDesignation(
            field, f"'{text}' is not an ISO 1832 designation: four letters, size, thickness and corner, as CNMG 120408."
        )
    shape, clearance, tolerance, fixing, size, thickness, corner, _ = found.groups()
    _allowed(field, text, "position 1 (shape)", shape, SHAPES)
    _allowed(field, text, "position 2 (clearance)", clearance, CLEARANCES)
    _allowed(field, text, "position 3 (tolerance)", tolerance, TOLERANCES)
    _allowed(field, text, "position 4 (fixing and chipbreaker)", fixing, FIXING_SIDES)
    _allowed(field, text, "position 6 (thickness)", thickness, THICKNESSES)
    form = SHAPES[shape]
    circle = circle_of_size(form, size)
    if circle is None:
        raise UnreadableDesignation(field, f"in '{text}' position 5 (size) '{size}' is not a size of shape {shape}.")
    if corner in ("M0", "00"):
        if shape != "R":
            raise UnreadableDesignation(field, f"in '{text}' position 7 (corner) '{corner}' is for round inserts only.")
        nose = circle / 2
    else:
        nose = int(corner) / 10
    return InsertCode(
        text, shape, clearance, circle, THICKNESSES[thickness], nose, edge_length(form, circle), FIXING_SIDES[fixing], form.corners
    )


def read_holder_code(text: str, field: str = "designation") -> HolderCode:
    """Read an ISO 5608 designation such as `PCLNR 2525 M12`. Raises `UnreadableDesignation`."""
    found = _HOLDER.match(re.sub(r"[\s\-_]+", "", text).upper())
    if not found:
        raise UnreadableDesignation(
            field, f"'{text}' is not an ISO 5608 designation: five letters, shank height and width, length letter, size."
        )
    clamping, shape, style, clearance, hand, height, width, length, size = found.groups()
    _allowed(field, text, "position 1 (clamping)", clamping, CLAMPINGS)
    _allowed(field, text, "position 2 (shape)", shape, SHAPES)
    _allowed(field, text, "position 3 (style)", style, STYLES)
    _allowed(field, text, "position 4 (clearance)", clearance, CLEARANCES)
    _allowed(field, text, "position 5 (hand)", hand, "RLN")
    _allowed(field, text, "position 8 (length)", length, LENGTHS)
    angle, operations = STYLES[style]
    if shape == "R":
        angle, operations = 90.0, ("turn", "face")
    return HolderCode(
        text, clamping, shape, style, clearance, hand, float(height), float(width), float(LENGTHS[length]), size, angle, operations
    )


def _allowed(field: str, text: str, position: str, letter: str, allowed: object) -> None:
    letters = list(allowed)  # type: ignore[call-overload]
    if letter not in letters:
        raise UnreadableDesignation(
            field,
            f"in '{text}' {position} is '{letter}'; allowed are {' '.join(sorted(letters))}.",
            " ".join(sorted(letters)),
        )

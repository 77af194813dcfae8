"""Converts hardness and tensile strength of unalloyed and low-alloy steel by the table of ISO 18265, and refuses beyond it."""

from __future__ import annotations

import re
from dataclasses import dataclass
from functools import cache
from types import MappingProxyType

import numpy as np

from cutting.errors import CuttingError, OutOfRange
from cutting.tables import read_table
from cutting.workpiece.materials import Group

SCALES = MappingProxyType(
    {
        "HV": "Vickers",
        "HB": "Brinell, hardmetal ball",
        "HRB": "Rockwell B",
        "HRC": "Rockwell C",
        "HRA": "Rockwell A",
        "Rm": "tensile strength, MPa",
    }
)
STANDARD = "iso-18265"
BALL = 0.95  # Brinell over Vickers hardness, by which the table's Brinell column is made and goes on above its end (ISO 18265)
SAID_BY_CONE = 450.0  # HB from which people say a hardness in HRC (common practice)
_SPELLINGS = {
    "HBW": "HB",
    "BHN": "HB",
    "HBS": "HB",
    "MPA": "Rm",
    "RM": "Rm",
    "N/MM2": "Rm",
    "N/MM²": "Rm",
    "RC": "HRC",
    "RB": "HRB",
    "KSI": "ksi",
}
KSI = 6.894757  # MPa
HARD_STEEL = (38, 39)  # groups of VDI 3323


@dataclass(frozen=True)
class Converted:
    """One value on every scale that the table has for it; `missing` says for the others why there is none."""

    given: float
    scale: str
    values: MappingProxyType[str, float]
    missing: MappingProxyType[str, str]


@cache
def _columns() -> dict[str, tuple[np.ndarray, np.ndarray]]:
    """Scale to (values, Vickers hardness), where the table has both."""
    rows = read_table("workpiece/hardness.csv")
    return {
        scale: (
            np.array([row.number(scale) for row in rows if row[scale]]),
            np.array([row.number("HV") for row in rows if row[scale]]),
        )
        for scale in SCALES
    }


def validity(scale: str) -> tuple[float, float]:
    """The least and the largest value of a scale in the table."""
    values = _columns()[scale][0]
    return float(values[0]), float(values[-1])


def convert(value: float, scale: str, group: Group | None = None) -> Converted:
    """A hardness or tensile strength on every other scale, by linear interpolation of ISO 18265 table A.1.

    `scale` is one of HV, HB, HRB, HRC, HRA, Rm [MPa]. `group`, where given, is the metal's machinability group.
    Raises `OutOfRange` beyond the table, `CuttingError` for metals that the table is not made for: austenitic and
    duplex steel, cast iron, non-ferrous metals, titanium and heat-resistant alloys.

    >>> round(convert(300, "HV").values["HRC"], 1)
    29.8
    """
    if scale not in SCALES:
        raise CuttingError("scale", f"'{scale}' is none of {', '.join(SCALES)}.", ", ".join(SCALES))
    if group is not None:
        refuse_uncovered(group)
    low, high = validity(scale)
    if not low <= value <= high:
        raise OutOfRange(
            "value", f"{value:g} {scale} is outside the table of ISO 18265, {low:g} to {high:g} {scale}; beyond it nothing is guessed.",
            f"{low:g} to {high:g} {scale}",
        )  # fmt: skip
    own, vickers = _columns()[scale]
    hv = float(np.interp(value, own, vickers))
    values, missing = {}, {}
    for name, (column, at) in _columns().items():
        if name == scale:
            values[name] = float(value)
        elif at[0] <= hv <= at[-1]:
            values[name] = float(np.interp(hv, at, column))
        else:
            edge = f"{'below' if hv < at[0] else 'above'} {column[0] if hv < at[0] else column[-1]:g} {name}"
            missing[name] = f"{edge} the table ends"
    return Converted(float(value), scale, MappingProxyType(values), MappingProxyType(missing))


def refuse_uncovered(group: Group) -> None:
    """Raise `CuttingError` where the steel table says nothing about a group."""
    if group.letter == "P" or group.number in HARD_STEEL:
        return
    what = "austenitic and duplex steel" if group.letter == "M" else group.description
    raise CuttingError(
        "group", f"ISO 18265 table A.1 is for unalloyed and low-alloy steel, not for {what}; strength comes from the material's own data."
    )


def read_hardness(text: str, field: str = "hardness") -> tuple[float, str]:
    """A hardness with its scale: `300 HB`, `HRC 58`, `1000 MPa`, `145 ksi`; a bare number is Brinell.

    Raises `CuttingError` naming the scales. Tensile strength comes back in MPa.

    >>> read_hardness("HRC 58")
    (58.0, 'HRC')
    """
    found = re.fullmatch(r"\s*([A-Za-z/²\d]*?[A-Za-z²])?\s*(\d+(?:\.\d+)?)\s*([A-Za-z/²]+\d?)?\s*", text)
    if not found or (found[1] and found[3]):
        raise CuttingError(field, f"'{text}' is not a hardness such as 300 HB, 58 HRC or 1000 MPa.", ", ".join(SCALES))
    word = (found[1] or found[3] or "HB").upper()
    scale = _SPELLINGS.get(word, word)
    value = float(found[2])
    if scale == "ksi":
        return value * KSI, "Rm"
    if scale not in SCALES:
        raise CuttingError(field, f"'{word}' is no scale of hardness; known are {', '.join(SCALES)} and ksi.", ", ".join(SCALES))
    return value, scale


HARDENED = (38, 39, 41)  # groups of VDI 3323 whose hardness goes beyond the ball's limit


def vickers(hardness: float) -> float:
    """Vickers hardness [HV] of a Brinell number, or of one that goes on above the ball's limit as 0.95 × HV. Source: ISO 18265.

    >>> round(vickers(662.6), 1)
    697.5
    """
    own, at = _columns()["HB"]
    return float(np.interp(hardness, own, at)) if hardness <= own[-1] else hardness / BALL


def rockwell(hardness: float) -> float | None:
    """Rockwell hardness [HRC] of a Brinell number as it travels, None below the scale and beyond the table. Source: ISO 18265.

    >>> round(rockwell(662.6), 1)
    60.0
    """
    value, at = _columns()["HRC"]
    hv = vickers(hardness)
    return float(np.interp(hv, at, value)) if at[0] <= hv <= at[-1] else None


def told(low: float, high: float | None = None) -> str:
    """A hardness, or a range of it, as people say it: Brinell, and of hardened metals Rockwell C.

    >>> told(210, 250), told(640.9, 684.3)
    ('210 – 250 HB', '59 – 61 HRC')
    """
    most = low if high is None else high
    cone = rockwell(low) is not None and rockwell(most) is not None and low >= SAID_BY_CONE
    scale = "HRC" if cone else "HB"
    ends = [f"{rockwell(one) if cone else one:.0f}" for one in dict.fromkeys((low, most))]
    return f"{' – '.join(dict.fromkeys(ends))} {scale}"


def brinell(text: str, group: Group, field: str = "hardness") -> float:
    """Brinell hardness [HB] from what was typed on any scale, for a metal of a group.

    A bare number and HB itself pass as they are; above the ball's limit a hardened metal's is 0.95 × HV.
    Raises `CuttingError` where the standard does not convert.
    """
    value, scale = read_hardness(text, field)
    if scale == "HB":
        return value
    try:
        made = convert(value, scale, group)
    except CuttingError as error:
        error.field = field
        raise
    if "HB" not in made.values:
        if group.number in HARDENED:  # above the ball's limit the number goes on by its share of the Vickers hardness
            return BALL * made.values["HV"]
        raise OutOfRange(field, f"{value:g} {scale} has no Brinell hardness: {made.missing['HB']}.")
    return made.values["HB"]

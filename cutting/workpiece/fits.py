"""Limits and fits to ISO 286: tolerance grades and fundamental deviations to 500 mm, as tables.

The tables are shipped because the standard's rounding cannot be had from its formula in every cell.
Source: ISO 286-1:2010 and ISO 286-2:2010, from memory.
"""

from __future__ import annotations

from bisect import bisect_left

from cutting.errors import OutOfRange, UnknownName
from cutting.tables import read_table

RANGES = (3, 6, 10, 18, 30, 50, 80, 120, 180, 250, 315, 400, 500)
_GRADES = {row["grade"]: row.floats("micrometres") for row in read_table("workpiece/iso286_grades.csv")}
_SHAFTS = {row["letter"]: row.floats("micrometres") for row in read_table("workpiece/iso286_shafts.csv")}
_UPPER_SIDE = ("d", "e", "f", "g", "h")  # letters whose row is the upper deviation es; the others give ei


def tolerance_grade(nominal: float, grade: int) -> float:
    """Standard tolerance IT, mm, for a nominal size [mm] and a grade 1 to 18.

    Raises `OutOfRange` above 500 mm or outside the grades. A nominal on a boundary belongs to the lower range.
    """
    if f"IT{grade}" not in _GRADES:
        raise OutOfRange("tolerance", f"IT{grade} is outside IT1 to IT18.", "IT1 to IT18")
    return _GRADES[f"IT{grade}"][_range(nominal)] / 1000


def deviations(nominal: float, letter: str, grade: int) -> tuple[float, float]:
    """Upper and lower deviation, mm, of a tolerance class such as H7 or g6.

    Raises `UnknownName` for letters that the table does not hold, `OutOfRange` beyond it.
    """
    width = tolerance_grade(nominal, grade)
    if letter in ("js", "JS"):
        return width / 2, -width / 2
    shaft = letter.lower()
    if shaft not in _SHAFTS:
        raise UnknownName("tolerance", f"the deviation letter '{letter}' is not in the table.", None, tuple(sorted(_SHAFTS) + ["js"]))
    row = _SHAFTS[shaft][_range(nominal)] / 1000
    if letter == shaft:
        if shaft in _UPPER_SIDE:
            return row, round(row - width, 6)
        if shaft == "k" and not 4 <= grade <= 7:
            row = 0.0
        return round(row + width, 6), row
    return _hole(nominal, letter, grade, row, width)


def _hole(nominal: float, letter: str, grade: int, row: float, width: float) -> tuple[float, float]:
    if letter.lower() in _UPPER_SIDE:
        return round(-row + width, 6), -row or 0.0
    if letter == "M" and grade == 6 and 250 < nominal <= 315:  # the exception of ISO 286-1 for M6
        return -0.009, -0.041  # the published exception
    if letter == "N" and grade > 8:
        upper = 0.0 if nominal > 3 else -row
    elif letter == "K" and grade > 8 and nominal > 3:
        raise OutOfRange("tolerance", "K is defined to grade 8 above 3 mm.", "K1 to K8")
    else:
        shift_to = 7 if letter == "P" else 8
        shift = width - tolerance_grade(nominal, grade - 1) if nominal > 3 and 3 < grade <= shift_to else 0.0
        upper = -row + shift
    return round(upper, 6), round(upper - width, 6)


def _range(nominal: float) -> int:
    if not 0 < nominal <= RANGES[-1]:
        raise OutOfRange("diameter", f"{nominal:g} mm is outside the table of ISO 286 here.", "over 0 to 500 mm")
    return bisect_left(RANGES, nominal)

"""Tools that come in series: every size of a row of the shipped crib, with lengths, price and shank as they grow with the diameter.

A line of `series.csv` names the tool that its sizes are like; whatever it does not tell is that tool's own.
"""

from __future__ import annotations

import re
from collections.abc import Iterator
from fractions import Fraction
from string import ascii_uppercase

import numpy as np

from cutting.quantities.drill_gauges import INCH, gauge_sizes
from cutting.tables import Row, read_table
from cutting.workpiece.threads.spelling import read_thread

GROWS = ("pack_price", "LU", "LCF", "CXD", "REGP")
SHANKS = (3, 4, 6, 8, 10, 12, 14, 16, 18, 20, 25, 32)  # mm, of carbide drills (DIN 6535)
LARGEST_SHANK = 20.0  # mm of a straight shank as thick as its tool (common practice)
MORSE = ((14.0, 1), (23.0, 2), (32.0, 3), (50.0, 4))  # largest Ø [mm] on each taper (ISO 235)
REGROUND_FROM = 5.0  # mm: what is thinner is thrown away (common practice)


def in_series(rows: tuple[Row, ...]) -> tuple[Row, ...]:
    """The rows that series add to `rows`; a size that stands there already is left out."""
    known = {row["designation"]: row for row in rows}
    taken = {(row["designation"], row["grade"]) for row in rows}
    found = list[Row]()
    for series in read_table("tooling/series.csv"):
        like = known[series["like"]]
        for said, diameter in _sizes(series["sizes"]):
            for grade in series.words("grades"):
                made = _sized(series, like, said, diameter, grade, len(found))
                # the same size by another name, as 1/4 in and 6.35, is one tool
                names = {(made["designation"], grade), (series["name"].format(f"{diameter:.2f}".rstrip("0").rstrip(".")), grade)}
                if not names & taken:
                    taken |= names
                    found.append(Row(made))
    return tuple(found)


def _sized(series: Row, like: Row, said: str, diameter: float, grade: str, place: int) -> dict[str, str]:
    """One size of a series."""
    made = {**like, "designation": series["name"].format(said), "grade": grade, "bin": f"R-{place + 1}", "source": series["source"]}
    made |= {"TDZ": said} if like.get("TDZ") else {"DC": f"{diameter:g}"}
    for name in GROWS:
        if series[name]:
            made[name] = f"{_grown(series[name], diameter, float(made['pack_price'] or 0.0)):.4g}"
    if like["grade"].startswith("HSS") and diameter < REGROUND_FROM and like.get("NORGMX"):
        made |= {"NORGMX": "0", "REGP": ""}
    if series["shank"] == "Morse":
        made["ADINTMS"] = f"Morse {next(taper for largest, taper in MORSE if diameter <= largest)}"
    elif series["shank"] == "up":
        made["DCONMS"] = str(next(shank for shank in SHANKS if shank >= diameter - 1e-9))
    elif series["shank"] == "own":
        made["DCONMS"] = f"{min(diameter, LARGEST_SHANK):g}"
    else:
        sizes, shanks = _points(series["shank"])
        made["DCONMS"] = f"{shanks[np.argmin(np.abs(np.array(sizes) - diameter))]:g}"
    return made


def _sizes(text: str) -> Iterator[tuple[str, float]]:
    """What a list of sizes says: `1-13/0.1; 14; M2.5; 3/64-1/2/64ths; #60-#1; A-Z`, each as it is written and its diameter [mm]."""
    for word in (one.strip() for one in text.split(";")):
        if span := re.fullmatch(r"([\d.]+)-([\d.]+)/([\d.]+)", word):
            first, last, step = map(float, span.groups())
            yield from ((f"{size:g}", round(float(size), 3)) for size in np.arange(first, last + step / 2.0, step).round(3))
        elif span := re.fullmatch(r"([\d/]+)-([\d/]+)/64ths", word):
            first, last = (int(64 * Fraction(end)) for end in span.groups())
            yield from ((f"{Fraction(k, 64)} in", round(INCH * k / 64, 4)) for k in range(first, last + 1))
        elif span := re.fullmatch(r"#(\d+)-#(\d+)", word):
            numbers = range(int(span[1]), int(span[2]) - 1, -1)
            yield from ((f"#{k}", gauge_sizes()[str(k)]) for k in numbers)
        elif word == "A-Z":
            yield from ((f"letter {letter}", gauge_sizes()[letter]) for letter in ascii_uppercase)
        elif re.fullmatch(r"[\d.]+", word):
            yield word, float(word)
        else:
            yield word, read_thread(word).diameter


def _grown(said: str, diameter: float, price: float) -> float:
    """A number at a diameter: `5.3xD`, `0.28xP` of the price, points `1:12 5:54` with straight lines between them, or always the same."""
    if said.endswith("xD"):
        return float(said[:-2]) * diameter
    if said.endswith("xP"):
        return float(said[:-2]) * price
    return float(np.interp(diameter, *_points(said))) if ":" in said else float(said)


def _points(said: str) -> tuple[list[float], list[float]]:
    pairs = [point.split(":") for point in said.split()]
    return [float(a) for a, _ in pairs], [float(b) for _, b in pairs]

"""Limits of threads by class at the three diameters, at the gauge plane where they taper: ISO 965-1, 2903, 228-1, ASME B1.1, B1.5.

Tolerances of the pitch diameter follow the standards' own law, P^0.4 and d^0.1 of the middle of their ranges, rounded to the nearest
number of the R40 series; neighbouring grades lie four such numbers apart. Major, minor and deviations are tables. From memory.
"""

from __future__ import annotations

from bisect import bisect_left
from dataclasses import dataclass
from functools import cache
from math import floor, log10, sqrt
from types import MappingProxyType

from cutting.errors import UnknownName
from cutting.tables import Row, read_table
from cutting.workpiece.threads.thread import INCH, TAPER, Thread, taper_row, trapezoidal_rows

R40 = (
    1.0, 1.06, 1.12, 1.18, 1.25, 1.32, 1.4, 1.5, 1.6, 1.7, 1.8, 1.9, 2.0, 2.12, 2.24, 2.36, 2.5, 2.65, 2.8, 3.0, 3.15, 3.35, 3.55, 3.75,
    4.0,    4.25, 4.5, 4.75, 5.0, 5.3, 5.6, 6.0, 6.3, 6.7, 7.1, 7.5, 8.0, 8.5, 9.0, 9.5,
)  # fmt: skip
RANGES = (0.99, 1.4, 2.8, 5.6, 11.2, 22.4, 45.0, 90.0, 180.0, 355.0)
PER_GRADE, INSIDE = 4, 5  # numbers of the series from grade to grade, and from outside to inside
WORST_ROUND = MappingProxyType({(0.5, 2): 75.0, (5.0, 6): 250.0})  # cells that the standard rounds the other way, by pitch and range
CLASSES: MappingProxyType[str, tuple[tuple[str, ...], tuple[str, ...]]] = MappingProxyType(
    {
        "metric": (("3h4h", "4h", "4g6g", "5g6g", "6h", "6g", "6f", "6e", "8g"), ("4H", "5H", "6H", "6G", "7H", "7G")),
        "trapezoidal": (("7e", "8e", "8c", "9c"), ("7H", "8H", "9H")),
        "unified": (("1A", "2A", "3A"), ("1B", "2B", "3B")),
        "pipe": (("A", "B"), ("",)),
        "acme": (("2G", "3G", "4G"), ("2G", "3G", "4G")),
    }
)


@dataclass(frozen=True)
class ThreadZone:
    """Least and largest of one diameter [mm]; None where nothing bounds it."""

    low: float | None
    high: float | None

    @property
    def width(self) -> float | None:
        return None if self.low is None or self.high is None else self.high - self.low

    @property
    def middle(self) -> float:
        """The size to aim at; the bound where there is one alone."""
        given = [one for one in (self.low, self.high) if one is not None]
        return sum(given) / len(given)


@dataclass(frozen=True)
class Limits:
    """Limits of one side of a thread [mm]; `gauge_length` where it tapers, and its diameters are those of the gauge plane."""

    internal: bool
    class_name: str
    major: ThreadZone
    pitch: ThreadZone
    minor: ThreadZone
    source: str
    gauge_length: float | None = None


def usual_class(thread: Thread, internal: bool) -> str:
    """The class that is meant where none is written."""
    return thread.of.inside_class if internal else thread.of.outside_class


def limits(thread: Thread, internal: bool, class_name: str = "", field: str = "thread") -> Limits:
    """The limits of one side of a thread in a class, blank for its own or the usual one. Raises `UnknownName` for a class that is not."""
    own = thread.class_name if thread.internal in (None, internal) else ""
    cls = class_name or own or usual_class(thread, internal)
    known = CLASSES.get(thread.system)
    if known is not None and cls not in known[internal] and thread.system not in ("metric",):
        offered = tuple(one for one in known[internal] if one)
        side = "inside" if internal else "outside"
        raise UnknownName(field, f"'{cls}' is no class of an {side} thread here; there are {', '.join(offered)}.", None, offered)
    reader = {"metric": _metric, "trapezoidal": _trapezoidal, "unified": _unified, "pipe": _pipe, "acme": _acme}.get(thread.system)
    if reader is not None:
        return reader(thread, internal, cls)
    return _tapered(thread, internal) if thread.of.taper else _special(thread, internal)


def _preferred(value: float, steps: int = 0) -> float:
    """The nearest number of the R40 series, and so many further."""
    decade = 10.0 ** int(log10(value) // 1)
    series = [decade * one for one in (*R40, 10.0)]
    at = min(range(len(series)), key=lambda k: (round(abs(series[k] - value), 9), -k)) + steps
    return decade * 10.0 ** (at // 40) * R40[at % 40]  # R 40 of ISO 3


def pitch_tolerance(diameter: float, pitch: float, grade: int, internal: bool) -> float:
    """Tolerance of the pitch diameter [mm] of metric and trapezoidal threads: d and P [mm], a grade 3 to 9. Source: ISO 965-1, 3.5."""
    at = max(1, min(bisect_left(RANGES, diameter), len(RANGES) - 1))
    base = WORST_ROUND.get((pitch, at - 1)) or _preferred(90.0 * pitch**0.4 * sqrt(RANGES[at - 1] * RANGES[at]) ** 0.1)
    return _preferred(base, PER_GRADE * (grade - 6) + (INSIDE if internal else 0)) / 1000.0


@cache
def _metric_row(pitch: float) -> Row:
    rows = read_table("workpiece/threads/metric_deviations.csv")
    return min(rows, key=lambda row: abs(row.number("pitch") - pitch))


def _parts(cls: str, internal: bool) -> tuple[int, int, str]:
    """Grades of pitch and of crest diameter, and the letter, of `6g`, `4g6g`, `5H6H`."""
    try:
        first, letter = int(cls[0]), cls[1]
        second = int(cls[2]) if len(cls) > 2 else first
    except (ValueError, IndexError):
        first, second, letter = 0, 0, "?"
    outside, inside = (4, 6, 8), (4, 5, 6, 7, 8)
    if letter not in ("GH" if internal else "efgh") or second not in (inside if internal else outside):
        side, offered = ("inside", CLASSES["metric"][1]) if internal else ("outside", CLASSES["metric"][0])
        raise UnknownName("thread", f"'{cls}' is no class of an {side} metric thread; there are {', '.join(offered)}.", None, offered)
    return first, second, letter


def _metric(thread: Thread, internal: bool, cls: str) -> Limits:
    grade, crest, letter = _parts(cls, internal)
    row, d2 = _metric_row(thread.pitch), thread.pitch_diameter
    width = pitch_tolerance(thread.diameter, thread.pitch, grade, internal)
    known = row.number_or_none(letter.lower()) if letter.lower() != "h" else 0.0
    if known is None:
        raise UnknownName(
            "thread", f"ISO 965-1 knows no deviation {letter} at a pitch of {thread.pitch:g} mm; there are g and h.", None, ("g", "h")
        )
    off = known / 1000.0
    if internal:
        minor = _preferred(row.number("minor_6"), PER_GRADE * (crest - 6)) / 1000.0
        inner = thread.inside_diameter + off
        return Limits(
            True,
            cls,
            ThreadZone(thread.diameter + off, None),
            ThreadZone(d2 + off, d2 + off + width),
            ThreadZone(inner, inner + minor),
            "iso-965-1",
        )
    major = _preferred(row.number("major_6"), PER_GRADE * (crest - 6)) / 1000.0
    top, flank = thread.diameter - off, d2 - off
    return Limits(
        False,
        cls,
        ThreadZone(top - major, top),
        ThreadZone(flank - width, flank),
        ThreadZone(None, thread.inside_diameter - off),
        "iso-965-1",
    )


def _trapezoidal(thread: Thread, internal: bool, cls: str) -> Limits:
    grade, letter, row = int(cls[0]), cls[1], trapezoidal_rows()[thread.pitch]
    width = pitch_tolerance(thread.diameter, thread.pitch, grade, internal)
    d2 = thread.pitch_diameter
    if internal:
        inner = thread.inside_diameter
        minor = ThreadZone(inner, inner + row.number("minor_4") / 1000.0)
        return Limits(True, cls, ThreadZone(thread.inside_root, None), ThreadZone(d2, d2 + width), minor, "iso-2903")
    off = row.number(letter) / 1000.0
    root, top = thread.root_diameter, thread.diameter
    minor = ThreadZone(root - 1.25 * width - off, root)
    return Limits(
        False, cls, ThreadZone(top - row.number("major_4") / 1000.0, top), ThreadZone(d2 - off - width, d2 - off), minor, "iso-2903"
    )


OF_2A = MappingProxyType({"1A": 1.5, "2A": 1.0, "3A": 0.75, "1B": 1.95, "2B": 1.3, "3B": 0.975})  # of the tolerance of class 2A
ENGAGED_PITCHES = 9.0  # length of engagement of special and fine series, in pitches


def _unified(thread: Thread, internal: bool, cls: str) -> Limits:
    p, d = thread.pitch / INCH, thread.diameter / INCH
    long = d if thread.series in ("UNC", "UNF") else ENGAGED_PITCHES * p
    base = round(0.0015 * d ** (1 / 3) + 0.0015 * sqrt(long) + 0.015 * p ** (2 / 3), 6)
    # the standard rounds each diameter, tolerance and allowance by itself, and adds them afterwards
    width, allowance = _in_tenths(OF_2A[cls] * base), 0.0 if cls == "3A" or internal else _in_tenths(0.3 * base)
    d2 = _in_tenths(thread.pitch_diameter / INCH)
    if internal:
        places = 3 if cls != "3B" and d >= THOUS_FROM else 4
        inner, widest = _in_tenths(thread.inside_diameter / INCH), _in_tenths(_minor_width(p, d, cls))
        minor = ThreadZone(_rounded(inner / INCH, places), _rounded((inner + widest) / INCH, places))
        return Limits(True, cls, ThreadZone(thread.diameter, None), ThreadZone(d2, d2 + width), minor, "asme-b1-1")
    major = _in_tenths((0.09 if cls == "1A" else 0.06) * p ** (2 / 3))
    top, flank = thread.diameter - allowance, d2 - allowance
    minor = ThreadZone(None, thread.inside_diameter - allowance)
    return Limits(False, cls, ThreadZone(top - major, top), ThreadZone(flank - width, flank), minor, "asme-b1-1")


THOUS_FROM = 0.138  # in, from which the minor diameter of an inside thread is told in thousandths (ASME B1.1, from memory)


def _rounded(inches: float, places: int) -> float:
    """A length [mm] of so many inches, rounded as the standard's tables are: half a step goes up."""
    return floor(inches * 10**places + 0.5 + 1e-7) / 10**places * INCH


def _in_tenths(inches: float) -> float:
    """A length [mm] of so many inches, to 0.0001 in."""
    return _rounded(inches, 4)


def _minor_width(p: float, d: float, cls: str) -> float:
    """Tolerance [in] of an inside unified thread's minor diameter."""
    small = 0.05 * p ** (2 / 3) + 0.03 * p / d - 0.002
    if cls == "3B":
        return min(max(small, 0.23 * p - 1.5 * p**2 if p <= 1 / 13 + 1e-9 else 0.12 * p), 0.394 * p)
    if d >= 0.25:
        return 0.25 * p - 0.4 * p**2 if p <= 0.25 else 0.15 * p
    return min(max(small, 0.25 * p - 0.4 * p**2), 0.394 * p)


def _pipe(thread: Thread, internal: bool, cls: str) -> Limits:
    rows = read_table("workpiece/threads/pipe_deviations.csv")
    row = next(row for row in rows if thread.diameter <= row.number("up_to") + 1e-9)
    width = row.number("pitch_a") / 1000.0
    d2, inner, top = thread.pitch_diameter, thread.inside_diameter, thread.diameter
    if internal:
        return Limits(
            True,
            cls,
            ThreadZone(top, None),
            ThreadZone(d2, d2 + width),
            ThreadZone(inner, inner + row.number("minor") / 1000.0),
            "iso-228-1",
        )
    width *= 2.0 if cls == "B" else 1.0
    return Limits(
        False, cls, ThreadZone(top - row.number("major") / 1000.0, top), ThreadZone(d2 - width, d2), ThreadZone(None, inner), "iso-228-1"
    )


# class of a general purpose Acme thread -> shares of √P and √D [in] in the tolerance, of √D in the allowance
ACME = MappingProxyType({"2G": (0.030, 0.006, 0.008), "3G": (0.014, 0.0028, 0.006), "4G": (0.010, 0.002, 0.004)})


ACME_ROOT = 0.020  # in, tolerance of the major diameter of an inside general purpose thread (ASME B1.5, from memory)


def _acme(thread: Thread, internal: bool, cls: str) -> Limits:
    p, d = thread.pitch / INCH, thread.diameter / INCH
    of_pitch, of_size, off = ACME[cls]
    width, allowance = (of_pitch * sqrt(p) + of_size * sqrt(d)) * INCH, off * sqrt(d) * INCH
    crest = max(0.05 * p, 0.005) * INCH
    d2 = thread.pitch_diameter
    if internal:
        inner, outer = thread.inside_diameter, thread.inside_root
        major = ThreadZone(outer, outer + ACME_ROOT * INCH)
        return Limits(True, cls, major, ThreadZone(d2, d2 + width), ThreadZone(inner, inner + crest), "asme-b1-5")
    root, top = thread.root_diameter, thread.diameter
    return Limits(
        False,
        cls,
        ThreadZone(top - crest, top),
        ThreadZone(d2 - allowance - width, d2 - allowance),
        ThreadZone(root - 1.5 * width, root),
        "asme-b1-5",
    )


TURNS_OFF = 1.0  # of a gauge against its plane, either way


def _tapered(thread: Thread, internal: bool) -> Limits:
    """A taper pipe thread at its gauge plane: a turn either way moves its diameters by the taper of a pitch."""
    off = TURNS_OFF * thread.pitch * TAPER
    row = taper_row(thread)

    def zone(size: float) -> ThreadZone:
        return ThreadZone(size - off, size + off)

    length = row.number("length") if row is not None else None
    top = thread.pitch_diameter + 2.0 * thread.of.pitch_depth * thread.pitch
    minor = zone(thread.inside_diameter)
    return Limits(internal, "", zone(top), zone(thread.pitch_diameter), minor, thread.of.standard, length)


def _special(thread: Thread, internal: bool) -> Limits:
    """Nobody's standard: the pitch diameter in the tolerance of a metric thread of its size, medium (common practice)."""
    width = pitch_tolerance(min(max(thread.diameter, 1.0), 355.0), thread.pitch, 6, internal)
    sign = 1.0 if internal else -1.0

    def zone(size: float) -> ThreadZone:
        return ThreadZone(*sorted((size, size + sign * width)))

    return Limits(
        internal, "6H" if internal else "6h", zone(thread.diameter), zone(thread.pitch_diameter), zone(thread.root_diameter), "user"
    )

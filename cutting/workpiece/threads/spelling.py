"""Threads as people write them: any spelling is read, the usual one is written, a wrong one says which part is wrong and what exists."""

from __future__ import annotations

import re
from collections.abc import Callable
from fractions import Fraction
from functools import cache
from types import MappingProxyType
from typing import NoReturn

from cutting.errors import UnknownName
from cutting.tables import Row, read_table
from cutting.workpiece.threads.thread import INCH, Thread, systems, trapezoidal_rows

UNIFIED_SERIES = ("UNC", "UNF", "UNEF")
EVEN_SERIES = (4, 6, 8, 12, 16, 20, 28, 32)  # threads per inch of the UN series
METRIC_CLASS = r"[3-9][e-h](?:[3-9][e-h])?|[3-9][GH](?:[3-9][GH])?"
METRIC_STEPS = (
    0.2, 0.25, 0.3, 0.35, 0.4, 0.45, 0.5, 0.6, 0.7, 0.75, 0.8, 1.0, 1.25, 1.5, 1.75, 2.0, 2.5, 3.0,
    3.5, 4.0, 4.5, 5.0, 5.5, 6.0, 8.0
)  # fmt: skip
OFFERED = 5
FIELD = "thread"
_HAND = re.compile(r"[-\s]?(?:LH|left[- ]?hand(?:ed)?)(?=$|[-\s,])", re.IGNORECASE)
_STARTS = re.compile(r"[\s,(]*(\d)\s*[- ]?starts?\)?", re.IGNORECASE)
_FRACTION = r"(?:\d+[- ])?\d+/0*[1-9]\d*|\d+(?:\.\d+)?"


@cache
def sizes(system: str) -> MappingProxyType[str, tuple[Row, ...]]:
    """The rows of a system by size, in the order of the table."""
    found: dict[str, list[Row]] = {}
    for row in read_table("workpiece/threads/sizes.csv"):
        if row["system"] == system:
            found.setdefault(row["size"], []).append(row)
    return MappingProxyType({size: tuple(rows) for size, rows in found.items()})


def read_thread(text: str, field: str = FIELD) -> Thread:
    """Read a thread as a drawing writes it. Raises `UnknownName`, which names the part that is wrong and what exists.

    >>> read_thread("m 10 × 1,25 - 6h").pitch
    1.25
    """
    shown = " ".join(text.replace("×", "x").replace("–", "-").replace("″", '"').split())
    words, hand = _HAND.subn("", shown)
    starts_found = _STARTS.search(words)
    starts = int(starts_found[1]) if starts_found else 1
    words = _STARTS.sub("", words).strip(" -,")
    for pattern, reader in READERS:
        if (match := pattern.match(words)) is not None:
            return reader(match, bool(hand), starts, field)
    examples = "M10, M10x1.25-6H, 1/2-13 UNC-2B, #10-24, G1/2, R3/4, 1/2 NPT, Tr 20x4, Tr 40x14 P7, 1 1/2-4 Acme-2G, or 30x4 45°"
    _refuse(field, f"'{shown}' does not start as a thread does; write it as {examples}", ())


def _refuse(field: str, message: str, offered: tuple[str, ...]) -> NoReturn:
    known = f"; there {'is' if len(offered) == 1 else 'are'} {', '.join(offered)}" if offered else ""
    raise UnknownName(field, f"{message}{known}.", None, offered)


def _number(text: str) -> float:
    return float(text.replace(",", "."))


def inches(size: str) -> float:
    """Inches of `1-1/2`, `1 1/2`, `3/8`, `0.5`."""
    return float(sum(Fraction(part) for part in re.split(r"[- ]", size)))


def _as_size(text: str) -> str:
    """A size of inch practice as the tables name it: `1-1/2`, `#10`."""
    text = re.sub(r"^(?:no\.?\s*)", "#", text.strip(), flags=re.IGNORECASE)
    if text.startswith("#"):
        return f"#{int(text[1:])}"
    value = Fraction(inches(text)).limit_denominator(64)
    whole, rest = divmod(value, 1)
    return f"{whole}-{rest}" if whole and rest else str(whole or rest)


def _near(system: str, diameter: float) -> tuple[str, ...]:
    """Sizes of a system next to a diameter [mm], as threads."""
    rows = sorted(sizes(system).values(), key=lambda of: abs(of[0].number("diameter") - diameter))
    return tuple(write_thread(_of_row(system, of[0])) for of in rows[:OFFERED])


def _of_row(system: str, row: Row, **more: object) -> Thread:
    step = row.number("step")
    inch = system in ("unified", "pipe", "taper pipe", "npt", "acme")
    return Thread(system, row["size"], row.number("diameter"), INCH / step if inch else step, series=row["series"], **more)  # type: ignore[arg-type]


def _pitches(system: str, size: str) -> tuple[str, ...]:
    return tuple(write_thread(_of_row(system, row)) for row in sizes(system)[size])


_METRIC = re.compile(
    rf"^MJ?\s*(?P<size>\d+(?:[.,]\d+)?)\s*(?:x\s*(?:Ph\s*(?P<lead>\d+(?:[.,]\d+)?)\s*P\s*)?(?P<pitch>\d+(?:[.,]\d+)?))?"
    rf"[- ]*(?:(?<=[- ])(?P<cls>{METRIC_CLASS}))?(?P<rest>.*)$",
    re.IGNORECASE,
)


def _metric(found: re.Match[str], left: bool, starts: int, field: str) -> Thread:
    size, cls = f"{_number(found['size']):g}", _class(found["cls"])
    if found["rest"].strip():
        _refuse(
            field, f"'{found['rest'].strip(' -')}' is no tolerance class of a metric thread", ("4h", "6g", "6e", "4g6g", "6H", "5H", "6G")
        )
    if size not in sizes("metric"):
        _refuse(field, f"M{size} is no size of ISO 261", _near("metric", float(size)))
    rows = sizes("metric")[size]
    pitch = _number(found["pitch"]) if found["pitch"] else rows[0].number("step")
    row = next((one for one in rows if abs(one.number("step") - pitch) < 1e-6), None)
    if row is None and (pitch not in METRIC_STEPS or pitch > max(one.number("step") for one in rows)):
        _refuse(field, f"the pitch {pitch:g} mm does not exist on M{size}", _pitches("metric", size))
    if found["lead"]:
        starts = _starts_of(_number(found["lead"]), pitch, field)
    internal = cls[-1].isupper() if cls else None
    series = row["series"] if row is not None else ""
    return Thread("metric", size, rows[0].number("diameter"), pitch, starts, left, series, cls, internal)


def _class(text: str | None) -> str:
    """A class as its case is typed: capital letters are inside threads."""
    return text or ""


def _starts_of(lead: float, pitch: float, field: str) -> int:
    starts = lead / pitch
    if abs(starts - round(starts)) > 1e-6 or not 1 <= round(starts) <= 8:
        _refuse(field, f"a lead of {lead:g} mm is not a whole number of pitches of {pitch:g} mm, 1 to 8 starts", ())
    return round(starts)


_TRAPEZOIDAL = re.compile(
    r"^Tr\.?\s*(?P<size>\d+)\s*x\s*(?P<lead>\d+(?:[.,]\d+)?)\s*"
    r"(?:\(?P\s*(?P<pitch>\d+(?:[.,]\d+)?)\)?)?[- ]*(?:(?<=[- ])(?P<cls>[6-9][ceH]))?(?P<rest>.*)$",
    re.IGNORECASE,
)


def _trapezoidal(found: re.Match[str], left: bool, starts: int, field: str) -> Thread:
    size, lead = found["size"], _number(found["lead"])
    pitch = _number(found["pitch"]) if found["pitch"] else lead
    if found["rest"].strip():
        _refuse(field, f"'{found['rest'].strip(' -')}' is no tolerance class of a trapezoidal thread", ("7e", "8e", "8c", "7H", "8H"))
    if size not in sizes("trapezoidal"):
        _refuse(field, f"Tr {size} is no size of ISO 2902", _near("trapezoidal", float(size)))
    row = next((one for one in sizes("trapezoidal")[size] if abs(one.number("step") - pitch) < 1e-6), None)
    if row is None:
        _refuse(field, f"the pitch {pitch:g} mm does not exist on Tr {size}", _pitches("trapezoidal", size))
    cls = _class(found["cls"])
    starts = _starts_of(lead, pitch, field) if found["pitch"] else starts
    internal = cls[-1].isupper() if cls else None
    return Thread("trapezoidal", size, row.number("diameter"), pitch, starts, left, "Tr", cls, internal)


_UNIFIED = re.compile(
    rf"^(?P<size>#\s*\d+|no\.?\s*\d+|{_FRACTION})\"?\s*-\s*(?P<tpi>\d+(?:\.\d+)?)\s*"
    rf"(?P<series>UN[A-Z]*)?[- ]*(?P<cls>[1-3][AB])?(?P<rest>.*)$",
    re.IGNORECASE,
)
_UNIFIED_SHORT = re.compile(
    rf"^(?P<size>#\s*\d+|no\.?\s*\d+|{_FRACTION})\"?\s*(?P<series>UN(?:C|F|EF))[- ]*(?P<cls>[1-3][AB])?(?P<rest>.*)$", re.IGNORECASE
)


def _unified(found: re.Match[str], left: bool, starts: int, field: str) -> Thread:
    size, series = _as_size(found["size"]), (found["series"] or "").upper()
    cls = (found["cls"] or "").upper()
    if found["rest"].strip():
        _refuse(field, f"'{found['rest'].strip(' -')}' is no class of a unified thread", ("1A", "2A", "3A", "1B", "2B", "3B"))
    if size not in sizes("unified"):
        near = _near("unified", INCH * (0.06 + 0.013 * int(size[1:]) if size.startswith("#") else inches(size)))
        _refuse(field, f"{size} is no size of the unified series", near)
    rows = sizes("unified")[size]
    tpi = float(found["tpi"]) if "tpi" in found.groupdict() else None
    row = next((one for one in rows if (tpi is None or one.number("step") == tpi) and series in ("", one["series"])), None)
    diameter, internal = rows[0].number("diameter"), cls.endswith("B") if cls else None
    if row is None and tpi is not None and (series == "UNS" or (series in ("", "UN") and tpi in EVEN_SERIES)):
        return Thread("unified", size, diameter, INCH / tpi, starts, left, series or "UN", cls, internal)
    if row is None:
        said = f"{tpi:g} threads per inch {'are' if tpi != 1 else 'is'} not" if tpi else f"{series} is not"
        _refuse(field, f"{said} a {series + ' ' if tpi else ''}thread of {size}", _pitches("unified", size))
    return Thread("unified", size, diameter, INCH / row.number("step"), starts, left, row["series"], cls, internal)


_PIPE = re.compile(rf"^(?P<kind>G|Rp|Rc|R)\s*(?P<size>{_FRACTION})\"?[- ]*(?P<cls>[AB])?(?P<rest>.*)$", re.IGNORECASE)


def _pipe(found: re.Match[str], left: bool, starts: int, field: str) -> Thread:
    kind, size, cls = found["kind"].capitalize(), _as_size(found["size"]), (found["cls"] or "").upper()
    system = "pipe" if kind in ("G", "Rp") else "taper pipe"
    if found["rest"].strip() or (cls and kind != "G"):
        _refuse(field, f"'{found['rest'].strip(' -') or cls}' is no class of {kind}{size}", ("A", "B") if kind == "G" else ())
    if size not in sizes(system):
        _refuse(field, f"{kind}{size} is no size of {'ISO 228-1' if kind == 'G' else 'ISO 7-1'}", _near(system, INCH * inches(size)))
    internal = {"G": False if cls else None, "Rp": True, "Rc": True, "R": False}[kind]
    return _of_row(system, sizes(system)[size][0], left_hand=left, class_name=cls, internal=internal, starts=starts)


_NPT = re.compile(rf"^(?P<size>{_FRACTION})\"?\s*(?:-\s*(?P<tpi>\d+(?:\.\d+)?))?\s*NPT(?P<rest>.*)$", re.IGNORECASE)
_ACME = re.compile(
    rf"^(?P<size>{_FRACTION})\"?\s*(?:-\s*|\s+)(?P<tpi>\d+(?:\.\d+)?)\s*Acme[- ]*(?P<cls>[2-4]G)?(?P<rest>.*)$", re.IGNORECASE
)


def _inch_table(system: str, title: str, classes: tuple[str, ...]) -> Callable[[re.Match[str], bool, int, str], Thread]:
    def read(found: re.Match[str], left: bool, starts: int, field: str) -> Thread:
        size, cls = _as_size(found["size"]), (found.groupdict().get("cls") or "").upper()
        if found["rest"].strip():
            _refuse(field, f"'{found['rest'].strip(' -')}' is no class of {title}", classes)
        if size not in sizes(system):
            _refuse(field, f"{size} is no size of {title}", _near(system, INCH * inches(size)))
        row = sizes(system)[size][0]
        tpi = float(found["tpi"]) if found["tpi"] else row.number("step")
        if tpi != row.number("step"):
            _refuse(field, f"{tpi:g} threads per inch are not {title} of {size}", _pitches(system, size))
        return _of_row(system, row, left_hand=left, class_name=cls, starts=starts)

    return read


# a profile of one's own: diameter x pitch, the included angle or both flanks, and the depth where it is not that of the angle
_SPECIAL = re.compile(
    r"^(?:Ø\s*)?(?P<size>\d+(?:[.,]\d+)?)\s*x\s*(?P<pitch>\d+(?:[.,]\d+)?)\s*[, ]\s*(?P<one>\d+(?:[.,]\d+)?)\s*(?:°|deg)?"
    r"(?:\s*/\s*(?P<two>\d+(?:[.,]\d+)?)\s*(?:°|deg)?)?\s*(?:[, ]\s*h\s*=?\s*(?P<depth>\d+(?:[.,]\d+)?))?\s*(?:mm)?$",
    re.IGNORECASE,
)


def _special(found: re.Match[str], left: bool, starts: int, field: str) -> Thread:
    size, pitch, one = _number(found["size"]), _number(found["pitch"]), _number(found["one"])
    flanks = (one, _number(found["two"])) if found["two"] else (one / 2.0, one / 2.0)
    if not 0 < sum(flanks) < 120 or not 0.1 <= pitch <= 40:
        _refuse(field, f"flanks of {sum(flanks):g}° together at a pitch of {pitch:g} mm are outside 0 to 120° and 0.1 to 40 mm", ())
    depth = _number(found["depth"]) if found["depth"] else 0.5 * pitch
    if not 0 < depth < size / 2.0 - 0.05:
        _refuse(field, f"a depth of {depth:g} mm leaves nothing of Ø{size:g}", ())
    return Thread("special", f"{size:g}", size, pitch, starts, left, "special", "", None, flanks, depth)


READERS: tuple[tuple[re.Pattern[str], Callable[[re.Match[str], bool, int, str], Thread]], ...] = (
    (_METRIC, _metric),
    (_TRAPEZOIDAL, _trapezoidal),
    (_NPT, _inch_table("npt", "NPT", ())),
    (_ACME, _inch_table("acme", "Acme", ("2G", "3G", "4G"))),
    (_PIPE, _pipe),
    (_UNIFIED, _unified),
    (_UNIFIED_SHORT, _unified),
    (_SPECIAL, _special),
)


def write_thread(thread: Thread, whole: bool = False) -> str:
    """The usual spelling; `whole` says the pitch of coarse metric threads too, as tools are named.

    >>> write_thread(read_thread("m10 x 1,5 6H"))
    'M10-6H'
    """
    t = thread
    cls = f"-{t.class_name}" if t.class_name else ""
    hand = "-LH" if t.left_hand else ""
    starts = f", {t.starts} starts" if t.starts > 1 else ""
    match t.system:
        case "metric":
            said = "" if t.series == "coarse" and t.starts == 1 and not whole else f"x{t.pitch:g}"
            if t.starts > 1:
                said = f"xPh{t.lead:g}P{t.pitch:g}"
            return f"M{t.size}{said}{cls}{hand}"
        case "trapezoidal":
            lead = f"{t.lead:g} P{t.pitch:g}" if t.starts > 1 else f"{t.pitch:g}"
            return f"Tr {t.size}x{lead}{cls}{hand}"
        case "unified":
            return f"{t.size}-{t.per_inch:.4g} {t.series}{cls}{hand}{starts}"
        case "pipe":
            return f"{'Rp' if t.internal else 'G'}{t.size}{t.class_name}{hand}{starts}"
        case "taper pipe":
            return f"{'Rc' if t.internal else 'R'}{t.size}{hand}{starts}"
        case "npt":
            return f"{t.size}-{t.per_inch:.4g} NPT{hand}{starts}"
        case "acme":
            return f"{t.size}-{t.per_inch:.4g} Acme{cls}{hand}{starts}"
    one, two = t.half_angles
    angle = f"{one + two:g}°" if one == two else f"{one:g}°/{two:g}°"
    return f"{t.size}x{t.pitch:g} {angle} h{t.depth:g}{hand}{starts}"


def looks_like_thread(text: str) -> bool:
    """Whether a search is meant as a thread: it starts as one, whether or not it exists."""
    start = (
        r"^\s*(?:M\s*\d|Tr\.?\s*\d|G\s*\d|R[pc]?\s*\d|#\s*\d+\s*-|"
        r"\d+(?:[- ]\d+)?(?:/\d+)?\"?\s*(?:-\s*\d+)?\s*(?:UN|NPT|Acme)|\d+/\d+\s*-\s*\d+)"
    )
    return bool(re.match(start, text, re.IGNORECASE))


__all__ = ["looks_like_thread", "read_thread", "sizes", "systems", "trapezoidal_rows", "write_thread"]

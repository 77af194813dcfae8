"""A tool as the crib keeps it: what it is called, what it has in stock, and its ISO 13399 properties, for every kind of tool."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from functools import cache, lru_cache
from types import MappingProxyType
from typing import Any

from cutting.errors import CuttingError
from cutting.names import plain
from cutting.tables import read_table
from cutting.tooling.designations.holder_code import HolderCode, read_holder_code, write_holder
from cutting.tooling.designations.insert_code import read_insert_code, write_inch, write_metric
from cutting.tooling.designations.insert_text import take_apart
from cutting.tooling.designations.parts import UnreadableDesignation
from cutting.tooling.designations.threading_code import read_threading_code, write_threading
from cutting.tooling.shapes import SHAPES
from cutting.workpiece.threads.spelling import read_thread

Properties = Mapping[str, Any]


@dataclass(frozen=True)
class Property:
    """One ISO 13399 property: symbol, words, kind of quantity and bounds."""

    symbol: str
    name: str
    kind: str
    low: float | None
    high: float | None
    meaning: str


@dataclass(frozen=True)
class CodeReading:
    """What a tool's designation and properties say: its usual spelling, the inch spelling, and what people search by."""

    designation: str
    inch_designation: str = ""
    says: Properties = field(default_factory=dict)  # properties that the designation fixes
    shape: str = ""
    clearance: str = ""
    sides: int = 1
    tips: int | None = None
    hand: str = ""
    seat: str = ""  # shape, clearance and size of the pocket


@dataclass(frozen=True)
class ToolKind:
    """A kind of tool: which properties it may carry, which it must, and how its designation is studied.

    `carries` are the names of what its edge has: geometry and grade of an insert, the grade of a drill, nothing of a body.
    """

    name: str
    carries: tuple[str, ...]
    properties: tuple[str, ...]
    required: tuple[str, ...]
    study: Callable[[str, Properties], CodeReading]


@cache
def properties() -> MappingProxyType[str, Property]:
    """The ISO 13399 properties that tools here may carry, by symbol."""
    return MappingProxyType(
        {
            row["symbol"]: Property(
                row["symbol"], row["name"], row["kind"], row.number_or_none("low"), row.number_or_none("high"), row["meaning"]
            )
            for row in read_table("tooling/properties.csv")
        }
    )


def seat_name(shape: str, clearance: str, size: str) -> str:
    """The name of a pocket: shape, clearance and the size code's two characters."""
    return f"{shape}{clearance}{size}"


def _study_turning_insert(designation: str, given: Properties) -> CodeReading:
    said = take_apart(designation)
    code = read_insert_code(designation, "designation", given)
    metric = write_metric(said) or said.text.upper()
    says: dict[str, Any] = {"IC": said.inscribed_circle, "S": said.thickness, "RE": said.nose_radius}
    corners = said.suffix.tips or SHAPES[said.shape].corners * code.sides
    if corners and said.fixing != "X":
        says["CEDC"] = corners
    size = metric.split()[1][:2] if " " in metric else ""
    return CodeReading(
        metric,
        write_inch(said) or "",
        {name: value for name, value in says.items() if value is not None},
        said.shape,
        said.clearance,
        code.sides,
        said.suffix.tips,
        said.suffix.hand,
        seat_name(said.shape, said.clearance, size),
    )


def _study_laydown(designation: str, given: Properties) -> CodeReading:
    code = read_threading_code(designation)
    says: dict[str, Any] = {"IC": code.inscribed_circle, "CEDC": 3}
    if code.pitch is not None:
        says["TP"] = round(code.pitch, 6)
    if code.pitch_range is not None:
        says["TPN"], says["TPX"] = code.pitch_range
    return CodeReading(
        write_threading(code), "", says, "T", "", 1, None, code.hand, f"thread {code.inscribed_circle:g} {'I' if code.internal else 'E'}"
    )


def _study_free(designation: str, given: Properties) -> CodeReading:
    """The code is its maker's own: kept as typed, only its properties count."""
    return CodeReading(" ".join(designation.split()))


def _study_holder(designation: str, given: Properties) -> CodeReading:
    code = read_holder_code(designation)
    if code.bar:
        raise UnreadableDesignation("designation", f"'{code.text}' is a boring bar to ISO 6261, not an outside holder.")
    says: dict[str, Any] = {"KAPR": code.cutting_edge_angle, "H": code.shank_height, "B": code.shank_width}
    if code.length is not None:
        says["LF"] = code.length
    return _of_holder(code, says)


def _study_bar(designation: str, given: Properties) -> CodeReading:
    code = read_holder_code(designation)
    if not code.bar:
        raise UnreadableDesignation("designation", f"'{code.text}' is an outside holder, not a boring bar to ISO 6261.")
    says: dict[str, Any] = {"KAPR": code.cutting_edge_angle, "DCONMS": code.shank_height}
    if code.length is not None:
        says["OAL"] = code.length
    return _of_holder(code, says)


def _of_holder(code: HolderCode, says: dict[str, Any]) -> CodeReading:
    return CodeReading(
        write_holder(code), "", says, code.shape, code.clearance, 1, None, code.hand, seat_name(code.shape, code.clearance, code.size)
    )


def _study_tap(designation: str, given: Properties) -> CodeReading:
    """Its size is its thread's."""
    text = str(given.get("TDZ") or "")
    thread = read_thread(text, "TDZ") if text else None
    return CodeReading(" ".join(designation.split()), "", {"DC": thread.diameter, "TP": round(thread.pitch, 6)} if thread else {})


EDGE, SOLID, BODY = ("geometry", "grade"), ("grade",), ()
DRILL = (
    "DC", "SIG", "LU", "LCF", "NOF", "MARG", "FHA", "THIN", "NCX", "CXD", "ITR", "NORGMX", "REGP", "DCONMS", "ADINTMS", "OAL", "CNSC", "WT",
)  # fmt: skip
MILL = (
    "DC", "APMX", "LU", "NOF", "RE", "DN", "FHA", "FHA2", "RMPX", "AZ", "NORGMX", "REGP", "DCONMS", "OAL", "CNSC", "WT",
)  # fmt: skip
PLAIN_DRILLS = ("twist drill", "brazed drill", "head drill", "gun drill", "spot drill", "core drill", "reamer")
THREAD_HOLDER = ("SSC", "H", "B", "LF", "OHN", "WF", "LAMS", "HAND", "CNSC", "WT")
THREAD_BAR = ("SSC", "DCONMS", "DMIN1", "OHN", "OHX", "WF", "LAMS", "HAND", "OAL", "CNSC", "WT")
TAP = ("TDZ", "DC", "TP", "TCTR", "THCHT", "NOF", "FHA", "LU", "HRCX", "DCONMS", "OAL", "CNSC", "WT")
TAPS = ("spiral point tap", "spiral flute tap", "straight flute tap", "forming tap")
THREAD_MILL = (
    "DC", "TDZ", "TP", "TPN", "TPX", "PNA", "NT", "NOF", "LU", "DN", "SDL1", "HRCX", "HAND", "CEDC", "DCONMS", "OAL", "CNSC", "WT",
)  # fmt: skip
THREAD_MILLS = (
    "full profile thread mill", "indexable thread mill", "three-tooth thread mill", "single-row thread mill", "drill thread mill",
    "helical drill thread mill",
)  # fmt: skip
CHUCK = ("DCONWSN", "DCONWSX", "ADINTWS", "ADINTMS", "RUNOUT", "LPR", "CNSC", "WT")
TOOL_KINDS: MappingProxyType[str, ToolKind] = MappingProxyType(
    {
        kind.name: kind
        for kind in (
            ToolKind("turning insert", EDGE, ("IC", "S", "RE", "L", "CEDC", "WT"), (), _study_turning_insert),
            ToolKind("laydown threading insert", EDGE, ("IC", "TP", "TPN", "TPX", "RE", "CEDC", "HRCX", "WT"), (), _study_laydown),
            ToolKind(
                "stand-up threading insert",
                EDGE,
                ("TP", "TPN", "TPX", "PNA", "CW", "RE", "CEDC", "INSL", "SSC", "HRCX", "WT"),
                ("CEDC",),
                _study_free,
            ),
            ToolKind(
                "grooving insert",
                EDGE,
                ("CW", "CWTOLU", "CDX", "RE", "PSIR", "CEDC", "INSL", "S", "SSC", "WT"),
                ("CW", "CEDC"),
                _study_free,
            ),
            ToolKind(
                "turning holder",
                BODY,
                ("KAPR", "H", "B", "LF", "OAL", "OHN", "WF", "LPR", "GAMO", "GAMF", "LAMS", "CNSC", "WT"),
                ("OHN",),
                _study_holder,
            ),
            ToolKind(
                "boring bar",
                BODY,
                ("KAPR", "DCONMS", "OAL", "LF", "OHN", "OHX", "DMIN1", "WF", "LPR", "GAMO", "LAMS", "CNSC", "WT"),
                ("DMIN1",),
                _study_bar,
            ),
            ToolKind(
                "cut-off blade",
                BODY,
                ("CW", "CDX", "CUTDIA", "B", "H", "OHN", "OHX", "LF", "OAL", "SSC", "CNSC", "WT"),
                ("CW", "CDX", "CUTDIA", "B", "H", "OHN"),
                _study_free,
            ),
            ToolKind(
                "inside groove bar",
                BODY,
                ("CW", "CDX", "DMIN1", "DCONMS", "OHN", "OHX", "WF", "OAL", "SSC", "CNSC", "WT"),
                ("CW", "CDX", "DMIN1", "DCONMS", "OHN"),
                _study_free,
            ),
            ToolKind(
                "face groove blade",
                BODY,
                ("CW", "CDX", "DAXN", "DAXX", "DAXIN", "B", "H", "OHN", "OHX", "HAND", "LF", "SSC", "CNSC", "WT"),
                ("CW", "CDX", "DAXN", "DAXX", "B", "H", "OHN", "HAND"),
                _study_free,
            ),
            ToolKind(
                "trepanning head",
                BODY,
                ("CW", "CDX", "DCN", "DCX", "ZEFF", "B", "H", "OHN", "SSC", "CNSC", "WT"),
                ("CW", "CDX", "DCN", "DCX", "ZEFF", "B", "H", "OHN"),
                _study_free,
            ),
            *(ToolKind(name, SOLID, DRILL, ("DC", "LU"), _study_free) for name in PLAIN_DRILLS),
            ToolKind("indexable drill", SOLID, (*DRILL, "CEDC"), ("DC", "LU", "CEDC"), _study_free),
            ToolKind("step drill", SOLID, (*DRILL, "SD1", "SDL1"), ("DC", "LU", "SD1", "SDL1"), _study_free),
            ToolKind("end mill", SOLID, MILL, ("DC", "APMX"), _study_free),
            *(ToolKind(name, SOLID, TAP, ("TDZ", "LU"), _study_tap) for name in TAPS),
            *(ToolKind(name, SOLID, THREAD_MILL, ("DC", "LU"), _study_free) for name in THREAD_MILLS),
            ToolKind("threading holder", BODY, THREAD_HOLDER, ("SSC", "H", "B", "OHN", "HAND"), _study_free),
            ToolKind("threading bar", BODY, THREAD_BAR, ("SSC", "DCONMS", "DMIN1", "OHN", "HAND"), _study_free),
            ToolKind("drill chuck", BODY, CHUCK, ("ADINTMS",), _study_free),
            ToolKind("special tool", EDGE, tuple(properties()), (), _study_free),
        )
    }
)
SAME = 0.02  # mm or degrees: a given property may differ from the code's by rounding


def study(kind: str, designation: str, given: Properties) -> tuple[CodeReading, dict[str, Any]]:
    """CodeReading a tool: what its code says, and the properties that it adds to it.

    `given` are ISO 13399 properties in mm and degrees. Raises `CuttingError` naming the property for one that the kind
    does not carry, that is missing, or that contradicts the designation.
    """
    present = tuple((symbol, value) for symbol, value in given.items() if value is not None and value != "")
    found, added = _study(kind, designation, present)
    return found, dict(added)


@lru_cache(maxsize=20_000)  # a large crib holds each designation in many grades and geometries
def _study(kind: str, designation: str, given: tuple[tuple[str, Any], ...]) -> tuple[CodeReading, tuple[tuple[str, Any], ...]]:
    present = dict(given)
    what = TOOL_KINDS[kind]
    if not designation.strip():
        raise CuttingError("designation", "is empty; a value is needed here.")
    for symbol in present:
        if symbol not in what.properties:
            raise CuttingError(symbol, f"is not a property of a {kind}; it carries {', '.join(what.properties)}.")
    found = what.study(designation, present)
    for symbol in what.required:
        if symbol not in present and symbol not in found.says:
            raise CuttingError(symbol, f"({properties()[symbol].name}) is needed for a {kind}.")
    added = {}
    for symbol, value in present.items():
        said = found.says.get(symbol)
        if said is None:
            added[symbol] = value
        elif symbol == "CEDC" and value != said:
            added[symbol] = value  # an edge more or less is the shop's to say (100° corners, a chipped one)
        elif symbol != "CEDC" and abs(float(value) - said) > SAME:
            raise CuttingError(symbol, f"{value:g} contradicts the designation {found.designation}, which says {said:g}.", f"{said:g}")
    if added.get("TPN") and added.get("TPX") and added["TPN"] > added["TPX"]:
        raise CuttingError("TPN", "is above TPX.")
    return found, tuple(added.items())


def identity(kind: str, designation: str, geometry: str, grade: str) -> str:
    """What makes a tool one tool: kind, metric designation, geometry and grade, in any spelling."""
    return "|".join((kind, plain(designation), plain(geometry), plain(grade)))


def tool_name(designation: str, geometry: str, grade: str) -> str:
    """The name that people read: designation, geometry and grade."""
    return " ".join(part for part in (designation, geometry, grade) if part)

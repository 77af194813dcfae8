"""The open form of a heavy boring tool with its pass: names, quantities as people write them, tables of solids and steps."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from cutting.doors.fields_form import read_section
from cutting.doors.json_form import SHIPPED, Library
from cutting.doors.reader import Reader
from cutting.errors import CuttingError
from cutting.operations.frame.fields import Field
from cutting.operations.holes.heavy_bore.setup import Chain, HeavyAsked, HeavySettings, HeavySetup
from cutting.tooling.heavy.solids import Segment, body_material
from cutting.tooling.heavy.tool import BoringStep, HeavyTool, heavy_holder
from cutting.workpiece.materials import deliver

MOST_ROWS = 24
TOOL = (
    Field("name", "name", "text", "cup tool", required=True),
    Field("holder", "holder", "text", "HSK-A100 flange", required=True),
    Field("balance_grade", "balance grade G", "number", "6.3", default=6.3, bounds=(0.4, 100.0)),
    Field("eccentricity", "centre of gravity off the axis, µm", "number", "5", default=5.0, bounds=(0.0, 1000.0)),
)
SEGMENT = (
    Field("name", "solid", "text", "tube", required=True),
    Field("length", "length", example="150 mm", required=True),
    Field("start", "begins at", example="next"),
    Field("outer", "outside Ø", example="90 mm", required=True),
    Field("inner", "inside Ø", example="0", default=0.0),
    Field("material", "of", "text", "steel", default="steel"),
    Field("share", "metal, %", "number", "100"),
    Field("arms", "arms", "whole", "0", default=0),
    Field("width", "wide", example="40 mm", default=0.0),
)
STEP = (
    Field("name", "step", "text", "seat", required=True),
    Field("diameter", "Ø", "dimension", "200 H6", required=True),
    Field("length", "bore's length", example="18 mm", required=True),
    Field("at", "edges at", example="200 mm", required=True),
    Field("enters", "begins after", example="0", default=0.0),
    Field("inserts", "edges", "whole", "2", default=2),
    Field("allowance", "allowance, on Ø", example="0.5 mm", default=0.5),
    Field("cutting_edge_angle", "κr", "angle", "90", default=90.0),
    Field("pads", "pads", "whole", "0", default=0),
    Field("outlets", "outlets", "whole", "2", default=2),
    Field("outlet_diameter", "outlet Ø", example="1.5 mm", default=1.5),
)
SETTINGS = (
    Field("cutting_speed", "speed at the largest step", "cutting_speed", "400 m/min", required=True),
    Field("feed_per_rev", "feed", "feed_per_rev", "0.2 mm/rev", required=True),
    Field("coolant", "coolant", "text", default="flood"),
    Field("temperature", "part's temperature, °C", "number", "20", default=20.0),
    Field("temperature_known", "known to, K", "number", "1", default=1.0),
)
ASKED = (Field("coaxiality", "coaxiality Ø", example="0.02 mm"), Field("cylindricity", "cylindricity", example="0.015 mm"))
CHAIN = (
    Field("steps", "step to step of one tool", example="0.003 mm"),
    Field("change", "from one tool change to the next", example="0.004 mm"),
    Field("axis", "along the feed axis", example="0.003 mm"),
    Field("clamping", "from one clamping to the next", example="0.02 mm"),
    Field("machine_round", "bore without any force", example="0.004 mm"),
)
TOP = ("version", "operation", "units", "material", "machine", "tool", "segments", "steps", "settings", "asked", "chain", "note")
SECTIONS = {"tool": TOOL, "segments": SEGMENT, "steps": STEP, "settings": SETTINGS, "asked": ASKED, "chain": CHAIN}


def read_heavy(data: Mapping[str, Any], library: Library = SHIPPED) -> HeavySetup:
    """A heavy tool with its pass from its open form. Raises `CuttingError` whose field is the path in the form."""
    if not isinstance(data, Mapping):
        raise CuttingError("", "an object { … } is wanted.")
    top = Reader(data, "", str(data.get("units") or "mm"), TOP)
    if top.system not in ("mm", "inch"):
        raise CuttingError("units", f"'{top.system[:20]}' is none of: mm, inch.", "mm, inch")
    material, machine = (_named(getattr(library, name), top, name) for name in ("material", "machine"))
    given = read_section(top, "tool", TOOL, True)
    holder = heavy_holder(given["holder"], "tool.holder")
    tool = HeavyTool(
        given["name"],
        holder,
        tuple(_segments(top, holder.face)),
        tuple(BoringStep(**row) for row in _rows(top, "steps", STEP)),
        given.get("balance_grade", 6.3),
        given.get("eccentricity", 5.0),
    )
    settings = read_section(top, "settings", SETTINGS, True)
    if (top.data.get("settings") or {}).get("coolant") in (None, ""):
        settings["coolant"] = machine.usual_coolant
    setup = HeavySetup(
        tool=tool,
        work=deliver(material),
        machine=machine,
        settings=HeavySettings(**settings),
        asked=HeavyAsked(**read_section(top, "asked", ASKED, False)),
        chain=Chain(**read_section(top, "chain", CHAIN, False)),
    )
    setup.check()
    for name, low, high in (("balance_grade", 0.4, 100.0), ("eccentricity", 0.0, 1000.0)):
        if not low <= getattr(tool, name) <= high:
            raise CuttingError(f"tool.{name}", f"{getattr(tool, name):g} is outside {low:g} to {high:g}.", f"{low:g} to {high:g}")
    return setup


def _named(find: Any, top: Reader, name: str) -> Any:
    text = top.need(name)
    if not isinstance(text, str):
        raise CuttingError(name, "a name is wanted.")
    try:
        return find(text)
    except CuttingError as error:
        error.field = name
        raise


def _rows(top: Reader, name: str, fields: tuple[Field, ...]) -> list[dict[str, Any]]:
    """The rows of a table; a refusal names the row."""
    rows = top.need(name)
    if not isinstance(rows, (list, tuple)) or len(rows) > MOST_ROWS:
        raise CuttingError(name, f"a list of at most {MOST_ROWS} rows is wanted.", f"{MOST_ROWS} rows")
    found = []
    for k, row in enumerate(rows):
        try:
            found.append(read_section(Reader({"row": row}, "", top.system, ("row",)), "row", fields, True))
        except CuttingError as error:
            error.field = f"{name}.{k}" + error.field.removeprefix("row")
            raise
    return found


def _segments(top: Reader, face: float) -> list[Segment]:
    """Solids one behind the other, where they do not say where they begin."""
    found: list[Segment] = []
    at = face
    for k, row in enumerate(_rows(top, "segments", SEGMENT)):
        metal = body_material(row.pop("material", "steel"), f"segments.{k}.material")
        share = row.pop("share", None)
        start = row.pop("start", None)
        one = Segment(start=at if start is None else start, material=metal, share=metal.share if share is None else share / 100.0,
                      inner=row.pop("inner", 0.0), **row)  # fmt: skip
        one.check(f"segments.{k}")
        if not one.arms:
            at = one.end
        found.append(one)
    return found


def written(setup: HeavySetup) -> dict[str, Any]:
    """The tool's own tables as they are entered, in millimetres: what a remedy sets."""
    segments = [
        {
            "name": one.name,
            "length": f"{one.length:g} mm",
            "start": f"{one.start:g} mm",
            "outer": f"{one.outer:g} mm",
            "inner": f"{one.inner:g} mm",
            "material": one.material.name,
            "share": f"{100.0 * one.share:g}",
            "arms": one.arms,
            "width": f"{one.width:g} mm",
        }
        for one in setup.tool.segments
    ]
    steps = [
        {
            "name": one.name,
            "diameter": one.diameter.entered or f"{one.diameter.nominal:g} mm",
            **{name: f"{getattr(one, name):g} mm" for name in ("length", "at", "enters", "allowance", "outlet_diameter")},
            **{name: getattr(one, name) for name in ("inserts", "pads", "outlets")},
            "cutting_edge_angle": f"{one.cutting_edge_angle:g}°",
        }
        for one in setup.tool.steps
    ]
    return {"holder": setup.tool.holder.name, "segments": segments, "steps": steps, "machine": setup.machine.name}

"""The open form of a heavy boring tool: what it is called, the solids of its body, the steps that cut."""

from __future__ import annotations

import json
from collections.abc import Callable, Mapping
from functools import cache
from pathlib import Path
from typing import Any

from cutting.doors.fields_form import read_section
from cutting.doors.reader import Reader
from cutting.errors import CuttingError, UnknownName
from cutting.names import find, index
from cutting.operations.frame.fields import Field
from cutting.tooling.heavy import tool as heavy
from cutting.tooling.heavy.solids import Segment, body_material
from cutting.tooling.heavy.tool import BoringStep, HeavyTool, heavy_holder
from cutting.tooling.items import Grade, grades

EXAMPLES = Path(heavy.__file__).parent / "examples"
MOST_ROWS = 24
TOOL = (
    Field("name", "name", "text", "cup tool", required=True),
    Field("holder", "holder", "text", "HSK-A100 flange", required=True),
    Field("grade", "grade of its inserts", "text", "K15 CVD", required=True),
    Field("insert_price", "an insert costs", "number", "9", default=9.0),
    Field("corners", "corners of an insert", "whole", "2", default=2),
    Field("between_steps", "its steps run true within", example="0.003 mm", default=0.003),
    Field("balance_grade", "balance grade G", "number", "6.3", default=6.3),
    Field("eccentricity", "centre of gravity off the axis, µm", "number", "5", default=5.0),
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
    Field("diameter", "Ø", example="200 mm", required=True),
    Field("at", "edges at", example="200 mm", required=True),
    Field("inserts", "edges", "whole", "2", default=2),
    Field("allowance", "allowance, on Ø", example="0.5 mm", default=0.5),
    Field("cutting_edge_angle", "κr", "angle", "90", default=90.0),
    Field("nose_radius", "corner", example="0.8 mm", default=0.8),
    Field("pads", "pads", "whole", "0", default=0),
    Field("outlets", "outlets", "whole", "2", default=2),
    Field("outlet_diameter", "outlet Ø", example="1.5 mm", default=1.5),
)
SECTIONS = {"tool": TOOL, "segments": SEGMENT, "steps": STEP}


def find_grade(name: str) -> Grade:
    """The shipped grade of that name. Raises `UnknownName`."""
    known = grades()
    return find(name, index(((one.name,), one) for one in known.values()), "grade", "grade", known)


def read_heavy_tool(data: Any, path: str = "tool", system: str = "mm", grade: Callable[[str], Grade] = find_grade) -> HeavyTool:
    """A heavy tool from its open form: the fields of `TOOL`, and its tables; `grade` finds that of its inserts.

    Raises `CuttingError` whose field is the path in the form.
    """
    if not isinstance(data, Mapping):
        raise CuttingError(path, "must be an object { … }.")
    top = Reader({"tool": {k: v for k, v in data.items() if k not in ("segments", "steps")}}, "", system, ("tool",))
    try:
        given = read_section(top, "tool", TOOL, True)
        holder = heavy_holder(given.pop("holder"), "tool.holder")
        of = grade(given.pop("grade"))
        rows = Reader({name: data[name] for name in ("segments", "steps") if name in data}, "", system, ("segments", "steps"))
        steps = tuple(BoringStep(**row) for row in _rows(rows, "steps", STEP))
        made = HeavyTool(holder=holder, segments=tuple(_segments(rows, holder.face)), steps=steps, grade=of, **given)
        _check(made)
    except CuttingError as error:
        own = error.field.removeprefix("tool.") if error.field.startswith("tool.") else error.field
        error.field = path if own in ("", "tool") else f"{path}.{own}"
        raise
    return made


def _check(made: HeavyTool) -> None:
    made.check()
    for k, one in enumerate(made.steps):
        if one.allowance >= one.diameter:
            raise CuttingError(f"steps.{k}.allowance", f"{one.allowance:g} mm leaves no hole below Ø{one.diameter:g}.")


def _rows(top: Reader, name: str, fields: tuple[Field, ...]) -> list[dict[str, Any]]:
    """The rows of a table; a refusal names the row."""
    rows = top.need(name)
    if not isinstance(rows, (list, tuple)) or len(rows) > MOST_ROWS:
        raise CuttingError(name, f"must be a list of at most {MOST_ROWS} rows.", f"{MOST_ROWS} rows")
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


def written(made: HeavyTool) -> dict[str, Any]:
    """The tool as it is entered, in millimetres."""
    segments = [
        {
            "name": one.name,
            **{name: f"{getattr(one, name):g} mm" for name in ("length", "start", "outer", "inner", "width")},
            "material": one.material.name,
            "share": f"{100.0 * one.share:g}",
            "arms": one.arms,
        }
        for one in made.segments
    ]
    steps = [
        {
            "name": one.name,
            **{name: f"{getattr(one, name):g} mm" for name in ("diameter", "at", "allowance", "nose_radius", "outlet_diameter")},
            **{name: getattr(one, name) for name in ("inserts", "pads", "outlets")},
            "cutting_edge_angle": f"{one.cutting_edge_angle:g}°",
        }
        for one in made.steps
    ]
    own = {name: f"{getattr(made, name):g}" for name in ("insert_price", "balance_grade", "eccentricity")}
    names = {"name": made.name, "holder": made.holder.name, "grade": made.grade.name, "corners": made.corners}
    return {**names, **own, "between_steps": f"{made.between_steps:g} mm", "segments": segments, "steps": steps}


@cache
def examples() -> tuple[dict[str, Any], ...]:
    """The shipped heavy bores in the open form of an operation, with their tools."""
    return tuple(json.loads(path.read_text(encoding="utf-8")) for path in sorted(EXAMPLES.glob("*.json")))


@cache
def shipped_heavy_tools() -> tuple[HeavyTool, ...]:
    """The tools of the shipped heavy bores."""
    return tuple(read_heavy_tool(one["tool"]["heavy_tool"]) for one in examples())


def find_heavy_tool(name: str) -> HeavyTool:
    """The shipped heavy tool of that name. Raises `UnknownName`."""
    known = {one.name.lower(): one for one in shipped_heavy_tools()}
    if (found := known.get(name.strip().lower())) is None:
        names = tuple(one.name for one in known.values())
        raise UnknownName("heavy_tool", f"no heavy tool is called '{name[:40]}'; there are {', '.join(names)}.", None, names)
    return found

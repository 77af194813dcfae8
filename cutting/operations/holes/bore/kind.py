"""What boring brings to the house."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

from cutting.operations.frame.fields import Field, Fields
from cutting.operations.frame.kind import Given, Kind, Settled
from cutting.operations.frame.setup import workholding_of
from cutting.operations.holes.bore.evaluate import MODEL, explore
from cutting.operations.holes.bore.head import as_head, clamped
from cutting.operations.turned.feature import Bore, Settings
from cutting.operations.turned.fields import SETTINGS, TURN_FEATURE
from cutting.operations.turned.kinds import NEUTRAL, NUDGED, RANKED, TURN_FIELDS, gather
from cutting.operations.turned.path import path
from cutting.operations.turned.setup import Setup
from cutting.tooling.roles import Role
from cutting.workpiece.solid import Corner, Region, Side, Solid

ROOM = 30.0  # mm that a part stands out beyond its bore where the form does not say
WALL = 1.5  # × the bore: the outside where the form does not say
OF_A_BORE: dict[str, dict[str, Any]] = {
    "start_diameter": {"label": "bore now, Ø", "example": "58"},
    "end_diameter": {"label": "to Ø, with its tolerance", "example": "62 H7"},
    "length": {"label": "depth from the face"},
    "shoulder": {"label": "ends at a square floor or step"},
}
ASKED = ("start_diameter", "end_diameter", "length", "roughness", "fillet", "grinding_allowance", "shoulder", "polish")
FEATURE = (
    *(replace(one, **OF_A_BORE.get(one.name, {})) for one in TURN_FEATURE if one.name in ASKED),
    Field("there", "existing Ø", asked=False, drawn=False, bounds=(0.0, 5000.0)),
)
FIELDS = Fields(
    FEATURE,
    tuple(replace(one, example="least") if one.name == "overhang" else one for one in SETTINGS if one.name != "direction"),
    TURN_FIELDS.holding,
    title=lambda f: f"Bore Ø{str(f.get('end_diameter', '')).removeprefix('Ø')}",
    speed_diameter="end_diameter",
    shown=("end_diameter", "length", "roughness"),
)
ROLES = (Role("insert", "insert", ("turning insert",)), Role("holder", "bar", ("boring bar",)))
HEADLINE = ("operation_time", "operation_cost", "median_parts", "change_parts", "secure", "roughness", "size_after")


def feature_of(values: dict[str, Any]) -> Bore:
    """The bore from its fields."""
    given = dict(values)
    return Bore(start_diameter=given.pop("start_diameter").nominal, end_diameter=given.pop("end_diameter"), **given)


def build(base: Any, tool: Any, given: dict[str, dict[str, Any]]) -> Setup:
    """The set-up from its fields, section by section. Raises `CuttingError`."""
    feature = feature_of(given["feature"])
    machine = as_head(base.machine)
    if machine.turns:
        holding = workholding_of(given["holding"], feature.length + ROOM, WALL * feature.end_diameter.nominal)
    else:
        holding = clamped(feature)
    shared = {**vars(base), "machine": machine}
    return Setup(operation="bore", feature=feature, settings=Settings(**given["settings"]), holding=holding, **tool, **shared)


def removes(feature: Bore) -> Region:
    """What boring takes: a bore from the face, as deep as it goes."""
    return Region(Side.BORE, depth=feature.length, outer=feature.turned_diameter)


def settles(given: Given, before: Solid) -> Settled:
    """It begins on the bore that is there."""
    return {"start_diameter": before.bore} if before.bore > 0 else {}


def area(setup: Setup, before: Solid) -> tuple[Corner, ...]:
    """The ring that goes, in half section."""
    f, face = setup.feature, before.face
    inner, outer = f.start_diameter / 2.0, f.turned_diameter / 2.0
    return ((face - f.length, inner), (face - f.length, outer), (face, outer), (face, inner))


KIND = Kind(
    "bore", "Bore", MODEL, explore, FIELDS, NUDGED, HEADLINE, ROLES, gather, build, feature_of, path,
    removes=removes, settles=settles, area=area, typed=lambda setup: ("overhang", "spindle_clamp"), ranked=RANKED, neutral=NEUTRAL,
    shape="bore",
)  # fmt: skip

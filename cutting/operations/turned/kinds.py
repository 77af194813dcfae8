"""What turning and facing bring to the house: their fields, the settings that are walked, the results in sight."""

from __future__ import annotations

from dataclasses import replace

from cutting.operations.frame.fields import WORKHOLDING, Field, Fields, Nudged
from cutting.operations.frame.outcome import Outcome
from cutting.operations.turned.case import case_of
from cutting.operations.turned.depths import depths
from cutting.operations.turned.feature import Direction
from cutting.operations.turned.setup import Setup
from cutting.tooling.crib import Crib
from cutting.tooling.roles import Parts, Role

TURN_FEATURE = (
    Field("start_diameter", "from Ø", "dimension", "60", required=True, drawn=False),
    Field("end_diameter", "to Ø, with its tolerance", "dimension", "49 h9", required=True),
    Field("length", "length", example="120", required=True),
    Field("distance_from_chuck", "ends from the jaws", example="20"),
    Field("roughness", "finish Ra, µm", "small_length", "1.6"),
    Field("fillet", "smallest fillet", example="0.8"),
    Field("grinding_allowance", "left for grinding, on Ø", example="0.3", drawn=False),
    Field("skin_depth", "skin or build-up, depth", example="0.75", drawn=False),
    Field("profile", "contour, place:Ø from the jaws", "points", "20:40; 45:40; 60:49"),
    Field("shoulder", "square shoulder", "flag"),
    Field("polish", "polished to size afterwards", "flag", drawn=False),
)
FACE_FEATURE = (
    Field("start_diameter", "from Ø", "dimension", "60", required=True, drawn=False),
    Field("end_diameter", "to Ø: bore, boss or 0", "dimension", "0", required=True),
    Field("length", "stock on the face", example="2", required=True, drawn=False),
    Field("roughness", "finish Ra, µm", "small_length", "3.2"),
    *(replace(one, asked=False) for one in TURN_FEATURE if one.name not in ("start_diameter", "end_diameter", "length", "roughness")),
)
SETTINGS = (
    Field("cutting_speed", "speed", "cutting_speed", "150", also=("spindle_speed",), required=True),
    Field("feed_per_rev", "feed", "feed_per_rev", "0.25", also=("feed_rate",), required=True),
    Field("depth_of_cut", "depth", example="2", required=True),
    Field("coolant", "coolant", "text", default="flood"),
    Field("spindle_clamp", "spindle clamp", "spindle_speed", "3000"),
    Field("overhang", "overhang", example="32"),
    Field("last_depth", "depth of a planned last cut", example="0.3"),
    Field("pass_depths", "passes one by one", "lengths", "0.75; 0.75; 0.4"),
    Field("centre_height", "tip over the axis", example="0"),
    Field("direction", "direction", "choice", options=tuple(one.value for one in Direction)),
    Field("nozzles", "nozzles", "whole", "2"),
    Field("nozzle_diameter", "nozzle Ø", example="1"),
)
TURN_FIELDS = Fields(
    TURN_FEATURE,
    SETTINGS,
    WORKHOLDING,
    title=lambda f: f"Turn Ø{f.get('end_diameter', '')}",
    speed_diameter="start_diameter",
    shown=("end_diameter", "length", "roughness"),
)
ROLES = (Role("insert", "insert", ("turning insert",)), Role("holder", "holder", ("turning holder",)))
FACE_FIELDS = Fields(
    FACE_FEATURE, SETTINGS, WORKHOLDING, title=lambda f: "Face", speed_diameter="start_diameter", shown=("end_diameter", "roughness")
)
NUDGED = (
    Nudged("cutting_speed", "speed", "cutting_speed", "book_speed", lambda setup, outcome: setup.settings.cutting_speed),
    Nudged("feed_per_rev", "feed", "feed_per_rev", "chip_window", lambda setup, outcome: setup.settings.feed_per_rev),
    Nudged("depth_of_cut", "depth", "length", "edge_length", lambda setup, outcome: _first_depth(outcome), depths),
)
RANKED = ("depth_of_cut", "pass_depths", "overhang", "nozzles", "nozzle_diameter")
NEUTRAL = (("cutting_speed", 100.0), ("feed_per_rev", 0.1), ("depth_of_cut", 30.0))
HEADLINE = ("operation_time", "operation_cost", "median_parts", "change_parts", "secure", "roughness", "size_after")
STUDIES = ("plan", "rigidity", "life", "ways", "edge", "coolant", "hard")


def gather(parts: Parts, note: str) -> Crib:
    """The inserts and holders to choose from."""
    return Crib(tuple(parts["insert"]), tuple(parts["holder"]), note)


def _first_depth(outcome: Outcome) -> float:
    return outcome.passes[0].depth


def stiffness(setup: Setup) -> float:
    """Stiffness of the part at this cut, N/µm."""
    after = setup.feature.start_diameter if setup.operation == "face" else setup.feature.end_diameter
    return float(1.0 / case_of(setup).compliance(after, after).ravel()[0] / 1000.0)

"""What turning and facing ask for, field by field, with what each may be."""

from __future__ import annotations

from dataclasses import replace

from cutting.operations.frame.fields import Field
from cutting.operations.turned.feature import Direction

ROUGHNESS = (0.05, 50.0)  # µm
TURN_FEATURE = (
    Field("start_diameter", "from Ø", "dimension", "60", required=True, drawn=False),
    Field("end_diameter", "to Ø, with its tolerance", "dimension", "49 h9", required=True),
    Field("length", "length", example="120", required=True),
    Field("distance_from_chuck", "ends from the jaws", example="20", place=True),
    Field("roughness", "finish, Ra µm, Rz or N6", "roughness", "1.6", bounds=ROUGHNESS),
    Field("fillet", "smallest fillet", example="0.8", bounds=(0.01, 50)),
    Field("grinding_allowance", "left for grinding, on Ø", example="0.3", drawn=False),
    Field("skin_depth", "skin or build-up, depth", example="0.75", drawn=False, bounds=(0, 20)),
    Field("profile", "contour, place:Ø from the jaws", "points", "20:40; 45:40; 60:49", place=True),
    Field("shoulder", "square shoulder", "flag"),
    Field("polish", "polished to size afterwards", "flag", drawn=False),
    Field("roughing", "a later cut finishes it", "flag", drawn=False),
)
FACE_FEATURE = (
    Field("start_diameter", "from Ø", "dimension", "60", required=True, drawn=False),
    Field("end_diameter", "to Ø: bore, boss or 0", "dimension", "0", required=True),
    Field("length", "stock on the face", example="2", required=True, drawn=False),
    Field("roughness", "finish, Ra µm, Rz or N6", "roughness", "3.2", bounds=ROUGHNESS),
    *(replace(one, asked=False) for one in TURN_FEATURE if one.name not in ("start_diameter", "end_diameter", "length", "roughness")),
)
SETTINGS = (
    Field("cutting_speed", "speed", "cutting_speed", "150", also=("spindle_speed",), required=True, bounds=(0.5, 5000)),
    Field("feed_per_rev", "feed", "feed_per_rev", "0.25", also=("feed_rate",), required=True, bounds=(0.005, 3)),
    Field("depth_of_cut", "depth", example="2", required=True, bounds=(0.005, 30)),
    Field("coolant", "coolant", "text", default="flood"),
    Field("spindle_clamp", "spindle clamp", "spindle_speed", "3000", bounds=(10, 30_000)),
    Field("overhang", "overhang", example="32", bounds=(5, 400)),
    Field("last_depth", "depth of a planned last cut", example="0.3", bounds=(0.005, 30)),
    Field("pass_depths", "passes one by one", "lengths", "0.75; 0.75; 0.4"),
    Field("centre_height", "tip over the axis", example="0", bounds=(-5, 5), unit="mm over the axis"),
    Field("swivel", "post swivelled, κr grows by °", "angle", "0", bounds=(-30, 30)),
    Field("relief", "relief ground by hand, °", "angle", "11", bounds=(1, 30)),
    Field("direction", "direction", "choice", options=tuple(one.value for one in Direction)),
    Field("nozzles", "nozzles", "whole", "2", bounds=(0, 8), unit="nozzles"),
    Field("nozzle_diameter", "nozzle Ø", example="1", bounds=(0.3, 6)),
)

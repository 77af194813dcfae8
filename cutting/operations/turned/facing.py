"""Facing from the outside towards bore, boss or centre, at constant cutting speed where the machine has it."""

from cutting.operations.frame.kind import Kind
from cutting.operations.turned import settled
from cutting.operations.turned.build import builder, feature_of
from cutting.operations.turned.chip_map import chip_map
from cutting.operations.turned.evaluate import MODEL
from cutting.operations.turned.kinds import FACE_FIELDS, HEADLINE, NEUTRAL, NUDGED, RANKED, ROLES, gather, stiffness
from cutting.operations.turned.path import path
from cutting.operations.turned.regions import faced, faced_area

KIND = Kind(
    "face",
    "Face",
    MODEL,
    chip_map,
    FACE_FIELDS,
    NUDGED,
    HEADLINE,
    removes=faced,
    settles=settled.faced,
    area=faced_area,
    stiffness=stiffness,
    build=builder("face"),
    read_feature=feature_of,
    path=path,
    roles=ROLES,
    gather=gather,
    shape="face",
    ranked=RANKED,
    neutral=NEUTRAL,
)

"""Outside turning towards the chuck: equal passes from the start diameter to the size on the drawing."""

from cutting.operations.frame.kind import Kind
from cutting.operations.turned import settled
from cutting.operations.turned.build import builder, feature_of
from cutting.operations.turned.chip_map import chip_map
from cutting.operations.turned.evaluate import MODEL
from cutting.operations.turned.kinds import HEADLINE, NEUTRAL, NUDGED, RANKED, ROLES, TURN_FIELDS, gather, stiffness
from cutting.operations.turned.path import path
from cutting.operations.turned.regions import turned, turned_area

KIND = Kind(
    "turn",
    "Turn",
    MODEL,
    chip_map,
    TURN_FIELDS,
    NUDGED,
    HEADLINE,
    removes=turned,
    settles=settled.turned,
    area=turned_area,
    stiffness=stiffness,
    build=builder("turn"),
    read_feature=feature_of,
    path=path,
    roles=ROLES,
    gather=gather,
    shape="outside",
    ranked=RANKED,
    neutral=NEUTRAL,
)

"""How the edge stands: κr, rake and clearance with the tip's height, by both schools."""

from __future__ import annotations

from cutting.operations.turned.edge_angles import edge_angles
from cutting.studies.study import TURNED, Study

STUDY = Study(
    "edge",
    "edge angles",
    "g",
    (*TURNED, "bore"),
    elsewhere={
        "drill": "The angles are the tool's own and ground into it; they stand on its sheet in the crib.",
        "mill hole": "The angles are the tool's own and ground into it; they stand on its sheet in the crib.",
        "heavy bore": "The angles are the cartridges' own; they stand on the tool's sheet in the crib.",
        "turn thread": "Flank clearance with tilt and lead stands among the limits; the form is the thread's own.",
        "tap": "The angles are the tap's own and ground into it; they stand on its sheet in the crib.",
        "mill thread": "The angles are the tool's own and ground into it; they stand on its sheet in the crib.",
    },
    ask=lambda setup, stock: edge_angles(setup),
)

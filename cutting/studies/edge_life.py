"""Speed against life and cost, and how surely an edge reaches its planned change."""

from __future__ import annotations

from cutting.operations.turned.edge_life import edge_life
from cutting.studies.study import TURNED, Study

STUDY = Study(
    "life",
    "edge life",
    "l",
    (*TURNED, "bore"),
    elsewhere={
        "drill": "Holes per drill and the planned change stand in the result; one edge wears all along its lip: no curve over passes.",
        "mill hole": "Holes per mill and the planned change stand in the result; one edge wears all along its lip: no curve over passes.",
        "heavy bore": "Pieces for a set of edges and the planned change stand in the result; all edges are changed together.",
        "turn thread": "Threads per edge and the planned change stand in the result.",
        "tap": "Threads per tap and the planned change stand in the result.",
        "mill thread": "Threads per mill and the planned change stand in the result.",
    },
    ask=lambda setup, stock: edge_life(setup),
)

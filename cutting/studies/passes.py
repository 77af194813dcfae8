"""How deep a pass may be and why, and the passes as they stand."""

from __future__ import annotations

from typing import Any

from cutting.operations.holes.bore.limits import RULES as BORED
from cutting.operations.turned.planner import plan
from cutting.operations.turned.setup import Setup
from cutting.studies.study import TURNED, Study


def ask(setup: Setup, stock: Any) -> Any:
    """The plan of passes, by the limits of a bore where it is turned inside."""
    return plan(setup, BORED) if setup.inside else plan(setup)


STUDY = Study(
    "plan",
    "passes, size",
    "z",
    (*TURNED, "bore"),
    elsewhere={
        "drill": "A drill goes to size in one pass: there is no pass to plan, and its size follows from the tool, its runout and"
        " the metal.",
        "mill hole": "The helix and its last turn stand in the table below the settings; the path's offset takes the size, so no"
        " ledger of passes.",
        "heavy bore": "All bores are made in one pass, and each cartridge is set to its size: there is no pass to plan.",
        "turn thread": "The passes stand in the groove and in the table below the settings: how many, how they share the depth, or one"
        " by one.",
        "tap": "A tap goes in once: there is no pass to plan; torque over its way stands beside the drawing.",
        "mill thread": "What each number of radial passes gives stands beside the drawing, each of them run.",
    },
    ask=ask,
)

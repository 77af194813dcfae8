"""The ways to turn a feature, each with its best tool."""

from __future__ import annotations

from cutting.advice.ways import ways_to_turn
from cutting.studies.study import TURNED, Study

STUDY = Study(
    "ways",
    "turning methods",
    "t",
    TURNED,
    elsewhere={
        "drill": "The ranking holds the ways: drills, chains, milled, bored and trepanned holes in one list.",
        "mill hole": "The ranking holds the ways: drills, chains, milled, bored and trepanned holes in one list.",
        "bore": "Inside, a bar has one way; other bars, a drill or a mill before it stand in the ranking.",
        "heavy bore": "Other ways to bore them are operations of their own: bore, mill, ream.",
        "turn thread": "The ranking holds the ways: tapped, formed, milled and turned in one list.",
        "tap": "The ranking holds the ways: tapped, formed, milled and turned in one list.",
        "mill thread": "The ranking holds the ways: tapped, formed, milled and turned in one list.",
    },
    ask=ways_to_turn,
    of_stock=True,
)

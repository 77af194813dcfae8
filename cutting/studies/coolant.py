"""Which delivery suits, with the reason, and what pump and nozzles do."""

from __future__ import annotations

from cutting.operations.coolant import advise_coolant
from cutting.studies.study import TURNED, Study

STUDY = Study(
    "coolant",
    "coolant",
    "c",
    (*TURNED, "bore"),
    elsewhere={
        "drill": "What comes through the tool, and what the pump gives, stand in the result and among the limits.",
        "mill hole": "What comes through the tool, and what the pump gives, stand in the result and among the limits.",
        "heavy bore": "What comes through the tool, and what the pump gives, stand in the result and among the limits.",
        "turn thread": "Which coolant the machine gives is picked beside the speed.",
        "tap": "Which coolant the machine gives is picked beside the speed; taps want oil or rich emulsion in the hole.",
        "mill thread": "Emulsion below 54 HRC, air above: it stands among the limits, with the reason.",
    },
    ask=lambda setup, stock: advise_coolant(setup),
)

"""What the set-up of a narrow tool asks of hand and eye; it is drawn from the bench's own answer."""

from __future__ import annotations

from cutting.studies.study import Study

STUDY = Study(
    "setting",
    "set-up",
    "x",
    ("groove", "face groove", "trepan", "cut off"),
)

"""What was measured of a thread, and what to set; its doors are those of the thread's sizes."""

from __future__ import annotations

from cutting.studies.study import Study

STUDY = Study(
    "thread size",
    "thread size",
    "z",
    ("turn thread", "tap", "mill thread"),
)

"""Recorded thrust and torque of holes against what is reckoned, and what they teach; its doors are those of the traces."""

from __future__ import annotations

from cutting.studies.study import Study

STUDY = Study(
    "traces",
    "traces",
    "d",
    ("drill",),
)

"""Hard turning against grinding."""

from __future__ import annotations

from cutting.studies.study import TURNED, Study

STUDY = Study(
    "hard",
    "hard turning",
    "h",
    TURNED,
    elsewhere={
        "drill": "Hardened holes are drilled by carbide or milled; grinding them is not weighed here.",
        "mill hole": "Hardened holes are drilled by carbide or milled; grinding them is not weighed here.",
        "bore": "A hardened bore is ground or method CBN by its own rules of form; this sheet weighs outside grinding only.",
        "heavy bore": "Hardened bores are ground, or bored one by one with CBN.",
        "turn thread": "Hardened threads are turned with CBN or milled; the ranking holds both.",
        "tap": "Hardened threads are milled from the solid or turned with CBN; the ranking holds both.",
        "mill thread": "Hardened threads are milled from the solid up to 66 HRC; the ranking holds it against turning with CBN.",
    },
)

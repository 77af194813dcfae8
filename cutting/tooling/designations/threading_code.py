"""Laydown threading inserts as the trade writes them: `16 ER 1.5 ISO`, `22 IR 8 UN`. Common practice, no standard."""

from __future__ import annotations

import re
from dataclasses import dataclass
from types import MappingProxyType

from cutting.tooling.designations.parts import Part, Position, millimetres, squeeze


@dataclass(frozen=True)
class ThreadingCode:
    """What a laydown threading code says; lengths in mm. A full profile has one pitch, a partial profile a range."""

    text: str
    inscribed_circle: float
    internal: bool
    hand: str
    pitch: float | None
    pitch_range: tuple[float, float] | None
    threads_per_inch: float | None
    profile: str
    parts: tuple[Part, ...]


# two digits: edge of the triangle in whole mm -> circle; one digit: eighths of an inch of the circle
SIZES = MappingProxyType({"06": 3.97, "08": 4.76, "11": 6.35, "16": 9.525, "22": 12.7, "27": 15.875, "33": 19.05})
INCH_SIZES = MappingProxyType({"2": 6.35, "3": 9.525, "4": 12.7, "5": 15.875, "6": 19.05})
PROFILES = MappingProxyType(
    {
        "ISO": "ISO metric 60°",
        "M": "ISO metric 60°",
        "UN": "unified 60°",
        "UNJ": "unified, rounded root 60°",
        "MJ": "metric, rounded root 60°",
        "W": "Whitworth 55°",
        "BSPT": "taper pipe 55°",
        "NPT": "taper pipe 60°",
        "NPTF": "dry-seal taper pipe 60°",
        "TR": "ISO trapezoidal 30°",
        "ACME": "Acme 29°",
        "STACME": "stub Acme 29°",
        "RD": "round 30°",
        "60": "partial profile 60°",
        "55": "partial profile 55°",
    }
)
# letter of a partial profile -> pitches it cuts, mm
PARTIAL = MappingProxyType({"A": (0.5, 1.5), "AG": (0.5, 3.0), "G": (1.75, 3.0), "N": (3.5, 5.0), "Q": (5.5, 6.0), "U": (5.5, 8.0)})
INCH_PROFILES = ("UN", "UNJ", "W", "BSPT", "NPT", "NPTF", "ACME", "STACME")


def looks_like_threading(text: str) -> bool:
    """Digits first, then side and hand, as 16 ER."""
    return bool(re.match(r"^\d\d?U?[EI][RL]", squeeze(text)))


def read_threading_code(text: str, field: str = "designation") -> ThreadingCode:
    """Read a laydown code such as `16 ER 1.5 ISO`, `22 IR 8 UN`, `16 ER AG 60`. Raises `UnreadableDesignation`.

    >>> read_threading_code("22 IR 8 UN").pitch
    3.175
    """
    shown = text.strip()
    code = squeeze(text)
    size = re.match(r"^\d+", code)
    digits = size[0] if size else ""
    sizes = INCH_SIZES if len(digits) == 1 else SIZES
    if digits not in sizes:
        Position(1, "size", shown, field).refuse(digits or code[:1], " ".join((*SIZES, *INCH_SIZES)))
    rest = code[len(digits) :].removeprefix("U")
    side = Position(2, "side", shown, field).choose(rest[:1], {"E": "external thread", "I": "internal thread"})
    hand = Position(3, "hand", shown, field).choose(rest[1:2], {"R": "right hand", "L": "left hand"})
    found = re.match(r"^(AG|[AGNQU](?=60|55)|\d+(?:\.\d+)?(?=[A-Z]))([A-Z]+|60|55)(.*)$", rest[2:])
    if not found:
        Position(4, "pitch", shown, field).refuse(
            rest[2:], "pitch in mm or threads per inch before the profile, or A G AG N Q U before 60 or 55"
        )
        raise AssertionError
    pitch_text, profile_text, _ = found.groups()
    profile = Position(5, "profile", shown, field).choose(profile_text, PROFILES)
    circle = sizes[digits]
    first = Part("1", digits, "size", f"triangle, inscribed circle {millimetres(circle)}")
    if pitch_text in PARTIAL:
        low, high = PARTIAL[pitch_text]
        part = Part("4", pitch_text, "pitch", f"partial profile for pitches {low:g} to {high:g} mm")
        return ThreadingCode(
            shown, circle, side.code == "I", hand.code, None, (low, high), None, profile_text, (first, side, hand, part, profile)
        )
    number = float(pitch_text)
    per_inch = number if profile_text in INCH_PROFILES else None
    pitch = 25.4 / number if per_inch else number
    if not 0.2 <= pitch <= 16:
        Position(4, "pitch", shown, field).refuse(pitch_text, "0.2 to 16 mm, or the threads per inch of such pitches")
    words = f"{number:g} threads per inch, pitch {pitch:.4g} mm" if per_inch else f"pitch {millimetres(pitch)}"
    part = Part("4", pitch_text, "pitch", words)
    return ThreadingCode(
        shown, circle, side.code == "I", hand.code, pitch, None, per_inch, profile_text, (first, side, hand, part, profile)
    )


def write_threading(code: ThreadingCode) -> str:
    """The code in its usual spacing: `16 ER 1.5 ISO`."""
    size, side, hand, pitch, profile = (part.code for part in code.parts)
    return f"{size} {side}{hand} {pitch} {profile}"

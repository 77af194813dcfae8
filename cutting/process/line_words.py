"""The words of a line: a step as it is said, and the operation that it asks for."""

from __future__ import annotations

import math
import re
from dataclasses import dataclass, replace

from cutting.errors import AmbiguousQuantity, OutOfRange, UnreadableQuantity
from cutting.quantities import Dimension, read_dimension, read_quantity
from cutting.quantities.dimension import spelled_out
from cutting.quantities.roughness import SHARES

FINISH_STOCK = 0.6  # mm on diameter that roughing leaves where a size or a finish is asked (common practice)
FINE = 3.2  # µm Ra from which a finish is a cut of its own
LEAST_CUT = 0.05  # mm on diameter below which nothing is turned
_SIZE = r"(?:[Øø]|dia(?:meter)?\.?\s*|d\s*=?\s*(?=\d))?\s*(?P<size>.+?)(?:\s*dia(?:meter)?\.?(?P<fit>\s.*?)?)?"
_LENGTH = r"(?P<length>[\d.,/\s-]*\d(?:\s*(?:mm|in|\"|″))?)"
_STEP = re.compile(rf"^{_SIZE}\s*[x×*]\s*{_LENGTH}(?P<rest>.*)$", re.IGNORECASE)
_CHAMFER = re.compile(
    r"\s+(?:C\s*(?P<c>[\d.,]+)|chamfer(?:ed)?\s+(?P<said>[\d.,]+)(?:\s*[x×]\s*45\s*°?)?|(?P<legs>[\d.,]+)\s*[x×]\s*45\s*(?:°|deg\b))",
    re.IGNORECASE,
)
_TAPER = re.compile(
    r"\s+(?:taper(?:ed)?|cone)\s+(?:1\s*:\s*(?P<ratio>[\d.,]+)|(?P<angle>[\d.,]+)\s*(?:°|deg\b)\s*(?P<side>per\s+side|a\s+side|included)?)",
    re.IGNORECASE,
)
_TO = re.compile(rf"^{_SIZE}\s+to\s+{_LENGTH}(?P<rest>.*)$", re.IGNORECASE)
_NOTE = re.compile(r"\s*(?P<word>Ra|Rz|Rt|R|N)\s*(?P<value>[\d.,]+\s*(?:µm|um|µin|mm|in)?)", re.IGNORECASE)
OWN_GROOVE = re.compile(r"^(?P<width>[^x×]+?)\s*[x×]\s*[Øø]?\s*(?P<floor>.+)$")


@dataclass(frozen=True)
class LineStep:
    """A cylinder of the shaft: size and how it is entered in mm, length, what else the drawing says, where it stands from the jaws."""

    size: Dimension
    entered: str
    length: float
    roughness: float | None = None
    finish: str = ""  # the same in the drawing's own word
    fillet: float | None = None
    near: float = 0.0
    chamfer: float = 0.0  # mm x 45° at its free end
    absolute: bool = False  # its length is told from where the line begins
    taper: float = 0.0  # mm on diameter that it is thinner for each mm towards its free end (ISO 3040: the rate of taper)
    note: str = ""  # what it was given that was not said

    @property
    def far(self) -> float:
        return self.near + self.length

    @property
    def thin_end(self) -> float:
        """Ø [mm] at its free end, in front of its chamfer."""
        return self.size.nominal - self.taper * self.length

    @property
    def fine(self) -> bool:
        """Whether a cut of its own finishes it: a size, a finish, a taper or a chamfer is asked."""
        smooth = self.roughness is not None and self.roughness <= FINE
        return self.size.tolerance is not None or smooth or self.chamfer > 0 or self.taper > 0


@dataclass(frozen=True)
class Planned:
    """An operation that the line asks for: kind, title, the feature's entries, and what was assumed."""

    kind: str
    title: str
    feature: dict[str, str | bool]
    note: str = ""
    turned_round: bool = False


def is_step(word: str) -> bool:
    """Whether a word begins as a step does: with a diameter."""
    return bool(re.match(r"^(?:[Øø]|dia|d\s*=?\s*\d|\d)", word, re.IGNORECASE))


def read_step(word: str, system: str) -> LineStep:
    """A step as it is said. Raises `CuttingError` that repeats the words it could not read."""
    chamfers = [next(filter(None, found.groups())) for found in _CHAMFER.finditer(word)]
    taper, plain = _taper(word, _CHAMFER.sub("", word))
    found = _TO.match(plain) or _STEP.match(plain)
    if re.match(r"^(M|UN|G|Tr)\s*\d", word):
        raise UnreadableQuantity(
            "line", f"'{word}': a thread is 'thread M20x1.5 x 30' after its step, or 'tapped M20x1.5 x 20' in the face."
        )
    if not found:
        raise UnreadableQuantity("line", f"'{word}' is no step, groove, face or cut off. A step is Ø30 h6 x 50 Ra 0.8, or Ø30 to 80.")
    if len(chamfers) > 1:
        raise UnreadableQuantity("line", f"'{word}' has {len(chamfers)} chamfers; a step has one, at its free end.")
    said = f"{found['size'].strip()}{found['fit'] or ''}"
    size = read_dimension(said, system, "line")
    length = read_quantity(found["length"].strip(), "length", system=system, field="line").value
    if not (size.nominal > 0 and length > 0):
        raise OutOfRange("line", f"'{word}': diameter and length must be above zero.", "above 0 mm")
    notes, rest = {}, found["rest"]
    while rest.strip():
        note = _NOTE.match(rest)
        if not note:
            raise UnreadableQuantity(
                "line", f"'{rest.strip()}' in '{word}' is no finish (Ra, Rz, N6), fillet (R0.8) or chamfer (1x45°, C1)."
            )
        word_of = note["word"].lower()
        notes["r" if word_of == "r" else "finish"], rest = note["value" if word_of == "r" else 0].strip(), rest[note.end() :]
    rough = read_quantity(notes["finish"], "roughness", system=system, field="line").value if "finish" in notes else None
    fillet = read_quantity(notes["r"], "length", system=system, field="line").value if "r" in notes else None
    finish = _finish(notes["finish"], rough) if rough is not None else ""
    chamfer = read_quantity(chamfers[0], "length", system=system, field="line").value if chamfers else 0.0
    if not 0.0 <= chamfer < min(length, size.nominal / 2.0):
        raise OutOfRange(
            "line", f"'{word}': a chamfer of {chamfer:g} mm leaves nothing of it.", f"below {min(length, size.nominal / 2):g} mm"
        )
    step = LineStep(size, spoken(size, system), length, rough, finish, fillet)
    step = replace(step, chamfer=chamfer, absolute=found.re is _TO, taper=taper)
    if taper and not step.absolute and step.thin_end <= 2 * chamfer:
        longest = (size.nominal - 2 * chamfer) / taper
        raise OutOfRange("line", f"'{word}': the taper ends in nothing before its free end.", f"below {longest:.4g} mm long")
    return step


def _taper(word: str, plain: str) -> tuple[float, str]:
    """The rate of taper of a step [–] and its other words; an angle that may be of one side or of both is asked."""
    found = _TAPER.search(plain)
    if found is None:
        return 0.0, plain
    said = found["ratio"] or found["angle"]
    number = read_quantity(said, "number", system="metric", field="line").value
    if found["ratio"]:
        if not number >= 1.0:
            raise OutOfRange("line", f"'{word}': a taper of 1:{number:g} is no taper.", "from 1:1")
        return 1.0 / number, _TAPER.sub("", plain)
    if found["side"] is None:
        readings = (f"{said}° per side", f"{said}° included")
        raise AmbiguousQuantity(
            "line", f"'{word}': {said}° of each side, or between both (write {' or '.join(readings)})?", readings=readings
        )
    half = number / 2.0 if found["side"].lower() == "included" else number
    if not 0.0 < half < 80.0:
        raise OutOfRange("line", f"'{word}': a taper has 0 to 80° of each side.", "0 to 80°")
    return 2.0 * math.tan(math.radians(half)), _TAPER.sub("", plain)


def _finish(said: str, ra: float) -> str:
    """A finish with its unit in the drawing's own word; Ra [µm] is what it was read as."""
    if said[:1] in "Nn":
        return said.upper()
    word = said[:2].lower()
    return f"{ra:g} µm" if word == "ra" else f"{word.capitalize()} {ra / SHARES[word]:g} µm"


def spoken(size: Dimension, system: str) -> str:
    """The size as it was typed, with its unit where that is inches."""
    return spelled_out(size.entered, system, "line").lstrip("Øø ")

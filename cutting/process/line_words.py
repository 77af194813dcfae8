"""The words of a line: a step as it is said, and the operation that it asks for."""

from __future__ import annotations

import re
from dataclasses import dataclass, replace

from cutting.errors import OutOfRange, UnreadableQuantity
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

    @property
    def far(self) -> float:
        return self.near + self.length

    @property
    def fine(self) -> bool:
        """Whether a cut of its own finishes it: a size, a finish or a chamfer is asked."""
        return self.size.tolerance is not None or (self.roughness is not None and self.roughness <= FINE) or self.chamfer > 0


@dataclass(frozen=True)
class Planned:
    """An operation that the line asks for: kind, title, the feature's entries, and what was assumed."""

    kind: str
    title: str
    feature: dict[str, str | bool]
    note: str = ""
    turned_round: bool = False


def read_step(word: str, system: str) -> LineStep:
    """A step as it is said. Raises `CuttingError` that repeats the words it could not read."""
    chamfers = [next(filter(None, found.groups())) for found in _CHAMFER.finditer(word)]
    plain = _CHAMFER.sub("", word)
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
    return replace(step, chamfer=chamfer, absolute=found.re is _TO)


def _finish(said: str, ra: float) -> str:
    """A finish with its unit in the drawing's own word; Ra [µm] is what it was read as."""
    if said[:1] in "Nn":
        return said.upper()
    word = said[:2].lower()
    return f"{ra:g} µm" if word == "ra" else f"{word.capitalize()} {ra / SHARES[word]:g} µm"


def spoken(size: Dimension, system: str) -> str:
    """The size as it was typed, with its unit where that is inches."""
    return spelled_out(size.entered, system, "line").lstrip("Øø ")

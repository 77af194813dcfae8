"""A stack that one drill goes through: metals and laminates in order, as people write them in one line."""

from __future__ import annotations

import re
from collections.abc import Callable, Iterable
from dataclasses import dataclass, replace

from cutting.errors import CuttingError, OutOfRange
from cutting.quantities import read_quantity
from cutting.workpiece.laminates import Laminate, laminate_of
from cutting.workpiece.materials import Material, Work, deliver

MOST_LAYERS = 40
THICKNESS = (0.01, 500.0)  # mm
EXAMPLE = "GFRP 4 / 1.4301 1.5 x2 / EN AW-2024 6"
_SIZE = r"(?:\d+/\d+|\d[\d.,]*)\s*(?:mm|µm|um|in|inch|thou|\")?"
_LAYER = re.compile(
    rf"(?P<name>.+?)[\s:]+(?P<thick>{_SIZE})(?:\s*[x×]\s*(?P<count>\d+))?(?P<more>(?:\s+(?:gap|ply)\s+{_SIZE}|\s+backed)*)\s*",
    re.IGNORECASE,
)
_MORE = re.compile(rf"(gap|ply)\s+({_SIZE})", re.IGNORECASE)
_BETWEEN = re.compile(r"[;\n]|\s/|/\s")  # a slash inside a name, as in 304/304L, has no blank beside it


@dataclass(frozen=True)
class StackLayer:
    """One layer from the entry on: as it is named, its thickness and the gap beneath it [mm]; `ply` where it differs from the usual.

    `backed` says that something holds the last one. `work` is its material, once it was looked up.
    """

    name: str
    thickness: float
    gap: float = 0.0
    ply: float | None = None
    backed: bool = False
    work: Work | None = None

    @property
    def material(self) -> Material:
        """Its material. Raises `CuttingError` before it was looked up."""
        if self.work is None:
            raise CuttingError("feature.stack", f"{self.name} was not looked up.")
        return self.work.material

    @property
    def laminate(self) -> Laminate | None:
        """What it is as a laminate, None for a metal."""
        found = laminate_of(self.material)
        return replace(found, ply=self.ply) if found and self.ply else found


def read_stack(text: str, system: str = "mm", field: str = "feature.stack") -> tuple[StackLayer, ...]:
    """Layers such as `GFRP 4 / 1.4301 1.5 x2 / EN AW-2024 6`, from the entry on. Raises `CuttingError` that names the layer."""
    found: list[StackLayer] = []
    for number, word in enumerate(filter(None, (part.strip() for part in _BETWEEN.split(text))), start=1):
        match = _LAYER.fullmatch(word)
        if match is None:
            raise CuttingError(field, f"layer {number}, '{word[:40]}', is no material with a thickness, as in {EXAMPLE}.", EXAMPLE)
        more = {name.lower(): _length(size, system, f"layer {number}", field) for name, size in _MORE.findall(match["more"])}
        thick = _length(match["thick"], system, f"layer {number}, {match['name']}", field)
        layer = StackLayer(match["name"], thick, 0.0, more.get("ply"), "backed" in match["more"].lower())
        count = int(match["count"] or 1)
        if not 1 <= count <= MOST_LAYERS:
            raise OutOfRange(field, f"layer {number}: {count} of them are outside 1 to {MOST_LAYERS}.", f"1 to {MOST_LAYERS}")
        found += [layer] * (count - 1) + [replace(layer, gap=more.get("gap", 0.0))]
    if len(found) > MOST_LAYERS:
        raise OutOfRange(field, f"{len(found)} layers are more than {MOST_LAYERS}.", f"{MOST_LAYERS} layers")
    return tuple(found)


def _length(text: str, system: str, what: str, field: str) -> float:
    try:
        value = read_quantity(text, "length", system=system, field=field).value
    except CuttingError as error:
        error.message = f"{what}: {error.message}"
        raise
    if not THICKNESS[0] <= value <= THICKNESS[1]:
        said = f"{THICKNESS[0]:g} to {THICKNESS[1]:g} mm"
        raise OutOfRange(field, f"{what}: {text.strip()} is outside {said}.", said)
    return value


def delivered(layers: Iterable[StackLayer], find: Callable[[str], Material], field: str = "feature.stack") -> tuple[StackLayer, ...]:
    """The layers with their materials. Raises `CuttingError`."""
    found = []
    for layer in layers:
        try:
            found.append(replace(layer, work=deliver(find(layer.name))))
        except CuttingError as error:
            error.field = field
            raise
    return tuple(found)


def written(layers: Iterable[StackLayer]) -> str:
    """The layers in one line, as they are read again; equal ones that follow each other once, with their count."""
    runs: list[tuple[StackLayer, int]] = []
    for layer in layers:
        if runs and not runs[-1][0].gap and replace(layer, gap=0.0) == runs[-1][0]:
            runs[-1] = (layer, runs[-1][1] + 1)
        else:
            runs.append((layer, 1))
    return " / ".join(_written(layer, count) for layer, count in runs)


def _written(layer: StackLayer, count: int) -> str:
    more = f" x{count}" if count > 1 else ""
    more += f" ply {layer.ply:g} mm" if layer.ply else ""
    more += f" gap {layer.gap:g} mm" if layer.gap else ""
    return f"{layer.name} {layer.thickness:g} mm{more}{' backed' if layer.backed else ''}"

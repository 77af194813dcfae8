"""A stock of layers: which metals a cut goes through, by its place."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

from cutting.errors import CuttingError
from cutting.quantities import read_quantity
from cutting.wear.reference import life_law
from cutting.workpiece.materials import Material
from cutting.workpiece.solid import Region, Side, Solid

MOST_LAYERS = 12
TOUCHED = 1e-3  # mm of a layer that a cut must take to count


@dataclass(frozen=True)
class Layer:
    """A metal from one place to another, mm from the chuck."""

    material: str
    near: float
    far: float


def read_layers(text: str, face: float, field: str = "stock.layers") -> tuple[Layer, ...]:
    """Layers such as `C45: 6 mm; X5CrNi18-10: 4 mm`, from the free face [mm from the chuck] inwards. Raises `CuttingError`."""
    found: list[Layer] = []
    for material, thick in split_layers(text, field):
        size = read_quantity(thick, "length", field=field).value
        if not size > 0:
            raise CuttingError(field, f"{material}: a layer is thicker than 0.", "over 0 mm")
        far = found[-1].near if found else face
        found.append(Layer(material, far - size, far))
    if len(found) > MOST_LAYERS:
        raise CuttingError(field, f"{len(found)} layers are more than {MOST_LAYERS}.", f"{MOST_LAYERS} layers")
    return tuple(found)


def split_layers(text: str, field: str = "stock.layers") -> list[tuple[str, str]]:
    """Material and thickness of each layer, as they were written. Raises `CuttingError`."""
    found = []
    for word in filter(None, (part.strip() for part in text.split(";"))):
        material, _, thick = (part.strip() for part in word.rpartition(":"))
        if not material or not thick:
            raise CuttingError(field, f"'{word}' is no layer: a material and its thickness are wanted, such as C45: 6 mm.", "C45: 6 mm")
        found.append((material, thick))
    return found


def slowest_first(materials: Iterable[Material]) -> list[Material]:
    """Metals by the speed at which carbide cuts them: the one that a common speed must spare comes first."""

    def speed(one: Material) -> float:
        law = life_law(one.speed_row, "carbide")
        return law.reference_speed if law else 0.0

    return sorted(materials, key=speed)


def layers_cut(layers: tuple[Layer, ...], region: Region, part: Solid) -> tuple[Layer, ...]:
    """The layers that a cut takes something of, from the free face inwards; the part is told as the layers are."""
    if region.side in (Side.FACE, Side.RING, Side.BORE):
        spans = [(part.face - region.depth, part.face)]
    else:  # what is cut off goes through at its kerf
        spans = [(near, max(far, near + 2.0 * TOUCHED)) for near, far, _ in region.spans]
    return tuple(one for one in layers if any(min(far, one.far) - max(near, one.near) > TOUCHED for near, far in spans))

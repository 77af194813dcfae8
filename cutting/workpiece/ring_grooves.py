"""Standard grooves: retaining rings on shafts and in bores, O-rings; and which insert may cut them in one plunge."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cache

from cutting.errors import UnknownName, require_between
from cutting.tables import read_table

# standard tolerance IT13 of the widths met here, mm: to 3 mm and to 6 mm (iso-286)
_IT13 = ((3.0, 0.14), (6.0, 0.18), (10.0, 0.22))


@dataclass(frozen=True)
class Groove:
    """A standard groove: width from `width` to `width` + `tolerance`, and the diameter of its floor; mm."""

    name: str
    width: float
    tolerance: float
    diameter: float | None
    source: str

    @property
    def widest(self) -> float:
        return self.width + self.tolerance


@cache
def _rings() -> dict[tuple[str, float], Groove]:
    found = {}
    for row in read_table("workpiece/ring_grooves.csv"):
        width, nominal = row.number("groove_width"), row.number("nominal")
        name = f"{'DIN 471' if row['kind'] == 'shaft' else 'DIN 472'} ring {nominal:g} × {row.number('ring_thickness'):g}"
        found[(row["kind"], nominal)] = Groove(name, width, it13(width), row.number("groove_diameter"), row["source"])
    return found


def it13(width: float) -> float:
    """Tolerance IT13 [mm] of a groove's width [mm]: ring grooves are H13. Raises `OutOfRange` above 10 mm."""
    require_between("width", width, 0.1, 10.0, "mm")
    return next(value for top, value in _IT13 if width <= top)


def ring_groove(kind: str, nominal: float) -> Groove:
    """The groove of a retaining ring on a `shaft` or in a `bore` of a nominal diameter [mm].

    Source: DIN 471, DIN 472 (from memory). Raises `UnknownName` with the nearest sizes where the table has none.
    """
    if (kind, nominal) not in _rings():
        sizes = sorted((size for what, size in _rings() if what == kind), key=lambda size: abs(size - nominal))
        near = tuple(f"{size:g}" for size in sizes[:3])
        raise UnknownName("feature.ring", f"no ring groove for a {kind} of {nominal:g} mm is in the table.", None, near)
    return _rings()[(kind, nominal)]


def seal_groove(cord: float) -> Groove:
    """The groove width for an O-ring of a cord diameter [mm]; its depth follows from the squeeze wanted.

    Source: ISO 3601-2 (from memory). Raises `UnknownName` with the cords there are.
    """
    for row in read_table("workpiece/seal_grooves.csv"):
        if abs(row.number("cord") - cord) < 0.05:
            return Groove(
                f"O-ring cord {row.number('cord'):g}", row.number("groove_width"), row.number("width_tolerance"), None, row["source"]
            )
    cords = tuple(row["cord"] for row in read_table("workpiece/seal_grooves.csv"))
    raise UnknownName("feature.seal", f"no O-ring groove for a cord of {cord:g} mm is in the table.", None, cords)


def fits_in_one_plunge(groove: Groove, insert_width: float, insert_tolerance: float) -> bool:
    """Whether an insert of a width ± tolerance [mm] leaves a groove inside its limits with one plunge.

    >>> fits_in_one_plunge(ring_groove("shaft", 20), 1.35, 0.02)
    True
    """
    return groove.width <= insert_width - insert_tolerance and insert_width + insert_tolerance <= groove.widest

"""Standard grooves: retaining rings on shafts and in bores, O-rings, reliefs; and which insert may cut them in one plunge."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cache

from cutting.errors import UnknownName, require_between
from cutting.tables import read_table

# standard tolerance IT13 of the widths met here, mm: to 3 mm and to 6 mm (iso-286)
_IT13 = ((3.0, 0.14), (6.0, 0.18), (10.0, 0.22))


@dataclass(frozen=True)
class Groove:
    """A standard groove: width from `width` to `width` + `tolerance`, and the diameter of its floor, or its depth; mm.

    `depth_tolerance` is how much deeper it may be, `radius` the radius of its corners.
    """

    name: str
    width: float
    tolerance: float
    diameter: float | None
    source: str
    depth: float | None = None
    depth_tolerance: float = 0.0
    radius: float | None = None

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
    """The groove for an O-ring of a cord diameter [mm], resting radially.

    Source: ISO 3601-2 (from memory). Raises `UnknownName` with the cords there are.
    """
    for row in read_table("workpiece/seal_grooves.csv"):
        if abs(row.number("cord") - cord) < 0.05:
            return Groove(
                f"O-ring cord {row.number('cord'):g}",
                row.number("groove_width"),
                row.number("width_tolerance"),
                None,
                row["source"],
                row.number("groove_depth"),
                row.number("depth_tolerance"),
            )
    cords = tuple(row["cord"] for row in read_table("workpiece/seal_grooves.csv"))
    raise UnknownName("feature.seal", f"no O-ring groove for a cord of {cord:g} mm is in the table.", None, cords)


def fits_in_one_plunge(groove: Groove, insert_width: float, insert_tolerance: float) -> bool:
    """Whether an insert of a width ± tolerance [mm] leaves a groove inside its limits with one plunge.

    >>> fits_in_one_plunge(ring_groove("shaft", 20), 1.35, 0.02)
    True
    """
    return groove.width <= insert_width - insert_tolerance and insert_width + insert_tolerance <= groove.widest


def relief(form: str, diameter: float) -> Groove:
    """The relief of DIN 509 beside a shoulder on a diameter [mm]: form E or F, usual stress. From memory.

    Raises `UnknownName` for another form, `OutOfRange` below 1.6 mm.
    """
    if form not in ("E", "F"):
        raise UnknownName("feature.standard", f"DIN 509 has no form '{form}' here.", None, ("E", "F"))
    require_between("feature.diameter", diameter, 1.6, 3150, "mm")
    row = next(row for row in read_table("workpiece/reliefs.csv") if diameter <= row.number("to_diameter"))
    name = f"DIN 509 {form} {row.number('radius'):g} × {row.number('depth'):g}"
    return Groove(name, row.number("width"), 0.2, None, row["source"], row.number("depth"), 0.1, row.number("radius"))


def thread_relief(pitch: float) -> Groove:
    """The undercut of DIN 76-1, form A, behind an outside metric thread of a pitch [mm]: its depth is below the thread's own Ø.

    From memory. Raises `UnknownName` with the nearest pitches where the table has none.
    """
    rows = read_table("workpiece/thread_reliefs.csv")
    for row in rows:
        if abs(row.number("pitch") - pitch) < 1e-6:
            name = f"DIN 76 A for pitch {pitch:g}"
            return Groove(name, row.number("width"), 0.2, None, row["source"], row.number("depth"), 0.1, row.number("radius"))
    near = tuple(f"{one:g}" for one in sorted((row.number("pitch") for row in rows), key=lambda one: abs(one - pitch))[:3])
    raise UnknownName("feature.standard", f"no undercut for a pitch of {pitch:g} mm is in the table.", None, near)


STANDARDS = ("DIN 471", "DIN 472", "DIN 509 E", "DIN 509 F", "O-ring 1.78", "O-ring 2.62", "O-ring 3.53", "O-ring 5.33", "O-ring 6.99")


def standard_groove(name: str, diameter: float) -> Groove:
    """A standard groove by what people write, on or in a diameter [mm]: `DIN 471`, `O-ring 3.53`, `DIN 509 F`.

    Raises `UnknownName` with what there is.
    """
    said = " ".join(str(name).upper().replace("O RING", "O-RING").split())
    if said in ("DIN 471", "DIN 472"):
        return ring_groove("shaft" if said.endswith("1") else "bore", diameter)
    if said.startswith("DIN 509 "):
        return relief(said[8:], diameter)
    if said.startswith("O-RING "):
        try:
            return seal_groove(float(said[7:].replace(",", ".")))
        except ValueError:
            pass
    raise UnknownName("feature.standard", f"'{name}' is none of the standard grooves.", None, STANDARDS)

"""What an insert designation says in full, and how it is written in metric and in inch practice."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from cutting.tooling.designations.insert_text import InsertText, corner_codes, sixteenths, sixty_fourths, take_apart, thickness_codes
from cutting.tooling.designations.letters import ONE_SIDED
from cutting.tooling.designations.parts import UnreadableDesignation
from cutting.tooling.shapes import SHAPES, edge_length, size_code, size_codes


@dataclass(frozen=True)
class InsertCode:
    """What an ISO 1832 designation says; lengths in mm."""

    text: str
    shape: str
    clearance: str
    inscribed_circle: float
    thickness: float
    nose_radius: float
    edge_length: float
    sides: int
    corners: int
    tips: int | None = None
    size: str = ""


def read_insert_code(text: str, field: str = "designation", given: Mapping[str, float] | None = None) -> InsertCode:
    """Read an ISO 1832 designation, metric or inch, such as `CNMG 120408`, `CNMG 432`, `ccmt-09t304`, `RCMT 1204M0`.

    `given` holds ISO 13399 properties (IC, S, RE in mm) for what the code does not say, as the width of LNMX.
    Raises `UnreadableDesignation` that names the position at fault and what is allowed there.

    >>> read_insert_code("CNMG 431.5").nose_radius
    0.6
    """
    said = take_apart(text, field)
    more = given or {}
    circle = more.get("IC", said.inscribed_circle)
    thickness, nose = more.get("S", said.thickness), more.get("RE", said.nose_radius)
    for value, symbol, name in ((circle, "IC", "width or inscribed circle"), (thickness, "S", "thickness"), (nose, "RE", "corner radius")):
        if value is None:
            raise UnreadableDesignation(field, f"'{said.text}' does not say its {name}; give it as {symbol}.", symbol)
    assert circle is not None
    assert thickness is not None
    assert nose is not None
    form = SHAPES[said.shape]
    edge = said.edge_length or edge_length(form, circle)
    return InsertCode(
        said.text,
        said.shape,
        said.clearance,
        circle,
        thickness,
        nose,
        edge,
        sides(said),
        form.corners,
        said.suffix.tips,
        seat_size(said, circle),
    )


def seat_size(said: InsertText, inscribed_circle: float) -> str:
    """The two characters of position 5, by which a pocket is made: of the circle [mm], or as written."""
    written = said.parts[4].code
    return written if said.system == "metric" else size_code(said.shape, inscribed_circle) or written


def sides(said: InsertText) -> int:
    """Sides with edges: two for negative inserts whose hole and breaker allow it; X types count one until told otherwise."""
    if said.clearance != "N" or said.fixing in ONE_SIDED or said.fixing == "X":
        return 1
    return 2


def edges_and_why(said: InsertText) -> tuple[int | None, str]:
    """Usable edges and the reason; None where the code cannot say."""
    form = SHAPES[said.shape]
    if said.suffix.tips:
        return said.suffix.tips, f"{said.suffix.tips} tipped {'corner' if said.suffix.tips == 1 else 'corners'}"
    if said.fixing == "X" and said.shape != "R":
        return None, "position 4 is X: its maker says how many edges there are"
    count = sides(said)
    turned = "both sides" if count == 2 else "one side"
    because = "no clearance, so it can be turned over" if count == 2 else _why_one_side(said)
    if said.shape == "R":
        return None, f"round, {turned}: as many indexings as the depth of cut allows ({because})"
    if said.shape in "CEM" and count == 2:
        return form.corners * 2, (
            f"{form.corners} acute corners × 2 sides ({because}); "
            f"the {180 - form.included_angle:g}° corners give {form.corners * 2} more in holders made for them (κr 75°)"
        )
    return form.corners * count, f"{form.corners} corners × {count} ({turned}: {because})"


def _why_one_side(said: InsertText) -> str:
    if said.clearance != "N":
        return "the clearance is ground on one side"
    return "hole or chipbreaker on one side only"


def write_metric(said: InsertText) -> str | None:
    """The metric designation, as `CNMG 120408`; None where the standard has no code for a size."""
    if said.system == "metric":
        digits = "".join(part.code for part in said.parts[4:7])
        return f"{_letters(said)} {digits}{_tail(said)}"
    if said.inscribed_circle is None:
        return None
    size = size_code(said.shape, said.inscribed_circle)
    thick = _code_of(thickness_codes(), said.thickness)
    corner = "00" if said.shape == "R" else _code_of(corner_codes(), said.nose_radius)
    if size is None or thick is None or corner is None:
        return None
    return f"{_letters(said)} {size}{thick}{corner}{_tail(said)}"


def write_inch(said: InsertText) -> str | None:
    """The inch practice of ANSI B212.4, as `CNMG 432`; below a quarter inch it counts thirty-seconds. None where it has no code."""
    circle = said.inscribed_circle
    if circle is None or said.metric_round or (said.shape != "R" and circle not in size_codes(said.shape).values()):
        return None
    small = circle < 6.34  # below a quarter inch sizes go in thirty-seconds (ANSI B212.4)
    size = f"{circle / 25.4 * (32 if small else 8):.0f}" if not _is_half_eighth(circle) else f"{circle / 25.4 * 8:.1f}"
    thick = _thirty_seconds(said.thickness) if small else _code_of(sixteenths(), said.thickness)
    if thick is None:
        return None
    if said.shape == "R":
        return f"{_letters(said)} {size}{thick}{_tail(said)}"
    corner = _code_of(sixty_fourths(), said.nose_radius)
    return None if corner is None else f"{_letters(said)} {size}{thick}{corner}{_tail(said)}"


def _is_half_eighth(circle: float) -> bool:
    return abs(circle - 7.94) < 0.01  # 5/16 in is 2.5 eighths


def _thirty_seconds(thickness: float | None) -> str | None:
    if thickness is None:
        return None
    count = thickness / 25.4 * 32
    return f"{round(count * 2) / 2:g}" if abs(count * 2 - round(count * 2)) < 0.06 else None


def _code_of(codes: Mapping[str, float], value: float | None) -> str | None:
    return None if value is None else next((code for code, known in codes.items() if abs(known - value) < 0.005), None)


def _letters(said: InsertText) -> str:
    return f"{said.shape}{said.clearance}{said.tolerance}{said.fixing}"


def _tail(said: InsertText) -> str:
    codes = [part.code for part in said.suffix.parts]
    lead = "".join(code for part, code in zip(said.suffix.parts, codes, strict=True) if part.position in ("8", "9", "10"))
    rest = [code for part, code in zip(said.suffix.parts, codes, strict=True) if part.position not in ("8", "9", "10")]
    return "".join(f" {word}" for word in (lead, *rest) if word)

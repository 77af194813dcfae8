"""Whether an insert, a holder and a machine go together: every rule with its reason, kept or broken."""

from __future__ import annotations

from dataclasses import dataclass

from cutting.machine.condition import FORBIDDEN, NOTES
from cutting.machine.machines import Machine
from cutting.tooling.bars import body_of
from cutting.tooling.blades import Blade
from cutting.tooling.drills import Chuck, Drill
from cutting.tooling.groove_inserts import GrooveInsert
from cutting.tooling.items import Holder, Insert
from cutting.tooling.mills import EndMill

TAILSTOCK = "Morse 4"  # of an engine lathe (common practice)
STEEL_OVERHANG = 1.5  # × shank height that stands without care (common practice, no source)


@dataclass(frozen=True)
class Check:
    """One rule: whether it holds, and what was held against what."""

    name: str
    fits: bool
    reason: str


def fit_checks(insert: Insert, holder: Holder, machine: Machine | None = None, overhang: float | None = None) -> tuple[Check, ...]:
    """All rules of an assembly: pocket, machine's seat, coolant, condition, overhang [mm]."""
    i, h = insert.code, holder.code
    same_shape, same_clearance, same_size = i.shape == h.shape, i.clearance == h.clearance, i.size == h.size
    found = [
        Check("shape", same_shape, f"the pocket is made for shape {h.shape}, the insert is {i.shape}"),
        Check("clearance", same_clearance, f"the pocket is made for clearance {h.clearance}, the insert has {i.clearance}"),
        Check("size", same_size, f"the pocket is made for size {h.size}, the insert is {i.size}"),
    ]
    if machine is not None:
        found += _on_machine(insert, holder, machine)
    if overhang is not None:
        found.append(_overhang(holder, overhang))
    return tuple(found)


def blade_checks(insert: GrooveInsert, blade: Blade, machine: Machine | None = None) -> tuple[Check, ...]:
    """All rules of a grooving insert in its blade, bar or head: pocket, machine's seat, condition."""
    seat = f"pocket {blade.seat}" if blade.seat else f"{blade.width:g} mm"
    own = f"for pocket {insert.seat}" if insert.seat else f"{insert.width:g} mm wide"
    found = [Check("pocket", blade.takes(insert), f"it is made for {seat}, the insert is {own}")]
    if machine is not None:
        tallest = tallest_blade(machine)
        brittle = insert.grade.tool_class in FORBIDDEN[machine.condition]
        seats = machine.shank_height <= 0 or blade.height <= tallest
        found += [
            Check("seat", seats, f"{blade.height:g} mm tall; {machine.name} seats blades up to {tallest:g} mm"),
            Check("condition", not brittle, f"{machine.name} is {machine.condition}: {NOTES[machine.condition]}"),
        ]
    return tuple(found)


def drill_checks(drill: Drill | EndMill, chuck: Chuck, machine: Machine | None = None, overhang: float | None = None) -> tuple[Check, ...]:
    """All rules of a round tool in what holds it: shank, machine's seat, condition, and that it stands out [mm] as far as it drills."""
    shank = drill.taper or f"{drill.shank:g} mm"
    sizes = f"{chuck.low:g} mm" if chuck.low == chuck.high else f"{chuck.low:g} to {chuck.high:g} mm"
    taken = chuck.takes_taper or sizes
    found = [Check("shank", chuck.takes(drill), f"it takes {taken}, the tool's shank is {shank}")]
    if machine is not None:
        seats = drill_seats(machine)
        brittle = drill.grade.tool_class in FORBIDDEN[machine.condition]
        found += [
            Check("seat", chuck.sits_in in seats, f"it sits in {chuck.sits_in}; {machine.name} has {', '.join(sorted(seats))}"),
            Check("condition", not brittle, f"{machine.name} is {machine.condition}: {NOTES[machine.condition]}"),
        ]
    if overhang is not None:
        found.append(Check("overhang", overhang >= drill.reach, f"it reaches {drill.reach:g} mm deep and stands out {overhang:g} mm"))
    return tuple(found)


def drill_seats(machine: Machine) -> frozenset[str]:
    """What a drill's holder may sit in: a turret's or post's seat, a tailstock's taper, or the spindle that turns the tool."""
    if not machine.turns:
        return frozenset({machine.interface})
    seats = {f"shank {machine.shank_height:g}"}
    return frozenset(seats | ({TAILSTOCK} if machine.geared else set()))


def tallest_blade(machine: Machine) -> float:
    """The tallest blade [mm] that a machine seats: its block takes taller ones than a shank's seat (common practice)."""
    return machine.shank_height * 1.3 + 8.0


def _overhang(holder: Holder, overhang: float) -> Check:
    code = holder.code
    share, what = STEEL_OVERHANG, "the shank's height"
    if code.bar:
        share, what = body_of(code.bar).reach, "the bar's diameter"
    allowed = share * code.shank_height
    return Check("overhang", overhang <= allowed, f"overhang {overhang:g} mm against {allowed:g} mm, {share:g} × {what}")


def _seats(holder: Holder, machine: Machine) -> list[Check]:
    height, high = holder.code.shank_height, machine.shank_height
    sits = bool(machine.takes_shank(height, bool(holder.code.bar)))
    if holder.code.bar:
        return [Check("sleeve", sits, f"bar of {height:g} mm in a sleeve; {machine.name} holds up to {machine.thickest_bar:g} mm")]
    said = f"{machine.lowest_shank:.0f} to {high:g} mm" if machine.geared else f"{high:g} mm"
    return [Check("shank", sits, f"shank {height:g} mm, {machine.name} seats {said}")]


def _on_machine(insert: Insert, holder: Holder, machine: Machine) -> list[Check]:
    seats = _seats(holder, machine)
    brittle = insert.grade.tool_class in FORBIDDEN[machine.condition]
    found = [
        Check("machine", machine.turns, f"{machine.name} {'turns' if machine.turns else 'does not turn'} parts"),
        *seats,
        Check("condition", not brittle, f"{machine.name} is {machine.condition}: {NOTES[machine.condition]}"),
    ]
    if holder.coolant != "dry":
        has = machine.pressure(holder.coolant) is not None or machine.pressure("flood") is not None
        found.append(
            Check("coolant", has, f"the holder takes {holder.coolant}; {machine.name} delivers {', '.join(n for n, _ in machine.coolant)}")
        )
    return found

"""Whether an insert, a holder and a machine go together: every rule with its reason, kept or broken."""

from __future__ import annotations

from dataclasses import dataclass

from cutting.machine.condition import FORBIDDEN, NOTES
from cutting.machine.machines import Machine
from cutting.tooling.items import Holder, Insert

STEEL_OVERHANG = 1.5  # × shank height that a steel shank stands without care (common practice, no source)


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
        allowed = STEEL_OVERHANG * h.shank_height
        found.append(
            Check(
                "overhang", overhang <= allowed, f"overhang {overhang:g} mm against {allowed:g} mm, {STEEL_OVERHANG:g} × the shank's height"
            )
        )
    return tuple(found)


def _on_machine(insert: Insert, holder: Holder, machine: Machine) -> list[Check]:
    height = holder.code.shank_height
    low = machine.shank_height * (0.6 if machine.speeds else 0.99)
    seat = f"shank {height:g} mm, {machine.name} seats {low:.0f} to {machine.shank_height:g} mm" if machine.speeds else (
        f"shank {height:g} mm, {machine.name} seats {machine.shank_height:g} mm"
    )  # fmt: skip
    brittle = insert.grade.tool_class in FORBIDDEN[machine.condition]
    found = [
        Check("machine", machine.turns, f"{machine.name} {'turns' if machine.turns else 'does not turn'} parts"),
        Check("shank", low <= height <= machine.shank_height, seat),
        Check("condition", not brittle, f"{machine.name} is {machine.condition}: {NOTES[machine.condition]}"),
    ]
    if holder.coolant != "dry":
        has = machine.pressure(holder.coolant) is not None or machine.pressure("flood") is not None
        found.append(
            Check("coolant", has, f"the holder takes {holder.coolant}; {machine.name} delivers {', '.join(n for n, _ in machine.coolant)}")
        )
    return found

"""A material of the user's own: from its group and hardness, with the correction shown and every number theirs to set."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from cutting.errors import CuttingError, OutOfRange, require_between
from cutting.tables import Row, read_table
from cutting.workpiece.hardness import convert
from cutting.workpiece.materials import Material, groups

SHARES = ("ductility", "adhesion", "abrasion", "work_hardening")
PHYSICAL = ("conductivity", "density", "specific_heat", "expansion", "elastic_modulus")
NUMBERS = ("strength", "specific_force_1", "force_exponent", "speed_row", "speed_factor", *SHARES, *PHYSICAL)
FORCE_POWER = 0.4  # of the hardness inside one group (common practice), as in a delivery


@dataclass(frozen=True)
class Derived:
    """Numbers taken from the group, each with the reason."""

    numbers: dict[str, Any]
    reasons: dict[str, str]


def derive(group: int, hardness_low: float, hardness_high: float) -> Derived:
    """All numbers of a material from its VDI 3323 group and usual hardness [HB].

    kc1.1 follows the 0.4th power of hardness against the group's guide hardness; strength is converted by ISO 18265
    where its table holds. Raises `CuttingError` for an unknown group, `OutOfRange` for a hardness far from it.
    """
    if group not in groups():
        raise CuttingError("group", f"{group} is none of the 41 groups of VDI 3323.", "1 to 41")
    what, row = groups()[group], _group_rows()[group]
    if hardness_low > hardness_high:
        raise OutOfRange(
            "hardness_low", f"{hardness_low:g} is above the upper hardness {hardness_high:g}.", f"at most {hardness_high:g} HB"
        )
    usual = (hardness_low + hardness_high) / 2
    guide = what.hardness
    numbers: dict[str, Any] = {name: row.number(name) for name in (*SHARES, *PHYSICAL, "force_exponent")}
    reasons = dict.fromkeys(numbers, f"as group {group}, {what.description}")
    base = row.number("specific_force_1")
    if guide:
        require_between("hardness_high", usual, 0.4 * guide, 2.0 * guide, f"HB for group {group} (guide {guide:g} HB)")
        numbers["specific_force_1"] = round(base * (usual / guide) ** FORCE_POWER)
        reasons["specific_force_1"] = f"{base:g} of group {group} × ({usual:g}/{guide:g} HB)^{FORCE_POWER:g}"
    else:
        numbers["specific_force_1"], reasons["specific_force_1"] = base, f"as group {group}; it has no guide hardness"
    numbers["strength"], reasons["strength"] = _strength(group, usual)
    numbers["speed_row"], reasons["speed_row"] = str(group), "starting speeds of the group, corrected by hardness about HB⁻¹"
    numbers["speed_factor"], reasons["speed_factor"] = 1.0, "as the group"
    return Derived(numbers, reasons)


def _strength(group: int, hardness: float) -> tuple[float, str]:
    what = groups()[group]
    try:
        found = convert(hardness, "HB", what).values["Rm"]
        return round(found), f"{hardness:g} HB by ISO 18265 table A.1"
    except CuttingError:
        if what.strength and what.hardness:
            return round(what.strength * hardness / what.hardness), f"{what.strength:g} MPa of group {group}, in proportion to hardness"
        return round(3.3 * hardness), "3.3 MPa per HB, no better source (common practice)"


def complete(record: dict[str, Any]) -> tuple[dict[str, Any], dict[str, str]]:
    """A material's record with what it leaves blank taken from its group, and the reason of each such number.

    Raises `CuttingError` as `derive` does.
    """
    derived = derive(record["group"], record["hardness_low"], record["hardness_high"])
    made, reasons = dict(record), {}
    for name, value in derived.numbers.items():
        if made.get(name) in (None, ""):
            made[name], reasons[name] = value, derived.reasons[name]
    rows = {row["group"] for row in read_table("wear/starting_speeds.csv")}
    if made["speed_row"] not in rows:
        raise CuttingError("speed_row", f"'{made['speed_row']}' has no starting speeds; use a group's number, or '14 duplex'.")
    return made, reasons


def material_of(record: dict[str, Any]) -> Material:
    """The core's material of a completed record. Raises `CuttingError` for numbers that cannot be."""
    return Material(
        name=record["name"],
        number=record.get("number") or "",
        aliases=tuple(record.get("aliases") or ()),
        group=groups()[record["group"]],
        hardness_low=record["hardness_low"],
        hardness_high=record["hardness_high"],
        source=record.get("source") or "entered by the user",
        from_memory=bool(record.get("from_memory")),
        **{name: record[name] for name in NUMBERS},
    )


def _group_rows() -> dict[int, Row]:
    return {int(row["number"]): row for row in read_table("workpiece/groups.csv")}

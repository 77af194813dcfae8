"""The anchor of tool life: starting speeds per group and tool material, and the corrections to them."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cache

from cutting.mechanics.chip_section import chip_area, engaged_edge, mean_chip_thickness
from cutting.tables import read_table
from cutting.tooling.items import Grade
from cutting.workpiece.hardness import told
from cutting.workpiece.materials import Work

SIDE_USE = 0.8  # of its speed that a grade keeps in a group that is not its main one (common practice)
OUTSIDE_USE = 0.8  # and where it is not made for them at all: no better than a side use
REFERENCE_ANGLE, REFERENCE_NOSE = 95.0, 0.8  # the edge for which the starting speeds are meant
BOOK_LIFE = 15.0  # min that an edge lasts at a starting speed


@dataclass(frozen=True)
class LifeLaw:
    """Anchor and exponents of one tool material in one group; speeds m/min, lengths mm."""

    reference_speed: float
    reference_feed: float  # chip thickness at the reference feed
    reference_depth: float
    taylor_exponent: float
    feed_exponent: float
    depth_exponent: float
    coefficient_of_variation: float


@dataclass(frozen=True)
class SpeedFactor:
    """One correction to speed, with its reason."""

    label: str
    factor: float
    why: str


@cache
def _starting_rows() -> dict[tuple[str, str], tuple[float, float, float]]:
    return {
        (row["group"], row["tool_class"]): (row.number("cutting_speed"), row.number("feed_per_rev"), row.number("depth_of_cut"))
        for row in read_table("wear/starting_speeds.csv")
    }


@cache
def _exponents() -> dict[str, tuple[float, float, float, float]]:
    return {
        row["tool_class"]: (
            row.number("taylor_exponent"),
            row.number("feed_exponent"),
            row.number("depth_exponent"),
            row.number("coefficient_of_variation"),
        )
        for row in read_table("wear/life_exponents.csv")
    }


def taylor_exponent(tool_class: str) -> float:
    """n of v·Tⁿ = C for a tool material.

    >>> taylor_exponent("hss") < taylor_exponent("carbide") < taylor_exponent("ceramic")
    True
    """
    return _exponents()[tool_class][0]


@cache
def life_law(speed_row: str, tool_class: str) -> LifeLaw | None:
    """The law of a tool material in a group; None where the trade does not run it there.

    >>> life_law("1", "no such") is None
    True
    """
    row = _starting_rows().get((speed_row, tool_class))
    if row is None:
        return None
    speed, feed, depth = row
    return law_at(speed * _lasts(tool_class) ** taylor_exponent(tool_class), feed, depth, tool_class)


@cache
def _lasts(tool_class: str) -> float:
    """How many times 15 min an edge lasts at its starting speed: diamond is run for hours at a speed that is far from its limit."""
    row = next(one for one in read_table("wear/life_exponents.csv") if one["tool_class"] == tool_class)
    return row.number("lasts_at_start") / BOOK_LIFE


def law_at(speed: float, feed: float, depth: float, tool_class: str) -> LifeLaw:
    """The law of a tool material that lasts 15 min at a speed [m/min], feed [mm/rev] and depth [mm] of turning.

    >>> law_at(200.0, 0.3, 2.0, "carbide").reference_speed
    200.0
    """
    thickness = mean_chip_thickness(chip_area(feed, depth), engaged_edge(depth, REFERENCE_ANGLE, REFERENCE_NOSE))
    return LifeLaw(speed, float(thickness), depth, *_exponents()[tool_class])


STEEL_START = 180.0  # m/min: the starting speed of carbide in the steels from which the chart of the finish was read


def speed_as_in_steel(speed_row: str) -> float:
    """How many times faster a speed counts for the built-up edge than in steel: metals that are cut slowly leave it behind sooner.

    By the starting speeds of carbide; at least 1, as soft metals smear at their own low speeds. Common practice, no source.
    """
    law = life_law(speed_row, "carbide")
    return max(1.0, STEEL_START / law.reference_speed) if law else 1.0


def grade_fit(grade: Grade, letter: str) -> float | None:
    """How well a grade's ISO 513 span serves a main group: 1 as its main use, 0.8 as a side use, None not at all."""
    if letter not in grade.letters:
        return None
    return 1.0 if letter == grade.main_letter else SIDE_USE


WELD = 0.3  # of the starting speed under weld (common practice: 60 m/min with carbide in mild steel that was built up)


def speed_factors(work: Work, grade: Grade, coolant_pressure: float, interrupted: bool, skin: str, weak: bool) -> tuple[SpeedFactor, ...]:
    """The corrections to the starting speed that apply; all common practice."""
    letter = work.material.group.letter
    found = [SpeedFactor("hardness", work.hardness_speed_factor, f"{told(work.hardness)} in its group, about HB⁻¹")]
    if work.material.speed_factor != 1:
        found.append(SpeedFactor("free-cutting", work.material.speed_factor, "free-cutting variety of the group"))
    fit = grade_fit(grade, letter)
    main = grade.speed_factor * (fit if fit is not None else OUTSIDE_USE)
    found.append(SpeedFactor("grade", main, f"{grade.name}, {'main' if fit == 1 else 'side'} use in {letter}"))
    if interrupted:
        found.append(SpeedFactor("interruption", 0.75, "interrupted cut"))
    if skin in ("forged", "cast", "hardened"):
        found.append(SpeedFactor("skin", 0.75, f"{skin} skin"))
    if skin == "weld":
        found.append(SpeedFactor("skin", WELD, "weld build-up: harder than what it stands on, uneven, with slag"))
    dry = coolant_pressure <= 0
    if dry and letter in "PMNS" and grade.tool_class in ("carbide", "hss"):
        found.append(SpeedFactor("coolant", 0.8, "dry where wet is usual"))
    elif coolant_pressure >= 20 and letter in "PMS":
        found.append(SpeedFactor("coolant", 1.05 if coolant_pressure < 60 else 1.1, f"{coolant_pressure:.0f} bar at the edge"))
    if weak:
        found.append(SpeedFactor("stability", 0.75, "weak holding"))
    return tuple(found)

"""Limits of a heavy bore as data: changer, spindle, book, balance, bending, the bores' form and place, warmth, coolant."""

from __future__ import annotations

from typing import Any

import numpy as np

from cutting.machine.machines import Machine
from cutting.operations.frame import common_limits
from cutting.operations.frame.outcome import Bound, Severity
from cutting.operations.frame.rule import Rule
from cutting.operations.holes.heavy_bore.numbers import Numbers
from cutting.operations.holes.heavy_bore.tool import FEED_HIGH, FEED_LOW
from cutting.working import Line, in_words, line
from cutting.working.line import COMMON
from cutting.workpiece.fits import tolerance_grade

BELOW_RESONANCE = 1.4  # its bending frequency over that of its edges, from which it does not sing with them (common practice)
LEAST_FLOW = 1.5  # l/min for each edge (common practice)
WARMTH_SHARE = 0.2  # of a tolerance that may be lost because the temperature is not known better (common practice)
FORM_SHARE = 0.5  # of a tolerance that the form of a bore may take where the drawing says nothing
SLENDER = 5.0  # × the seat's diameter that a tool may stand out (common practice)
ENDS_SHORT = 0.05  # mm that a step may end before its floor: what setting takes up (common practice)
LEAST_SPEED, LEAST_FEED = 0.35, 0.4  # of the book's lowest (as drilled)
STEP_NAMES = "of the bore Ø{:g}"


def tolerances(x: Any) -> np.ndarray[Any, np.dtype[np.float64]]:
    """Width of each bore's tolerance [mm], without end where the drawing gives none."""
    return np.array([one.diameter.tolerance or np.inf for one in x.setup.feature.bores])


def _form(x: Numbers) -> Any:
    asked = x.setup.feature.cylindricity
    return FORM_SHARE * tolerances(x) if asked is None else asked


def _toleranced(x: Numbers) -> bool:
    return bool(np.isfinite(tolerances(x)).any())


def _where(x: Numbers, k: int) -> str:
    return STEP_NAMES.format(x.setup.feature.bores[k].diameter.nominal)


AT_ONCE = "the largest sum of Fc·(d − ap)/2000 of the steps that cut at once"


def bends_twice(x: Numbers) -> Line:
    """The form that is left: the machine's own and the tool's bending."""
    return line("{machine_round} + 2·{tool_bends}", COMMON, machine_round=x.setup.holding.machine_round, tool_bends=x.moved)


RULES: tuple[Rule[Numbers], ...] = (
    Rule("changer_mass", "tool mass", "mass", Bound.UPPER, Severity.HARD, "machine-data",
         "What the changer's arm lifts; a heavier tool is put in by hand, with a hoist.",
         lambda x: (x.tool.own["mass"], None, x.setup.machine.changer_mass), (), lambda x: x.setup.machine.changer_mass > 0),
    Rule("changer_moment", "tilting moment", "torque", Bound.UPPER, Severity.HARD, "machine-data",
         "The gripper holds the tool at its flange: a centre of gravity far out tilts it, and it falls in the swing.",
         lambda x: (x.moment, None, x.setup.machine.changer_moment), ("tilting_moment",), lambda x: x.setup.machine.changer_moment > 0),
    Rule("changer_diameter", "magazine Ø", "length", Bound.UPPER, Severity.HARD, "machine-data",
         "It must pass its neighbours; with free places beside it some machines take more: see its manual.",
         lambda x: (x.tool.own["largest_diameter"], None, x.setup.machine.changer_diameter), (),
         lambda x: x.setup.machine.changer_diameter > 0),
    Rule("changer_length", "magazine length", "length", Bound.UPPER, Severity.HARD, "machine-data", "It must swing past the guard.",
         lambda x: (x.tool.own["length"], None, x.setup.machine.changer_length), (), lambda x: x.setup.machine.changer_length > 0),
    Rule("reaches", "step depth", "length", Bound.UPPER, Severity.HARD, "geometry",
         "All steps come to their floors at once: what the tool's steps stand apart must be what the bores' floors lie apart.",
         lambda x: (x.short, None, ENDS_SHORT), where=_where),
    Rule("spindle_torque", "torque, all steps", "torque", Bound.UPPER, Severity.HARD, "kienzle-1952",
         "Steps that cut at the same time add up.", lambda x: (x.torque, None, x.spindle_torque), ("specific_force", "cutting_force"),
         contour=True, ends=lambda x: in_words(AT_ONCE)),
    common_limits.spindle_power("What all steps take at this speed.", "specific_force", "cutting_force", contour=True,
                                ends=common_limits.power_of_torque),
    common_limits.book_speed("Shares of the turning speed: bored, with edges that stand far out.", contour=True),
    Rule("useful_speed", "minimum speed", "cutting_speed", Bound.LOWER, Severity.SOFT, "common-practice",
         "Far below the recommended speed an edge builds up and carbide chips.",
         lambda x: (x.cutting_speed, LEAST_SPEED * x.book_low, None)),
    Rule("book_feed", "feed for each edge", "feed_per_tooth", Bound.UPPER, Severity.HARD, "common-practice",
         "What a boring insert takes before it pushes the tool aside and tears the wall.",
         lambda x: (x.feed_set / x.tool.own["inserts"], None, FEED_HIGH), contour=True, where=_where),
    Rule("useful_feed", "minimum feed", "feed_per_tooth", Bound.LOWER, Severity.SOFT, "common-practice",
         "Far below it edges rub and sing.", lambda x: (x.feed_set / x.tool.own["inserts"], LEAST_FEED * FEED_LOW, None), where=_where),
    Rule("feed_drive", "feed rate", "feed_rate", Bound.UPPER, Severity.HARD, "machine-data", "The axes move no faster.",
         lambda x: (x.feed_rate, None, x.setup.machine.feed_rate_max)),
    Rule("unbalance", "unbalance, g·mm", "number", Bound.UPPER, Severity.SOFT, "iso-21940-11",
         "Beyond its grade it shakes the bearings and the bore; balance it with its inserts in.",
         lambda x: (x.unbalance, None, x.permissible), (), contour=True, bounded=("permissible_unbalance",)),
    Rule("resonance", "bending frequency, Hz", "number", Bound.LOWER, Severity.SOFT, "common-practice",
         "Edges that strike near the tool's own frequency make it sing: 1.4 times above is quiet.",
         lambda x: (x.tool.own["frequency"], BELOW_RESONANCE * x.tooth_frequency, None), contour=True),
    Rule("slender", "seat overhang", "number", Bound.UPPER, Severity.SOFT, "common-practice",
         "Over its seat's diameter: further out nothing holds it quiet.", lambda x: (x.tool.own["stands_out"], None, SLENDER)),
    Rule("coaxiality", "coaxiality, zone Ø", "length", Bound.UPPER, Severity.HARD, "common-practice",
         "One tool bores all steps on one axis: only the tool's own steps differ.",
         lambda x: (x.coaxiality, None, x.setup.feature.coaxiality), (), lambda x: x.setup.feature.coaxiality is not None),
    Rule("cylindricity", "cylindricity", "length", Bound.UPPER, Severity.HARD, "beam-theory",
         "The machine's own, and twice what the cut bends the tool: symmetric edges cancel most of it, pads carry it.",
         lambda x: (x.cylindricity, None, _form(x)), ("specific_force", "cutting_force"),
         lambda x: _toleranced(x) or x.setup.feature.cylindricity is not None, contour=True, where=_where, ends=bends_twice),
    Rule("warmth", "thermal size error", "length", Bound.UPPER, Severity.SOFT, "beam-theory",
         "Size is stated at 20 °C: measure the part's temperature and set what this sheet says; a fifth of the tolerance may be unsure.",
         lambda x: (x.unsure, None, WARMTH_SHARE * tolerances(x)), (), _toleranced, where=_where),
    Rule("finish", "finish Ra", "roughness", Bound.UPPER, Severity.HARD, "groover",
         "Of several edges the one that stands furthest out leaves its marks, once a turn.",
         lambda x: (x.roughness, None, x.setup.feature.roughness), ("peak_height", "roughness"),
         lambda x: x.setup.feature.roughness is not None, contour=True, where=_where),
    Rule("flow", "coolant to each edge", "flow", Bound.LOWER, Severity.SOFT, "bernoulli",
         "Flow splits by the outlets' areas; an edge that gets none burns, a pad seizes.",
         lambda x: (x.flow / x.tool.own["inserts"], LEAST_FLOW, None), (), lambda x: x.pressure > 0, where=_where),
    common_limits.life("set of edges"),
    common_limits.secure(),
)  # fmt: skip


def carried(x: Numbers, machine: Machine) -> tuple[str, ...]:
    """Why a machine's changer does not carry the tool; empty where it does or nothing is known of it."""
    tool, found = x.setup.heavy_tool, []
    held: tuple[tuple[str, float, float, str], ...] = (
        ("mass", tool.whole.mass, machine.changer_mass, "kg"),
        ("moment", float(np.ravel(x.moment)[0]), machine.changer_moment, "N·m"),
        ("Ø", tool.largest_diameter, machine.changer_diameter, "mm"),
        ("length", tool.length, machine.changer_length, "mm"),
    )
    if machine.interface != tool.holder.interface:
        found.append(f"takes {machine.interface}, not {tool.holder.interface}")
    found += [f"{name} {value:.3g} over {most:g} {unit}" for name, value, most, unit in held if most > 0 and value > most * (1 + 1e-9)]
    return tuple(found)


def grade_of(nominal: float, width: float) -> str:
    """The finest ISO 286 grade that a width [mm] still holds, in words."""
    for grade in range(5, 14):
        if any_size(nominal) and tolerance_grade(nominal, grade) >= width - 1e-9:
            return f"IT{grade}"
    return "wider than IT13"


def any_size(nominal: float) -> bool:
    """Whether the standard's table covers a size."""
    return 1.0 <= nominal <= 500.0

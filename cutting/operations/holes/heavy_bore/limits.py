"""Limits of a heavy boring tool as data: changer, spindle, balance, bending, the bores' form and place, warmth, coolant."""

from __future__ import annotations

from cutting.machine.machines import Machine
from cutting.operations.frame.outcome import Bound, Severity
from cutting.operations.frame.rule import Rule
from cutting.operations.holes.heavy_bore.numbers import Numbers
from cutting.workpiece.fits import tolerance_grade

BELOW_RESONANCE = 1.4  # its bending frequency over that of its edges, from which it does not sing with them (common practice)
LEAST_FLOW = 1.5  # l/min for each edge (common practice)
WARMTH_SHARE = 0.2  # of a tolerance that may be lost because the temperature is not known better (common practice)
FORM_SHARE = 0.5  # of a tolerance that the form of a bore may take where the drawing says nothing
SLENDER = 5.0  # × the seat's diameter that a tool may stand out (common practice)


def _tolerances(x: Numbers) -> float | None:
    return min((one.tolerance for one in x.steps if one.tolerance is not None), default=None)


def _form(x: Numbers) -> float:
    if x.setup.asked.cylindricity is not None:
        return x.setup.asked.cylindricity
    return FORM_SHARE * (_tolerances(x) or 1e9)


def _unsure(x: Numbers) -> tuple[float, float]:
    """What a temperature that is not known better costs, against its share of the tolerance, of the step that it costs most."""
    known, material = x.setup.settings.temperature_known, x.setup.work.material
    rows = [(one.step.diameter.nominal * material.expansion * 1e-6 * known, one.tolerance) for one in x.steps if one.tolerance]
    lost, width = max(rows, key=lambda row: row[0] / row[1])
    return lost, WARMTH_SHARE * width


def _toleranced(x: Numbers) -> bool:
    return _tolerances(x) is not None


RULES: tuple[Rule[Numbers], ...] = (
    Rule("changer_mass", "mass for the changer", "mass", Bound.UPPER, Severity.HARD, "machine-data",
         "What the changer's arm lifts; a heavier tool is put in by hand, with a hoist.",
         lambda x: (x.mass, None, x.setup.machine.changer_mass), (), lambda x: x.setup.machine.changer_mass > 0),
    Rule("changer_moment", "tilting moment at the gripper", "torque", Bound.UPPER, Severity.HARD, "machine-data",
         "The gripper holds the tool at its flange: a centre of gravity far out tilts it, and it falls in the swing.",
         lambda x: (x.moment, None, x.setup.machine.changer_moment), ("tilting_moment",), lambda x: x.setup.machine.changer_moment > 0),
    Rule("changer_diameter", "diameter in the magazine", "length", Bound.UPPER, Severity.HARD, "machine-data",
         "It must pass its neighbours; with free places beside it some machines take more: see its manual.",
         lambda x: (x.setup.tool.largest_diameter, None, x.setup.machine.changer_diameter), (),
         lambda x: x.setup.machine.changer_diameter > 0),
    Rule("changer_length", "length in the magazine", "length", Bound.UPPER, Severity.HARD, "machine-data", "It must swing past the guard.",
         lambda x: (x.setup.tool.length, None, x.setup.machine.changer_length), (), lambda x: x.setup.machine.changer_length > 0),
    Rule("spindle_torque", "torque of steps together", "torque", Bound.UPPER, Severity.HARD, "kienzle-1952",
         "Steps that cut at the same time add up.", lambda x: (x.torque, None, x.spindle_torque), ("specific_force", "cutting_force")),
    Rule("spindle_power", "spindle power, worn", "power", Bound.UPPER, Severity.HARD, "kienzle-1952", "What all steps take at this speed.",
         lambda x: (x.power, None, x.spindle_power), ("specific_force", "cutting_force")),
    Rule("unbalance", "unbalance, g·mm", "number", Bound.UPPER, Severity.SOFT, "iso-21940-11",
         "Beyond its grade it shakes the bearings and the bore; balance it with its inserts in.",
         lambda x: (x.unbalance, None, x.permissible), ("permissible_unbalance",)),
    Rule("resonance", "bending frequency, Hz", "number", Bound.LOWER, Severity.SOFT, "common-practice",
         "Edges that strike near the tool's own frequency make it sing: 1.4 times above is quiet.",
         lambda x: (x.frequency, BELOW_RESONANCE * x.tooth_frequency, None)),
    Rule("slender", "stands out of its seat", "number", Bound.UPPER, Severity.SOFT, "common-practice",
         "Over its seat's diameter: further out nothing holds it quiet.",
         lambda x: ((x.setup.tool.length - x.setup.tool.holder.face) / x.setup.tool.holder.seat_diameter, None, SLENDER)),
    Rule("coaxiality", "coaxiality, zone Ø", "length", Bound.UPPER, Severity.HARD, "common-practice",
         "One tool bores all steps on one axis: only the tool's own steps differ.",
         lambda x: (x.coaxiality, None, x.setup.asked.coaxiality), (), lambda x: x.setup.asked.coaxiality is not None),
    Rule("cylindricity", "cylindricity of the worst bore", "length", Bound.UPPER, Severity.HARD, "beam-theory",
         "The machine's own, and twice what the cut bends the tool: symmetric edges cancel most of it, pads carry it.",
         lambda x: (max(one.cylindricity for one in x.steps), None, _form(x)), (),
         lambda x: _toleranced(x) or x.setup.asked.cylindricity is not None),
    Rule("warmth", "size lost to an unsure temperature", "length", Bound.UPPER, Severity.SOFT, "beam-theory",
         "Size is stated at 20 °C: measure the part's temperature and set what this sheet says; a fifth of the tolerance may be unsure.",
         lambda x: (_unsure(x)[0], None, _unsure(x)[1]), (), _toleranced),
    Rule("flow", "coolant to each edge", "flow", Bound.LOWER, Severity.SOFT, "bernoulli",
         "Flow splits by the outlets' areas; an edge that gets none burns, a pad seizes.",
         lambda x: (min(one.flow / one.step.inserts for one in x.steps), LEAST_FLOW, None), (),
         lambda x: (x.setup.machine.pressure(x.setup.settings.coolant) or 0.0) > 0),
)  # fmt: skip


def carried(x: Numbers, machine: Machine) -> tuple[str, ...]:
    """Why a machine's changer does not carry the tool; empty where it does or nothing is known of it."""
    found = []
    held: tuple[tuple[str, float, float, str], ...] = (
        ("mass", x.mass, machine.changer_mass, "kg"),
        ("moment", x.moment, machine.changer_moment, "N·m"),
        ("Ø", x.setup.tool.largest_diameter, machine.changer_diameter, "mm"),
        ("length", x.setup.tool.length, machine.changer_length, "mm"),
    )
    if machine.interface != x.setup.tool.holder.interface:
        found.append(f"takes {machine.interface}, not {x.setup.tool.holder.interface}")
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

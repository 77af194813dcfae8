"""What a heavy bore's numbers say: results, its one pass bore by bore, the chip, what to know, the scene."""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np
from typing_extensions import TypedDict

from cutting.operations.frame.common_limits import power_of_torque
from cutting.operations.frame.outcome import ChipVerdict, Pass, Value, Warning
from cutting.operations.frame.over_passes import last_pass
from cutting.operations.frame.results import ResultsSaid
from cutting.operations.frame.speed_reason import UsualSpeed
from cutting.operations.holes.heavy_bore.limits import AT_ONCE, grade_of, tolerances
from cutting.operations.holes.heavy_bore.numbers import RUN_IN, Numbers, begins_inside, pressure_left
from cutting.operations.holes.heavy_bore.tool import misfits
from cutting.wear.reference import SpeedFactor
from cutting.working import Line, Recorder, line

COMPRESSION = 2.0  # of the chip, about (common practice)
SLENDER_RING, CLOSE_RING = 80.0, 0.04  # mm of bore from which, and of tolerance below which, jaws are said to bend a ring


def changed_in(x: Numbers) -> Line:
    """Seconds from chip to chip: the change, and the spindle down and up again."""
    return line("{tool_change} + 2·{spin_up_time}", tool_change=x.setup.machine.index_time, spin_up_time=x.spin_up)


def results(x: Numbers, record: Recorder) -> dict[str, Value]:
    """Results by name, in the order in which they are shown."""
    say, own = ResultsSaid(record), x.tool.own
    say.money(x)
    say.life(x)
    say.plain("mass", "mass with its holder", own["mass"], "mass")
    say.plain("lever", "centre of gravity at", np.round(own["lever"], 1), "length")
    say.plain("moment", "tilting moment", x.moment, "torque", "exact", "tilting_moment")
    say.plain("inertia", "inertia, kg·m²", own["inertia"], "number")
    say.plain("spindle_speed", "spindle speed", x.spindle_speed, "spindle_speed")
    say.plain("cutting_speed", "speed at the widest", x.cutting_speed, "cutting_speed")
    say.plain("feed_rate", "feed rate", x.feed_rate, "feed_rate")
    say.banded("spin_up", "up to speed", x.spin_up, "duration", "balance", "spin_up_time")
    say.banded("chip_to_chip", "chip to chip", x.chip_to_chip, "duration", "balance", "spin_up_time", ends=changed_in(x))
    say.plain("engaged_time", "one pass", x.engaged_time, "duration")
    say.plain("unbalance", "unbalance, g·mm", x.unbalance, "number")
    say.plain("permissible", "its grade permits, g·mm", x.permissible, "number", "exact", "permissible_unbalance")
    say.plain("unbalance_force", "turns with", x.unbalance_force, "force", "exact", "unbalance_force")
    say.banded("frequency", "bends at, Hz", own["frequency"], "number", "balance")
    say.plain("tooth_frequency", "its edges strike at, Hz", x.tooth_frequency, "number")
    say.banded("torque", "torque together, worn", x.torque, "torque", "cutting force", "specific_force", "cutting_force", ends=AT_ONCE)
    say.banded("power", "power, worn", x.power, "power", "cutting force", "specific_force", "cutting_force", ends=power_of_torque(x))
    say.plain("coaxiality", "coaxiality, zone Ø", x.coaxiality, "length", "rule")
    say.banded("cylindricity", "cylindricity, worst", np.max(x.cylindricity), "length", "springing")
    say.banded("roughness", "finish Ra, worst", np.max(x.roughness), "roughness", "finish", "peak_height", "roughness")
    say.banded("flow", "coolant, all outlets", np.sum(x.flow), "flow", "flow")
    say.banded("pressure", "pressure at the outlets", pressure_left(x), "pressure", "jet")
    return say.found


def chip(x: Numbers) -> ChipVerdict:
    """A chip of a boring insert breaks where it is thick enough for its breaker to curl it."""
    thin, index = float(np.min(x.chip_thickness)), last_pass(x.chip_index)
    breaks = index >= x.setup.house.chip_index_wanted
    verdict, form, code = ("breaks", "arcs", "6.1") if breaks else ("strings", "ribbon", "1.1")
    why = f"the thinnest is {thin:.3g} mm: {'enough' if breaks else 'too little'} for a breaker to curl it"
    return ChipVerdict(form, "short" if breaks else "long", code, verdict, index, thin, COMPRESSION * thin, None, None, 0.0, 0.0, why)


def passes(x: Numbers) -> tuple[Pass, ...]:
    """Each bore of the one pass, from the one that is cut first."""
    said, order = chip(x), np.argsort(np.ravel(x.enters), kind="stable")
    found = []
    for number, k in enumerate(map(int, order), start=1):
        bore, step = x.setup.feature.bores[k], x.setup.steps[k]
        size, taken = bore.diameter.nominal, step.allowance
        seconds = 60.0 * bore.length / last_pass(x.feed_rate)
        speed, push = float(np.ravel(x.bore_speed)[k]), float(np.ravel(x.cutting_force)[k])
        found.append(Pass(number, size - taken, size, taken / 2.0, last_pass(x.spindle_speed), speed, last_pass(x.feed_set), seconds, said,
                          push, 2.0 * float(np.ravel(x.moved)[k])))  # fmt: skip
    return tuple(found)


def usual_speed(x: Numbers) -> UsualSpeed:
    """The middle of the row of speeds."""
    row = float(np.ravel(x.tool.speed_low + x.tool.speed_high)[0] / 2.0)
    factor = SpeedFactor("grade, metal and coolant", float(np.ravel(x.tool.speed_factor)[0]), "as for every cut")
    return UsualSpeed(last_pass(x.cutting_speed), row, (factor,), ("the goal", "the heavy tool's balance"))


def cautions(x: Numbers) -> Iterator[Warning]:
    """Warnings in no order."""
    setup, tool, material = x.setup, x.setup.heavy_tool, x.setup.work.material
    yield Warning("changer", "A tool that is too heavy falls out of the changer: mass and moment by the machine's manual, half speed in the"
                  " magazine, nobody in its swing; by hand only with a hoist and a second person.", "care")  # fmt: skip
    yield Warning("balance", "Balance it with all inserts in; run it up in steps behind closed doors, and listen.", "note")
    if misfits(setup):
        text = f"{tool.holder.name} does not sit in {setup.machine.name}, which takes {setup.machine.interface or 'no such tool'}."
        yield Warning("interface", text, "blocks")
    widths, grown = tolerances(x), np.ravel(x.grown)
    worst = int(np.argmax(np.abs(grown) / widths))
    if abs(grown[worst]) > widths[worst]:
        size, width, off = setup.feature.bores[worst].diameter.nominal, float(widths[worst]), 1000.0 * float(grown[worst])
        yield Warning("warm", f"{material.name} at {setup.settings.temperature:g} °C: Ø{size:g} is {off:.0f} µm from its size"
                      f" at 20 °C, its tolerance ({grade_of(size, width)}) is {1000 * width:.0f} µm: measure the part's temperature and set"
                      " what the sheet says.", "care")  # fmt: skip
    sizes = np.array([one.diameter.nominal for one in setup.feature.bores])
    if ((sizes > SLENDER_RING) & (widths < CLOSE_RING)).any():
        text = "Three jaws bend a thin ring to three lobes: clamp on its face, or in soft jaws that reach round, and measure it let go."
        yield Warning("lobes", text, "note")


class HeavySolid(TypedDict):
    """One solid of the tool, mm from the gripper."""

    start: float
    end: float
    outer: float
    inner: float
    arms: int
    share: float


class HeavyEdge(TypedDict):
    """The edges of one step: mm."""

    name: str
    at: float
    diameter: float
    near: float
    far: float
    rough: float


class HeavyBoreScene(TypedDict):
    """What its drawing needs: mm. `stands` is where the gripper stands at the end of the pass, inward from the face; negative outside."""

    operation: str
    solids: list[HeavySolid]
    edges: list[HeavyEdge]
    face: float
    seat: float
    lever: float
    length: float
    stands: float
    travel: float


def scene(x: Numbers) -> HeavyBoreScene:
    """What the drawing needs, mm."""
    setup, tool = x.setup, x.setup.heavy_tool
    bores = setup.feature.bores
    solids: list[HeavySolid] = [
        {"start": one.start, "end": one.end, "outer": one.outer, "inner": one.inner, "arms": one.arms, "share": one.share}
        for one in tool.segments
    ]
    edges: list[HeavyEdge] = [
        {"name": step.name, "at": step.at, "diameter": step.diameter, "near": bore.near, "far": bore.far,
         "rough": bore.diameter.nominal - step.allowance}
        for bore, step in zip(bores, setup.steps, strict=True)
    ]  # fmt: skip
    travel = float(last_pass(x.engaged_time) * last_pass(x.feed_rate) / 60.0)
    begins = last_pass(begins_inside(setup, x.tool.own["at"])) - max(step.at for step in setup.steps)
    return {
        "operation": setup.operation,
        "solids": solids,
        "edges": edges,
        "face": tool.holder.face,
        "seat": tool.holder.seat_diameter,
        "lever": tool.whole.lever,
        "length": tool.length,
        "stands": begins + travel - RUN_IN,
        "travel": travel,
    }

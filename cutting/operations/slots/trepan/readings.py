"""What a trepanned ring's numbers say: results, the one pass, the chip, warnings, the scene."""

from __future__ import annotations

from typing_extensions import TypedDict

from cutting.operations.frame.common_limits import power_of_torque
from cutting.operations.frame.outcome import ChipVerdict, Pass, Value, Warning
from cutting.operations.frame.results import ResultsSaid
from cutting.operations.slots.shared.cautions import narrow_cautions
from cutting.operations.slots.shared.slot_chip import slot_chip
from cutting.operations.slots.trepan.numbers import Numbers
from cutting.operations.slots.trepan.setup import Cartridges, Keeps
from cutting.working import Recorder, line

HEAVY = 8.0  # kg from which a tool is lifted with a helper (common practice)


def results(x: Numbers, record: Recorder) -> dict[str, Value]:
    """Results by name, in the order in which they are shown."""
    say = ResultsSaid(record)
    say.money(x)
    say.life(x)
    factor = x.setup.house.wear_factor
    worn = line("{wear}·{torque}", wear=factor, torque=x.torque / factor)
    say.banded("torque", "torque, worn", x.torque, "torque", "drilling", "specific_force", "torque", ends=worn)
    say.banded("power", "power, worn", x.power, "power", "drilling", "torque", ends=power_of_torque(x))
    say.banded("solid_torque", "drilled from solid: torque", x.solid_torque, "torque", "drilling")
    say.banded("solid_power", "drilled from solid: power", x.solid_power, "power", "drilling")
    say.plain("ring_share", "ring, of the hole's metal", 100 * x.share, "share")
    say.plain("core_mass", "core in one piece" if x.setup.feature.inner_ring is None else "core and ring", x.core_mass, "mass")
    say.plain("core_value", "worth of the core", x.core_value, "money")
    say.banded("thrust", "thrust", x.thrust, "force", "push-off", "feed_force")
    say.banded("cutting_force", "cutting force of an edge", x.cutting_force, "force", "cutting force", "specific_force", "cutting_force")
    say.banded(
        "side_force",
        "side force",
        x.side_force,
        "force",
        "push-off",
        "feed_force",
        ends="a share of the push, less where two edges hold each other",
    )
    say.plain("feed_rev", "feed a turn", float(x.feed), "feed_per_rev")
    say.plain("spindle_speed", "spindle speed", x.spindle_speed, "spindle_speed")
    say.plain("cutting_speed", "speed at the outer edge", x.cutting_speed, "cutting_speed")
    say.plain("engaged_time", "in cut", x.engaged_time, "duration")
    return say.found


def chip(x: Numbers) -> ChipVerdict:
    """The chip in the ring's slot."""
    setup = x.setup
    feed = float(x.feed) / setup.effective_edges
    return slot_chip(feed, x.feeds, setup.depth, setup.ring_width, float(x.pressure), setup.work.material.ductility)


def passes(x: Numbers) -> tuple[Pass, ...]:
    """The one pass through the plate."""
    setup = x.setup
    return (
        Pass(
            1,
            setup.outer_diameter,
            setup.inner_diameter,
            setup.depth,
            float(x.spindle_speed),
            float(x.cutting_speed),
            float(x.feed),
            float(x.engaged_time),
            chip(x),
            float(x.thrust),
            0.0,
        ),
    )


def cautions(x: Numbers) -> list[Warning]:
    """Warnings and cautions of trepanning: what comes loose, what is heavy."""
    setup, found = x.setup, narrow_cautions(x.setup.machine, x.setup.blade, x.setup.settings.coolant)
    f = setup.feature
    loose = "disc" if f.keeps is Keeps.DISC else "core" if f.inner_ring is None else "core with the ring around it"
    if f.through and f.web <= 0:
        found.append(
            Warning(
                "slug",
                f"At break-through the {loose} of {x.core_mass:.2g} kg comes loose, tilts and jams or flies: hold it "
                "from the middle, stop before it, or leave a web and break it out.",
                "care",
            )
        )
    elif f.web > 0:
        found.append(Warning("web", f"A web of {f.web:g} mm holds the {loose}; break it out with the spindle stopped.", "note"))
    if setup.standing is Cartridges.ONE:
        found.append(
            Warning(
                "one_edge", "One cartridge: half effective. Its push is not balanced; the head must be guided by a stiff spindle.", "note"
            )
        )
    if setup.blade.mass >= HEAVY:
        found.append(Warning("heavy", f"The head weighs {setup.blade.mass:g} kg: lift it with a helper or a hoist.", "care"))
    found.append(
        Warning("head_speed", "Keep to the speed that the head is marked for; check that cartridges and their screws are tight.", "note")
    )
    return found


class TrepanScene(TypedDict):
    """What its drawing needs: mm and degrees."""

    operation: str
    outer_diameter: float
    inner_diameter: float
    second_outer: float
    second_inner: float
    plate: float
    depth: float
    web: float
    keeps: str
    cartridges: str
    width: float
    ring_width: float
    thickness: float
    reach: float
    overhang: float
    head_low: float
    head_high: float


def scene(x: Numbers) -> TrepanScene:
    """What the drawing needs, mm."""
    setup = x.setup
    return {
        "operation": setup.operation,
        "outer_diameter": setup.outer_diameter,
        "inner_diameter": setup.inner_diameter,
        "second_outer": setup.feature.inner_ring or 0.0,
        "second_inner": max((setup.feature.inner_ring or 0.0) - 2.0 * setup.ring_width, 0.0),
        "plate": setup.feature.depth,
        "depth": setup.depth,
        "web": setup.feature.web,
        "keeps": setup.feature.keeps.value,
        "cartridges": setup.standing.value,
        "width": setup.insert.width,
        "ring_width": setup.ring_width,
        "thickness": setup.blade.thickness,
        "reach": min(setup.blade.reach, setup.insert.reach),
        "overhang": setup.overhang,
        "head_low": setup.blade.head_low,
        "head_high": setup.blade.head_high,
    }

"""What a face groove's numbers say: results, strokes as passes, the chip, warnings, the scene."""

from __future__ import annotations

from typing_extensions import TypedDict

from cutting.operations.frame.outcome import ChipVerdict, Pass, Value, Warning
from cutting.operations.frame.results import ResultsSaid
from cutting.operations.slots.face_groove.numbers import Numbers
from cutting.operations.slots.face_groove.setup import FaceGrooveWay, SpindleSense
from cutting.operations.slots.shared.cautions import narrow_cautions
from cutting.operations.slots.shared.rules import LARGEST
from cutting.operations.slots.shared.slot_chip import slot_chip
from cutting.working import Recorder

ORIENTATION = {
    SpindleSense.FORWARD: "edge up in front of the axis, or edge down behind it",
    SpindleSense.REVERSE: "edge up behind the axis, or edge down in front of it",
}


def results(x: Numbers, record: Recorder) -> dict[str, Value]:
    """Results by name, in the order in which they are shown."""
    say = ResultsSaid(record)
    say.money(x)
    say.life(x)
    say.plain("outer_clearance", "room, outer wall", x.standing.outer, "length")
    say.plain("inner_clearance", "room, inner wall", x.standing.inner, "length")
    say.banded("cutting_force", "cutting force", x.cutting_force, "force", "cutting force", "specific_force", "cutting_force")
    say.banded("feed_force", "feed force", max(s.push for s in x.strokes), "force", "push-off", "feed_force")
    say.banded("side_force", "side load", x.side_force, "force", "push-off", "feed_force", ends=LARGEST)
    say.banded("down", "tip deflection", 1000 * x.down, "small_length", "springing")
    say.plain("engaged_time", "in cut", x.engaged_time, "duration")
    say.plain("strokes", "strokes", float(len(x.strokes)), "count")
    say.plain("first_diameter", "first plunge at Ø", x.first_diameter, "length")
    say.plain("spindle_speed", "spindle speed, first plunge", x.strokes[0].spindle_speed, "spindle_speed")
    say.plain("cutting_speed", "speed at the outer Ø", x.cutting_speed, "cutting_speed")
    return say.found


def chip(x: Numbers) -> ChipVerdict:
    """The chip of the first plunge, in the slot at its deepest; turned across it has the whole groove."""
    setup = x.setup
    slot = setup.insert.width if setup.settings.way is FaceGrooveWay.INWARDS else setup.feature.width.target
    return slot_chip(float(x.feed), x.feeds, setup.depth, max(slot, setup.insert.width), float(x.pressure), setup.work.material.ductility)


def passes(x: Numbers) -> tuple[Pass, ...]:
    """Every stroke as a pass; its diameters are those of the edge's outer corner."""
    said = chip(x)
    return tuple(
        Pass(
            k + 1, one.outer, one.to_outer, one.to_depth - one.depth or one.engaged, one.spindle_speed, float(x.cutting_speed),
            one.feed, one.seconds, said, one.push, 0.0,
        )
        for k, one in enumerate(x.strokes)
    )  # fmt: skip


def cautions(x: Numbers) -> list[Warning]:
    """Warnings and cautions of a face groove."""
    setup = x.setup
    s = setup.settings
    found = narrow_cautions(setup.machine, setup.blade, s.coolant)
    if not setup.hand_fits:
        hand = "right" if setup.blade.hand == "R" else "left"
        found.append(
            Warning(
                "sense_of_spindle",
                f"This {hand}-hand blade curves against the groove with the spindle {s.spindle.value}: it would rub "
                "and break. Turn the spindle the other way, or take the other hand.",
                "blocks",
            )
        )
    found.append(
        Warning(
            "orientation",
            f"Spindle {s.spindle.value}: {ORIENTATION[s.spindle]} (common practice, no source; look before "
            "you start that the blade curves as the groove does).",
            "note",
        )
    )
    if setup.corners_left:
        found.append(
            Warning(
                "corners_left",
                f"The full radius leaves corners of {setup.insert.corner_radius:g} mm: a second tool clears them; its seconds are counted.",
                "note",
            )
        )
    if setup.widened:
        found.append(
            Warning(
                "order",
                "The first plunge goes in at the largest diameter, into solid metal; later ones may stand anywhere: "
                "work towards the centre unless chips say otherwise.",
                "note",
            )
        )
    if x.standing.outer < 0 or x.standing.inner < 0:
        wall = "outer" if x.standing.outer < x.standing.inner else "inner"
        found.append(
            Warning(
                "rubs",
                f"The blade's own curve meets the {wall} wall by "
                f"{-min(x.standing.outer, x.standing.inner):.2f} mm at the depth of its support.",
                "care",
            )
        )
    return found


class FaceGrooveScene(TypedDict):
    """What its drawing needs: mm and degrees."""

    operation: str
    outer_diameter: float
    inner_diameter: float
    depth: float
    hub_diameter: float
    hub_height: float
    jaw_diameter: float
    jaw_height: float
    grip_diameter: float
    free_length: float
    bore: float
    width: float
    insert_radius: float
    thickness: float
    height: float
    reach: float
    overhang: float
    face_low: float
    face_high: float
    face_inner: float
    first_diameter: float
    outer_clearance: float
    inner_clearance: float
    hand: str
    spindle: str


def scene(x: Numbers) -> FaceGrooveScene:
    """What the drawing needs, mm."""
    setup = x.setup
    f = setup.feature
    return {
        "operation": setup.operation,
        "outer_diameter": f.outer_diameter.target,
        "inner_diameter": f.inner_diameter,
        "depth": f.depth,
        "hub_diameter": f.hub_diameter,
        "hub_height": f.hub_height,
        "jaw_diameter": f.jaw_diameter,
        "jaw_height": f.jaw_height,
        "grip_diameter": setup.holding.grip_diameter,
        "free_length": setup.holding.free_length,
        "bore": setup.holding.bore,
        "width": setup.insert.width,
        "insert_radius": setup.insert.corner_radius,
        "thickness": setup.blade.thickness,
        "height": setup.blade.height,
        "reach": min(setup.blade.reach, setup.insert.reach),
        "overhang": setup.overhang,
        "face_low": setup.blade.face_low,
        "face_high": setup.blade.face_high,
        "face_inner": setup.blade.face_inner,
        "first_diameter": x.first_diameter,
        "outer_clearance": x.standing.outer,
        "inner_clearance": x.standing.inner,
        "hand": setup.blade.hand,
        "spindle": setup.settings.spindle.value,
    }

"""What a cut-off's numbers say: results with their band, the chip, the one pass, the scene."""

from __future__ import annotations

import numpy as np
from typing_extensions import TypedDict

from cutting.money.kerf import Kerf
from cutting.operations.frame.outcome import ChipVerdict, Pass, Value
from cutting.operations.frame.results import ResultsSaid
from cutting.operations.slots.cut_off.limits import dished
from cutting.operations.slots.cut_off.numbers import Numbers, edge_break_seconds
from cutting.operations.slots.shared.slot_chip import slot_chip
from cutting.working import Recorder


def results(x: Numbers, record: Recorder) -> dict[str, Value]:
    """Results by name, in the order in which they are shown."""
    run, say = x.run, ResultsSaid(record)
    say.money(x)
    say.banded("flatness", "face dish", 1000 * x.flatness, "small_length", "tip path", "side_force", "deflection", ends=dished(x))
    say.banded("pip_on_part", "pip on the part", x.pip_on_part, "length", "tip path")
    say.banded("pip_on_bar", "pip on the bar", x.pip_on_bar, "length", "tip path")
    say.banded("break_off_diameter", "falls at Ø", x.break_off_diameter, "length", "tip path")
    say.life(x)
    say.plain("roughness", "faces, Ra", x.roughness, "small_length", "model")
    say.plain("part_mass", "part that comes free", x.part_mass, "mass")
    say.banded("cutting_force", "cutting force", float(run.cutting_force[0]), "force", "cutting force", "specific_force", "cutting_force")
    say.banded("feed_force", "feed force", float(run.feed_force[0]), "force", "push-off", "feed_force")
    say.banded("side_force", "side force", float(run.side_force[0]), "force", "push-off", "feed_force", "side_force")
    say.plain("clamp_diameter", "clamp acts below Ø", run.clamp_diameter, "length")
    say.plain("spindle_speed", "spindle speed at the rim", float(run.spindle_speed[0]), "spindle_speed")
    say.plain("cutting_speed", "speed at the rim", float(run.cutting_speed[0]), "cutting_speed")
    say.plain("edge_break_time", "edge break", _edge_break(x), "duration")
    say.plain("y_gain", "turned by a Y axis, stiffer by", x.y_gain, "number", "model")
    if x.kerf is not None:
        _kerf(say, x.kerf, x.setup.bar.price > 0)
    return say.found


def _kerf(say: ResultsSaid, kerf: Kerf, priced: bool) -> None:
    """What the kerf costs; where the shop has not said what it pays, by what such a metal usually costs."""
    usual, honesty = ("", "exact") if priced else (", at a usual price of the metal", "rule")
    say.plain("kerf_per_piece", f"kerf per piece{usual}", kerf.kerf_per_piece, "money", honesty)
    say.plain("kerf_per_year", f"kerf a year{usual}", kerf.kerf_per_year, "money", honesty)
    say.plain("blank_per_piece", f"bar cost per piece{usual}", kerf.blank_per_piece, "money", honesty)
    say.plain("pieces_per_bar", "pieces per bar", kerf.pieces_per_bar, "count")
    say.plain("remnant", "remnant", kerf.remnant, "length")


def _edge_break(x: Numbers) -> float:
    s = x.setup.settings
    return float(edge_break_seconds(x.setup, s.cutting_speed, s.feed_per_rev, x.run.spun).ravel()[0])


def chip(x: Numbers) -> ChipVerdict:
    """The chip at full feed, in the slot at its deepest."""
    setup = x.setup
    return slot_chip(setup.settings.feed_per_rev, x.feeds, setup.depth, setup.slot, float(x.pressure), setup.work.material.ductility)


def passes(x: Numbers) -> tuple[Pass, ...]:
    """The one pass from rim to centre or bore."""
    setup, run = x.setup, x.run
    return (
        Pass(
            1, setup.feature.diameter, setup.feature.bore, setup.depth, float(run.spindle_speed[0]), float(run.cutting_speed[0]),
            setup.settings.feed_per_rev, float(x.engaged_time), chip(x), float(run.feed_force.max()), 0.0,
        ),
    )  # fmt: skip


class CutOffScene(TypedDict):
    """What its drawing needs: mm and degrees."""

    operation: str
    diameter: float
    bore: float
    part_length: float
    distance_from_chuck: float
    width: float
    slot: float
    lead_angle: float
    slant: float
    thickness: float
    height: float
    reach: float
    overhang: float
    hollow: str
    sub_spindle: str
    part_catcher: str
    guide_bush: str


def scene(x: Numbers) -> CutOffScene:
    """What the drawing needs, mm and degrees."""
    setup = x.setup
    return {
        "operation": setup.operation,
        "diameter": setup.feature.diameter,
        "bore": setup.feature.bore,
        "part_length": setup.feature.part_length,
        "distance_from_chuck": setup.feature.distance_from_chuck,
        "width": setup.insert.width,
        "slot": setup.slot,
        "lead_angle": setup.insert.lead_angle,
        "slant": setup.insert.width * float(np.tan(np.radians(setup.insert.lead_angle))),
        "thickness": setup.blade.thickness,
        "height": setup.blade.height,
        "reach": min(setup.blade.reach, setup.insert.reach),
        "overhang": setup.overhang,
        "hollow": "hollow" if x.run.hollow else "proud",
        "sub_spindle": "yes" if setup.holding.sub_spindle else "",
        "part_catcher": "yes" if setup.holding.part_catcher else "",
        "guide_bush": "yes" if setup.holding.guide_bush else "",
    }

"""Turning and facing as the bench asks for them: their part of the one engine."""

from __future__ import annotations

from collections.abc import Iterator

from cutting.operations.frame.model import Model, Readings
from cutting.operations.frame.outcome import Warning
from cutting.operations.frame.over_passes import last_pass
from cutting.operations.frame.speed_reason import UsualSpeed
from cutting.operations.turned.case import Cutter, single_cutter
from cutting.operations.turned.cautions import cautions
from cutting.operations.turned.changes import changes, other_tools, quicker, supported
from cutting.operations.turned.fit import misfits, warnings_of_fit
from cutting.operations.turned.limits import RULES
from cutting.operations.turned.physics import Cut
from cutting.operations.turned.readings import bow, passes, results, scene, worst_chip
from cutting.operations.turned.run import numbers
from cutting.wear.life import factor_along_edge
from cutting.wear.reference import SpeedFactor, speed_factors

SAME = 0.1  # share by which a chip thickness may differ from the row's and count as the same


def warnings(x: Cut) -> Iterator[Warning]:
    """Misfits, and what can go wrong."""
    yield from warnings_of_fit(x.setup)
    yield from cautions(x.setup, x)


def usual_speed(x: Cut) -> UsualSpeed:
    """The group's row for turning, and whether the chip is another than it is meant for."""
    setup = x.setup
    pressure = setup.machine.pressure(setup.settings.coolant) or 0.0
    factors = speed_factors(setup.work, setup.insert.grade, pressure, setup.holding.interrupted, setup.skin, setup.holding.weak)
    if (along := last_pass(factor_along_edge(1.0, x.cutter.cutting_edge_angle, x.depth_of_cut, x.cutter.nose_radius))) > 1.0:
        factors += (SpeedFactor("entering angle", along, "a small κr spreads the heat along the edge"),)
    meant = last_pass(x.cutter.reference_feed)
    more = () if abs(last_pass(x.chip_thickness) / meant - 1.0) < SAME else ("chip thickness",)
    return UsualSpeed(last_pass(x.cutting_speed), last_pass(x.cutter.reference_speed), factors, more)


MODEL: Model[Cut] = Model(
    single_cutter,
    numbers,
    RULES,
    changes,
    Readings(results, passes, worst_chip, warnings, scene, bow, usual_speed),
    other_tools,
    quicker,
    supported,
    misfits,
    stacked=Cutter.of,
)

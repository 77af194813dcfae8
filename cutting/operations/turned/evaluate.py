"""Turning and facing as the bench asks for them: their part of the one engine."""

from __future__ import annotations

from collections.abc import Iterator

from cutting.operations.frame.model import Model, Readings
from cutting.operations.frame.outcome import Warning
from cutting.operations.turned.case import single_cutter
from cutting.operations.turned.cautions import cautions
from cutting.operations.turned.changes import changes, other_tools, quicker, supported
from cutting.operations.turned.fit import misfits, warnings_of_fit
from cutting.operations.turned.limits import RULES
from cutting.operations.turned.physics import Cut
from cutting.operations.turned.readings import bow, passes, results, scene, worst_chip
from cutting.operations.turned.run import numbers
from cutting.wear.reference import speed_factors

FAR_OFF = 0.35  # share off the group's row from which a speed needs its reason on the screen


def warnings(x: Cut) -> Iterator[Warning]:
    """Misfits, what can go wrong, and why the speed stands far off the book's row."""
    yield from warnings_of_fit(x.setup)
    yield from cautions(x.setup, x)
    yield from _speed_reason(x)


def _speed_reason(x: Cut) -> Iterator[Warning]:
    setup, row = x.setup, float(x.cutter.reference_speed.ravel()[0])
    ratio = setup.settings.cutting_speed / row
    if abs(ratio - 1) <= FAR_OFF:
        return
    pressure = setup.machine.pressure(setup.settings.coolant) or 0.0
    factors = speed_factors(setup.work, setup.insert.grade, pressure, setup.holding.interrupted, setup.skin, setup.holding.weak)
    reasons = ", ".join(f"{f.label} ×{f.factor:.2f}" for f in factors if abs(f.factor - 1) > 0.02)
    text = f"Speed is {abs(ratio - 1):.0%} {'above' if ratio > 1 else 'below'} the starting value of {row:.0f} m/min for this group" + (
        f": {reasons}, chip thickness, and the goal." if reasons else ": chip thickness and the goal."
    )
    yield Warning("speed_off_row", text, "note")


MODEL: Model[Cut] = Model(
    single_cutter,
    numbers,
    RULES,
    changes,
    Readings(results, passes, worst_chip, warnings, scene, bow),
    other_tools,
    quicker,
    supported,
    misfits,
)

"""One set-up to its outcome: the recorded evaluation."""

from __future__ import annotations

from dataclasses import replace

from cutting.errors import UnknownName
from cutting.operations.frame.outcome import Outcome, Remedy, Warning
from cutting.operations.turned.case import Cutter
from cutting.operations.turned.cautions import cautions
from cutting.operations.turned.fit import warnings_of_fit
from cutting.operations.turned.limit_list import limit_list
from cutting.operations.turned.readings import chip_verdicts, passes, results, scene, worst_chip
from cutting.operations.turned.remedies import remedies_for, ways_to_go_faster
from cutting.operations.turned.run import run
from cutting.operations.turned.setup import Setup
from cutting.operations.turned.springing import springing
from cutting.tooling.crib import Crib
from cutting.wear.reference import speed_factors
from cutting.working import Recorder


def evaluate(setup: Setup, with_remedies: bool = True, crib: Crib | None = None) -> Outcome:
    """The outcome of a set-up: results, limits sorted by how close they are, passes, chip, warnings, working.

    With a `crib`, other tools of it are among the remedies. Raises `CuttingError` for inputs that cannot be; broken
    limits are part of the outcome, not errors.
    """
    record = Recorder()
    case, cutter, done = run(setup, record)
    found = limit_list(case, cutter, done, record)
    if with_remedies:
        found = tuple(
            replace(limit, remedies=remedies_for(limit, setup, crib)) if limit.broken or k == 0 else limit for k, limit in enumerate(found)
        )
    bow = springing(setup, done, case.beam)
    chips = chip_verdicts(case, done, record)
    faster = ways_to_go_faster(setup, found) if with_remedies and not any(limit.broken for limit in found) else ()
    warnings = _gravest_first((*warnings_of_fit(setup), *cautions(setup, done), *_speed_reason(setup, cutter)))
    return Outcome(
        setup.operation,
        results(case, cutter, done, record),
        found,
        passes(setup, done, chips),
        worst_chip(chips),
        warnings,
        faster,
        scene(setup, done, bow),
        bow,
    )


def relax(setup: Setup, name: str, crib: Crib | None = None) -> tuple[Remedy, ...]:
    """What would move one limit, whether it is broken or not. Raises `UnknownName` for a limit that does not apply."""
    record = Recorder()
    found = {limit.name: limit for limit in limit_list(*run(setup, record), record)}
    if name not in found:
        raise UnknownName("limit", f"no limit is called '{name}' here.", None, tuple(found))
    return remedies_for(found[name], setup, crib)


def _gravest_first(found: tuple[Warning, ...]) -> tuple[Warning, ...]:
    return tuple(sorted(found, key=lambda one: ("blocks", "care", "note").index(one.severity)))


def _speed_reason(setup: Setup, cutter: Cutter) -> tuple[Warning, ...]:
    """A speed further than 35 % from the group's row needs its reason on the screen."""
    row = float(cutter.reference_speed.ravel()[0])
    ratio = setup.settings.cutting_speed / row
    if abs(ratio - 1) <= 0.35:
        return ()
    pressure = setup.machine.pressure(setup.settings.coolant) or 0.0
    factors = speed_factors(setup.work, setup.insert.grade, pressure, setup.holding.interrupted, setup.skin, setup.holding.weak)
    reasons = ", ".join(f"{f.label} ×{f.factor:.2f}" for f in factors if abs(f.factor - 1) > 0.02)
    text = f"Speed is {abs(ratio - 1):.0%} {'above' if ratio > 1 else 'below'} the starting value of {row:.0f} m/min for this group" + (
        f": {reasons}, chip thickness, and the goal." if reasons else ": chip thickness and the goal."
    )
    return (Warning("speed_off_row", text, "note"),)

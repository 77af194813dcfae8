"""How the part springs along the last cut, what shape that leaves, and what would support it."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from cutting.mechanics.deflection import Holding
from cutting.operations.frame.outcome import Bow
from cutting.operations.turned.case import WHOLE, case_of
from cutting.operations.turned.limits import size_error_limit
from cutting.operations.turned.part import PartBeam, held_otherwise, part_beam
from cutting.operations.turned.physics import Cut
from cutting.operations.turned.plan import pass_depths, pass_diameters
from cutting.operations.turned.run import run
from cutting.operations.turned.setup import Setup
from cutting.operations.turned.surface import Surface

Array = NDArray[np.float64]
CURVE = 25
SEAT = 12.0  # mm of true seat that a steady's jaws want, and their distance from the cut (common practice)
FOLLOWER = 30_000.0  # N/mm, a follow rest beside the tool (common practice)
WORTH = 1.05  # times: less is no help


@dataclass(frozen=True)
class Support:
    """One way to hold the part better: what it leaves, and how much stiffer the weakest place is."""

    name: str
    text: str
    largest: float
    taper: float
    barrel: float
    times_stiffer: float
    patch: dict[str, dict[str, str | float]]
    seat: float | None = None


def springing(setup: Setup, done: Cut | None = None, beam: PartBeam | None = None) -> Bow:
    """The springing of the last pass. `done` may give an evaluation that is at hand. Raises `CuttingError`."""
    beam = beam or part_beam(setup)
    if done is None:
        done = run(setup, setup.silent)
    pushed = done.feed_force if setup.surface is Surface.FACE else done.passive_force
    force = float(np.ravel(pushed)[-1])
    places = np.linspace(beam.near, beam.far, CURVE) if beam.far > beam.near else np.array([beam.near, beam.near])
    before = pass_diameters(setup)[-1:]
    after = before if setup.surface is Surface.FACE else before - 2.0 * pass_depths(setup)[-1:]
    if setup.inside:
        before = after = np.array([WHOLE])
    errors = 2.0 * force * (beam.along(before, after, np.unique(places))[0] + float(np.ravel(done.cutter.bar_compliance)[0]))
    errors = errors if len(errors) == len(places) else np.repeat(errors, 2)
    return _shape(places, errors, setup.inside)


def supports(setup: Setup) -> tuple[Support, ...]:
    """Ways to hold the part stiffer for this cut, the best first, each with its gain. Raises `CuttingError`."""
    done = run(setup, setup.silent)
    now = springing(setup, done)
    found = []
    for name, text, changed, patch, seat in _ways(setup):
        then = springing(changed, done)
        gain = now.largest / max(then.largest, 1e-12)
        if gain > WORTH:
            found.append(Support(name, text, then.largest, then.taper, then.barrel, gain, patch, seat))
    follow = _follow_rest(setup, done, now)
    if follow is not None:
        found.append(follow)
    return tuple(sorted(found, key=lambda one: one.largest))


def allowed(setup: Setup) -> float:
    """What the size may change along the cut [mm]."""
    return size_error_limit(case_of(setup))


def _shape(places: Array, errors: Array, inside: bool = False) -> Bow:
    worst = int(np.argmax(errors))
    at_chuck, at_end, largest = float(errors[0]), float(errors[-1]), float(errors[worst])
    taper, barrel = at_end - at_chuck, largest - max(at_chuck, at_end)
    if barrel > 0.25 * max(largest - min(at_chuck, at_end), 1e-12) and barrel > 1e-4:
        shape = "barrel"
    elif abs(taper) > 1e-4:
        end = "free end" if taper > 0 else "chuck"
        shape = f"taper, {'narrow' if inside else 'thick'} at the {end}"
    else:
        shape = "straight"
    return Bow(tuple(map(float, places)), tuple(map(float, errors)), at_chuck, at_end, largest, float(places[worst]), taper, barrel, shape)


def _ways(setup: Setup) -> Iterator[tuple[str, str, Setup, dict[str, dict[str, str | float]], float | None]]:
    holding = setup.holding
    if holding.style is Holding.CHUCK and not setup.inside:  # a centre stands where a bar goes in
        style = Holding.CHUCK_AND_CENTRE
        yield "tailstock", "tailstock centre in", held_otherwise(setup, style=style), {"holding": {"style": style.value}}, None
    shortest = setup.feature.distance_from_chuck + setup.feature.length + 2.0
    if setup.surface is Surface.OUTSIDE and holding.free_length > WORTH * shortest:
        text = f"stick-out {holding.free_length:.0f} → {shortest:.0f} mm"
        yield "shorter", text, held_otherwise(setup, free_length=shortest), {"holding": {"free_length": f"{shortest:g} mm"}}, None
    if holding.steady is None:
        seat = best_seat(setup)
        if seat is not None:
            text = f"steady rest at {seat:.0f} mm from the chuck, on a true seat of about {SEAT:.0f} mm"
            yield "steady", text, held_otherwise(setup, steady=seat), {"holding": {"steady": f"{seat:g} mm"}}, seat


def best_seat(setup: Setup) -> float | None:
    """Where a fixed steady helps most [mm from the chuck]: beside the cut, never on it. None where there is no room."""
    beam, length = part_beam(setup), setup.holding.free_length
    rooms = [(SEAT, beam.near - SEAT), (beam.far + SEAT, length - SEAT / 2)]
    seats = [seat for low, high in rooms if high > low for seat in np.linspace(low, high, 7)]
    if not seats or (setup.surface is Surface.FACE and beam.near - SEAT <= SEAT):
        return None
    before, after = pass_diameters(setup)[-1:], np.array([setup.target_diameter])
    worst = [float(part_beam(held_otherwise(setup, steady=float(seat))).spring(before, after)[0]) for seat in seats]
    return round(float(seats[int(np.argmin(worst))]), 0)


def _follow_rest(setup: Setup, done: Cut, now: Bow) -> Support | None:
    """A rest that travels beside the tool carries its share of the push at every place."""
    if setup.surface is not Surface.OUTSIDE or setup.feature.length < 3 * setup.feature.turned_diameter:
        return None
    force = float(np.ravel(done.passive_force)[-1])
    errors = np.array(now.errors)
    compliance = errors / (2.0 * force)
    held = _shape(np.array(now.places), errors / (1.0 + compliance * FOLLOWER))
    if now.largest < WORTH * held.largest:
        return None
    text = "follow rest beside the tool, on the diameter just turned"
    return Support("follow rest", text, held.largest, held.taper, held.barrel, now.largest / held.largest, {})

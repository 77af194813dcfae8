"""The offset ledger of an operation: what each measured pass taught, and what to command for the next."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from cutting.operations.frame.outcome import TOUCHING
from cutting.operations.turned.case import Case, Cutter, case_of, single_cutter
from cutting.operations.turned.physics import cut
from cutting.operations.turned.plan import pass_depths
from cutting.operations.turned.setup import Setup
from cutting.sizing.offsets import Observation, OffsetEstimate, command_for, learn, prior
from cutting.sizing.settling import SettlingFit, settle
from cutting.sizing.warmth import REFERENCE, at_reference, growth

COVERAGE = 1.96  # 95 %
SLIP_SHARE, SLIP = 0.5, 0.1  # of what the cut takes off the diameter, and mm: a reading further off is doubted (common practice)
WARM = 2.0  # K from 20 °C from which warmth is worth a word
UNSURE = 1.2  # times between the forces that the readings allow
TOO_LIGHT = 0.005  # mm, which no edge takes


@dataclass(frozen=True)
class Measured:
    """What was read at the machine after a pass: diameters mm, part °C, expanded uncertainty mm (k = 2)."""

    pass_number: int
    commanded: float
    measured: float
    temperature: float = REFERENCE
    uncertainty: float = 0.01
    piece: int = 1


@dataclass(frozen=True)
class LedgerEntry:
    """One line of the ledger: the pass as it really was, and what was believed before it and after."""

    piece: int
    pass_number: int
    commanded: float
    measured: float
    at_20: float
    actual_depth: float
    force: float
    offset: float
    expected: float | None
    uncertainty: float


@dataclass(frozen=True)
class Next:
    """The next pass: what it aims at, what offset to expect, and what to command."""

    pass_number: int
    target: float
    depth: float
    force: float
    offset: float
    low: float
    high: float
    command: float
    last: bool


@dataclass(frozen=True)
class Warmth:
    """What the warm part measures over what it will at 20 °C, against the share of the tolerance that it may take [mm]."""

    temperature: float
    growth: float
    allowed: float
    tolerance: float

    @property
    def utilisation(self) -> float:
        return abs(self.growth) / max(self.allowed, 1e-9)

    @property
    def broken(self) -> bool:
        return self.utilisation > 1.0 + TOUCHING


@dataclass(frozen=True)
class Ledger:
    """The state of size control for one operation; `notes` say plainly what is known and what is not."""

    entries: tuple[LedgerEntry, ...]
    next: Next | None
    setting: float
    setting_spread: float
    springing: float  # mm on diameter at the next pass's force
    springing_spread: float
    springing_taught: bool
    prior_spring: float  # mm on diameter per N
    notes: tuple[str, ...]
    warnings: tuple[str, ...]
    doubtful: tuple[tuple[Measured, str], ...] = ()
    warmth: Warmth | None = None
    fit: SettlingFit | None = None  # how surely the drawing's limits are met, where it gives any


def doubt_of(setup: Setup, before: float, one: Measured) -> str:
    """Why a reading cannot be taken as it stands, empty where it can; `before` is the diameter [mm] that the cut began at.

    A turned part does not grow nor a bore close, and what tool and setting are off by is a part of the cut, not the whole of it.
    """
    cold = float(at_reference(one.measured, setup.work.material.expansion, one.temperature))
    meant, got = (setup.shrinks * (before - size) for size in (one.commanded, cold))
    if got <= one.uncertainty / 2.0 and meant > one.uncertainty:
        side, cut_off = ("above", "bored out") if setup.inside else ("below", "turned off")
        return f"Ø{one.measured:g} mm is not {side} the Ø{before:g} mm before the cut: nothing would have been {cut_off}"
    taken = max(meant, 0.0)
    if abs(cold - one.commanded) > max(SLIP_SHARE * taken, SLIP) + one.uncertainty:
        off = abs(cold - one.commanded)
        return f"Ø{one.measured:g} mm is {off:.3g} mm off the Ø{one.commanded:g} mm commanded, by a cut of {taken:.3g} mm"
    return ""


def doubt_of_next(setup: Setup, readings: Sequence[Measured], one: Measured) -> str:
    """Why a new reading cannot be taken as it stands after those that are written, empty where it can."""
    same = [kept for kept in readings if (kept.piece, kept.pass_number) != (one.piece, one.pass_number)]
    found = ledger(setup, [*same, one])
    return next((why for other, why in found.doubtful if other is one), "")


def ledger(setup: Setup, readings: Sequence[Measured]) -> Ledger:
    """The ledger of a turning or boring operation after the readings so far. Raises `CuttingError`.

    Earlier pieces teach too; the next pass is that of the newest piece.

    Forces are taken at the depth that was really cut, from one measured size to the next: springing makes it differ from
    the commanded one. The prior on springing is the stepped beam with the tool post in series, or with the bar in its sleeve. A bore
    is learned from in the mirror: there, too, springing leaves metal standing.
    """
    case, cutter = case_of(setup), single_cutter(setup)
    ordered = sorted(readings, key=lambda one: (one.piece, one.pass_number))
    belief = start = _prior(case, cutter, setup)
    entries: list[LedgerEntry] = []
    observed: list[Observation] = []
    doubtful: list[tuple[Measured, str]] = []
    trusted: list[Measured] = []
    before, piece = setup.feature.start_diameter, None
    for one in ordered:
        if one.piece != piece:
            before, piece = setup.feature.start_diameter, one.piece
        if why := doubt_of(setup, before, one):
            doubtful.append((one, why))
            continue
        trusted.append(one)
        entry, seen = _entry(case, cutter, setup, one, before, belief if observed else None)
        entries.append(entry)
        observed.append(seen)
        belief = learn(start, observed)
        before = entry.at_20
    following = _next(case, cutter, setup, trusted, before, belief)
    force = following.force if following else (observed[-1].force if observed else 0.0)
    spread, mirror = np.sqrt(belief.covariance.diagonal()), setup.shrinks
    return Ledger(
        tuple(entries),
        following,
        mirror * float(belief.mean[0]),
        float(spread[0]),
        mirror * float(belief.mean[1] * force),
        float(spread[1] * force),
        belief.springing_taught,
        mirror * start.prior_spring,
        tuple(_notes(belief, following)),
        tuple(_warnings(setup, trusted, doubtful, belief, following)),
        tuple(doubtful),
        warmth_of(setup, trusted[-1]) if trusted else None,
        _fit(setup, case, cutter, belief, trusted),
    )


def _fit(setup: Setup, case: Case, cutter: Cutter, belief: OffsetEstimate, done: list[Measured]) -> SettlingFit | None:
    """How surely the last cut meets the drawing's limits; None where it gives none."""
    size = setup.feature.end_diameter
    if size.lower_deviation is None or size.upper_deviation is None:
        return None
    depth = float(pass_depths(setup)[-1])
    force = _push(case, cutter, setup, setup.target_diameter + setup.shrinks * 2.0 * depth, depth)
    unsure = size.nominal * setup.work.material.expansion * 1e-6 * setup.house.temperature_known / np.sqrt(3.0)
    uncertainty = done[-1].uncertainty if done else setup.house.measuring_uncertainty
    limits = (size.nominal + size.lower_deviation, size.nominal + size.upper_deviation)
    count = sum(one.piece == done[-1].piece for one in done) if done else 0
    return settle(belief, force, uncertainty, setup.house.setting_step, float(unsure), limits, size.target, count)


def warmth_of(setup: Setup, one: Measured) -> Warmth | None:
    """Growth of a measured part against its tolerance; None where the drawing gives none.

    ISO 1 states sizes at 20 °C. The ledger takes the growth off, but a thermometer's kelvin or two stays: a growth beyond the
    house's share of the tolerance is to be waited for.
    """
    tolerance = setup.feature.end_diameter.tolerance
    if not tolerance:
        return None
    warm = float(growth(one.measured, setup.work.material.expansion, one.temperature))
    return Warmth(one.temperature, warm, setup.house.share_of_tolerance * tolerance, tolerance)


def _prior(case: Case, cutter: Cutter, setup: Setup) -> OffsetEstimate:
    end = np.array([setup.target_diameter])
    part = float(case.compliance(end, end)[0])
    if setup.inside:
        return prior(part + float(np.ravel(cutter.bar_compliance)[0]))
    return prior(part + 1e-3 / max(setup.machine.post_stiffness * setup.machine.rigidity, 1.0))


def _push(case: Case, cutter: Cutter, setup: Setup, diameter: float, depth: float) -> float:
    """Passive force [N] of a cut of this depth [mm] from this diameter [mm]."""
    s = setup.settings
    diameter += 2.0 * depth if setup.inside else 0.0
    done = cut(case, cutter, s.cutting_speed, s.feed_per_rev, np.array([max(depth, 1e-4)]), np.array([diameter]), setup.silent)
    return float(np.ravel(done.passive_force)[0])


def _entry(
    case: Case, cutter: Cutter, setup: Setup, one: Measured, before: float, belief: OffsetEstimate | None
) -> tuple[LedgerEntry, Observation]:
    cold = float(at_reference(one.measured, setup.work.material.expansion, one.temperature))
    mirror = setup.shrinks
    depth = max(mirror * (before - cold) / 2.0, 1e-4)
    force = _push(case, cutter, setup, before, depth)
    seen = Observation(mirror * one.commanded, mirror * cold, force, one.uncertainty / 2.0)
    expected = mirror * belief.predict(force)[0] if belief else None
    offset = mirror * seen.offset
    return LedgerEntry(one.piece, one.pass_number, one.commanded, one.measured, cold, depth, force, offset, expected, one.uncertainty), seen


def _next(case: Case, cutter: Cutter, setup: Setup, done: list[Measured], before: float, belief: OffsetEstimate) -> Next | None:
    depths, mirror = pass_depths(setup), setup.shrinks
    number = done[-1].pass_number + 1 if done else 1
    if number > len(depths):
        return None
    last = number == len(depths)
    # the passes left share what is really left, in the proportion planned
    planned = depths[number - 1 :]
    left = mirror * (before - setup.target_diameter) / 2.0
    depth = float(left * planned[0] / planned.sum()) if done else float(depths[0])
    start = before if done else setup.feature.start_diameter
    target = setup.target_diameter if last else start - mirror * 2.0 * depth
    force = _push(case, cutter, setup, before, max(depth, 1e-4))
    offset, spread = belief.predict(force)
    known = mirror * offset if done else 0.0
    low, high = sorted((mirror * (offset - COVERAGE * spread), mirror * (offset + COVERAGE * spread)))
    return Next(number, target, depth, force, mirror * offset, low, high, command_for(target, known), last)


def _notes(belief: OffsetEstimate, following: Next | None) -> list[str]:
    if not belief.forces:
        return ["Nothing measured yet: the first pass shows how the tool is set. Measure it, then command by what it says."]
    if belief.springing_taught:
        return ["Cuts of different force have told setting and springing apart."]
    if max(belief.forces) > UNSURE * min(belief.forces):
        return ["Offset known, stiffness still vague: what the cuts differ in is lost in what the micrometer does not know."]
    found = ["Offset known, stiffness not yet: equal cuts teach only setting and springing together."]
    if following is not None:
        found.append("For one more equal cut that is enough.")
    return found


def _warnings(
    setup: Setup, done: list[Measured], doubtful: list[tuple[Measured, str]], belief: OffsetEstimate, following: Next | None
) -> list[str]:
    found = []
    if following is not None and belief.unlike(following.force):
        nearest = min(belief.forces, key=lambda known: abs(known - following.force))
        change = setup.shrinks * float(belief.mean[1]) * (following.force - nearest)
        found.append(
            f"The next cut pushes with {following.force:.0f} N, those that taught with {nearest:.0f} N: its size shifts by about "
            f"{1000 * change:+.0f} µm, known from the beam model only. The command allows for it; take equal cuts to be sure.".replace(
                "-", "−"
            )
        )
    for one, why in doubtful:
        found.append(f"Pass {one.pass_number} is not counted: {why}. Measure it again.")
    if following is not None and following.depth < TOO_LIGHT:
        found.append("Almost nothing is left to turn: measure again before cutting, the edge would only rub.")
    if done and abs(done[-1].temperature - REFERENCE) > WARM:
        warm = float(growth(done[-1].measured, setup.work.material.expansion, done[-1].temperature))
        found.append(
            f"The part was at {done[-1].temperature:.0f} °C: at 20 °C it is {1000 * abs(warm):.0f} µm "
            f"{'smaller' if warm > 0 else 'larger'}."
        )
        if (held := warmth_of(setup, done[-1])) is not None and held.broken:
            found.append(
                f"That is {abs(held.growth) / held.tolerance:.1f} × its tolerance of {1000 * held.tolerance:.0f} µm: let it come to 20 °C "
                "before the last pass and before it is judged, or flood it till it is there."
            )
    return found

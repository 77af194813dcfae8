"""What may be concluded from a trial, in sentences, each with how surely; and what it is worth against another."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

import numpy as np

from cutting.errors import CuttingError
from cutting.learning.entries import Logged, edges_of
from cutting.learning.lives import Lives, Weibull, compare, fit_weibull
from cutting.learning.observed import as_really_set
from cutting.learning.sizes import capability, drift_of
from cutting.learning.taylor import fit_taylor
from cutting.quantities import write
from server.errors import Refusal
from server.jobs.document.outcomes import outcome_and_numbers
from server.trials.kept import setup_at
from server.trials.models import Trial
from server.trials.reading import logged
from server.trials.sizes import sizes_in_order, zone_of

Answer = dict[str, Any]


def says_of(trial: Trial, setup: Any, told: Sequence[Logged], law: Weibull | None) -> list[str]:
    """What may be concluded, each with how surely."""
    found = []
    edges = edges_of(told)
    if law is not None:
        low, high = law.between()
        planned = float(trial.prediction.get("change_parts", ["", 0.0])[1])
        found.append(
            f"Half of the edges last {law.median:.0f} pieces (90 %: {low:.0f} to {high:.0f}), nine of ten last {law.reached(0.9):.0f}; "
            f"shape {law.shape:.1f} from {law.failures} of {law.edges} edges that came to their end."
        )
        if planned >= 1:
            last = 100.0 * float(law.survival(np.array(planned)))
            found.append(
                f"As planned they are changed after {planned:.0f} pieces: {last:.0f} % last so long; "
                f"95 % last {law.reached(0.95):.0f} pieces."
            )
    elif edges.names:
        ended = sum(edges.ended)
        found.append(f"{ended} of {len(edges.names)} edges came to their end: two at least are wanted before their scatter can be told.")
    broken = edges.causes.count("breakage")
    if broken:
        found.append(f"{broken} of {len(edges.names)} edges broke or chipped: of those the wear says only that it lasted so long.")
    found += _exponent(setup, told)
    found += _about_sizes(setup, told)
    return found


def _exponent(setup: Any, told: Sequence[Logged]) -> list[str]:
    """Taylor's exponent where edges ran at several speeds: minutes in the cut, by what a piece takes at each."""
    edges = edges_of(told)
    if setup is None or len({one.speed for one in told}) < 2:
        return []
    lasts = [next(one for one in reversed(told) if one.edge == name) for name in edges.names]
    try:
        each = [float(np.ravel(outcome_and_numbers(as_really_set(setup, one))[1].engaged_time)[0]) / 60.0 for one in lasts]
        lives = Lives.of([count * minutes for count, minutes in zip(edges.lasted, each, strict=True)], edges.ended)
        speeds = [one.speed or setup.settings.cutting_speed for one in lasts]
        law = fit_taylor(speeds, lives)
    except CuttingError as error:
        return [f"No exponent of life over speed: {error.message}"]
    high = f"{law.exponent_high:.2f}" if np.isfinite(law.exponent_high) else "far up"
    return [
        f"Life over speed: exponent n {law.exponent:.2f} (90 %: {law.exponent_low:.2f} to {high}); {law.life:.0f} min at "
        f"{write(law.speed, 'cutting_speed', 'metric')}."
    ]


def _about_sizes(setup: Any, told: Sequence[Logged]) -> list[str]:
    pieces, sizes = sizes_in_order(told)
    zone = zone_of(setup)
    if zone is None or len(sizes) < 3:
        return []
    found = []
    try:
        drift = drift_of(pieces, sizes, *zone)
        if drift.there:
            every = f": correct every {drift.correct_every} pieces" if drift.correct_every else ""
            used = f", the zone is used up at piece {drift.used_up}" if drift.used_up else ""
            moves = " to ".join(f"{1000 * value:+.2f} µm" for value in (drift.low, drift.high))
            found.append(f"The size moves by {1000 * drift.per_piece:+.2f} µm a piece ({moves}){used}{every}.")
        else:
            found.append("No drift of the size can be told.")
    except CuttingError:
        pass
    able = capability(sizes, *zone)
    if able.cpk is not None and able.cp is not None:
        found.append(
            f"Cp {able.cp[0]:.2f} ({able.cp[1]:.2f} to {able.cp[2]:.2f}), Cpk {able.cpk[0]:.2f} ({able.cpk[1]:.2f} to {able.cpk[2]:.2f})"
            + (f"; {able.said}." if able.said else ".")
        )
    else:
        found.append(f"No Cpk: {'; '.join(able.why_not)}.")
    return found


def compared_with(trial: Trial, told: Sequence[Logged]) -> Answer | None:
    """This trial's edges against those of the trial that it is compared with, in life and in money."""
    other = trial.against
    if other is None:
        return None
    theirs = logged(list(other.entries.all()), 0.0, 0.0)
    said = []
    try:
        found = compare(edges_of(told).lives, edges_of(theirs).lives)
    except CuttingError as error:
        said.append(f"Not yet: {error.message}")
    else:
        said.append(f"Edges last {found.ratio:.2f} × as long as in trial {other.pk} (90 %: {found.low:.2f} to {found.high:.2f}).")
        if found.differs:
            said.append(f"They differ: by luck alone so much is seen {100 * found.luck:.1f} times of 100.")
        elif found.more:
            said.append(f"No difference seen yet; {found.more} more edges of each would show 20 %.")
        else:
            said.append("No difference of 20 % is left that could still be there.")
        said += _money((trial, told), (other, theirs))
    return {"against": other.pk, "said": said}


def cost_as_seen(trial: Trial, told: Sequence[Logged]) -> float | None:
    """What a piece costs with edges that last as they were seen to; None where that cannot be told yet."""
    try:
        outcome, numbers = outcome_and_numbers(setup_at(trial))
        median, shape, edge = (float(np.ravel(getattr(numbers, name))[0]) for name in ("median_parts", "weibull_shape", "edge_cost"))
        share = edge / max(float(outcome.results["change_parts"].value), 1.0)  # of an edge, in a piece
        longer = fit_weibull(edges_of(told).lives, shape).median / median
    except (CuttingError, Refusal, KeyError):
        return None
    return float(outcome.results["operation_cost"].value) - share + share / longer


def _money(*pairs: tuple[Trial, Sequence[Logged]]) -> list[str]:
    """What a piece costs in each of two trials."""
    mine, theirs = (cost_as_seen(trial, told) for trial, told in pairs)
    if mine is None or theirs is None:
        return []
    way = "less" if mine < theirs else "more"
    return [f"With these lives a piece costs {_price(abs(theirs - mine))} {way}: {_price(mine)} against {_price(theirs)}."]


def _price(value: float) -> str:
    return write(value, "money", "metric")

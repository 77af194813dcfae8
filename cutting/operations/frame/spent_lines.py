"""Last lines of what an operation spends: how pieces an edge lasts, its planned change and a secure run come of the numbers before."""

from __future__ import annotations

from typing import Any

import numpy as np

from cutting.operations.frame.money import TRUSTED_LIFE
from cutting.operations.frame.over_passes import last_pass
from cutting.wear import spread
from cutting.working import Line, Recorder, in_words, line
from cutting.working.line import COMMON

ALIKE = 0.002  # of a life: closer than this it is the one that is told


def trusted(x: Any) -> float:
    """The share of a life as reckoned that a law of wear is trusted for: beyond, something else ends an edge first."""
    return min(1.0, TRUSTED_LIFE / last_pass(x.tool_life))


def lasting(x: Any, record: Recorder) -> Line:
    """Pieces that half of the edges last."""
    engaged, life = last_pass(x.engaged_time), last_pass(x.tool_life)
    over_all = trusted(x) * last_pass(x.median_parts) * engaged / 60.0
    if life > TRUSTED_LIFE:
        return line("60·{trusted_life}/{engaged_time}", COMMON, trusted_life=over_all, engaged_time=engaged)
    told = [step.value for step in record.trail("tool_life")]
    if abs(over_all / life - 1.0) < ALIKE and (not told or abs(told[-1] / life - 1.0) < ALIKE):
        return line("60·{tool_life}/{engaged_time}", tool_life=over_all, engaged_time=engaged)
    # passes, layers or a path that differ wear it at different rates
    return line("60·{life_over_all}/{engaged_time}", life_over_all=over_all, engaged_time=engaged)


def longest_trusted(x: Any, record: Recorder) -> Line | None:
    """Life in the cut, no longer than a law of wear is trusted; None where the formula's own is told."""
    life = last_pass(x.tool_life)
    told = [step.value for step in record.trail("tool_life")]
    alike = bool(told) and abs(told[-1] / life - 1.0) < ALIKE
    if life > TRUSTED_LIFE and alike:
        return line("min({tool_life}, {trusted_life})", COMMON, tool_life=life, trusted_life=TRUSTED_LIFE)
    if life > TRUSTED_LIFE:
        return line("min({life_over_all}, {trusted_life})", COMMON, life_over_all=life, trusted_life=TRUSTED_LIFE)
    return None if alike else in_words("the time in the cut over what of a life all passes, layers or holes take together")


def change_planned(x: Any) -> Line:
    """Pieces between planned changes."""
    house, goal, shape = x.setup.house, x.setup.goal, x.weibull_shape
    median, change, engaged = last_pass(x.median_parts), last_pass(x.change_parts), last_pass(x.engaged_time)
    sure = house.change_probability(goal)
    planned = median * float(spread.life_quantile(sure, last_pass(shape)))
    if planned > change + 1.0:
        return line("whole({longest}·3600/{engaged_time})", longest=house.longest_change_hours, engaged_time=engaged)
    lasts = line("{half_last}·(−log2({sure}))^(1/{weibull_shape})", half_last=median, sure=sure, weibull_shape=shape)
    return line(f"whole({lasts.text})", **lasts.numbers) if change >= 1.0 else lasts


def secured(x: Any) -> Line:
    """Chance that a run ends without a stop [%]: the edge lasts, and no chips stop the machine."""
    edge, chips, pieces = last_pass(x.edge_lasts), last_pass(np.asarray(x.stop_chance)), last_pass(x.run_parts)
    if chips <= 0.0:
        return line("100·{completion_probability}", completion_probability=edge)
    return line(
        "100·{completion_probability}·(1 − {chips_stop_it})^{pieces_alone}",
        completion_probability=edge, chips_stop_it=chips, pieces_alone=pieces,
    )  # fmt: skip

"""How surely each limit holds: to first order over the named bands of what its numbers rest on, all at once."""

from __future__ import annotations

import math
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Any

import numpy as np
from numpy.typing import NDArray
from scipy.special import ndtr

from cutting.belief.bands import HARDNESS, SIGMAS
from cutting.belief.beliefs import spread_of
from cutting.operations.frame.outcome import TOUCHING, Bound
from cutting.operations.frame.rule import Rule
from cutting.wear.reference import taylor_exponent
from cutting.working import Silent

Array = NDArray[np.float64]
TESTED = 0.02  # spread of a hardness that was measured: a Brinell reading repeats within about 4 % (common practice)
LEAST = 1e-12
NAMED = 0.05  # share of the variance from which a quantity is named


@dataclass(frozen=True)
class Chance:
    """The chance that a limit holds, and the shares of what may be off in it by quantity, the largest first."""

    holds: float
    moved_by: tuple[tuple[str, float], ...] = ()


def spreads_of(setup: Any, stated: Iterable[str]) -> dict[str, Any]:
    """Standard deviations of the logarithms of what a set-up's numbers rest on, hardness among them; of layers an array."""
    found: dict[str, Any] = {}
    for quantity in stated:
        if quantity != HARDNESS:
            each = [spread_of(setup.belief(quantity, metal), quantity, setup.operation) for metal in setup.metals]
            found[quantity] = each[0] if len(set(each)) == 1 else np.array(each)
    if len(setup.metals) == 1 and (hard := hardness_spread(setup.work.material)) > 0:
        found[HARDNESS] = hard
    return found


def hardness_spread(material: Any) -> float:
    """Standard deviation of the logarithm of a hardness as delivered: the range of delivery is taken to hold nineteen of twenty."""
    return float((material.hardness_high - material.hardness_low) / (2.0 * SIGMAS * material.usual_hardness))


def hardness_factors(setup: Any, share: float) -> dict[str, float]:
    """By what a metal moves that comes harder by a share: its force, the life of the edge in it, what is read of its hardness."""
    work = setup.work
    harder = replace(work, hardness=work.hardness * share)
    edge_class = getattr(getattr(setup.edge, "grade", None), "tool_class", "hss")
    speed = harder.hardness_speed_factor / work.hardness_speed_factor  # at which the edge lasts as long as before
    return {
        "force": harder.specific_force_1 / work.specific_force_1,
        "life": speed ** (1.0 / taylor_exponent(edge_class)),
        HARDNESS: share,
    }


def chances_of(model: Any, setup: Any, stated: Iterable[str], tool: Any = None) -> dict[str, Chance]:
    """The chance that each limit of a set-up holds, by name, from the quantities that its numbers were found to rest on.

    Every quantity is moved by one standard deviation to both sides, all of them in one run of the numbers over arrays; the logarithm
    of the share used is taken as straight between. Source: propagation of error to first order (ISO/IEC Guide 98-3).
    Raises `CuttingError`.
    """
    spreads = spreads_of(setup, stated)
    tool = model.tool(setup) if tool is None else tool
    x = model.numbers(setup, tool, setup.settings.cutting_speed, setup.feed, Silent(shifted(setup, spreads)))
    names, found = list(spreads), {}
    for rule in model.rules:
        applies = rule.applies(x)
        if applies is True or np.any(applies):
            found[rule.name] = _chance(_margins(rule, x, applies, 1 + 2 * len(names)), names)
    return found


def shifted(setup: Any, spreads: Mapping[str, Any]) -> dict[str, Array]:
    """Factors as they are believed in row 0, then each quantity one standard deviation up and one down: arrays (1 + 2·quantities, …)."""
    rows, found = 1 + 2 * len(spreads), dict[str, Array]()
    by_hardness = ("force", "life") if HARDNESS in spreads else ()
    for quantity in dict.fromkeys((*setup.factors, *spreads, *by_hardness)):
        wide = max(np.size(setup.factors.get(quantity, 1.0)), np.size(spreads.get(quantity, 1.0)))
        found[quantity] = np.ones((rows, wide)) * setup.factors.get(quantity, 1.0)
    for k, (quantity, spread) in enumerate(spreads.items()):
        for row, sign in ((1 + 2 * k, 1.0), (2 + 2 * k, -1.0)):
            if quantity == HARDNESS:
                for name, factor in hardness_factors(setup, math.exp(sign * spread)).items():
                    found[name][row] *= factor
            else:
                found[quantity][row] *= np.exp(sign * spread)
    return found


def _margins(rule: Rule[Any], x: Any, applies: Any, rows: int) -> list[Array]:
    """Logarithms of bound over value, for each side that is bounded: arrays (rows, steps); without end where it does not apply."""
    value, lower, upper = rule.read(x)
    if rule.name == "secure":  # the risk that is taken against the risk that is allowed
        sides = [(100.0 - np.asarray(lower, float), 100.0 - np.asarray(value, float))]
    else:
        upwards = rule.bound is not Bound.LOWER and upper is not None
        downwards = lower is not None and (rule.bound is Bound.LOWER or (rule.bound is Bound.WINDOW and not rule.free_below))
        sides = ([(upper, value)] if upwards else []) + ([(value, lower)] if downwards else [])
    found = []
    for bound, part in sides:
        margin = np.log(np.maximum(bound, LEAST)) - np.log(np.maximum(part, LEAST))
        margin = margin if applies is True else np.where(applies, margin, np.inf)
        found.append(np.broadcast_to(margin, (rows, margin.shape[-1] if margin.ndim else 1)))
    return found


def _chance(sides: Sequence[Array], names: Sequence[str]) -> Chance:
    """From the margins of all rows: where each side stands, and how far each quantity moves it; of several steps the least sure."""
    off: Any = 0.0
    variances = np.zeros((len(names), 1))
    for side in sides:
        middle = side[0]
        endless = ~np.isfinite(middle)
        with np.errstate(invalid="ignore"):
            moves = np.where(endless, 0.0, (side[1::2] - side[2::2]) / 2.0)
        spread = np.sqrt(np.sum(moves**2, axis=0))
        exact = np.where(middle >= -math.log1p(TOUCHING), 1.0, 0.0)
        with np.errstate(invalid="ignore", divide="ignore"):
            off = off + 1.0 - np.where(endless | (spread <= LEAST), exact, ndtr(middle / np.maximum(spread, LEAST)))
        variances = np.maximum(variances, moves**2)
    off = np.broadcast_to(off, variances.shape[1:])
    worst = int(np.argmax(off))
    return Chance(float(np.clip(1.0 - off[worst], 0.0, 1.0)), _shares(names, variances[:, worst]))


def _shares(names: Sequence[str], variances: Array) -> tuple[tuple[str, float], ...]:
    whole = float(variances.sum())
    if whole <= LEAST:
        return ()
    pairs = sorted(zip(names, variances / whole, strict=True), key=lambda pair: -pair[1])
    return tuple((name, float(share)) for name, share in pairs if share >= NAMED)

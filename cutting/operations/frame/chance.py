"""How surely each limit holds: to first order over the named bands of what its numbers rest on, all at once."""

from __future__ import annotations

import itertools
import math
from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Any, NamedTuple

import numpy as np
from numpy.typing import ArrayLike, NDArray
from scipy.special import ndtr, ndtri

from cutting.belief.bands import HARDNESS, SIGMAS
from cutting.belief.beliefs import spread_of
from cutting.operations.frame.outcome import TOUCHING, Bound
from cutting.operations.frame.rule import Rule, all_used
from cutting.wear.reference import taylor_exponent
from cutting.working import Noting, Silent

Array = NDArray[np.float64]
TESTED = 0.02  # spread of a hardness that was measured: a Brinell reading repeats within about 4 % (common practice)
LEAST = 1e-12
WIDEST = 1.0  # beyond it a limit hangs on what nobody knows
NAMED = 0.05  # share of the variance from which a quantity is named


@dataclass(frozen=True)
class Chance:
    """The chance that a limit holds, and the shares of what may be off in it by quantity, the largest first.

    `spread` is the standard deviation of the logarithm of its utilisation, `spare` the safety that its bound holds itself.
    """

    holds: float
    spread: float = 0.0
    spare: float = 1.0
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
    sides = [side for rule in model.rules for side in _sides(rule, x)]
    found = _chances(sides, 1 + 2 * len(spreads), list(spreads))
    spares = {rule.name: rule.spare(x) for rule in model.rules if rule.name in found}
    return {name: replace(one, spare=spares[name]) for name, one in found.items()}


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


class LimitSide(NamedTuple):
    """One side of a limit that is bounded: what may be, what is, and where it applies; numbers, or arrays (rows, steps)."""

    name: str
    bound: Any
    part: Any
    applies: Any

    @property
    def steps(self) -> int:
        return max(np.shape(one)[-1] if np.ndim(one) else 1 for one in self[1:])


def _sides(rule: Rule[Any], x: Any) -> Iterator[LimitSide]:
    applies = rule.applies(x)
    if applies is not True and not np.any(applies):
        return
    value, lower, upper = rule.read(x)
    if rule.name == "secure":  # the risk that is taken against the risk that is allowed
        yield LimitSide(rule.name, 100.0 - np.asarray(lower, float), 100.0 - np.asarray(value, float), applies)
        return
    spare = rule.spare(x)
    if rule.bound is not Bound.LOWER and upper is not None:
        yield LimitSide(rule.name, spare * np.asarray(upper, float), value, applies)
    if lower is not None and (rule.bound is Bound.LOWER or (rule.bound is Bound.WINDOW and not rule.free_below)):
        yield LimitSide(rule.name, spare * np.asarray(value, float), lower, applies)


def _chances(sides: Sequence[LimitSide], rows: int, names: Sequence[str]) -> dict[str, Chance]:
    """How surely each limit holds, from where each side stands in every row and how far each quantity moves it; all sides at once.

    The margin is the logarithm of bound over value, without end where a limit does not apply. Of several steps the least sure counts.
    """
    ends = np.cumsum([0, *(side.steps for side in sides)])
    bound, part, applies = np.empty((rows, ends[-1])), np.empty((rows, ends[-1])), np.empty((rows, ends[-1]), bool)
    for side, begin, end in zip(sides, ends, ends[1:], strict=False):
        bound[:, begin:end], part[:, begin:end], applies[:, begin:end] = side.bound, side.part, side.applies
    margin = np.where(applies, np.log(np.maximum(bound, LEAST)) - np.log(np.maximum(part, LEAST)), np.inf)
    middle = margin[0]
    endless = ~np.isfinite(middle)
    with np.errstate(invalid="ignore", divide="ignore"):
        moves = np.where(endless, 0.0, (margin[1::2] - margin[2::2]) / 2.0)
        variances = moves**2
        spread = np.sqrt(variances.sum(axis=0))
        exact = np.where(middle >= -math.log1p(TOUCHING), 1.0, 0.0)
        off = 1.0 - np.where(endless | (spread <= LEAST), exact, ndtr(middle / np.maximum(spread, LEAST)))
    found: dict[str, Chance] = {}
    for name, group in itertools.groupby(zip(sides, ends, ends[1:], strict=False), key=lambda one: one[0].name):
        spans = [slice(begin, end) for _, begin, end in group]
        together = np.sum(np.broadcast_arrays(*(off[span] for span in spans)), axis=0)
        worst = int(np.argmax(together))
        moved = np.max([variances[:, span][:, min(worst, span.stop - span.start - 1)] for span in spans], axis=0)
        found[name] = Chance(min(max(1.0 - float(together[worst]), 0.0), 1.0), float(np.sqrt(moved.sum())), 1.0, _shares(names, moved))
    return found


def gives_way_at(asked: float, spread: ArrayLike, spare: float = 1.0) -> Array:
    """Utilisation at which a limit still holds with a chance, for the spread of its logarithm: spare·exp(−z·σ)."""
    return np.asarray(spare * np.exp(-float(ndtri(asked)) * np.asarray(spread, float)))


def kept_in_hand(asked: float, spread: ArrayLike, spare: float = 1.0) -> Array:
    """Utilisation up to which a limit is used that shall hold with a chance: as `gives_way_at`, and never beyond its bound.

    >>> float(kept_in_hand(0.5, 0.2)), round(float(kept_in_hand(0.9, 0.1)), 3), float(kept_in_hand(0.9, 0.1, 2.0))
    (1.0, 0.88, 1.0)
    """
    return np.minimum(gives_way_at(asked, spread, spare), 1.0)


def spreads_over(model: Any, setup: Any, tool: Any, speed: Any, feed: Any) -> dict[str, Array]:
    """The spread of every limit's utilisation, as the standard deviation of its logarithm, for many tools at once: (entries, 1) by name.

    `tool`, `speed` and `feed` are of many entries, in the set-up in which they are tried. First order, as `chances_of`.
    Raises `CuttingError`.
    """
    noting = Noting(setup.factors)
    model.numbers(setup, tool, speed, feed, noting)
    spreads = spreads_of(setup, noting.stated)
    factors = {name: rows[:, None, :] for name, rows in shifted(setup, spreads).items()}
    levels = all_used(model.rules, model.numbers(setup, tool, speed, feed, Silent(factors)))
    found = {}
    for name, level in levels.items():
        if level.ndim < 3 or len(level) == 1:  # nothing that may be off moves it
            found[name] = np.zeros((1, 1))
            continue
        logs = np.log(np.maximum(level, LEAST))
        found[name] = np.minimum(np.sqrt((((logs[1::2] - logs[2::2]) / 2.0) ** 2).sum(axis=0)), WIDEST)
    return found


def _shares(names: Sequence[str], variances: Array) -> tuple[tuple[str, float], ...]:
    whole = float(variances.sum())
    if whole <= LEAST:
        return ()
    pairs = sorted(zip(names, variances / whole, strict=True), key=lambda pair: -pair[1])
    return tuple((name, float(share)) for name, share in pairs if share >= NAMED)

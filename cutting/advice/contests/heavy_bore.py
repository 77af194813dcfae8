"""Which heavy tools compete for bores of several steps."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace

import numpy as np

from cutting.advice.best import Best
from cutting.advice.contest import Array, Check, Contest, Entrants, Try, sieve
from cutting.advice.contests.drill import as_tried
from cutting.advice.goal_speed import goal_speed, within_book
from cutting.operations.frame.over_passes import over_passes
from cutting.operations.holes.heavy_bore.evaluate import MODEL
from cutting.operations.holes.heavy_bore.limits import LEAST_FEED, LEAST_SPEED
from cutting.operations.holes.heavy_bore.numbers import Numbers, one_of
from cutting.operations.holes.heavy_bore.setup import HeavyBoreSetup
from cutting.operations.holes.heavy_bore.tool import FEED_HIGH, FEED_LOW, HeavyTools, heavy_tools
from cutting.quantities.write import Display, display
from cutting.tooling.heavy.stock import HeavyStock

FEED_PLACES = np.array([0.0, 0.3, 0.6, 0.9])  # of the window for each edge
FEED_STEP = 0.01
SPEED_SHARES = np.array([1.0, 0.8])


def neutral(setup: HeavyBoreSetup) -> HeavyBoreSetup:
    """The set-up without what belongs to its present tool. Raises `CuttingError`."""
    found = setup.with_cut(100.0, 0.1)
    found.check_case()
    return found


def enter(setup: HeavyBoreSetup, stock: HeavyStock) -> Entrants:
    """Every tool with a step for each bore that sits in this machine."""
    setup = neutral(setup)
    (places,) = stock.places
    tool = heavy_tools(setup, stock, places)
    checks: list[Check] = [
        ("steps", "no step for each bore, or one too many", tool.has_steps),
        ("interface", "its holder does not sit on this machine", tool.seats),
        ("starting_speed", "its inserts do not bore this metal", ~np.isnan(tool.speed_high)),
        ("grade", "grade is not for this material", tool.serves > 0),
    ]
    fits, refused = sieve(checks, len(places))
    return Entrants(stock.parts, (places[fits],), tool.take(fits), refused, len(fits))


def tries(setup: HeavyBoreSetup, field: Entrants, best: Best, part: slice) -> Iterator[Try]:
    """All of them alike."""
    places = np.arange(part.start, part.stop)
    if len(places):
        yield places, replace(neutral(setup), **field.tool_of(int(places[0])))


def feeds(setup: HeavyBoreSetup, tool: HeavyTools) -> tuple[Array, Array]:
    """Feeds [mm/rev] over the window of the step with the fewest edges, and the least."""
    edges = over_passes(tool.own["inserts"], np.minimum)
    return np.round(edges * (FEED_LOW + FEED_PLACES * (FEED_HIGH - FEED_LOW)), 3), LEAST_FEED * FEED_LOW * edges


def speeds(setup: HeavyBoreSetup, tool: HeavyTools, feed: Array) -> Array:
    """Speeds [m/min] at which the goal would run at these feeds, (entries, feeds, 1)."""
    middle = (tool.speed_low + tool.speed_high) / 2.0 * tool.speed_factor
    x = MODEL.numbers(setup, tool, middle, feed, setup.silent)
    wanted = goal_speed(setup, x, middle, tool.taylor_exponent)
    return np.asarray(np.broadcast_to(within_book(setup, wanted, LEAST_SPEED * x.book_low, x.book_high), feed.shape))


HEADS = ("mass", "moment", "coaxiality")


def columns(x: Numbers) -> tuple[Display, ...]:
    """What the changer feels, and what the steps keep to each other."""
    return (
        display(float(np.ravel(x.tool.own["mass"])[0]), "mass"),
        display(float(np.ravel(x.moment)[0]), "torque"),
        display(float(np.max(x.coaxiality)), "length"),
    )


CONTEST = Contest(
    MODEL, enter, tries, as_tried, feeds, speeds, frozenset(), FEED_STEP, SPEED_SHARES, HEADS, columns, lambda setup: {}, apart=one_of
)  # fmt: skip

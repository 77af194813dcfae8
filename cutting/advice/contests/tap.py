"""Which taps and chucks compete for a thread, at the speed that the goal wants."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace
from typing import Any

import numpy as np

from cutting.advice.best import Best
from cutting.advice.candidate import Candidate
from cutting.advice.contest import Array, Check, Contest, Entrants, Try, sieve
from cutting.advice.contests.drill import as_tried, standing_for
from cutting.advice.contests.thread_ways import FURTHER, HEADS, at_risk, cells, hole_first
from cutting.advice.goal_speed import goal_speed, within_book
from cutting.operations.threads.tap.evaluate import MODEL
from cutting.operations.threads.tap.limits import LEAST_SPEED
from cutting.operations.threads.tap.numbers import Numbers, one_of
from cutting.operations.threads.tap.setup import TapHolding, TapSettings, TapSetup, same_thread
from cutting.operations.threads.tap.tool import TapTool, tap_tools
from cutting.quantities.write import display
from cutting.tooling.tap_stock import TapStock


def neutral(setup: TapSetup) -> TapSetup:
    """The set-up without what belongs to its present tool, led as the machine can. Raises `CuttingError`."""
    held = TapHolding.FLOATING if setup.machine.geared else TapHolding.SYNCHRONISED
    found = replace(setup, settings=TapSettings(10.0, setup.settings.coolant, held, None))
    found.check_case()
    return found


def checks(setup: TapSetup, stock: TapStock, places: Any, tool: TapTool) -> list[Check]:
    """Exact rules: thread, class, grade, seat."""
    f = setup.feature
    asked = f.limits.class_name
    fits = np.array([same_thread(one, f) for one in stock.taps], bool)[places]
    classes = np.array([not one.class_name or one.class_name == asked for one in stock.taps], bool)[places]
    return [
        ("thread", "made for another thread", fits),
        ("class", f"cuts another class than {asked}", classes),
        ("seat", "its holder does not fit this machine", tool.seats),
        ("starting_speed", "not run in this material", ~np.isnan(tool.speed_high)),
        ("grade", "grade is not for this material", tool.serves > 0),
    ]


def enter(setup: TapSetup, stock: TapStock) -> Entrants:
    """Every tap for this thread in every chuck that takes it and sits here."""
    setup = neutral(setup)
    left, right = stock.places
    tool = tap_tools(setup, stock, left, right)
    good, refused = sieve(checks(setup, stock, left, tool), len(left))
    return Entrants(stock.parts, (left[good], right[good]), tool.take(good), refused, len(good))


def tries(setup: TapSetup, field: Entrants, best: Best, part: slice) -> Iterator[Try]:
    """Once: a tap has no other way."""
    places = np.arange(part.start, part.stop)
    yield places, standing_for(neutral(setup), field, places)  # type: ignore[arg-type]


def feeds(setup: TapSetup, tool: TapTool) -> tuple[Array, Array]:
    """The lead alone."""
    lead = np.full_like(tool.hole, setup.feature.thread.lead)
    return lead, lead


def speeds(setup: TapSetup, tool: TapTool, feed: Array) -> Array:
    """Speeds [m/min] at which the goal would run, (entries, 1, 1)."""
    middle = (tool.speed_low + tool.speed_high) / 2.0 * tool.speed_factor
    x = MODEL.numbers(setup, tool, middle, feed, setup.silent)
    wanted = goal_speed(setup, x, x.cutting_speed, tool.taylor_exponent)
    speed = within_book(setup, wanted, LEAST_SPEED * x.book_low, x.book_high)
    return np.asarray(np.broadcast_to(speed, feed.shape))


def columns(x: Numbers) -> tuple[Any, ...]:
    """The shared heads."""
    tap = x.setup.tap
    way = "formed" if tap.type.forms else "tapped"
    return cells(
        way, "1 size", float(np.min(x.certainty)), at_risk(x), display(float(np.max(x.torque)), "torque"),
        tap.hardest, display(100.0 * float(np.min(x.edge_cost / x.holes)), "money", False), display(tap.reach, "length"),
    )  # fmt: skip


def completed(setup: TapSetup, stock: Any, rows: list[Candidate]) -> list[Candidate]:
    """Drilled and chamfered before, where no hole is there."""
    forming = {one.name: one.type.forms for one in stock.taps}
    return hole_first(
        setup, stock, rows, lambda name: forming[name], lambda row: f"drill, chamfer, {'form' if forming[row.edge] else 'tap'}"
    )


def patch(setup: TapSetup) -> dict[str, str]:
    """How it is led."""
    return {"held": setup.settings.held.value, "clutch": ""}


BARE = Contest(
    MODEL,
    enter,
    tries,
    as_tried,
    feeds,
    speeds,
    frozenset({"settings.held"}),
    0.0001,
    heads=HEADS,
    columns=columns,
    patch=patch,
    beside=lambda x: x.at_risk,
    further=FURTHER,
    apart=one_of,
    completed=completed,
    beside_words="scrap risk per piece: + {}",
)

"""Which thread mills and chucks compete for a thread, in as many passes as it wants."""

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
from cutting.operations.threads.mill_thread.evaluate import MODEL
from cutting.operations.threads.mill_thread.limits import LEAST_FEED, LEAST_SPEED, TOO_WIDE
from cutting.operations.threads.mill_thread.numbers import CHILLS_FROM, Numbers, one_of
from cutting.operations.threads.mill_thread.setup import MillThreadSettings, MillThreadSetup
from cutting.operations.threads.mill_thread.tool import ThreadMillTool, thread_mill_tools
from cutting.operations.threads.shared.hardness import rockwell
from cutting.quantities.write import display
from cutting.tooling.thread_mill_stock import ThreadMillStock

FEED_PLACES = np.array([0.0, 0.35, 0.7, 1.0])  # of the window
PASSES = ((1, 0), (2, 0), (1, 1), (3, 1))  # radial passes and repeats that are tried
FEED_STEP = 0.001
TOO_DEEP = 1.6  # times the thread that a drill point may drill beneath it


def neutral(setup: MillThreadSetup) -> MillThreadSetup:
    """The set-up without what belongs to its present tool; hot teeth are not quenched. Raises `CuttingError`."""
    coolant = setup.settings.coolant
    if rockwell(setup.work) > CHILLS_FROM:
        coolant = next((name for name, pressure in setup.machine.coolant if pressure <= 0), coolant)
    # a cut to start from; what is tried replaces it
    found = replace(setup, settings=MillThreadSettings(60.0, 0.02, coolant))
    found.check_case()
    return found


def checks(setup: MillThreadSetup, tool: ThreadMillTool) -> list[Check]:
    """Exact rules: form and pitch, size, reach, grade, seat."""
    own, f = tool.own, setup.feature
    enters = (tool.hole <= 0) | (own["diameter"] < tool.hole)
    # how deep it drills goes with its length: no more than a little is left over
    deep = (own["type_first"] <= 0) | (own["step"] <= 0) | ((own["step"] >= f.length) & (own["step"] <= TOO_DEEP * f.length))
    return [
        ("pitch", "cuts another form or pitch", tool.cuts > 0),
        ("size", "too wide for this thread", (own["diameter"] <= TOO_WIDE * f.thread.diameter) & enters),
        ("reach", "does not reach the depth", own["reach"] >= f.length),
        ("drills", "drills its own hole: one is there", ~((own["type_first"] > 0) & (f.there > 0))),
        ("depth", "drills to another depth", deep),
        ("seat", "its holder does not fit this machine", tool.seats),
        ("starting_speed", "not run in this material", ~np.isnan(tool.speed_high)),
        ("grade", "grade is not for this material", tool.serves > 0),
    ]


def enter(setup: MillThreadSetup, stock: ThreadMillStock) -> Entrants:
    """Every mill in every chuck that takes it and sits here."""
    setup = neutral(setup)
    left, right = stock.places
    tool = thread_mill_tools(setup, stock, left, right)
    fits, refused = sieve(checks(setup, tool), len(left))
    return Entrants(stock.parts, (left[fits], right[fits]), tool.take(fits), refused, len(fits))


def tries(setup: MillThreadSetup, field: Entrants, best: Best, part: slice) -> Iterator[Try]:
    """In one pass; what does not stand then, in more."""
    setup, places = neutral(setup), np.arange(part.start, part.stop)
    for passes, repeats in PASSES:
        rows = places if passes == 1 and not repeats else places[~best.feasible[places]]
        if len(rows):
            yield rows, standing_for(setup.with_settings(passes=passes, repeats=repeats), field, rows)  # type: ignore[arg-type]


def feeds(setup: MillThreadSetup, tool: ThreadMillTool) -> tuple[Array, Array]:
    """Feeds over the window, and the least."""
    span = tool.feed_high - tool.feed_low
    # as finely as a feed is written, and never above the window by that
    tried = np.floor((tool.feed_low + FEED_PLACES * span) / FEED_STEP + 1e-9) * FEED_STEP
    return np.maximum(tried, FEED_STEP), np.maximum(LEAST_FEED * tool.feed_low, FEED_STEP)


def speeds(setup: MillThreadSetup, tool: ThreadMillTool, feed: Array) -> Array:
    """Speeds [m/min] at which the goal would run at these feeds, (entries, feeds, 1)."""
    middle = (tool.speed_low + tool.speed_high) / 2.0 * tool.speed_factor
    x = MODEL.numbers(setup, tool, middle, feed, setup.silent)
    wanted = goal_speed(setup, x, middle, tool.taylor_exponent)
    speed = within_book(setup, wanted, LEAST_SPEED * x.book_low, x.book_high)
    return np.asarray(np.broadcast_to(speed, feed.shape))


def columns(x: Numbers) -> tuple[Any, ...]:
    """The shared heads."""
    mill, covers = x.setup.mill, int(np.max(x.tool.covers))
    said = f"{covers} sizes" if covers > 1 else "1 size"
    return cells(
        _way(mill), said, float(np.min(x.certainty)), at_risk(x), display(float(np.max(x.push_off)), "force"),
        mill.hardest, display(100.0 * float(np.min(x.edge_cost / x.holes)), "money", False), display(mill.reach, "length"),
    )  # fmt: skip


def _way(mill: Any) -> str:
    return {"first": "drilled and milled in one", "helix": "milled from solid"}.get(mill.type.drills, "milled")


def completed(setup: MillThreadSetup, stock: Any, rows: list[Candidate]) -> list[Candidate]:
    """Drilled and chamfered before, where no hole is there and the mill opens none."""
    opens = {one.name: one.type.opens for one in stock.mills}
    return hole_first(setup, stock, rows, lambda name: None if opens[name] else False, lambda row: "drill, chamfer, mill")


def patch(setup: MillThreadSetup) -> dict[str, str]:
    """Passes, and what is left to be reckoned."""
    s = setup.settings
    return {
        "passes": str(s.passes),
        "repeats": str(s.repeats),
        "offset": "",
        "coolant": s.coolant,
        "sense": s.sense.value,
        "along": s.along.value,
    }


BARE = Contest(
    MODEL,
    enter,
    tries,
    as_tried,
    feeds,
    speeds,
    frozenset({"settings.passes", "settings.repeats"}),
    FEED_STEP,
    heads=HEADS,
    columns=columns,
    patch=patch,
    beside=lambda x: x.at_risk,
    further=FURTHER,
    apart=one_of,
    completed=completed,
    beside_words="scrap risk per piece: + {}",
)

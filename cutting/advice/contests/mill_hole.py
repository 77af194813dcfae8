"""Which end mills and chucks compete for a hole: down a helix, with a last turn where the size asks for it, or straight down."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace
from typing import Any

import numpy as np

from cutting.advice.best import Best
from cutting.advice.contest import Array, Check, Contest, Entrants, Mask, Try, sieve
from cutting.advice.contests.drill import NEAR_SHARE, NEAR_SIZE, as_tried
from cutting.advice.goal_speed import goal_speed, within_book
from cutting.operations.holes.mill_hole.evaluate import MODEL
from cutting.operations.holes.mill_hole.limits import LEAST_RATIO, LEAST_SPEED, helical, widest
from cutting.operations.holes.mill_hole.numbers import Numbers, one_of
from cutting.operations.holes.mill_hole.setup import Descent, MillHoleSetup, Sense
from cutting.operations.holes.mill_hole.tool import MillTool, mill_tools
from cutting.operations.holes.shared.reached import tolerance_grade
from cutting.quantities.write import Display, display, write
from cutting.tooling.mill_stock import MillStock

FEED_PLACES = np.array([0.0, 0.4, 0.8, 1.2])  # of the slot's window; thin chips allow more than its top
PITCHES = (1.0, 0.55, 1.8)  # of the usual pitch
MOST_PITCHED = 1500  # entries of a chunk
LAST_TURN = 0.1  # mm on the radius (common practice)
LAST_FROM = 0.06  # mm of tolerance below which a last turn is tried
POWER_MARGIN = 0.97
FEED_STEP = 0.002
LEAST_FEED = 0.4  # of the lowest usual feed: where the wall springs less is fed finer (common practice)


def neutral(setup: MillHoleSetup) -> MillHoleSetup:
    """The set-up without what belongs to its present tool. Raises `CuttingError`."""
    # a cut to start from; what is tried replaces it
    found = setup.with_cut(60.0, 0.02).with_settings(path=Descent.HELIX, pitch=None, finish=0.0, offset=0.0, sense=Sense.CLIMB)
    found.check_case()
    return found


def plunges(setup: MillHoleSetup, diameter: Any) -> Mask:
    """Where a mill is as wide as its hole: straight down, or not at all."""
    size = setup.feature.diameter
    if size.upper_deviation is not None and size.lower_deviation is not None:
        return np.asarray(
            (diameter >= size.nominal + size.lower_deviation - 1e-6) & (diameter <= size.nominal + size.upper_deviation), bool
        )
    return np.asarray(np.abs(diameter - size.nominal) <= NEAR_SIZE + NEAR_SHARE * size.nominal, bool)


def checks(setup: MillHoleSetup, tool: MillTool) -> list[Check]:
    """Exact rules: size, reach, end, grade, seat."""
    own, size = tool.own, setup.feature.diameter.nominal
    straight = plunges(setup, own["diameter"])
    runs = (size >= LEAST_RATIO * own["diameter"]) & (size <= widest(setup, own["diameter"], own["corner"]))
    return [
        ("size", "too wide or too small to run round in the hole", straight | runs),
        ("reach", "does not reach the depth", own["reach"] >= setup.depth - 1e-9),
        ("plunge", "its end does not plunge that deep", ~straight | (own["plunge"] >= setup.depth - 1e-9)),
        ("seat", "its holder does not fit this machine", tool.seats),
        ("starting_speed", "not run in this material", ~np.isnan(tool.speed_high)),
        ("grade", "grade is not for this material", tool.serves > 0),
        ("diamond", "diamond wears fast in ferrous metal", tool.burns <= 0),
    ]


def enter(setup: MillHoleSetup, stock: MillStock) -> Entrants:
    """Every mill in every chuck that takes it and sits here."""
    setup = neutral(setup)
    left, right = stock.places
    tool = mill_tools(setup, stock, left, right)
    fits, refused = sieve(checks(setup, tool), len(left))
    return Entrants(stock.parts, (left[fits], right[fits]), tool.take(fits), refused, len(fits))


def tries(setup: MillHoleSetup, field: Entrants, best: Best, part: slice) -> Iterator[Try]:
    """Straight down what is as wide as the hole; the rest down a helix at the usual pitch and at others, at last with a last turn."""
    setup, places = neutral(setup), np.arange(part.start, part.stop)
    straight = plunges(setup, field.tool.own["diameter"][places, 0])
    if straight.any():
        yield places[straight], _standing(setup.with_settings(path=Descent.PLUNGE), field, places[straight])
    round_ = places[~straight]
    if not len(round_):
        return
    asked = setup.feature.diameter.tolerance
    lasts = (0.0, LAST_TURN) if (asked is not None and asked <= LAST_FROM) or setup.feature.roughness is not None else (0.0,)
    for finish in lasts:
        rows = round_ if finish == 0 else round_[~best.feasible[round_]]
        for times in PITCHES:
            if times != 1.0 and len(rows) > MOST_PITCHED:  # of many only those that lead are tried at further pitches
                rows = rows[np.argsort(best.score[rows], kind="stable")[:MOST_PITCHED]]
            if len(rows):
                yield rows, _standing(setup.with_settings(pitch_times=times, finish=finish), field, rows)


def _standing(setup: MillHoleSetup, field: Entrants, rows: Any) -> MillHoleSetup:
    return replace(setup, **field.tool_of(int(rows[0])))


def feeds(setup: MillHoleSetup, tool: MillTool) -> tuple[Array, Array]:
    """Feeds over the slot's window and above, and the least."""
    span = tool.feed_high - tool.feed_low
    return np.maximum(tool.feed_low + FEED_PLACES * span, FEED_STEP), np.maximum(LEAST_FEED * tool.feed_low, FEED_STEP)


def speeds(setup: MillHoleSetup, tool: MillTool, feed: Array) -> Array:
    """Speeds [m/min] at which the goal would run at these feeds, (entries, feeds, 1)."""
    middle = (tool.speed_low + tool.speed_high) / 2.0 * tool.speed_factor
    x = MODEL.numbers(setup, tool, middle, feed, setup.silent)
    wanted = goal_speed(setup, x, middle, tool.taylor_exponent)
    speed = within_book(setup, wanted, LEAST_SPEED * x.book_low, x.book_high)
    power = x.power / np.maximum(x.available, 1e-9) * speed / middle
    return np.asarray(np.broadcast_to(speed * np.minimum(1.0, POWER_MARGIN / np.maximum(power, 1e-9)), feed.shape))


HEADS = ("way", "pitch", "ramp", "IT", "Ra")
FURTHER = ("push off the wall", "torque", "position, zone Ø", "mills for 100 holes", "pockets")


def columns(x: Numbers) -> tuple[Display, ...]:
    """The way down, pitch and ramp, what it reaches; and further what pushes it and what it costs."""
    down, finish = helical(x), x.setup.settings.finish > 0
    way = "plunged" if not down else "helix, last turn" if finish else "helix"
    grade = tolerance_grade(float(np.max(x.width)), x.setup.feature.diameter.nominal)
    return (
        Display(way, way),
        display(float(np.max(x.pitch)), "length", False) if down else Display("–", "–"),
        display(float(np.max(x.ramp)), "angle", False) if down else Display("–", "–"),
        Display(f"IT{grade:.0f}", f"IT{grade:.0f}"),
        display(float(np.max(x.roughness)), "small_length", False),
        display(float(np.max(x.push_off)), "force") if down else Display("–", "–"),
        display(float(np.max(x.torque)), "torque"),
        display(float(np.max(x.position)), "length"),
        display(100.0 * float(np.min(x.edge_cost / x.holes)), "money", False),
        Display("1", "1"),
    )


def patch(setup: MillHoleSetup) -> dict[str, str]:
    """The settings of its own that a candidate sets: the pitch that was ranked, and the offset that brings the size."""
    s = setup.settings
    found = {"path": s.path.value, "finish": write(s.finish, "length"), "sense": s.sense.value, "pitch": "", "offset": "0 mm"}
    if s.path is Descent.HELIX:
        x = MODEL.quickly(setup)
        found["pitch"] = write(float(x.pitch[0]), "length")
        found["offset"] = write(round(float(x.size_error[0]) / 2.0, 3), "length")
    return found


CONTEST = Contest(
    MODEL,
    enter,
    tries,
    as_tried,
    feeds,
    speeds,
    frozenset({"settings.pitch", "settings.finish"}),
    FEED_STEP,
    heads=HEADS,
    columns=columns,
    patch=patch,
    further=FURTHER,
    apart=one_of,
)

"""What the rankings of narrow edges share: exact rules, entries by way, feeds of the width's window, speeds by life and power."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Sequence
from dataclasses import replace
from typing import Any

import numpy as np

from cutting.advice.best import Best
from cutting.advice.contest import Array, Check, Entrants, Try, sieve
from cutting.advice.goal_speed import goal_speed, within_book
from cutting.advice.search import alike
from cutting.operations.frame.model import Model
from cutting.operations.slots.shared.cut import SLOWER
from cutting.operations.slots.shared.setup import SlotSetup
from cutting.operations.slots.shared.tool import SlotTool, slot_tools
from cutting.operations.slots.shared.written import holding_speed
from cutting.tooling.fitting import tallest_blade
from cutting.tooling.roles import Index
from cutting.tooling.slot_stock import SlotStock

FEED_PLACES = np.array([0.02, 0.06, 0.3, 0.6, 0.92])  # of the feed window
SPEED_SHARES = np.array([1.0, 0.8])  # of the goal's own speed
FEED_STEP = 0.001  # mm/rev, as finely as a narrow edge's feed is set
LEAST_SPEED = 0.3  # × the book's speed
POWER_MARGIN, POWER_SURE = 0.97, 0.6
GRIP_MARGIN = 0.98


def usual_checks(setup: SlotSetup, stock: SlotStock, tool: SlotTool) -> list[Check]:
    """Grade and geometry for the metal's ISO 513 letter, a known starting speed, and a shank that the machine seats."""
    letter, machine = setup.work.material.group.letter, setup.machine
    return [
        ("grade", f"grade is not for group {letter}", tool.serves),
        ("geometry", f"geometry is not for group {letter}", tool.suits),
        ("condition", "brittle edges in a worn spindle", ~tool.brittle | (machine.condition != "worn")),
        ("starting_speed", "no starting speed for this tool material in this group", ~np.isnan(tool.reference_speed)),
        ("seat", "too tall for the machine's turret or tool post", (machine.shank_height <= 0) | (tool.height <= tallest_blade(machine))),
    ]


def neutral(setup: Any) -> Any:
    """The set-up without what belongs to its present tool. Raises `CuttingError` for what cannot be with any tool."""
    own = {name: None for name in ("overhang", "measured_width") if hasattr(setup.settings, name)}
    # a cut to start from; what is tried replaces it
    found = setup.with_cut(100.0, 0.05).with_settings(**own)
    found.check_case()
    return found


def entered(setup: SlotSetup, stock: SlotStock, checks: Any, ways: Any = None) -> Entrants:
    """Every pair that satisfies `checks(tool)`, in each of the `ways(tool)`: names with where they may be used."""
    left, right = stock.places
    tool = slot_tools(setup, stock, left, right)
    fits, refused = sieve(checks(tool), len(left))
    left, right, tool = left[fits], right[fits], tool.take(fits)
    names: Sequence[str] = ()
    if ways is not None:
        open_to = [(name, np.flatnonzero(np.broadcast_to(np.asarray(mask).reshape(-1), left.shape))) for name, mask in ways(tool)]
        every = np.concatenate([rows for _, rows in open_to]) if open_to else np.zeros(0, np.intp)
        names = tuple(name for name, rows in open_to for _ in rows)
        left, right, tool = left[every], right[every], tool.take(every)
    return Entrants(stock.parts, (left, right), tool, refused, len(fits), tuple(names))


def standing_for(setup: Any, field: Entrants, rows: Index) -> Any:
    """The set-up with the first of some entries, which stands for them all."""
    return replace(setup, **field.tool_of(int(rows[0])))


def by_width(field: Entrants, part: slice) -> Iterator[tuple[str, Index]]:
    """Entries of a part that share way and width."""
    widths, places = field.tool.width[part][:, 0], np.arange(part.start, part.stop)
    ways = np.array([field.way(k) for k in places])
    for way in dict.fromkeys(ways.tolist()):
        for width in np.unique(widths[ways == way]):
            yield way, places[(ways == way) & (widths == width)]


def as_tried(setup: Any, field: Entrants, best: Best, bad: Index) -> Iterator[Try]:
    """Entries once more in the set-ups in which they stand."""
    return alike(best, bad)


def feeds(places: Array = FEED_PLACES, share: float = 1.0) -> Any:
    """Feeds at places over a `share` of the width's window, and the least of them."""

    def found(setup: Any, tool: SlotTool) -> tuple[Array, Array]:
        return np.round(share * (tool.feed_low + places * (tool.feed_high - tool.feed_low)), 3), share * tool.feed_low

    return found


def speeds(model: Model[Any], slower: float = SLOWER) -> Any:
    """Speeds at which an edge lasts as long as the goal wants; `slower` is the share of the turning speed that this kind takes."""

    def found(setup: Any, tool: SlotTool, feed: Array) -> Array:
        return _speeds(model, setup, tool, feed, slower * tool.reference_speed * tool.speed_factor)

    return found


def _speeds(model: Model[Any], setup: Any, tool: SlotTool, feed: Array, usual: Array) -> Array:
    """Speed [m/min] by Taylor from one run at the book's; held by book, grip and power."""
    x = model.numbers(setup, tool, usual, feed, setup.silent)
    wanted = goal_speed(setup, x, usual, tool.taylor_exponent)
    speed = np.broadcast_to(within_book(setup, wanted, LEAST_SPEED * usual, x.book_high), feed.shape)
    # power grows in proportion to speed; far below what the spindle has another run would say the same
    # the torque is the feed's; jaws lose grip as the spindle speeds up
    held = holding_speed(setup, x.torque)
    slower = np.where((held > 0) & np.any(x.grip > 0), GRIP_MARGIN * held / x.gripped_speed * usual, np.inf)
    speed = np.minimum(speed, slower)
    near = x.power / np.maximum(x.available, 1e-9) * np.maximum(speed / usual, 1.0) >= POWER_SURE
    rows = np.flatnonzero(np.broadcast_to(near, feed.shape).any(axis=(1, 2)))
    if len(rows):
        x = model.numbers(setup, tool.take(rows), np.maximum(speed[rows], 1.0), feed[rows], setup.silent)
        speed = speed.copy()
        speed[rows] *= np.minimum(1.0, POWER_MARGIN * x.available / np.maximum(x.power, 1e-9))
    return speed


def masked(names: Iterable[Any], masks: Iterable[Any]) -> list[tuple[str, Any]]:
    """Ways by the words of an enumeration."""
    return [(name.value, mask) for name, mask in zip(names, masks, strict=True)]

"""Which drills and chucks compete for a hole, with pecks only where their flutes would pack."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace
from typing import Any

import numpy as np

from cutting.advice.best import Best
from cutting.advice.contest import Array, Check, Contest, Entrants, Mask, Try, sieve
from cutting.advice.goal_speed import goal_speed, within_book
from cutting.advice.search import alike
from cutting.operations.frame.over_passes import over_passes
from cutting.operations.holes.drill.evaluate import MODEL
from cutting.operations.holes.drill.limits import FLAT_POINT, LEANS, allowances, broken_exit_of, entry_share, exit_share
from cutting.operations.holes.drill.numbers import Numbers, flutes_filled, one_of, packing_of
from cutting.operations.holes.drill.setup import SHARE, DrillSetup, HoleEntry, HoleFeature, Pecks
from cutting.operations.holes.drill.tool import DrillTool, drill_tools
from cutting.operations.holes.shared.layers import layer_numbers
from cutting.operations.holes.shared.reached import tolerance_grade
from cutting.quantities.write import Display, display, write
from cutting.tooling.drill_stock import DrillStock
from cutting.tooling.roles import Index

FEED_PLACES = np.array([0.0, 0.3, 0.6, 0.85])  # of the window that all layers leave
SPEED_SHARES = np.array([1.0])  # slower ones are tried of those that lead, and of those that break a limit
FEED_STEP = 0.005
SHORT = {Pecks.BREAK: "break", Pecks.CLEAR: "clear"}
LEAST_SPEED = 0.35  # × the book's lowest
LEAST_FEED = 0.4
POWER_MARGIN = 0.97
NEAR_SIZE, NEAR_SHARE = 0.03, 0.002  # mm and share of the diameter that a drill may differ where no tolerance is given
# up to so many mm, what a drill may be off where no tolerance is given: most of what ISO 2768-m lets pass (from memory)
GENERAL = ((6.0, 0.08), (30.0, 0.16), (120.0, 0.24), (np.inf, 0.4))
SPOT_DEPTH = 0.05  # mm behind the cone: a spot is the cone alone
SNATCHES = 0.8  # of the diameter: a pilot that a drill of two lips would snatch in (common practice)
BELOW = 0.2  # of its tolerance that a drill may be smaller than its hole: it cuts wide; a reamer may not, it makes its own size
FINEST = 0.005  # mm/rev, below which no feed is tried


def neutral(setup: DrillSetup) -> DrillSetup:
    """The set-up without what belongs to its present tool, slow where entry or exit ask for it. Raises `CuttingError`."""
    f = setup.feature
    entry = 1.0 if f.entry is HoleEntry.SPOTTED else float(entry_share(f.entry_angle, f.entry is HoleEntry.CURVED, 180.0))
    exits = exit_share(False) if broken_exit_of(f) else 1.0
    plain: dict[str, Any] = {"first_peck": None, "next_peck": None, "least_peck": None, "per_layer": ()}
    # a cut that every drill may start from; what is tried replaces it
    found = setup.with_cut(30.0, 0.05).with_settings(pecks=Pecks.NONE, entry_feed=max(entry, SHARE[0]), exit_feed=exits, **plain)
    found.check_case()
    return found


def checks(setup: DrillSetup, stock: DrillStock, tool: DrillTool) -> list[Check]:
    """Exact rules: size, reach, what is there already, grade, seat."""
    f, own = setup.feature, tool.own
    diameter = own["diameter"]
    enlarges, spots, taken = own["type_enlarges"] > 0, own["type_spots"] > 0, diameter - f.pilot
    least, most = allowances(diameter, own["type_reams"] > 0)
    others: list[Check] = [
        ("reach", "does not reach the depth", own["reach"] >= setup.depth - 1e-9),
        ("floor", "its point leaves a cone at the floor", (own["point_angle"] >= FLAT_POINT) | (not f.flat) | f.through),
        (
            "flat",
            "its flat end is for floors and steep faces",
            (own["point_angle"] < FLAT_POINT) | (own["type_enlarges"] > 0) | _wants_flat(f),
        ),
        ("spots", "only spots a hole", ~spots | (setup.depth <= SPOT_DEPTH)),
        ("enlarges", "needs a pre-drilled hole", ~enlarges | (f.pilot > 0)),
        ("allowance", "takes another allowance on the diameter", ~enlarges | ((taken >= least) & (taken <= most))),
        ("snatches", "two lips would snatch in a hole that wide", enlarges | (f.pilot <= SNATCHES * diameter)),
        ("step", "its step is not asked for", (own["step"] <= 0) | _stepped(setup, own)),
        ("seat", "its holder does not fit this machine", tool.seats),
        ("starting_speed", "not run in one of the materials", ~np.isnan(tool.speed_high).any(axis=-1)),
        ("grade", "grade is not for this material", tool.serves.any(axis=-1)),
        ("diamond", "diamond wears fast in ferrous metal", ~tool.burns.any(axis=-1)),
    ]
    able = np.logical_and.reduce(np.broadcast_arrays(*(np.asarray(check[2], bool).reshape(-1) for check in others)))
    return [("size", "another diameter", _of_size(f, diameter, own["type_reams"] > 0, able.reshape(np.shape(diameter)))), *others]


def _of_size(f: HoleFeature, diameter: Array, reams: Mask, able: Mask) -> Mask:
    """Drills that make the hole's size: within its tolerance, or near it where none is given and they are `able` to do the rest."""
    size = f.diameter
    if size.upper_deviation is not None and size.lower_deviation is not None:
        low = size.nominal + size.lower_deviation - np.where(reams, 0.0, BELOW) * (size.tolerance or 0.0) - 1e-6
        return np.asarray((diameter >= low) & (diameter <= size.nominal + size.upper_deviation), bool)
    return _near(np.abs(diameter - size.nominal), size.nominal, able)


def _wants_flat(f: HoleFeature) -> bool:
    """Whether a hole asks for a drill without a point: a flat floor, or a face on which a point would slide off."""
    return (f.flat and not f.through) or f.entry_angle > LEANS[0][0] or f.entry is HoleEntry.CURVED


def _near(off: Array, nominal: float, able: Mask) -> Mask:
    """Drills of the size, or where none that is able has it the nearest that a general tolerance lets pass."""
    fits = np.asarray(off <= NEAR_SIZE + NEAR_SHARE * nominal, bool)
    if (fits & able).any():
        return fits
    return np.asarray(off <= next(part for largest, part in GENERAL if nominal <= largest) + 1e-6, bool)


def _stepped(setup: DrillSetup, own: dict[str, Array]) -> Mask:
    wanted = setup.feature.chamfer
    return np.asarray((wanted > 0) & (own["step"] >= wanted - 1e-9) & (own["step_length"] <= setup.depth + own["diameter"]), bool)


def enter(setup: DrillSetup, stock: DrillStock) -> Entrants:
    """Every drill in every chuck that takes it and sits here."""
    setup = neutral(setup)
    left, right = stock.places
    tool = drill_tools(setup, stock, left, right)
    fits, refused = sieve(checks(setup, stock, tool), len(left))
    return Entrants(stock.parts, (left[fits], right[fits]), tool.take(fits), refused, len(fits))


def tries(setup: DrillSetup, field: Entrants, best: Best, part: slice) -> Iterator[Try]:
    """Without pecks; for those that pack or nearly do, with pecks that break the chips, and with such that clear the flutes.

    What packs does so at any speed and feed: it is not tried, but that a drill which packs in every way shows itself by the last one.
    """
    setup, places = neutral(setup), np.arange(part.start, part.stop)
    if setup.machine.fixed:
        yield places, standing_for(setup.with_settings(pecks=Pecks.NONE), field, places)
        return
    tool, layers = field.tool.take(places), layer_numbers(setup.layers, setup.feature.through)
    crowds: Mask = np.ones(len(places), bool)
    for pecks in Pecks:
        tried = setup.with_settings(pecks=pecks)
        full = packing_of(tried, layers, tool)[0].reshape(-1)
        rows = places[crowds & ((full <= 1.0) | (pecks is Pecks.CLEAR))]
        if pecks is Pecks.NONE:
            crowds = full > flutes_filled(setup)
        if len(rows):
            yield rows, standing_for(tried, field, rows)


def standing_for(setup: DrillSetup, field: Entrants, rows: Index) -> DrillSetup:
    """The set-up with the first of some entries, which stands for them all."""
    return replace(setup, **field.tool_of(int(rows[0])))


def as_tried(setup: Any, field: Entrants, best: Best, bad: Index) -> Iterator[Try]:
    """Entries once more in the set-ups in which they stand."""
    return alike(best, bad)


def feeds(setup: DrillSetup, tool: DrillTool) -> tuple[Array, Array]:
    """Feeds over the window that all layers leave, and the least of them; on a fixed unit its own set."""
    low, high = over_passes(tool.feed_low), over_passes(tool.feed_high, np.minimum)
    low = np.minimum(low, high)
    least = np.maximum(LEAST_FEED * over_passes(tool.feed_low), FINEST)
    if setup.machine.feed_set:  # a unit's own; the feeds of a gearbox are found from the window
        steps = np.array(setup.machine.feed_set)
        return np.broadcast_to(steps, (len(low), len(steps))).copy(), np.full_like(low, steps[0])
    return np.round(low + FEED_PLACES * (high - low), 3), np.minimum(least, low)


def speeds(setup: DrillSetup, tool: DrillTool, feed: Array) -> Array:
    """Speeds at which a drill lasts as long as the goal wants, held by the book of every layer and by power."""
    middle = over_passes((tool.speed_low + tool.speed_high) / 2.0 * tool.speed_factor, np.minimum)
    x = MODEL.numbers(setup, tool, middle, feed, setup.silent)
    wanted = goal_speed(setup, x, middle, over_passes(tool.taylor_exponent, np.minimum))
    speed = within_book(setup, wanted, LEAST_SPEED * over_passes(x.book_low), over_passes(x.book_high, np.minimum))
    power = over_passes(x.power / np.maximum(x.available, 1e-9)) * speed / middle
    return np.asarray(np.broadcast_to(speed * np.minimum(1.0, POWER_MARGIN / np.maximum(power, 1e-9)), feed.shape))


PLACED = ("position, zone Ø", "straightness")  # made by the drill that makes the hole; what opens it follows it
HEADS = ("way", "pecks", "IT", "Ra", "thrust")
FURTHER = ("thrust of the feed's", "torque", "power of the spindle's", *PLACED, "burr, worn", "drills for 100 holes", "pockets")


def columns(x: Numbers) -> tuple[Display, ...]:
    """The way, pecks, what it reaches, thrust; and further what it asks of the machine, where the hole lies and its burr."""
    pecks = x.setup.settings.pecks
    way = "opened" if x.setup.drill.type.enlarges else "in the pilot" if x.setup.feature.pilot > 0 else "from solid"
    said = "–" if pecks is Pecks.NONE else f"{int(np.max(x.pecks))} {SHORT[pecks]}"
    grade = tolerance_grade(float(np.max(x.width)), x.setup.drill.diameter)
    return (
        Display(way, way),
        Display(said, said),
        Display(f"IT{grade:.0f}", f"IT{grade:.0f}"),
        display(float(np.max(x.roughness)), "small_length", False),
        display(float(np.max(x.thrust)), "force", False),
        _of(x.thrust, x.setup.machine.axial_force),
        display(float(np.max(x.torque)), "torque"),
        _of(x.power, x.available),
        display(float(np.max(x.position)), "length"),
        display(float(np.max(x.straightness)), "length"),
        display(float(np.ravel(x.burr)[-1]), "length"),
        display(100.0 * float(np.min(x.edge_cost / x.holes)), "money", False),
        Display("1", "1"),
    )


def _of(asked: Array, given: Any) -> Display:
    """What is asked as a share of what is given, a dash where that is not known."""
    given = np.asarray(given, float)
    said = f"{100.0 * float(np.max(asked / given)):.0f} %" if np.all(given > 0) else "–"
    return Display(said, said)


def patch(setup: DrillSetup) -> dict[str, str]:
    """The settings of its own that a candidate sets."""
    s = setup.settings
    return {"pecks": s.pecks.value, "entry_feed": write(s.entry_feed, "number"), "exit_feed": write(s.exit_feed, "number"),
            "first_peck": "", "next_peck": "", "least_peck": "", "per_layer": ""}  # fmt: skip


BARE = Contest(
    MODEL,
    enter,
    tries,
    as_tried,
    feeds,
    speeds,
    frozenset({"settings.pecks"}),
    FEED_STEP,
    SPEED_SHARES,
    HEADS,
    columns,
    patch,
    further=FURTHER,
    apart=one_of,
)

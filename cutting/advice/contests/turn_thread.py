"""Which threading inserts and holders compete for a thread, in as many passes as it wants."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace
from typing import Any

import numpy as np

from cutting.advice.best import Best
from cutting.advice.candidate import Candidate
from cutting.advice.contest import Array, Check, Contest, Entrants, Try, sieve
from cutting.advice.contests.drill import as_tried, standing_for
from cutting.advice.contests.thread_blank import turned_first
from cutting.advice.contests.thread_ways import FURTHER, HEADS, at_risk, cells, hole_first
from cutting.advice.goal_speed import goal_speed, within_book
from cutting.operations.threads.turn_thread.evaluate import MODEL
from cutting.operations.threads.turn_thread.groove import depths
from cutting.operations.threads.turn_thread.limits import BY_HAND, HARDENS, LEAST_SPEED
from cutting.operations.threads.turn_thread.numbers import Numbers, one_of
from cutting.operations.threads.turn_thread.setup import TurnThreadSettings, TurnThreadSetup
from cutting.operations.threads.turn_thread.tool import ThreadTool, thread_tools
from cutting.quantities.write import display
from cutting.tooling.thread_turn_stock import ThreadTurnStock

PASSES = (1.0, 0.75, 1.35, 1.9)  # of the usual number


def neutral(setup: TurnThreadSetup) -> TurnThreadSetup:
    """The set-up without what belongs to its present tool. Raises `CuttingError`."""
    s = setup.settings
    spring = 0 if setup.work.material.work_hardening > HARDENS else 1
    found = replace(setup, settings=TurnThreadSettings(60.0, infeed=s.infeed, schedule=s.schedule, coolant=s.coolant, spring=spring))
    found.check_case()
    return found


def checks(setup: TurnThreadSetup, tool: ThreadTool) -> list[Check]:
    """Exact rules: form and pitch, side, bore, grade, seat."""
    own = tool.own
    return [
        ("pitch", "cuts another form or pitch", tool.cuts > 0),
        ("side", "turns the other side", tool.side),
        ("bore", "does not enter the bore", (own["holder_internal"] <= 0) | (own["holder_least_bore"] <= setup.there)),
        ("seat", "does not sit on this machine", tool.seats),
        ("starting_speed", "not run in this material", ~np.isnan(tool.speed_high)),
        ("grade", "grade is not for this material", tool.serves > 0),
        ("hand", "a hand against the thread's: it feeds away from the chuck", tool.lean > 0),
    ]


def enter(setup: TurnThreadSetup, stock: ThreadTurnStock) -> Entrants:
    """Every insert in every holder of its seat."""
    setup = neutral(setup)
    left, right = stock.places
    tool = thread_tools(setup, stock, left, right)
    fits, refused = sieve(checks(setup, tool), len(left))
    return Entrants(stock.parts, (left[fits], right[fits]), tool.take(fits), refused, len(fits))


def tries(setup: TurnThreadSetup, field: Entrants, best: Best, part: slice) -> Iterator[Try]:
    """Inserts of one tip and tool material together, as tip and passes are theirs: in the usual number, in fewer, and in more where
    those break something."""
    setup = neutral(setup)
    places = np.arange(part.start, part.stop)
    kinds = np.array([_passes_alike(field.parts["insert"][int(edge)]) for edge in field.edges[places]])
    for kind in dict.fromkeys(kinds.tolist()):
        rows = places[kinds == kind]
        for times in PASSES:
            waiting = rows if times <= 1.0 else rows[~best.feasible[rows]]
            if len(waiting):
                yield waiting, standing_for(setup.with_settings(passes_times=times), field, waiting)  # type: ignore[arg-type]


def _passes_alike(insert: Any) -> str:
    """What tells inserts apart whose passes differ: profile, least pitch of a partial one, tool material."""
    return f"{insert.profile} {insert.full or insert.tip:g} {insert.grade.tool_class}"


def feeds(setup: TurnThreadSetup, tool: ThreadTool) -> tuple[Array, Array]:
    """The lead alone."""
    lead = np.full_like(tool.lean, setup.feature.thread.lead)
    return lead, lead


def speeds(setup: TurnThreadSetup, tool: ThreadTool, feed: Array) -> Array:
    """Speeds [m/min] at which the goal would run, held by the feed drive, the hand at the half nut and the run-out groove."""
    f, machine = setup.feature, setup.machine
    middle = (tool.speed_low + tool.speed_high) / 2.0 * tool.speed_factor
    x = MODEL.numbers(setup, tool, middle, feed, setup.silent)
    most = machine.feed_rate_max / f.thread.lead
    if machine.geared and not f.through:
        most = min(most, BY_HAND)
    elif f.relief > 0:  # the run-out goes with the speed
        room = np.maximum(f.relief - 0.5 * f.thread.pitch, 1e-3)
        most = np.minimum(most, x.spindle_speed * room / np.maximum(x.run_out - 0.5 * f.thread.pitch, 1e-6))
    held = np.pi * f.thread.diameter * np.asarray(most) / 1000.0
    reached = np.pi * f.thread.diameter * x.spindle_speed / 1000.0
    speed = within_book(setup, goal_speed(setup, x, reached, tool.taylor_exponent), LEAST_SPEED * x.book_low, x.book_high)
    return np.asarray(np.broadcast_to(np.minimum(speed, held), feed.shape))


def columns(x: Numbers) -> tuple[Any, ...]:
    """The shared heads."""
    insert = x.setup.insert
    covers = "1 pitch" if insert.full else f"{insert.pitch_low:g}–{insert.pitch_high:g} mm"
    return cells(
        "turned", covers, float(np.min(x.certainty)), at_risk(x), display(float(np.max(x.cutting_force)), "force"),
        insert.hardest, display(100.0 * float(np.min(x.edge_cost / x.threads)), "money", False), display(x.setup.overhang, "length"),
    )  # fmt: skip


def completed(setup: TurnThreadSetup, stock: Any, rows: list[Candidate]) -> list[Candidate]:
    """Drilled and chamfered before, where no bore is there; turned to its blank before, where what stands there is too wide."""
    if not setup.feature.internal:
        return rows or turned_first(setup, stock, BARE)
    return hole_first(setup, stock, rows, lambda name: False, lambda row: "drill, chamfer, turn")


def patch(setup: TurnThreadSetup) -> dict[str, str]:
    """Passes as they were tried; tilt and overhang as the thread wants them."""
    s = setup.settings
    return {"passes": str(depths(setup).size), "infeeds": "", "spring": str(s.spring), "tilt": "", "overhang": ""}


BARE = Contest(
    MODEL,
    enter,
    tries,
    as_tried,
    feeds,
    speeds,
    frozenset({"settings.passes", "settings.infeed"}),
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

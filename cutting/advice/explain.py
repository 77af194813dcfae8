"""The one reason why a candidate is not first: the difference that costs it the most against the winner, in both rows' own numbers."""

from __future__ import annotations

from cutting.advice.candidate import Candidate
from cutting.advice.round_tools import coating_reason
from cutting.advice.score import raw_score, weighed
from cutting.operations.frame.outcome import Limit
from cutting.operations.frame.risk import shared_risk
from cutting.operations.frame.setup import BaseSetup, Goal
from cutting.quantities.kinds import currency
from cutting.quantities.write import Display, write

GOALS = {Goal.CHEAPEST: "cheapest", Goal.FASTEST: "fastest", Goal.MOST_SECURE: "most reliable"}
NOTHING = 0.004  # share of the whole below which two rows are alike
LEAST_TOLD = 0.001  # money a piece, below which nothing is told of it
ALIKE = "equal within model accuracy"
LESS = 0.98  # of the winner's feed or speed, from which it is said that it is lower
Driver = tuple[float, str]
WORTH_SAYING = 0.01  # of the price
SAME_SECURITY = 0.005  # two rows within it are as secure
LESS_SECURE = 0.02  # from which security is a reason
SAME_WIDTH = 0.05  # mm
DEARER = 1.1  # times the edge cost, from which it is a reason


def why_not_first(row: Candidate, first: Candidate, setup: BaseSetup, beside: str = "its kerf costs {} more per piece") -> str:
    """One short reason, in the words of the bench; `beside` those for money beside the operation."""
    goal = setup.goal
    if row is first:
        return f"first: {GOALS[goal]}" + (f"; {_close(row)}" if row.close else f"; {_strain(row)}" if row.strained else "")
    if row.close and not first.close:
        return _close(row)
    if row.beside - first.beside > max(WORTH_SAYING * first.cost, row.cost - first.cost):
        return beside.format(f"{row.beside - first.beside:.3f} {currency()}")
    if goal is Goal.MOST_SECURE and row.secure < first.secure - SAME_SECURITY:
        if row.chip_index < first.chip_index - 5:
            return f"chip index {row.chip_index:.0f} against {first.chip_index:.0f}"
        return f"more scatter of life: {row.secure:.0%} secure against {first.secure:.0%}"
    own, best = (raw_score(setup, one) for one in (row, first))
    saved = 1.0 - float(weighed(own, 0.0, row.risk) / weighed(best, 0.0, first.risk))  # with what each risks
    if row.side_use and not first.side_use and saved > 0:
        return f"{row.grade} is not meant for this metal; saves {saved:.1%} only"
    if row.unusual and not first.unusual and saved > 0:
        return f"{row.unusual}; saves {saved:.1%} only"
    weight, reason = max(_drivers(row, first, setup), key=lambda pair: pair[0])
    return reason if weight > NOTHING else ALIKE


def _strain(row: Candidate) -> str:
    """The soft limit that it breaks."""
    return f"{row.strained} at {row.strain:.0%} of its limit"


def _close(row: Candidate) -> str:
    """The hard limit that holds less surely than is asked."""
    return f"{row.close} holds in {100 * row.chance:.0f} of 100"


def _drivers(row: Candidate, first: Candidate, setup: BaseSetup) -> list[Driver]:
    """Time, edges and what the tool risks, each with its weight as a share of what the goal counts."""
    slower = row.seconds - first.seconds
    risked = [(float(shared_risk(row.risk) - shared_risk(first.risk)), _strain(row))] if row.strained else []
    if setup.goal is Goal.FASTEST:
        return [(slower / first.seconds, _slower(row, first, setup)), *risked]
    money = setup.machine.rate / 3600.0
    edge = row.edge_cost / row.change_parts - first.edge_cost / first.change_parts
    found = [(slower * money / first.cost, _slower(row, first, setup)), (edge / first.cost, _edges(row, first)), *risked]
    if (left := row.left_over - first.left_over) > 0:
        pieces = setup.batch.pieces
        found.append((left / first.cost, f"{pieces} pieces leave most of its edge: {left:.3f} {currency()} per piece of it is charged"))
    if row.secure < first.secure - LESS_SECURE:
        found.append((NOTHING + 1e-4, f"less secure: {row.secure:.0%} against {first.secure:.0%}"))
    return found


def _slower(row: Candidate, first: Candidate, setup: BaseSetup) -> str:
    """What takes it longer."""
    seconds = f"{row.seconds - first.seconds:.1f} s"
    if row.way and row.way != first.way:
        return f"{row.way} takes {seconds} more than {first.way or first.designation}"
    if row.passes > first.passes:
        return f"{row.passes} {'strokes' if row.way or row.depth_of_cut <= 0 else 'passes'} instead of {first.passes}"
    feed, speed = row.feed / first.feed, row.speed_reached / first.speed_reached
    if feed < LESS and feed <= speed:
        narrow = f"{row.width:g} mm wide: " if row.width and row.width < first.width - SAME_WIDTH else ""
        return f"{narrow}feed {1 - feed:.0%} lower{_held(row.holds_feed)}"
    if speed < LESS:
        held = row.holds_speed or (row.grade if row.grade != first.grade else "")
        if row.grade != first.grade and row.coating != first.coating:  # of round tools the coating tells why
            held = f"{row.grade}, {why}" if (why := coating_reason(row.coating, setup.work.material.group.letter)) else held
        return f"speed {1 - speed:.0%} lower{_held(held)}"
    own, best = _count(row.change_parts), _count(first.change_parts)
    if row.change_parts < first.change_parts and own != best:
        return f"{seconds} slower: its edge is changed every {own} pieces, not {best}"
    return f"{seconds} slower"


def _held(limit: str) -> str:
    return f": {limit}" if limit else ""


def _edges(row: Candidate, first: Candidate) -> str:
    """What its edges cost more."""
    own, best = _count(row.change_parts), _count(first.change_parts)
    if row.edge_cost > first.edge_cost * DEARER:
        edges = "1 edge" if row.edges == 1 else f"{row.edges} edges"
        return f"edge costs more: {row.edge_cost:.2f} with {edges}, not {first.edge_cost:.2f}"
    if row.change_parts < first.change_parts and own != best:
        return f"fewer pieces per edge: {own} against {best}"
    more = row.edge_cost / row.change_parts - first.edge_cost / first.change_parts
    return f"edges cost {more:.3f} {currency()} more per piece" if more >= LEAST_TOLD else ALIKE


def _count(parts: float) -> str:
    """Pieces as they are told apart: a tenth counts below ten."""
    return f"{parts:.1f}".removesuffix(".0") if parts < 10 else f"{parts:.0f}"


def missed_by(limit: Limit, feed: float, feed_kind: str, speed: float, more: str = "") -> Display:
    """A near miss in numbers: `finish Ra 1.02 µm at 0.06 mm/rev, 180 m/min; asked ≤ 0.8`."""

    def said(side: str) -> str:
        at = ", ".join(word for word in (write(feed, feed_kind, side), write(speed, "cutting_speed", side), more) if word)
        value, bound = getattr(limit.value_display, side), getattr(limit.bound_display, side)
        chance = "" if limit.broken else f": that holds in {100 * limit.holds:.0f} of 100 runs, {100 * limit.asked:.0f} are required"
        return f"{limit.label.split(',')[0]} {value} at {at}; asked {bound}{chance}"

    return Display(said("metric"), said("inch"))

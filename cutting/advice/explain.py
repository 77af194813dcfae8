"""The one reason why a candidate is not first: the driver that costs it the most against the winner."""

from __future__ import annotations

from cutting.advice.candidate import Candidate
from cutting.operations.frame.outcome import Limit
from cutting.operations.frame.setup import Goal
from cutting.quantities.kinds import currency
from cutting.quantities.write import Display, write

GOALS = {Goal.CHEAPEST: "cheapest", Goal.FASTEST: "fastest", Goal.MOST_SECURE: "most secure"}


def why_not_first(row: Candidate, first: Candidate, goal: Goal) -> str:
    """One short reason, in the words of the bench."""
    if row is first:
        return f"first: {GOALS[goal]}"
    if own := _of_narrow_edges(row, first):
        return own
    if goal is Goal.MOST_SECURE and row.secure < first.secure - 0.005:
        if row.chip_index < first.chip_index - 5:
            return f"chip index {row.chip_index:.0f} against {first.chip_index:.0f}"
        return f"more scatter of life: {row.secure:.0%} secure"
    drivers = _drivers(row, first)
    weight, reason = max(drivers, key=lambda pair: pair[0])
    if weight <= 0.004:
        return "as good within the model's band"
    return reason


def _of_narrow_edges(row: Candidate, first: Candidate) -> str:
    """Kerf, way, a narrower edge or a slower grade, where one of them is the reason; blank otherwise."""
    if row.beside - first.beside > max(0.01 * first.cost, row.cost - first.cost):
        return f"its kerf costs {row.beside - first.beside:.3f} {currency()} more a piece"
    slower = row.seconds / first.seconds - 1.0
    if row.way and row.way != first.way and slower > 0.004:
        return f"{row.way} takes {row.seconds - first.seconds:.1f} s more than {first.way}"
    if not row.width:
        return ""
    if slower > 0.02 and row.width < first.width - 0.05 and row.feed < 0.97 * first.feed:
        return f"{row.width:g} mm wide: feed {1 - row.feed / first.feed:.0%} lower"
    if slower > 0.004 and row.grade != first.grade and row.cutting_speed < 0.98 * first.cutting_speed:
        return f"speed {1 - row.cutting_speed / first.cutting_speed:.0%} lower: {row.grade}"
    return ""


def _count(parts: float) -> str:
    """Pieces as they are told apart: a tenth counts below ten."""
    return f"{parts:.1f}".removesuffix(".0") if parts < 10 else f"{parts:.0f}"


def missed_by(limit: Limit, feed: float, feed_kind: str, speed: float, more: str = "") -> Display:
    """A near miss in numbers: `finish Ra 1.02 µm at 0.06 mm/rev, 180 m/min; asked ≤ 0.8`."""

    def said(side: str) -> str:
        at = ", ".join(word for word in (write(feed, feed_kind, side), write(speed, "cutting_speed", side), more) if word)
        value, bound = getattr(limit.value_display, side), getattr(limit.bound_display, side)
        return f"{limit.label.split(',')[0]} {value} at {at}; asked {bound}"

    return Display(said("metric"), said("inch"))


def _drivers(row: Candidate, first: Candidate) -> list[tuple[float, str]]:
    """Each difference with its weight as a share; the cutting ones share the time they explain."""
    found: list[tuple[float, str]] = [(0.0, "")]
    held = row.binding  # the limit that holds it
    slower = row.seconds / first.seconds - 1
    if slower > 0.004:
        if row.passes > first.passes:
            found.append((slower, f"{row.passes} passes instead of {first.passes}"))
        elif row.feed < first.feed * 0.97 and (row.feed / first.feed <= row.cutting_speed / first.cutting_speed):
            found.append((slower, f"feed {1 - row.feed / first.feed:.0%} lower: {held}"))
        elif row.cutting_speed < first.cutting_speed * 0.98:
            found.append((slower, f"speed {1 - row.cutting_speed / first.cutting_speed:.0%} lower: {held}"))
        else:
            found.append((slower, f"{row.seconds - first.seconds:.1f} s slower: {held}"))
    edge = row.edge_cost / row.change_parts - first.edge_cost / first.change_parts
    if edge > 0:
        own, best = _count(row.change_parts), _count(first.change_parts)
        if row.edge_cost > first.edge_cost * 1.1:
            edges = "1 edge" if row.edges == 1 else f"{row.edges} edges"
            found.append((edge / first.cost, f"dearer edge: {row.edge_cost:.2f} with {edges}"))
        elif row.change_parts < first.change_parts and own != best:
            found.append((edge / first.cost, f"fewer pieces per edge: {own} against {best}"))
        else:
            found.append((edge / first.cost, f"edges cost {edge:.3f} {currency()} more a piece"))
    if row.secure < first.secure - 0.02:
        found.append((0.0041, f"less secure: {row.secure:.0%}"))
    return found

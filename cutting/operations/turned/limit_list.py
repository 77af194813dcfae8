"""The limits of a set-up as a person reads them: value, bounds, utilisation, working; the closest first."""

from __future__ import annotations

from typing import Any

import numpy as np

from cutting.chips.window import span_at_depth, window_sides
from cutting.nomenclature import source_label
from cutting.operations.frame.outcome import Limit, Severity
from cutting.operations.turned import limits as rules
from cutting.operations.turned.case import Case, Cutter
from cutting.operations.turned.physics import Cut
from cutting.quantities.write import Display, display, write
from cutting.working import Recorder


def limit_list(case: Case, cutter: Cutter, done: Cut, record: Recorder) -> tuple[Limit, ...]:
    """All limits that apply, the closest first."""
    shown = [_limit(rule, case, cutter, done, record) for rule in rules.RULES if rule.applies(case)]
    found = [limit for limit in shown if limit.upper != np.inf]  # a supplier's book that is silent bounds nothing
    return tuple(sorted(found, key=lambda limit: (not _breaks_hard(limit), -limit.utilisation)))


def _breaks_hard(limit: Limit) -> bool:
    return limit.broken and limit.severity is Severity.HARD


def _limit(rule: rules.Rule, case: Case, cutter: Cutter, done: Cut, record: Recorder) -> Limit:
    value, lower, upper = rule.read(case, cutter, done)
    used = np.atleast_1d(rules.utilisation(rule, value, lower, upper))
    worst = int(np.argmax(used))

    def at(number: Any) -> float | None:
        """The number of the worst pass, where it differs from pass to pass."""
        if number is None:
            return None
        flat = np.ravel(number)
        return float(flat[worst] if flat.size > 1 else flat[0])

    v, lo, hi = at(value), at(lower), at(upper)
    assert v is not None
    kind, label = rule.kind, rule.label
    if rule.name == "chip_window":
        v, lo, hi, kind, label = _window_numbers(case, cutter, done)
    severity = rule.severity
    if rule.name in rules.BOOK_RULES and (not case.setup.house.never_above_book or v <= (hi or v)):
        severity = Severity.SOFT  # below the book is free, above it by the house rule
    return Limit(
        rule.name,
        label,
        kind,
        rule.bound,
        v,
        lo,
        hi,
        display(v, kind),
        _bound_display(lo, hi, kind),
        float(used[worst]),
        severity,
        _source(rule, case),
        rule.why,
        (),
        record.trail(*rule.working),
    )


def _source(rule: rules.Rule, case: Case) -> str:
    if rule.name in rules.BOOK_RULES:
        group = case.setup.work.material.group.number
        for window in case.setup.insert.book:
            if window.group == group:
                return window.source or "the shop's supplier, entered by the user"
    return source_label(rule.source)


def _window_numbers(case: Case, cutter: Cutter, done: Cut) -> tuple[float, float | None, float | None, str, str]:
    """The window as the user reads it: feed span at this depth, or depth span where the depth is outside."""
    sides = window_sides(case.setup.insert.geometry.window)
    across, along = float(done.window_feed_scale.ravel()[-1]), float(np.ravel(done.window_depth_scale)[-1])
    depth = float(np.ravel(done.depth_of_cut)[0])
    span = span_at_depth(sides, depth, across, along)
    if span:
        return float(np.ravel(done.feed_per_rev)[0]), *span, "feed_per_rev", "chip window"
    low, high = (bound([p[1] for p in sides.hull]) * along for bound in (min, max))
    return depth, low, high, "length", "chip window"


def _bound_display(lower: float | None, upper: float | None, kind: str) -> Display:
    if lower is not None and upper is not None:
        return Display(*(f"{write(lower, kind, s, False)} – {write(upper, kind, s, False)}" for s in ("metric", "inch")))
    if upper is not None:
        return Display(*(f"≤ {write(upper, kind, s, False)}" for s in ("metric", "inch")))
    return Display(*(f"≥ {write(lower or 0, kind, s, False)}" for s in ("metric", "inch")))

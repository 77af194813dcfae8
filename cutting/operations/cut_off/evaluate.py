"""One cut-off to its outcome: results, limits with remedies, the chip in its slot, warnings, and the way over diameter."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace
from typing import Any

import numpy as np

from cutting.errors import CuttingError, UnknownName
from cutting.nomenclature import source_label
from cutting.operations.cut_off import limits as rules
from cutting.operations.cut_off.cautions import cautions
from cutting.operations.cut_off.numbers import Numbers, numbers
from cutting.operations.cut_off.setup import CutOffSetup
from cutting.operations.cut_off.simulation import CutOff
from cutting.operations.outcome import Bound, ChipVerdict, Limit, Outcome, Pass, Remedy, Severity, Value, shown
from cutting.quantities.write import Display, display, write
from cutting.working import Recorder, Silent

LIFE_BAND, FORCE_BAND, FACE_BAND = 2.0, 0.25, 0.5


def evaluate(setup: CutOffSetup, with_remedies: bool = True, crib: Any = None) -> Outcome:
    """The outcome of a cut-off. Raises `CuttingError` for inputs that cannot be."""
    record = Recorder()
    x = numbers(setup, record)
    found = _limits(x, record)
    if with_remedies:
        found = tuple(replace(one, remedies=remedies_for(one, x)) if one.broken or k == 0 else one for k, one in enumerate(found))
    chip = _chip(x)
    rim = Pass(
        1, setup.feature.diameter, setup.feature.bore, setup.depth, float(x.run.spindle_speed[0]), float(x.run.cutting_speed[0]),
        setup.settings.feed_per_rev, x.run.total_seconds, chip, float(x.run.feed_force.max()), 0.0,
    )  # fmt: skip
    return Outcome(setup.operation, _results(x, record), found, (rim,), chip, tuple(cautions(x)), (), _scene(x))


def explore(setup: CutOffSetup) -> CutOff:
    """The map of a cut-off: everything over diameter. Raises `CuttingError`."""
    return numbers(setup, Silent()).run


def relax(setup: CutOffSetup, name: str, crib: Any = None) -> tuple[Remedy, ...]:
    """What would move one limit. Raises `UnknownName` for a limit that does not apply."""
    x = numbers(setup, Silent())
    found = {one.name: one for one in _limits(x, Recorder())}
    if name not in found:
        raise UnknownName("limit", f"no limit is called '{name}' here.", None, tuple(found))
    return remedies_for(found[name], x)


def _limits(x: Numbers, record: Recorder) -> tuple[Limit, ...]:
    found = []
    for rule in rules.RULES:
        if not rule.applies(x):
            continue
        value, low, high = rule.read(x)
        severity = _severity(rule, x)
        found.append(
            Limit(
                rule.name,
                rule.label,
                rule.kind,
                rule.bound,
                float(value),
                low,
                high,
                display(value, rule.kind),
                _bounds(low, high, rule.kind),
                rules.utilisation(rule, value, low, high),
                severity,
                source_label(rule.source),
                rule.why,
                (),
                record.trail(*rule.working),
            )
        )
    return tuple(sorted(found, key=lambda one: (not (one.broken and one.severity is Severity.HARD), -one.utilisation)))


def _severity(rule: rules.Rule, x: Numbers) -> Severity:
    """Above the book is a matter of the house rule."""
    return Severity.SOFT if rule.name == "book_speed" and not x.setup.house.never_above_book else rule.severity


def _bounds(low: float | None, high: float | None, kind: str) -> Display:
    if low is not None and high is not None:
        return Display(*(f"{write(low, kind, s, False)} – {write(high, kind, s, False)}" for s in ("metric", "inch")))
    sign, bound = ("≤", high) if high is not None else ("≥", low or 0.0)
    return Display(*(f"{sign} {write(float(bound or 0.0), kind, s, False)}" for s in ("metric", "inch")))


def _used(x: Numbers, name: str) -> float:
    rule = next(rule for rule in rules.RULES if rule.name == name)
    return rules.utilisation(rule, *rule.read(x)) if rule.applies(x) else 0.0


def _sound(x: Numbers) -> bool:
    hard = (rule for rule in rules.RULES if _severity(rule, x) is Severity.HARD and rule.applies(x))
    return all(rules.utilisation(rule, *rule.read(x)) <= 1.0 + 1e-9 for rule in hard)


def remedies_for(limit: Limit, x: Numbers) -> tuple[Remedy, ...]:
    """Up to three changes, run and found to help; sound ones first, then the cheapest."""
    tried = []
    for text, patch, changed in _changes(x.setup):
        try:
            then = numbers(changed, Silent())
        except CuttingError:
            continue
        used = _used(then, limit.name)
        if used < 0.97 * limit.utilisation:
            tried.append((not _sound(then), used > 1.0, then.cost, text, patch, used, then))
    tried.sort(key=lambda one: one[:3])
    return tuple(
        Remedy(
            Display(text, text),
            Display(*(
                f"{limit.label.split(',')[0]} {limit.utilisation:.0%} → {used:.0%} of its bound, {then.seconds - x.seconds:+.1f} s, "
                f"{then.cost - x.cost:+.2f} €".replace("-", "−"),
            ) * 2),
            patch,
        )
        for _, _, _, text, patch, used, then in tried[:3]
    )  # fmt: skip


def _changes(setup: CutOffSetup) -> Iterator[tuple[str, dict[str, Any], CutOffSetup]]:
    s, f, h = setup.settings, setup.feature, setup.holding
    for share in (0.6, 0.75, 0.9, 1.15, 1.3, 1.6):
        feed = round(max(s.feed_per_rev * share, 0.01), 3)
        yield f"feed {s.feed_per_rev:g} → {feed:g} mm/rev", {"settings": {"feed_per_rev": feed}}, setup.with_settings(feed_per_rev=feed)
    for share in (0.7, 0.85):
        speed = round(s.cutting_speed * share)
        yield (
            f"speed {s.cutting_speed:.0f} → {speed} m/min",
            {"settings": {"cutting_speed": speed}},
            setup.with_settings(cutting_speed=speed),
        )
    shortest = round(max(setup.depth + 1.0, 3.0), 1)
    if setup.overhang > 1.05 * shortest:
        text = f"overhang {setup.overhang:g} → {shortest:g} mm"
        yield text, {"settings": {"overhang": f"{shortest:g} mm"}}, setup.with_settings(overhang=shortest)
    near = round(max(0.3 * f.distance_from_chuck, setup.insert.width + 1.0), 1)
    if f.distance_from_chuck > 1.2 * near:
        moved = replace(setup, feature=replace(f, distance_from_chuck=near))
        yield (
            f"cut {f.distance_from_chuck:g} → {near:g} mm in front of the collet",
            {"feature": {"distance_from_chuck": f"{near:g} mm"}},
            moved,
        )
    for name, text in (
        ("sub_spindle", "sub-spindle holds the part"),
        ("y_axis", "blade turned by the Y axis"),
        ("guide_bush", "guide bush at the cut"),
    ):
        if not getattr(h, name):
            yield text, {"holding": {name: True}}, replace(setup, holding=replace(h, **{name: True}))
    if s.centre_height:
        yield "tip on centre", {"settings": {"centre_height": "0 mm"}}, setup.with_settings(centre_height=0.0)
    if s.lean:
        yield "blade squared up", {"settings": {"lean": 0}}, setup.with_settings(lean=0.0)


def _results(x: Numbers, record: Recorder) -> dict[str, Value]:
    def banded(name: str, label: str, value: float, kind: str, share: float, *trail: str) -> Value:
        return shown(name, label, value, kind, "model", (value * (1 - share), value * (1 + share)), record.trail(*trail))

    def halved(name: str, label: str, value: float, kind: str) -> Value:
        return shown(name, label, value, kind, "model", (value / LIFE_BAND, value * LIFE_BAND), record.trail("tool_life", "weibull_shape"))

    run = x.run
    edge_share = x.edge_cost / x.change_parts
    found = [
        shown("operation_time", "this operation", x.seconds, "duration", "model", (0.97 * x.seconds, 1.05 * x.seconds)),
        shown("operation_cost", "cost", x.cost, "money", "model", (x.cost - edge_share / 2, x.cost + edge_share)),
        halved("median_parts", "edge lasts, pieces", x.median_parts, "count"),
        halved("change_parts", "change edge every", x.change_parts, "count"),
        halved("tool_life", "life in cut", x.tool_life, "life"),
        shown("secure", "secure", 100 * x.secure, "share", "rule", None, record.trail("weibull_shape")),
        banded("cutting_force", "cutting force", float(run.cutting_force[0]), "force", FORCE_BAND, "specific_force", "cutting_force"),
        banded("feed_force", "against the plunge", float(run.feed_force[0]), "force", 0.4, "feed_force"),
        banded("side_force", "to the side", float(run.side_force[0]), "force", 0.4, "feed_force", "side_force"),
        banded("flatness", "dish of the face", 1000 * run.flatness, "small_length", FACE_BAND, "side_force", "deflection"),
        banded("pip_on_part", "pip on the part", run.pip_on_part, "length", FACE_BAND),
        banded("pip_on_bar", "pip on the bar", run.pip_on_bar, "length", FACE_BAND),
        banded("break_off_diameter", "falls at", run.break_off_diameter, "length", FACE_BAND),
        shown("clamp_diameter", "clamp acts below", run.clamp_diameter, "length", "exact"),
        shown("spindle_speed", "spindle speed at the rim", float(run.spindle_speed[0]), "spindle_speed", "exact"),
        shown("y_gain", "turned by a Y axis, stiffer by", x.y_gain, "number", "model"),
    ]
    if x.kerf is not None:
        found += [
            shown("kerf_per_piece", "kerf a piece", x.kerf.kerf_per_piece, "money", "exact"),
            shown("kerf_per_year", "kerf a year", x.kerf.kerf_per_year, "money", "exact"),
            shown("blank_per_piece", "bar a piece, all told", x.kerf.blank_per_piece, "money", "exact"),
            shown("pieces_per_bar", "pieces per bar", x.kerf.pieces_per_bar, "count", "exact"),
            shown("remnant", "remnant", x.kerf.remnant, "length", "exact"),
        ]
    return {value.name: value for value in found}


def _chip(x: Numbers) -> ChipVerdict:
    """A cut-off chip is curled sideways narrower than its slot and rolls up as a spiral; fed too little it strings, too much it packs."""
    setup = x.setup
    place = rules.utilisation(_FEED_RULE, *_FEED_RULE.read(x))
    deep = setup.depth / setup.insert.width
    jet = (setup.machine.pressure(setup.settings.coolant) or 0.0) >= 20
    crowded = max(0.0, deep - (9.0 if jet else 6.0)) * 5.0 * (0.4 + setup.work.material.ductility)
    index = float(np.clip(np.interp(place, [0, 0.6, 1.0, 1.5], [96, 90, 68, 25]) - crowded, 0, 100))
    thin = setup.settings.feed_per_rev < sum(x.feeds) / 2
    if place <= 1.0 and crowded < 25:
        form = ("3.1", "spiral", "short", "breaks", "rolled up like a watch spring, narrower than the slot")
    elif place > 1.0 and thin:
        form = ("1.3", "ribbon", "snarled", "strings", "too little feed for this width: the chip is not curled narrower than the slot")
    else:
        form = (
            "3.2",
            "spiral",
            "pressed",
            "packs",
            "the slot is deep for its width: chips crowd in it" if crowded else "too much feed: it packs",
        )
    code, name, length, verdict, why = form
    return ChipVerdict(
        name, length, code, verdict, index, setup.settings.feed_per_rev, 2.2 * setup.settings.feed_per_rev, None, None, 0.0, 15.0, why
    )


_FEED_RULE = next(rule for rule in rules.RULES if rule.bound is Bound.WINDOW)


def _scene(x: Numbers) -> dict[str, float | str]:
    setup = x.setup
    return {
        "operation": setup.operation,
        "diameter": setup.feature.diameter,
        "bore": setup.feature.bore,
        "part_length": setup.feature.part_length,
        "distance_from_chuck": setup.feature.distance_from_chuck,
        "width": setup.insert.width,
        "lead_angle": setup.insert.lead_angle,
        "thickness": setup.blade.thickness,
        "height": setup.blade.height,
        "overhang": setup.overhang,
        "hollow": "hollow" if x.run.hollow else "proud",
    }

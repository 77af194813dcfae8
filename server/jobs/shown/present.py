"""Turns the core's outcomes into what the API gives: display strings beside the values."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from cutting.advice import Advice, Candidate
from cutting.advice.candidate import entries_set
from cutting.advice.wanted import wanted_for
from cutting.doors.plain import limit_facts, plain
from cutting.glossary import RESULTS
from cutting.operations.frame.fields import Field, Nudged
from cutting.operations.frame.nudges import ladders
from cutting.operations.frame.outcome import Limit, Outcome
from cutting.operations.registry import kind_of
from cutting.process.outline import OutlineStage
from cutting.quantities import Display, display
from cutting.quantities.kinds import KINDS
from cutting.studies.registry import elsewhere, studies_of
from cutting.workpiece.solid import Corner
from server.jobs.document.tools import told
from server.jobs.edits.tools import chain_of
from server.jobs.kinds import VIEWERS
from server.jobs.kinds.view import Shown, chip_out


def evaluation(
    setup: Any,
    outcome: Outcome,
    explored: Any,
    entered: dict[str, Any],
    units: str,
    part: tuple[Corner, ...],
    drawn: tuple[OutlineStage, ...],
) -> dict[str, Any]:
    """The answer to a nudge: everything that repaints within a tenth of a second."""
    system = "inch" if units == "inch" else "metric"
    kind, viewer = kind_of(setup.operation), VIEWERS[setup.operation]
    shown = Shown(setup, outcome, explored, system, part, drawn)
    nudged = tuple(one for one in kind.nudged if one.applies(setup))
    view = viewer.view(shown)
    return {
        "operation": setup.operation,
        "results": {name: plain(one) | {"means": RESULTS.get(name, "")} for name, one in outcome.results.items()},
        "limits": [limit_facts(limit) | _wants(setup, limit) for limit in outcome.limits],
        "warnings": plain(outcome.warnings),
        "learned": list(setup.told_of_trials),
        "headline": [name for name in kind.headline if name in outcome.results],
        "studies": [{"name": one.name, "title": one.title, "key": one.key} for one in studies_of(kind.name)],
        "not_here": [{"name": one.name, "title": one.title, "key": one.key, "why": why} for one, why in elsewhere(kind.name)],
        "chip": chip_out(outcome.chip),
        "feasible": outcome.feasible,
        "passes": [
            {
                "number": p.number,
                "from_diameter": display(p.from_diameter, "length", False),
                "to_diameter": display(p.to_diameter, "length", False),
                "depth": display(p.depth, "length", False),
                "spindle_speed": display(p.spindle_speed, "spindle_speed", False),
                "cutting_speed": display(p.cutting_speed, "cutting_speed", False),
                "seconds": display(p.seconds, "duration", False),
                "push": display(p.passive_force, "force"),
                "springs": display(p.size_error * 1000.0, "small_length"),
                "chip": chip_out(p.chip),
            }
            for p in outcome.passes
        ],
        "settings": [_setting(one, setup, outcome, entered) for one in nudged],
        "typed": [_typed(kind.fields.named(name), entered) for name in kind.typed(setup)],
        "choices": [_choice(kind.fields.named(name), entered) for name in kind.choices],
        "ladders": {name: plain(ladder) for name, ladder in ladders(setup, outcome, nudged, system).items()},
        "coolants": [name for name, _ in setup.machine.coolant],
        "table": viewer.table(shown) if viewer.table else None,
        "stops": viewer.stops(view),
        "view": view,
    }


def _wants(setup: Any, limit: Limit) -> dict[str, Any]:
    """The tool that a limit asks for, where no setting meets it."""
    found = wanted_for(setup, limit)
    return {"wants": None if found is None else plain(found.words), "wanted": {} if found is None else found.record}


def _setting(one: Nudged, setup: Any, outcome: Outcome, entered: dict[str, Any]) -> dict[str, Any]:
    value = one.read(setup, outcome)
    limit = next((found for found in outcome.limits if found.name == one.limit), None)
    # a chip window without a feed window of its own says nothing of the feed
    low, high = (limit.lower, limit.upper) if limit and limit.kind == one.kind else (None, None)
    return {
        "name": one.name,
        "label": one.label,
        "entered": str(entered.get(one.name, "")),
        "display": display(value, one.kind),
        "value": value,
        "low": low,
        "high": high,
        "low_display": display(low, one.kind, False) if low is not None else None,
        "high_display": display(high, one.kind, False) if high is not None else None,
    }


def _typed(field: Field | None, entered: dict[str, Any]) -> dict[str, Any]:
    assert field
    given = entered.get(field.name)
    said = field.default if given in (None, "") else given
    return {"name": field.name, "label": field.label, "value": "" if said is None else str(said), "example": field.example}


def _choice(field: Field | None, entered: dict[str, Any]) -> dict[str, Any]:
    assert field
    given = entered.get(field.name)
    chosen = str(given if given is not None else field.default)
    # own break points stand beside the named schools
    options = [*field.options] + ([chosen] if chosen not in field.options else [])
    return {"name": field.name, "label": field.label, "options": options, "value": chosen}


@dataclass(frozen=True)
class ToolsInPlace:
    """What stands on the machine: assembled tools with their words, and of the job's other operations the tools with their numbers.

    `places` is how many tools the turret or the changer takes, 0 where that is no matter.
    """

    set_up: dict[tuple[str, ...], str]
    used: dict[tuple[str, ...], str]
    places: int = 0

    @property
    def free(self) -> int | None:
        """Places that the job's other operations leave, None where there are none to count."""
        return max(self.places - len(self.used), 0) if self.places else None

    def wanted(self, c: Candidate) -> int:
        """Further places that a row asks for, with all steps of its chain."""
        steps = [tuple(one.tool.values()) for one in c.before]
        return sum(key not in self.used for key in {c.key, *steps})


def standing_of(document: dict[str, Any], entry: dict[str, Any], places: int, set_up: dict[tuple[str, ...], str]) -> ToolsInPlace:
    """What stands on the machine for one operation of a job."""
    used: dict[tuple[str, ...], str] = {}
    for other in document["operations"]:
        if other["id"] != entry["id"] and (tool := tuple(other["tool"].values())):
            used[tool] = f"{used[tool]}, {other['number']}" if tool in used else str(other["number"])
    return ToolsInPlace(set_up, used, places)


def advice_out(advice: Advice, tool: dict[str, str], way: str, standing: ToolsInPlace) -> dict[str, Any]:
    """The ranking with its words; `tool` and `way` are as set. What finds no place on the machine stands behind what does."""
    rows = [_candidate(c, tool, way, standing, advice) for c in advice.candidates]
    return {
        "candidates": sorted(rows, key=lambda row: row["no_place"]),
        "nearly": [_candidate(c, tool, way, standing, advice) for c in advice.nearly],
        "refused": [{"reason": r.reason, "pairs": r.pairs} for r in advice.refused],
        "pairs": advice.pairs,
        "fitting": advice.fitting,
        "feasible": advice.feasible,
        "note": advice.note,
        "missed": advice.missed,
        "heads": list(advice.heads),
        "feed_unit": _feed_unit(advice),
        "further": list(advice.further),
    }


def _feed_unit(advice: Advice) -> Display:
    """The units of the rows' feeds; where several kinds compete those of the first."""
    rows = advice.candidates or advice.nearly
    what = KINDS[rows[0].feed_kind if rows else "feed_per_rev"]
    return Display(what.metric, what.inch)


def _steps(c: Candidate) -> list[dict[str, Any]]:
    """The steps of a chain with what each takes, its own last; none of what one tool makes alone."""
    if not c.before:
        return []
    own = c.seconds - sum(one.seconds for one in c.before), c.cost - sum(one.cost for one in c.before)
    told_of = [(one.title, one.tool, one.seconds, one.cost) for one in c.before] + [("then", c.tool, *own)]
    return [
        {"title": title, **told(tool), "seconds": display(seconds, "duration", False), "cost": display(money, "money", False)}
        for title, tool, seconds, money in told_of
    ]


def _candidate(c: Candidate, tool: dict[str, str], way: str, standing: ToolsInPlace, advice: Advice) -> dict[str, Any]:
    wanted, free = standing.wanted(c), standing.free
    no_place = free is not None and wanted > free
    more, names = list(c.more), [*advice.heads, *advice.further]
    if "pockets" in names and more:
        more[names.index("pockets")] = Display(str(wanted), str(wanted))
    reason = c.reason
    if no_place:
        reason = f"no place left on the machine: it wants {wanted}, {free} are free"
    return {
        **told(c.tool),
        "designation": c.designation,
        "geometry": c.geometry,
        "grade": c.grade,
        "passes": c.passes,
        "speed": display(c.cutting_speed, "cutting_speed", False),
        "feed": display(c.feed, c.feed_kind, c.feed_kind != advice.candidates[0].feed_kind if advice.candidates else False),
        "depth": display(c.depth_of_cut, "length", False) if c.depth_of_cut else None,
        "seconds": display(c.seconds, "duration", False),
        "cost": display(c.cost, "money", False),
        "parts_per_edge": display(c.change_parts, "count")
        if c.change_parts >= 1
        else {"metric": f"{c.change_parts:.1f}", "inch": f"{c.change_parts:.1f}"},
        "secure": f"{c.secure:.0%}",
        "secure_value": c.secure,
        "chip_index": c.chip_index,
        "edge_price": display(c.edge_cost, "money", False),
        "roughness": display(c.roughness, "small_length", False) if c.roughness else None,
        "reason": reason,
        "no_place": no_place,
        "in_place": standing.used.get(c.key, ""),
        "miss": c.miss,
        "set_up": standing.set_up.get(c.key, ""),
        "chosen": c.edge == next(iter(tool.values()), "") and c.way in ("", way or c.way),
        "way": c.way,
        "more": more,
        "becomes": c.becomes,
        "before": chain_of(c),
        "steps": _steps(c),
        "settings": entries_set(c),
    }

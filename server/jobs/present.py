"""Turns the core's outcomes into what the API gives: display strings beside the values."""

from __future__ import annotations

from typing import Any

import numpy as np

from cutting.advice import Advice, Candidate
from cutting.doors.plain import plain
from cutting.operations.nudges import ladders
from cutting.operations.outcome import Bow, ChipVerdict, Limit, Outcome
from cutting.operations.setup import Setup
from cutting.operations.single_point.chip_map import ChipMap
from cutting.process.outline import Stage
from cutting.quantities import display, write
from cutting.tooling.plan_view import holder_outline, insert_outline
from server.units import ticks

SETTING_KINDS = {"cutting_speed": "cutting_speed", "feed_per_rev": "feed_per_rev", "depth_of_cut": "length"}


def evaluation(
    setup: Setup, outcome: Outcome, chip_map: ChipMap, entered: dict[str, Any], units: str, drawn: tuple[Stage, ...]
) -> dict[str, Any]:
    """The answer to a nudge: everything that repaints within a tenth of a second."""
    system = "inch" if units == "inch" else "metric"
    return {
        **{name: plain(getattr(outcome, name)) for name in ("results", "limits", "warnings", "scene")},
        "chip": chip_out(outcome.chip),
        "bow": bow_out(outcome.bow),
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
        "scene_labels": {
            "cutting_force": display(outcome.results["cutting_force"].value, "force"),
            "feed_force": display(outcome.results["feed_force"].value, "force"),
            "passive_force": display(outcome.results["passive_force"].value, "force"),
            "free_length": display(setup.holding.free_length, "length"),
            "start_diameter": display(setup.feature.start_diameter, "length"),
            "end_diameter": display(setup.feature.end_diameter, "length"),
            "spindle_speed": outcome.results["spindle_speed"].display,
            "springs": display(outcome.results["size_error"].value * 1000.0, "small_length"),
            "overhang": display(float(outcome.scene["overhang"]), "length"),
        },
        "insert_outline": insert_outline(setup.insert, setup.holder.code.cutting_edge_angle),
        "holder_outline": holder_outline(setup.holder, setup.insert),
        "stages": plain(drawn),
        "map": {
            **plain(chip_map),
            "feed_ticks": ticks(chip_map.feed_axis[1], "feed_per_rev", system),
            "depth_ticks": ticks(chip_map.depth_axis[1], "length", system),
        },
        "settings": [_setting(name, setup, outcome, entered) for name in SETTING_KINDS],
        "ladders": {name: plain(ladder) for name, ladder in ladders(setup, system).items()},
        "coolants": [name for name, _ in setup.machine.coolant],
    }


def chip_out(chip: ChipVerdict) -> dict[str, Any]:
    strain = f"{chip.strain:.1%} of {chip.fracture_strain:.1%} at break" if chip.strain is not None else "no groove curls it"
    return {
        **{name: getattr(chip, name) for name in ("form", "length", "code", "verdict", "index", "why")},
        "thickness": display(chip.thickness, "length"),
        "thickness_after": display(round(chip.thickness_after, 3), "length"),
        "curl_radius": display(round(chip.curl_radius, 2), "length") if chip.curl_radius else None,
        "strain": strain,
        "long": display(chip.long, "length"),
    }


def bow_out(bow: Bow) -> dict[str, Any]:
    return {
        "places": list(bow.places),
        "errors": list(bow.errors),
        "shape": bow.shape,
        **{name: display(1000.0 * getattr(bow, name), "small_length") for name in ("at_chuck", "at_end", "largest")},
    }


def _setting(name: str, setup: Setup, outcome: Outcome, entered: dict[str, Any]) -> dict[str, Any]:
    kind = SETTING_KINDS[name]
    value = getattr(setup.settings, name)
    if name == "depth_of_cut":
        value = outcome.passes[0].depth
    low, high = _window(name, outcome)
    return {
        "name": name,
        "entered": str(entered.get(name, "")),
        "display": display(value, kind),
        "value": value,
        "low": low,
        "high": high,
        "low_display": display(low, kind, False) if low is not None else None,
        "high_display": display(high, kind, False) if high is not None else None,
    }


def _window(name: str, outcome: Outcome) -> tuple[float | None, float | None]:
    def limit(wanted: str) -> Limit | None:
        return next((found for found in outcome.limits if found.name == wanted), None)

    if name == "cutting_speed" and (book := limit("book_speed")):
        return book.lower, book.upper
    chip = limit("chip_window")
    if name == "feed_per_rev" and chip and chip.kind == "feed_per_rev":
        return chip.lower, chip.upper
    edge = limit("edge_length")
    if name == "depth_of_cut" and edge:
        return None, edge.upper
    return None, None


def advice_out(advice: Advice, document_tool: dict[str, str], set_up: dict[tuple[str, str], str]) -> dict[str, Any]:
    """The ranking with its words; `set_up` says which pairs stand assembled on the machine, and where."""
    return {
        "candidates": [_candidate(c, document_tool, set_up) for c in advice.candidates],
        "nearly": [_candidate(c, document_tool, set_up) for c in advice.nearly],
        "refused": [{"reason": r.reason, "pairs": r.pairs} for r in advice.refused],
        "pairs": advice.pairs,
        "fitting": advice.fitting,
        "feasible": advice.feasible,
        "note": advice.note,
    }


def _candidate(c: Candidate, tool: dict[str, str], set_up: dict[tuple[str, str], str]) -> dict[str, Any]:
    return {
        "insert": c.insert,
        "holder": c.holder,
        "designation": c.designation,
        "geometry": c.geometry,
        "grade": c.grade,
        "passes": c.passes,
        "speed": display(c.cutting_speed, "cutting_speed", False),
        "feed": display(c.feed_per_rev, "feed_per_rev", False),
        "depth": display(c.depth_of_cut, "length", False),
        "seconds": display(c.seconds, "duration", False),
        "cost": display(c.cost, "money", False),
        "parts_per_edge": display(c.change_parts, "count")
        if c.change_parts >= 1
        else {"metric": f"{c.change_parts:.1f}", "inch": f"{c.change_parts:.1f}"},
        "secure": f"{c.secure:.0%}",
        "secure_value": c.secure,
        "chip_index": c.chip_index,
        "edge_price": display(c.edge_cost, "money", False),
        "roughness": display(c.roughness, "small_length", False),
        "reason": c.reason,
        "set_up": set_up.get((c.insert, c.holder), ""),
        "chosen": c.insert == tool["insert"],
        "settings": {
            "cutting_speed": write(c.cutting_speed, "cutting_speed"),
            "feed_per_rev": write(c.feed_per_rev, "feed_per_rev"),
            # rounded up a hair, so that the text still gives the same number of passes
            "depth_of_cut": f"{float(np.ceil(c.depth_of_cut * 1e4)) / 1e4:g} mm",
        },
    }

"""Ways to turn, coolant, and hard turning against grinding, as the API gives them."""

from __future__ import annotations

import numpy as np

from cutting.advice.candidate import entries_set
from cutting.advice.ways import WayOffer
from cutting.operations.coolant import CoolantAdvice
from cutting.operations.turned.hard import HardTurning
from cutting.operations.turned.setup import Setup
from cutting.quantities import Display, display, write
from cutting.studies.acceptance import Acceptance, AskedOfHole
from cutting.studies.slot_ways import SlotMethod
from server.jobs.document.tools import NONE, told
from server.jobs.kinds.view import same
from server.jobs.studies.answers import Answer
from server.jobs.studies.edges import _pieces
from server.jobs.studies.rigidity import _patch


def way_out(offer: WayOffer) -> Answer:
    """A way to turn, in words."""
    found = offer.candidate
    base = {
        **{name: getattr(offer, name) for name in ("name", "title", "when", "why_not", "present", "tool_class")},
        **told(NONE), "passes": 0, "speed": None, "feed": None, "seconds": None, "cost": None, "parts": "", "secure": "",
        "chip_index": 0.0, "roughness": None, "reach": "", "remedy": None,
    }  # fmt: skip
    if found is None:
        return base
    settings = {**entries_set(found), "direction": offer.direction, "pass_depths": None}
    slow = (
        f"reaches {write(found.speed_reached, 'cutting_speed')}, wants {write(offer.useful_speed, 'cutting_speed')}"
        if not offer.reaches_speed
        else ""
    )
    return base | {
        **told(found.tool),
        "passes": found.passes,
        "speed": display(found.speed_reached, "cutting_speed"),
        "feed": display(found.feed, "feed_per_rev"),
        "seconds": display(found.seconds, "duration"),
        "cost": display(found.cost, "money"),
        "parts": _pieces(found.change_parts),
        "secure": f"{found.secure:.0%}",
        "chip_index": found.chip_index,
        "roughness": display(found.roughness, "small_length"),
        "reach": slow,
        "remedy": _patch(offer.title, {"tool": found.tool, "settings": settings}),
    }


def slot_method_out(found: SlotMethod) -> Answer:
    """A method of a cut-off or groove, in words."""
    good, run = not found.why_not, found.outcome
    patch = {**found.patch, "settings": {**found.patch.get("settings", {}), "feed_per_rev": write(found.feed, "feed_per_rev")}}
    return {
        **{name: getattr(found, name) for name in ("title", "when", "why_not", "note", "present")},
        "feed": display(found.feed, "feed_per_rev") if found.feed else None,
        "seconds": display(found.seconds, "duration") if good else None,
        "cost": display(found.cost, "money") if good else None,
        "secure": run.results["secure"].display.metric if run else "",
        "remedy": _patch(found.title, patch) if good and run and not found.present else None,
    }


def acceptance_out(found: Acceptance, kept: dict[str, float]) -> Answer:
    """The acceptance list of a hole, with what was measured."""
    return {
        "layers": list(found.layers),
        "asked": [_asked_out(one, kept.get(one.name)) for one in found.asked],
        "harms": list(found.harms),
        "tastes": [f"{label} ({used:.1f} × its limit)" for label, used in found.tastes],
        "drills": [
            {
                "name": one.name, "point": one.point, "thrust": display(one.thrust, "force"),
                "parts": "" if one.parts is None else f"{one.parts:.0%}",
                "burr": display(one.burr, "length"), "holes": _pieces(one.holes), "cost": display(one.cost, "money"),
                "harm": one.harm, "present": one.present, "remedy": None if one.present else _patch(one.name, one.patch),
            }
            for one in found.drills
        ],
    }  # fmt: skip


SYSTEMS = ("metric", "inch")


def _asked_out(one: AskedOfHole, measured: float | None) -> Answer:
    low, high = one.asked

    def bounds(system: str) -> str:
        ends = [None if end is None else write(end, one.kind, system) for end in (low, high)]
        return f"{ends[0]} to {ends[1]}" if None not in ends else f"≤ {ends[1]}" if ends[0] is None else f"≥ {ends[0]}"

    return {
        "name": one.name, "label": one.label,
        "by_layer": [None if value is None else display(value, one.kind) for value in one.by_layer],
        "asked": Display(*(bounds(system) for system in SYSTEMS)) if low is not None or high is not None else None,
        "chance": "" if one.chance is None or one.standing is None else f"{one.chance:.0%}",
        "standing": one.standing.value if one.standing else "",
        "measurable": one.measurable,
        "measured": None if measured is None else display(measured, one.kind),
        "met": one.met_by(measured),
    }  # fmt: skip


def coolant_out(found: CoolantAdvice, setup: Setup) -> Answer:
    """Deliveries in words."""
    present = setup.settings.coolant
    return {
        "rule": found.rule,
        "why": found.why,
        "wanted": found.wanted,
        "present": present,
        "present_fits": found.present_fits,
        "deliveries": [
            {
                "name": one.name,
                "pressure": display(one.pressure, "pressure"),
                "jet_speed": f"{one.jet_speed:.0f} m/s" if one.pressure > 0 else "–",
                "flow": display(one.flow, "flow") if one.pressure > 0 else same("–"),
                "left": display(one.left, "flow") if one.left is not None else same("–"),
                "fits": one.fits,
                "says": one.says,
                "remedy": _patch(one.name, {"settings": {"coolant": one.name}}) if one.name != present else None,
            }
            for one in found.deliveries
        ],
        "notes": found.notes,
    }


def hard_out(found: HardTurning) -> Answer:
    """Both ways in words."""

    def degrees(value: float) -> Display:
        return Display(f"{value:.0f} °C", f"{value * 9 / 5 + 32:.0f} °F")

    rows = [
        ("zone, by comparison", degrees(found.zone), None, "Cook's rise against that at the starting speed; ± 20 %"),
        ("work gives way", degrees(found.softens), None, "common practice"),
        ("edge stands", degrees(found.stands), None, "the grade's own, or its tool material's"),
        ("finish Ra", display(found.roughness, "small_length"), None, "model, ± 30 %"),
        ("size grows per piece", display(found.drift, "small_length"), None, "wear even over the edge's life"),
        ("pieces per edge by size", _count(found.parts_by_size), None, "half the tolerance used, no correction"),
        ("pieces per edge by life", _count(found.parts_by_life), None, "at the planned change"),
        ("one edge", display(found.edge_cost, "money"), None, ""),
        (
            "seconds per piece",
            display(found.seconds, "duration"),
            None if found.grinding_seconds is None else display(found.grinding_seconds, "duration"),
            "",
        ),
        (
            "money per piece",
            display(found.cost, "money"),
            None if found.grinding_cost is None else display(found.grinding_cost, "money"),
            "",
        ),
    ]
    return {
        "applies": found.applies,
        "hardness": f"{found.hardness:.0f} HRC" if found.hardness is not None else "beyond the table of ISO 18265",
        "rows": [{"label": a, "hard": b, "grinding": c, "note": d} for a, b, c, d in rows],
        "says": found.says,
        "working": [
            f"zone: 20 + ({found.softens:.0f} − 20)·ΔT/ΔT0 = {found.zone:.0f} °C; ΔT by Cook 1973, ΔT0 at the starting speed",
            f"size: 2·{found.wear_land:g} mm·tan(clearance)/pieces per edge = {found.drift:.3g} µm per piece (ISO 3685)",
            "money: this operation's own cost; grinding: rate/3600·seconds + wheel",
        ],
        "saving": display(found.saving, "money") if found.saving is not None else None,
        "saving_per_batch": display(found.saving_per_batch, "money") if found.saving_per_batch is not None else None,
    }


def _count(value: float) -> Display:
    text = _pieces(value) if np.isfinite(value) else "no tolerance given"
    return Display(text, text)

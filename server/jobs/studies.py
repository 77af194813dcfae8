"""Turns the core's studies of an operation into what the API gives."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from typing import Any

import numpy as np

from cutting.advice.ways import Offer
from cutting.operations.coolant import CoolantAdvice
from cutting.operations.frame.outcome import Bow, Outcome
from cutting.operations.turned.edge_angles import EdgeAngles, Height
from cutting.operations.turned.edge_life import Change, EdgeLife, Point
from cutting.operations.turned.hard import HardTurning
from cutting.operations.turned.planner import Plan
from cutting.operations.turned.setup import Setup
from cutting.operations.turned.size_control import Ledger
from cutting.operations.turned.springing import Support
from cutting.operations.turned.stability import Stability
from cutting.quantities import Display, display, write
from cutting.sizing.settling import Fit
from server.jobs.kinds.view import axis, chip_out, same
from server.jobs.models import Measurement
from server.jobs.tools import NONE, told

Answer = dict[str, Any]


def curve(name: str, label: str, xs: Sequence[float], ys: Sequence[float]) -> Answer:
    return {"name": name, "label": label, "points": [[x, y] for x, y in zip(xs, ys, strict=True)]}


def small(millimetres: float) -> Display:
    return display(1000.0 * millimetres, "small_length")


def plan_out(found: Plan, setup: Setup, outcome: Outcome, ledger: Answer | None) -> Answer:
    every = outcome.results.get("correct_every")
    smaller, larger = sorted((setup.feature.start_diameter, setup.target_diameter))
    return {
        "bounds": [{**vars(bound)} for bound in found.bounds],
        **{name: display(round(getattr(found, name), 3), "length") for name in ("deepest", "shallowest", "equal_depth")},
        "stock": display(setup.stock_to_remove, "length"),
        "fewest": found.fewest,
        "passes": [
            {
                "number": p.number,
                "depth": display(round(p.depth, 4), "length"),
                "to_diameter": display(p.to_diameter, "length"),
                "push": display(p.passive_force, "force"),
                "springs": small(p.size_error),
                "chip": chip_out(p.chip),
            }
            for p in outcome.passes
        ],
        "notes": found.notes,
        "drift": outcome.results["drift"].display,
        "correct_every": every.display.metric if every else None,
        "explicit": bool(setup.settings.pass_depths),
        "ledger": ledger,
        "working": [
            f"stock = ({larger:.5g} − {smaller:.5g})/2 = {setup.stock_to_remove:.4g} mm",
            f"fewest = ⌈{setup.stock_to_remove:.4g}/{found.deepest:.3g}⌉ = {found.fewest}; equal depth {found.equal_depth:.4g} mm",
            "each bound: the depth at which that limit stands at its bound, from one run over 160 depths",
            f"growth by wear = 2·0.3 mm·tan(clearance)/pieces that the edge lasts = {outcome.results['drift'].value:.3g} µm (ISO 3685)",
        ],
    }


def _of_tolerance(share: float) -> str:
    return f"{share:.0%} of the tolerance" if share < 2.0 else f"{share:.0f} times the tolerance"


def _chance(share: float) -> str:
    return f"{share:.0%}" if share < 0.995 else "over 99%"


def fit_out(found: Fit) -> Answer:
    """How surely the fit is met, cut by measured cut."""
    width = found.upper - found.lower
    return {
        "aim": display(round(found.aim, 4), "length"),
        "shares": [
            {"name": one.name, "spread": small(2.0 * one.spread), "why": one.why, "of_tolerance": _of_tolerance(4.0 * one.spread / width)}
            for one in found.shares
        ],
        "stages": [
            {"measured": one.measured, "spread": small(2.0 * one.spread), "chance": _chance(one.chance),
             "grade": f"IT{one.grade}" if one.grade else "wider than IT12"}
            for one in found.stages
        ],
    }  # fmt: skip


def ledger_out(found: Ledger, setup: Setup, rows: Sequence[Measurement]) -> Answer:
    by_place = {(row.piece, row.pass_number): row.pk for row in rows}
    following = found.next
    return {
        "rows": [
            {
                "id": by_place[(entry.piece, entry.pass_number)],
                "piece": entry.piece,
                "pass_number": entry.pass_number,
                "commanded": display(entry.commanded, "length"),
                "measured": display(entry.measured, "length"),
                "at_20": display(round(entry.at_20, 4), "length"),
                "actual_depth": display(round(entry.actual_depth, 4), "length"),
                "force": display(entry.force, "force"),
                "offset": small(entry.offset),
                "expected": small(entry.expected) if entry.expected is not None else None,
            }
            for entry in found.entries
        ],
        "doubtful": [
            {
                "id": by_place[(one.piece, one.pass_number)],
                "piece": one.piece,
                "pass_number": one.pass_number,
                "commanded": display(one.commanded, "length"),
                "measured": display(one.measured, "length"),
            }
            for one, _ in found.doubtful
        ],
        "piece": max((one.piece for one in (*found.entries, *(one for one, _ in found.doubtful))), default=1),
        "next": {
            "pass_number": following.pass_number,
            "target": display(round(following.target, 4), "length"),
            "depth": display(round(following.depth, 4), "length"),
            "force": display(following.force, "force"),
            "offset": small(following.offset),
            "low": small(following.low),
            "high": small(following.high),
            "command": display(round(following.command, 3), "length"),
            "last": following.last,
        }
        if following
        else None,
        "setting": small(found.setting),
        "setting_band": small(1.96 * found.setting_spread),
        "springing": small(found.springing),
        "springing_band": small(1.96 * found.springing_spread),
        "springing_taught": found.springing_taught,
        "fit": fit_out(found.fit) if found.fit else None,
        "uncertainty": small(setup.house.measuring_uncertainty),
        "warmth": {
            "growth": small(found.warmth.growth),
            "bound": small(found.warmth.allowed),
            "utilisation": found.warmth.utilisation,
            "broken": found.warmth.broken,
        }
        if found.warmth
        else None,
        "notes": found.notes,
        "warnings": found.warnings,
        "working": _ledger_working(found),
    }


def _ledger_working(found: Ledger) -> list[str]:
    lines = ["measured − commanded = a + c·Fp: a the setting of the tool, c what part and tool post spring per newton of passive force"]
    lines.append(
        f"before measuring: a unknown, c = 2·(beam + tool post) = {1000 * found.prior_spring:.3g} µm/N ± 40 % (stepped beam, Roark)"
    )
    for entry in found.entries:
        lines.append(
            f"pass {entry.pass_number}: {entry.at_20:.4f} − {entry.commanded:.4f} = {1000 * entry.offset:+.1f} µm at Fp"
            f" {entry.force:.0f} N, really cut {entry.actual_depth:.4f} mm, known to ± {1000 * entry.uncertainty:.1f} µm"
        )
    if found.next and found.entries:
        slope = 1000 * found.springing / max(found.next.force, 1e-9)
        lines.append(f"least squares with that prior: a = {1000 * found.setting:.1f} µm, c = {slope:.3g} µm/N (linear Bayes)")
        lines.append(
            f"next: a + c·{found.next.force:.0f} N = {1000 * found.next.offset:.1f} µm;"
            f" command {found.next.target:.4f} − {found.next.offset:.4f} = {found.next.command:.4f} mm"
        )
    return [line.replace("-", "−") for line in lines]


def rigidity_out(bow: Bow, allowed: float, supports: Iterable[Support], found: Stability, inside: bool, system: str) -> Answer:
    """How the part springs, or part and bar in a bore, and where which of them sings."""
    tool, off = ("bar", "smaller by") if inside else ("shank", "larger by")
    top = max(1.15 * max(bow.largest, allowed), 1e-3)
    reach = 1.15 * max(found.width, min(found.part_floor, found.tool_floor) * 2.5)
    marks = [{"name": "now", "label": display(found.speed, "spindle_speed"), "at": [found.speed, found.width]}]
    return {
        "bow": {
            "x": axis("from the chuck", bow.places[0], max(bow.places[-1], bow.places[0] + 1), "length", system),
            "y": axis(off, 0.0, 1000.0 * top, "small_length", system),
            "curves": [
                curve("bow", "", bow.places, [1000.0 * e for e in bow.errors]),
                curve("allowed", "what the drawing leaves", [bow.places[0], bow.places[-1]], [1000.0 * allowed] * 2),
            ],
            "marks": [{"name": "largest", "label": small(bow.largest), "at": [bow.largest_at, 1000.0 * bow.largest]}],
        },
        "shape": bow.shape,
        **{name: small(getattr(bow, name)) for name in ("largest", "taper", "barrel")},
        "allowed": small(allowed),
        "supports": [_support(one) for one in supports],
        "lobes": {
            "x": axis("spindle speed", found.speeds[0], found.speeds[-1], "spindle_speed", system),
            "y": axis("width of cut", 0.0, reach, "length", system),
            "curves": [curve("part", "part", found.speeds, found.part), curve("tool", tool, found.speeds, found.tool)],
            "marks": marks,
        },
        "says": found.says,
        "width": display(round(found.width, 2), "length"),
        "limit": display(round(found.limit, 2), "length"),
        "part_frequency": f"{found.part_frequency:.0f} Hz",
        "tool_frequency": f"{tool} about {found.tool_frequency:.0f} Hz",
        "working": [
            "bow: Fp of the last pass × compliance of the stepped part at each place, × 2 on diameter (force method, Roark)",
            f"lobes: b = 2·k·ζ·(1+ζ)/(K·μ) at worst, part {found.part_floor:.3g} mm, {tool} {found.tool_floor:.3g} mm (Altintas 2012)",
            f"width of cut {found.width:.3g} mm; n/(60·f) = {found.turns_per_wave:.3g} turns a wave, read at its worst within ± 10 %",
        ],
        "suggestions": [
            {
                "text": display(one.spindle_speed, "spindle_speed"),
                "gain": f"{one.gain:.1f} × wider",
                "remedy": _patch("speed", {"settings": {"cutting_speed": write(one.cutting_speed, "cutting_speed")}}),
            }
            for one in found.suggestions
        ],
    }


def _support(one: Support) -> Answer:
    return {
        "name": one.name,
        "text": one.text,
        **{name: small(getattr(one, name)) for name in ("largest", "taper", "barrel")},
        "times_stiffer": f"{one.times_stiffer:.1f} ×",
        "remedy": _patch(one.text, one.patch) if one.patch else None,
    }


def _patch(text: str, patch: Answer) -> Answer:
    return {"text": Display(text, text), "effect": Display("", ""), "patch": patch}


def edge_life_out(found: EdgeLife, setup: Setup, system: str) -> Answer:
    speeds = found.speeds
    dearest = min(max(found.costs), 2.2 * found.cheapest.cost)
    longest = min(max(found.lives), 4.0 * max(found.now.life, found.cheapest.life))
    span = (speeds[0], speeds[-1])

    def marks(pick: Any) -> list[Answer]:
        named = (("now", found.now), ("cheapest", found.cheapest), ("fastest", found.fastest))
        return [{"name": n, "label": display(p.cutting_speed, "cutting_speed"), "at": [p.cutting_speed, pick(p)]} for n, p in named]

    band = [
        curve("low", "half", speeds, [v / found.band for v in found.lives]),
        curve("high", "double", speeds, [v * found.band for v in found.lives]),
    ]
    return {
        "cost": {
            "x": axis("cutting speed", *span, "cutting_speed", system),
            "y": axis("a piece", 0.0, dearest, "money", system),
            "curves": [curve("cost", "cost", speeds, found.costs)],
            "marks": marks(lambda p: p.cost),
        },
        "life": {
            "x": axis("cutting speed", *span, "cutting_speed", system),
            "y": axis("life", 0.0, longest, "life", system),
            "curves": [curve("life", "median life", speeds, found.lives), *band],
            "marks": marks(lambda p: p.life),
        },
        "survival": {
            "x": axis("how many last", 0.0, found.parts[-1], "count", system, "pieces"),
            "y": axis("edges that last", 0.0, 100.0, "share", system),
            "curves": [curve("survival", "edges that last", found.parts, [100.0 * s for s in found.survival])],
            "marks": [
                {
                    "name": "planned",
                    "label": display(found.planned.parts, "count"),
                    "at": [found.planned.parts, 100.0 * found.planned.probability],
                }
            ],
        },
        "points": [
            _speed_point("now", found.now, None),
            _speed_point("cheapest", found.cheapest, found.book_high if setup.house.never_above_book else np.inf),
            _speed_point("fastest", found.fastest, found.book_high if setup.house.never_above_book else np.inf),
        ],
        "book": Display(
            *(
                f"{write(found.book_low, 'cutting_speed', s, False)} – {write(found.book_high, 'cutting_speed', s)}"
                for s in ("metric", "inch")
            )
        ),
        "changes": [_change(one) for one in found.changes],
        "planned": _change(found.planned),
        "shape": f"{found.shape:.1f}",
        "run": f"{found.run_parts:.0f}",
        "sister_tools": found.sister_tools,
        "says": found.says,
        "working": [
            f"life: 15 min·(v15/vc)^(1/n), at vc {found.now.cutting_speed:.0f} m/min {found.now.life:.3g} min (Taylor 1907)",
            "cost: rate·(cut + idle + change/N) + edge/N, swept over speed with whole pieces N at the planned change (Groover, ch. 24)",
            f"share that lasts N pieces: 2^−(N/{found.median_parts:.3g})^{found.shape:.2g} (Weibull 1951)",
        ],
    }


def _speed_point(name: str, point: Point, most: float | None) -> Answer:
    held = most is not None and point.cutting_speed > most
    speed = min(point.cutting_speed, most) if most is not None else point.cutting_speed
    said = "to the book's top speed" if held else f"{name} speed"
    patch = {"settings": {"cutting_speed": write(float(np.floor(speed)), "cutting_speed")}}
    return {
        "name": name,
        "speed": display(point.cutting_speed, "cutting_speed"),
        "life": display(point.life, "life"),
        "seconds": display(point.seconds, "duration"),
        "cost": display(point.cost, "money"),
        "parts": _pieces(point.parts),
        "remedy": None if most is None else _patch(said, patch),
    }


def _pieces(parts: float) -> str:
    return f"{parts:.0f}" if parts >= 1 else f"{parts:.1f}"


def _change(one: Change) -> Answer:
    return {"probability": f"{100 * one.probability:.3g} %", "parts": _pieces(float(np.floor(one.parts)) if one.parts >= 1 else one.parts)}


def way_out(offer: Offer) -> Answer:
    found = offer.candidate
    base = {
        **{name: getattr(offer, name) for name in ("name", "title", "when", "why_not", "present", "tool_class")},
        **told(NONE), "passes": 0, "speed": None, "feed": None, "seconds": None, "cost": None, "parts": "", "secure": "",
        "chip_index": 0.0, "roughness": None, "reach": "", "remedy": None,
    }  # fmt: skip
    if found is None:
        return base
    depth = float(np.ceil(found.depth_of_cut * 1e4)) / 1e4
    settings = {
        "cutting_speed": write(found.cutting_speed, "cutting_speed"),
        "feed_per_rev": write(found.feed, "feed_per_rev"),
        "depth_of_cut": f"{depth:g} mm",
        "direction": offer.direction,
        "pass_depths": None,
    }
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


def coolant_out(found: CoolantAdvice, setup: Setup) -> Answer:
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
    def degrees(value: float) -> Display:
        return Display(f"{value:.0f} °C", f"{value * 9 / 5 + 32:.0f} °F")

    ground = found.grinding_cost is not None
    rows = [
        ("zone, by comparison", degrees(found.zone), None, "Cook's rise against that at the starting speed; ± 20 %"),
        ("work gives way", degrees(found.softens), None, "common practice"),
        ("edge stands", degrees(found.stands), None, "the grade's own, or its tool material's"),
        ("finish Ra", display(found.roughness, "small_length"), None, "model, ± 30 %"),
        ("size grows a piece", display(found.drift, "small_length"), None, "wear even over the edge's life"),
        ("pieces per edge by size", _count(found.parts_by_size), None, "half the tolerance used, no correction"),
        ("pieces per edge by life", _count(found.parts_by_life), None, "at the planned change"),
        ("one edge", display(found.edge_cost, "money"), None, ""),
        ("seconds a piece", display(found.seconds, "duration"), display(found.grinding_seconds, "duration") if ground else None, ""),
        ("money a piece", display(found.cost, "money"), display(found.grinding_cost, "money") if ground else None, ""),
    ]
    return {
        "applies": found.applies,
        "hardness": f"{found.hardness:.0f} HRC" if found.hardness is not None else "beyond the table of ISO 18265",
        "rows": [{"label": a, "hard": b, "grinding": c, "note": d} for a, b, c, d in rows],
        "says": found.says,
        "working": [
            f"zone: 20 + ({found.softens:.0f} − 20)·ΔT/ΔT0 = {found.zone:.0f} °C; ΔT by Cook 1973, ΔT0 at the starting speed",
            f"size: 2·0.3 mm·tan(clearance)/pieces per edge = {found.drift:.3g} µm a piece (ISO 3685)",
            "money: this operation's own cost; grinding: rate/3600·seconds + wheel",
        ],
        "saving": display(found.saving, "money") if found.saving is not None else None,
        "saving_per_batch": display(found.saving_per_batch, "money") if found.saving_per_batch is not None else None,
    }


def _count(value: float) -> Display:
    text = _pieces(value) if np.isfinite(value) else "no tolerance given"
    return Display(text, text)


def edge_angles_out(found: EdgeAngles, setup: Setup) -> Answer:
    def angle(value: float) -> Display:
        return display(round(value, 1), "angle")

    rows = [
        ("κr, tool cutting edge angle", found.cutting_edge_angle, "between the leading edge and the feed"),
        ("lead angle, 90° − κr", found.lead_angle, "the same, from the face"),
        ("minor edge, κr′", found.minor_angle, "what it clears behind the corner: the steepest descent it copies"),
        ("in-plane force from the radius", found.chord_angle, "0° pushes the part away, 90° along the feed"),
        ("rake at the groove", found.rake, "insert and seat together, tip on centre"),
        ("clearance", found.clearance, "insert and seat together, tip on centre"),
    ]
    return {
        "angles": [{"label": a, "display": angle(b), "says": c} for a, b, c in rows],
        "thinner": (
            f"feed {write(found.feed, 'feed_per_rev')} makes a chip of {write(round(found.thickness, 4), 'length')}: "
            f"{found.thinner:.0%} of it"
        ),
        "heights": [_height(one) for one in found.heights],
        "working": [
            "θ = asin(2·h/d); outside γe = γ + θ, αe = α − θ; inside the signs change (ISO 3002-1)",
            "larger by √(d² + 4·h²) − d; pip at the centre of a face 2·|h|",
            "force: Kγ = 1 − 0.015·(γe − γ0) (Kienzle 1952)",
        ],
    }


def _height(one: Height) -> Answer:
    text = f"{one.height:+.3g} mm".replace("-", "−") if one.height else "0 mm"
    return {
        "name": one.name,
        "height": display(round(one.height, 3), "length"),
        **{name: display(round(getattr(one, name), 1), "angle") for name in ("rake", "clearance", "rake_inside", "clearance_inside")},
        **{name: display(getattr(one, name), "force") for name in ("cutting_force", "passive_force")},
        "larger": small(one.larger),
        "pip": display(round(one.pip, 2), "length"),
        "present": one.present,
        "remedy": None if one.present else _patch(text, {"settings": {"centre_height": f"{one.height:.4g} mm"}}),
    }

"""How long an edge lasts and how it stands, as the API gives it."""

from __future__ import annotations

from typing import Any

import numpy as np

from cutting.operations.turned.edge_angles import EdgeAngles, Height
from cutting.operations.turned.edge_life import EdgeChange, EdgeLife, LifePoint
from cutting.operations.turned.setup import Setup
from cutting.quantities import Display, display, write
from server.jobs.kinds.view import axis
from server.jobs.studies.answers import Answer, curve, small
from server.jobs.studies.rigidity import _patch


def edge_life_out(found: EdgeLife, setup: Setup, system: str) -> Answer:
    """Life and cost over speed in words."""
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
            "y": axis("per piece", 0.0, dearest, "money", system),
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


def _speed_point(name: str, point: LifePoint, most: float | None) -> Answer:
    held = most is not None and point.cutting_speed > most
    speed = min(point.cutting_speed, most) if most is not None else point.cutting_speed
    said = "to the top of the recommended range" if held else f"{name} speed"
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


def _change(one: EdgeChange) -> Answer:
    return {"probability": f"{100 * one.probability:.3g} %", "parts": _pieces(float(np.floor(one.parts)) if one.parts >= 1 else one.parts)}


def edge_angles_out(found: EdgeAngles, setup: Setup) -> Answer:
    """The edge's angles in words."""

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

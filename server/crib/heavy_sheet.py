"""The sheet of a heavy tool for the bench where it is built and set, and for the machine that takes it."""

from __future__ import annotations

from typing import Any

import numpy as np
from django.utils.safestring import mark_safe

from cutting.operations.frame.outcome import Limit
from cutting.operations.registry import judged
from cutting.quantities import display, write
from cutting.quantities.retell import in_inch
from cutting.tooling.heavy.tool import HeavyTool as Tool
from server.jobs.kinds.view import both, drawn, length
from server.jobs.sheet.content import DEFER
from server.jobs.sheet.drawing import HEIGHT, WIDTH, path, polygon, rect

CARRIED = ("mass", "moment", "lever", "inertia", "unbalance", "permissible", "frequency", "chip_to_chip")
CUT = ("spindle_speed", "engaged_time", "torque", "power", "coaxiality", "flow", "pressure")
CHECKS = (
    "weighed with its inserts in, and the mass entered in the tool table of the machine",
    "changer set to its slow swing where the machine has one",
    "balanced, and the grade written on the tool",
    "every insert seated and every screw to its torque",
    "every outlet blows, and none beside its edge",
    "every step measured, and what was read written above",
)


def heavy_sheet(setup: Any, revision: int, units: str) -> dict[str, Any]:
    """What stands on the sheet of a heavy tool. Raises `CuttingError`."""
    system = "inch" if units == "inch" else "metric"
    found, x = judged(setup)
    tool, s = setup.heavy_tool, setup.settings

    def rows(names: tuple[str, ...]) -> list[tuple[str, str]]:
        return [(found.results[name].label, both(found.results[name].display, system)) for name in names]

    def step(k: int) -> tuple[str, list[str]]:
        bore, of = setup.feature.bores[k], setup.steps[k]
        return of.name, [
            drawn(bore.diameter, system),
            length(round(float(np.ravel(x.set_to)[k]), 4), system),
            length(of.at, system),
            f"{of.inserts}, {of.pads}",
            length(of.allowance, system),
            both(display(float(np.ravel(x.flow)[k]), "flow"), system),
        ]

    speed = both(display(s.cutting_speed, "cutting_speed"), system)
    return {
        "sheet": "heavy tool",
        "job": tool.name,
        "revision": revision,
        "head": [
            ("machine", setup.machine.name),
            ("part of", setup.work.material.name),
            ("holder", tool.holder.name),
            ("length", length(tool.length, system)),
            ("largest Ø", length(tool.largest_diameter, system)),
        ],
        "problems": [_over(one, system) for one in found.limits if one.broken],
        "scene": mark_safe(scene(tool, tool.whole.lever)),
        "carried": rows(CARRIED),
        "cut": [
            ("speed at the widest bore", speed),
            ("feed", both(display(s.feed_per_rev, "feed_per_rev"), system)),
            ("coolant", s.coolant),
            *rows(CUT),
        ],
        "temperature": f"{s.temperature:g} ± {s.temperature_known:g} °C",
        "steps": [step(k) for k in range(len(setup.feature.bores))],
        "solids": [
            (
                one.name,
                [
                    *(write(value, "length", system) for value in (one.start, one.end, one.outer, one.inner)),
                    f"{one.material.name}{f', {100 * one.share:.0f} % metal' if one.share < 1 else ''}"
                    f"{f', {one.arms} arms' if one.arms else ''}",
                    both(display(one.mass, "mass"), system),
                ],
            )
            for one in tool.segments
        ],
        "checks": CHECKS,
        "cautions": [in_inch(one.said) if system == "inch" else one.said for one in found.warnings if one.severity != "note" or one.harm],
        "defer": DEFER,
    }


def _over(limit: Limit, system: str) -> str:
    """A limit that is broken, in words."""
    bound = limit.upper if limit.upper is not None and limit.value > limit.upper else limit.lower
    return f"{limit.label}: {both(limit.value_display, system)} where {both(display(bound or 0.0, limit.kind), system)} is the limit."


def scene(tool: Tool, lever: float) -> str:
    """The solids in section with their edges, the gripper and the centre of gravity."""
    left, axis = 90.0, HEIGHT / 2
    tall = max(*(one.outer for one in tool.segments), *(one.diameter for one in tool.steps))
    scale = min((WIDTH - left - 30) / tool.length, (HEIGHT - 40) / tall)
    seat, face = tool.holder.seat_diameter * scale, tool.holder.face * scale
    parts = [
        polygon(
            [(left, axis - 0.42 * seat), (left - 54, axis - 0.3 * seat), (left - 54, axis + 0.3 * seat), (left, axis + 0.42 * seat)],
            "steel",
        ),
        rect(left, axis - seat / 2, face, seat, "steel"),
    ]
    for one in tool.segments:
        start, wide, out, bore = left + one.start * scale, one.length * scale, one.outer / 2 * scale, one.inner / 2 * scale
        if bore > 0:
            parts += [rect(start, axis - out, wide, out - bore, "part"), rect(start, axis + bore, wide, out - bore, "part")]
        else:
            parts.append(rect(start, axis - out, wide, 2 * out, "part"))
    for step in tool.steps:
        at, out = left + step.at * scale, step.diameter / 2 * scale
        parts += [rect(at - 4, axis - out, 8, 8, "insert"), rect(at - 4, axis + out - 8, 8, 8, "insert")]
    parts.append(path(f"M4,{axis:.1f}H{left + tool.length * scale + 20:.1f}", "centre"))
    parts.append(path(f"M{left:.1f},{axis - 0.6 * seat:.1f}V{axis + 0.6 * seat:.1f}", "blank"))
    parts.append(path(f"M{left + lever * scale:.1f},{axis:.1f}v34m-4,-8l4,8l4,-8", "arrow"))
    words = "The tool in section, to scale, with its centre of gravity"
    return f'<svg viewBox="0 0 {WIDTH:.0f} {HEIGHT:.0f}" role="img" aria-label="{words}">{"".join(parts)}</svg>'

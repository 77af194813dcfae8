"""How a part springs, what supports it and where it sings, as the API gives it."""

from __future__ import annotations

from collections.abc import Iterable

from cutting.operations.frame.outcome import Bow
from cutting.operations.turned.springing import Support
from cutting.operations.turned.stability import Stability
from cutting.quantities import Display, display, write
from server.jobs.kinds.view import axis
from server.jobs.studies.answers import Answer, curve, small


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

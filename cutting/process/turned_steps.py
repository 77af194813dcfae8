"""The cuts that turn the steps of a line: roughing from the thick end to the thin one, then what is finished."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

from cutting.process.line_words import FINISH_STOCK, LEAST_CUT, LineStep, Planned
from cutting.quantities import write
from cutting.workpiece.solid import Region, Side, Solid


def turned(steps: list[LineStep], part: Solid, kerf: float, system: str) -> list[Planned]:
    """Roughing from the thick end to the thin one, each over all that is no thicker beyond it; then the fine steps.

    The first goes on over the kerf, so that the blade meets a turned diameter.
    """
    rough, fine = [], []
    for k, step in enumerate(steps):
        far = steps[-1].far if all(one.size.nominal <= step.size.nominal for one in steps[k:]) else step.far
        to = step.size.nominal + (FINISH_STOCK if step.fine else 0.0)
        if to < part.largest(step.near, far) - LEAST_CUT:
            part = part.without(Region(Side.OUTSIDE, ((step.near, far, to),)))
            said = write(to, "length", system) if system == "inch" else f"{to:g}"
            title = f"{'Rough turn' if step.fine else 'Turn'} Ø{said}"
            longer = replace(step, near=step.near - kerf) if k == 0 else step
            note = "" if step.fine else step.note
            feature = _feature(longer, f"{to:g}", far, "" if step.fine else step.finish)
            rough.append(Planned("turn", title, {**feature, **({"roughing": True} if step.fine else {})}, note))
        if step.taper and step.taper * step.length > FINISH_STOCK:  # the wedge beside its large end is more than a last cut takes
            rough.append(Planned("turn", f"Rough the taper of Ø{step.entered}", _tapered(step, FINISH_STOCK)))
        if step.fine:
            what = f"Finish Ø{step.entered}{_taper_said(step)}"
            fine.append(Planned("turn", what, _feature(step, step.entered, step.far, step.finish), step.note))
    return rough + fine


def _taper_said(step: LineStep) -> str:
    return f" to {step.thin_end:.4g}" if step.taper else ""


def _tapered(step: LineStep, left: float) -> dict[str, str | bool]:
    """The cuts along a taper that leave so much on it [mm on diameter].

    They begin so far outside its large end that each takes the same depth of the wedge.
    """
    wide, thin = step.size.nominal + left, step.thin_end + left
    return {
        "start_diameter": f"{round(2 * wide - thin, 4):g} mm",
        "roughing": True,
        "end_diameter": f"{wide:g} mm",
        "length": f"{step.length:g} mm",
        "distance_from_chuck": f"{step.near:g} mm",
        "profile": f"{step.near:g} mm:{wide:g} mm; {step.far:g} mm:{round(thin, 4):g} mm",
    }


def _feature(step: LineStep, to: str, far: float, finish: str) -> dict[str, str | bool]:
    given: dict[str, Any] = {"end_diameter": to, "length": f"{far - step.near:g} mm", "distance_from_chuck": f"{step.near:g} mm"}
    if finish:
        given["roughness"] = finish
    if step.fillet is not None:
        given["fillet"] = f"{step.fillet:g} mm"
    if (step.chamfer > 0 or step.taper > 0) and to == step.entered:
        begins = far - step.chamfer
        edge = step.size.nominal - step.taper * (begins - step.near)
        points = [(step.near, step.size.nominal), (begins, edge)]
        points += [(far, edge - 2 * step.chamfer)] if step.chamfer > 0 else []
        given["profile"] = "; ".join(f"{place:g} mm:{round(wide, 4):g} mm" for place, wide in points)
    return given

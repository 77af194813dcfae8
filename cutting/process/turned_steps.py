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
            rough.append(Planned("turn", title, _feature(longer, f"{to:g}", far, "" if step.fine else step.finish)))
        if step.fine:
            fine.append(Planned("turn", f"Finish Ø{step.entered}", _feature(step, step.entered, step.far, step.finish)))
    return rough + fine


def _feature(step: LineStep, to: str, far: float, finish: str) -> dict[str, str | bool]:
    given: dict[str, Any] = {"end_diameter": to, "length": f"{far - step.near:g} mm", "distance_from_chuck": f"{step.near:g} mm"}
    if finish:
        given["roughness"] = finish
    if step.fillet is not None:
        given["fillet"] = f"{step.fillet:g} mm"
    if step.chamfer > 0 and to == step.entered:
        wide, begins = step.size.nominal, far - step.chamfer
        given["profile"] = f"{step.near:g} mm:{wide:g} mm; {begins:g} mm:{wide:g} mm; {far:g} mm:{wide - 2 * step.chamfer:g} mm"
    return given

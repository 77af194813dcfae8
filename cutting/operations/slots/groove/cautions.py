"""What can go wrong in a groove beyond a single limit, the advice on the way, and the cautions that belong next to it."""

from __future__ import annotations

from cutting.operations.frame.outcome import Warning
from cutting.operations.slots.groove.numbers import OPEN_BELOW, Numbers
from cutting.operations.slots.groove.setup import GrooveSetup, GrooveWay
from cutting.operations.slots.shared.cautions import narrow_cautions
from cutting.tooling.blades import CutOffBlade

WIDE, DEEP = 1.5, 1.5  # width over depth from which turning sideways pays; depth over width that wants plunges (common practice)
TOUGH = 0.6  # ductility from which a long chip is the trouble


def advised_way(setup: GrooveSetup) -> tuple[GrooveWay, str]:
    """The way that width, depth and metal speak for, with the reason (common practice, no source)."""
    f = setup.feature
    ratio = f.width.target / max(f.depth, 1e-6)
    w = setup.insert.width
    if f.narrowest - 1e-9 <= w <= f.widest - setup.insert.width_tolerance + 1e-9:
        return GrooveWay.ONE, "the insert is as wide as the groove"
    if f.width.target < 2.0 * w or ratio < 1.0 / DEEP:
        return (
            GrooveWay.SIDE_BY_SIDE,
            f"width is {ratio:.1f} of the depth: plunge, full cuts first, so that the blade is never pushed aside",
        )
    tough = setup.work.material.ductility > TOUGH or setup.work.material.adhesion > 0.6
    if tough and setup.insert.round_edge:
        return GrooveWay.ROUND, "a tough or sticky metal: a round path keeps the chip thin and short"
    if ratio >= WIDE:
        return GrooveWay.TURNED, f"width is {ratio:.1f} × the depth: turning sideways clears it with fewer strokes"
    return GrooveWay.SIDE_BY_SIDE, f"width is {ratio:.1f} of the depth: plunges stay secure"


def cautions(x: Numbers) -> list[Warning]:
    """Warnings and cautions of a groove."""
    setup = x.setup
    s, f = setup.settings, setup.feature
    found = narrow_cautions(setup.machine, setup.blade, s.coolant)
    way, why = advised_way(setup)
    if way is not s.way and not (setup.insert.round_edge and s.way is GrooveWay.ROUND):
        found.append(Warning("way_advice", f"Usual practice: {way.value}; {why}.", "note"))
    if f.corner_radius is None and not f.standard:
        said = f"The drawing says no corner: up to {f.corner:g} mm is taken as usual. Say what may stay."
        found.append(Warning("corner_unsaid", said, "note"))
    if setup.corners_left:
        found.append(
            Warning(
                "corners_left",
                f"A full radius of {setup.insert.corner_radius:g} mm leaves its corners: a second tool "
                "clears them; its index is in the time.",
                "note",
            )
        )
    if s.way is GrooveWay.SIDE_BY_SIDE and any(
        move.kind == "plunge" and move.engaged < OPEN_BELOW * setup.insert.width for move in x.strokes.order
    ):
        found.append(
            Warning(
                "open_side",
                "The second plunge cuts beside an open wall: it pushes the blade aside. A wider insert, or turn sideways.",
                "care",
            )
        )
    if isinstance(setup.blade, CutOffBlade) and f.diameter > setup.blade.largest_bar:
        found.append(
            Warning(
                "relief",
                f"Ø{f.diameter:g} is larger than the blade's relief of Ø{setup.blade.largest_bar:g}: see that its "
                "support clears at full depth.",
                "care",
            )
        )
    if x.median_parts and setup.work.material.ductility > TOUGH and s.way is GrooveWay.RAMP:
        found.append(
            Warning("long_ramp", "Ramps make long chips in ductile metal: interrupt the feed, or roll with a full radius.", "note")
        )
    if f.standard:
        found.append(
            Warning(
                "standard",
                f"{f.standard}: width {f.width.entered}, floor Ø{f.floor.nominal:g}; values from memory, hold them against the standard.",
                "note",
            )
        )
    return found

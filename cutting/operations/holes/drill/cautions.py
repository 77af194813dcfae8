"""Warnings and cautions of drilling: what hardens, burns, whips, kicks or is breathed in."""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np

from cutting.operations.frame.outcome import Warning
from cutting.operations.holes.drill.limits import DEEP, deeper_for_reamer
from cutting.operations.holes.drill.numbers import Numbers
from cutting.operations.holes.drill.setup import Pecks
from cutting.operations.holes.shared.held import seat_warnings

HARDENS = 0.5  # share of work hardening from which pecks and dwells harm
LONG = 12.0  # diameters that a drill stands out, from which it whips outside its hole
HIGH_PRESSURE = 20.0  # bar
CLOSE = 0.7  # of the depth that the flutes stand


def cautions(x: Numbers) -> Iterator[Warning]:
    """Warnings in no order."""
    setup, machine = x.setup, x.setup.machine
    yield from seat_warnings(setup)
    if bool(x.layers.laminate.any()):
        text = "Fibre dust is breathed in and gets into slides: extraction at the drill, a mask of the right class, no compressed air."
        yield Warning("fibre_dust", text, "care")
    if float(np.max(x.tool.pressure)) >= HIGH_PRESSURE:
        text = f"{float(np.max(x.tool.pressure)):.0f} bar at the point: doors closed before it opens; a jet goes through skin."
        yield Warning("pressure", text, "care")
    if setup.drill.flute_length >= LONG * setup.drill.diameter:
        text = "A long drill whips outside its hole: enter at 300 rpm or less, full speed inside, stop before it is withdrawn."
        yield Warning("whipping", text, "care")
    if machine.gear_set:
        text = "A unit held by hand or by a nose-piece kicks at break-through: lock it, both hands, no gloves near the drill."
        yield Warning("kick", text, "care")
    if float(np.max(x.packing)) > CLOSE and setup.settings.pecks is Pecks.NONE:
        yield Warning("swarf", "Chips may block the flutes: never pull them out by hand or while anything turns.", "note")
    if setup.settings.pecks is not Pecks.NONE and float(x.layers.work_hardening.max()) >= HARDENS:
        hard = setup.layers[int(np.argmax(x.layers.work_hardening))].name
        text = (
            f"{hard} hardens where a drill rests: no dwell, come back in fast, and better keep the feed up with coolant through the tool."
        )
        yield Warning("hardens", text, "care")
    if setup.depth >= DEEP * setup.drill.diameter:
        text = (
            f"{setup.depth / setup.drill.diameter:.0f} diameters deep: pilot 1.5 to 2 deep with the same or a flatter point, 0.02 mm"
            " wider; enter slowly, full speed inside, stop before withdrawing."
        )
        yield Warning("deep", text, "note")
    if bool((x.tool.burns & (x.layers.thickness > 0)).any()):
        yield Warning("diamond", "Diamond dissolves in hot iron: not in steel, stainless or iron.", "blocks")
    if setup.turns_part:
        text = "The part turns and the drill stands: set it on the axis within 0.02 mm for carbide, 0.05 for high-speed steel."
        yield Warning("on_axis", text, "note")
    if setup.from_tailstock and float(np.min(x.feed)) < machine.feeds[0]:
        fed = float(np.min(x.feed))
        text = f"Finer than the gearbox's {machine.feeds[0]:g} mm/rev: by hand from the tailstock, about {fed:.3g} mm/rev; withdraw often."
        yield Warning("fed_by_hand", text, "note")
    if setup.drill.type.kind == "reamer":
        text = (
            "A reamer corrects size and finish, not place or direction: it follows the hole that is there. It cuts some µm wide in soft"
            " metals and where it runs out; never turn it back."
        )
        if not setup.feature.through:
            text += f" Blind: drill {deeper_for_reamer(setup.drill.diameter):.1f} mm deeper than it reams, its chamfer cuts no full size."
        yield Warning("reamed", text, "note")
    if setup.drill.type.enlarges and setup.feature.pilot <= 0:
        yield Warning("no_pilot", f"{setup.drill.name} enlarges a hole: say what is there already.", "blocks")
    if setup.learned.note:
        yield Warning("learned", f"Learned from traces and used here: {setup.learned.note}.", "note")
    if x.layers.count > 1:
        yield from _of_stack(x)
    yield Warning("grip", "Part and drill are gripped before the spindle turns; long hair, sleeves and gloves stay away.", "note")


def _of_stack(x: Numbers) -> Iterator[Warning]:
    laminate = np.flatnonzero(x.layers.laminate)
    metal_below = [k for k in laminate if k + 1 < x.layers.count and not x.layers.laminate[k + 1]]
    if metal_below:
        first = x.setup.layers[metal_below[0]]
        text = (
            f"Hot chips of the metal rise through {first.name} and scour it: the hole grows at its top; break them short, keep them moving."
        )
        yield Warning("scour", text, "note")
    if not x.setup.settings.per_layer:
        yield Warning("clamp", "Clamp the stack harder than the drill pushes, or burr and chips part the layers.", "note")

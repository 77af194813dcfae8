"""What can go wrong in a cut-off beyond a single limit, and the cautions that belong next to it."""

from __future__ import annotations

from cutting.operations.frame.outcome import Warning
from cutting.operations.slots.cut_off.numbers import Numbers
from cutting.operations.turned.cautions import DEFER

NARROW = 0.75  # of the usual width for this Ø, below which a blade is said to wander


def cautions(x: Numbers) -> list[Warning]:
    """Warnings and cautions of a cut-off, the gravest first."""
    setup, found = x.setup, []
    f, s, h = setup.feature, setup.settings, setup.holding

    def add(name: str, severity: str, text: str) -> None:
        found.append(Warning(name, text, severity))

    if setup.machine.constant_surface_speed and s.spindle_clamp is None and f.bore <= 0:
        add(
            "no_clamp",
            "care",
            f"Constant cutting speed to the centre with no max. spindle speed set: the cut may run up to the machine's "
            f"{setup.machine.top_speed:.0f} rpm. Set one that suits chuck and bar.",
        )
    if f.bore <= 0 and s.school is None and not s.feed_zones:
        add(
            "full_feed",
            "care",
            "Full feed across the centre, where the cutting speed is zero: the tool only pushes. Halve the feed near it.",
        )
    if not h.sub_spindle and not h.part_catcher:
        add("part_falls", "care", "The part falls at the end and may fly or be marked: part catcher, or the sub-spindle takes it.")
    if s.stop_at:
        add(
            "stops_short",
            "note",
            f"The blade stops at Ø{s.stop_at:g}: the rest is pulled off by the sub-spindle, or broken off with the spindle stopped.",
        )
    if s.pull_out_at:
        add(
            "pull_out",
            "care",
            f"At Ø{s.pull_out_at:g} the spindle stands and the program waits: slide clear of the bar before the blade is loosened, set its "
            "height anew, tighten, guard closed.",
        )
    if h.tailstock:
        add("tailstock", "care", "A tailstock pushes on the part as it comes off: take it back before the last millimetres.")
    if x.flatness > 0 and setup.insert.lead_angle > 8:
        add(
            "steep_lead",
            "note",
            f"A lead angle of {setup.insert.lead_angle:g}° pushes the blade aside and dishes the face: less lead for hard-pushed cuts.",
        )
    if f.part_length > 6 * f.diameter and not h.sub_spindle:
        add(
            "long_part",
            "care",
            "The part hangs far out and whips as it comes free: support it, slow down, or let the sub-spindle hold it.",
        )
    if setup.insert.width < NARROW * x.usual_width:
        add("narrow", "note", f"Usual for this bar: about {x.usual_width:g} mm; narrower saves bar, and bends.")
    if (setup.machine.pressure(s.coolant) or 0.0) >= 20:
        add("pressure", "care", "Coolant under pressure: doors closed, no hands near nozzles or hoses.")
    bar_fed = setup.machine.bar_bore and f.diameter <= setup.machine.bar_bore
    if bar_fed:
        add("bar_behind", "note", "No bar end may whip behind the spindle: support it in the feeder over its whole length.")
    if not f.edge_break:
        add("edge_break", "note", "Chamfer or break the edge before the part falls: there is no way back to it.")
    if f.bore > 0:
        side = "the bar" if setup.insert.lead_angle > 0 else "both sides"
        add("ring_left", "note", f"A tube ends in a thin ring that folds over: the burr stays on {side}; break it before the bore opens.")
    if h.y_axis:
        add(
            "y_axis",
            "note",
            f"Turned by the Y axis the tip gives {x.y_gain:.1f} × less here: both forces, this section and reach, and the turret, which "
            "takes the force straight. Twice to six times are quoted: a higher feed is tried on the first pieces.",
        )
    if not setup.blade.through and (setup.machine.pressure(s.coolant) or 0.0) >= 20:
        add(
            "beside_slot",
            "note",
            "This blade has no coolant channel: of a jet beside the slot little reaches under the chip. "
            "Already 20 bar through the tool pays.",
        )
    add(
        "guards",
        "note",
        "Guards closed, chuck key out, eye protection; no gloves or loose sleeves near the chuck; spindle stopped to clear chips. " + DEFER,
    )
    return found

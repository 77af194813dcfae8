"""What can go wrong beyond a single limit, and the cautions that belong next to the cut."""

from __future__ import annotations

import numpy as np

from cutting.mechanics.deflection import Holding
from cutting.operations.outcome import Warning
from cutting.operations.setup import Setup, Skin
from cutting.operations.single_point.physics import Cut

LONG_CHIPS = 50.0  # chip index below which long or packed chips are expected
DEFER = "The machine's manual, local rules and trained people come first."


def cautions(setup: Setup, done: Cut) -> list[Warning]:
    """Warnings and cautions for a set-up, plainly and once each."""
    found: list[Warning] = []

    def add(name: str, severity: str, text: str) -> None:
        found.append(Warning(name, text, severity))

    machine, holding, settings, material = setup.machine, setup.holding, setup.settings, setup.work.material
    if machine.constant_surface_speed and settings.spindle_clamp is None and setup.operation == "face":
        add(
            "no_clamp",
            "care",
            f"Facing at constant cutting speed with no clamp of its own: only the machine's "
            f"{machine.top_speed:.0f} 1/min holds it back. Set a clamp that suits chuck and part.",
        )
    clamped = done.cutting_speed < 0.98 * settings.cutting_speed
    if np.any(clamped) and not machine.speeds:
        reached = float(done.cutting_speed.ravel()[-1])
        add(
            "speed_not_reached",
            "care",
            f"The spindle's limit holds cutting speed at {reached:.0f} m/min instead of "
            f"{settings.cutting_speed:.0f}. Small diameters: consider high-speed steel or a ground edge.",
        )
    if machine.speeds:
        add(
            "gear_step",
            "note",
            f"Gearbox: nearest lower steps taken, {done.spindle_speed.ravel()[-1]:.0f} 1/min and "
            f"{float(np.ravel(done.feed_per_rev)[-1]):g} mm/rev.",
        )
    ratio = holding.free_length / max(setup.feature.end.nominal, 1.0)
    if holding.style is Holding.CHUCK and ratio > 4 and setup.operation == "turn":
        add("slender", "care", f"The part stands {ratio:.1f} × D out of the chuck with no centre: support it or shorten it.")
    if machine.condition == "worn" and setup.insert.grade.tool_class != "hss":
        add("worn_machine", "care", "A worn spindle breaks carbide: tougher grade, more feed and less speed, or high-speed steel.")
    if setup.skin is Skin.WELD:
        add("weld_touch_off", "care", "Weld build-up: touch off at the highest point, first cut about 0.75 mm and under the skin.")
    if setup.insert.grade.tool_class in ("cbn", "ceramic") and settings.coolant != "dry":
        add("thermal_shock", "care", "Hard cutting materials run dry or fully flooded, never wetted now and then: thermal cracks.")
    nose = setup.insert.code.nose_radius
    depth = float(np.ravel(done.depth_of_cut)[-1])
    if depth < nose * 0.5 and setup.work.material.group.letter != "H":
        add(
            "shallow_nose",
            "note",
            f"Depth {depth:.2f} mm is below half the corner radius {nose:g} mm: the nose pushes the part away more than it feeds.",
        )
    if material.group.number in (36, 37):
        add("titanium_fire", "care", "Titanium swarf burns: keep it cleared and wet, extinguisher for metal fires at hand. " + DEFER)
    if float(done.chip_index.min()) < LONG_CHIPS:
        add("long_chips", "care", "Expect long chips: never reach for them; stop the spindle and use a hook.")
    add(
        "guards",
        "note",
        "Guards closed, chuck key out, eye protection; no gloves or loose sleeves near the chuck; "
        "spindle stopped to measure and to clear chips. " + DEFER,
    )
    return found

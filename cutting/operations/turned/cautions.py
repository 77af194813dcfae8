"""What can go wrong beyond a single limit, and the cautions that belong next to the cut."""

from __future__ import annotations

from collections.abc import Callable

import numpy as np

from cutting.mechanics.deflection import Holding
from cutting.operations.coolant import MAGNESIUM, advise_coolant
from cutting.operations.frame.outcome import Warning
from cutting.operations.frame.setup import Skin
from cutting.operations.turned.contour import diameter_at
from cutting.operations.turned.physics import Cut
from cutting.operations.turned.plan import pass_depths, skin_depth
from cutting.operations.turned.setup import Setup
from cutting.operations.turned.surface import Surface

LONG_CHIPS = 50.0  # chip index below which long or packed chips are expected
DEFER = "The machine's manual, local rules and trained people come first."
CLAMPED = 0.98  # of the set speed, below which the spindle's top is what runs
FAST = 0.75  # of the chuck's highest speed
WEAK_GRIP = 0.6  # of the full jaw force
BAR_FED = 15  # s: who loads faster feeds bars
GRIND_FROM = 4  # passes in hardened metal from which somebody would grind, or turn before hardening (common practice)
OFF_CENTRE = 0.05  # mm off centre height that leave a pip
REACHES_OVER = 1.5  # times the stock that stands beside the edge
CREEPS = 0.6  # of the set speed, below which an edge builds up towards the centre


def cautions(setup: Setup, done: Cut) -> list[Warning]:
    """Warnings and cautions for a set-up, plainly and once each."""
    found: list[Warning] = []

    def add(name: str, severity: str, text: str) -> None:
        found.append(Warning(name, text, severity))

    machine, holding, settings = setup.machine, setup.holding, setup.settings
    if machine.constant_surface_speed and settings.spindle_clamp is None and setup.surface is Surface.FACE:
        add(
            "no_clamp",
            "care",
            f"Facing at constant cutting speed with no max. spindle speed set: the cut may run up to the machine's "
            f"{machine.top_speed:.0f} rpm. Set one that suits chuck and part.",
        )
    clamped = done.cutting_speed < CLAMPED * settings.cutting_speed
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
            f"Gearbox: nearest lower steps taken, {done.spindle_speed.ravel()[-1]:.0f} rpm and "
            f"{float(np.ravel(done.feed_per_rev)[-1]):g} mm/rev.",
        )
    ratio = holding.free_length / max(setup.feature.end_diameter.nominal, 1.0)
    if holding.style is Holding.CHUCK and not holding.guide_bush and ratio > 4 and setup.surface is Surface.OUTSIDE:
        add("slender", "care", f"The part stands {ratio:.1f} × D out of the jaws with no centre: support it or shorten it.")
    if machine.condition == "worn" and setup.insert.grade.tool_class != "hss":
        add("worn_machine", "care", "A worn spindle breaks carbide: tougher grade, more feed and less speed, or high-speed steel.")
    if setup.skin is Skin.WELD:
        add("weld_touch_off", "care", "Weld build-up: touch off at the highest point, first cut about 0.75 mm and under the skin.")
    if setup.insert.grade.tool_class in ("cbn", "ceramic") and settings.coolant != "dry":
        add(
            "thermal_shock", "care", "Hard cutting materials run dry or fully flooded, never with intermittent coolant: it cracks the edge."
        )
    nose = setup.insert.code.nose_radius
    depth = float(np.ravel(done.depth_of_cut)[-1])
    if depth < nose * 0.5 and setup.work.material.group.letter != "H":
        add(
            "shallow_nose",
            "note",
            f"Depth {depth:.2f} mm is below half the corner radius {nose:g} mm: the nose pushes the part away more than it feeds.",
        )
    _at_the_chuck(setup, done, add)
    _of_the_edge(setup, done, add)
    if float(done.chip_index.min()) < LONG_CHIPS:
        add("long_chips", "care", "Expect long chips: never reach for them; stop the spindle and use a hook.")
    add(
        "guards",
        "note",
        "Guards closed, chuck key out, eye protection; no gloves or loose sleeves near the chuck; "
        "spindle stopped to measure and to clear chips. " + DEFER,
    )
    return found


Add = Callable[..., None]


def _at_the_chuck(setup: Setup, done: Cut, add: Add) -> None:
    """What holds the part, and what may fly or hang out of the machine."""
    machine, holding = setup.machine, setup.holding
    fast = float(np.max(done.spindle_speed)) / machine.chuck_speed_max
    if fast > FAST:
        add("jaws_at_speed", "care", f"{fast:.0%} of the chuck's marked speed: jaws lose grip as they turn; check grip and balance.")
    if holding.weak or holding.grip_share < WEAK_GRIP:
        add("light_grip", "care", "Light grip: the part may come loose and fly; small cuts, stop against the jaws, guard closed.")
    if setup.away:
        add("pulls_out", "care", "Fed away from the chuck the cut pulls the part out of the jaws: hold it on a stop or a step.")
        if holding.style is not Holding.CHUCK:
            add("pulls_off_centre", "care", "Fed away from the chuck the cut loads the centre: do not use with a weak centre hole.")
    # a machine that loads in seconds is fed from the bar
    if machine.bar_bore and setup.feature.start_diameter <= machine.bar_bore and machine.handling_time < BAR_FED:
        add("bar_behind", "note", "Bar stock: no end may whip behind the spindle; support it in the feeder over its whole length.")


def _of_the_edge(setup: Setup, done: Cut, add: Add) -> None:
    """Height, hard work, skins, thin cuts and polishing."""
    settings, tool = setup.settings, setup.insert.grade
    height, school = setup.centre_height, setup.house.off_centre
    if height:
        side = "above" if height > 0 else "below"
        why = "as the house sets it" if settings.centre_height is None and school else "as set"
        rake, clearance = float(np.ravel(done.effective_rake)[-1]), float(np.ravel(done.effective_clearance)[-1])
        add("off_centre", "note", f"Tip {abs(height):.2f} mm {side} centre, {why}: working rake {rake:.1f}°, clearance {clearance:.1f}°.")
    if setup.surface is Surface.FACE and setup.feature.end_diameter.nominal == 0 and abs(height) > OFF_CENTRE:
        add("pip", "care", f"A pip of about Ø{2 * abs(height):.2f} mm stays at the centre, and it breaks edges: set the tip on centre.")
    hard = setup.work.material.group.letter == "H"
    many = len(pass_depths(setup))
    if hard and many >= GRIND_FROM:
        stock = f"{setup.stock_to_remove:.2f} mm on the radius in {many} hard passes"
        add("grind_instead", "note", f"{stock}: leave 0.1 to 0.3 mm when it is soft, or grind it; hard turning is for the last tenths.")
    if hard:
        add("hard_sparks", "care", "Hard turning throws sparks and red-hot chips: guard closed, no oil or swarf about. " + DEFER)
    if setup.machine.pressure(settings.coolant) and (setup.machine.pressure(settings.coolant) or 0) >= 20:
        add("pressure", "care", "Coolant under pressure: doors closed, no hands near nozzles or hoses.")
    advice = advise_coolant(setup)
    if advice.rule != MAGNESIUM and any(d.name == settings.coolant and d.fits == "forbidden" for d in advice.deliveries):
        add("coolant_forbidden", "care", advice.why)
    above = stock_above(setup)
    if above > REACHES_OVER * setup.stock_to_remove + 0.1:
        add(
            "blank_above_contour",
            "care",
            f"The blank stands up to {above:.1f} mm above the contour, the passes take {setup.stock_to_remove:.2f} mm along it: "
            "rough the shape first, or say how the blank is shaped.",
        )
    depths = pass_depths(setup)
    if setup.skin is not Skin.WELD and depths[0] < skin_depth(setup) - 1e-9:
        add(
            "inside_skin",
            "care",
            f"The first cut of {depths[0]:.2f} mm runs inside the skin of about {skin_depth(setup):.2f} mm: "
            "go under it at once, or the edge wears on it.",
        )
    if len(depths) > 1 and depths[-1] < 0.5 * depths[-2] and setup.feature.end_diameter.tolerance:
        add(
            "light_last_cut",
            "care",
            f"The last cut of {depths[-1]:.2f} mm is much lighter than the {depths[-2]:.2f} mm before it: the offset changes and the size "
            "is missed. Equal cuts, or let size control reckon with it.",
        )
    if setup.feature.polish:
        add(
            "polishing",
            "care",
            "Abrasive cloth on a turning part only on a backing board or a holder in the tool post, never by hand or wrapped, no gloves.",
        )
    if tool.tool_class != "hss" and np.any(done.cutting_speed < CREEPS * settings.cutting_speed) and not setup.machine.speeds:
        add("fine_cut", "note", "Carbide below its speed tears: compare high-speed steel or a ground edge under turning methods.")


PLACES = 40  # of a contour at which the stock above it is looked at


def stock_above(setup: Setup) -> float:
    """How far the part before this cut stands above the contour at most [mm on radius]; 0 without a contour."""
    f, steps = setup.feature, setup.holding.steps
    if not f.profile or not steps:
        return 0.0
    first, last = f.profile[0][0], f.profile[-1][0]
    places = first + (np.arange(PLACES) + 0.5) / PLACES * (last - first)  # inside it: what stands beside a contour is not above it
    starts = np.array([start for start, _ in steps])
    stock = np.array([diameter for _, diameter in steps])[np.searchsorted(starts, places, side="right") - 1]
    return float(max((d - diameter_at(f, p)) / 2 for d, p in zip(stock, places, strict=True)))

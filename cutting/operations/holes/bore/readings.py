"""What boring says beside turning: how the bar gives and swings, what spring passes leave, and the scene from inside."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace

import numpy as np

from cutting.operations.frame.model import Readings
from cutting.operations.frame.outcome import Value, Warning
from cutting.operations.frame.over_passes import last_pass
from cutting.operations.frame.results import ResultsSaid
from cutting.operations.turned import readings as turned
from cutting.operations.turned.cautions import cautions
from cutting.operations.turned.evaluate import MODEL as TURNED
from cutting.operations.turned.fit import warnings_of_fit
from cutting.operations.turned.limits import size_error_limit
from cutting.operations.turned.physics import Cut
from cutting.tooling.bars import body_of
from cutting.working import Recorder

# of turning's cautions those that stand otherwise inside, or not at all
SAID_OTHERWISE = ("slender", "bar_behind", "long_chips", "polishing", "shallow_nose", "no_clamp")
HELD = (*SAID_OTHERWISE, "jaws_at_speed", "light_grip")  # where a head turns there are no jaws
SHOWN = 1.7  # × the bore that is drawn of a part on its table
SPRING_PASSES = 2  # that anybody takes: what is left after two is no springing (common practice)


def spring_share(x: Cut) -> float:
    """Share of the springing that one more pass at the same setting leaves: k_cut/(k_cut + k_bar), from the push of the last pass."""
    push, depth, error = (last_pass(one) for one in (x.passive_force, x.depth_of_cut, x.size_error))
    give = error / 2.0 / max(push, 1e-9)
    cutting = push / max(depth, 1e-9)
    return float(cutting * give / (1.0 + cutting * give))


def springing_left(x: Cut, passes: int) -> float:
    """What of the springing on the diameter [mm] so many spring passes leave: their share of it, and no less than an edge can cut."""
    error = last_pass(x.size_error)
    return min(error, max(error * spring_share(x) ** passes, 2.0 * last_pass(x.minimum_chip)))


def results(x: Cut, record: Recorder) -> dict[str, Value]:
    """Turning's results, with the bar's own after them."""
    found = turned.results(x, record)
    say = ResultsSaid(record)
    give, error = last_pass(x.cutter.bar_compliance), 1000.0 * last_pass(x.size_error)  # µm
    say.banded("bar_stiffness", "stiffness of the bar at its tip", 0.001 / give, "stiffness", "bar")
    say.banded("bar_frequency", "natural frequency, Hz", last_pass(x.cutter.bar_frequency), "number", "swing")
    left = 1000.0 * springing_left(x, 1)
    say.banded(
        "spring_pass",
        "springing left after one spring pass",
        left,
        "small_length",
        "springing",
        "size_error",
        ends="what the same push leaves of it, again",
    )
    say.between(
        "bell_mouth",
        "wider at the mouth, about",
        error,
        "small_length",
        0.5 * error,
        # a fifth more than the error: so far the bar gave way, and what it says differs
        1.2 * error,
        "passive_force",
        "deflection",
        "size_error",
    )
    return {**found, **say.found}


def warnings(x: Cut) -> Iterator[Warning]:
    """Misfits, what can go wrong with any edge, and what goes wrong inside."""
    yield from warnings_of_fit(x.setup)
    yield from (one for one in cautions(x.setup, x) if one.name not in (HELD if x.setup.head_turns else SAID_OTHERWISE))
    if x.setup.feature.polish:
        text = "Never put fingers or cloth into a turning bore: abrasive on a holder in the tool post or a spring-loaded stick, no gloves."
        yield Warning("polishing", text, "care")
    feature, bar = x.setup.feature, x.setup.holder.code
    if last_pass(np.minimum(x.chip_index, 100.0)) < x.setup.house.chip_index_wanted:
        text = "Long chips wrap around the bar: never reach into a bore or pull chips out while anything turns."
        yield Warning("wrapping_chips", text, "care")
    if feature.shoulder:
        text = "Chips lie at the floor or step and in its corner: flush them out, stop before it, look before the next pass."
        yield Warning("blind_chips", text, "note")
    # µm of size that two spring passes leave are felt at the gauge
    if springing_left(x, SPRING_PASSES) > 0.005:
        yield Warning("springs_on", "Two spring passes leave more than 5 µm: the bar is too slender, not the pass too few.", "care")
    if x.setup.head_turns:
        text = (
            f"Fine boring head: set by {1000.0 * x.setup.house.setting_step:g} µm on the diameter, always towards larger, play taken out;"
            " balanced for its speed, stopped and locked before it is set or measured."
        )
        yield Warning("head", text, "care")
    if body_of(bar.bar).name.startswith("damped"):
        yield Warning(
            "damped_bar", "A damped bar is gripped over its whole seat, never on its head, and is not turned end for end.", "note"
        )
    yield Warning(
        "inside", "Tip on centre or a little above, bar out as little as the depth lets; measure with the spindle stopped.", "note"
    )


class BoreScene(turned.TurnedScene):
    """Turning's, with the bar."""

    bar_diameter: float
    bar_body: str
    bent: float
    outside: float
    turns: str


def scene(x: Cut) -> BoreScene:
    """Turning's drawing with the bar: its diameter, and what it gives exaggerated on the drawing."""
    setup, bar = x.setup, x.setup.holder.code
    return {
        **turned.scene(x),
        "overhang": setup.overhang,
        "bar_diameter": bar.shank_height,
        "bar_body": body_of(bar.bar).name,
        "bent": last_pass(x.size_error) / size_error_limit(x.case),
        "outside": SHOWN * setup.feature.end_diameter.nominal if setup.head_turns else setup.holding.grip_diameter,
        "turns": "head" if setup.head_turns else "part",
    }


READINGS: Readings[Cut] = replace(TURNED.readings, results=results, warnings=warnings, scene=scene)

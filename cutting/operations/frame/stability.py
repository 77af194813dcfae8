"""The width of cut that a part stands before it sings, for every kind alike."""

from __future__ import annotations

from typing import Any

import numpy as np
from numpy.typing import NDArray

from cutting.mechanics import chatter
from cutting.working import Silent

Array = NDArray[np.float64]
LEAST_PUSH = 1e-9  # of the cutting force: what does not push does not sing


def stable_on_part(
    give: Any, frequency: float, slope: Any, mode_share: Any, push: Any, cutting_speed: Any, spindle_speed: Any, record: Silent
) -> Array:
    """Stable width [mm] on a part that gives [mm/N] and swings [Hz], with the rubbing of the flank and between the lobes.

    `slope` is that of the force over chip thickness [N/mm²], `mode_share` what of it acts along the swing, `push` the force in the
    plane over the cutting force [–]; speeds m/min and 1/min.
    """
    at_every_speed = record(
        chatter.stable_width,
        stiffness=1.0 / give,
        damping_ratio=chatter.PART_DAMPING,
        force_slope=slope,
        mode_share=mode_share,
        note=f"at every speed; the natural frequency of the part is about {frequency:.0f} Hz",
    )
    waves = chatter.wave_length(cutting_speed, frequency)
    damped = record(chatter.process_damping, wave_length=waves, force_slope=slope, in_plane_ratio=np.maximum(push, LEAST_PUSH))
    return np.asarray(at_every_speed * damped * chatter.sure_gain(spindle_speed / (60.0 * frequency), chatter.PART_DAMPING))

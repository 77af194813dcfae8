"""The speed that a narrow cut usually starts at: a share of the group's row for turning."""

from __future__ import annotations

from collections.abc import Callable

from cutting.operations.frame.over_passes import last_pass
from cutting.operations.frame.speed_reason import UsualSpeed
from cutting.operations.slots.shared.cut import SLOWER, SlotCut
from cutting.wear.reference import SpeedFactor, speed_factors

FAR = 0.2  # off the middle of the usual share: 0.6 to 0.8 of turning need no reason (common practice)


def usual_speed(slower: float = SLOWER) -> Callable[[SlotCut], UsualSpeed]:
    """How a kind tells its usual speed; `slower` is its share of the turning speed."""

    def found(x: SlotCut) -> UsualSpeed:
        setup = x.setup
        pressure, interrupted = last_pass(x.tool.pressure), getattr(setup.holding, "interrupted", False)
        factors = speed_factors(setup.work, setup.edge.grade, pressure, interrupted, setup.skin, False)
        more = (*factors, SpeedFactor("further out", slower / SLOWER, "a face blade or a head")) if slower < SLOWER else factors
        row = SLOWER * last_pass(x.tool.reference_speed)
        return UsualSpeed(last_pass(x.cutting_speed), row, more, ("feed",), FAR)

    return found

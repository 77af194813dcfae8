"""A blade that the Y axis turns by a quarter: the cutting force runs along it and not across its height."""

from __future__ import annotations

from typing import Any

from cutting.errors import OutOfRange
from cutting.machine.machines import Machine
from cutting.mechanics.blade import y_axis_gain
from cutting.tooling.blades import Blade

PUSHES = 0.4  # plunge force over cutting force, about
FEED_BY_STIFFNESS, MOST_FEED = 0.6, 2.0  # power of the stiffness with which feed grows, and how far (common practice)


def turned_feed(setup: Any, blade: Blade) -> float:
    """How many times its width's largest feed a turned blade stands: the stiffer that makes it, the more (common practice: 1.5 to 2)."""
    post = 1e3 * setup.machine.post_stiffness
    gain = float(y_axis_gain(1.0, PUSHES, setup.stands_out(blade), blade.thickness, blade.height, post))
    return min(gain**FEED_BY_STIFFNESS, MOST_FEED)


def check_y_axis(machine: Machine, field: str) -> None:
    """Raise `OutOfRange` naming the field where the machine cannot turn a blade."""
    if not machine.y_axis:
        raise OutOfRange(field, f"{machine.name} has no Y axis.", "a machine with a Y axis")

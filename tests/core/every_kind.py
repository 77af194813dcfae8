"""A sound set-up of every kind of operation in its JSON form, for what holds of all kinds alike."""

from __future__ import annotations

from typing import Any

from tests.core.bores import BORE
from tests.core.heavy import HEAVY
from tests.core.holes import HOLE
from tests.core.mills import SEAT
from tests.core.slots import CUT_OFF, FACE, GROOVE, TREPAN
from tests.core.thread_setups import MILL, TAP
from tests.core.thread_setups import TURN as THREAD

TURN: dict[str, Any] = {
    "operation": "turn",
    "material": "42CrMo4",
    "machine": "two-axis lathe",
    "tool": {"insert": "CNMG 120408 middle P20", "holder": "PCLNR 2525 M12"},
    "feature": {"start_diameter": 57, "end_diameter": "49 h9", "length": 120, "distance_from_chuck": 20},
    "settings": {"cutting_speed": 150, "feed_per_rev": 0.25, "depth_of_cut": 2, "coolant": "flood"},
    "holding": {"style": "chuck and centre", "free_length": 180},
}
FACING: dict[str, Any] = {
    **TURN,
    "operation": "face",
    "feature": {"start_diameter": 57, "end_diameter": 0, "length": 2},
    "holding": {"free_length": 60},
}
HEAVY_BORE: dict[str, Any] = {**HEAVY, "tool": {"heavy_tool": HEAVY["tool"]["heavy_tool"]["name"]}}
EVERY_KIND: dict[str, dict[str, Any]] = {
    one["operation"]: one for one in (TURN, FACING, GROOVE, FACE, TREPAN, HOLE, SEAT, BORE, HEAVY_BORE, THREAD, TAP, MILL, CUT_OFF)
}

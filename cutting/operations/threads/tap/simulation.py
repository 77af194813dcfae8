"""A tap's torque over its way in and out, against what breaks it, what slips and what drives it: simulated from its own numbers."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from cutting.operations.frame.over_passes import last_pass
from cutting.operations.threads.tap.numbers import DROPS_OUT, LEFT_BACK, PACKED, PACKED_FROM, PACKED_MOST, Numbers
from cutting.operations.threads.tap.tool import Array

STATIONS = 160


@dataclass(frozen=True)
class TapRun:
    """One thread in time: s, mm of the tap's point below the entry, N·m (below zero on its way back)."""

    seconds: Array
    depth: Array
    torque: Array
    turns_back: float  # s
    breaking: float
    clutch: float | None
    spindle: float


def simulate(x: Numbers) -> TapRun:
    """In and out at the lead: the chamfer comes in tooth by tooth, chips pack, and turning back the thread only rubs."""
    setup = x.setup
    f, tap = setup.feature, setup.tap
    chamfer = tap.chamfer_threads * f.thread.pitch
    deep = f.length + chamfer
    way = np.linspace(-3.0 * f.thread.pitch, deep, STATIONS)
    engaged = np.clip(way / chamfer, 0.0, 1.0) * (1.0 if f.through else np.ones_like(way))
    if f.through:  # the chamfer runs out at the far end
        engaged = engaged * np.clip((f.length + chamfer - way) / chamfer, 0.0, 1.0)
    full = last_pass(x.torque)
    drops = DROPS_OUT if f.through else 1.0
    packs = drops * np.clip(way / np.maximum(tap.type.deepest * tap.diameter, 1e-9) - PACKED_FROM, 0.0, PACKED_MOST)
    at_end = 1.0 + PACKED * (0.0 if tap.type.forms else drops * float(np.clip(last_pass(x.chip_depth) - PACKED_FROM, 0.0, PACKED_MOST)))
    torque = full * engaged * np.minimum((1.0 + PACKED * (0.0 if tap.type.forms else 1.0) * packs) / at_end, 1.0)
    rate = last_pass(x.feed_rate) / 60.0
    there = (way - way[0]) / rate
    back = way[::-1]
    rub = -LEFT_BACK * full * np.clip(back / deep, 0.0, 1.0)
    seconds = np.concatenate([there, there[-1] + (way[-1] - back) / rate])
    return TapRun(
        seconds, np.concatenate([way, back]), np.concatenate([torque, rub]), float(there[-1]), last_pass(x.breaking), setup.settings.clutch,
        last_pass(x.available),
    )  # fmt: skip

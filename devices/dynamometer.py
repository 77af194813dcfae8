"""A simulated dynamometer under the drill: JSON lines over TCP on the loopback, with a truth of its own, noise and drift.

One request a connection: `{"point": …, "layers": …, "feed_rate": …, "hole": n}` as one line. Answers are lines
`{"time": s, "thrust": N, "torque": N·m}` while the drill cuts, then `{"done": true}`. What it was asked is what a sharp drill of the
tables would do; what it answers is that times its hidden factors, which grow from hole to hole.
"""

from __future__ import annotations

import argparse
import asyncio
import json
import random
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any

import numpy as np

from cutting.operations.holes.drill.simulation import Cutting, DepthPoint, trace

HOST, PORT = "127.0.0.1", 8391
RATE = 100.0  # samples a second of the cut
QUICKER = 8.0  # times faster than the cut, so that a person need not wait for a slow hole
MOST_SAMPLES = 20_000
BEFORE = 1.2  # mm of air in front of the part, and behind it
LINE_LIMIT = 65_536


@dataclass(frozen=True)
class Truth:
    """What the device knows and nobody else: factors on the tables, growth from hole to hole, noise and drift of its channels."""

    force: dict[str, float]
    chisel: float
    margin: float
    growth: tuple[float, float]
    thrust_noise: float = 6.0
    torque_noise: float = 0.015
    thrust_drift: float = 9.0
    torque_drift: float = 0.02
    shift: float = 0.0


def truth_of(seed: int, names: list[str]) -> Truth:
    """The hidden truth of one drill in some materials."""
    rng = random.Random(seed)
    force = {name: rng.uniform(0.8, 1.3) for name in sorted(set(names))}
    return Truth(
        force, rng.uniform(0.7, 1.3), rng.uniform(0.7, 1.8), (rng.uniform(0.004, 0.012), rng.uniform(0.6, 0.8)), shift=rng.uniform(0, 0.4)
    )


def samples(asked: dict[str, Any], truth: Truth, seed: int) -> Iterator[dict[str, float]]:
    """The samples of one hole: time [s], thrust [N], torque [N·m]."""
    rng = np.random.default_rng(seed)
    point = DepthPoint(**{name: float(asked["point"][name]) for name in ("radius", "inner", "chisel", "tangent")})
    layers = asked["layers"]
    near, far = (np.array([float(one[name]) for one in layers]) for name in ("near", "far"))
    grown = 1.0 + truth.growth[0] * max(float(asked.get("hole", 1)) - 1.0, 0.0) ** truth.growth[1]
    force = np.array([float(one["force"]) * truth.force.get(str(one["name"]), 1.0) for one in layers]) * grown
    margin = np.array([float(one["margin"]) for one in layers]) * truth.margin
    cutting = Cutting(force, float(asked["back"]), float(asked["chisel_share"]) * truth.chisel, margin)
    rate = float(asked["feed_rate"])  # mm/min
    seconds = 60.0 * (BEFORE * 2 + float(far[-1]) + point.cone) / rate
    count = int(min(max(seconds * RATE, 200), MOST_SAMPLES))
    times = np.linspace(0.0, seconds, count)
    depth = times * rate / 60.0 - BEFORE - truth.shift
    thrust, lips, rubbed = trace(depth, point, near, far, cutting)
    along = times / seconds
    thrust = thrust + truth.thrust_drift * along + rng.normal(0.0, truth.thrust_noise, count)
    torque = lips + rubbed + truth.torque_drift * along + rng.normal(0.0, truth.torque_noise, count)
    for k in range(count):
        yield {"time": round(float(times[k]), 5), "thrust": round(float(thrust[k]), 3), "torque": round(float(torque[k]), 5)}


async def _answer(reader: asyncio.StreamReader, writer: asyncio.StreamWriter, seed: int) -> None:
    try:
        line = await asyncio.wait_for(reader.readline(), 30)
        asked = json.loads(line)
        names = [str(one["name"]) for one in asked["layers"]]
        hole = int(asked.get("hole", 1))
        last = 0.0
        for sample in samples(asked, truth_of(seed, names), seed * 1000 + hole):
            writer.write(json.dumps(sample).encode() + b"\n")
            if sample["time"] - last > 0.4:  # a handful at a time, at the pace of the cut
                await writer.drain()
                await asyncio.sleep((sample["time"] - last) / QUICKER)
                last = sample["time"]
        writer.write(b'{"done": true}\n')
        await writer.drain()
    except (TimeoutError, ValueError, KeyError, TypeError, IndexError) as error:
        writer.write(json.dumps({"error": f"the request was not understood: {type(error).__name__}"}).encode() + b"\n")
    except ConnectionError:
        pass
    finally:
        writer.close()


async def serve(port: int, seed: int) -> None:
    """Answer on the loopback until the process ends."""
    server = await asyncio.start_server(lambda reader, writer: _answer(reader, writer, seed), HOST, port, limit=LINE_LIMIT)
    async with server:
        await server.serve_forever()


if __name__ == "__main__":
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--port", type=int, default=PORT)
    parser.add_argument("--seed", type=int, default=7)
    given = parser.parse_args()
    asyncio.run(serve(given.port, given.seed))

"""The line to the dynamometer: one hole asked for, its samples as they come."""

from __future__ import annotations

import json
import os
import socket
from collections.abc import Iterator
from typing import Any

import numpy as np

from cutting.operations.holes.drill.numbers import Numbers
from cutting.operations.holes.drill.simulation import cutting_of
from server.errors import Refusal

HOST = "127.0.0.1"
PATIENCE = 20.0  # s without a sample
STOPPED = "The dynamometer stopped before the hole was done; nothing was kept."


def port() -> int:
    """Where the dynamometer listens."""
    return int(os.environ.get("ARROW_BENCH_DYNAMOMETER", "0") or 0)


def request_of(x: Numbers, hole: int) -> dict[str, Any]:
    """What the device is asked to drill: the tables' sharp drill in its layers."""
    point, cutting = cutting_of(x)
    layers = [
        {
            "name": one.material.name,
            "near": float(x.layers.near[k]),
            "far": float(x.layers.far[k]),
            "force": float(cutting.force[k]),
            "margin": float(cutting.margin_share[k]),
        }
        for k, one in enumerate(x.setup.layers)
    ]
    rate = float(np.ravel(x.feed_rate)[0])
    return {
        "point": vars(point),
        "back": cutting.back,
        "chisel_share": cutting.chisel_share,
        "feed_rate": rate,
        "hole": hole,
        "layers": layers,
    }


def record(asked: dict[str, Any]) -> Iterator[dict[str, float]]:
    """Samples of one hole until the device says that it is done. Raises a 503 refusal where no device answers or it stops."""
    if not port():
        raise Refusal(503, "No dynamometer is connected.")
    try:
        line = socket.create_connection((HOST, port()), timeout=PATIENCE)
    except OSError as error:
        raise Refusal(503, "The dynamometer does not answer: is it switched on?") from error
    return _samples(line, asked)


def _samples(line: socket.socket, asked: dict[str, Any]) -> Iterator[dict[str, float]]:
    """Half a hole teaches the wrong thing: what ends before the device says so is refused."""
    try:
        with line, line.makefile("rwb") as stream:
            stream.write(json.dumps(asked).encode() + b"\n")
            stream.flush()
            for text in stream:
                answer = json.loads(text)
                if answer.get("done"):
                    return
                if "error" in answer:
                    raise Refusal(503, f"The dynamometer: {answer['error']}")
                yield {name: float(answer[name]) for name in ("time", "thrust", "torque")}
    except (OSError, ValueError, KeyError, TypeError) as error:
        raise Refusal(503, STOPPED) from error
    raise Refusal(503, STOPPED)

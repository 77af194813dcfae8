"""Simulated instruments beside a machine: a micrometer that sends lines over TCP, and an MTConnect agent over HTTP, both on the loopback.

The micrometer answers `?` with one line, `49.003 mm`; the agent answers `/probe`, `/current` and `/sample?from=&count=` with XML as
MTConnect 1.7 has it. The machine turns part after part; now and then its line to the agent breaks, and the agent says UNAVAILABLE.
"""

from __future__ import annotations

import argparse
import asyncio
import random
import time
from collections import deque
from collections.abc import Callable
from dataclasses import dataclass, field
from datetime import UTC, datetime
from urllib.parse import parse_qs, urlsplit

HOST = "127.0.0.1"
RATE = 10.0  # samples a second
BUFFER = 8192  # samples that the agent holds
CUT, IDLE = 42.0, 14.0  # s of a part in the cut, and between two
GONE_EVERY, GONE_FOR = 90.0, 6.0  # s between two breaks of the line, and how long one is
NOMINAL, SCATTER = 49.003, 0.0025  # mm
ITEMS = (
    # id, element, category, units, type
    ("load", "Load", "SAMPLE", "PERCENT", "LOAD"),
    ("speed", "RotaryVelocity", "SAMPLE", "REVOLUTION/MINUTE", "ROTARY_VELOCITY"),
    ("feed", "PathFeedrate", "SAMPLE", "MILLIMETER/SECOND", "PATH_FEEDRATE"),
    ("override", "PathFeedrateOverride", "EVENT", "PERCENT", "PATH_FEEDRATE_OVERRIDE"),
    ("execution", "Execution", "EVENT", "", "EXECUTION"),
    ("parts", "PartCount", "EVENT", "", "PART_COUNT"),
)
STREAMS = "urn:mtconnect.org:MTConnectStreams:1.7"
DEVICES = "urn:mtconnect.org:MTConnectDevices:1.7"


@dataclass
class Machine:
    """What the simulated machine does, and the observations that its agent holds."""

    rng: random.Random
    instance: int
    clock: Callable[[], float] = time.monotonic
    next: int = 1
    held: deque[tuple[int, str, str, str]] = field(default_factory=lambda: deque(maxlen=BUFFER))
    last: dict[str, str] = field(default_factory=dict)
    began: float = 0.0

    def __post_init__(self) -> None:
        self.began = self.clock()

    def step(self) -> None:
        """One look at the machine: what moved is a new observation."""
        at = self.clock() - self.began
        gone = at % GONE_EVERY > GONE_EVERY - GONE_FOR
        within = at % (CUT + IDLE)
        cutting = within < CUT
        noise = self.rng.gauss(0.0, 1.5)
        now = {
            "load": f"{62.0 + noise if cutting else 4.0 + abs(noise) / 3:.1f}",
            "speed": f"{924 + self.rng.gauss(0, 2):.0f}" if cutting else "0",
            "feed": "3.85" if cutting else "0",
            "override": "100",
            "execution": "ACTIVE" if cutting else "READY",
            "parts": str(int(at // (CUT + IDLE))),
        }
        stamp = datetime.now(UTC).strftime("%Y-%m-%dT%H:%M:%S.%fZ")
        for name, value in now.items():
            value = "UNAVAILABLE" if gone else value
            if self.last.get(name) != value:
                self.last[name] = value
                self.held.append((self.next, name, value, stamp))
                self.next += 1

    def document(self, begin: int | None, count: int) -> str:
        """`/current` for no beginning, else `/sample` from a sequence on."""
        first = self.held[0][0] if self.held else 1
        if begin is None:
            latest = {one[1]: one for one in self.held}
            rows = list(latest.values())
            after = self.next
        else:
            rows = [one for one in self.held if one[0] >= begin][:count]
            after = rows[-1][0] + 1 if rows else max(begin, self.next)
        parts = {"SAMPLE": "", "EVENT": ""}
        kinds = {one[0]: one for one in ITEMS}
        for sequence, name, value, stamp in rows:
            _, element, category, _, _ = kinds[name]
            parts[category] += f'<{element} dataItemId="{name}" sequence="{sequence}" timestamp="{stamp}" name="{name}">{value}</{element}>'
        return (
            f'<?xml version="1.0" encoding="UTF-8"?><MTConnectStreams xmlns="{STREAMS}"><Header instanceId="{self.instance}" '
            f'bufferSize="{BUFFER}" firstSequence="{first}" lastSequence="{self.next - 1}" nextSequence="{after}" version="1.7" '
            f'sender="simulated" creationTime="{datetime.now(UTC):%Y-%m-%dT%H:%M:%SZ}"/><Streams><DeviceStream name="lathe" uuid="lathe-1">'
            f'<ComponentStream component="Path" componentId="path"><Samples>{parts["SAMPLE"]}</Samples><Events>{parts["EVENT"]}</Events>'
            "</ComponentStream></DeviceStream></Streams></MTConnectStreams>"
        )

    def probe(self) -> str:
        """What there is to observe."""
        items = "".join(
            f'<DataItem id="{name}" name="{name}" category="{category}" type="{kind}"{f" units={chr(34)}{unit}{chr(34)}" if unit else ""}/>'
            for name, _, category, unit, kind in ITEMS
        )
        return (
            f'<?xml version="1.0" encoding="UTF-8"?><MTConnectDevices xmlns="{DEVICES}"><Header instanceId="{self.instance}" '
            f'bufferSize="{BUFFER}" version="1.7" sender="simulated" creationTime="{datetime.now(UTC):%Y-%m-%dT%H:%M:%SZ}"/><Devices>'
            f'<Device id="d1" name="lathe" uuid="lathe-1"><DataItems>{items}</DataItems></Device></Devices></MTConnectDevices>'
        )


async def _gauge(reader: asyncio.StreamReader, writer: asyncio.StreamWriter, rng: random.Random) -> None:
    """A micrometer whose key is pressed by the question."""
    try:
        while line := await asyncio.wait_for(reader.readline(), 60):
            if line.strip() == b"?":
                writer.write(f"{rng.gauss(NOMINAL, SCATTER):.3f} mm\r\n".encode())
                await writer.drain()
    except (TimeoutError, ConnectionError):
        pass
    finally:
        writer.close()


async def _agent(reader: asyncio.StreamReader, writer: asyncio.StreamWriter, machine: Machine) -> None:
    """One HTTP request a connection."""
    try:
        asked = (await asyncio.wait_for(reader.readline(), 10)).decode("latin-1").split(" ")
        while (await asyncio.wait_for(reader.readline(), 10)).strip():
            pass
        place = urlsplit(asked[1] if len(asked) > 1 else "/")
        query = parse_qs(place.query)
        status, body = "200 OK", ""
        if place.path.rstrip("/").endswith("probe") or place.path == "/":
            body = machine.probe()
        elif place.path.endswith("current"):
            body = machine.document(None, 0)
        elif place.path.endswith("sample"):
            body = machine.document(int(query.get("from", ["1"])[0]), min(int(query.get("count", ["100"])[0]), BUFFER))
        else:
            status = "404 Not Found"
        text = body.encode()
        writer.write(f"HTTP/1.1 {status}\r\nContent-Type: text/xml\r\nContent-Length: {len(text)}\r\nConnection: close\r\n\r\n".encode())
        writer.write(text)
        await writer.drain()
    except (TimeoutError, ConnectionError, ValueError):
        pass
    finally:
        writer.close()


async def serve(gauge: int, agent: int, seed: int) -> None:
    """Answer on the loopback until the process ends."""
    rng = random.Random(seed)
    machine = Machine(rng, int(time.time()))

    async def run() -> None:
        while True:
            machine.step()
            await asyncio.sleep(1.0 / RATE)

    lines = await asyncio.start_server(lambda reader, writer: _gauge(reader, writer, rng), HOST, gauge)
    http = await asyncio.start_server(lambda reader, writer: _agent(reader, writer, machine), HOST, agent)
    async with lines, http:
        await asyncio.gather(run(), lines.serve_forever(), http.serve_forever())


if __name__ == "__main__":
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--gauge", type=int, default=8392)
    parser.add_argument("--agent", type=int, default=8393)
    parser.add_argument("--seed", type=int, default=7)
    given = parser.parse_args()
    asyncio.run(serve(given.gauge, given.agent, given.seed))

"""Instruments over open protocols: one that sends lines over TCP, and an MTConnect agent; nothing is recorded that did not come."""

from __future__ import annotations

import http.client
import ipaddress
import os
import socket
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from typing import Any

from django.conf import settings

from cutting.quantities import Display, display
from cutting.traces.agent import LARGEST, AgentObservation, Streams, lost_between, read_streams, stretches
from cutting.traces.gauge_line import GaugeReading, read_gauge_line
from server.errors import Refusal
from server.jobs.kinds.view import axis
from server.jobs.studies.answers import curve
from server.trials.models import Instrument, Trial

LINE, AGENT = "line", "agent"
PATIENCE = 2.0  # s for an instrument's answer
STALE = timedelta(seconds=10)  # after which a value is told as old
LOOKED_BACK = 3000  # observations of a strip
STRIP = 120.0  # s of it
SIMULATED = "simulated"
LABELS = {
    "load": "spindle load",
    "speed": "spindle speed",
    "feed": "feed rate",
    "override": "override",
    "execution": "program",
    "parts": "parts",
}
PLAIN = {"ACTIVE": "runs", "READY": "stands ready", "STOPPED": "stopped", "INTERRUPTED": "interrupted", "FEED_HOLD": "held"}


@dataclass(frozen=True)
class Paired:
    """An instrument as it is reached."""

    identity: str
    name: str
    protocol: str
    host: str
    port: int
    unit: str = ""


def every_instrument() -> list[Paired]:
    """The simulated ones that were started with the bench, then the shop's own."""
    found = []
    ports = os.environ.get("ARROW_BENCH_INSTRUMENTS", "")
    if ports:
        gauge, agent = (int(one) for one in ports.split(","))
        found = [
            Paired("simulated-micrometer", "micrometer (simulated)", LINE, "127.0.0.1", gauge, "mm"),
            Paired("simulated-lathe", "machine agent (simulated)", AGENT, "127.0.0.1", agent),
        ]
    own = Instrument.objects.filter(archived_at=None)
    return [*found, *(Paired(str(one.pk), one.name, one.protocol, one.host, one.port, one.unit) for one in own)]


def find(identity: str, protocol: str = "") -> Paired:
    """An instrument. Raises a 404 refusal, or 422 for one that speaks another protocol."""
    found = next((one for one in every_instrument() if one.identity == identity), None)
    if found is None:
        raise Refusal(404, "No instrument is paired by that name.")
    if protocol and found.protocol != protocol:
        raise Refusal(422, f"{found.name} cannot tell that.")
    return found


def check_address(host: str) -> str:
    """An address in the shop's own network, as it is kept. Raises a 422 refusal for a name and for one outside."""
    try:
        there = ipaddress.ip_address("127.0.0.1" if host.strip() == "localhost" else host.strip())
    except ValueError as error:
        message = "is no address: four numbers with points, as 192.168.1.20."
        raise Refusal(422, f"Address: '{host[:40]}' {message}", [{"field": "host", "message": message}]) from error
    outside = there.is_loopback and not settings.INSTRUMENTS_ON_LOOPBACK  # there answer the server's own rooms
    if outside or not there.is_private or there.is_link_local or there.is_unspecified or there.is_multicast:
        message = "lies outside the shop's own network."
        raise Refusal(422, f"Address: {there} {message}", [{"field": "host", "message": message}])
    return str(there)


def reading(one: Paired) -> GaugeReading:
    """One reading of a line instrument, its key pressed by the question. Raises a 503 refusal or `CuttingError`."""
    try:
        with socket.create_connection((one.host, one.port), timeout=PATIENCE) as line:
            line.settimeout(PATIENCE)
            line.sendall(b"?\n")
            with line.makefile("rb") as stream:
                said = stream.readline(200)
    except OSError as error:
        raise Refusal(503, f"{one.name} does not answer: is it switched on and on the line?") from error
    if not said:
        raise Refusal(503, f"{one.name} closed the line before it sent a reading.")
    return read_gauge_line(said.decode("utf-8", "replace"), one.unit)


def asked(one: Paired, path: str) -> Streams:
    """An agent's answer. Raises a 503 refusal or `CuttingError`."""
    call = http.client.HTTPConnection(one.host, one.port, timeout=PATIENCE)
    try:
        call.request("GET", path)
        answer = call.getresponse()
        text = answer.read(LARGEST + 1).decode("utf-8", "replace")
    except (OSError, http.client.HTTPException) as error:
        raise Refusal(503, f"{one.name} does not answer: is it switched on and on the line?") from error
    finally:
        call.close()
    if answer.status != 200:
        raise Refusal(503, f"{one.name} answers with {answer.status} instead of its streams.")
    return read_streams(text)


def state(one: Paired) -> dict[str, Any]:
    """What an agent says now, each value with its age; what did not come is not there."""
    streams = asked(one, "/current")
    latest = {seen.name: seen for seen in streams.observations}
    return {"name": one.name, "values": [_value(seen) for name, seen in latest.items() if name in LABELS]}


def _value(seen: AgentObservation) -> dict[str, Any]:
    age = max((datetime.now(UTC) - seen.at).total_seconds(), 0.0)
    return {
        "name": seen.name,
        "label": LABELS[seen.name],
        "value": _shown(seen),
        "text": "" if seen.value is None else seen.value,
        "missing": seen.value is None,
        "age": f"{age:.0f} s",
        # a value that holds is old only where it should move: a spindle's load does
        "stale": seen.name == "load" and age > STALE.total_seconds(),
    }


def _shown(seen: AgentObservation) -> Display:
    if seen.value is None:
        return Display("not available", "not available")
    try:
        value = float(seen.value)
    except ValueError:
        word = PLAIN.get(seen.value, seen.value.lower().replace("_", " ")[:40])
        return Display(word, word)
    if seen.name in ("load", "override"):
        return display(value, "share")
    if seen.name == "speed":
        return display(value, "spindle_speed")
    if seen.name == "feed":
        return display(60.0 * value, "feed_rate")  # mm/s in the standard
    return display(value, "count")


def strip(one: Paired, trial: Trial | None, system: str) -> dict[str, Any]:
    """The spindle's load over the last two minutes, gaps left open, with what was predicted laid over it."""
    now = asked(one, "/current")
    begin = max(now.after - LOOKED_BACK, now.first)
    streams = asked(one, f"/sample?from={begin}&count={LOOKED_BACK}")
    end = datetime.now(UTC)
    parts = stretches(streams.observations, "load", end)
    curves = []
    for k, part in enumerate(parts):
        points = [((at - end).total_seconds() + STRIP, value) for at, value in part]
        inside = [(x, y) for x, y in points if x >= 0.0]
        if len(inside) > 1:
            curves.append(curve(f"load {k}", "" if k else "load", [x for x, _ in inside], [y for _, y in inside]))
    top = max([y for line in curves for _, y in line["points"]], default=1.0)
    if trial is not None and "load" in trial.prediction:
        said = float(trial.prediction["load"][1])
        top = max(top, said)
        curves.append(curve("predicted", "predicted", [0.0, STRIP], [said, said]))
    gaps = sum(1 for _ in parts) - 1
    return {
        "chart": {
            "x": axis("last two minutes", 0.0, STRIP, "number", system, "s"),
            "y": axis("spindle load", 0.0, 1.15 * max(top, 10.0), "share", system),
            "curves": curves,
            "marks": [],
        },
        "gaps": max(gaps, 0),
        "lost": lost_between(now, streams),
    }


def paired(given: Any, who: str) -> Instrument:
    """Keep an instrument of the shop's own. Raises a refusal."""
    return Instrument.objects.create(
        name=given.name.strip(), protocol=given.protocol, host=check_address(given.host), port=given.port, unit=given.unit, paired_by=who
    )

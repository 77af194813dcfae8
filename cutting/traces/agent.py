"""What an MTConnect agent says: observations with their sequence, and the gaps between two looks (ANSI/MTC1.4 and later)."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import datetime
from xml.etree import ElementTree

from cutting.errors import CuttingError

UNAVAILABLE = "UNAVAILABLE"
LARGEST = 4_000_000  # characters of a document
# element of the standard -> what the bench calls it; the older names of a speed and a feed among them
MEANT = {
    "Load": "load",
    "RotaryVelocity": "speed",
    "SpindleSpeed": "speed",
    "PathFeedrate": "feed",
    "PathFeedrateOverride": "override",
    "Execution": "execution",
    "PartCount": "parts",
}


@dataclass(frozen=True)
class AgentObservation:
    """One observation; `value` is None where the agent says that it is not available."""

    name: str
    sequence: int
    at: datetime
    value: str | None


@dataclass(frozen=True)
class Streams:
    """One answer of an agent: who it is, what it holds, where to go on, and what it said, in order."""

    instance: str
    first: int
    after: int
    observations: tuple[AgentObservation, ...]


def read_streams(text: str) -> Streams:
    """An answer to `current` or `sample`. Raises `CuttingError` for what is none.

    Elements are known by their own names whatever version their namespace tells. Source: ANSI/MTC1.4, part 2, streams.
    """
    if len(text) > LARGEST:
        raise CuttingError("agent", f"the agent's answer is longer than {LARGEST} characters.")
    if "<!DOCTYPE" in text or "<!ENTITY" in text:
        raise CuttingError("agent", "the agent's answer declares entities: it is not read.")
    try:
        root = ElementTree.fromstring(text)
    except ElementTree.ParseError as error:
        raise CuttingError("agent", "the agent's answer is no XML.") from error
    if _own(root) == "MTConnectError":
        said = " ".join((one.text or "") for one in root.iter() if _own(one) == "Error")
        raise CuttingError("agent", f"the agent refuses: {said[:200] or 'no reason given'}")
    header = next((one for one in root if _own(one) == "Header"), None)
    if _own(root) != "MTConnectStreams" or header is None:
        raise CuttingError("agent", f"the agent answers with '{_own(root)[:40]}': an address of streams is wanted.")
    try:
        first, after = int(header.attrib["firstSequence"]), int(header.attrib["nextSequence"])
        found = sorted(_observations(root), key=lambda one: one.sequence)
    except (KeyError, ValueError) as error:
        raise CuttingError("agent", "the agent's header or an observation lacks its sequence or time.") from error
    return Streams(header.attrib.get("instanceId", ""), first, after, tuple(found))


def _observations(root: ElementTree.Element) -> Iterable[AgentObservation]:
    for one in root.iter():
        name = MEANT.get(_own(one))
        if name is None or "sequence" not in one.attrib:
            continue
        said = (one.text or "").strip()
        at = datetime.fromisoformat(one.attrib["timestamp"].replace("Z", "+00:00"))
        yield AgentObservation(name, int(one.attrib["sequence"]), at, None if said in ("", UNAVAILABLE) else said)


def _own(element: ElementTree.Element) -> str:
    return element.tag.rsplit("}", 1)[-1]


def lost_between(before: Streams, now: Streams) -> str:
    """Why observations are missing between two answers, in words; blank where none are."""
    if before.instance != now.instance:
        return "the agent was started anew: what happened meanwhile is not known"
    if now.first > before.after:
        return f"{now.first - before.after} observations left the agent's buffer before they were fetched"
    return ""


def stretches(observations: Iterable[AgentObservation], name: str, until: datetime) -> list[list[tuple[datetime, float]]]:
    """The values of one item as stretches without a gap: each holds until the next; while it is not available there is nothing."""
    found: list[list[tuple[datetime, float]]] = []
    open_now: list[tuple[datetime, float]] = []
    for one in observations:
        if one.name != name:
            continue
        try:
            value = None if one.value is None else float(one.value)
        except ValueError:
            value = None
        if value is None:
            if open_now:
                found.append([*open_now, (one.at, open_now[-1][1])])
            open_now = []
        else:
            open_now.append((one.at, value))
    if open_now:
        found.append([*open_now, (max(until, open_now[-1][0]), open_now[-1][1])])
    return found

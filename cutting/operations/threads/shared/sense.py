"""Which way things turn and go: hand of the thread, sense of spindle and path, direction of feed, hand of the tool."""

from __future__ import annotations

from enum import StrEnum


class PathSense(StrEnum):
    """Sense of a mill's path, seen from the spindle."""

    COUNTER = "counter-clockwise"
    CLOCKWISE = "clockwise"


class Goes(StrEnum):
    """Which way a mill goes along the axis."""

    UP = "up, out of the hole"
    DOWN = "down, into the hole"


def climbing_path(left_cutting: bool, internal: bool = True) -> PathSense:
    """The path on which a mill climbs: inside, counter-clockwise for a right-cutting tool; outside and for a left one the other way."""
    return PathSense.COUNTER if left_cutting != internal else PathSense.CLOCKWISE


def goes_for(path: PathSense, left_hand: bool) -> Goes:
    """Where a path must go to make a thread of that hand: counter-clockwise and up is a right-hand one."""
    return Goes.UP if (path is PathSense.COUNTER) != left_hand else Goes.DOWN


def makes_left_hand(path: PathSense, goes: Goes) -> bool:
    """The hand of the thread that a path makes."""
    return (path is PathSense.COUNTER) != (goes is Goes.UP)


def climbs(path: PathSense, left_cutting: bool, internal: bool = True) -> bool:
    """Whether a path climbs."""
    return path is climbing_path(left_cutting, internal)


class Turns(StrEnum):
    """Which way the part turns, seen from the tailstock towards the chuck."""

    FORWARD = "forward, counter-clockwise"
    REVERSE = "reverse, clockwise"


class Feeds(StrEnum):
    """Which way a single point is fed."""

    TOWARDS = "towards the chuck"
    AWAY = "away from the chuck"


def feed_for(left_hand: bool, turns: Turns) -> Feeds:
    """The feed that makes a thread of that hand: forward and towards the chuck is a right-hand one, inside as outside."""
    return Feeds.TOWARDS if left_hand != (turns is Turns.FORWARD) else Feeds.AWAY


def turns_for(tool_hand: str) -> Turns:
    """The sense in which a tool cuts with its face up in front of the part: a right-hand one forward, a neutral one too."""
    return Turns.REVERSE if tool_hand == "L" else Turns.FORWARD


def lean_for(lead_angle: float, left_hand: bool, tool_hand: str) -> float:
    """Tilt [°] that the seat should have: the lead angle where thread and tool are of one hand, against it where they are not."""
    same = left_hand == (tool_hand == "L")
    return lead_angle if same else -lead_angle


def table(left_hand: bool) -> tuple[tuple[Turns, Feeds, str, bool], ...]:
    """Every way to turn a thread of that hand: sense, feed, hand of the tool, and whether the seat leans with the lead."""
    rows = []
    for hand in ("R", "L"):
        turns = turns_for(hand)
        rows.append((turns, feed_for(left_hand, turns), hand, left_hand == (hand == "L")))
    return tuple(rows)

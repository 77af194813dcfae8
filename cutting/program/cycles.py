"""Fixed cycles for holes (ISO 6983-1, G81 to G89), each as the moves that it stands for."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from dataclasses import dataclass

from cutting.motion.moves import Dwell, Feed, Per, Point, Rapid, SpindleOn, Sync, ThreadPass
from cutting.motion.moves import Step as PathStep

CYCLES = ("G73", "G81", "G82", "G83", "G84", "G85", "G86", "G89")
ABOVE = 1.0  # mm above the last depth to which a peck comes back down in rapid (common practice)
BACK = 0.5  # mm that a chip-breaking peck goes back (common practice)
Step = Rapid | Feed | ThreadPass | Dwell | SpindleOn


@dataclass(frozen=True)
class HoleCycle:
    """What a cycle is told: its word, where R and the bottom lie [mm], feed, peck [mm], dwell [s], and where it comes back to."""

    word: str
    clear: float
    bottom: float
    feed: float
    per: Per
    peck: float
    dwell: float
    back: float


def moves_of(cycle: HoleCycle, at: Point, x: float, y: float, spindle: SpindleOn) -> Iterator[Step]:
    """The moves of one hole: over it, down to R, in, and out again."""

    def place(z: float) -> Point:
        return (x, y, z)

    if (x, y) != at[:2]:
        yield Rapid(place(at[2]))
    yield Rapid(place(cycle.clear))
    if cycle.word == "G84":
        lead = cycle.feed if cycle.per is Per.TURN else cycle.feed / max(spindle.top, 1e-9)
        yield ThreadPass(place(cycle.bottom), lead)
        yield _turned(spindle)
        yield ThreadPass(place(cycle.clear), lead)
        yield spindle
    elif cycle.word in ("G73", "G83") and cycle.peck > 0.0:
        yield from _pecked(cycle, place)
    else:
        yield Feed(place(cycle.bottom), cycle.feed, cycle.per)
        if cycle.word in ("G82", "G89") and cycle.dwell > 0.0:
            yield Dwell(cycle.dwell)
        if cycle.word in ("G85", "G89"):
            yield Feed(place(cycle.clear), cycle.feed, cycle.per)
    if cycle.back != cycle.clear or cycle.word not in ("G84", "G85", "G89"):
        yield Rapid(place(cycle.back))


def _pecked(cycle: HoleCycle, at: Callable[[float], Point]) -> Iterator[Step]:
    depth = cycle.clear
    while depth > cycle.bottom + 1e-9:
        last, depth = depth, max(depth - cycle.peck, cycle.bottom)
        if last < cycle.clear:
            yield Rapid(at(last + ABOVE if cycle.word == "G83" else last + BACK))
        yield Feed(at(depth), cycle.feed, cycle.per)
        if depth > cycle.bottom + 1e-9:
            yield Rapid(at(cycle.clear if cycle.word == "G83" else depth + BACK))


def _turned(spindle: SpindleOn) -> SpindleOn:
    return SpindleOn(spindle.low, spindle.top, spindle.cutting_speed, 0.0, not spindle.backwards)


def folded(steps: tuple[PathStep, ...], k: int) -> tuple[int, HoleCycle, Point] | None:
    """The cycle that stands for a path's steps from the k-th on: how many, the cycle, and where it leaves the tool; None where none does.

    It begins with the rapid move to R over the hole and ends where the tool is at R again, or would be on its way out.
    """
    first = steps[k]
    if not isinstance(first, Rapid):
        return None
    x, y, clear = first.to
    tapped = tuple(steps[k + 1 : k + 6])
    if len(tapped) == 5 and isinstance(tapped[1], ThreadPass) and isinstance(tapped[3], ThreadPass) and isinstance(tapped[2], SpindleOn):
        into, out = tapped[1], tapped[3]
        if isinstance(tapped[0], Sync) and into.to[:2] == (x, y) and out.to == first.to and into.lead == out.lead:
            return 7, HoleCycle("G84", clear, into.to[2], into.lead, Per.TURN, 0.0, 0.0, clear), first.to
        return None
    fed, end = list[Feed](), k + 1
    while (
        end < len(steps) and isinstance(one := steps[end], Feed) and one.to[:2] == (x, y) and one.to[2] < (fed[-1].to[2] if fed else clear)
    ):
        fed.append(one)
        end += 1
    if not fed or len({(one.feed, one.per) for one in fed}) > 1 or end >= len(steps):
        return None
    bottom, feed, per = fed[-1].to[2], fed[-1].feed, fed[-1].per
    dwell = 0.0
    if isinstance(rest := steps[end], Dwell) and rest.turns == 0.0 and end + 1 < len(steps):
        dwell, end = rest.seconds, end + 1
    out_ = steps[end]
    if isinstance(out_, Feed) and out_.to == first.to and (out_.feed, out_.per) == (feed, per):
        return end + 1 - k, HoleCycle("G89" if dwell else "G85", clear, bottom, feed, per, 0.0, dwell, clear), first.to
    if isinstance(out_, Rapid) and out_.to[:2] == (x, y) and out_.to[2] >= clear:
        return end - k, HoleCycle("G82" if dwell else "G81", clear, bottom, feed, per, 0.0, dwell, clear), first.to
    return None

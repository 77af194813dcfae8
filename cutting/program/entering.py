"""A path made to enter the metal at a feed where a rapid move of it would end in metal that stands there."""

from __future__ import annotations

from dataclasses import replace

from cutting.motion.moves import Arc, Feed, Helix, Path, Per, Point, Rapid, Step, ThreadPass
from cutting.program.body import INTO, Chucked, TurnedBody, straight

CLEAR = 1.0  # mm over the metal to which it goes in rapid (common practice)
FINE = 0.1  # mm/rev at which it enters where the path has no feed of its own


def entering(path: Path, body: TurnedBody) -> Path:
    """The path with its rapid moves kept out of the metal: over it in rapid, and down at the feed of the cut; the body is cut by it."""
    steps, at = list[Step](), path.start
    feeds = [step for step in path.steps if isinstance(step, Feed) and step.per is Per.TURN]
    feed = feeds[0].feed if feeds else FINE
    for step in path.steps:
        if isinstance(step, Rapid) and body.pierced(at, step.to) > INTO and not _inside(body, step.to):
            over: Point = (max(_outer(body, at, step.to) + CLEAR, step.to[0]), 0.0, step.to[2])
            if at[0] < over[0]:  # up first, where it stands lower
                steps.append(Rapid((over[0], at[1], at[2])))
            steps += [Rapid(over), Feed(step.to, feed)]
            body.cut(over, step.to)
            at = step.to
            continue
        if isinstance(step, Feed | Arc | Helix | ThreadPass):
            for place in straight(at, step):
                body.cut(at, place)
                at = place
        elif isinstance(step, Rapid):
            at = step.to
        steps.append(step)
    return replace(path, steps=tuple(steps))


def body_of(setup: object) -> TurnedBody | None:
    """The part that a set-up finds, where its stretches are known."""
    holding = getattr(setup, "holding", None)
    stretches = getattr(holding, "stretches", ())
    if holding is None or not stretches or getattr(setup, "inside", False):
        return None
    face = float(holding.free_length if holding.face is None else holding.face)
    widest = max(diameter for _, _, diameter in stretches)
    return TurnedBody(Chucked(widest, 0.0, face, float(holding.bore or 0.0), steps=tuple(stretches)))


def _outer(body: TurnedBody, at: Point, to: Point) -> float:
    """The largest radius of the metal between two places [mm]."""
    return float(body.outer[body.slices(at[2], to[2])].max(initial=0.0))


def _inside(body: TurnedBody, to: Point) -> bool:
    """Whether a place lies in the bore: nothing is entered from outside there."""
    return float(body.inner[body.slices(to[2], to[2])].max(initial=0.0)) > abs(to[0])

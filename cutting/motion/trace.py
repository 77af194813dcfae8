"""Writes a path down step by step, knowing where the tool is."""

from __future__ import annotations

from cutting.machine.machines import Machine
from cutting.motion.moves import (
    Arc,
    Coolant,
    CuttingOutline,
    Dwell,
    Feed,
    Frame,
    Helix,
    Path,
    Per,
    Point,
    Rapid,
    SpindleOn,
    Step,
    Sync,
    ThreadPass,
    ToolChange,
)  # fmt: skip

CLEAR = 2.0  # mm that a tool keeps off the metal in rapid (common practice)
HOME = 60.0  # mm of the way from where tools change to the work, and back (common practice)
APART = 50.0  # mm between two places that nobody measured (common practice)


class PathMaker:
    """Collects the steps of one operation: the tool comes in from where tools change, and goes back there at the end."""

    def __init__(self, machine: Machine, frame: Frame, tip: str, at: Point, tool: str, delivery: str, spindle: SpindleOn) -> None:
        away = HOME if frame is Frame.TURNED else 0.0
        self._frame, self._tip, self._home = frame, tip, (at[0] + away, at[1], at[2] + HOME)
        self._machine = machine
        self.steps: list[Step] = [ToolChange(tool, machine.index_time), spindle, Coolant(delivery)]
        self.at = self._home
        self.rapid(*at)

    def rapid(self, x: float, y: float, z: float) -> None:
        self._go(Rapid((x, y, z)))

    def feed(self, x: float, y: float, z: float, feed: float, per: Per = Per.TURN) -> None:
        self._go(Feed((x, y, z), feed, per))

    def arc(self, x: float, y: float, z: float, centre: Point, clockwise: bool, feed: float, per: Per = Per.TURN) -> None:
        self._go(Arc((x, y, z), centre, clockwise, feed, per))

    def helix(self, x: float, y: float, z: float, centre: Point, turns: float, clockwise: bool, feed: float) -> None:
        self._go(Helix((x, y, z), centre, turns, clockwise, feed))

    def thread(self, x: float, y: float, z: float, lead: float) -> None:
        self._go(ThreadPass((x, y, z), lead))

    def dwell(self, seconds: float = 0.0, turns: float = 0.0) -> None:
        if seconds or turns:
            self.steps.append(Dwell(seconds, turns))

    def switch(self, *switches: SpindleOn | Coolant | ToolChange | Sync) -> None:
        self.steps += switches

    def done(self, edge: CuttingOutline) -> Path:
        """The path with what of the tool cuts, and the way back to where tools change."""
        steps = (*self.steps, Rapid(self._home))
        return Path(self._frame, self._tip, self._home, steps, edge)

    def _go(self, move: Rapid | Feed | Arc | Helix | ThreadPass) -> None:
        if isinstance(move, (Rapid, Feed, ThreadPass)) and move.to == self.at:
            return
        self.steps.append(move)
        self.at = move.to

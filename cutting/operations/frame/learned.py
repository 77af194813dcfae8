"""What trials have taught of tool, metal and machine; nothing, unless a person accepted it."""

from __future__ import annotations

from dataclasses import dataclass, replace

from cutting.belief.beliefs import Belief
from cutting.errors import require_between

CHISEL = (0.0, 3.0)


@dataclass(frozen=True)
class Learned:
    """`beliefs` are factors on what the tables say, each for what it names of tool, metal and machine.

    Of one drill there may be more: the chisel edge's share of the thrust, and `growth` as (a, b) of 1 + a·N^b over the holes
    that it has made. `note` says where it is from.
    """

    beliefs: tuple[Belief, ...] = ()
    chisel_share: float | None = None
    growth: tuple[float, float] | None = None
    note: str = ""

    @property
    def of_one_tool(self) -> tuple[str, ...]:
        """Names of what was learned beside the beliefs, of one tool alone."""
        return tuple(name for name in ("chisel_share", "growth") if getattr(self, name) is not None)

    def elsewhere(self) -> Learned:
        """What of it holds for another tool: all that names none."""
        if not self.beliefs and not self.of_one_tool:
            return self
        return replace(self, beliefs=tuple(one for one in self.beliefs if not one.tool), chisel_share=None, growth=None)

    def check(self) -> None:
        """Raise `CuttingError` for what no trial can have taught."""
        for one in self.beliefs:
            one.check()
        if self.chisel_share is not None:
            require_between("learned.chisel_share", self.chisel_share, *CHISEL, "")
        if self.growth is not None:
            require_between("learned.growth", self.growth[0], 1e-9, 10.0, "")
            require_between("learned.growth", self.growth[1], 0.05, 5.0, "")


UNTAUGHT = Learned()

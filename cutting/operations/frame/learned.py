"""What trials have taught of one tool in its materials; nothing, unless a person accepted it."""

from __future__ import annotations

from dataclasses import dataclass

from cutting.errors import require_between

FORCE, CHISEL, MARGIN = (0.2, 5.0), (0.0, 3.0), (0.0, 20.0)


@dataclass(frozen=True)
class Learned:
    """Factors on what the tables say: `force` on the specific force by material, `margin` on what the margins rub; the chisel edge's
    share of the thrust; `growth` as (a, b) of 1 + a·N^b over the holes that a drill has made. `note` says where it is from.
    """

    force: tuple[tuple[str, float], ...] = ()
    chisel_share: float | None = None
    margin: float = 1.0
    growth: tuple[float, float] | None = None
    note: str = ""

    def force_of(self, material: str) -> float:
        """The factor on a material's specific force."""
        return dict(self.force).get(material, 1.0)

    def check(self) -> None:
        """Raise `OutOfRange` for a factor that no trial can have taught."""
        for name, factor in self.force:
            require_between(f"learned.force.{name}", factor, *FORCE, "")
        if self.chisel_share is not None:
            require_between("learned.chisel_share", self.chisel_share, *CHISEL, "")
        require_between("learned.margin", self.margin, *MARGIN, "")
        if self.growth is not None:
            require_between("learned.growth", self.growth[0], 1e-9, 10.0, "")
            require_between("learned.growth", self.growth[1], 0.05, 5.0, "")


UNTAUGHT = Learned()

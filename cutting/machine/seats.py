"""Where tools sit on a machine: so many places of one kind and size."""

from __future__ import annotations

import re
from dataclasses import dataclass

from cutting.errors import CuttingError

KINDS = ("turret position", "tool post", "gang slide", "driven position", "changer pocket")
MOST = 1000


@dataclass(frozen=True)
class Seats:
    """`count` places of a kind; `size` in words: a shank's height (`25 mm`), a collet (`ER25`), a taper (`BT40`)."""

    kind: str
    size: str
    count: int

    @property
    def words(self) -> str:
        return f"{self.kind} {self.size}: {self.count}"


_WORDS = re.compile(rf"({'|'.join(KINDS)}) (\S.*?): ?(\d+)")


def read_seats(words: tuple[str, ...], field: str = "seats") -> tuple[Seats, ...]:
    """Seats as people write them: `driven position ER25: 6`. Raises `CuttingError`."""
    found = []
    for word in words:
        match = _WORDS.fullmatch(" ".join(word.split()))
        if match is None or not 1 <= int(match[3]) <= MOST:
            raise CuttingError(
                field, f"'{word[:60]}' is not a kind, a size and a count, as in 'driven position ER25: 6'; kinds: {', '.join(KINDS)}."
            )
        found.append(Seats(match[1], match[2], int(match[3])))
    return tuple(found)

"""The whole part on paper: as it is clamped, finished inside its blank, with the sizes that a setter looks for first."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from typing import Any

from server.jobs.sheet.drawing import CHUCK, WIDTH, Corner, jaws_svg, path, polygon, words

LOW = 28.0  # of the picture above and below the part: its Ø stand there
LINE = 17.0  # from one line of dimensions to the next
HEIGHT = 190.0  # of the part
MOST_LINES = 5


def part_svg(outline: Mapping[str, Any], held: str, system: str) -> str:
    """Blank, jaws, centre, the finished part in half section with its bore and grooves, diameters and distances from its face."""
    return Drawing(outline, held, "inch" if system == "inch" else "metric").svg()


class Drawing:
    """One picture: the scale, and what is drawn by it."""

    def __init__(self, outline: Mapping[str, Any], held: str, side: str) -> None:
        self.outline, self.held, self.side = outline, held, side
        self.long = max(outline["length"], 1.0)
        self.radius = max(outline["radius"], 1.0)
        self.left = CHUCK if outline["chucked"] else 30.0
        self.scale = min((WIDTH - self.left - 90) / self.long, HEIGHT / (2 * self.radius))
        self.axis = LOW + self.radius * self.scale
        self.foot = 2 * self.axis + 8.0  # clear of the widest label

    def at(self, corner: Corner, side: float = 1.0) -> Corner:
        """Where a place of the part stands in the picture; the other side of the axis at −1."""
        return self.left + corner[0] * self.scale, self.axis - side * corner[1] * self.scale

    def svg(self) -> str:
        """The whole picture."""
        lines = list(self._lengths())
        drawn = [*self._held(), *self._metal(), path(f"M4,{self.axis:.1f}H{WIDTH - 4:.1f}", "centre"), *self._diameters(), *lines]
        tall = self.foot + LINE * min(len(self.outline["lengths"]), MOST_LINES)
        return f'<svg viewBox="0 0 {WIDTH:.0f} {tall:.0f}" role="img" aria-label="The part as it is clamped">{"".join(drawn)}</svg>'

    def _held(self) -> Iterator[str]:
        if self.outline["chucked"]:
            yield jaws_svg(self.radius * self.scale, self.axis, CHUCK + self.outline["held"] * self.scale)
        if "centre" in self.held:
            end, y = self.left + self.long * self.scale, self.axis
            yield polygon([(end - 4, y), (end + 22, y - 12), (end + 44, y - 12), (end + 44, y + 12), (end + 22, y + 12)], "steel")

    def _metal(self) -> Iterator[str]:
        for side in (1.0, -1.0):
            for name, look in (("stock", "blank"), ("finished", "part")):
                points = [self.at(corner, side) for corner in self.outline[name]]
                if points:
                    yield polygon([*points, (points[-1][0], self.axis), (points[0][0], self.axis)], look)
            inside = [self.at(corner, side) for corner in self.outline["inside"]]
            if inside:
                yield polygon([*inside, (inside[-1][0], self.axis), (inside[0][0], self.axis)], "air")
            for ring in self.outline["rings"]:
                yield polygon([self.at(corner, side) for corner in ring], "air")

    def _diameters(self) -> Iterator[str]:
        last = 0.0
        for label in self.outline["labels"]:
            text = f"Ø{label['display'][self.side]}"
            x, y = self.at((label["at"], -label["radius"]))
            half = 4.0 * len(text)
            if x - half > last and x + half < WIDTH:
                last = x + half
                yield words(max(x, half + 2), y + 15, text)

    def _lengths(self) -> Iterator[str]:
        """Distances from the free face, the longest lowest."""
        shown = self.outline["lengths"][-MOST_LINES:]
        end = self.at((self.outline["finished"][-1][0], 0.0))[0] if self.outline["finished"] else 0.0
        for k, size in enumerate(reversed(shown)):
            x, y = self.at((size["at"], 0.0))[0], self.foot + LINE * k - 6
            yield path(f"M{x:.1f},{self.axis:.1f}V{y + 3:.1f}M{end:.1f},{self.axis:.1f}V{y + 3:.1f}", "size")
            yield path(f"M{x:.1f},{y:.1f}H{end:.1f}m-6,-3l6,3l-6,3M{x + 6:.1f},{y - 3:.1f}l-6,3l6,3", "size")
            yield words((x + end) / 2, y - 3, size["display"][self.side])

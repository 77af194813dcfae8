"""The chip's form by the classes of ISO 3685, from its place against the window."""

from __future__ import annotations

from dataclasses import dataclass

TOO_SOFT_TO_BREAK = 60.0  # best chip index below which a metal only bends


@dataclass(frozen=True)
class ChipForm:
    """A form class; `code` is the standard's number, `length` long, short, snarled or loose."""

    code: str
    form: str
    length: str
    verdict: str
    why: str


TOO_LIGHT = 0.7  # of the index of a heavier chip, below which a light one strings wherever it stands in the window (common practice)


def chip_form(
    gauge: float, feed_place: float, depth_place: float, ductility: float, has_breaker: bool, best_index: float = 100.0, light: float = 1.0
) -> ChipForm:
    """Classify the chip.

    `gauge` as in `window_gauge`; `feed_place`, `depth_place` −1 (lower edge) to 1 (upper edge) of the window at
    its middle lines; `ductility` 0 to 1, `best_index` that the metal allows; `light` what is left of
    it for so light a chip. Forms of ISO 3685 annex G; which form falls
    where is common practice.
    """
    if ductility < 0.15:
        return ChipForm("7", "elemental", "loose", "breaks", "the metal is brittle: chips crumble with any breaker")
    if not has_breaker and ductility > 0.3:
        return ChipForm(
            "1.3" if depth_place < 0 else "1.1",
            "ribbon",
            "snarled" if depth_place < 0 else "long",
            "strings",
            "the edge has no chipbreaker and the metal is ductile",
        )
    if best_index < TOO_SOFT_TO_BREAK and gauge <= 1.0:
        return ChipForm(
            "2.1", "tubular", "long", "strings", "too soft and tough to break in a groove: a jet at pressure, or a stepped feed"
        )
    if light < TOO_LIGHT:
        return ChipForm("2.1", "tubular", "long", "strings", "so light a chip that nothing curls it: coolant or air leads it away")
    if gauge <= 1.0:
        if feed_place < -0.35:
            return ChipForm("5.2", "conical helical", "short", "breaks", "inside the window, on its thin side")
        if feed_place < 0.45:
            return ChipForm("6.2", "arc", "loose", "breaks", "in the middle of the window: curls and breaks on the part")
        return ChipForm("6.1", "arc", "connected", "breaks", "inside the window, on its thick side")
    if feed_place > 0.6 or (depth_place > 1.0 and feed_place > -0.5):
        return ChipForm("6.1", "arc", "thick, pressed", "packs", "right of or above the window: the breaker is overfilled")
    if depth_place < -0.6:
        return ChipForm("1.3", "ribbon", "snarled", "strings", "too shallow: the chip passes beside the breaker")
    if gauge < 1.35:
        return ChipForm("2.1", "tubular", "long", "strings", "left of the window: the chip is too thin to be bent till it breaks")
    return ChipForm("2.3", "tubular", "snarled", "strings", "far left of the window: the chip is much too thin to break")

"""The scene of an operation as a plain SVG for paper: part in half section, jaws, centre, insert and holder to scale."""

from __future__ import annotations

from collections.abc import Iterable

from django.utils.html import escape

from cutting.mechanics.deflection import Holding
from cutting.operations.turned.setup import Setup
from cutting.operations.turned.surface import Surface
from cutting.process.outline import OutlineStage
from cutting.tooling.plan_view import holder_outline, insert_outline

WIDTH, HEIGHT, CHUCK = 640.0, 170.0, 70.0
Corner = tuple[float, float]
_LINE = 'stroke="#1f242b" stroke-width="0.8"'
# attributes, not classes: paper takes no style sheet into a drawing
LOOK = {
    "part": f'fill="#dcd9d2" {_LINE}',
    "blank": 'fill="none" stroke="#5e646d" stroke-width="0.8" stroke-dasharray="4 3"',
    "steel": f'fill="#8f98a5" {_LINE}',
    "jaw": f'fill="#c9c2b4" {_LINE}',
    "insert": f'fill="#e3c35a" {_LINE}',
    "air": f'fill="#ffffff" {_LINE}',
    "cut": 'fill="#c4340f" fill-opacity="0.45"',
    "centre": 'stroke="#1f242b" stroke-width="0.6" stroke-dasharray="12 3 2 3"',
    "steady": 'stroke="#1f242b" stroke-width="5"',
    "ground": 'fill="#ffffff"',
    "words": 'text-anchor="middle" font-family="IBM Plex Mono" font-size="12" fill="#1f242b"',
    "size": 'stroke="#5e646d" stroke-width="0.7" fill="none"',
    "arrow": 'stroke="#c4340f" stroke-width="1.8" fill="none"',
}


def scene_svg(setup: Setup, stage: OutlineStage) -> str:
    """The last pass of an operation; the text of the drawing stays in the sheet's tables."""
    body = max(setup.feature.start_diameter, setup.holding.grip_diameter)
    scale = min((WIDTH - CHUCK - 110) / setup.holding.free_length, (HEIGHT - 74) / body)
    axis = HEIGHT * 0.54

    def at(corner: Corner, side: float = 1.0) -> Corner:
        return CHUCK + corner[0] * scale, axis - side * corner[1] * scale

    parts = [_jaws(setup, scale, axis)] if setup.machine.turns else []
    for side in (1.0, -1.0):
        outline = [at(c, side) for c in stage.corners]
        closed = [*outline, (outline[-1][0], axis), (outline[0][0], axis)]
        parts.append(polygon(closed, "part"))
    parts.append(polygon([at(c) for c in stage.band], "cut"))
    if setup.holding.style is not Holding.CHUCK:
        end = CHUCK + setup.holding.free_length * scale
        parts.append(
            polygon([(end - 4, axis), (end + 26, axis - 14), (end + 48, axis - 14), (end + 48, axis + 14), (end + 26, axis + 14)], "steel")
        )
    if setup.holding.steady is not None:
        parts.append(path(f"M{CHUCK + setup.holding.steady * scale:.1f},{axis - 44:.1f}v88", "steady"))
    tip = at(stage.tip)
    grow = max(scale, 1.2)
    tool = [(x * grow, y * grow) for x, y in holder_outline(setup.holder, setup.insert)]
    edge = [(x * grow, y * grow) for x, y in insert_outline(setup.insert, setup.holder.code.cutting_edge_angle)]
    parts += [
        polygon([(tip[0] + x, tip[1] - y) for x, y in tool], "steel"),
        polygon([(tip[0] + x, tip[1] - y) for x, y in edge], "insert"),
    ]
    parts.append(path(f"M4,{axis:.1f}H{WIDTH - 4:.1f}", "centre"))
    if setup.surface is Surface.FACE:
        parts.append(path(f"M{tip[0] + 52:.1f},10v30m-4,-6l4,6l4,-6", "arrow"))
    else:
        arrow = 30 if setup.away else -30
        back = -arrow / 5
        parts.append(path(f"M{tip[0] + 46:.1f},14h{arrow}m{back:.1f},-4l{-back:.1f},4l{back:.1f},4", "arrow"))
    return f'<svg viewBox="0 0 {WIDTH:.0f} {HEIGHT:.0f}" role="img" aria-label="Tool and part to scale">{"".join(parts)}</svg>'


def half_section_svg(part: Iterable[Corner], area: Iterable[Corner], bore: float = 0.0) -> str:
    """The part in front of an operation, with its bore [mm] and what the operation takes away."""
    corners, taken = [*part], [*area]
    every = [*corners, *taken] or [(0.0, 1.0)]
    longest, radius = max(x for x, _ in every), max(max(abs(r) for _, r in every), 1.0)
    scale = min((WIDTH - CHUCK - 60) / max(longest, 1.0), (HEIGHT - 60) / (2 * radius))
    axis = HEIGHT * 0.5

    def at(corner: Corner, side: float) -> Corner:
        return CHUCK + corner[0] * scale, axis - side * corner[1] * scale

    parts = []
    for side in (1.0, -1.0):
        outline = [at(c, side) for c in corners]
        if outline:
            parts.append(polygon([*outline, (outline[-1][0], axis), (outline[0][0], axis)], "part"))
        if bore > 0 and corners:
            end = corners[-1][0]
            parts.append(polygon([at(c, side) for c in ((0.0, 0.0), (0.0, bore / 2), (end, bore / 2), (end, 0.0))], "air"))
        parts.append(polygon([at(c, side) for c in taken], "cut"))
    parts.append(path(f"M4,{axis:.1f}H{WIDTH - 4:.1f}", "centre"))
    return f'<svg viewBox="0 0 {WIDTH:.0f} {HEIGHT:.0f}" role="img" aria-label="Part to scale, with what is cut">{"".join(parts)}</svg>'


def _jaws(setup: Setup, scale: float, axis: float) -> str:
    return jaws_svg(setup.holding.grip_diameter / 2 * scale, axis)


def jaws_svg(grip: float, axis: float, end: float = CHUCK) -> str:
    """Chuck and jaws that grip up to `end`, all in the picture's own units."""
    tall = max(grip + 22, 30.0)
    jaw = end - 44
    return "".join(
        (
            rect(6, axis - tall, 38, 2 * tall, "jaw"),
            rect(44, axis - grip - 12, jaw, 12, "steel"),
            rect(44, axis + grip, jaw, 12, "steel"),
        )
    )


def rect(x: float, y: float, width: float, height: float, kind: str) -> str:
    """A rectangle in the look of a kind of thing."""
    return f'<rect x="{x:.1f}" y="{y:.1f}" width="{width:.1f}" height="{height:.1f}" {LOOK[kind]}/>'


def path(line: str, kind: str) -> str:
    """A path in the look of a kind of thing."""
    return f'<path d="{line}" {LOOK[kind]}/>'


def words(x: float, y: float, text: str) -> str:
    """A figure of a dimension, centred at its place, on a ground of its own so that no line runs through it."""
    half = 3.8 * len(text)
    ground = f'<rect x="{x - half:.1f}" y="{y - 11:.1f}" width="{2 * half:.1f}" height="13" {LOOK["ground"]}/>'
    return f'{ground}<text x="{x:.1f}" y="{y:.1f}" {LOOK["words"]}>{escape(text)}</text>'


def polygon(corners: Iterable[Corner], kind: str) -> str:
    """A closed outline in the look of a kind of thing."""
    points = " ".join(f"{x:.1f},{y:.1f}" for x, y in corners)
    return f'<polygon points="{points}" {LOOK[kind]}/>'

"""The faces that a narrow edge leaves: feed marks of its corner."""

from __future__ import annotations

from cutting.mechanics import finish
from cutting.workpiece.materials import Work


def corner_roughness(feed: float, corner_radius: float, cutting_speed: float, work: Work) -> float:
    """Ra [µm] of a wall along which a corner of a radius [mm] is fed [mm/rev] at a speed [m/min], with the metal's built-up edge."""
    peak = finish.feed_mark_height(feed, corner_radius)
    return float(finish.arithmetic_roughness(peak, finish.finish_factor(cutting_speed, work.material.ductility)))

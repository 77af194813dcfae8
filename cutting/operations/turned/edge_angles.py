"""How the edge stands in the cut: angles with the tip's height, outside and inside, and what both schools of height do."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from cutting.mechanics.tool_setting import effective_clearance, effective_rake, height_angle, height_size_error, pip_diameter
from cutting.operations.frame.over_passes import last_pass
from cutting.operations.turned.run import run
from cutting.operations.turned.setup import Setup

LITTLE = 0.01  # of the diameter: what the second school sets the tip off by (common practice)


@dataclass(frozen=True)
class Height:
    """One height of the tip [mm over the axis]: angles in degrees, forces in N, sizes in mm."""

    name: str
    height: float
    turn: float
    rake: float
    clearance: float
    rake_inside: float
    clearance_inside: float
    cutting_force: float
    passive_force: float
    larger: float
    pip: float
    present: bool


@dataclass(frozen=True)
class EdgeAngles:
    """The edge in this cut: κr and its complement, the minor edge, thickness of the chip against the feed."""

    cutting_edge_angle: float
    lead_angle: float
    minor_angle: float
    chord_angle: float
    rake: float
    clearance: float
    thickness: float
    feed: float
    thinner: float  # chip thickness as a share of the feed
    heights: tuple[Height, ...]


def edge_angles(setup: Setup) -> EdgeAngles:
    """Angles of a set-up's own tool at its last pass, and the same at other heights of the tip. Raises `CuttingError`."""
    done = run(setup, setup.silent)
    cutter = done.cutter
    kappa, minor = last_pass(cutter.cutting_edge_angle), last_pass(cutter.reach_angle)
    if setup.away and setup.holder.code.hand != "L":
        minor = 180.0 - kappa - last_pass(cutter.included_angle)
    feed, thickness = last_pass(done.feed_per_rev), last_pass(done.chip_thickness)
    in_plane = np.degrees(np.arctan2(last_pass(done.feed_force), last_pass(done.passive_force)))
    return EdgeAngles(
        kappa,
        90.0 - kappa,
        minor,
        float(in_plane),
        last_pass(cutter.rake),
        last_pass(cutter.clearance),
        thickness,
        feed,
        thickness / feed,
        tuple(_height(setup, name, height) for name, height in _heights(setup)),
    )


def _heights(setup: Setup) -> list[tuple[str, float]]:
    off = LITTLE * setup.feature.turned_diameter if setup.keeps_size else 0.1
    known = [("a little above", off), ("on centre", 0.0), ("a little below", -off)]
    own = setup.centre_height
    if all(abs(own - height) > 1e-6 for _, height in known):
        known.append(("as set", own))
    return sorted(known, key=lambda one: -one[1])


def _height(setup: Setup, name: str, height: float) -> Height:
    done = run(setup.with_settings(centre_height=height), setup.silent)
    cutter = done.cutter
    diameter = setup.target_diameter if setup.keeps_size else max(2 * setup.feature.end_diameter.nominal, setup.feature.start_diameter / 2)
    theta = float(height_angle(height, diameter))
    rake, clearance = last_pass(cutter.rake), last_pass(cutter.clearance)
    return Height(
        name,
        height,
        theta,
        float(effective_rake(rake, theta)),
        float(effective_clearance(clearance, theta)),
        float(effective_rake(rake, theta, inside=True)),
        float(effective_clearance(clearance, theta, inside=True)),
        last_pass(done.cutting_force),
        last_pass(done.passive_force),
        float(height_size_error(height, diameter)),
        float(pip_diameter(height)),
        abs(height - setup.centre_height) < 1e-6,
    )

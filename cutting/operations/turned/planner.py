"""How deep a pass may be and why: the largest depth that each limit allows, and the fewest passes that follow."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from cutting.operations.frame.rule import Rule
from cutting.operations.frame.setup import Skin
from cutting.operations.turned.case import Case, Cutter, case_of, single_cutter
from cutting.operations.turned.limits import RULES
from cutting.operations.turned.physics import Cut, cut
from cutting.operations.turned.plan import FIRST_CUT, one_pass_diameters, pass_depths, pass_diameters, skin_depth
from cutting.operations.turned.setup import Setup
from cutting.quantities.write import Display, display

Array = NDArray[np.float64]
GRID = 160
# what bounds a depth from above, in the words of the planner; the chip window also from below
CEILINGS = ("spindle_power", "chip_window", "part_bends", "chatter", "edge_strength", "edge_length", "jaw_grip", "tool_bends", "book_depth")
MORE = 1.5  # times the stock: as deep as is looked
BELOW_WINDOW = 0.99  # of the chip window's least depth
LIGHTER = 0.7  # of the pass before: it springs less, and says so


@dataclass(frozen=True)
class DepthBound:
    """One limit on the depth of a pass [mm]: the largest it allows, or with `least` the smallest."""

    name: str
    label: str
    depth: float
    display: Display
    least: bool
    why: str


@dataclass(frozen=True)
class PassPlan:
    """What the planner says: bounds, the closest first, the fewest equal passes, and what to mind."""

    bounds: tuple[DepthBound, ...]
    deepest: float
    shallowest: float
    fewest: int
    equal_depth: float
    depths: tuple[float, ...]
    notes: tuple[str, ...]


def plan(setup: Setup, rules: Sequence[Rule[Cut]] = RULES) -> PassPlan:
    """The plan of a set-up at its tool, speed and feed, by the limits of its kind. Raises `CuttingError`."""
    case, cutter = case_of(setup), single_cutter(setup)
    bounds = _bounds(case, cutter, rules)
    stock = setup.stock_to_remove
    deepest = min((b.depth for b in bounds if not b.least), default=stock)
    shallowest = max((b.depth for b in bounds if b.least), default=0.0)
    fewest = max(1, int(np.ceil(stock / max(deepest, 1e-6) - 1e-6)))
    depths = pass_depths(setup)
    return PassPlan(
        bounds,
        deepest,
        shallowest,
        fewest,
        stock / fewest,
        tuple(map(float, depths)),
        tuple(_notes(setup, case, cutter, depths, shallowest)),
    )


def _bounds(case: Case, cutter: Cutter, rules: Sequence[Rule[Cut]]) -> tuple[DepthBound, ...]:
    setup = case.setup
    stock = setup.stock_to_remove
    most = max(12.0, MORE * stock)
    grid = np.geomspace(0.02, most, GRID)[:, None]
    last = one_pass_diameters(setup, grid)
    done = cut(case, cutter, setup.settings.cutting_speed, setup.settings.feed_per_rev, grid, last, setup.silent)
    found = []
    for rule in rules:
        if rule.name not in (*CEILINGS, "thin_chip") or not rule.applies(done):
            continue
        used = np.broadcast_to(rule.used(done), grid.shape)[:, 0]
        found += _crossings(rule, grid[:, 0], used)
    nose = setup.insert.code.nose_radius
    found.append(
        _bound("nose", "corner radius", 0.5 * nose, True, "Below half the corner radius the nose pushes the part away more than it cuts.")
    )
    return tuple(sorted(found, key=lambda b: (b.least, b.depth)))


def _crossings(rule: Rule[Cut], depths: Array, used: Array) -> list[DepthBound]:
    """The ends of the depths that a limit allows: its longest allowed stretch."""
    inside = np.flatnonzero(used <= 1.0 + 1e-9)
    label = rule.label.split(",")[0]
    if not len(inside):
        return [_bound(rule.name, label, 0.0, False, f"{rule.why} No depth keeps it at this feed and speed.")]
    found = []
    if inside[-1] < len(depths) - 1:
        found.append(_bound(rule.name, label, _between(depths, used, inside[-1], inside[-1] + 1), False, rule.why))
    if inside[0] > 0 and rule.name in ("chip_window", "thin_chip"):
        found.append(_bound(rule.name, label, _between(depths, used, inside[0] - 1, inside[0]), True, rule.why))
    return found


def _between(depths: Array, used: Array, a: int, b: int) -> float:
    share = np.clip((1.0 - used[a]) / (used[b] - used[a]), 0.0, 1.0)
    return float(depths[a] + share * (depths[b] - depths[a]))


def _bound(name: str, label: str, depth: float, least: bool, why: str) -> DepthBound:
    return DepthBound(name, label, depth, display(round(depth, 2), "length"), least, why)


def _notes(setup: Setup, case: Case, cutter: Cutter, depths: Array, shallowest: float) -> list[str]:
    found = []
    first = float(depths[0])
    if setup.skin is Skin.WELD:
        found.append(
            f"Touch off on the highest point of the build-up: Ø{setup.feature.start_diameter:g} mm is that point, not the mean. "
            f"First cut {first:.2f} mm; about {FIRST_CUT} mm is usual while the height is not known."
        )
    if first < (under := skin_depth(setup)) - 1e-9:
        found.append(
            f"The first cut of {first:.2f} mm runs inside the {setup.skin.value} skin of about {under:.2f} mm: "
            "go under it at once, or the edge wears on the skin."
        )
    if len(depths) > 1 and depths[-1] < LIGHTER * depths[-2]:
        found.append(_lighter(setup, case, cutter, depths))
    if depths[-1] < BELOW_WINDOW * shallowest:
        found.append(f"The last cut of {depths[-1]:.3g} mm is thinner than {shallowest:.3g} mm: it presses more than it cuts.")
    if setup.feature.polish:
        found.append(f"{1000 * setup.house.polishing_allowance:.0f} µm on diameter are left for polishing.")
    if len(depths) > 1 and setup.feature.end_diameter.tolerance:
        found.append("Measure before the last cut and correct by the offset.")
    return found


def _lighter(setup: Setup, case: Case, cutter: Cutter, depths: Array) -> str:
    s = setup.settings
    diameters = pass_diameters(setup)[-2:]
    done = cut(case, cutter, s.cutting_speed, s.feed_per_rev, depths[-2:], diameters, setup.silent)
    force = np.broadcast_to(done.passive_force, (2,))
    give = float(np.broadcast_to(done.size_error, (2,))[-1] / max(force[-1], 1e-9)) + 2.0 / (1e3 * setup.machine.post_stiffness)
    return (
        f"The last cut of {depths[-1]:.2f} mm pushes with {force[-1]:.0f} N, the one before with {force[-2]:.0f} N: "
        f"the size shifts by about {1000 * give * (force[-1] - force[-2]):+.0f} µm against what the offset says. Equal cuts do not."
    ).replace("-", "−")

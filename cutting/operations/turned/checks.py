"""What a set-up of turning or facing must satisfy before anything is computed: each refusal names its field and bound."""

from __future__ import annotations

from cutting.errors import CuttingError, OutOfRange, require_between
from cutting.machine.machines import Machine
from cutting.mechanics.deflection import Holding
from cutting.operations.frame.fields import check_bounds
from cutting.operations.frame.setup import Workholding
from cutting.operations.turned.feature import Feature, Settings
from cutting.operations.turned.fields import SETTINGS, TURN_FEATURE
from cutting.operations.turned.surface import Surface

MOST_PASSES = 60
LEAST_WALL = 0.5  # mm of wall around a bore
SAME = 0.005  # mm: two sizes are one
WALL = 0.2  # mm that stand at least beside a bore


def _outside_at(h: Workholding, f: Feature) -> float:
    """The smallest outside diameter along a bore from the free face; of a part whose steps are not known that in the jaws."""
    face = h.free_length
    along = [diameter for start, end, diameter in h.stretches if end > face - f.length and start < face]
    return min(along, default=h.grip_diameter)


def check_settings(s: Settings) -> None:
    """Raise `OutOfRange` for the first setting that cannot be."""
    check_bounds(SETTINGS, "settings", s)


def check_feature(f: Feature, surface: Surface, machine: Machine, stock_to_remove: float) -> None:
    """Raise `CuttingError` for a feature that cannot be."""
    facing = surface is Surface.FACE
    require_between("feature.start_diameter", f.start_diameter, 0.5, machine.swing, "mm (swing of the machine)")
    require_between("feature.length", f.length, 0.01, machine.turning_length, "mm (turning length of the machine)")
    require_between("feature.distance_from_chuck", f.distance_from_chuck, 0, machine.turning_length, "mm")
    if facing:
        require_between("feature.end_diameter", f.end_diameter.nominal, 0, f.start_diameter - 0.1, "mm, below the start diameter")
    elif surface is Surface.INSIDE:
        require_between("feature.end_diameter", f.end_diameter.nominal, f.start_diameter, machine.swing, "mm, not below the bore before")
        if stock_to_remove <= 0:
            most = f"below {f.end_diameter.target - f.start_diameter:g} mm"
            raise OutOfRange("feature.grinding_allowance", "with the allowance nothing is left to bore.", most)
    else:
        require_between("feature.end_diameter", f.end_diameter.nominal, 0.3, f.start_diameter, "mm, not above the start diameter")
        if stock_to_remove <= 0:
            raise OutOfRange(
                "feature.grinding_allowance",
                "with the allowance nothing is left to turn.",
                f"below {f.start_diameter - f.end_diameter.target:g} mm",
            )
    check_bounds(TURN_FEATURE, "feature", f)
    _check_profile(f, surface)


def _check_profile(f: Feature, surface: Surface) -> None:
    if not f.profile:
        return
    far = f.distance_from_chuck + f.length
    if len(f.profile) < 2 or surface is not Surface.OUTSIDE:
        raise CuttingError("feature.profile", "a contour needs two points or more and a turning operation.", "2 to 60 points")
    places = [place for place, _ in f.profile]
    if places != sorted(places):
        raise OutOfRange("feature.profile", "its points must run from the chuck outwards.", "rising distances")
    for place, diameter in f.profile:
        require_between("feature.profile", place, f.distance_from_chuck - 1e-6, far + 1e-6, "mm from the chuck, inside this cut")
        require_between("feature.profile", diameter, 0.3, f.start_diameter, "mm, not above the start diameter")
    largest = max(diameter for _, diameter in f.profile)
    if abs(largest - f.end_diameter.nominal) > SAME:
        raise OutOfRange(
            "feature.profile",
            f"its largest diameter {largest:g} mm is not the end diameter {f.end_diameter.nominal:g} mm.",
            f"{f.end_diameter.nominal:g} mm",
        )


def check_holding(h: Workholding, f: Feature, surface: Surface, machine: Machine) -> None:
    """Raise `CuttingError` for a holding that cannot be."""
    facing = surface is Surface.FACE
    require_between("holding.free_length", h.free_length, 1, machine.turning_length, "mm")
    require_between("holding.grip_diameter", h.grip_diameter, 1, machine.swing, "mm")
    if surface is Surface.INSIDE:
        if h.style is not Holding.CHUCK:
            raise CuttingError("holding.style", "a centre stands where the bar goes in.", Holding.CHUCK.value)
        outside = _outside_at(h, f)
        if f.end_diameter.nominal > outside - 2 * LEAST_WALL:
            said = f"Ø{f.end_diameter.nominal:g} leaves no wall in a part of Ø{outside:g}."
            raise OutOfRange("feature.end_diameter", said, f"below {outside - 2 * LEAST_WALL:g} mm")
    else:
        most = f.start_diameter if facing else max(f.end_diameter.nominal - WALL, 0)
        require_between("holding.bore", h.bore, 0, most, "mm")
    if h.guide_bush and not machine.guide_bush:
        raise CuttingError("holding.guide_bush", f"{machine.name} has none.", "a sliding-head lathe")
    if h.steady is not None:
        require_between("holding.steady", h.steady, 1, h.free_length, "mm from the chuck, inside the free length")
        if h.style is Holding.BETWEEN_CENTRES and h.steady >= h.free_length:
            raise OutOfRange("holding.steady", "stands at the centre itself.", f"below {h.free_length:g} mm")
    # a bore may go on through the jaws
    if surface is Surface.OUTSIDE and f.distance_from_chuck + f.length > h.free_length + 1e-6:
        raise OutOfRange(
            "feature.length",
            f"the cut ends {f.distance_from_chuck + f.length:g} mm from the chuck, the part only {h.free_length:g} mm.",
            f"at most {h.free_length - f.distance_from_chuck:g} mm",
        )


def check_passes(settings: Settings, stock: float, passes: int) -> None:
    """Raise `OutOfRange` for more passes than anybody takes, or for depths that leave nothing to the last."""
    given = settings.pass_depths
    if passes > MOST_PASSES:
        raise OutOfRange(
            "settings.pass_depths" if given else "settings.depth_of_cut",
            f"this depth needs {passes} passes.",
            f"at least {stock / MOST_PASSES:.3g} mm",
        )
    if not given:
        return
    for depth in given[:-1]:
        require_between("settings.pass_depths", depth, 0.005, 30, "mm")
    if sum(given[:-1]) > stock - SAME:
        raise OutOfRange(
            "settings.pass_depths",
            f"the cuts before the last take {sum(given[:-1]):.3f} mm, all that is left is {stock:.3f} mm.",
            f"below {stock:.3f} mm before the last, which takes the rest",
        )

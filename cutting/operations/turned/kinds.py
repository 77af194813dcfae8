"""What turning and facing bring to the house: their fields, the settings that are walked, the results in sight."""

from __future__ import annotations

from cutting.operations.frame.fields import WORKHOLDING, Fields, Nudged
from cutting.operations.frame.outcome import Outcome
from cutting.operations.turned.case import case_of
from cutting.operations.turned.depths import depths
from cutting.operations.turned.fields import FACE_FEATURE, SETTINGS, TURN_FEATURE
from cutting.operations.turned.setup import Setup
from cutting.operations.turned.surface import Surface
from cutting.tooling.crib import Crib
from cutting.tooling.roles import Parts, Role

TURN_FIELDS = Fields(
    TURN_FEATURE,
    SETTINGS,
    WORKHOLDING,
    title=lambda f: f"Turn Ø{f.get('end_diameter', '')}",
    speed_diameter="start_diameter",
    shown=("end_diameter", "length", "roughness"),
)
ROLES = (Role("insert", "insert", ("turning insert",)), Role("holder", "holder", ("turning holder",)))
FACE_FIELDS = Fields(
    FACE_FEATURE, SETTINGS, WORKHOLDING, title=lambda f: "Face", speed_diameter="start_diameter", shown=("end_diameter", "roughness")
)
NUDGED = (
    Nudged("cutting_speed", "speed", "cutting_speed", "book_speed", lambda setup, outcome: setup.settings.cutting_speed),
    Nudged("feed_per_rev", "feed", "feed_per_rev", "chip_window", lambda setup, outcome: setup.settings.feed_per_rev),
    Nudged("depth_of_cut", "depth", "length", "edge_length", lambda setup, outcome: _first_depth(outcome), depths),
)
RANKED = ("depth_of_cut", "pass_depths", "overhang", "nozzles", "nozzle_diameter")
NEUTRAL = (("cutting_speed", 100.0), ("feed_per_rev", 0.1), ("depth_of_cut", 30.0))
HEADLINE = ("operation_time", "operation_cost", "median_parts", "change_parts", "secure", "roughness", "size_after")


def gather(parts: Parts, note: str) -> Crib:
    """The inserts and holders to choose from."""
    return Crib(tuple(parts["insert"]), tuple(parts["holder"]), note)


def _first_depth(outcome: Outcome) -> float:
    return outcome.passes[0].depth


def stiffness(setup: Setup) -> float:
    """Stiffness of the part at this cut, N/µm."""
    after = setup.feature.start_diameter if setup.surface is Surface.FACE else setup.feature.turned_diameter
    return float(1.0 / case_of(setup).compliance(after, after).ravel()[0] / 1000.0)

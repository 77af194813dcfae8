"""Facing from the outside towards bore, boss or centre, at constant cutting speed where the machine has it."""

from cutting.operations.single_point.chip_map import chip_map as explore
from cutting.operations.single_point.evaluate import evaluate, relax

TITLE = "Face"

__all__ = ["TITLE", "evaluate", "explore", "relax"]

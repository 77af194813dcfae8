"""Outside turning towards the chuck: equal passes from the start diameter to the size on the drawing."""

from cutting.operations.single_point.chip_map import chip_map as explore
from cutting.operations.single_point.evaluate import evaluate, relax

TITLE = "Turn"

__all__ = ["TITLE", "evaluate", "explore", "relax"]

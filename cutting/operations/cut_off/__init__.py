"""Cut-off: what the blade meets on its way to the centre, what face it leaves, and when the part falls."""

from cutting.operations.cut_off.evaluate import evaluate, explore, relax

TITLE = "Cut off"

__all__ = ["TITLE", "evaluate", "explore", "relax"]

"""What chips an edge: blows, skin, a loose spindle and a shaking tool ask for toughness."""

from __future__ import annotations

from typing import Any

import numpy as np
from numpy.typing import NDArray

from cutting.operations.frame.setup import BaseSetup, Skin

# toughness, 0 to 1, that a smooth cut asks of an edge, and what each trouble adds (common practice): P20 stands blows, P30 blows on weld
SMOOTH_CUT, BLOWS, LOOSE, SHAKY = 0.25, 0.3, 0.1, 0.05
SKIN_ASKS = {Skin.CLEAN: 0.0, Skin.BAR: 0.0, Skin.FORGED: 0.1, Skin.CAST: 0.1, Skin.WELD: 0.35, Skin.HARDENED: 0.05}
SOFT_BLOWS = 0.6  # of that in soft, non-ferrous metals
# a tool shakes from twice its height of overhang, fully at four times (common practice: 1 to 1.5 is usual)
SHAKES_FROM, SHAKES_FULLY, LONG_SHANK = 2.0, 4.0, 0.1


def toughness_asked(setup: BaseSetup, slenderness: Any, more: float = 0.0) -> NDArray[np.float64]:
    """What the cut asks of an edge, 0 to 1: `slenderness` is the tool's overhang over its height, `more` what a kind adds."""
    holding = setup.holding
    troubles = (BLOWS if getattr(holding, "interrupted", False) else 0.0) + SKIN_ASKS[setup.skin] + more
    troubles += (LOOSE if setup.machine.condition == "worn" else 0.0) + (SHAKY if getattr(holding, "weak", False) else 0.0)
    long = np.clip((np.asarray(slenderness, float) - SHAKES_FROM) / (SHAKES_FULLY - SHAKES_FROM), 0.0, 1.0)
    return SMOOTH_CUT + (troubles + LONG_SHANK * long) * (SOFT_BLOWS if setup.work.material.group.letter == "N" else 1.0)

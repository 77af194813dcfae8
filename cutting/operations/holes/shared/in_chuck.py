"""What every round tool in its chuck has as numbers, for many pairs at once."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Any

import numpy as np
from numpy.typing import NDArray

from cutting.machine.machines import Machine
from cutting.tooling.drills import Chuck
from cutting.tooling.fitting import drill_seats
from cutting.tooling.roles import Index

Array = NDArray[np.float64]
Columns = Mapping[str, Array]
WORN_PLAY = 0.05  # mm that a worn spindle adds to the runout (common practice)
SOUND_PLAY = 0.005  # and one in good order


def own_numbers(tools: Columns, chucks: Columns, left: Index, right: Index) -> dict[str, Array]:
    """Numbers of tools and of chucks (`chuck_…`) by name, (pairs, 1)."""
    own = {name: values[left][:, None] for name, values in tools.items()}
    return own | {f"chuck_{name}": values[right][:, None] for name, values in chucks.items()}


def play(machine: Machine) -> float:
    """What the spindle adds to a chuck's runout [mm]."""
    return WORN_PLAY if machine.condition == "worn" else SOUND_PLAY


def seated(machine: Machine, chucks: Sequence[Chuck], right: Index) -> NDArray[np.bool_]:
    """Whether chucks sit in the machine, (pairs, 1)."""
    seats = drill_seats(machine)
    return np.array([one.sits_in in seats for one in chucks], bool)[right][:, None]


def in_chuck(
    setup: Any, tools: Sequence[Any], told: Sequence[Mapping[str, float]], names: Sequence[str], own: dict[str, Array], left: Index
) -> dict[str, Any]:
    """The fields that taps and mills share: own numbers, grip [N·m], use of a grade beside its letter, and `names` of what each is told."""
    letter = setup.work.material.group.letter
    found = {name: np.array([one[name] for one in told], float)[left][:, None] for name in names}
    return {
        "own": own,
        "grip": own["chuck_grip"] * own["shank"] ** 2,
        "coefficient_of_variation": found.pop("scatter"),
        "side_use": np.array([float(one.grade.main_letter != letter) for one in tools])[left][:, None],
        **found,
    }

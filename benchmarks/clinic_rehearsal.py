"""How often the clinic finds the cause, over faults of a simulated shop, and how long an answer takes."""

from __future__ import annotations

import time
from collections.abc import Iterable, Iterator

from benchmarks.sizes import Sizes
from cutting.clinic.rehearsal import calibration_error, rehearse, unnamed
from cutting.clinic.suspects import case_of, diagnose
from cutting.clinic.trainer import practised, setup_for
from cutting.operations.registry import evaluate_quickly

SEED = 1


def measure(site: object, sizes: Sizes) -> Iterator[str]:
    """The figures of the clinic."""
    setups = [setup_for(kind) for kind in practised()]
    cases = [case_of(setup) for setup in setups]
    found = rehearse(setups, cases, sizes.faults, SEED)
    healed = [one.healed for one in found if one.healed]
    yield f"{len(found)} faults, at most three rounds of looks, {sum(one.minutes for one in found) / len(found):.0f} min of looking"
    yield f"true cause first {_share(one.place == 0 for one in found)}, among three {_share(one.place < 3 for one in found)}"
    yield f"by the weights alone {_share(one.by_prior == 0 for one in found)}, among three {_share(one.by_prior < 3 for one in found)}"
    yield f"expected calibration error {calibration_error(found):.1%}"
    yield f"healed by the first change {_share(one.healed == 1 for one in found)}, {sum(healed) / len(healed):.2f} changes on average"
    yield f"healed by less feed and speed {_share(one.habit for one in found)} (of what the engine can run)"
    yield f"faults that no cause names: none of these fits {unnamed(cases, sizes.faults, SEED):.1%}"
    outcomes = [evaluate_quickly(setup) for setup in setups]
    began = time.perf_counter()
    for setup, outcome in zip(setups, outcomes, strict=True):
        diagnose(case_of(setup, outcome), [], {})
    yield f"an answer takes {(time.perf_counter() - began) / len(setups) * 1000:.0f} ms on average"


def _share(of: Iterable[bool]) -> str:
    each = list(of)
    return f"{sum(each) / len(each):.1%}"

"""The whole part's state at few and at many operations, at the door of the server as it is started."""

from __future__ import annotations

import statistics
import time

from benchmarks.crib import Door
from benchmarks.sizes import FULL, Sizes

NUDGES = 8


def measure(site: str, sizes: Sizes = FULL) -> list[str]:
    door = Door(site)
    new = {"name": "Long pin", "material": "C45", "machine": "two-axis lathe", "diameter": "80", "free_length": "300"}
    job = door.post("/api/jobs", new)
    lines = []
    for count in (5, sizes.operations):
        while len(job["document"]["operations"]) < count:
            number = len(job["document"]["operations"])
            feature = {"end_diameter": f"{79.5 - 0.5 * number:g}", "length": "40", "distance_from_chuck": "200"}
            edit = {"action": "add_operation", "kind": "turn", "title": f"Step {number + 1}", "feature": feature}
            job = door.post(f"/api/jobs/{job['id']}/edits", {"base_revision": job["revision"], "edit": edit})
        lines.append(_nudged(door, job))
    return lines


def _nudged(door: Door, job: dict[str, object]) -> str:
    operations = job["document"]["operations"]  # type: ignore[index]
    path = f"/api/jobs/{job['id']}/operations/{operations[-1]['id']}"
    evaluated, followed = [], []
    for k in range(NUDGES):
        tried = {"settings": {"feed_per_rev": f"{0.2 + 0.005 * k:.3f} mm/rev"}, "units": "mm"}
        for door_name, times in (("evaluate", evaluated), ("follow", followed)):
            began = time.perf_counter()
            door.post(f"{path}/{door_name}", tried)
            times.append(1000 * (time.perf_counter() - began))
    return (
        f"{len(operations)} operations: a nudge's evaluation {statistics.median(evaluated):.0f} ms (wanted below 25 ms), "
        f"ranking, remedies and state {statistics.median(followed):.0f} ms"
    )

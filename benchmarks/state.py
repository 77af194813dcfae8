"""The whole part's state at few and at many operations, and the list of a shop's jobs, at the door of the server as it is started."""

from __future__ import annotations

import statistics
import time
from collections.abc import Callable
from functools import partial

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
    return [*lines, _listed(door, sizes.jobs)]


def _listed(door: Door, count: int) -> str:
    """A page of the list of many jobs, as it is asked for every time, and the first time after their machine was changed."""
    shaft = door.get("/api/jobs?q=runner")["rows"][0]["id"]
    for _ in range(count):
        door.post(f"/api/jobs/{shaft}/copy", {})
    matched = door.get("/api/jobs")["matched"]
    looks = [_took(lambda: door.get("/api/jobs")) for _ in range(NUDGES)]
    machine = next(one["id"] for one in door.get("/api/floor/machines") if one["name"] == "two-axis lathe")
    version = door.get(f"/api/records/machines/{machine}")["version"]
    changed = _took(lambda: door.post(f"/api/records/machines/{machine}", {"version": version, "cells": {"rate": "71"}}))
    after = _took(lambda: door.get("/api/jobs"))
    return (
        f"{matched} jobs: a page of the list {statistics.median(looks):.0f} ms; their machine changed in {changed:.0f} ms, "
        f"the first page after it {after:.0f} ms"
    )


def _took(act: Callable[[], object]) -> float:
    began = time.perf_counter()
    act()
    return 1000 * (time.perf_counter() - began)


def _nudged(door: Door, job: dict[str, object]) -> str:
    operations = job["document"]["operations"]  # type: ignore[index]
    path = f"/api/jobs/{job['id']}/operations/{operations[-1]['id']}"
    evaluated, followed = [], []
    for k in range(NUDGES):
        tried = {"settings": {"feed_per_rev": f"{0.2 + 0.005 * k:.3f} mm/rev"}, "units": "mm"}
        for name, times in (("evaluate", evaluated), ("follow", followed)):
            times.append(_took(partial(door.post, f"{path}/{name}", tried)))
    return (
        f"{len(operations)} operations: a nudge's evaluation {statistics.median(evaluated):.0f} ms (wanted below 25 ms), "
        f"ranking, remedies and state {statistics.median(followed):.0f} ms"
    )

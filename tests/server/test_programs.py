"""Every planned operation leaves the bench as a program that reads back to its plan."""

from __future__ import annotations

from collections.abc import Callable

import pytest

from tests.server.conftest import Api
from tests.server.test_slots import trying

JOBS = ("Runner shaft", "Guide-vane pin", "Valve block, six M10", "Nozzle ring", "Nozzle-ring bolt circle", "Gate spindle Tr 20x4")


@pytest.mark.parametrize("job", JOBS)
def test_every_operation_of_a_job_has_its_program(engineer: Api, job_id: Callable[[str], int], job: str) -> None:
    number = job_id(job)
    operations = engineer.get(f"/api/jobs/{number}").json()["document"]["operations"]
    assert operations
    for entry in operations:
        answer = trying(engineer, number, entry["id"], "program")
        assert {one["units"] for one in answer["texts"]} == {"mm", "inch"}
        for one in answer["texts"]:
            assert one["findings"] == [], (entry["title"], one["dialect"], one["findings"][:3])
            assert one["text"].rstrip().endswith(("M30", "M2"))
        assert answer["not_checked"]


def test_a_program_over_a_limit_says_not_to_run_it(engineer: Api, job_id: Callable[[str], int]) -> None:
    number = job_id("Runner shaft")
    sound = trying(engineer, number, "op20", "program")
    fast = trying(engineer, number, "op20", "program", settings={"cutting_speed": "400 m/min"})
    assert sound["broken"] == []
    assert fast["broken"]
    assert fast["texts"][0]["text"] != sound["texts"][0]["text"]

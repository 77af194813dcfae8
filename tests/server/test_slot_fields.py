"""Every declared field of the narrow kinds at the API: nonsense is refused by its name, inches mean what millimetres mean, undo undoes."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

import pytest

from cutting.operations.frame.fields import Field
from cutting.operations.registry import KINDS
from tests.server.conftest import Api
from tests.server.test_slots import trying

JobId = Callable[[str], int]
OPERATIONS = {
    "cut off": ("Guide-vane pin", "op40"),
    "groove": ("Bearing carrier", "op20"),
    "face groove": ("Nozzle ring", "op20"),
    "trepan": ("Screen cover disc", "op10"),
}
FREE = {"text"}  # words of the shop's own: a coolant, a standard groove
EVERY = [
    (kind, section, field)
    for kind in OPERATIONS
    for section in ("feature", "settings")
    for field in getattr(KINDS[kind].fields, section)
    if field.kind not in FREE and field.kind != "flag"
]


@pytest.mark.parametrize(("kind", "section", "field"), EVERY, ids=lambda one: one.name if isinstance(one, Field) else one)
def test_nonsense_is_refused_by_name_and_nothing_is_saved(engineer: Api, job_id: JobId, kind: str, section: str, field: Field) -> None:
    name, operation = OPERATIONS[kind]
    job = job_id(name)
    action = "set_feature" if section == "feature" else "set_settings"
    answer = engineer.edit(job, 1, action=action, operation=operation, **{section: {field.name: "as usual"}})
    assert answer.status_code == 422, answer.content
    error = answer.json()["errors"][0]
    assert error["field"].split(".")[-1] == field.name
    assert error["message"]
    assert engineer.get(f"/api/jobs/{job}").json()["revision"] == 1


def feed_of(kind: str) -> str:
    return "feed_per_tooth" if kind == "trepan" else "feed_per_rev"


@pytest.mark.parametrize("kind", OPERATIONS)
@pytest.mark.parametrize("value", ["-5", "1e9"])
def test_speeds_and_feeds_beyond_all_bounds_name_the_bound(engineer: Api, job_id: JobId, kind: str, value: str) -> None:
    name, operation = OPERATIONS[kind]
    for field in ("cutting_speed", feed_of(kind)):
        answer = engineer.edit(job_id(name), 1, action="set_settings", operation=operation, settings={field: value})
        error = answer.json()["errors"][0]
        assert (answer.status_code, error["field"]) == (422, f"settings.{field}")
        assert any(sign.isdigit() for sign in error["bound"])


@pytest.mark.parametrize("kind", OPERATIONS)
def test_inches_mean_what_millimetres_mean(engineer: Api, job_id: JobId, kind: str) -> None:
    """The same tried values in both systems give the same judgement, and each display carries both."""
    name, operation = OPERATIONS[kind]
    feed, speed = 0.1, 100.0
    metric = trying(engineer, job_id(name), operation, settings={"cutting_speed": str(speed), feed_of(kind): str(feed)}, units="mm")
    inch = trying(
        engineer,
        job_id(name),
        operation,
        settings={"cutting_speed": f"{speed / 0.3048:.9g}", feed_of(kind): f"{feed / 25.4:.9g}"},
        units="inch",
    )
    for key, value in metric["results"].items():
        assert inch["results"][key]["value"] == pytest.approx(value["value"], rel=1e-6), key
        assert value["display"]["metric"]
        assert value["display"]["inch"]
    assert [limit["name"] for limit in metric["limits"]] == [limit["name"] for limit in inch["limits"]]
    for limit in metric["limits"]:
        assert limit["why"]
        assert limit["source"]


@pytest.mark.parametrize("kind", OPERATIONS)
def test_an_edit_is_undone_and_done_again(engineer: Api, job_id: JobId, kind: str) -> None:
    name, operation = OPERATIONS[kind]
    job = job_id(name)

    def settings(answer: Any) -> Any:
        return next(one for one in answer.json()["document"]["operations"] if one["id"] == operation)["settings"]

    before = settings(engineer.get(f"/api/jobs/{job}"))
    after = settings(engineer.edit(job, 1, action="set_settings", operation=operation, settings={feed_of(kind): "0.077"}))
    assert after[feed_of(kind)] == f"0.077 mm/{feed_of(kind).removeprefix('feed_per_')}"
    assert settings(engineer.post(f"/api/jobs/{job}/undo", {"base_revision": 2})) == before
    assert settings(engineer.post(f"/api/jobs/{job}/redo", {"base_revision": 3})) == after
    stale = engineer.edit(job, 1, action="set_settings", operation=operation, settings={feed_of(kind): "0.2"})
    assert stale.status_code == 409


@pytest.mark.parametrize("kind", OPERATIONS)
def test_what_a_result_rests_on_is_written_down(operator: Api, job_id: JobId, kind: str) -> None:
    """The working of a limit can be followed: symbols, numbers and a source at every step."""
    name, operation = OPERATIONS[kind]
    found = trying(operator, job_id(name), operation)
    by_power = next(limit for limit in found["limits"] if limit["name"] == "spindle_power")
    assert by_power["working"]
    steps = [step for value in found["results"].values() for step in value["working"]] + by_power["working"]
    for step in steps:
        assert step["formula"]
        assert step["source"]
        assert step["symbol"]
        assert step["value"] is not None

"""What becomes of a tool that is made no more: its successor, its neighbours, and the jobs that use it."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from server.crib.models import Tool
from tests.server.conftest import Api
from tests.server.test_slots import trying


def test_neighbours_of_a_grade_are_the_same_edge_tougher_harder_and_for_other_metals(engineer: Api) -> None:
    row = Tool.objects.get(name="CNMG 120408 light wiper P20 CVD")
    sheet = engineer.get(f"/api/crib/tools/{row.pk}").json()
    found = {one["word"]: one["name"] for one in sheet["neighbours"]}
    assert found["harder"] == "CNMG 120408 light wiper P10 CVD"
    elsewhere = {word.removeprefix("for "): name for word, name in found.items() if word.startswith("for ")}
    assert elsewhere
    assert all(Tool.objects.get(name=name).grade.main_letter == letter for letter, name in elsewhere.items())  # type: ignore[union-attr]
    toughness = {name: Tool.objects.select_related("grade").get(name=name).grade.toughness for name in (row.name, *found.values())}  # type: ignore[union-attr]
    assert toughness[found["harder"]] < toughness[row.name]
    if "tougher" in found:
        assert toughness[found["tougher"]] > toughness[row.name]
    ids = {one["id"] for one in sheet["neighbours"]}
    assert row.pk not in ids
    assert Tool.objects.filter(pk__in=ids).count() == len(ids)
    assert not engineer.get(f"/api/crib/tools/{Tool.objects.filter(kind='turning holder').first().pk}").json()["neighbours"]  # type: ignore[union-attr]


def test_a_discontinued_tool_names_its_successor_where_it_is_used(engineer: Api, job_id: Callable[[str], int]) -> None:
    job = job_id("Runner shaft")
    document: Any = engineer.get(f"/api/jobs/{job}").json()["document"]
    entry = next(one for one in document["operations"] if "insert" in one["tool"])
    assert "discontinued" not in {one["name"] for one in trying(engineer, job, entry["id"])["warnings"]}
    tool = Tool.objects.get(name=entry["tool"]["insert"])
    other = Tool.objects.filter(kind=tool.kind, archived_at=None).exclude(pk=tool.pk).first()
    assert other is not None
    changed = engineer.post(f"/api/records/tools/{tool.pk}", {"version": tool.version, "cells": {"successor": other.name}, "units": "mm"})
    assert changed.status_code == 200, changed.content
    assert engineer.post(f"/api/records/tools/{tool.pk}/archive", {}).status_code == 200
    said = next(one for one in trying(engineer, job, entry["id"])["warnings"] if one["name"] == "discontinued")
    assert other.name in said["text"]
    sheet = engineer.get(f"/api/crib/tools/{tool.pk}").json()
    assert (sheet["successor"], sheet["successor_id"]) == (other.name, other.pk)

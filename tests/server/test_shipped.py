"""The demo's tools go into the archive and come out as one; the shop's own stay where they are."""

from __future__ import annotations

from server.crib.models import Tool
from server.records.models import Change
from tests.server.conftest import Api


def test_the_demo_crib_is_archived_whole_and_restored(engineer: Api) -> None:
    tool = Tool.objects.filter(source__startswith="invented").order_by("pk").first()
    assert tool is not None
    Tool.objects.filter(pk=tool.pk).update(source="our drawer")  # one that the shop has made its own
    before = engineer.get("/api/crib/shipped").json()
    assert before["in_crib"] > 1000
    assert before["own"] >= 1
    away = engineer.post("/api/crib/shipped", {"archived": True}).json()
    assert (away["in_crib"], away["archived"]) == (0, before["in_crib"] + before["archived"])
    assert away["own"] == before["own"]
    listed = engineer.get("/api/crib/tools?limit=5").json()
    assert listed["matched"] == before["own"]
    one = Tool.objects.filter(source__startswith="invented").first()
    assert one is not None
    assert one.archived_at is not None
    assert Change.objects.filter(table="tools", thing=one.pk, action__startswith="archived with").count() == 1
    back = engineer.post("/api/crib/shipped", {"archived": False}).json()
    assert (back["in_crib"], back["archived"]) == (away["archived"], 0)
    assert engineer.get("/api/crib/tools?limit=5").json()["matched"] == before["own"] + back["in_crib"]


def test_only_an_engineer_archives_it(operator: Api) -> None:
    assert operator.post("/api/crib/shipped", {"archived": True}).status_code == 403
    assert operator.get("/api/crib/shipped").json()["archived"] == 0

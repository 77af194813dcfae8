"""What was shown as saved survives a kill of the server and of the database."""

from __future__ import annotations

import itertools
import json
import threading
import time
from pathlib import Path
from typing import Any
from urllib.error import HTTPError

import pytest

from house import database
from tests.server.killable import Shop, shop

__all__ = ["shop"]


def test_nothing_shown_as_saved_is_lost_by_a_kill(shop: Shop) -> None:
    shop.start(prepare=True)
    shop.sign_in()
    job = shop.ask("/api/jobs")["rows"][0]["id"]
    confirmed: list[int] = []

    def save_without_pause() -> None:
        revision = 1
        while True:
            feed = f"{0.1 + revision % 10 / 100:.2f} mm/rev"
            edit = {"action": "set_settings", "operation": "op10", "settings": {"feed_per_rev": feed}}
            try:
                answer = shop.ask(f"/api/jobs/{job}/edits", {"base_revision": revision, "edit": edit})
            except OSError:
                return
            revision = answer["revision"]
            confirmed.append(revision)

    asked = {"job": job, "operation": "op20", "question": "Does what is kept stay?"}
    trial, logged = shop.ask("/api/trials", asked)["id"], []

    def entry(number: int) -> dict[str, object]:
        return {"key": f"entry-{number:04}", "edge": "1", "count": number, "read": {"wear_land": "0.1 mm"}}

    def log_without_pause() -> None:
        for number in itertools.count(1):
            try:
                shop.ask(f"/api/trials/{trial}/entries", entry(number))
            except OSError:
                return
            logged.append(number)

    workers = [threading.Thread(target=one) for one in (save_without_pause, log_without_pause)]
    for one in workers:
        one.start()
    deadline = time.monotonic() + 20
    while min(len(confirmed), len(logged)) < 8 and time.monotonic() < deadline:
        time.sleep(0.01)
    shop.kill()
    for one in workers:
        one.join(timeout=20)
    assert min(len(confirmed), len(logged)) >= 8

    shop.start(prepare=False)
    shop.sign_in()
    found = shop.ask(f"/api/jobs/{job}")
    # the one in flight may or may not have been written; every confirmed one is there, whole
    assert confirmed[-1] <= found["revision"] <= confirmed[-1] + 1
    numbers = [row["number"] for row in shop.ask(f"/api/jobs/{job}/revisions")]
    assert numbers == list(range(found["revision"], 0, -1))
    expected = f"{0.1 + (found['revision'] - 1) % 10 / 100:.2f} mm/rev"
    assert found["document"]["operations"][0]["settings"]["feed_per_rev"] == expected
    # a tablet that was not answered sends all of it again: each entry is there once
    for number in range(1, logged[-1] + 2):
        shop.ask(f"/api/trials/{trial}/entries", entry(number))
    assert [one["count"] for one in shop.ask(f"/api/trials/{trial}")["log"]] == list(range(1, logged[-1] + 2))


def rows_of_tools(count: int) -> str:
    """A file of so many inserts, each once."""
    geometries = ("light", "middle", "heavy", "sticky", "iron", "ground", "light wiper", "middle wiper", "hot alloy", "bare")
    grades = ("P10 CVD", "P20 CVD", "P30 CVD", "M15 PVD", "M25 CVD", "K15 CVD", "N10 plain", "S15 PVD")
    codes = (
        f"{shape}{clearance}M{fixing} {size}{nose}"
        for shape, size in (("C", "1204"), ("C", "1606"), ("S", "1204"), ("T", "1604"), ("D", "1506"), ("W", "0804"))
        for clearance in "NCPB"
        for fixing in "GMAT"
        for nose in ("04", "08", "12", "16")
    )
    lines = (f"turning insert,{code},{geometry},{grade}" for code in codes for geometry in geometries for grade in grades)
    return "kind,designation,geometry,grade\n" + "\n".join(itertools.islice(lines, count))


def test_an_import_killed_midway_is_finished_whole(shop: Shop) -> None:
    shop.start(prepare=True)
    shop.sign_in()
    before = shop.ask("/api/crib/tools")["total"]
    first = shop.workers()
    run = shop.upload(rows_of_tools(4000))
    shop.wait(run, "previewed")
    # only what can be new: the demo stocks a few of them already
    new = shop.ask(f"/api/exchange/runs/{run}")["counts"]["new"]
    assert new > 3000
    shop.ask(f"/api/exchange/runs/{run}/apply", {})
    deadline = time.monotonic() + 20
    while shop.ask(f"/api/exchange/runs/{run}")["done"] < 1000 and time.monotonic() < deadline:
        time.sleep(0.05)
    first.kill()
    first.wait()
    assert shop.ask(f"/api/exchange/runs/{run}")["state"] == "running"
    assert shop.ask("/api/crib/tools")["total"] == before  # nothing half-written
    second = shop.workers()
    try:
        shop.wait(run, "done", seconds=60)
    finally:
        second.terminate()
        second.wait()
    assert shop.ask("/api/crib/tools")["total"] == before + new


def test_a_broken_database_folder_is_one_sentence(tmp_path: Path) -> None:
    from house.ground import SetupProblem

    broken = database.Instance(tmp_path / "database")
    broken.data.mkdir(parents=True)
    (broken.data / "ibdata1").write_bytes(b"not a database")
    with pytest.raises(SetupProblem, match=r"is broken.*backup"):
        database.start(broken)


def test_a_database_that_is_away_is_told_and_found_again(shop: Shop) -> None:
    """While it is away edits are refused and nothing is half-done; the start command brings it back where it was."""
    shop.start(prepare=True)
    shop.sign_in()
    job = shop.ask("/api/jobs")["rows"][0]["id"]
    edit = {"base_revision": 1, "edit": {"action": "set_settings", "operation": "op10", "settings": {"feed_per_rev": "0.23 mm/rev"}}}

    def refused(path: str, data: Any = None) -> tuple[int, dict[str, Any]]:
        with pytest.raises(HTTPError) as error:
            shop.ask(path, data)
        return error.value.code, json.load(error.value)

    assert shop.ask("/ready") == {"ready": True, "database": True, "migrations": True, "tasks": True, "room": True}
    port = shop.instance.port
    shop.kill_database()
    assert shop.ask("/alive") == {"alive": True}
    assert refused("/ready") == (503, {"ready": False, "database": False})
    for path, data in ((f"/api/jobs/{job}/edits", edit), (f"/api/jobs/{job}", None), ("/api/session", None)):
        status, answer = refused(path, data)
        assert (status, "Nothing was saved" in answer["title"]) == (503, True), path
    database.start(shop.instance)
    assert shop.instance.port == port
    assert shop.ask(f"/api/jobs/{job}/edits", edit)["revision"] == 2
    assert shop.ask("/ready")["ready"]

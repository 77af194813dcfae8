"""Instruments at the server's doors, against the simulated ones: a reading, the machine's values, a gap that stays a gap."""

from __future__ import annotations

import asyncio
import random
import socket
import threading
from collections.abc import Iterator
from typing import Any

import pytest

from devices import instruments as devices
from tests.server.conftest import Api


@pytest.fixture
def beside(monkeypatch: pytest.MonkeyPatch) -> Iterator[dict[str, Any]]:
    """The simulated instruments on their ports, at a machine whose clock the test turns."""
    loop, ready, known = asyncio.new_event_loop(), threading.Event(), {"at": 0.0}
    machine = devices.Machine(random.Random(1), 7, clock=lambda: known["at"])

    async def begin() -> None:
        rng = random.Random(1)
        lines = await asyncio.start_server(lambda r, w: devices._gauge(r, w, rng), "127.0.0.1", 0)
        http = await asyncio.start_server(lambda r, w: devices._agent(r, w, machine), "127.0.0.1", 0)
        ports = [one.sockets[0].getsockname()[1] for one in (lines, http)]
        monkeypatch.setenv("ARROW_BENCH_INSTRUMENTS", ",".join(map(str, ports)))
        ready.set()

    loop.create_task(begin())
    thread = threading.Thread(target=loop.run_forever, daemon=True)
    thread.start()
    assert ready.wait(10)
    yield {"machine": machine, "known": known}
    loop.call_soon_threadsafe(loop.stop)
    thread.join(5)


def test_a_reading_is_taken_with_its_unit(operator: Api, beside: dict[str, Any]) -> None:
    listed = operator.get("/api/instruments").json()
    assert [(one["protocol"], one["simulated"]) for one in listed] == [("line", True), ("agent", True)]
    taken = operator.get(f"/api/instruments/{listed[0]['id']}/reading").json()
    assert taken["text"].endswith(" mm")
    assert float(taken["entry"]) == pytest.approx(49.003, abs=0.02)
    inch = operator.get(f"/api/instruments/{listed[0]['id']}/reading?units=inch").json()
    assert float(inch["entry"]) == pytest.approx(49.003 / 25.4, abs=0.001)
    assert operator.get(f"/api/instruments/{listed[1]['id']}/reading").status_code == 422


def test_the_machine_s_values_and_what_is_not_there(operator: Api, beside: dict[str, Any]) -> None:
    beside["machine"].step()
    now = {one["name"]: one for one in operator.get("/api/instruments/simulated-lathe/state").json()["values"]}
    assert now["execution"]["value"]["metric"] == "runs"
    assert 50 < float(now["load"]["text"]) < 75
    assert now["feed"]["value"]["metric"].startswith("231")  # 3.85 mm/s
    beside["known"]["at"] = devices.GONE_EVERY - 1.0
    beside["machine"].step()
    gone = {one["name"]: one for one in operator.get("/api/instruments/simulated-lathe/state").json()["values"]}
    assert gone["load"]["missing"]
    assert gone["load"]["text"] == "", "nothing that did not come can be taken into a field"
    beside["known"]["at"] = devices.GONE_EVERY + 1.0
    beside["machine"].step()
    strip = operator.get("/api/instruments/simulated-lathe/strip").json()
    assert strip["gaps"] == 1
    assert strip["lost"] == ""


def test_an_instrument_that_is_away_or_talks_nonsense_is_told(engineer: Api, operator: Api) -> None:
    with socket.create_server(("127.0.0.1", 0)) as lot:
        port = lot.getsockname()[1]

        def garble() -> None:
            line, _ = lot.accept()
            with line:
                line.recv(10)
                line.sendall(b"\xff\xfe hello\r\n")

        thread = threading.Thread(target=garble, daemon=True)
        thread.start()
        given = {"name": "bore gauge", "protocol": "line", "host": "127.0.0.1", "port": port, "unit": "mm"}
        assert operator.post("/api/instruments", given).status_code == 403
        (paired,) = engineer.post("/api/instruments", given).json()
        answer = operator.get(f"/api/instruments/{paired['id']}/reading")
        thread.join(5)
        assert answer.status_code == 422
        assert "no reading" in answer.json()["title"]
    away = operator.get(f"/api/instruments/{paired['id']}/reading")
    assert away.status_code == 503
    assert "does not answer" in away.json()["title"]
    assert engineer.post(f"/api/instruments/{paired['id']}/archive", {}).json() == []
    assert operator.get(f"/api/instruments/{paired['id']}/reading").status_code == 404


def test_on_a_shop_s_own_server_nothing_of_the_server_itself_is_asked(engineer: Api, settings: Any) -> None:
    settings.INSTRUMENTS_ON_LOOPBACK = False
    given = {"name": "x", "protocol": "line", "port": 3306}
    assert [engineer.post("/api/instruments", {**given, "host": host}).status_code for host in ("127.0.0.1", "localhost")] == [422, 422]
    assert engineer.post("/api/instruments", {**given, "host": "192.168.1.20"}).status_code == 201


@pytest.mark.parametrize("host", ["8.8.8.8", "169.254.169.254", "example.org", "0.0.0.0", "", "127.0.0.1:80"])
def test_only_the_shop_s_own_network_is_asked(engineer: Api, host: str) -> None:
    answer = engineer.post("/api/instruments", {"name": "x", "protocol": "agent", "host": host, "port": 80})
    assert answer.status_code == 422
    assert answer.json()["errors"][0]["field"] == "host"

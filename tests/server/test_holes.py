"""Drilled holes through the API: the window, chains as operations, traces kept and learned from, driven tools, a stock of layers."""

from __future__ import annotations

import json
import socketserver
import subprocess
import sys
import threading
import time
from collections.abc import Callable, Iterator
from typing import Any

import pytest

from cutting.quantities.dimension import read_dimension
from server.jobs.kept import lessons
from server.jobs.kinds.view import drawn
from server.jobs.models import DrillTrace, Lesson
from tests.outside.test_traces import request_of
from tests.server.conftest import Api

JobId = Callable[[str], int]


DEMO = (("Screen-frame panel", "op10"), ("Gate-valve body", "op20"), ("Nozzle-ring bolt circle", "op10"), ("Coupling cup", "op10"))


def place(job: int, operation: str = "op10") -> str:
    return f"/api/jobs/{job}/operations/{operation}"


def document(api: Api, job: int) -> dict[str, Any]:
    found: dict[str, Any] = api.get(f"/api/jobs/{job}").json()["document"]
    return found


def plate(api: Api) -> int:
    """A new job on a plate of C45."""
    blank = {"diameter": "100 mm", "free_length": "30 mm", "bore": "0", "pieces": 20, "units": "mm"}
    made = api.post("/api/jobs", {"name": "Plate", "material": "C45", "machine": "machining centre", **blank})
    return int(made.json()["id"])


def evaluated(api: Api, job: int, operation: str = "op10", **tried: Any) -> dict[str, Any]:
    answer = api.post(f"{place(job, operation)}/evaluate", {"settings": tried})
    assert answer.status_code == 200, answer.json()
    found: dict[str, Any] = answer.json()
    return found


def test_every_demo_hole_is_seen_from_inside(engineer: Api, job_id: JobId) -> None:
    for name, operation in (
        ("Screen-frame panel", "op10"),
        ("Gate-valve body", "op20"),
        ("Nozzle-ring bolt circle", "op10"),
        ("Coupling cup", "op10"),
    ):
        found = evaluated(engineer, job_id(name), operation)
        view = found["view"]
        assert view["kind"] == "drill"
        depths = [one["depth"] for one in view["moments"]]
        assert depths == sorted(depths)
        assert max(b for _, b in view["thrust"]) > 0
        assert len(found["stops"]) == len(depths)
        assert found["table"]["rows"]
    assert not evaluated(engineer, job_id("Gate-valve body"), "op20")["feasible"]
    assert evaluated(engineer, job_id("Gate-valve body"), "op20", pecks="to clear chips")["feasible"]


def test_the_panel_from_no_field_to_one(engineer: Api, job_id: JobId) -> None:
    job = job_id("Screen-frame panel")
    passed = [one["labels"]["layer"]["metric"] for one in evaluated(engineer, job)["view"]["moments"]]
    assert (passed[0], passed[-1]) == ("before the metal", "behind the metal")
    assert "1 GFRP laminate to 2 X5CrNi18-10" in passed  # the lips are in both while the cone passes
    closed = engineer.post(f"{place(job)}/window", {}).json()
    assert not closed["open"]
    assert "GFRP laminate" in closed["says"]["metric"]
    assert any(edge["parts"] for edge in closed["edges"])
    remedy = closed["opens"][0]
    patch = remedy["patch"]
    settings = {name: value for name, value in patch["settings"].items() if value != ""}
    saved = engineer.edit(job, 1, action="set_settings", operation="op10", settings=settings, tool=patch["tool"])
    assert saved.status_code == 200, saved.json()
    opened = engineer.post(f"{place(job)}/window", {}).json()
    assert opened["open"]
    assert opened["field"]
    low, high = opened["speed_axis"]["low"], opened["speed_axis"]["high"]
    assert all(low <= one[0] <= one[2] <= high for one in opened["field"])
    speed, feed = opened["best"]
    assert any(abs(v - speed) < 1e-6 and abs(f - feed) < 1e-9 for v, f in opened["gears"])
    results = evaluated(engineer, job)["results"]
    assert 50 < results["holes"]["value"] < 250  # about a hundred with carbide on such a unit (common practice)


def test_what_was_measured_of_a_hole_stands_beside_what_was_asked(engineer: Api, job_id: JobId) -> None:
    """Kept with the operation in the unit that it was typed in; what is no size is refused with its name, and nothing is lost."""
    job = job_id("Screen-frame panel")
    asked = engineer.post(f"{place(job)}/acceptance", {}).json()
    rows = {row["name"]: row for row in asked["asked"]}
    assert len(asked["layers"]) == len(rows["tolerance"]["by_layer"]) > 1
    assert asked["drills"][0]["present"]
    assert any(one["remedy"] for one in asked["drills"][1:])
    kept = engineer.edit(job, 1, action="set_measured", operation="op10", name="burr", value="0.004 in", units="inch")
    assert kept.status_code == 200, kept.content
    refused = engineer.edit(job, 2, action="set_measured", operation="op10", name="finish", value="rough")
    assert refused.status_code == 422
    assert refused.json()["errors"][0]["field"].endswith("finish")
    there = {row["name"]: row for row in engineer.post(f"{place(job)}/acceptance", {}).json()["asked"]}
    assert there["burr"]["measured"]["metric"] == "0.102 mm"
    assert there["finish"]["measured"] is None
    assert engineer.edit(job, 2, action="set_measured", operation="op10", name="burr", value=None).status_code == 200
    gone = {row["name"]: row for row in engineer.post(f"{place(job)}/acceptance", {}).json()["asked"]}
    assert gone["burr"]["measured"] is None


def test_a_window_belongs_to_drilling(engineer: Api, job_id: JobId) -> None:
    refused = engineer.post(f"{place(job_id('Gate-valve body'))}/window", {})
    assert refused.status_code == 422
    assert refused.json()["errors"][0]["field"] == "operation"


def test_a_chain_is_taken_as_operations(engineer: Api, job_id: JobId) -> None:
    job = plate(engineer)
    feature = {"diameter": "10 H7", "depth": "25 mm", "circle": "60 mm", "count": 4}
    added = engineer.edit(job, 1, action="add_operation", kind="drill", title="Ream 4 × Ø10", feature=feature)
    assert added.status_code == 200, added.json()
    before, last = added.json()["document"]["operations"][-2:]
    assert before["prepares"]
    assert not last["prepares"]
    assert before["drawn"] == last["drawn"]
    assert before["number"] < last["number"]
    assert last["feature"]["pilot"] == before["feature"]["diameter"]
    for one in (before, last):
        found = evaluated(engineer, job, one["id"])
        assert found["feasible"], (one["title"], [limit["label"] for limit in found["limits"] if limit["utilisation"] > 1])


def test_holes_beside_the_axis_take_the_driven_tools(engineer: Api, job_id: JobId) -> None:
    job = job_id("Nozzle-ring bolt circle")
    feature = {"diameter": "6.8 mm", "depth": "20 mm", "circle": "90 mm", "count": 6}
    added = engineer.edit(job, 1, action="add_operation", kind="drill", title="Drill 6 × Ø6.8", feature=feature)
    assert added.json()["document"]["operations"][-1]["spindle"] == "driven"
    refused = engineer.edit(job, 2, action="set_feature", operation="op10", spindle="main")
    assert refused.status_code == 422
    assert refused.json()["errors"][0]["field"] == "feature.circle"


def test_a_stock_of_layers_is_the_stack_that_a_drill_finds(engineer: Api, job_id: JobId) -> None:
    job = plate(engineer)
    layers = "C45: 12 mm; X5CrNi18-10: 18 mm"
    saved = engineer.edit(job, 1, action="set_part", operation="", layers=layers)
    assert saved.status_code == 200, saved.json()
    added = engineer.edit(job, 2, action="add_operation", kind="drill", title="Drill", feature={"diameter": "8.5 mm", "depth": "30 mm"})
    assert added.status_code == 200, added.json()
    entry = added.json()["document"]["operations"][-1]
    bands = evaluated(engineer, job, entry["id"])["view"]["layers"]
    assert [(one["name"], round(one["far"] - one["near"], 6)) for one in bands] == [("C45", 12.0), ("X5CrNi18-10", 18.0)]


@pytest.fixture
def device(monkeypatch: pytest.MonkeyPatch) -> Iterator[None]:
    """The simulated dynamometer as the start command runs it."""
    import socket

    with socket.socket() as free:
        free.bind(("127.0.0.1", 0))
        port = free.getsockname()[1]
    process = subprocess.Popen([sys.executable, "-m", "devices.dynamometer", "--port", str(port), "--seed", "11"])
    monkeypatch.setenv("ARROW_BENCH_DYNAMOMETER", str(port))
    for _ in range(60):
        try:
            socket.create_connection(("127.0.0.1", port), timeout=1).close()
            break
        except OSError:
            time.sleep(0.1)
    yield
    process.terminate()
    process.wait(5)


def test_a_hole_is_recorded_learned_from_and_taken_back(engineer: Api, job_id: JobId, device: None) -> None:
    job = job_id("Coupling cup")
    plain = evaluated(engineer, job)["results"]["torque"]["value"]
    recorded = engineer.post(f"{place(job)}/record", {"hole": 1})
    lines = [json.loads(line) for line in b"".join(recorded.streaming_content).splitlines()]
    assert "kept" in lines[-1]
    assert len(lines) > 100
    listed = engineer.get(f"{place(job)}/traces").json()
    assert listed["device"]
    trace = listed["traces"][0]["id"]
    fit = engineer.post(f"{place(job)}/traces/fit", {"traces": [trace]}).json()
    force = float(fit["parameters"][0]["value"])
    assert force != 1
    assert evaluated(engineer, job)["results"]["torque"]["value"] == plain  # nothing is adopted silently
    accepted = engineer.post(f"{place(job)}/lessons", {"traces": [trace]})
    assert accepted.status_code == 201
    taught = evaluated(engineer, job)
    assert taught["results"]["torque"]["value"] == pytest.approx(plain * force, rel=0.04)
    assert any("Learned from traces" in one["text"] for one in taught["warnings"])
    # of another drill nothing was learned, and the ranking compares by the tables
    rows = engineer.post(f"{place(job)}/follow", {"settings": {}}).json()["advice"]["candidates"]
    assert rows
    lesson = accepted.json()["lessons"][0]["id"]
    undone = engineer.post(f"{place(job)}/lessons/{lesson}/undo", {})
    assert undone.json()["lessons"] == []
    assert evaluated(engineer, job)["results"]["torque"]["value"] == plain
    assert engineer.post(f"{place(job)}/lessons/{lesson}/undo", {}).status_code == 404
    assert engineer.post(f"{place(job)}/traces/{trace}/archive", {}).status_code == 204
    assert engineer.get(f"{place(job)}/traces").json()["traces"] == []
    assert Lesson.objects.count() == DrillTrace.objects.count() == 1  # undone and put away, not lost


def test_a_file_is_kept_as_its_columns_are_meant(engineer: Api, operator: Api, job_id: JobId) -> None:
    from devices.dynamometer import samples, truth_of
    from server.jobs.document.plan import setup_of
    from server.shop import shop

    job = job_id("Coupling cup")
    setup = setup_of(document(engineer, job), document(engineer, job)["operations"][0], None, shop())
    asked = request_of(lessons.untaught(setup, DrillTrace(cutting_speed=280, feed_per_rev=0.35)))
    rows = samples(asked, truth_of(4, ["EN AC-48000"]), 1)
    text = "zeit s;F kN;M N·cm\n" + "\n".join(f"{r['time']};{r['thrust'] / 1000};{100 * r['torque']}" for r in rows)
    seen = engineer.post(f"{place(job)}/traces/read", {"text": text}).json()
    assert [one["role"] for one in seen["columns"]] == ["time", "", "torque"]
    body = {"text": text, "name": "hole 1.csv", "columns": {"along": "time", "thrust": "F kN"}}
    unsaid = engineer.post(f"{place(job)}/traces", body)
    assert unsaid.status_code == 422
    assert unsaid.json()["errors"][0]["field"].endswith("thrust_unit")
    body["columns"]["thrust_unit"] = "kN"
    assert operator.post(f"{place(job)}/traces", body).status_code == 403
    kept = engineer.post(f"{place(job)}/traces", body)
    assert kept.status_code == 201, kept.json()
    trace = kept.json()["traces"][0]
    assert trace["problem"] == ""
    assert trace["origin"] == "hole 1.csv"
    broken = engineer.post(f"{place(job)}/traces", {**body, "text": text.replace("\n", "\nx;y;z\n", 3)})
    assert broken.status_code == 422
    assert "line 2" in broken.json()["title"]


@pytest.mark.parametrize("said", [b"", b'{"time": 0.1, "thrust": 5.0, "torque": 0.1}\n' * 9, b'{"time": 0.1}\n', b"what?\n"])
def test_a_device_that_stops_on_the_way_leaves_nothing(engineer: Api, job_id: JobId, monkeypatch: pytest.MonkeyPatch, said: bytes) -> None:
    class Broken(socketserver.StreamRequestHandler):
        def handle(self) -> None:
            self.rfile.readline()
            self.wfile.write(said)

    with socketserver.ThreadingTCPServer(("127.0.0.1", 0), Broken) as device:
        threading.Thread(target=device.serve_forever, daemon=True).start()
        monkeypatch.setenv("ARROW_BENCH_DYNAMOMETER", str(device.server_address[1]))
        recorded = engineer.post(f"{place(job_id('Coupling cup'))}/record", {"hole": 1})
        lines = [json.loads(line) for line in b"".join(recorded.streaming_content).splitlines()]
        device.shutdown()
    assert "stopped" in lines[-1]["error"]
    assert DrillTrace.objects.count() == 0


def test_without_a_device_recording_says_so(engineer: Api, job_id: JobId, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.delenv("ARROW_BENCH_DYNAMOMETER", raising=False)
    assert engineer.post(f"{place(job_id('Coupling cup'))}/record", {"hole": 1}).status_code == 503
    monkeypatch.setenv("ARROW_BENCH_DYNAMOMETER", "1")
    answer = engineer.post(f"{place(job_id('Coupling cup'))}/record", {"hole": 1})
    assert answer.status_code == 503
    assert "switched on" in answer.json()["title"]


@pytest.mark.parametrize(
    ("feature", "field"),
    [
        ({"stack": "GFRP 0 / C45 3"}, "feature.stack"),
        ({"stack": "GFRP 10 m"}, "feature.stack"),
        ({"diameter": "1300 mm"}, "feature.diameter"),
        ({"count": 0}, "feature.count"),
        ({"depth": "4 km", "stack": ""}, "feature.depth"),
    ],
)
def test_what_cannot_be_is_refused_and_nothing_is_lost(engineer: Api, job_id: JobId, feature: dict[str, Any], field: str) -> None:
    job = job_id("Screen-frame panel")
    before = document(engineer, job)
    refused = engineer.edit(job, 1, action="set_feature", operation="op10", feature=feature)
    assert refused.status_code == 422
    assert refused.json()["errors"][0]["field"].endswith(field), refused.json()
    assert document(engineer, job) == before


def test_inches_are_kept_as_they_were_meant(engineer: Api, job_id: JobId) -> None:
    job = job_id("Screen-frame panel")
    edit = {
        "action": "set_feature",
        "operation": "op10",
        "feature": {"stack": "GFRP 0.16 / 2024 1/4", "diameter": "letter F"},
        "units": "inch",
    }
    saved = engineer.edit(job, 1, **edit)
    assert saved.status_code == 200, saved.json()
    bands = evaluated(engineer, job)["view"]["layers"]
    assert [round(one["far"] - one["near"], 3) for one in bands] == [4.064, 6.35]


@pytest.mark.parametrize(
    ("typed", "said"),
    [
        ("6.35 H12", "0.2500 in +0.0059/0 (6.35 H12 mm)"),
        ("10 mm", "0.394 in (10 mm)"),
        ("1.5 h9", "0.0591 in 0/-0.0010 (1.5 h9 mm)"),
        ("0.25 in H7", "0.25 in H7"),
        ("#7", "0.201 in (#7)"),
    ],
)
def test_an_inch_sheet_says_the_size_with_its_limits(typed: str, said: str) -> None:
    """The size that is drawn and not the middle of its limits; ISO 286: H12 over 6 to 10 is 150 µm, h9 to 3 is 25 µm."""
    assert drawn(read_dimension(typed), "inch") == said


def test_a_tool_that_is_wanted_is_entered_with_its_sizes_and_then_does_it(engineer: Api) -> None:
    """Ø2.35, 60 deep: no drill of the shipped crib has that size and reaches; what the list asks for is entered, and makes it."""
    made = {"name": "Pin", "material": "C45", "machine": "two-axis lathe", "diameter": "20 mm", "free_length": "90 mm", "pieces": 50}
    job = engineer.post("/api/jobs", {**made, "units": "mm"}).json()["id"]
    feature = {"diameter": "2.35 mm", "depth": "60 mm"}
    added = engineer.edit(job, 1, action="add_operation", kind="drill", title="Oil hole", feature=feature).json()
    [row] = added["state"]["operations"]
    assert row["status"] == "no tool"
    wanted = row["wanted"]
    assert (wanted["kind"], wanted["DC"]) == ("twist drill", "2.35")
    assert float(wanted["LU"]) >= 60
    cells = {**wanted, "grade": "HSS cobalt PVD", "pack_price": "12", "pack_size": "1"}
    entered = engineer.post("/api/records/tools", {"cells": cells})
    assert entered.status_code == 201, entered.json()
    [best] = engineer.post(f"/api/jobs/{job}/best", {"worth": 0}).json()["rows"]
    assert wanted["designation"] in best["then"]["edge"]

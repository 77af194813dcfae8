"""Import and export through the door and the workers: previews, all or nothing, repeatable, cancellable, nothing half-written."""

from __future__ import annotations

import io
import json
import tracemalloc
import zipfile
from collections.abc import Callable
from datetime import timedelta
from pathlib import Path
from typing import Any

import openpyxl
import pytest
from django.core.files.uploadedfile import SimpleUploadedFile
from django.core.management import call_command
from django.utils import timezone
from django_tasks_db.models import DBTaskResult
from openpyxl.utils import get_column_letter

from cutting.errors import CuttingError
from cutting.exchange.tables import TABLES
from server.crib.demo import fill_crib
from server.crib.models import Assembly, Geometry, Grade, Tool, Window
from server.exchange import files
from server.exchange.files import read_file
from server.exchange.models import Run
from server.floor.models import Machine
from server.jobs.models import Job
from server.people.models import Preferences
from server.shelf.models import Material
from server.work import tasks
from server.work.progress import Cancelled, Progress
from tests.server.conftest import Api, work_through

JobId = Callable[[str], int]
HEAD = "kind,designation,geometry,grade,pack price,pack size,RE corner radius [mm]\n"
GOOD = HEAD + "turning insert,cnmg 433,middle,K15 CVD,96,10,1.2\nturning insert,TNMG 332,light,P20 CVD,88,10,\n"


def upload(api: Api, content: str | bytes, name: str = "tools.csv", table: str = "") -> Any:
    data = content.encode() if isinstance(content, str) else content
    file = SimpleUploadedFile(name, data)
    return api.client.post("/api/exchange/imports", {"file": file, "table": table}, HTTP_X_CSRFTOKEN=api.token)


def previewed(api: Api, content: str | bytes, name: str = "tools.csv") -> dict[str, Any]:
    run = upload(api, content, name).json()
    work_through()
    return api.get(f"/api/exchange/runs/{run['id']}").json()  # type: ignore[no-any-return]


def fates(api: Api, run: dict[str, Any], fate: str = "") -> list[dict[str, Any]]:
    return api.get(f"/api/exchange/runs/{run['id']}/fates?fate={fate}").json()["rows"]  # type: ignore[no-any-return]


def apply(api: Api, run: dict[str, Any], leave: bool = False) -> dict[str, Any]:
    answer = api.post(f"/api/exchange/runs/{run['id']}/apply", {"leave_out_refused": leave})
    assert answer.status_code == 200, answer.json()
    work_through()
    return api.get(f"/api/exchange/runs/{run['id']}").json()  # type: ignore[no-any-return]


def test_nothing_is_written_before_it_is_applied_and_twice_changes_nothing(engineer: Api) -> None:
    before = Tool.objects.count()
    run = previewed(engineer, GOOD)
    assert (run["state"], run["counts"]) == ("previewed", {"new": 2, "changed": 0, "same": 0, "refused": 0})
    assert Tool.objects.count() == before
    done = apply(engineer, run)
    assert done["state"] == "done"
    assert Tool.objects.count() == before + 2
    tool = Tool.objects.get(name="CNMG 120412 middle K15 CVD")
    assert "import" in tool.entered
    again = previewed(engineer, GOOD)
    assert again["counts"] == {"new": 0, "changed": 0, "same": 2, "refused": 0}


def test_every_row_has_its_fate_and_its_reason(engineer: Api) -> None:
    text = GOOD + (
        "turning insert,CNMG 120408,middle,P20 CVD,99,10,\n"  # kept, dearer now
        "turning insert,cnmg 432,middle,P20 CVD,99,10,\n"  # the same tool under its inch code
        "turning insert,CNMG 110408,middle,P20 CVD,99,10,\n"
        "turning insert,CNMG 120416,wavy,P20 CVD,99,10,\n"
        "turning insert,CNMG 120416,middle,P20 CVD,dear,10,\n"
        "turning insert,CNMG 120416,middle,P20 CVD,90,10,0.8\n"
    )
    run = previewed(engineer, text)
    assert run["counts"] == {"new": 2, "changed": 1, "same": 0, "refused": 5}
    rows = {row["row"]: row for row in fates(engineer, run)}
    assert rows[4]["why"] == "pack_price: 92.0 → 99.0"  # bin, quantity and source are not in the file and stay
    wrong = {5: "same as row 4", 6: "position 5", 7: "no geometry is called 'wavy'", 8: "pack_price", 9: "contradicts"}
    for number, word in wrong.items():
        assert rows[number]["fate"] == "refused"
        assert word in rows[number]["why"], rows[number]
    refused = engineer.post(f"/api/exchange/runs/{run['id']}/apply", {})
    assert refused.status_code == 422
    done = apply(engineer, run, leave=True)
    assert done["message"].startswith("3 rows written")
    kept = Tool.objects.get(name="CNMG 120408 middle P20 CVD")
    assert (kept.bin, kept.quantity, float(kept.pack_price), kept.version) == ("A-05", 60, 99.0, 2)
    assert engineer.get(f"/api/jobs/{Job.objects.get(name='Runner shaft').pk}/stale").json()["reasons"]


def test_what_changed_meanwhile_is_looked_at_again(engineer: Api) -> None:
    run = previewed(engineer, GOOD)
    assert apply(engineer, previewed(engineer, HEAD + "turning insert,CNMG 120412,middle,K15 CVD,70,10,\n"))["state"] == "done"
    engineer.post(f"/api/exchange/runs/{run['id']}/apply", {})
    work_through()
    again = engineer.get(f"/api/exchange/runs/{run['id']}").json()
    assert again["state"] == "previewed"
    assert "changed since the preview" in again["message"]
    assert again["counts"] == {"new": 1, "changed": 1, "same": 0, "refused": 0}
    assert Tool.objects.get(name="CNMG 120412 middle K15 CVD").pack_price == 70


@pytest.mark.parametrize(
    ("content", "name", "word"),
    [
        ("hello", "x.csv", "fit none"),
        (b"\xff\xfe", "x.csv", "UTF-8"),
        ("{", "x.json", "JSON"),
        (HEAD, "x.csv", "no rows"),
        ("kind,designation,colour\na,b,c", "x.csv", "this is no column here; there are"),
    ],
)
def test_a_file_that_cannot_be_read_says_why(engineer: Api, content: str | bytes, name: str, word: str) -> None:
    run = previewed(engineer, content, name)
    assert run["state"] == "refused"
    assert word in run["message"]


def test_doors_of_the_exchange(engineer: Api, operator: Api) -> None:
    assert upload(operator, GOOD).status_code == 403
    assert upload(engineer, "x", "picture.gif").status_code == 422
    assert upload(engineer, GOOD, table="hats").status_code == 422
    assert engineer.post("/api/exchange/exports", {"format": "csv", "table": ""}).status_code == 422
    assert engineer.get("/api/exchange/runs/999999").status_code == 404
    run = upload(engineer, GOOD).json()
    assert engineer.post(f"/api/exchange/runs/{run['id']}/apply", {}).status_code == 409  # not previewed yet
    assert engineer.post(f"/api/exchange/runs/{run['id']}/cancel", {}).json()["state"] == "cancelled"
    assert engineer.get(f"/api/exchange/runs/{run['id']}/file").status_code == 404


def exported(api: Api, table: str, form: str) -> bytes:
    run = api.post("/api/exchange/exports", {"table": table, "format": form}).json()
    work_through()
    answer = api.get(f"/api/exchange/runs/{run['id']}/file")
    assert answer.status_code == 200
    return bytes(answer.content)


@pytest.mark.parametrize("form", ["xlsx", "json"])
def test_everything_goes_out_and_comes_in_as_the_same(engineer: Api, form: str) -> None:
    content = exported(engineer, "", form)
    run = previewed(engineer, content, f"shop.{form}")
    assert run["state"] == "previewed", run["message"]
    others = 22 + 7 + 4 + 3  # grades, machines, spindles, windows
    assert run["counts"]["same"] == sum(m.objects.count() for m in (Tool, Geometry, Material)) + others
    assert run["counts"]["new"] == run["counts"]["changed"] == run["counts"]["refused"] == 0


def test_a_deleted_shop_comes_back_from_its_export(engineer: Api) -> None:
    content = exported(engineer, "", "json")
    before = {t.key: (t.name, t.pack_price, t.said, t.properties, t.seat, t.edges) for t in Tool.objects.all()}
    from server.crib.models import Assembly, Grade

    Assembly.objects.all().delete()
    Tool.objects.all().delete()
    Grade.objects.all().delete()
    Geometry.objects.all().delete()
    done = apply(engineer, previewed(engineer, content, "shop.json"))
    assert done["state"] == "done", done["message"]
    assert {t.key: (t.name, t.pack_price, t.said, t.properties, t.seat, t.edges) for t in Tool.objects.all()} == before


def test_csv_carries_iso_13399_symbols_and_units(engineer: Api) -> None:
    head, *lines = exported(engineer, "tools", "csv").decode("utf-8-sig").splitlines()
    for heading in (
        "IC inscribed circle [mm]",
        "RE corner radius [mm]",
        "KAPR tool cutting edge angle [°]",
        "DMIN1 least bore diameter [mm]",
    ):
        assert heading in head.split(",")
    assert len(lines) == Tool.objects.count()
    book = openpyxl.load_workbook(io.BytesIO(exported(engineer, "machines", "xlsx")))
    assert book.sheetnames == ["machines"]


def test_a_new_geometry_and_its_tools_come_in_one_file(engineer: Api) -> None:
    geometry = {
        "name": "own",
        "window": [[0.1, 0.5], [0.2, 2.0], [0.4, 2.0], [0.3, 0.5]],
        "groove_rake": 12,
        "edge_radius": 30,
        "suits": "PM",
    }
    tool = {"kind": "turning insert", "designation": "CNMG 432", "geometry": "own", "grade": "P20 CVD"}
    window = {"tool": "CNMG 120408 own P20 CVD", "group": 7, "speed_max": 180}
    tables = {"windows": [window], "tools": [tool], "geometries": [geometry]}
    content = json.dumps({"format": "arrow-bench shop", "version": 1, "tables": tables})
    run = previewed(engineer, content, "own.json")
    assert run["counts"] == {"new": 3, "changed": 0, "same": 0, "refused": 0}, fates(engineer, run)
    assert apply(engineer, run)["state"] == "done"
    assert Tool.objects.get(name="CNMG 120408 own P20 CVD").windows.get().speed_max == 180


def test_stopped_midway_nothing_is_written(engineer: Api, monkeypatch: pytest.MonkeyPatch) -> None:
    run = previewed(engineer, GOOD)
    before = Tool.objects.count()

    def stop(self: Progress, count: int = 1) -> None:
        raise Cancelled

    monkeypatch.setattr(Progress, "step", stop)
    assert apply(engineer, run)["state"] == "cancelled"
    assert Tool.objects.count() == before


def test_work_whose_worker_died_is_taken_up_again_and_at_last_given_up(engineer: Api, monkeypatch: pytest.MonkeyPatch) -> None:
    clock = [100.0]
    monkeypatch.setattr(tasks.time, "monotonic", lambda: clock[0])
    run = upload(engineer, GOOD).json()["id"]
    label = Run._meta.label
    for attempt in range(1, tasks.MOST_ATTEMPTS + 1):
        found = tasks.claim(label, run)
        assert found is not None
        assert found.attempts == attempt
        assert tasks.claim(label, run) is None  # under way, and alive
        tasks.rescue()
        assert Run.objects.get(pk=run).state == "running"
        queued = DBTaskResult.objects.ready().count()
        for off in (2, -2):  # another machine's clock, or one that was set: it lives, as long as it gives signs
            Run.objects.filter(pk=run).update(beat=timezone.now() + off * tasks.SILENCE)
            clock[0] += 1.1 * tasks.SILENCE.total_seconds()
            tasks.rescue()
            assert Run.objects.get(pk=run).state == "running"
        clock[0] += 0.9 * tasks.SILENCE.total_seconds()
        tasks.rescue()
        assert Run.objects.get(pk=run).state == "running"
        clock[0] += 0.2 * tasks.SILENCE.total_seconds()
        tasks.rescue()
        again = attempt < tasks.MOST_ATTEMPTS
        assert Run.objects.get(pk=run).state == ("waiting" if again else "refused")
        assert DBTaskResult.objects.ready().count() == queued + again
    assert "Given up" in engineer.get(f"/api/exchange/runs/{run}").json()["message"]


def test_work_is_queued_with_its_row_or_not_at_all_and_lost_places_are_made_again(engineer: Api) -> None:
    run = upload(engineer, GOOD).json()["id"]
    assert DBTaskResult.objects.ready().get().args_kwargs["args"] == [Run._meta.label, run]
    assert tasks.carry_out.call(Run._meta.label, run) == "previewed"
    assert tasks.carry_out.call(Run._meta.label, run) == "was taken up already"
    DBTaskResult.objects.all().delete()  # a worker died between the queue and the row
    Run.objects.filter(pk=run).update(state="waiting", at=timezone.now(), beat=None)
    tasks.rescue()
    assert DBTaskResult.objects.ready().count() == 0, "not yet: it may be on its way"
    Run.objects.filter(pk=run).update(state="waiting", at=timezone.now() - 2 * tasks.SILENCE, beat=None)
    tasks.rescue()
    tasks.rescue()
    assert DBTaskResult.objects.ready().count() == 1


def _workbook(sheet: str, texts: str = "", bend: bool = False) -> bytes:
    """A workbook whose sheet and texts are the given XML."""
    out = io.BytesIO()
    book = openpyxl.Workbook()
    book.active.title = "tools"  # type: ignore[union-attr]
    book.save(out)
    packed = io.BytesIO()
    with zipfile.ZipFile(out) as there, zipfile.ZipFile(packed, "w", zipfile.ZIP_DEFLATED) as made:
        for one in {*there.namelist(), "xl/sharedStrings.xml"} if texts else there.namelist():
            said = {"xl/worksheets/sheet1.xml": sheet, "xl/sharedStrings.xml": texts}.get(one) or there.read(one)
            made.writestr(one, said)
    found = bytearray(packed.getvalue())
    if bend:
        found[found.index(b"sheet1.xml") + 40] ^= 0xFF
    return bytes(found)


def test_a_small_file_that_unpacks_to_a_giant_is_refused_while_it_is_read(monkeypatch: pytest.MonkeyPatch) -> None:
    name = 'xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main"'

    def refused(content: bytes) -> str:
        with pytest.raises(CuttingError) as error:
            read_file(content, "xlsx")
        return error.value.message

    rows = "".join(f'<row r="{k}"><c r="A{k}" t="inlineStr"><is><t>x</t></is></c></row>' for k in range(1, 60))
    texts = f"<sst {name}>" + "<si><t>aaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaaa</t></si>" * 2_000_000 + "</sst>"
    bomb = _workbook(f"<worksheet {name}><sheetData>{rows}</sheetData></worksheet>", texts)
    assert len(bomb) < 400_000  # 290 kB that take gigabytes where they are unpacked
    tracemalloc.start()
    assert "MB" in refused(bomb)
    assert tracemalloc.get_traced_memory()[1] < 10e6
    tracemalloc.stop()
    wide = "".join(f'<c r="{get_column_letter(k)}1"><v>1</v></c>' for k in range(1, 400))
    assert "columns" in refused(_workbook(f'<worksheet {name}><sheetData><row r="1">{wide}</row></sheetData></worksheet>'))
    monkeypatch.setattr(files, "MOST_ROWS", 50)
    assert "rows" in refused(_workbook(f"<worksheet {name}><sheetData>{rows}</sheetData></worksheet>"))
    monkeypatch.setattr(files, "MOST_LINES", 5_000)
    far = '<row r="1"><c r="A1"><v>1</v></c></row><row r="1048576"><c r="A1048576"><v>1</v></c></row>'
    assert "rows" in refused(_workbook(f"<worksheet {name}><sheetData>{far}</sheetData></worksheet>"))
    assert "opened" in refused(_workbook(f"<worksheet {name}><sheetData>{rows}</sheetData></worksheet>", bend=True))
    assert "opened" in refused(_workbook(f"<worksheet {name}><sheetData><row>"))


def test_an_instance_without_people_takes_in_a_file(db: None, tmp_path: Path) -> None:
    (tmp_path / "tools.csv").write_text(GOOD)
    fill_crib()
    Preferences.objects.all().delete()
    call_command("import_shop", str(tmp_path / "tools.csv"), apply=True, stdout=io.StringIO())
    assert Tool.objects.latest("pk").entered == "by the command line, import of tools.csv"


def test_what_is_exported_can_be_read_in_elsewhere_though_it_names_what_is_archived(engineer: Api, tmp_path: Path) -> None:
    geometry = Geometry.objects.get(name="middle")
    tool = Tool.objects.filter(windows__isnull=False).first()
    assert tool is not None
    for model, pk in ((Geometry, geometry.pk), (Tool, tool.pk)):
        model.objects.filter(pk=pk).update(archived_at=timezone.now())
    call_command("export_shop", str(tmp_path / "shop.json"), stdout=io.StringIO())
    text = (tmp_path / "shop.json").read_text()
    for model in (Assembly, Window, Tool, Geometry, Grade):
        model.objects.all().delete()
    run = previewed(engineer, text, "shop.json")
    assert run["state"] == "previewed"
    assert run["counts"].get("refused", 0) == 0, fates(engineer, run, "refused")[:3]
    assert "middle" in [row["label"] for row in fates(engineer, run, "new") if row["table"] == "geometries"]


def test_a_job_goes_out_with_what_it_names_and_in_where_nothing_of_it_is_known(engineer: Api, job_id: JobId) -> None:
    job = job_id("Bearing carrier")
    answer = engineer.get(f"/api/jobs/{job}/file")
    assert answer["Content-Disposition"] == 'attachment; filename="bearing-carrier.job.json"'
    given = json.loads(answer.content)
    before, costs = given["job"], engineer.get(f"/api/jobs/{job}").json()["state"]["tape"]["money"]

    def bring(text: str) -> Any:
        file = SimpleUploadedFile("a.job.json", text.encode())
        return engineer.client.post("/api/jobs/file", {"file": file}, HTTP_X_CSRFTOKEN=engineer.token)

    here = bring(answer.content.decode()).json()
    assert (here["name"], here["brought"]) == ("Bearing carrier, copy", {})  # beside the first, which stays
    Tool.objects.filter(name=before["operations"][1]["tool"]["insert"]).update(pack_price=999)
    for model in (Assembly, Window, Tool, Geometry, Grade, Material, Machine):
        model.objects.all().delete()
    there = bring(answer.content.decode()).json()
    assert there["brought"]["machines"] == there["brought"]["materials"] == 1
    assert there["brought"]["tools"] == len({name for one in before["operations"] for name in one["tool"].values()})
    found = engineer.get(f"/api/jobs/{there['id']}").json()
    assert {**found["document"], "name": ""} == {**before, "name": ""}
    assert found["state"]["tape"]["money"] == pytest.approx(costs)
    assert bring(answer.content.decode()).json()["brought"] == {}
    refusals = {"[]": "not a job file", "{": "not JSON", json.dumps({**given, "form": 2}): "newer"}
    refusals[json.dumps({**given, "job": {**before, "goal": "x"}})] = "Goal"
    for text, said in refusals.items():
        refused = bring(text)
        assert (refused.status_code, said in refused.json()["title"]) == (422, True), refused.json()


def test_what_work_says_of_itself_and_of_tasks_whose_worker_died(engineer: Api, settings: Any) -> None:
    run = engineer.post("/api/exchange/exports", {"table": "materials", "format": "csv"}).json()["id"]
    task = DBTaskResult.objects.get()
    for age, status in ((settings.WORK_SECONDS / 2, "RUNNING"), (settings.WORK_SECONDS + 60, "FAILED")):
        DBTaskResult.objects.update(status="RUNNING", started_at=timezone.now() - timedelta(seconds=age))
        tasks.rescue()
        task.refresh_from_db()
        assert task.status == status
    work_through()
    found = engineer.get(f"/api/exchange/runs/{run}").json()
    assert found["done"] == found["total"] == Material.objects.filter(archived_at=None).count()
    assert 0 < found["seconds"] < 60


def test_an_unknown_column_is_named_with_what_was_expected(engineer: Api) -> None:
    run = previewed(engineer, "kind,designation,geomtry,grade\nturning insert,cnmg 433,middle,K15 CVD\n")
    assert run["state"] == "refused"
    assert "geomtry" in run["message"]
    assert "the nearest is 'geometry'" in run["message"]
    assert "taken for the table tools" in run["message"]


@pytest.mark.parametrize("form", ["csv", "xlsx"])
def test_a_template_has_every_column_and_reads_in_as_it_is(engineer: Api, form: str) -> None:
    for table in TABLES.values():
        answer = engineer.get(f"/api/exchange/template?table={table.name}&format={form}")
        assert answer.status_code == 200
        [given] = read_file(answer.content, form, table.name)
        assert len(given.headings) == len(table.columns)
    run = previewed(engineer, engineer.get(f"/api/exchange/template?table=tools&format={form}").content, f"t.{form}")
    assert run["counts"]["refused"] == 0
    assert run["counts"]["same"] == 1
    assert engineer.get("/api/exchange/template?table=other").status_code == 422

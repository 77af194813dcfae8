"""The command line: JSON in, JSON out, refusals with field and bound, status by success."""

from __future__ import annotations

import io
import json
from collections.abc import Callable
from pathlib import Path
from typing import Any

import pytest

from cutting.doors.command_line import main

Form = Callable[..., dict[str, Any]]


def run(command: str, data: Any, tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> tuple[int, Any]:
    file = tmp_path / "in.json"
    file.write_text(data if isinstance(data, str) else json.dumps(data), encoding="utf-8")
    status = main([command, str(file)])
    return status, json.loads(capsys.readouterr().out)


def test_solve_one(form: Form, tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    status, outcome = run("solve", form(settings={"cutting_speed": "492 sfm", "feed_per_rev": "11 thou"}), tmp_path, capsys)
    assert status == 0
    assert outcome["feasible"] is True
    assert outcome["results"]["cutting_speed"]["value"] == pytest.approx(149.96, abs=0.01)
    assert outcome["limits"][0]["name"] == outcome["binding"]
    assert outcome["results"]["operation_cost"]["working"]


def test_spindle_speed_and_feed_per_minute(form: Form, tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    status, outcome = run("solve", form(settings={"cutting_speed": "800 rpm", "feed_per_rev": "200 mm/min"}), tmp_path, capsys)
    assert status == 0
    assert outcome["passes"][0]["spindle_speed"] == pytest.approx(800)
    assert outcome["passes"][0]["feed_per_rev"] == pytest.approx(0.25)


def test_a_list_answers_each_and_counts_the_refused(form: Form, tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    status, answers = run("solve", [form(), form(material="unobtainium")], tmp_path, capsys)
    assert status == 2
    assert "results" in answers[0]
    assert answers[1]["error"]["field"] == "[1].material"


def test_advise_needs_no_tool(form: Form, tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    request = form()
    del request["tool"], request["settings"]
    status, advice = run("advise", request, tmp_path, capsys)
    assert status == 0
    assert advice["candidates"][0]["reason"].startswith("first")


@pytest.mark.parametrize("text", ["", "{", "[1, 2", "NaN", '{"operation": Infinity}', "3", '"turn"', "[[]]", "{}", "null"])
def test_broken_files_are_refused_in_json(text: str, tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    status, answer = run("solve", text, tmp_path, capsys)
    assert status == 2
    first = answer[0] if isinstance(answer, list) else answer
    assert first["error"]["message"]


def test_missing_file_and_standard_input(form: Form, monkeypatch: pytest.MonkeyPatch, capsys: pytest.CaptureFixture[str]) -> None:
    assert main(["solve", "/nowhere/at-all.json"]) == 2
    assert "cannot be read" in json.loads(capsys.readouterr().out)["error"]["message"]
    monkeypatch.setattr("sys.stdin", io.StringIO(json.dumps(form())))
    assert main(["solve", "-"]) == 0


def test_the_documented_example_runs(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    page = (Path(__file__).parents[2] / "docs" / "json-form.md").read_text(encoding="utf-8")
    for example in (block.split("```")[0] for block in page.split("```json")[1:]):
        status, outcome = run("solve", example, tmp_path, capsys)
        assert status == 0
        assert all(one["results"] for one in (outcome if isinstance(outcome, list) else [outcome]))

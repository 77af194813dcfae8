"""The set-up sheet on paper: every page of every demo job, on both papers and in both units, can be read and says where it belongs."""

from __future__ import annotations

import copy
import io
import re
from collections.abc import Callable, Iterator
from itertools import combinations
from typing import Any

import pytest
from django.template.loader import render_to_string
from pypdf import PdfReader
from weasyprint import HTML

from server.jobs.kept import actions
from server.jobs.models import Job
from server.jobs.sheet.content import sheet_content
from server.jobs.sheet.layout import BASE, fetcher
from server.jobs.sheet.pdf import own_files, to_pdf
from server.shop import shop
from server.work.progress import Progress
from tests.server.conftest import Api

JobId = Callable[[str], int]
PAPER = {"a4": (793.7, 1122.5), "letter": (816.0, 1056.0)}  # px of 1/96 in
Words = tuple[str, float, float, float, float]  # text, left, top, right, bottom


def pages_of(job: int, paper: str, units: str) -> Iterator[tuple[list[Words], tuple[float, float]]]:
    """The words of each page with their boxes, as they are laid out."""
    content = sheet_content(actions.newest(job), None, units, shop())
    page = render_to_string("setup_sheet.html", {**content, "paper": paper, "static": ""})
    for one in HTML(string=page, base_url=BASE, url_fetcher=fetcher(own_files())).render().pages:
        boxes = [box for box in one._page_box.descendants() if type(box).__name__ == "TextBox" and box.text.strip()]
        yield (
            [(b.text, b.position_x, b.position_y, b.position_x + b.width, b.position_y + b.height) for b in boxes],
            (one.width, one.height),
        )


def overlaps(words: list[Words]) -> list[tuple[str, str]]:
    return [
        (a[0], b[0])
        for a, b in combinations(words, 2)
        if min(a[3], b[3]) - max(a[1], b[1]) > 1.5 and min(a[4], b[4]) - max(a[2], b[2]) > 4.0
    ]


@pytest.mark.parametrize(("paper", "units"), [("a4", "mm"), ("letter", "inch")])
def test_no_words_lie_over_each_other_or_leave_the_page(demo: None, paper: str, units: str) -> None:
    for job in Job.objects.all():
        for number, (words, size) in enumerate(pages_of(job.pk, paper, units), 1):
            where = f"{job.name}, page {number} on {paper} in {units}"
            assert size == pytest.approx(PAPER[paper], abs=1.0), where
            assert overlaps(words) == [], where
            outside = [
                text for text, left, top, right, bottom in words if left < 20 or top < 10 or right > size[0] - 20 or bottom > size[1] - 10
            ]
            assert outside == [], where


def test_the_overlap_is_measured() -> None:
    line: Words = ("feed", 10, 10, 60, 22)
    assert overlaps([line, ("0.2 mm/rev", 40, 12, 120, 24)]) == [("feed", "0.2 mm/rev")]
    assert overlaps([line, ("0.2 mm/rev", 61, 10, 120, 22), ("coolant", 10, 22, 60, 34)]) == []


def test_every_page_says_part_revision_operation_and_page(operator: Api, job_id: JobId) -> None:
    answer = operator.get(f"/api/jobs/{job_id('Runner shaft')}/setup-sheet")
    pages = [page.extract_text() for page in PdfReader(io.BytesIO(answer.content)).pages]
    assert len(pages) == 4  # the whole part, then two operations to a page
    for number, text in enumerate(pages, 1):
        assert "trained people come first" in text, "on every page, and no page for it alone"
        assert "Runner shaft · revision 1" in text
        assert f"{number} of 4" in text
    assert [any(title in text for title in ("The whole part", "10 Face end", "30 Rough turn", "50 Rough turn")) for text in pages] == [
        True
    ] * 4


def test_a_long_sheet_is_laid_out_in_parts_and_reads_as_one(demo: None, job_id: JobId, settings: Any) -> None:
    """Seventeen operations in two parts: the same words on as many pages as in one, each page with its number of all."""
    revision = actions.newest(job_id("Runner shaft"))
    given = revision.document["operations"]
    many = [{**copy.deepcopy(given[k % 6]), "id": f"o{k}", "number": 10 * (k + 1)} for k in range(17)]
    revision.document = {**revision.document, "operations": many}
    content = sheet_content(revision, None, "mm", shop())

    settings.STUDY_CLUSTER = "tcp://127.0.0.1:9"  # sheets stay on the machine, whatever big studies do

    def pages(processes: int) -> list[str]:
        settings.STUDY_PROCESSES = processes
        reader = PdfReader(io.BytesIO(to_pdf("setup_sheet.html", content, "letter", Progress())))
        assert "Runner shaft" in str((reader.metadata or {}).get("/Title"))
        assert all(tuple(round(float(side)) for side in page.mediabox[2:]) == (612, 792) for page in reader.pages)
        return [page.extract_text() for page in reader.pages]

    once, parted = pages(1), pages(2)
    assert len(parted) == len(once) > 8
    for number, (one, text) in enumerate(zip(once, parted, strict=True), 1):
        assert f"{number} of {len(once)}" in text
        assert sorted(text.split()) == sorted(one.split())


def test_the_first_page_is_the_whole_part(operator: Api, engineer: Api, job_id: JobId) -> None:
    job = job_id("Runner shaft")
    page = operator.get(f"/api/jobs/{job}/setup-sheet?form=page").content.decode()
    first = page.split("</section>")[0]
    for words in (
        "The whole part",
        "run order",
        "4 of 12 places in the turret",
        "CNMG 120408 middle P20 CVD",
        "A-05",
        "10, 30",
        "9 edges, 3 inserts",
    ):
        assert words in first
    assert first.count("Guards closed") == 1  # what every operation shares is said once
    assert page.count("Guards closed") == 1
    alone = operator.get(f"/api/jobs/{job}/setup-sheet?form=page&operation=op10").content.decode()
    assert "The whole part" not in alone
    assert "Guards closed" in alone
    inch = operator.get(f"/api/jobs/{job}/setup-sheet?form=page&units=inch").content.decode()
    assert "Ø2.520 in, 10.551 in stick-out" in inch
    assert "558 sfm (170 m/min)" in inch
    assert "Ø64 mm" not in inch


def first_page(name: str, units: str = "mm") -> Any:
    revision = actions.newest(Job.objects.get(name=name).pk)
    return sheet_content(revision, None, units, shop())["whole"]


def test_the_first_page_forbids_what_is_over_and_says_what_is_measured(demo: None) -> None:
    """ISO 286-1: Ø49 h8 lies between 48.961 and 49; ISO 965-1: the pitch diameter of M10-6H between 9.026 and 9.206."""
    assert first_page("Deflector hub, weld repaired")["stop"] == ["30 Finish bearing size Ø90"]
    shaft = first_page("Runner shaft")
    assert shaft["stop"] == []
    assert {row["asked"]: row["limits"] for row in shaft["first_piece"]}["49 h8"] == "48.961 mm to 49 mm"
    assert [row["number"] for row in shaft["first_piece"]][:2] == ["10", "40"]
    inch = {row["asked"]: row["limits"] for row in first_page("Runner shaft", "inch")["first_piece"]}
    assert "1.9276 in to 1.9291 in" in inch.values()
    [thread] = first_page("Valve block, six M10")["first_piece"]
    assert thread["limits"] == "pitch Ø 9.026 mm min., 9.206 mm max."
    setting = dict(shaft["setting"])
    assert setting["program number"] == ""  # a line to write on
    assert "chuck" in setting["jaw force at rest"]
    assert "jaw force at rest" not in dict(first_page("Valve block, six M10")["setting"])


def test_the_part_is_drawn_with_its_sizes(demo: None) -> None:
    drawn = first_page("Runner shaft")["clamping"]
    told = re.findall(r">([^<>]+)</text>", drawn)
    assert {"Ø64", "Ø57", "Ø49", "Ø35", "128", "198", "248"} == set(told)
    assert drawn.count("#dcd9d2") == 2, "above and below the axis"
    assert "#ffffff" in first_page("Wear bush, bored and reamed")["clamping"], "its bore is open"

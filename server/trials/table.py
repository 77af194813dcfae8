"""Entries of trials as a table in an open format: one line an entry, numbers in the core's units."""

from __future__ import annotations

import csv
import io
from collections.abc import Iterable, Iterator
from typing import Any

from django.http import HttpResponse
from openpyxl import Workbook

from cutting.quantities.kinds import KINDS
from server.errors import Refusal
from server.trials.models import Entry
from server.trials.reading import READ, SEEN

HEAD = ["trial", "question", "tool", "metal", "machine", "happened", "author", "edge", "count", "struck"]
FORMULA = ("=", "+", "-", "@", "\t", "\r", "＝")  # with which a spreadsheet would begin to reckon


def answer(rows: Any, form: str) -> HttpResponse:
    """The table as CSV or XLSX. Raises a 422 refusal for another form."""
    lines = _lines(rows.select_related("trial", "author"))
    if form == "csv":
        text = io.StringIO()
        csv.writer(text).writerows(lines)
        found = HttpResponse(text.getvalue(), content_type="text/csv; charset=utf-8")
    elif form == "xlsx":
        book = Workbook(write_only=True)
        sheet = book.create_sheet("trials")
        for line in lines:
            sheet.append(line)
        kept = io.BytesIO()
        book.save(kept)
        found = HttpResponse(kept.getvalue(), content_type="application/vnd.openxmlformats-officedocument.spreadsheetml.sheet")
    else:
        raise Refusal(422, "The table is written as csv or xlsx.", [{"field": "form", "message": "csv or xlsx"}])
    found["Content-Disposition"] = f'attachment; filename="trials.{form}"'
    return found


def _lines(rows: Iterable[Entry]) -> Iterator[list[Any]]:
    yield [
        *HEAD,
        *(f"{name} [{KINDS[one.kind].metric}]" if KINDS[one.kind].metric else name for name, one in READ.items()),
        *SEEN,
        "sizes [mm]",
        "words",
    ]
    for row in rows:
        trial, read, seen = row.trial, row.data.get("read", {}), row.data.get("seen", {})
        sizes = "; ".join(f"{one['value']:g}" + (f" at {one['at']}" if one["at"] else "") for one in row.data.get("sizes", ()))
        yield [
            trial.pk, _plain(trial.question), _plain(trial.tool), _plain(trial.metal), _plain(trial.machine),
            f"{row.happened:%Y-%m-%d %H:%M:%S}", row.author.get_username(), _plain(row.edge), row.count, "yes" if row.struck_at else "",
            *(read.get(name, "") for name in READ), *(seen.get(name, "") for name in SEEN), _plain(sizes), _plain(row.words),
        ]  # fmt: skip


def _plain(text: str) -> str:
    """Text that no spreadsheet takes for a formula."""
    return f"'{text}" if text.lstrip().startswith(FORMULA) else text

"""Heavy tools as the crib keeps them: the form that the sheet edits, the open form of an operation, the things of the core."""

from __future__ import annotations

import difflib
from collections.abc import Callable, Mapping
from typing import Any

from cutting.doors.heavy_tool_form import SECTIONS as OF_TOOL
from cutting.doors.heavy_tool_form import read_heavy_tool
from cutting.doors.json_form import Library, read_setup
from cutting.errors import CuttingError, UnknownName
from cutting.operations.registry import kind_of
from cutting.tooling.heavy.tool import HeavyTool as CoreTool
from cutting.tooling.items import Grade as CoreGrade
from server.crib.models import Grade, HeavyTool

OPERATION = "heavy bore"
Form = dict[str, Any]


def sections() -> dict[str, Any]:
    """The fields of every section of the form, by its name."""
    fields = kind_of(OPERATION).fields
    return {**OF_TOOL, "feature": fields.feature, "settings": fields.settings, "holding": fields.holding}


def opened(form: Form) -> Form:
    """The form of the sheet as the open form of an operation with its tool told whole."""
    tool: Form = {**_of(form, "tool"), **{name: form[name] for name in ("segments", "steps") if name in form}}
    kept: Form = {name: form[name] for name in ("material", "machine", "units", "feature", "settings", "holding") if name in form}
    return {"operation": OPERATION, **kept, "tool": {"heavy_tool": tool}}


def sheet_form(form: Form) -> Form:
    """A form as the sheet edits it, of one that may be the open form of an operation."""
    whole = _of(form, "tool").get("heavy_tool")
    if not isinstance(whole, Mapping):
        return {name: value for name, value in form.items() if name not in ("operation", "version")}
    own = {name: value for name, value in whole.items() if name not in ("segments", "steps")}
    tables = {name: whole[name] for name in ("segments", "steps") if name in whole}
    kept = {name: value for name, value in form.items() if name not in ("operation", "version", "tool")}
    return {**kept, "tool": own, **tables}


def read_form(form: Form, library: Library) -> Any:
    """The set-up of a form of the sheet. Raises `CuttingError` whose field is the path in that form."""
    try:
        return read_setup(opened(form), library)
    except CuttingError as error:
        own = error.field.removeprefix("tool.heavy_tool").removeprefix(".")
        if own != error.field:
            error.field = own if own.split(".")[0] in ("segments", "steps") else f"tool.{own}".removesuffix(".")
        raise


def tool_of(form: Form, grade: Callable[[str], CoreGrade]) -> CoreTool:
    """The tool of a form of the sheet. Raises `CuttingError`."""
    return read_heavy_tool(opened(form)["tool"]["heavy_tool"], "tool", "mm", grade)


def find_heavy(name: str, grade: Callable[[str], CoreGrade]) -> CoreTool:
    """The shop's heavy tool of that name; one that was archived is still found, for the jobs that use it. Raises `CuttingError`."""
    row = HeavyTool.objects.filter(name__in=(name, name.strip())).order_by("archived_at").first()
    if row is None:
        names = list(HeavyTool.objects.filter(archived_at=None).values_list("name", flat=True)[:200])
        near = tuple(difflib.get_close_matches(name, names, n=3, cutoff=0.4))
        hint = f" Near it: {', '.join(near)}." if near else ""
        raise UnknownName("heavy_tool", f"no heavy tool is called '{name[:60]}'.{hint}", None, near)
    return tool_of(row.form, grade)


def find_grade(name: str) -> CoreGrade:
    """The shop's grade of that name. Raises `UnknownName`."""
    row = Grade.objects.filter(name__iexact=name.strip(), archived_at=None).first()
    if row is None:
        names = tuple(Grade.objects.filter(archived_at=None).values_list("name", flat=True)[:60])
        raise UnknownName("grade", f"no grade is called '{name[:40]}'; there are {', '.join(names)}.", None, names)
    return row.to_core()


def heavy_in_stock(grade: Callable[[str], CoreGrade]) -> tuple[CoreTool, ...]:
    """The shop's heavy tools; one that a change on shelf or floor made unreadable is none to choose."""
    found = []
    for row in HeavyTool.objects.filter(archived_at=None):
        try:
            found.append(tool_of(row.form, grade))
        except CuttingError:
            continue
    return tuple(found)


def _of(form: Form, section: str) -> dict[str, Any]:
    value = form.get(section)
    return dict(value) if isinstance(value, Mapping) else {}

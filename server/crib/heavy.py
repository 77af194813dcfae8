"""Heavy boring tools over HTTP: kept as they were entered, studied as they stand."""

from __future__ import annotations

import json
from typing import Any, Literal

import numpy as np
from django.db import IntegrityError, transaction
from django.http import HttpRequest, HttpResponse
from django.utils import timezone
from ninja import Router, Status
from pydantic import Field

from cutting.doors.heavy_tool_form import examples, written
from cutting.doors.plain import limit_facts, plain
from cutting.errors import CuttingError
from cutting.glossary import RESULTS
from cutting.operations.holes.heavy_bore import rebuild
from cutting.operations.holes.heavy_bore.evaluate import MODEL
from cutting.operations.holes.heavy_bore.limits import grade_of
from cutting.operations.holes.heavy_bore.numbers import torque_over
from cutting.operations.registry import judged
from cutting.quantities import display
from cutting.tooling.heavy.solids import body_materials
from cutting.tooling.heavy.tool import heavy_holders
from cutting.workpiece.bores import written as bores_written
from server.crib.heavy_sheet import heavy_sheet
from server.crib.heavy_tools import opened, read_form, sections, sheet_form
from server.crib.models import HeavyTool
from server.errors import Refusal
from server.floor.models import Machine
from server.jobs.document.entries import entry_with_unit
from server.jobs.kinds.view import AxisOut, axis, points, same
from server.jobs.schemas.operation import LimitOut, ValueOut
from server.jobs.sheet.drawn import pdf_answer
from server.jobs.sheet.pdf import Form as SheetForm
from server.jobs.sheet.pdf import Paper, page_answer
from server.people.roles import require_engineer
from server.records.models import Stamp
from server.schema import Schema
from server.sentences import Sentence
from server.shop import Shop, shop
from server.units import DisplayOut, Plain, Point, Units

router = Router()
MOST_BYTES = 40_000
Form = dict[str, Any]


class HeavyIn(Schema):
    """The open form of a heavy tool as it was typed; bare numbers mean `units`: all of them, or only the cell that was `typed`,
    as `segments.2.outer`, where the rest comes back as it is known."""

    form: Form
    units: Units = "mm"
    typed: str | None = Field(default=None, max_length=60)


class HeavySaveIn(HeavyIn):
    """A form with the version that it started from."""

    revision: int = Field(ge=1)


class HeavyFieldOut(Plain):
    """A field of the sheet's tables."""

    name: str
    label: str
    kind: str
    example: str


class HeavyChoices(Plain):
    """What the sheet's tables ask for, and what may be chosen."""

    sections: dict[str, list[HeavyFieldOut]]
    holders: list[str]
    materials: list[str]


class HeavyRow(Schema):
    """A heavy tool in the list."""

    id: int
    name: str
    mass: DisplayOut | None
    moment: DisplayOut | None
    machine: str
    sound: bool


class HeavyKept(Schema):
    """A heavy tool as it is kept."""

    id: int
    name: str
    revision: int
    form: Form


class SolidOut(Plain):
    """A solid of the tool."""

    name: str
    start: float
    end: float
    outer: float
    inner: float
    arms: int
    share: float
    mass: DisplayOut


class HeavyStep(Plain):
    """A step with what it is set to and what it keeps."""

    name: str
    at: float
    diameter: float
    inserts: int
    pads: int
    labels: dict[str, DisplayOut]
    grade: str


class HeavyChain(Plain):
    """A way to bore all steps."""

    name: str
    coaxiality: DisplayOut
    more: DisplayOut
    places: int
    fits: bool


class HeavyCarrier(Plain):
    """Whether a machine carries the tool."""

    machine: str
    carries: bool
    why: list[Sentence]


class HeavyRemedyOut(Plain):
    """A tool done otherwise: what it weighs then, what still breaks, and the tables that taking it sets."""

    text: str
    mass: DisplayOut
    moment: DisplayOut
    frequency: DisplayOut
    coaxiality: DisplayOut
    broken: list[str]
    patch: Form


class HeavyWarning(Plain):
    """Something to know of the tool."""

    name: str
    text: Sentence
    severity: str
    harm: Literal["danger", "warning", "caution", ""]


class HeavyOut(Plain):
    """The sheet: `form` is what was typed with the units it was meant in."""

    form: Form
    feasible: bool
    results: list[ValueOut]
    limits: list[LimitOut]
    warnings: list[HeavyWarning]
    solids: list[SolidOut]
    steps: list[HeavyStep]
    face: float
    seat: float
    lever: float
    length: float
    labels: dict[str, DisplayOut]
    stroke_axis: AxisOut
    torque_axis: AxisOut
    torque: list[Point]
    chains: list[HeavyChain]
    carriers: list[HeavyCarrier]
    remedies: list[HeavyRemedyOut]


@router.get("/choices", response=HeavyChoices)
def choices(request: HttpRequest) -> dict[str, Any]:
    """What the sheet's tables ask for."""
    fields = {
        name: [{"name": one.name, "label": one.label, "kind": one.kind, "example": one.example} for one in section]
        for name, section in sections().items()
    }
    return {"sections": fields, "holders": list(heavy_holders()), "materials": list(body_materials())}


@router.get("", response=list[HeavyRow])
def list_heavy(request: HttpRequest) -> list[dict[str, Any]]:
    """The heavy tools of the shop, each weighed."""
    stock = shop()
    return [_row(row, stock) for row in HeavyTool.objects.filter(archived_at=None)]


@router.post("", response={201: HeavyKept})
def add_heavy(request: HttpRequest, payload: HeavyIn) -> Status:
    """Keep a new tool. A name that is taken is refused."""
    require_engineer(request)
    form = _meant(payload)
    name = read_form(form, shop().library).heavy_tool.name
    try:
        with transaction.atomic():
            row = HeavyTool.objects.create(name=name, form=form)
            Stamp.bump("crib")
    except IntegrityError as error:
        raise _taken(name) from error
    return Status(201, _kept(row))


@router.post("/study", response=HeavyOut)
def study_heavy(request: HttpRequest, payload: HeavyIn) -> dict[str, Any]:
    """What a tool is worth as it is typed; nothing is saved."""
    form, stock = _meant(payload), shop()
    return _out(form, read_form(form, stock.library), _machines(), payload.units)


@router.get("/{tool_id}", response=HeavyKept)
def read_one(request: HttpRequest, tool_id: int) -> dict[str, Any]:
    """A heavy tool as it is kept."""
    return _kept(_named(tool_id))


@router.get("/{tool_id}/form.json")
def form_file(request: HttpRequest, tool_id: int) -> HttpResponse:
    """The open form as a file, for `solve` and for other shops."""
    row = _named(tool_id)
    answer = HttpResponse(json.dumps(opened(row.form), indent=1, ensure_ascii=False), content_type="application/json")
    answer["Content-Disposition"] = f'attachment; filename="heavy-tool-{row.pk}.json"'
    return answer


@router.get("/{tool_id}/setup-sheet")
def print_heavy(request: HttpRequest, tool_id: int, paper: Paper = "a4", form: SheetForm = "pdf", units: Units = "mm") -> HttpResponse:
    """The tool on paper: how it is built, what each step is set to, what the changer must carry."""
    row = _named(tool_id)
    if form == "page":
        return page_answer("heavy_sheet.html", heavy_sheet(read_form(row.form, shop().library), row.revision, units), paper)
    subject = {"of": "heavy tool", "form": row.form, "revision": row.revision}
    return pdf_answer(request, subject, paper, units, f"heavy-tool-{row.pk}")


@router.put("/{tool_id}", response=HeavyKept)
def save_heavy(request: HttpRequest, tool_id: int, payload: HeavySaveIn) -> dict[str, Any]:
    """Save on top of the version that it started from; somebody else's in between is answered 409 with both."""
    require_engineer(request)
    form = _meant(payload)
    name = read_form(form, shop().library).heavy_tool.name
    _named(tool_id)
    try:
        with transaction.atomic():
            moved = HeavyTool.objects.filter(pk=tool_id, revision=payload.revision, archived_at=None).update(
                name=name, form=form, revision=payload.revision + 1, changed=timezone.now()
            )
            Stamp.bump("crib")
    except IntegrityError as error:
        raise _taken(name) from error
    row = _named(tool_id)
    if not moved:
        said = f"Somebody saved version {row.revision} since you started from {payload.revision}."
        raise Refusal(409, said, [{"field": "revision", "message": said}], current_revision=row.revision, current=row.form, yours=form)
    return _kept(row)


@router.delete("/{tool_id}", response={204: None})
def archive_heavy(request: HttpRequest, tool_id: int) -> Status:
    """Put a heavy tool away; its name may be used again."""
    require_engineer(request)
    row = _named(tool_id)
    row.archived_at, row.name = timezone.now(), f"{row.name[:60]} ({row.pk})"  # its name may be used again
    with transaction.atomic():
        row.save()
        Stamp.bump("crib")
    return Status(204, None)


def fill_heavy() -> None:
    """The invented tools of the demo."""
    for form in map(sheet_form, examples()):
        HeavyTool.objects.get_or_create(name=form["tool"]["name"], defaults={"form": form})


def _named(tool_id: int) -> HeavyTool:
    row = HeavyTool.objects.filter(pk=tool_id, archived_at=None).first()
    if row is None:
        raise Refusal(404, "There is no such heavy tool.")
    return row


def _taken(name: str) -> Refusal:
    return Refusal(409, f"name: a heavy tool is called '{name}' already.", [{"field": "tool.name", "message": "is taken"}])


def _kept(row: HeavyTool) -> dict[str, Any]:
    return {"id": row.pk, "name": row.name, "revision": row.revision, "form": row.form}


def _machines() -> list[Any]:
    return [row.to_core() for row in Machine.objects.filter(archived_at=None).prefetch_related("spindles")]


def _row(row: HeavyTool, stock: Shop) -> dict[str, Any]:
    """A tool in the list; one that a change on shelf or floor made unreadable still stands in it."""
    try:
        setup = read_form(row.form, stock.library)
        outcome, _ = judged(setup)
    except CuttingError:
        return {"id": row.pk, "name": row.name, "mass": None, "moment": None, "machine": str(row.form.get("machine", "")), "sound": False}
    return {
        "id": row.pk,
        "name": row.name,
        "mass": outcome.results["mass"].display,
        "moment": outcome.results["moment"].display,
        "machine": setup.machine.name,
        "sound": outcome.feasible,
    }


def _meant(payload: HeavyIn) -> Form:
    """The form with the unit that every bare number was typed in. Raises `CuttingError`."""
    if len(json.dumps(payload.form)) > MOST_BYTES:
        raise Refusal(422, "form: is too large.", [{"field": "form", "message": "is too large", "bound": f"{MOST_BYTES} bytes"}])
    found = {name: value for name, value in sheet_form(payload.form).items() if name != "units"}
    for section, fields in sections().items():
        known = {one.name: one for one in fields}
        given = found.get(section)
        if isinstance(given, dict):
            found[section] = _row_meant(given, known, section, payload)
        elif isinstance(given, list):
            found[section] = [
                _row_meant(row, known, f"{section}.{k}", payload) if isinstance(row, dict) else row for k, row in enumerate(given)
            ]
    return found


def _row_meant(row: Form, known: dict[str, Any], path: str, payload: HeavyIn) -> Form:
    def meant(name: str, value: Any) -> Any:
        if name not in known or not isinstance(value, (str, int, float)):
            return value
        told = payload.typed is None or payload.typed == f"{path}.{name}"
        return entry_with_unit(known[name], value, f"{path}.{name}", payload.units if told else "mm")

    return {name: meant(name, value) for name, value in row.items() if value not in (None, "")}


def _out(form: Form, setup: Any, machines: list[Any], units: str) -> dict[str, Any]:
    outcome, x = judged(setup)
    outcome = MODEL.remedied(outcome, setup, None, x)
    tool, results = setup.heavy_tool, outcome.results
    system = "inch" if units == "inch" else "metric"
    stroke, torque = torque_over(x)
    return {
        "form": form,
        "feasible": outcome.feasible,
        "results": [plain(one) | {"means": RESULTS.get(one.name, "")} for one in results.values()],
        "limits": [limit_facts(one) for one in outcome.limits],
        "warnings": [plain(one) for one in outcome.warnings],
        "solids": [
            {**{name: getattr(one, name) for name in ("name", "start", "end", "outer", "inner", "arms", "share")},
             "mass": display(one.mass, "mass")}
            for one in tool.segments
        ],
        "steps": [_step(setup, x, k) for k in range(len(setup.feature.bores))],
        "face": tool.holder.face,
        "seat": tool.holder.seat_diameter,
        "lever": tool.whole.lever,
        "length": tool.length,
        "labels": {name: results[name].display for name in ("mass", "moment", "lever", "frequency")},
        "stroke_axis": axis("feed of the pass", 0.0, float(stroke[-1]), "length", system),
        "torque_axis": axis("torque", 0.0, 1.15 * float(torque.max()), "torque", system, most=3.5),
        "torque": points(zip(stroke, torque, strict=True)),
        "chains": [
            {"name": one.name, "coaxiality": display(round(one.coaxiality, 4), "length"), "more": display(one.more_seconds, "duration"),
             "places": one.places, "fits": one.fits}
            for one in rebuild.ways(setup)
        ],
        "carriers": [plain(one) for one in rebuild.carriers(setup, machines)],
        "remedies": [_rebuilt(one) for one in rebuild.rebuilt(setup, machines)],
    }  # fmt: skip


def _step(setup: Any, x: Any, k: int) -> dict[str, Any]:
    bore, step = setup.feature.bores[k], setup.steps[k]
    size, tolerance = bore.diameter.nominal, bore.diameter.tolerance

    def of(values: Any) -> float:
        return float(np.ravel(values)[k])

    return {
        "name": step.name,
        "at": step.at,
        "diameter": size,
        "inserts": step.inserts,
        "pads": step.pads,
        "grade": grade_of(size, tolerance) if tolerance else "",
        "labels": {
            "speed": display(of(x.bore_speed), "cutting_speed", False),
            "torque": display(of(x.step_torque), "torque"),
            "cylindricity": display(round(of(x.cylindricity), 4), "length"),
            "growth": display(round(of(x.grown), 4), "length"),
            "set_to": display(round(of(x.set_to), 4), "length"),
            "tolerance": display(tolerance, "length") if tolerance else same("–"),
            "flow": display(of(x.flow), "flow"),
        },
    }


def _rebuilt(one: rebuild.Rebuilt) -> dict[str, Any]:
    tool = one.setup.heavy_tool
    patch = sheet_form({"tool": {"heavy_tool": written(tool)}, "machine": one.setup.machine.name})
    return {
        "text": one.text,
        "mass": display(tool.whole.mass, "mass"),
        "moment": display(one.moment, "torque"),
        "frequency": same(f"{tool.bending.frequency():.0f} Hz"),
        "coaxiality": display(round(one.coaxiality, 4), "length"),
        "broken": list(one.broken),
        "patch": {**patch, "feature": {"bores": bores_written(one.setup.feature.bores), "through": one.setup.feature.through},
                  "settings": {"coolant": one.setup.settings.coolant}},
    }  # fmt: skip

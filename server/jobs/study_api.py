"""Studies of one operation over HTTP: nothing here is saved, all of it reads the values that are being tried."""

from __future__ import annotations

import csv
from typing import Any, Literal

from django.http import HttpRequest, HttpResponse
from ninja import Router

from cutting.advice.ways import ways_to_turn
from cutting.operations.coolant import advise_coolant
from cutting.operations.holes.bore.limits import RULES as BORED
from cutting.operations.registry import evaluate_quickly, explore, kind_of
from cutting.operations.turned.edge_angles import edge_angles
from cutting.operations.turned.edge_life import edge_life
from cutting.operations.turned.hard import Grinding, hard_turning
from cutting.operations.turned.planner import plan
from cutting.operations.turned.setup import Setup
from cutting.operations.turned.size_control import ledger
from cutting.operations.turned.springing import allowed, springing, supports
from cutting.operations.turned.stability import stability
from server.errors import Refusal
from server.jobs import actions, studies
from server.jobs import study_schemas as out
from server.jobs.document import entry_of, request_of, setup_of, tried_with
from server.jobs.kinds.cut_off import curve_table
from server.jobs.readings import readings_of
from server.jobs.schemas import TryIn
from server.jobs.state import state_of
from server.shop import shop

router = Router()
PLACE = "/{job_id}/operations/{operation}"


@router.post(PLACE + "/plan", response=out.PlanOut)
def plan_passes(request: HttpRequest, job_id: int, operation: str, payload: TryIn) -> dict[str, Any]:
    """How deep a pass may be and why, the passes as they stand, and the offset ledger of what was measured."""
    setup = _setup(job_id, operation, payload, "plan")
    kept = _ledger(setup, job_id, operation) if setup.keeps_size else None
    found = plan(setup, BORED) if setup.inside else plan(setup)
    return studies.plan_out(found, setup, evaluate_quickly(setup), kept)


@router.post(PLACE + "/rigidity", response=out.RigidityOut)
def study_rigidity(request: HttpRequest, job_id: int, operation: str, payload: TryIn) -> dict[str, Any]:
    """How the part springs along the cut, what would support it, and where it sings."""
    setup = _setup(job_id, operation, payload, "rigidity")
    return studies.rigidity_out(springing(setup), allowed(setup), supports(setup), stability(setup), setup.inside, _system(payload))


@router.post(PLACE + "/edge-angles", response=out.EdgeAnglesOut)
def study_edge_angles(request: HttpRequest, job_id: int, operation: str, payload: TryIn) -> dict[str, Any]:
    """How the edge stands: κr, rake and clearance with the tip's height, by both schools."""
    setup = _setup(job_id, operation, payload, "edge")
    return studies.edge_angles_out(edge_angles(setup), setup)


@router.post(PLACE + "/edge-life", response=out.EdgeLifeOut)
def study_edge_life(request: HttpRequest, job_id: int, operation: str, payload: TryIn) -> dict[str, Any]:
    """Speed against life and cost, and how surely an edge reaches its planned change."""
    setup = _setup(job_id, operation, payload, "life")
    return studies.edge_life_out(edge_life(setup), setup, _system(payload))


@router.post(PLACE + "/ways", response=list[out.WayOut])
def list_ways(request: HttpRequest, job_id: int, operation: str, payload: TryIn) -> list[dict[str, Any]]:
    """The ways to turn this feature, each with its best tool of the crib."""
    revision, stock = actions.newest(job_id), shop()
    document, entry = operation_with(revision, operation, "ways")
    tried = _tried(payload, revision)
    setup = setup_of(document, entry, tried, stock)
    _, crib = request_of(document, entry, tried, stock)
    return [studies.way_out(offer) for offer in ways_to_turn(setup, crib)]


@router.post(PLACE + "/coolant", response=out.CoolantOut)
def study_coolant(request: HttpRequest, job_id: int, operation: str, payload: TryIn) -> dict[str, Any]:
    """Which delivery suits, with the reason, and what pump and nozzles do."""
    setup = _setup(job_id, operation, payload, "coolant")
    return studies.coolant_out(advise_coolant(setup), setup)


@router.post(PLACE + "/hard", response=out.HardOut)
def study_hard(request: HttpRequest, job_id: int, operation: str, payload: TryIn) -> dict[str, Any]:
    """Hard turning against grinding, where the operation says what grinding takes."""
    _, entry = entry_of(actions.newest(job_id).document, operation)
    given = entry.get("grinding")
    return studies.hard_out(hard_turning(_setup(job_id, operation, payload, "hard"), Grinding(**given) if given else None))


def _ledger(setup: Setup, job_id: int, operation: str) -> dict[str, Any]:
    rows, readings = readings_of(job_id, operation, setup.house.measuring_uncertainty)
    return studies.ledger_out(ledger(setup, readings), setup, rows)


@router.get(PLACE + "/curve.csv")
def export_curve(request: HttpRequest, job_id: int, operation: str, units: Literal["mm", "inch"] = "mm") -> HttpResponse:
    """Everything over diameter on the way to the centre, of a cut-off as it is saved, as CSV."""
    document, entry = entry_of(actions.newest(job_id).document, operation)
    if entry["operation"] != "cut off":
        raise Refusal(422, "Only a cut-off has a curve over diameter.", [{"field": "operation", "message": "not a cut-off"}])
    head, rows = curve_table(explore(setup_of(document, entry, None, shop())), "inch" if units == "inch" else "metric")
    answer = HttpResponse(content_type="text/csv; charset=utf-8")
    answer["Content-Disposition"] = f'attachment; filename="cut-off-{job_id}-{operation}.csv"'
    csv.writer(answer).writerows([head, *rows])
    return answer


def _setup(job_id: int, operation: str, payload: TryIn, study: str) -> Setup:
    revision = actions.newest(job_id)
    document, entry = operation_with(revision, operation, study)
    return setup_of(document, entry, _tried(payload, revision), shop())


def operation_with(revision: Any, operation: str, study: str) -> tuple[dict[str, Any], dict[str, Any]]:
    """The document and its operation. Raises a 422 refusal for a kind that a study does not belong to."""
    document, entry = entry_of(revision.document, operation)
    if study not in kind_of(entry["operation"]).studies:
        said = f"This study does not belong to '{entry['operation']}'."
        raise Refusal(422, said, [{"field": "operation", "message": "of another kind"}])
    return document, entry


def _tried(payload: TryIn, revision: Any) -> dict[str, Any]:
    return tried_with(payload.dict(), revision.document, lambda: state_of(revision)["tape"]["seconds"])


def _system(payload: TryIn) -> str:
    return "inch" if payload.units == "inch" else "metric"

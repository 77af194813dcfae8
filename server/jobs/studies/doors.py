"""How the core's studies go out: for each its path, its schema and the function that turns the core's answer into it. One line each."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from types import MappingProxyType
from typing import Any

from cutting.operations.registry import evaluate_quickly
from cutting.operations.turned.hard import Grinding, hard_turning
from cutting.operations.turned.size_control import ledger
from cutting.studies.program import programs_of
from server.floor.controls import own_dialects
from server.jobs.measured.readings import readings_of
from server.jobs.schemas import study as out
from server.jobs.schemas.program import ProgramsOut
from server.jobs.studies.choices import acceptance_out, coolant_out, hard_out, slot_method_out, way_out
from server.jobs.studies.edges import edge_angles_out, edge_life_out
from server.jobs.studies.passes import ledger_out, plan_out
from server.jobs.studies.process import process_out
from server.jobs.studies.programs import programs_out
from server.jobs.studies.rigidity import rigidity_out

Answer = dict[str, Any]


@dataclass(frozen=True)
class StudyAsked:
    """What was asked: the set-up as it is tried, its entry in the document, where it stands, and the system of the answer's axes."""

    setup: Any
    entry: dict[str, Any]
    job_id: int
    operation: str
    system: str


@dataclass(frozen=True)
class StudyDoor:
    """The last part of its path, its schema, and how the core's answer goes out."""

    path: str
    response: Any
    answer: Callable[[Any, StudyAsked], Any]


def _plan(found: Any, asked: StudyAsked) -> Answer:
    """How deep a pass may be and why, the passes as they stand, and the offset ledger of what was measured."""
    setup, kept = asked.setup, None
    if setup.keeps_size:
        rows, readings = readings_of(asked.job_id, asked.operation, setup.house.measuring_uncertainty)
        kept = ledger_out(ledger(setup, readings), setup, rows)
    return plan_out(found, setup, evaluate_quickly(setup), kept)


def _rigidity(found: Any, asked: StudyAsked) -> Answer:
    """How the part springs along the cut, what would support it, and where it sings."""
    return rigidity_out(found.springs, found.allowed, found.supports, found.quiet, asked.setup.inside, asked.system)


def _life(found: Any, asked: StudyAsked) -> Answer:
    """Speed against life and cost, and how surely an edge reaches its planned change."""
    return edge_life_out(found, asked.setup, asked.system)


def _ways(found: Any, asked: StudyAsked) -> list[Answer]:
    """The ways to turn this feature, each with its best tool of the crib."""
    return [way_out(offer) for offer in found]


def _slot_ways(found: Any, asked: StudyAsked) -> list[Answer]:
    """The methods of a cut-off or groove with the tool that is in it."""
    return [slot_method_out(method) for method in found]


def _acceptance(found: Any, asked: StudyAsked) -> Answer:
    """What is asked of a drilled hole against what each layer gets, and what was measured."""
    return acceptance_out(found, asked.entry.get("accepted") or {})


def _program(found: Any, asked: StudyAsked) -> Answer:
    """The operation as a program, in every dialect that its machine may speak."""
    own = own_dialects()
    return programs_out(programs_of(asked.setup, own=own) if own else found, asked.entry.get("program"))


def _edge(found: Any, asked: StudyAsked) -> Answer:
    """How the edge stands: κr, rake and clearance with the tip's height, by both schools."""
    return edge_angles_out(found, asked.setup)


def _coolant(found: Any, asked: StudyAsked) -> Answer:
    """Which delivery suits, with the reason, and what pump and nozzles do."""
    return coolant_out(found, asked.setup)


def _hard(found: Any, asked: StudyAsked) -> Answer:
    """Hard turning against grinding, where the operation says what grinding takes."""
    given = asked.entry.get("grinding")
    return hard_out(hard_turning(asked.setup, Grinding(**given) if given else None))


def _process(found: Any, asked: StudyAsked) -> Answer:
    """The present process by its drivers, against what was entered beside it or the plan."""
    return process_out(asked.setup, asked.entry.get("process"))


DOORS: MappingProxyType[str, StudyDoor] = MappingProxyType(
    {
        "plan": StudyDoor("plan", out.PlanOut, _plan),
        "rigidity": StudyDoor("rigidity", out.RigidityOut, _rigidity),
        "life": StudyDoor("edge-life", out.EdgeLifeOut, _life),
        "ways": StudyDoor("ways", list[out.WayOut], _ways),
        "slot ways": StudyDoor("slot-ways", list[out.SlotMethodOut], _slot_ways),
        "acceptance": StudyDoor("acceptance", out.AcceptanceOut, _acceptance),
        "program": StudyDoor("program", ProgramsOut, _program),
        "edge": StudyDoor("edge-angles", out.EdgeAnglesOut, _edge),
        "coolant": StudyDoor("coolant", out.CoolantOut, _coolant),
        "hard": StudyDoor("hard", out.HardOut, _hard),
        "process": StudyDoor("process", out.ProcessOut, _process),
    }
)

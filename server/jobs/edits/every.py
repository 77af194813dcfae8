"""Any edit, and the changed copy of a document that it gives."""

from __future__ import annotations

import copy
from typing import Annotated, Any

from pydantic import Field

from server.jobs.edits.order import AddOperation, AddOperations, MoveOperation, NoteFeature, RemoveFeature, RemoveOperation, SetNoted
from server.jobs.edits.part import SetBaseline, SetPart
from server.jobs.edits.settings import SetFeature, SetGrinding, SetHolding, SetMeasured, SetProcess, SetProgram, SetSettings
from server.jobs.edits.tools import TakeTool, TakeTools

Edit = Annotated[
    SetSettings
    | TakeTool
    | TakeTools
    | SetFeature
    | SetHolding
    | SetPart
    | AddOperation
    | AddOperations
    | NoteFeature
    | SetNoted
    | RemoveFeature
    | RemoveOperation
    | MoveOperation
    | SetGrinding
    | SetMeasured
    | SetProcess
    | SetProgram
    | SetBaseline,
    Field(discriminator="action"),
]


def edited(document: dict[str, Any], edit: Any) -> tuple[dict[str, Any], str]:
    """A changed copy of the document and what was done, in words."""
    fresh = copy.deepcopy(document)
    return fresh, edit.apply(fresh)[:200]

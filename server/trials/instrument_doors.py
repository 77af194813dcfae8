"""Instruments over HTTP: paired, read with one key, watched."""

from __future__ import annotations

from typing import Any

from django.http import HttpRequest
from django.utils import timezone
from ninja import Router, Status

from cutting.quantities import display
from server.errors import Refusal
from server.people.roles import require_engineer
from server.trials import instruments, kept, schemas
from server.trials.models import Instrument
from server.units import Units

router = Router()


@router.get("", response=list[schemas.InstrumentOut])
def list_instruments(request: HttpRequest) -> list[dict[str, Any]]:
    """The simulated ones and the shop's own."""
    return [
        {
            "id": one.identity,
            "name": one.name,
            "protocol": one.protocol,
            "where": f"{one.host}:{one.port}",
            "simulated": not one.identity.isdigit(),
        }
        for one in instruments.every_instrument()
    ]


@router.post("", response={201: list[schemas.InstrumentOut]})
def pair_instrument(request: HttpRequest, payload: schemas.InstrumentIn) -> Status:
    """Pair an instrument of the shop's own network."""
    require_engineer(request)
    instruments.paired(payload, request.user.get_username())
    return Status(201, list_instruments(request))


@router.post("/{identity}/archive", response=list[schemas.InstrumentOut])
def part_with_instrument(request: HttpRequest, identity: str) -> list[dict[str, Any]]:
    """Put an instrument away."""
    require_engineer(request)
    if not identity.isdigit() or not Instrument.objects.filter(pk=int(identity), archived_at=None).update(archived_at=timezone.now()):
        raise Refusal(404, "No instrument of the shop's own is paired by that name.")
    return list_instruments(request)


@router.get("/{identity}/reading", response=schemas.GaugeReadingOut)
def take_reading(request: HttpRequest, identity: str, units: Units = "mm") -> dict[str, Any]:
    """One reading of a micrometer or bore gauge."""
    found = instruments.reading(instruments.find(identity, instruments.LINE))
    entry = f"{found.value:.4f}" if units == "mm" else f"{found.value / 25.4:.5f}"
    return {"text": found.text, "value": display(found.value, "size"), "entry": entry}


@router.get("/{identity}/state", response=schemas.AgentOut)
def read_machine(request: HttpRequest, identity: str) -> dict[str, Any]:
    """What a machine says now."""
    return instruments.state(instruments.find(identity, instruments.AGENT))


@router.get("/{identity}/strip", response=schemas.StripOut)
def read_strip(request: HttpRequest, identity: str, trial: int | None = None, units: Units = "mm") -> dict[str, Any]:
    """The spindle's load over the last two minutes against what was predicted."""
    asked = kept.find(trial) if trial is not None else None
    return instruments.strip(instruments.find(identity, instruments.AGENT), asked, "inch" if units == "inch" else "metric")

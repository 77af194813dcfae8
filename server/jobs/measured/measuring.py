"""Sizes read at the machine: read as typed beside what they must lie near, and asked about where they cannot be."""

from __future__ import annotations

from contextlib import suppress
from typing import Any

from cutting.errors import CuttingError
from cutting.operations.turned.setup import Setup
from cutting.operations.turned.size_control import Measured, doubt_of_next
from cutting.quantities import Asked, read_asked, read_quantity
from server.errors import Refusal
from server.jobs.document.plan import setup_of, told_of
from server.jobs.measured.readings import readings_of
from server.jobs.schemas.job import MeasurementIn

SIZE = Asked("Ø", "length", 0, 3150, above=True)
UNCERTAINTY = Asked("± of the instrument", "length", 0.0001, 1.0)
TEMPERATURE = Asked("temperature", low=-20, high=200, unit="°C")
PASS = Asked("pass", "count", 1, 60, whole=True)
PIECE = Asked("piece", "count", 1, 10_000_000, whole=True)
LONGEST = 40  # characters that are kept of an entry


def read_measurement(payload: MeasurementIn, document: dict[str, Any], entry: dict[str, Any]) -> tuple[dict[str, Any], Measured]:
    """The row to keep, and the reading as the core takes it. Raises `CuttingError` that names field and bound."""
    system = "inch" if payload.units == "inch" else "metric"
    about = _feature_size(document, entry)
    commanded = read_asked(payload.commanded, SIZE, system, "commanded", about)
    measured = read_asked(payload.measured, SIZE, system, "measured", commanded)
    given = payload.uncertainty not in (None, "")
    fields: dict[str, Any] = {
        "operation": payload.operation,
        "pass_number": int(read_asked(payload.pass_number, PASS, field="pass_number")),
        "commanded": commanded,
        "measured": measured,
        "commanded_entered": str(payload.commanded).strip()[:LONGEST],
        "measured_entered": str(payload.measured).strip()[:LONGEST],
        "piece": int(read_asked(payload.piece, PIECE, field="piece")),
        "temperature": read_asked(payload.temperature, TEMPERATURE, field="temperature"),
        "uncertainty": read_asked(payload.uncertainty, UNCERTAINTY, system, "uncertainty") if given else None,
    }
    usual = 0.01 if fields["uncertainty"] is None else fields["uncertainty"]
    return fields, Measured(fields["pass_number"], commanded, measured, fields["temperature"], usual, fields["piece"])


def ask_about_doubts(job_id: int, document: dict[str, Any], entry: dict[str, Any], one: Measured) -> None:
    """Raise a 422 refusal that asks, where a reading cannot be what the instrument says."""
    with suppress(CuttingError):  # an operation that cannot be read cannot doubt either
        setup = setup_of(document, entry)
        if not isinstance(setup, Setup) or not setup.keeps_size:
            return
        _, readings = readings_of(job_id, entry["id"], setup.house.measuring_uncertainty)
        if why := doubt_of_next(setup, readings, one):
            message = f"{why}. Measure again; kept as it is, it will not count."
            raise Refusal(422, message, [{"field": "measured", "message": message, "doubt": True}])


def _feature_size(document: dict[str, Any], entry: dict[str, Any]) -> float | None:
    """A diameter [mm] that readings of this operation lie about, None where it has none."""
    told = told_of(document, entry)
    for name in ("end_diameter", "diameter", "outer_diameter"):
        with suppress(CuttingError):
            if text := told.get(name):
                words = str(text).removeprefix("Ø").split()
                return read_quantity(words[0] + (" in" if "in" in words else ""), "length", field=name).value
    return None

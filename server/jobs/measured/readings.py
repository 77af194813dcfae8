"""Measured sizes of an operation as the core's size control reads them."""

from __future__ import annotations

from cutting.operations.turned.size_control import Measured
from server.jobs.models import Measurement


def readings_of(job_id: int, operation: str, usual_uncertainty: float) -> tuple[list[Measurement], list[Measured]]:
    """The newest reading of every pass of every piece; one written anew takes the place of the old."""
    written = Measurement.objects.filter(job_id=job_id, operation=operation).order_by("at", "pk")
    rows = list({(m.piece, m.pass_number): m for m in written}.values())
    return rows, [
        Measured(
            m.pass_number, m.commanded, m.measured, m.temperature, usual_uncertainty if m.uncertainty is None else m.uncertainty, m.piece
        )
        for m in rows
    ]

"""Size control of threads over HTTP: a measure over wires or a gauge's word, what it means, what to set off. Nothing is saved here."""

from __future__ import annotations

from typing import Any, Literal

from django.http import HttpRequest
from ninja import Router

from cutting.errors import CuttingError
from cutting.operations.threads.shared.feature import ThreadFeature
from cutting.quantities import Asked, Display, display, read_asked
from cutting.sizing.threads import Correction, Gauged, Reading, correct
from cutting.workpiece.threads.measuring import over_wires
from server.jobs.document.plan import setup_of, tried_with
from server.jobs.doors.studies import operation_with
from server.jobs.kept import actions
from server.jobs.models import Measurement
from server.jobs.schemas.job import TryIn
from server.jobs.shown.state import state_of
from server.schema import Schema
from server.shop import shop
from server.units import DisplayOut

router = Router()
PLACE = "/{job_id}/operations/{operation}"
WIRE = Asked("Ø of the wires", "length", 0.05, 20.0)
OVER = Asked("measured", "length", 0.1, 3000.0)
TURNS = Asked("turns", "number", -20.0, 20.0)
ACTS = {
    "turn thread": ("infeed deeper, on the radius", "or along the axis, one flank alone"),
    "mill thread": ("path outward, on the radius", ""),
    "tap": ("", ""),
}


class ThreadSizeIn(TryIn):
    """A reading: over wires (between balls), a gauge's word, or turns of a taper gauge; each may be blank."""

    measured: str | float | None = None
    wire: str | float | None = None
    gauged: Literal["", "go goes, no-go does not", "go does not go", "no-go goes"] = ""
    turns: str | float | None = None


class ThreadTarget(Schema):
    """What is wanted over wires."""

    where: str
    wire: DisplayOut
    set_wire: DisplayOut
    least: DisplayOut
    middle: DisplayOut
    largest: DisplayOut
    lead: str


class ThreadCommand(Schema):
    """What to set next."""

    label: str
    display: DisplayOut


class ThreadReadingOut(Schema):
    """A reading of a thread as it is kept."""

    id: int
    piece: int
    measured: DisplayOut
    pitch_diameter: DisplayOut
    off: DisplayOut
    state: str


class ThreadSizeOut(Schema):
    """The readings of a thread, its limits, and what to set."""

    pitch_low: DisplayOut
    pitch_high: DisplayOut
    target: ThreadTarget | None
    no_wires: str
    tapers: bool
    pitch_diameter: DisplayOut | None
    off: DisplayOut | None
    state: str
    says: str
    commands: list[ThreadCommand]
    kept: list[ThreadReadingOut]
    next_piece: int


@router.post(PLACE + "/thread-size", response=ThreadSizeOut)
def thread_size(request: HttpRequest, job_id: int, operation: str, payload: ThreadSizeIn) -> dict[str, Any]:
    """What a reading says of the pitch diameter, and what to command next; readings that were kept stand below."""
    revision = actions.newest(job_id)
    document, entry = operation_with(revision, operation, "thread size")
    tried = tried_with(payload.dict(), document, lambda: state_of(revision)["tape"]["seconds"])
    setup = setup_of(document, entry, tried, shop())
    f: ThreadFeature = setup.feature
    system = "inch" if payload.units == "inch" else "metric"
    wire = _read(payload.wire, WIRE, system, "wire")
    target, no_wires = _target(f, wire)
    found = _correction(f, payload, wire, system)
    rows = list(Measurement.objects.filter(job_id=job_id, operation=operation).order_by("piece", "pk"))
    return {
        "pitch_low": display(f.limits.pitch.low or 0.0, "size"),
        "pitch_high": display(f.limits.pitch.high or 0.0, "size"),
        "target": target,
        "no_wires": no_wires,
        "tapers": f.thread.of.taper,
        "pitch_diameter": display(round(found.pitch_diameter, 4), "size") if found and found.pitch_diameter else None,
        "off": _signed(found.off) if found else None,
        "state": found.state if found else "",
        "says": found.says if found else "Measure over three wires, or say what the gauges did.",
        "commands": _commands(entry["operation"], found, setup) if found else [],
        "kept": [_kept(f, row) for row in rows] if target else [],
        "next_piece": max((row.piece for row in rows), default=0) + 1,
    }


def _read(value: Any, asked: Asked, system: str, field: str) -> float | None:
    return None if value in (None, "") else float(read_asked(value, asked, system, field))


def _target(f: ThreadFeature, wire: float | None) -> tuple[dict[str, Any] | None, str]:
    pitch = f.limits.pitch
    try:
        low, middle, high = (over_wires(f.thread, size or 0.0, wire, f.internal) for size in (pitch.low, pitch.middle, pitch.high))
    except CuttingError as refused:
        if refused.field == "wire":
            raise
        return None, refused.message
    lead = f"{1000.0 * middle.lead_correction:.1f} µm of it for the lead" if middle.lead_correction > 0.001 else ""
    sizes = {"wire": middle.wire, "set_wire": middle.set_wire, "least": low.measure, "middle": middle.measure, "largest": high.measure}
    shown = {name: display(round(value, 4), "size") for name, value in sizes.items()}
    return {"where": "between balls" if f.internal else "over wires", "lead": lead, **shown}, ""


def _correction(f: ThreadFeature, payload: ThreadSizeIn, wire: float | None, system: str) -> Correction | None:
    measured = _read(payload.measured, OVER, system, "measured")
    turns = _read(payload.turns, TURNS, system, "turns")
    gauged = Gauged(payload.gauged) if payload.gauged else None
    if measured is None and turns is None and gauged is None:
        return None
    return correct(f.thread, f.limits, f.internal, Reading(measured, wire, gauged, turns))


def _signed(value: float) -> Display:
    shown = display(1000.0 * abs(value), "small_length")
    sign = "+" if value > 0 else "−" if value < 0 else "±"
    return Display(sign + shown.metric, sign + shown.inch)


def _commands(kind: str, found: Correction, setup: Any) -> list[dict[str, Any]]:
    """What to set off, in the words of the machine."""
    if found.state == "good" and abs(found.metal) < 1e-6:
        return []
    radial, axial = ACTS[kind]
    if not radial:
        said = Display("another tap, or another drill: a tap makes its own size", "another tap, or another drill: a tap makes its own size")
        return [{"label": "what helps", "display": said}]
    made = [{"label": radial, "display": _signed(found.deeper)}]
    if axial:
        made.append({"label": axial, "display": _signed(found.along)})
    if kind == "mill thread":
        now = setup.settings.offset
        if now is not None:
            made.append({"label": "the path's offset, then", "display": display(round(now + found.deeper, 4), "size")})
    return made


def _kept(f: ThreadFeature, row: Measurement) -> dict[str, Any]:
    """A kept reading: what was commanded then is the measure at the middle, over the wires that were used."""
    size = f.limits.pitch.middle + row.measured - row.commanded
    low, high = f.limits.pitch.low or 0.0, f.limits.pitch.high or 0.0
    cut_on = (size > high) != f.internal
    state = "good" if low <= size <= high else "cut on" if cut_on else "beyond"
    return {
        "id": row.pk,
        "piece": row.piece,
        "measured": display(row.measured, "size"),
        "pitch_diameter": display(round(size, 4), "size"),
        "off": _signed(size - f.limits.pitch.middle),
        "state": state,
    }

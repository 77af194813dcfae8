"""Trials over HTTP: begun, logged, told, ended; what they teach, accepted and taken back."""

from __future__ import annotations

from typing import Any

from django.http import HttpRequest, HttpResponse, JsonResponse
from ninja import Router, Status

from cutting.belief.bands import band
from cutting.learning.entries import WATCHED, words
from cutting.learning.gauge import gauge_study
from cutting.quantities import Asked, Display, display, read_asked
from cutting.quantities.kinds import KINDS
from server.errors import Refusal
from server.people.roles import require_engineer, require_operator
from server.trials import kept, schemas, table, teaching
from server.trials.held import exported, holding
from server.trials.models import Entry, Photo, Trial
from server.trials.next_trial import what_to_try
from server.trials.reading import READ, SEEN
from server.trials.series import start_series
from server.trials.shown import row_of, shown, told_entry
from server.units import Units

router = Router()
learning = Router()
READING = Asked("reading", "length", -3150.0, 3150.0)
ZONE = Asked("zone", "length", 0.0, 100.0, above=True)


@router.get("", response=schemas.TrialsOut)
def list_trials(request: HttpRequest, open_only: bool = False, job: int | None = None, offset: int = 0, limit: int = 50) -> dict[str, Any]:
    """Trials, those that wait for somebody first, then the newest."""
    found = Trial.objects.select_related("job", "author").prefetch_related("entries")
    if open_only:
        found = found.filter(verdict=Trial.Verdict.OPEN)
    if job is not None:
        found = found.filter(job_id=job)
    part = found[max(offset, 0) : max(offset, 0) + min(max(limit, 1), 200)]
    rows = [row_of(one, sorted(one.entries.all(), key=lambda row: row.pk)) for one in part]
    return {"total": found.count(), "items": sorted(rows, key=lambda row: (not row["overdue"], row["verdict"] != "open", -row["id"]))}


@router.get("/words", response=schemas.VocabularyOut)
def vocabulary(request: HttpRequest) -> dict[str, Any]:
    """The words and readings that an entry may hold."""
    fields = [{"name": name, "label": one.label, "unit": _unit(one.kind)} for name, one in READ.items()]
    return {"lists": {name: list(words(name).values()) for name in SEEN}, "fields": fields, "watched": list(WATCHED)}


def _unit(kind: str) -> Display:
    return Display(KINDS[kind].metric, KINDS[kind].inch)


@router.post("", response={201: schemas.TrialOut})
def start_trial(request: HttpRequest, payload: schemas.TrialIn) -> Status:
    """Begin a trial of an operation as it stands."""
    require_operator(request)
    return Status(201, shown(kept.start_trial(payload, request.user), _system(payload.units)))


@router.post("/series", response={201: schemas.TrialOut})
def begin_series(request: HttpRequest, payload: schemas.SeriesIn) -> Status:
    """Begin a trial for each of several ways, in an order left to chance."""
    require_operator(request)
    return Status(201, shown(start_series(payload, request.user), _system(payload.units)))


@router.get("/export")
def export(request: HttpRequest, form: str = "csv", trial: int | None = None) -> HttpResponse:
    """All entries, or those of one trial, as a table."""
    return table.answer(Entry.objects.all() if trial is None else kept.find(trial).entries.all(), form)


@router.get("/{trial_id}", response=schemas.TrialOut)
def read_trial(request: HttpRequest, trial_id: int, units: Units = "mm") -> dict[str, Any]:
    """A trial with all that is known of it."""
    return shown(kept.find(trial_id), _system(units))


@router.post("/{trial_id}/entries", response={201: schemas.EntryOut})
def log_entry(request: HttpRequest, trial_id: int, payload: schemas.EntryIn) -> Status:
    """Keep what was seen; sent twice it is there once."""
    require_operator(request)
    trial = kept.find(trial_id)
    return Status(201, told_entry(kept.log_entry(trial, payload, request.user)))


@router.post("/{trial_id}/entries/{entry_id}/strike", response=schemas.TrialOut)
def strike_entry(request: HttpRequest, trial_id: int, entry_id: int, units: Units = "mm") -> dict[str, Any]:
    """Strike an entry out, or let it stand again."""
    require_operator(request)
    trial = kept.find(trial_id)
    kept.strike(trial, entry_id, request.user)
    return shown(trial, _system(units))


@router.post("/{trial_id}/verdict", response=schemas.TrialOut)
def end_trial(request: HttpRequest, trial_id: int, payload: schemas.VerdictIn, units: Units = "mm") -> dict[str, Any]:
    """Say how it ends."""
    require_engineer(request)
    trial = kept.find(trial_id)
    kept.end_trial(trial, payload.verdict, payload.words, request.user)
    return shown(trial, _system(units))


@router.get("/photos/{photo_id}")
def read_photo(request: HttpRequest, photo_id: int) -> HttpResponse:
    """A picture that was taken at the machine."""
    found = Photo.objects.filter(pk=photo_id).first()
    if found is None:
        raise Refusal(404, "There is no such photo.")
    answer = HttpResponse(bytes(found.content), content_type=found.media_type)
    answer["Cache-Control"] = "private, max-age=86400"
    return answer


@learning.get("", response=schemas.LearningOut)
def read_learning(request: HttpRequest) -> dict[str, Any]:
    """What the trials say, and what of it holds."""
    held = {(one.quantity, one.tool, one.metal, one.machine): one for one in holding()}
    return {
        "proposals": [_proposal(one, held) for one in teaching.proposals()],
        "taught": [_taught(one) for one in held.values()],
    }


@learning.post("", response={201: schemas.LearningOut})
def accept(request: HttpRequest, payload: schemas.AcceptIn) -> Status:
    """Let what the trials say of a quantity act from now on."""
    require_engineer(request)
    teaching.accept(payload.quantity, payload.tool, payload.metal, payload.machine, request.user)
    return Status(201, read_learning(request))


@learning.get("/export")
def export_learned(request: HttpRequest) -> HttpResponse:
    """What was accepted and holds, in the open form that `./bench solve` reads as `learned` too."""
    answer = JsonResponse({"beliefs": exported()})
    answer["Content-Disposition"] = 'attachment; filename="learned.json"'
    return answer


@learning.post("/import", response={201: schemas.LearningOut})
def import_learned(request: HttpRequest, payload: schemas.BeliefsIn) -> Status:
    """Let what was learned elsewhere act here."""
    require_engineer(request)
    teaching.bring_in(payload.beliefs, request.user)
    return Status(201, read_learning(request))


@learning.post("/{taught_id}/undo", response=schemas.LearningOut)
def take_back(request: HttpRequest, taught_id: int) -> dict[str, Any]:
    """Take back what was learned."""
    require_engineer(request)
    teaching.undo(taught_id, request.user)
    return read_learning(request)


@learning.get("/next", response=schemas.NextOut)
def next_trial(request: HttpRequest, job: int, operation: str) -> dict[str, Any]:
    """The trial that would change the choice of this operation's tool most, and what it is worth."""
    return {"said": what_to_try(job, operation)}


@learning.post("/gauge", response=schemas.GaugeOut)
def study_gauge(request: HttpRequest, payload: schemas.GaugeIn) -> dict[str, Any]:
    """What an instrument sees of a zone."""
    system = _system(payload.units)
    readings = [
        [[read_asked(one, READING, system, f"readings.{p}.{k}.{r}") for r, one in enumerate(repeats)] for k, repeats in enumerate(parts)]
        for p, parts in enumerate(payload.readings)
    ]
    zone = read_asked(payload.zone, ZONE, system, "zone") if payload.zone not in (None, "") else None
    found = gauge_study(readings, zone)
    share = "" if found.share is None else f"{100 * found.share:.0f} %"
    sizes = {name: display(1000.0 * getattr(found, name), "small_length") for name in ("repeatability", "reproducibility", "parts")}
    return {**sizes, "share": share, "verdict": found.verdict}


def _system(units: str) -> str:
    return "inch" if units == "inch" else "metric"


def _proposal(one: teaching.Proposal, held: dict[Any, Any]) -> dict[str, Any]:
    taught = one.taught
    now = held.get((one.quantity, taught.tool, taught.metal, taught.machine))
    return {
        "quantity": one.quantity,
        "title": band(one.quantity).title,
        "level": taught.level,
        "tool": taught.tool,
        "metal": taught.metal,
        "machine": taught.machine,
        "factor": f"× {taught.centre:.2f}",
        "interval": teaching.interval(taught.mean, taught.spread),
        "shipped": teaching.shipped(one.quantity),
        "count": taught.count,
        "weight": f"{100 * taught.weight:.0f} %",
        "says": " ".join(one.said),
        "strange": list(one.strange),
        "holds": f"× {now.centre:.2f}" if now else "",
        "newer": now is not None and (sorted(now.trials) != sorted(one.trials) or abs(now.centre / taught.centre - 1.0) > 0.005),
    }


def _taught(one: Any) -> dict[str, Any]:
    where = ", ".join(part for part in (one.tool, one.metal, one.machine) if part) or "everything in the shop"
    return {
        "id": one.pk,
        "title": band(one.quantity).title,
        "level": one.level,
        "where": where,
        "factor": f"× {one.centre:.2f}",
        "count": one.count,
        "weight": f"{100 * one.weight:.0f} %",
        "author": one.author.get_username(),
        "at": f"{one.at:%Y-%m-%d}",
    }

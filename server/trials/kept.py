"""Changes of trials: permission is checked by the caller's door; what was sent twice is there once."""

from __future__ import annotations

import base64
import binascii
from datetime import datetime, timedelta
from typing import Any

from django.contrib.auth.models import AbstractBaseUser
from django.db import IntegrityError, transaction
from django.utils import timezone

from cutting.learning.observed import load_share, median_of
from cutting.operations.frame.outcome import Outcome
from cutting.quantities import Asked, read_asked
from server.errors import Refusal
from server.jobs.document.outcomes import outcome_and_numbers
from server.jobs.document.plan import entry_of, setup_of
from server.jobs.kept import actions
from server.jobs.models import Job, Revision
from server.shop import Shop, shop
from server.trials.models import Entry, Photo, Trial
from server.trials.reading import READ, read_entry
from server.trials.schemas import EntryIn, TrialIn

PREDICTED = (
    "median_parts", "change_parts", "operation_time", "operation_cost", "roughness", "size_error", "burr", "pip_on_part",
    "torque", "thrust", "cutting_force", "drift",
)  # fmt: skip
COUNTED = {
    "edges": Asked("edges to their end", "count", 1, 1000, whole=True),
    "count": Asked("pieces on one edge", "count", 1, 10_000_000, whole=True),
}
MOST_ENTRIES = 20_000
EARLY = timedelta(days=60)  # before which nothing of a trial can have been typed
PHOTO = b"\xff\xd8\xff"  # how a JPEG begins


def start_trial(given: TrialIn, author: AbstractBaseUser, tried: dict[str, Any] | None = None, variant: str = "") -> Trial:
    """A trial of an operation as it stands, or as it is `tried`, its prediction frozen beside it. Raises `Refusal` or `CuttingError`."""
    revision = actions.newest(given.job)
    document, entry = entry_of(revision.document, given.operation)
    setup = setup_of(document, entry, tried or None, shop())
    asked = COUNTED.get(given.watched) or READ[given.watched]
    bound = read_asked(given.bound, asked, "inch" if given.units == "inch" else "metric", "bound")
    against = None
    if given.against is not None and (against := Trial.objects.filter(pk=given.against).first()) is None:
        raise Refusal(404, "There is no trial to compare with by that number.")
    return Trial.objects.create(
        job=Job.objects.get(pk=given.job),
        operation=given.operation,
        title=entry["title"],
        revision=revision.number,
        question=given.question.strip(),
        change=given.change.strip(),
        watched=given.watched,
        bound=bound,
        against=against,
        variant=variant,
        tried=tried or {},
        prediction=predicted(*outcome_and_numbers(setup)),
        tool=setup.edge.name,
        metal=setup.work.material.name,
        machine=setup.machine.name,
        author=author,
    )


def predicted(outcome: Outcome, numbers: Any) -> dict[str, list[Any]]:
    """The figures that a trial is held against: label, value, kind, and the band where there is one."""
    found: dict[str, list[Any]] = {}
    for name in PREDICTED:
        if (one := outcome.results.get(name)) is not None:
            band = [one.low.metric, one.low.inch, one.high.metric, one.high.inch] if one.low and one.high else None
            value = median_of(numbers) if name == "median_parts" else float(one.value)
            found[name] = [one.label, value, one.kind, band]
    if (share := load_share(outcome)) is not None:
        found["load"] = ["spindle load", share, "share", None]
    return found


def setup_at(trial: Trial, stock: Shop | None = None) -> Any:
    """The set-up that a trial asks about, as it stood in its revision. Raises `CuttingError` or `Refusal`."""
    document = Revision.objects.get(job_id=trial.job_id, number=trial.revision).document
    document, entry = entry_of(document, trial.operation)
    return setup_of(document, entry, trial.tried or None, stock or shop())


def find(trial_id: int) -> Trial:
    """A trial. Raises a 404 refusal."""
    found = Trial.objects.select_related("job", "author", "against").filter(pk=trial_id).first()
    if found is None:
        raise Refusal(404, "There is no such trial.")
    return found


def log_entry(trial: Trial, given: EntryIn, author: AbstractBaseUser) -> Entry:
    """Keep what was seen; an entry of the same key is given back as it is. Raises `Refusal` or `CuttingError`."""
    if (there := Entry.objects.filter(trial=trial, key=given.key).first()) is not None:
        return there
    if trial.entries.count() >= MOST_ENTRIES:
        raise Refusal(422, f"This trial holds {MOST_ENTRIES} entries; end it and start another.")
    data = read_entry(given.read, given.seen, [one.model_dump() for one in given.sizes], given.units)
    photo = _photo(given.photo)
    if not (data["read"] or data["seen"] or data["sizes"] or given.words.strip() or photo or given.count):
        raise Refusal(
            422, "The entry is empty: tell the count, a reading, what was seen, or a word.", [{"field": "count", "message": "is 0"}]
        )
    try:
        with transaction.atomic():
            row = Entry.objects.create(
                trial=trial,
                key=given.key,
                edge=given.edge.strip() or "1",
                count=given.count,
                data=data,
                words=given.words.strip(),
                happened=_happened(given.happened, trial),
                author=author,
            )
            if photo:
                Photo.objects.create(entry=row, media_type="image/jpeg", content=photo)
    except IntegrityError:  # the same entry came by another way in the same moment
        return Entry.objects.get(trial=trial, key=given.key)
    return row


def _happened(said: datetime | None, trial: Trial) -> datetime:
    """When it was typed: a clock of the tablet that is wrong by days is not believed."""
    now = timezone.now()
    if said is None:
        return now
    aware = said if timezone.is_aware(said) else timezone.make_aware(said)
    return aware if trial.at - EARLY < aware < now + timedelta(minutes=5) else now


def _photo(text: str) -> bytes:
    if not text:
        return b""
    try:
        found = base64.b64decode(text, validate=True)
    except (binascii.Error, ValueError) as error:
        raise Refusal(422, "The photo is damaged; take it again.", [{"field": "photo", "message": "is no picture"}]) from error
    if not found.startswith(PHOTO):
        raise Refusal(422, "The photo is no JPEG.", [{"field": "photo", "message": "is no JPEG"}])
    return found


def strike(trial: Trial, entry_id: int, who: AbstractBaseUser) -> None:
    """Strike an entry out, or let it stand again; it is never deleted. Raises a 404 refusal."""
    row = Entry.objects.filter(trial=trial, pk=entry_id).first()
    if row is None:
        raise Refusal(404, "The trial has no such entry.")
    row.struck_at, row.struck_by = (None, "") if row.struck_at else (timezone.now(), who.get_username())
    row.save(update_fields=["struck_at", "struck_by"])


def end_trial(trial: Trial, verdict: str, words: str, who: AbstractBaseUser) -> None:
    """Keep the verdict; told again it is another one."""
    trial.verdict, trial.verdict_words, trial.closed_at, trial.closed_by = verdict, words.strip(), timezone.now(), who
    trial.save(update_fields=["verdict", "verdict_words", "closed_at", "closed_by"])

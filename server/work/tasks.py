"""Handing long work to the workers, doing it, and taking up again what a dead worker left.

The queue is a table of the application's own database (the package that will be Django's own from 6.0 on), so a piece of work and its
place in the queue are written together, and workers on several machines need nothing but the database.
"""

from __future__ import annotations

import gc
import logging
import time
from datetime import timedelta

from django.apps import apps
from django.conf import settings
from django.db import transaction
from django.utils import timezone
from django.utils.module_loading import import_string
from django_tasks import task
from django_tasks_db.models import DBTaskResult

from cutting.errors import CuttingError
from server.errors import Refusal
from server.work.models import LongWork
from server.work.progress import Cancelled, Progress

log = logging.getLogger(__name__)
State = LongWork.State
SILENCE = timedelta(seconds=10)  # after which running work has lost its worker
MOST_ATTEMPTS = 3  # a piece of work that kills its workers is given up
GIVEN_UP = f"Given up after {MOST_ATTEMPTS} attempts: it took too long or too much memory. Nothing was written."


def start(row: LongWork) -> None:
    """Write a piece of work down, and put it into the queue: both or neither."""
    with transaction.atomic():
        row.state = State.WAITING
        row.save()
        put(row)


def put(row: LongWork) -> None:
    """Put a piece of work into the queue."""
    carry_out.enqueue(row._meta.label, row.pk)


@task()
def carry_out(label: str, pk: int) -> str:
    """Take a piece of work up, unless another worker has it, and give what became of it."""
    row = claim(label, pk)
    if row is None:
        return "was taken up already"
    execute(row)
    return str(row.state)


def claim(label: str, pk: int) -> LongWork | None:
    """The piece of work, now ours; none where it does not wait."""
    rows = apps.get_model(label).objects.filter(pk=pk)
    if not rows.filter(state=State.WAITING).update(state=State.RUNNING, beat=timezone.now(), done=0):
        return None
    row: LongWork = rows.get()
    row.attempts += 1
    row.save(update_fields=["attempts"])
    return row


def execute(row: LongWork, telling: bool = True) -> None:
    """Do what a row asks for, and write down what came of it."""
    began = time.monotonic()
    gc.disable()  # a hundred thousand records hold no cycles; walking them again and again doubles the time
    try:
        with Progress(row if telling else None) as progress:
            import_string(row.DONE_BY)(row, progress)
            row.done = row.total = max(progress.total, progress.done)
    except Cancelled:
        row.state, row.message = State.CANCELLED, "Stopped on request; nothing was written."
    except Refusal as refusal:
        row.state, row.message = State.REFUSED, refusal.title[:400]
    except CuttingError as error:
        row.state, row.message = State.REFUSED, str(error)[:400]
    except MemoryError:
        row.state = State.REFUSED
        row.message = f"It needs more than the {settings.WORK_MEGABYTES} MB that work may take. Nothing was written."
    except Exception:
        log.exception("%s %s failed", row._meta.label, row.pk)
        row.state, row.message = State.REFUSED, "Server error; see the server log. Nothing was written."
    finally:
        gc.enable()
    row.seconds = time.monotonic() - began
    row.beat = timezone.now()
    row.save()


def kinds() -> list[type[LongWork]]:
    """Every kind of long work."""
    return [model for model in apps.get_models() if issubclass(model, LongWork)]


_seen: dict[tuple[str, int], tuple[object, float]] = {}  # of running work: its last sign of life, and when that was seen first, s


def rescue() -> None:
    """Put back what lost its worker; give up what lost too many. Any worker may do this at any time.

    Lost is what gives no new sign of life while this worker looks on: other machines' clocks differ, and clocks are set.
    """
    now, queued = timezone.now(), DBTaskResult.objects.ready().exists()
    running: set[tuple[str, int]] = set()
    for model in kinds():
        rows = model.objects
        for pk, beat, attempts in rows.filter(state=State.RUNNING).values_list("pk", "beat", "attempts"):
            running.add((model._meta.label, pk))
            if not _silent((model._meta.label, pk), beat):
                continue
            lost = rows.filter(pk=pk, state=State.RUNNING, beat=beat)
            if attempts >= MOST_ATTEMPTS:
                lost.update(state=State.REFUSED, message=GIVEN_UP)
                continue
            with transaction.atomic():
                if lost.update(state=State.WAITING, beat=now):
                    put(rows.get(pk=pk))
        if queued:
            continue
        # a worker died between the queue and the row; where a clock was set it is put twice, and taken up once
        for row in rows.filter(state=State.WAITING, at__lt=now - SILENCE).exclude(beat__gt=now - SILENCE):
            with transaction.atomic():
                rows.filter(pk=row.pk).update(beat=now)
                put(row)
    for gone in set(_seen) - running:
        del _seen[gone]
    dead = DBTaskResult.objects.running().filter(started_at__lt=now - timedelta(seconds=settings.WORK_SECONDS) - SILENCE)
    dead.update(status="FAILED", finished_at=now, exception_class_path="server.work.tasks.WorkerDied")


def _silent(what: tuple[str, int], beat: object) -> bool:
    """Whether running work has given no new sign of life for as long as this worker knows it, and that long enough."""
    known, since = _seen.get(what, (None, 0.0))
    if known != beat or what not in _seen:
        _seen[what] = beat, time.monotonic()
        return False
    return time.monotonic() - since > SILENCE.total_seconds()


class WorkerDied(Exception):
    """What stands in the queue's record of a task whose worker was killed."""

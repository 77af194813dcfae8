"""What every piece of long work has: how far it is, who still works at it, what came of it."""

from __future__ import annotations

from typing import ClassVar

from django.db import models


class LongWork(models.Model):
    """A row per piece of work. The task queue only says that it is to be done; what is asked and what came of it stands here."""

    class State(models.TextChoices):
        WAITING = "waiting"  # for a worker to take it up
        RUNNING = "running"
        PREVIEWED = "previewed"  # for a person to say yes
        DONE = "done"
        REFUSED = "refused"
        CANCELLED = "cancelled"

    state = models.CharField(max_length=10, choices=State, default=State.WAITING, db_index=True)
    done = models.PositiveIntegerField(default=0)
    total = models.PositiveIntegerField(default=0)
    message = models.CharField(max_length=400, blank=True)
    cancel = models.BooleanField(default=False)
    attempts = models.PositiveSmallIntegerField(default=0, help_text="how often a worker took it up; more than one where workers died")
    at = models.DateTimeField(auto_now_add=True)
    beat = models.DateTimeField(null=True, help_text="last sign of life of the worker that holds it")
    seconds = models.FloatField(default=0)

    class Meta:
        abstract = True

    # the function that a worker runs, by its place, as settings name things: it takes the row and its `Progress`, counts the steps,
    # and leaves state, message and result of what came of it
    DONE_BY: ClassVar[str]

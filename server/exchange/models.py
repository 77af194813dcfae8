"""One row per import or export: what was asked, how far it is, what came of it."""

from __future__ import annotations

from django.conf import settings
from django.db import models


class Run(models.Model):
    """A run of the executor. `content` and `result` are files, `fates` the preview's rows; all packed with zlib."""

    class State(models.TextChoices):
        WAITING = "waiting"  # for the executor to take it up
        RUNNING = "running"
        PREVIEWED = "previewed"
        DONE = "done"
        REFUSED = "refused"
        CANCELLED = "cancelled"

    class Work(models.TextChoices):
        PREVIEW = "preview"
        APPLY = "apply"
        EXPORT = "export"

    work = models.CharField(max_length=8, choices=Work)
    state = models.CharField(max_length=10, choices=State, default=State.WAITING, db_index=True)
    table = models.CharField(max_length=12, blank=True, help_text="blank: as the file says, or everything")
    format = models.CharField(max_length=5)
    file_name = models.CharField(max_length=160)
    content = models.BinaryField(null=True)
    result = models.BinaryField(null=True)
    fates = models.BinaryField(null=True)
    writes = models.BinaryField(null=True, help_text="what the preview would write")
    counts = models.JSONField(default=dict)
    stamps = models.JSONField(default=dict, help_text="of the rooms, when the preview was made")
    leave_out_refused = models.BooleanField(default=False)
    done = models.PositiveIntegerField(default=0)
    total = models.PositiveIntegerField(default=0)
    message = models.CharField(max_length=400, blank=True)
    cancel = models.BooleanField(default=False)
    author = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT)
    at = models.DateTimeField(auto_now_add=True)
    beat = models.DateTimeField(null=True, help_text="last sign of life of the executor that holds it")
    seconds = models.FloatField(default=0)

    class Meta:
        ordering = ["-pk"]

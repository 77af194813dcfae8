"""One row per import or export: what was asked, how far it is, what came of it."""

from __future__ import annotations

from django.conf import settings
from django.db import models

from server.work.models import LongWork


class Run(LongWork):
    """An import or an export. `content` and `result` are files, `fates` the preview's rows; all packed with zlib."""

    class Work(models.TextChoices):
        PREVIEW = "preview"
        APPLY = "apply"
        EXPORT = "export"

    work = models.CharField(max_length=8, choices=Work)
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
    author = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT)

    class Meta:
        ordering = ["-pk"]

    DONE_BY = "server.exchange.runs.carry_out"

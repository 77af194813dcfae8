"""A trial is a question with its prediction frozen; entries are only added, and struck out where they were wrong."""

from __future__ import annotations

from django.conf import settings
from django.db import models

from server.jobs.models import Job


class Trial(models.Model):
    """A question put to the machine about one operation as it stood in one revision of its job."""

    class Verdict(models.TextChoices):
        OPEN = "open"
        KEEP = "keep"
        GO_BACK = "go back"
        ASK_AGAIN = "ask again"

    job = models.ForeignKey(Job, on_delete=models.CASCADE, related_name="trials")
    operation = models.CharField(max_length=20)
    title = models.CharField(max_length=80, help_text="of the operation, as it stood")
    revision = models.PositiveIntegerField()
    question = models.CharField(max_length=200)
    change = models.CharField(max_length=200, blank=True, help_text="the one thing that is different, and why")
    watched = models.CharField(max_length=20, help_text="what the stop rule looks at")
    bound = models.FloatField()
    against = models.ForeignKey("self", null=True, on_delete=models.SET_NULL, help_text="the trial that it is compared with")
    variant = models.CharField(max_length=60, blank=True, help_text="which way it is, of a series")
    tried = models.JSONField(default=dict, help_text="what is set otherwise than in the plan, and another tool")
    order = models.JSONField(default=list, help_text="of a series: the ways in the order left to chance, bar by bar")
    prediction = models.JSONField(help_text="name to [label, value in the core's unit, kind, low, high]")
    tool = models.CharField(max_length=180, db_index=True, help_text="the part with the edge")
    metal = models.CharField(max_length=120, db_index=True)
    machine = models.CharField(max_length=80, db_index=True)
    verdict = models.CharField(max_length=10, choices=Verdict, default=Verdict.OPEN, db_index=True)
    verdict_words = models.CharField(max_length=400, blank=True)
    closed_at = models.DateTimeField(null=True)
    closed_by = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.PROTECT, related_name="+")
    author = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT)
    at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["-pk"]


class Entry(models.Model):
    """One thing that was seen at the machine. `key` is the sender's own name for it: sent twice it is there once."""

    trial = models.ForeignKey(Trial, on_delete=models.CASCADE, related_name="entries")
    key = models.CharField(max_length=64, db_collation="utf8mb4_bin")
    edge = models.CharField(max_length=40)
    count = models.PositiveIntegerField(help_text="pieces or holes of this edge so far")
    data = models.JSONField(help_text="what was read and seen: `read` in the core's units, `seen`, `sizes`, `instruments`")
    words = models.TextField(max_length=2000, blank=True)
    happened = models.DateTimeField(help_text="when it was typed at the machine", db_index=True)
    author = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT)
    at = models.DateTimeField(auto_now_add=True)
    struck_at = models.DateTimeField(null=True)
    struck_by = models.CharField(max_length=150, blank=True)

    class Meta:
        ordering = ["happened", "pk"]
        constraints = [models.UniqueConstraint(fields=["trial", "key"], name="one_entry_per_key")]


class Photo(models.Model):
    """A picture of an edge, a chip or a surface, made small in the page."""

    entry = models.ForeignKey(Entry, on_delete=models.CASCADE, related_name="photos")
    media_type = models.CharField(max_length=20)
    content = models.BinaryField(max_length=1024 * 1024)


class Taught(models.Model):
    """What a person accepted of the trials: a belief of the core, at one level. Undone, not deleted."""

    quantity = models.CharField(max_length=20)
    level = models.CharField(max_length=30)
    tool = models.CharField(max_length=180, blank=True)
    metal = models.CharField(max_length=120, blank=True)
    machine = models.CharField(max_length=80, blank=True)
    centre = models.FloatField()
    spread = models.FloatField()
    count = models.PositiveIntegerField(help_text="observations that it rests on")
    weight = models.FloatField(help_text="of the data against the shipped band, 0 to 1")
    trials = models.JSONField(help_text="ids of the trials")
    author = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT)
    at = models.DateTimeField(auto_now_add=True)
    archived_at = models.DateTimeField(null=True, db_index=True)

    class Meta:
        ordering = ["pk"]


class Instrument(models.Model):
    """An instrument of the shop's own on an open protocol."""

    name = models.CharField(max_length=60)
    protocol = models.CharField(max_length=6)
    host = models.CharField(max_length=45)
    port = models.PositiveIntegerField()
    unit = models.CharField(max_length=4, blank=True)
    paired_by = models.CharField(max_length=150)
    archived_at = models.DateTimeField(null=True)

    class Meta:
        ordering = ["name", "pk"]

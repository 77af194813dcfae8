"""A job is the newest of its revisions; nothing is ever overwritten."""

from __future__ import annotations

from django.conf import settings
from django.db import models

from server.work.models import LongWork


class Job(models.Model):
    """A part on a machine for a batch and a goal. `revision` is the number of the newest revision."""

    name = models.CharField(max_length=120)
    material = models.CharField(max_length=120, db_index=True)
    machine = models.CharField(max_length=80, db_index=True)
    revision = models.PositiveIntegerField(default=1)
    changed = models.DateTimeField(auto_now=True)
    archived_at = models.DateTimeField(null=True, db_index=True)
    stale = models.JSONField(default=list, help_text="changes of tools, material or machine that nobody has looked at yet")
    reckoned = models.JSONField(null=True, help_text="the figures as they were before the first of those changes")

    class Meta:
        ordering = ["name", "pk"]


class Reckoning(models.Model):
    """What the newest revision of a job comes to, kept for lists and comparisons: it can be reckoned anew at any time."""

    job = models.OneToOneField(Job, primary_key=True, on_delete=models.CASCADE, related_name="reckoning")
    revision = models.PositiveIntegerField()
    release = models.CharField(max_length=64, help_text="that reckoned it; empty where something that the job uses was changed since")
    attention = models.PositiveSmallIntegerField(db_index=True)
    goal = models.CharField(max_length=20)
    pieces = models.PositiveIntegerField()
    glance = models.JSONField(help_text="what a list of jobs shows")
    figures = models.JSONField(help_text="what is compared before and after a change")


class Use(models.Model):
    """That the newest revision of a job uses a tool, material or machine by this name."""

    job = models.ForeignKey(Job, on_delete=models.CASCADE, related_name="uses")
    table = models.CharField(max_length=12)
    name = models.CharField(max_length=180)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["job", "table", "name"], name="one_use_per_name")]
        indexes = [models.Index(fields=["table", "name"])]


class Revision(models.Model):
    """One state of a job. An undo is a revision too: `effective` is the revision whose content it shows again."""

    job = models.ForeignKey(Job, on_delete=models.CASCADE, related_name="revisions")
    number = models.PositiveIntegerField()
    document = models.JSONField()
    gesture = models.CharField(max_length=200)
    author = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT)
    at = models.DateTimeField(auto_now_add=True)
    effective = models.PositiveIntegerField()
    before = models.PositiveIntegerField(null=True, help_text="effective revision that an undo returns to")
    redo = models.JSONField(default=list, help_text="effective revisions that a redo walks through")

    class Meta:
        ordering = ["-number"]
        constraints = [models.UniqueConstraint(fields=["job", "number"], name="one_revision_per_number")]


class Note(models.Model):
    """What somebody wrote at the machine."""

    job = models.ForeignKey(Job, on_delete=models.CASCADE, related_name="notes")
    operation = models.CharField(max_length=20, blank=True)
    text = models.TextField(max_length=4000)
    author = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT)
    at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["-at"]


class Measurement(models.Model):
    """A commanded and a measured size, mm, with the words they were entered in."""

    job = models.ForeignKey(Job, on_delete=models.CASCADE, related_name="measurements")
    operation = models.CharField(max_length=20)
    pass_number = models.PositiveSmallIntegerField()
    commanded = models.FloatField()
    measured = models.FloatField()
    commanded_entered = models.CharField(max_length=40)
    measured_entered = models.CharField(max_length=40)
    piece = models.PositiveIntegerField(default=1)
    temperature = models.FloatField(default=20.0, help_text="of the part when it was measured, °C")
    uncertainty = models.FloatField(null=True, help_text="expanded, k = 2, mm; null: the house's own")
    author = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT)
    at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["-at"]


class Dismissal(models.Model):
    """That a person has read a caution on a job; another risk brings the caution back."""

    job = models.ForeignKey(Job, on_delete=models.CASCADE, related_name="dismissals")
    person = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE)
    name = models.CharField(max_length=40)
    risk = models.CharField(max_length=40, help_text="fingerprint of what the caution said, numbers apart")

    class Meta:
        constraints = [models.UniqueConstraint(fields=["job", "person", "name", "risk"], name="one_dismissal_per_risk")]


class Print(models.Model):
    """A drawing of the part, as a file in an open format, kept with the job."""

    job = models.ForeignKey(Job, on_delete=models.CASCADE, related_name="prints")
    name = models.CharField(max_length=160)
    media_type = models.CharField(max_length=40)
    content = models.BinaryField(max_length=10 * 1024 * 1024)
    picture = models.BinaryField(null=True, help_text="of a PDF its first page, drawn once")
    author = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT)
    at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["name", "pk"]


class DrillTrace(models.Model):
    """Thrust and torque over depth as recorded while an operation drilled: `points` in mm, N and N·m, with what drilled."""

    job = models.ForeignKey(Job, on_delete=models.CASCADE, related_name="traces")
    operation = models.CharField(max_length=20)
    drill = models.CharField(max_length=180, db_index=True)
    hole = models.PositiveIntegerField(default=1, help_text="which hole of this drill")
    origin = models.CharField(max_length=120, help_text="a file's name, or the device")
    cutting_speed = models.FloatField()
    feed_per_rev = models.FloatField()
    points = models.JSONField()
    author = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT)
    at = models.DateTimeField(auto_now_add=True)
    archived_at = models.DateTimeField(null=True)

    class Meta:
        ordering = ["pk"]


class Lesson(models.Model):
    """What a person accepted of a fit, for a drill in its materials: `values` is the open form's `learned`. Undone, not deleted."""

    drill = models.CharField(max_length=180, db_index=True)
    materials = models.JSONField()
    values = models.JSONField()
    traces = models.JSONField(help_text="ids of the traces that taught it")
    author = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT)
    at = models.DateTimeField(auto_now_add=True)
    archived_at = models.DateTimeField(null=True, db_index=True)

    class Meta:
        ordering = ["-pk"]


class Sheet(LongWork):
    """A sheet on paper, drawn once for each state of what it shows. `subject` says what of."""

    key = models.CharField(max_length=64, unique=True, db_collation="utf8mb4_bin", help_text="of the subject, as it stood")
    subject = models.JSONField()
    paper = models.CharField(max_length=8)
    units = models.CharField(max_length=4)
    result = models.BinaryField(null=True)

    DONE_BY = "server.jobs.sheet.drawn.draw"


class PartStudy(LongWork):
    """A big study of a whole part as it stands in one revision; `result` is what the page shows of it."""

    class Kind(models.TextChoices):
        CHANCES = "chances"  # how surely the plan holds
        MACHINES = "machines"  # on which machine of the shop it would run best

    job = models.ForeignKey(Job, on_delete=models.CASCADE, related_name="studies")
    kind = models.CharField(max_length=10, choices=Kind)
    revision = models.PositiveIntegerField()
    key = models.CharField(max_length=64, unique=True, db_collation="utf8mb4_bin", help_text="of what is studied, as it stood")
    result = models.JSONField(null=True)

    DONE_BY = "server.jobs.studies.whole_part.carry_out"

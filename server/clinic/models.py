"""How changes turned out, which moves what is suspected next time; and the exercises that people practise on."""

from __future__ import annotations

from django.conf import settings
from django.db import models

from server.jobs.models import Job


class Trouble(models.Model):
    """A cause that was acted on in one operation, with what was seen and found, and how its change turned out."""

    class Turned(models.TextChoices):
        HELPED = "helped"
        NO_CHANGE = "no change"
        WORSE = "worse"

    job = models.ForeignKey(Job, on_delete=models.CASCADE, related_name="troubles")
    operation = models.CharField(max_length=20)
    revision = models.PositiveIntegerField()
    kind = models.CharField(max_length=20, db_index=True)
    cause = models.CharField(max_length=40)
    seen = models.JSONField(default=list, help_text="names of symptoms")
    answers = models.JSONField(default=dict, help_text="look to yes or no")
    turned_out = models.CharField(max_length=10, choices=Turned)
    words = models.CharField(max_length=400, blank=True)
    author = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT)
    at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["-pk"]


class Practice(models.Model):
    """One exercise of one person: all of it follows from kind, cause, seed and steps."""

    person = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="exercises")
    name = models.CharField(max_length=120)
    level = models.PositiveSmallIntegerField()
    kind = models.CharField(max_length=20)
    cause = models.CharField(max_length=40)
    seed = models.PositiveIntegerField()
    steps = models.JSONField(default=list)
    over = models.BooleanField(default=False)
    score = models.FloatField(default=0.0)
    at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["-pk"]
        indexes = [models.Index(fields=["person", "over"], name="practice_of_person")]

"""What every kept thing has: its key, version and archive; the stamp of each room; the history of changes."""

from __future__ import annotations

import uuid

from django.conf import settings
from django.db import models


class Stamp(models.Model):
    """A number per room (crib, shelf, floor) that grows with every change in it.

    `marks` are random words of the latest changes, the newest last: after a restored backup the same number stands for
    another state, the same mark never does.
    """

    room = models.CharField(max_length=10, unique=True)
    number = models.PositiveBigIntegerField(default=0)
    marks = models.JSONField(default=list)

    @classmethod
    def bump(cls, room: str) -> int:
        """The next number of a room; the row stays locked until the transaction ends."""
        cls.objects.get_or_create(room=room)
        row = cls.objects.select_for_update().get(room=room)
        row.number += 1
        row.marks = [*row.marks[-MOST_MARKS:], uuid.uuid4().hex[:12]]
        row.save()
        return int(row.number)

    @classmethod
    def all(cls) -> dict[str, str]:
        """The newest mark of each room."""
        return {row.room: row.marks[-1] if row.marks else "" for row in cls.objects.all()}


MOST_MARKS = 40


class Kept(models.Model):
    """A row that people keep: never deleted, only archived. `stamp` is the room's number at its last change."""

    key = models.CharField(max_length=200, unique=True, db_collation="utf8mb4_bin", help_text="which thing it is, in any spelling")
    version = models.PositiveIntegerField(default=1)
    stamp = models.PositiveBigIntegerField(default=0, db_index=True)
    archived_at = models.DateTimeField(null=True, blank=True)
    entered = models.CharField(max_length=200, blank=True, help_text="by whom and how it came here")
    source = models.CharField(max_length=200)
    from_memory = models.BooleanField(default=False)
    changed = models.DateTimeField(auto_now=True)

    class Meta:
        abstract = True


class Change(models.Model):
    """Who changed what of a kept thing, when: `fields` is name to [before, after]."""

    table = models.CharField(max_length=12)
    thing = models.PositiveBigIntegerField()
    label = models.CharField(max_length=200)
    action = models.CharField(max_length=60)
    fields = models.JSONField(default=dict)
    author = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.PROTECT)
    at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["-pk"]
        indexes = [models.Index(fields=["table", "thing"])]


class Answered(models.Model):
    """What a save was answered, under the key that its sender made for it: asked again, it is not done again."""

    key = models.CharField(max_length=64, db_collation="utf8mb4_bin")
    person = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE)
    door = models.CharField(max_length=200)
    status = models.PositiveSmallIntegerField(default=0)
    content = models.BinaryField(null=True, help_text="the answer, packed")
    media_type = models.CharField(max_length=80, blank=True)
    at = models.DateTimeField(auto_now_add=True, db_index=True)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["person", "key"], name="one_answer_per_key")]

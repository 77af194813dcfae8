"""Materials as rows; numbers that the database never filters on stay in one JSON column."""

from __future__ import annotations

from django.db import models

from cutting.workpiece import materials as core
from server.records.models import Kept


class Material(Kept):
    """A material on the shelf. `numbers` are the core's own names; provenance in `source`."""

    name = models.CharField(max_length=120, db_index=True)
    number = models.CharField(max_length=40, blank=True)
    aliases = models.CharField(max_length=400, blank=True, help_text="separated by ;")
    group = models.PositiveSmallIntegerField()
    letter = models.CharField(max_length=1)
    hardness_low = models.FloatField()
    hardness_high = models.FloatField()
    numbers = models.JSONField()

    class Meta:
        ordering = ["group", "name"]
        indexes = [models.Index(fields=["letter", "group"])]
        constraints = [
            models.CheckConstraint(condition=models.Q(group__gte=1, group__lte=41), name="material_group_known"),
            models.CheckConstraint(condition=models.Q(hardness_low__lte=models.F("hardness_high")), name="material_hardness_order"),
        ]

    def to_core(self) -> core.Material:
        return core.Material(
            name=self.name,
            number=self.number,
            aliases=tuple(a for a in self.aliases.split(";") if a),
            group=core.groups()[self.group],
            hardness_low=self.hardness_low,
            hardness_high=self.hardness_high,
            source=self.source,
            from_memory=self.from_memory,
            **self.numbers,
        )

"""Machines as rows; curves and lists in JSON, validated on the way into the core."""

from __future__ import annotations

from django.db import models

from cutting.machine import machines as core
from server.records.models import Kept


class Machine(Kept):
    """A machine. `numbers` are the core's own names."""

    name = models.CharField(max_length=80, db_index=True)
    description = models.CharField(max_length=200)
    power_curve = models.JSONField()
    curve_at = models.CharField(max_length=8)
    speeds = models.JSONField(default=list)
    feeds = models.JSONField(default=list)
    constant_surface_speed = models.BooleanField(default=True)
    sub_spindle = models.BooleanField(default=False)
    coolant = models.JSONField()
    numbers = models.JSONField()
    condition = models.CharField(max_length=10, default="sound")

    class Meta:
        ordering = ["name"]

    def to_core(self) -> core.Machine:
        return core.Machine(
            name=self.name,
            description=self.description,
            power_curve=tuple((n, p) for n, p in self.power_curve),
            curve_at=self.curve_at,
            speeds=tuple(self.speeds),
            feeds=tuple(self.feeds),
            constant_surface_speed=self.constant_surface_speed,
            sub_spindle=self.sub_spindle,
            coolant=tuple((d, p) for d, p in self.coolant),
            condition=self.condition,
            source=self.source,
            **self.numbers,
        )

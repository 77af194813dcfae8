"""Machines as rows; curves and lists in JSON, validated on the way into the core."""

from __future__ import annotations

from django.db import models

from cutting.machine import machines as core
from cutting.machine import spindle as core_spindle
from server.records.models import Kept


class Machine(Kept):
    """A machine. `numbers` are the core's own names."""

    name = models.CharField(max_length=80, db_index=True)
    description = models.CharField(max_length=200)
    power_curve = models.JSONField()
    curve_at = models.CharField(max_length=8)
    speeds = models.JSONField(default=list)
    feeds = models.JSONField(default=list)
    gear_set = models.JSONField(default=list)
    feed_set = models.JSONField(default=list)
    constant_surface_speed = models.BooleanField(default=True)
    interface = models.CharField(max_length=40, blank=True, default="")
    seats = models.JSONField(default=list)
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
            gear_set=tuple(self.gear_set),
            feed_set=tuple(self.feed_set),
            constant_surface_speed=self.constant_surface_speed,
            interface=self.interface,
            seats=tuple(self.seats),
            further=tuple(one.to_core() for one in self.spindles.all() if one.archived_at is None),
            coolant=tuple((d, p) for d, p in self.coolant),
            condition=self.condition,
            source=self.source,
            **self.numbers,
        )


class Spindle(Kept):
    """A spindle of a machine beside its first. `numbers` are the core's own names."""

    machine = models.ForeignKey(Machine, on_delete=models.CASCADE, related_name="spindles")
    spindle = models.CharField(max_length=10)
    power_curve = models.JSONField()
    curve_at = models.CharField(max_length=8)
    interface = models.CharField(max_length=40, blank=True, default="")
    speeds = models.JSONField(default=list)
    coolant = models.JSONField()
    numbers = models.JSONField()

    class Meta:
        ordering = ["machine_id", "pk"]
        constraints = [models.UniqueConstraint(fields=["machine", "spindle"], name="one_spindle_of_a_kind")]

    def to_core(self) -> core_spindle.Spindle:
        return core_spindle.Spindle(
            name=self.spindle,
            power_curve=tuple((n, p) for n, p in self.power_curve),
            curve_at=self.curve_at,
            interface=self.interface,
            speeds=tuple(self.speeds),
            coolant=tuple((d, p) for d, p in self.coolant),
            source=self.source,
            **self.numbers,
        )


class Control(models.Model):
    """A dialect of the shop's own: how one of its controls wants its programs written. `data` are the core's own entries."""

    name = models.CharField(max_length=40, unique=True)
    data = models.JSONField()
    changed_by = models.CharField(max_length=150)
    changed_at = models.DateTimeField(auto_now=True)

    class Meta:
        ordering = ["name"]

    def __str__(self) -> str:
        return self.name

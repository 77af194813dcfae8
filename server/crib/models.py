"""Tools as rows; columns where the database filters or constrains, ISO 13399 properties in one JSON column."""

from __future__ import annotations

from typing import Any

from django.db import models

from cutting.tooling import items as core
from cutting.tooling.book import BookWindow, Span
from cutting.tooling.designations.insert_code import InsertCode
from cutting.tooling.shapes import SHAPES, edge_length
from server.records.models import Kept


class Geometry(Kept):
    """A chipbreaker geometry; the window is a list of (feed, depth) points for iC 12.7 and corner 0.8."""

    name = models.CharField(max_length=60, db_index=True)
    purpose = models.CharField(max_length=120, blank=True)
    window = models.JSONField()
    groove_rake = models.FloatField()
    edge_radius = models.FloatField(help_text="µm")
    groove_width = models.FloatField(default=0)
    groove_depth = models.FloatField(default=0)
    wiper = models.BooleanField()
    breaker = models.BooleanField()
    flank = models.CharField(max_length=3)
    suits = models.CharField(max_length=6)
    strength = models.FloatField()

    class Meta:
        ordering = ["name"]

    def to_core(self) -> core.Geometry:
        return core.Geometry(
            self.name,
            self.purpose,
            tuple((f, a) for f, a in self.window),
            self.groove_rake,
            self.edge_radius,
            self.wiper,
            self.breaker,
            self.flank,
            self.suits,
            self.strength,
            self.source,
            self.groove_width,
            self.groove_depth,
        )


class Grade(Kept):
    """A cutting material with its ISO 513 spans, as a list of [letter, from, to]; `letters` for filters."""

    name = models.CharField(max_length=60, db_index=True)
    tool_class = models.CharField(max_length=12)
    substrate = models.CharField(max_length=80, blank=True)
    coating = models.CharField(max_length=40, blank=True)
    spans = models.JSONField()
    letters = models.CharField(max_length=6, default="")
    main_letter = models.CharField(max_length=1)
    speed_factor = models.FloatField()
    toughness = models.FloatField()
    heat_factor = models.FloatField()
    temperature_limit = models.FloatField(default=0)

    class Meta:
        ordering = ["name"]

    def to_core(self) -> core.Grade:
        return core.Grade(
            self.name,
            self.tool_class,
            self.substrate,
            tuple((s[0], s[1], s[2]) for s in self.spans),
            self.main_letter,
            self.speed_factor,
            self.toughness,
            self.heat_factor,
            self.source,
            self.coating,
            self.temperature_limit,
        )


class Tool(Kept):
    """A tool of any kind in the crib. What its designation says stands in columns, so that the database can narrow by it."""

    kind = models.CharField(max_length=30)
    name = models.CharField(max_length=180, db_index=True)
    name_key = models.CharField(max_length=180, db_index=True)
    designation = models.CharField(max_length=60)
    inch_designation = models.CharField(max_length=60, blank=True)
    geometry = models.ForeignKey(Geometry, null=True, blank=True, on_delete=models.PROTECT)
    grade = models.ForeignKey(Grade, null=True, blank=True, on_delete=models.PROTECT)
    own_number = models.CharField(max_length=40, blank=True)
    pack_price = models.DecimalField(max_digits=10, decimal_places=2, default=0)
    pack_size = models.PositiveIntegerField(default=1)
    price_date = models.CharField(max_length=10, blank=True)
    bin = models.CharField(max_length=20, blank=True)
    quantity = models.PositiveIntegerField(default=0)
    coolant = models.CharField(max_length=20, default="flood")
    properties = models.JSONField(default=dict)
    successor = models.CharField(max_length=180, blank=True, help_text="the tool that is taken in place of a discontinued one")
    seat = models.CharField(max_length=20, blank=True)
    edges = models.PositiveSmallIntegerField(default=0, help_text="0: round, counted by depth")
    edge_price = models.FloatField(default=0)
    said = models.JSONField(default=dict, help_text="what designation and properties say, read once; see SAID")

    class Meta:
        ordering = ["name"]
        # covers the narrowing for advice: it is counted without touching the rows
        indexes = [models.Index(fields=["kind", "archived_at", "seat", "grade", "geometry"])]
        constraints = [models.CheckConstraint(condition=models.Q(pack_size__gt=0, pack_price__gte=0), name="tool_price_sane")]


# the names in `Tool.said`: letters, counts, and sizes in mm or degrees; `angle` is κr, `section` shank height or bar diameter
SAID = ("shape", "clearance", "hand", "sides", "tips", "circle", "thickness", "nose_radius", "edge_length", "angle", "section", "width",
        "diameter")  # fmt: skip


def code_of(designation: str, seat: str, said: dict[str, Any]) -> InsertCode:
    """The insert code that a row's columns hold."""
    form, circle = SHAPES[said["shape"]], said["circle"]
    edge = said["edge_length"] or edge_length(form, circle)
    return InsertCode(designation, said["shape"], said["clearance"], circle, said["thickness"], said["nose_radius"], edge, said["sides"],
                      form.corners, said["tips"], seat[2:])  # fmt: skip


class Window(Kept):
    """What the shop's supplier recommends for a tool in one machinability group."""

    tool = models.ForeignKey(Tool, on_delete=models.CASCADE, related_name="windows")
    group = models.PositiveSmallIntegerField()
    speed_min = models.FloatField(null=True)
    speed_start = models.FloatField(null=True)
    speed_max = models.FloatField(null=True)
    feed_min = models.FloatField(null=True)
    feed_start = models.FloatField(null=True)
    feed_max = models.FloatField(null=True)
    depth_min = models.FloatField(null=True)
    depth_start = models.FloatField(null=True)
    depth_max = models.FloatField(null=True)

    class Meta:
        ordering = ["tool_id", "group"]
        constraints = [models.UniqueConstraint(fields=["tool", "group"], name="one_window_per_group")]

    def to_core(self) -> BookWindow:
        return BookWindow(
            self.group,
            Span(self.speed_min, self.speed_start, self.speed_max),
            Span(self.feed_min, self.feed_start, self.feed_max),
            Span(self.depth_min, self.depth_start, self.depth_max),
            self.source,
        )


class Assembly(models.Model):
    """A tool put together of its parts, set up: on a machine, in a pocket, at an overhang [mm]."""

    name = models.CharField(max_length=80, unique=True)
    overhang = models.FloatField()
    machine = models.CharField(max_length=80, blank=True)
    pocket = models.CharField(max_length=10, blank=True)
    note = models.CharField(max_length=200, blank=True)
    archived_at = models.DateTimeField(null=True, blank=True)
    changed = models.DateTimeField(auto_now=True)

    class Meta:
        ordering = ["name"]

    @property
    def tool(self) -> dict[str, Tool]:
        """Its parts by role, what carries the edge first."""
        return {part.role: part.tool for part in self.parts.all()}


class AssemblyPart(models.Model):
    """A tool of the crib as a part of an assembly, by its role."""

    assembly = models.ForeignKey(Assembly, on_delete=models.CASCADE, related_name="parts")
    role = models.CharField(max_length=20)
    tool = models.ForeignKey(Tool, on_delete=models.PROTECT, related_name="+")

    class Meta:
        ordering = ["pk"]
        constraints = [models.UniqueConstraint(fields=["assembly", "role"], name="one_part_per_role")]


class HeavyTool(models.Model):
    """A heavy boring tool as it was entered: the open form of the tool with its pass, a number that every save raises."""

    name = models.CharField(max_length=80, unique=True)
    form = models.JSONField()
    revision = models.PositiveIntegerField(default=1)
    archived_at = models.DateTimeField(null=True, blank=True)
    changed = models.DateTimeField(auto_now=True)

    class Meta:
        ordering = ["name"]

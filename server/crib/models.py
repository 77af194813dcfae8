"""Tools as rows; columns where the database filters or constrains."""

from __future__ import annotations

from django.db import models

from cutting.tooling import items as core


class Geometry(models.Model):
    """A chipbreaker geometry; the window is a list of (feed, depth) points for iC 12.7 and corner 0.8."""

    name = models.CharField(max_length=60, unique=True)
    purpose = models.CharField(max_length=120)
    window = models.JSONField()
    groove_rake = models.FloatField()
    edge_radius = models.FloatField(help_text="µm")
    wiper = models.BooleanField()
    breaker = models.BooleanField()
    flank = models.CharField(max_length=3)
    suits = models.CharField(max_length=6)
    strength = models.FloatField()
    source = models.CharField(max_length=200)

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
        )


class Grade(models.Model):
    """A cutting material with its ISO 513 spans, as a list of [letter, from, to]."""

    name = models.CharField(max_length=60, unique=True)
    tool_class = models.CharField(max_length=12)
    substrate = models.CharField(max_length=80)
    spans = models.JSONField()
    main_letter = models.CharField(max_length=1)
    speed_factor = models.FloatField()
    toughness = models.FloatField()
    heat_factor = models.FloatField()
    source = models.CharField(max_length=200)

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
        )


class Insert(models.Model):
    """An insert in stock: one item with its geometry, grade and price per pack."""

    name = models.CharField(max_length=120, unique=True)
    designation = models.CharField(max_length=40, db_index=True)
    geometry = models.ForeignKey(Geometry, on_delete=models.PROTECT)
    grade = models.ForeignKey(Grade, on_delete=models.PROTECT)
    pack_price = models.DecimalField(max_digits=10, decimal_places=2)
    pack_size = models.PositiveSmallIntegerField()
    tipped_edges = models.PositiveSmallIntegerField(null=True, blank=True)
    bin = models.CharField(max_length=20, blank=True)
    quantity = models.PositiveIntegerField(default=0)
    price_date = models.CharField(max_length=10, blank=True)
    source = models.CharField(max_length=200)
    changed = models.DateTimeField(auto_now=True)

    class Meta:
        ordering = ["designation", "name"]
        constraints = [models.CheckConstraint(condition=models.Q(pack_size__gt=0, pack_price__gte=0), name="insert_price_sane")]

    def to_core(self, geometries: dict[int, core.Geometry], grades: dict[int, core.Grade]) -> core.Insert:
        return core.Insert(
            self.name,
            self.designation,
            geometries[self.geometry_id],
            grades[self.grade_id],
            float(self.pack_price),
            self.pack_size,
            self.tipped_edges,
            self.bin,
            self.quantity,
            self.source,
        )


class Holder(models.Model):
    """An external holder with its shortest usual overhang."""

    designation = models.CharField(max_length=40, unique=True)
    coolant = models.CharField(max_length=20)
    overhang = models.FloatField()
    price = models.DecimalField(max_digits=10, decimal_places=2)
    source = models.CharField(max_length=200)
    changed = models.DateTimeField(auto_now=True)

    class Meta:
        ordering = ["designation"]

    def to_core(self) -> core.Holder:
        return core.Holder(self.designation, self.coolant, self.overhang, float(self.price), self.source)

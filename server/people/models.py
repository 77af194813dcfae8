"""What the bench remembers of a person."""

from __future__ import annotations

from django.conf import settings
from django.db import models


class Preferences(models.Model):
    """How a person likes the bench, and what they may do. One row per account."""

    class Role(models.TextChoices):
        ENGINEER = "engineer"
        OPERATOR = "operator"

    class Theme(models.TextChoices):
        LIGHT = "light"
        DARK = "dark"
        SYSTEM = "system"

    user = models.OneToOneField(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="preferences")
    role = models.CharField(max_length=16, choices=Role, default=Role.OPERATOR)
    units = models.CharField(max_length=4, choices=[("mm", "mm"), ("inch", "inch")], default="mm")
    theme = models.CharField(max_length=8, choices=Theme, default=Theme.SYSTEM)
    letter_keys = models.BooleanField(default=True)

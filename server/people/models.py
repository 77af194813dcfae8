"""What the bench remembers of people: how they like it, where they are signed in, and what happened at the door."""

from __future__ import annotations

from datetime import timedelta
from hashlib import sha256

from django.conf import settings
from django.contrib.sessions.base_session import AbstractBaseSession
from django.db import models
from django.utils import timezone
from django.utils.module_loading import import_string


class Preferences(models.Model):
    """How a person likes the bench, and what they may do. One row per account."""

    class Role(models.TextChoices):
        """Each may what the ones before it may."""

        READER = "reader"
        OPERATOR = "operator"
        ENGINEER = "engineer"
        ADMINISTRATOR = "administrator"

    class Theme(models.TextChoices):
        LIGHT = "light"
        DARK = "dark"
        SYSTEM = "system"

    user = models.OneToOneField(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="preferences")
    role = models.CharField(max_length=16, choices=Role, default=Role.OPERATOR)
    units = models.CharField(max_length=4, choices=[("mm", "mm"), ("inch", "inch")], default="mm")
    theme = models.CharField(max_length=8, choices=Theme, default=Theme.SYSTEM)
    letter_keys = models.BooleanField(default=True)
    first_steps = models.BooleanField(default=True, help_text="the first steps are shown until they were gone or put aside")
    panes = models.JSONField(default=dict, help_text="sizes of the panes that the person has moved, px; 0: folded")
    must_change = models.BooleanField(default=False, help_text="the password was given by somebody else: it opens only its own change")


class SecondFactor(models.Model):
    """What a person's own device shares with the bench; `waiting` is a new secret that nobody has confirmed yet."""

    user = models.OneToOneField(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="second_factor")
    secret = models.CharField(max_length=64, blank=True)
    waiting = models.CharField(max_length=64, blank=True)
    used = models.BigIntegerField(default=0, help_text="the step of the clock whose code was used last")
    recovery = models.JSONField(default=list, help_text="hashes of the codes that are left")
    confirmed_at = models.DateTimeField(null=True)


class Session(AbstractBaseSession):
    """Where somebody is signed in. Nobody's sessions hold no more than a token's worth."""

    person = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.CASCADE, related_name="sessions")
    address = models.CharField(max_length=45, blank=True)
    agent = models.CharField(max_length=200, blank=True, help_text="the browser, as it calls itself")
    opened_at = models.DateTimeField(default=timezone.now)
    seen_at = models.DateTimeField(default=timezone.now, help_text="the last thing that the person did")

    @classmethod
    def get_session_store_class(cls) -> type:
        store: type = import_string(f"{settings.SESSION_ENGINE}.SessionStore")
        return store

    @property
    def name(self) -> str:
        """What may be shown of the key: enough to end the session, nothing to take it over with."""
        return sha256(self.session_key.encode()).hexdigest()[:16]

    @property
    def idle(self) -> bool:
        """For how long nobody used it."""
        return timezone.now() - self.seen_at > timedelta(minutes=settings.IDLE_MINUTES)


class Happening(models.Model):
    """Something at the door that an administrator may want to know of, in the names of that moment."""

    class What(models.TextChoices):
        SIGNED_IN = "signed in"
        SIGNED_OUT = "signed out"
        REFUSED = "refused"
        THROTTLED = "throttled"
        FORBIDDEN = "forbidden"
        PASSWORD_CHANGED = "password changed"
        PASSWORD_GIVEN = "password given"
        SESSIONS_ENDED = "sessions ended"
        ADDED = "added"
        RENAMED = "renamed"
        ROLE_CHANGED = "role changed"
        LOCKED = "locked"
        UNLOCKED = "unlocked"
        EXPORTED = "exported"
        BACKED_UP = "backup taken"
        NOT_BACKED_UP = "backup failed"
        FACTOR_SET = "second factor set"
        FACTOR_DROPPED = "second factor off"

    at = models.DateTimeField(auto_now_add=True, db_index=True)
    what = models.CharField(max_length=20, choices=What, db_index=True)
    who = models.CharField(max_length=150, blank=True, help_text="who did it, or the name that was tried")
    about = models.CharField(max_length=150, blank=True, help_text="to whom it was done")
    more = models.CharField(max_length=200, blank=True)
    address = models.CharField(max_length=45, blank=True)

    class Meta:
        ordering = ["-pk"]

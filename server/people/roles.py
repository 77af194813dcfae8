"""Who may do what: engineers change, operators read, note and measure."""

from __future__ import annotations

from django.http import HttpRequest

from server.errors import Refusal
from server.people.models import Preferences


def preferences_of(request: HttpRequest) -> Preferences:
    found, _ = Preferences.objects.get_or_create(user=request.user)
    return found


def require_engineer(request: HttpRequest) -> None:
    """Raise a 403 for anybody who may not change settings."""
    if preferences_of(request).role != Preferences.Role.ENGINEER:
        raise Refusal(403, "Operators may read, note and enter measurements; an engineer changes settings.")

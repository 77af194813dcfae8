"""What happened at the door, written down."""

from __future__ import annotations

from django.conf import settings
from django.http import HttpRequest

from server.people.models import Happening

What = Happening.What


def address_of(request: HttpRequest | None) -> str:
    """Where a request comes from; behind a proxy of the shop's own, what that proxy saw."""
    if request is None:
        return ""
    if settings.BEHIND_PROXY and (told := request.headers.get("X-Forwarded-For")):
        return told.rsplit(",", 1)[-1].strip()[:45]
    return str(request.META.get("REMOTE_ADDR", ""))[:45]


def note(request: HttpRequest | None, what: str, who: str = "", about: str = "", more: str = "") -> None:
    """Write a happening down. `who` is whoever is signed in, unless told."""
    if not who and request is not None and request.user.is_authenticated:
        who = request.user.get_username()
    Happening.objects.create(what=what, who=who[:150], about=about[:150], more=more[:200], address=address_of(request))

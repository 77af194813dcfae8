"""Guesses at one name from many addresses: a pause that grows, which whoever has signed in from this device before does not feel."""

from __future__ import annotations

import math
from datetime import timedelta

from django.http import HttpRequest, HttpResponse
from django.utils import timezone

from server.people.log import What
from server.people.models import Happening

FREE = 20  # wrong ones for a name within the hour, over all addresses, that cost no pause: more than a shop mistypes
WITHIN = timedelta(hours=1)
LONGEST = 900.0  # s
COOKIE, SALT = "known-device", "a device that somebody has signed in from"
KEPT = timedelta(days=365)
MOST_NAMES = 6  # people of one device
BETWEEN = "\n"  # no name holds it


def pause_of(name: str) -> float:
    """Seconds until the next guess at this name is looked at; 0 where there is none to wait for."""
    wrong = Happening.objects.filter(what=What.REFUSED, who=name, at__gt=timezone.now() - WITHIN).order_by("-at")
    count = wrong.count()
    newest = wrong.first()
    if count <= FREE or newest is None:
        return 0.0
    whole = min(2.0 ** (count - FREE), LONGEST)
    return max(whole - (timezone.now() - newest.at).total_seconds(), 0.0)


def whole_seconds(pause: float) -> int:
    """The same, as it is told."""
    return math.ceil(pause)


def knows(request: HttpRequest, name: str) -> bool:
    """Whether somebody of this name has signed in from this device before."""
    return name in _names(request)


def remember(request: HttpRequest, answer: HttpResponse, name: str) -> None:
    """Leave a signed mark on the device. It opens nothing: it only spares the pause."""
    names = [name, *(one for one in _names(request) if one != name)][:MOST_NAMES]
    answer.set_signed_cookie(
        COOKIE, BETWEEN.join(names).encode("unicode_escape").decode("ascii"), salt=SALT, max_age=int(KEPT.total_seconds()),
        httponly=True, samesite="Strict", secure=request.is_secure(), path="/api/session",
    )  # fmt: skip


def _names(request: HttpRequest) -> list[str]:
    told = request.get_signed_cookie(COOKIE, default="", salt=SALT, max_age=KEPT)
    return str(told).encode("ascii", "ignore").decode("unicode_escape").split(BETWEEN) if told else []

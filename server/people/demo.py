"""Fills in the demo people, where nobody of the shop's own works yet: their passwords are no secret."""

from __future__ import annotations

from django.contrib.auth.models import User

from server.people.demo_people import PEOPLE
from server.people.models import Preferences


def fill_people() -> None:
    """The people of the demo."""
    if User.objects.exclude(username__in=[name for name, _, _ in PEOPLE]).exists():
        return
    for name, password, role in PEOPLE:
        if not User.objects.filter(username=name).exists():
            user = User.objects.create_user(name, password=password)
            Preferences.objects.create(user=user, role=role)

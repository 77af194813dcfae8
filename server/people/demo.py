"""The demo people. Their passwords are printed at start: this is a demo on loopback."""

from __future__ import annotations

from django.contrib.auth.models import User

from server.people.models import Preferences

PEOPLE = (("engineer", "turn-the-arrow", Preferences.Role.ENGINEER), ("operator", "read-the-chips", Preferences.Role.OPERATOR))


def fill_people() -> None:
    for name, password, role in PEOPLE:
        if not User.objects.filter(username=name).exists():
            user = User.objects.create_user(name, password=password)
            Preferences.objects.create(user=user, role=role)

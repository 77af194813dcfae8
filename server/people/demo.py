"""Fills in the demo people."""

from __future__ import annotations

from django.contrib.auth.models import User

from server.people.demo_people import PEOPLE
from server.people.models import Preferences


def fill_people() -> None:
    for name, password, role in PEOPLE:
        if not User.objects.filter(username=name).exists():
            user = User.objects.create_user(name, password=password)
            Preferences.objects.create(user=user, role=role)

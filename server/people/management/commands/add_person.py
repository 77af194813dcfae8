"""Adds a person, and prints the password to hand over: how a shop's first administrator comes in."""

from __future__ import annotations

from typing import Any

from django.core.management.base import BaseCommand, CommandError, CommandParser

from server.errors import Refusal
from server.people.administration import add
from server.people.log import What, note
from server.people.models import Preferences


class Command(BaseCommand):
    help = __doc__

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("name")
        parser.add_argument("--role", choices=Preferences.Role.values, default=Preferences.Role.OPERATOR)

    def handle(self, *args: Any, **options: Any) -> None:
        try:
            user, password = add(options["name"], Preferences.Role(options["role"]))
        except Refusal as refusal:
            raise CommandError(refusal.title) from refusal
        note(None, What.ADDED, who="command line", about=user.username, more=options["role"])
        self.stdout.write(f"{user.username}, {options['role']}: {password}\nIt must be changed at first sign-in.")

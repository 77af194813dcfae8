"""Writes down that a backup was taken or failed: who sees to the shop reads it under People."""

from __future__ import annotations

from typing import Any

from django.core.management.base import BaseCommand, CommandParser

from server.people.log import What, note


class Command(BaseCommand):
    help = __doc__
    requires_system_checks: list[str] = []  # it is called every night, beside people at work

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("what", choices=("taken", "failed"))
        parser.add_argument("words")

    def handle(self, *args: Any, **options: Any) -> None:
        note(None, What.BACKED_UP if options["what"] == "taken" else What.NOT_BACKED_UP, who="command line", more=options["words"])

"""The executor: takes up imports and exports until it is stopped."""

from __future__ import annotations

import contextlib
from typing import Any

from django.core.management.base import BaseCommand, CommandParser

from server.exchange.executor import work


class Command(BaseCommand):
    help = __doc__

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("--once", action="store_true", help="end when nothing waits")

    def handle(self, *args: Any, **options: Any) -> None:
        with contextlib.suppress(KeyboardInterrupt):
            work(once=options["once"])

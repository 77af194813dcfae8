"""The workers: take up long work until they are stopped."""

from __future__ import annotations

import os
from typing import Any

from django.core.management.base import BaseCommand, CommandParser

from server.work.worker import serve, supervise


class Command(BaseCommand):
    help = __doc__

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("--processes", type=int, default=min(os.cpu_count() or 1, 4), help="how many at once; one a core, four at most")
        parser.add_argument("--once", action="store_true", help="end when nothing waits")

    def handle(self, *args: Any, **options: Any) -> None:
        if options["once"]:
            serve(once=True)
        else:
            supervise(max(options["processes"], 1))
